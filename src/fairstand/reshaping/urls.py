"""Addresses of Reshape."""

from django.urls import path

from . import views

app_name = "reshaping"
urlpatterns = [
    path("<int:stance_id>/reshape/try/", views.try_change, name="try"),
    path("<int:stance_id>/reshape/gain/", views.gain, name="gain"),
    path("<int:stance_id>/reshape/low/", views.low, name="low"),
    path("<int:stance_id>/reshape/before.bin", views.before, name="before"),
    path("<int:stance_id>/reshape/small/", views.small, name="small"),
]
