"""Addresses of a call's write-up; the first parameter is the call's number."""

from django.urls import path

from web.benches.report.views import customer, draft, times

urlpatterns = [
    path("written/", draft.word, name="word-sentence"),
    path("times/<int:pk>/undo/", times.take_back, name="undo-mark"),
    path("times/<slug:what>/", times.mark, name="mark-time"),
    path("office.csv", times.office_sheet, name="office-sheet"),
    path("customer/link/", customer.customer_link, name="customer-link"),
    path("customer/", customer.customer, name="customer"),
]
