"""Addresses of what a shop sees of all its calls: reminders, whether it held, its own record."""

from django.urls import path

from web.benches.prove.views import record

urlpatterns = [
    path("reminders/", record.reminders, name="reminders"),
    path("record/", record.shop_record, name="record"),
    path("calls/<int:number>/held/<slug:answer>/", record.held, name="held"),
]
