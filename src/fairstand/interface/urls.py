"""Addresses of the interface's description."""

from django.urls import path

from . import views

app_name = "interface"
urlpatterns = [
    path("", views.page, name="page"),
    path("openapi.json", views.openapi, name="openapi"),
]
