"""Addresses of the workshop."""

from django.urls import path

from . import views

app_name = "workshop"
urlpatterns = [
    path("", views.index, name="index"),
    path("bring-in/", views.bring_in, name="bring_in"),
    path("<str:noun>/<str:key>/", views.thing, name="thing"),
    path("<str:noun>/<str:key>/as.json", views.as_json, name="as_json"),
    path("<str:noun>/<str:key>/copy/", views.copy, name="copy"),
    path("<str:noun>/<str:key>/change/", views.change, name="change"),
    path("<str:noun>/<str:key>/undo/", views.undo, name="undo"),
    path("<str:noun>/<str:key>/redo/", views.redo, name="redo"),
    path("<str:noun>/<str:key>/put-away/", views.put_away, name="put_away"),
    path("<str:noun>/<str:key>/bring-back/", views.bring_back, name="bring_back"),
]
