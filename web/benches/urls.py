"""Addresses of the benches: those that belong to a call, under its number."""

from django.urls import include, path

from web.benches.controls.views.card import settings_card

OF_A_CALL = ("ice", "defrost", "controls", "probes", "sets", "valve", "charge", "electrical", "refrigerant", "prove", "report", "quote")

urlpatterns = [
    path("", include("web.benches.pressure_chart.urls")),
    path("", include("web.benches.refrigerant.shop_urls")),
    path("", include("web.benches.trends.urls")),
    path("", include("web.benches.prove.shop_urls")),
    path("", include("web.benches.report.shop_urls")),
    path("", include("web.benches.quote.shop_urls")),
    path("units/<int:pk>/settings/", settings_card, name="settings-card"),
    *(path("calls/<int:number>/", include(f"web.benches.{bench}.urls")) for bench in OF_A_CALL),
]
