"""Addresses of the library."""

from django.urls import path

from . import views

app_name = "library"
urlpatterns = [
    path("", views.index, name="index"),
    path("pieces/upload/", views.upload, name="upload"),
    path("pieces/delete/", views.delete_many, name="delete_many"),
    path("pieces/<int:piece_id>/delete/", views.delete, name="delete"),
    path("pieces/<int:piece_id>/bring-back/", views.bring_back, name="bring_back"),
    path("pieces/<int:piece_id>/rename/", views.rename, name="rename"),
]
