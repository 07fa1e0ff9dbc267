"""Addresses of a unit's logs."""

from django.urls import path

from web.benches.trends.views import logs, page

urlpatterns = [
    path("units/<int:pk>/trends/", page.unit_trends, name="unit-trends"),
    path("units/<int:pk>/trends/add/", logs.add, name="add-log"),
    path("units/<int:pk>/trends/tile.json", page.trend_tile, name="trend-tile"),
    path("trends/<int:pk>/", logs.log, name="trend-log"),
    path("trends/<int:pk>/read/", logs.read, name="read-log"),
    path("trends/<int:pk>/stop/", logs.stop, name="stop-log"),
    path("trends/<int:pk>/take/", page.take, name="take-log"),
    path("trends/<int:pk>/undo/", logs.take_back, name="undo-log"),
]
