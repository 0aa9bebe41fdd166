"""Addresses of long work."""

from django.urls import path

from . import views

app_name = "work"
urlpatterns = [
    path("", views.every, name="every"),
    path("<uuid:work_id>/", views.show, name="show"),
    path("<uuid:work_id>/cancel/", views.cancel, name="cancel"),
    path("<uuid:work_id>/let-go/", views.let_go, name="let_go"),
]
