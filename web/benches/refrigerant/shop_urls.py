"""Addresses of the shop's ledger."""

from django.urls import path

from web.benches.refrigerant.views import ledger

urlpatterns = [
    path("refrigerant/", ledger.show, name="ledger"),
    path("refrigerant/cylinder/", ledger.add_cylinder, name="ledger-cylinder"),
    path("refrigerant/line/", ledger.add_move, name="ledger-move"),
    path("refrigerant/<int:pk>/counter/", ledger.counter, name="ledger-counter"),
    path("refrigerant/read-in/", ledger.read_in, name="ledger-read-in"),
    path("refrigerant/ledger.csv", ledger.as_csv, name="ledger-csv"),
    path("refrigerant/sites/<int:pk>/", ledger.year, name="ledger-year"),
]
