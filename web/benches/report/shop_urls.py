"""The customer's page by its own address."""

from django.urls import path

from web.benches.report.views import customer

urlpatterns = [path("for-you/<uuid:key>/", customer.for_you, name="for-you")]
