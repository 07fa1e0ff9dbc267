"""Addresses for whoever runs the installation."""

from django.urls import path

from web.running import views

urlpatterns = [path("health", views.health, name="health")]
