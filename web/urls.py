"""Every address of the application, by the part of the work it belongs to."""

from django.contrib.auth import views as auth
from django.urls import include, path

from web.accounts.views import LogIn
from web.reports.views import kind_picture, paper, stop_paper
from web.round.views.plate import plate_picture

urlpatterns = [
    path("login/", LogIn.as_view(), name="login"),
    path("logout/", auth.LogoutView.as_view(), name="logout"),
    path("", include("web.running.urls")),
    path("", include("web.logbook.urls")),
    path("", include("web.benches.urls")),
    path("yard/", include("web.yard.urls")),
    path("kinds/<str:code>.svg", kind_picture, name="kind-picture"),
    path("units/picture/", plate_picture, name="plate-picture"),
    path("papers/<str:key>/", paper, name="paper"),
    path("papers/<str:key>/stop/", stop_paper, name="stop-paper"),
    path("calls/<int:number>/", include("web.reports.urls")),
    # Last, since a stop may have any name.
    path("calls/<int:number>/", include("web.round.urls")),
]
