"""Addresses of a call's report."""

from django.urls import path

from web.reports import views

urlpatterns = [
    path("quote.pdf", views.quote_pdf, name="quote-pdf"),
    path("report/", views.report, name="report"),
    path("picture/<slug:stage>/<slug:pane>.svg", views.unit_picture, name="unit-picture"),
    path("call.zip", views.call_zip, name="call-zip"),
    path("report.pdf", views.report_pdf, name="report-pdf"),
]
