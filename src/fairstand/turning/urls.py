"""Addresses of turning."""

from django.urls import path

from . import views

app_name = "turning"
urlpatterns = [
    path("<int:stance_id>/turning/live/", views.live, name="live"),
    path("<int:stance_id>/turning/map-<int:directions>.bin", views.numbers, name="numbers"),
    path("<int:stance_id>/turning/", views.turns, name="turns"),
    path("<int:stance_id>/turning/drawing.png", views.drawing, name="drawing"),
    path("<int:stance_id>/ways-out/", views.ways_out, name="ways_out"),
    path("disc-<int:directions>.bin", views.disc, name="disc"),
]
