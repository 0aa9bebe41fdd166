"""Addresses of Prop."""

from django.urls import path

from . import views

app_name = "supports"
urlpatterns = [
    path("<int:stance_id>/supports/propose/", views.proposals, name="propose"),
    path("<int:stance_id>/supports/set-out/", views.set_out, name="set_out"),
    path("<int:stance_id>/supports/shape/", views.shape, name="shape"),
    path("<int:stance_id>/supports/strength.json", views.strength, name="strength"),
    path("<int:stance_id>/supports/others.json", views.others, name="others"),
    path("<int:stance_id>/supports/held.bin", views.held, name="held"),
    path("<int:stance_id>/supports/solids.bin", views.solids, name="solids"),
]
