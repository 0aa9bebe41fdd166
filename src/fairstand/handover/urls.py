"""Addresses of the hand-over."""

from django.urls import path

from . import views

app_name = "handover"
urlpatterns = [
    path("<int:stance_id>/checks/", views.checks, name="checks"),
    path("<int:stance_id>/together/<str:kind>.3mf", views.together, name="together"),
    path("<int:stance_id>/stance.json", views.recipe, name="recipe"),
    path("<int:stance_id>/file.<str:kind>", views.download, name="download"),
]
