"""Addresses of the strip of stances."""

from django.urls import path

from . import views

app_name = "stances"
urlpatterns = [
    path("<int:stance_id>/strip/", views.strip, name="strip"),
    path("<int:stance_id>/fork/", views.fork, name="fork"),
    path("<int:stance_id>/take-in/", views.take_in, name="take_in"),
    path("<int:stance_id>/rename/", views.rename, name="rename"),
    path("<int:stance_id>/move/", views.move, name="move"),
    path("<int:stance_id>/delete/", views.delete, name="delete"),
    path("<int:stance_id>/bring-back/", views.bring_back, name="bring_back"),
    path("<int:stance_id>/undo-strip/", views.undo, name="undo_strip"),
    path("<int:stance_id>/redo-strip/", views.redo, name="redo_strip"),
]
