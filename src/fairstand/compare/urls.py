"""Addresses of the comparison."""

from django.urls import path

from . import views

app_name = "compare"
urlpatterns = [
    path("piece/<int:piece_id>/compare/", views.page, name="page"),
    path("piece/<int:piece_id>/compare.csv", views.as_csv, name="as_csv"),
    path("<int:stance_id>/compare.png", views.drawing, name="drawing"),
]
