"""Addresses of Split."""

from django.urls import path

from . import views

app_name = "splitting"
urlpatterns = [
    path("<int:stance_id>/split/part/", views.show_part, name="part"),
    path("<int:stance_id>/split/try/", views.try_cut, name="try"),
    path("<int:stance_id>/split/face.json", views.face, name="face"),
    path("<int:stance_id>/split/mirror/", views.mirror, name="mirror"),
    path("<int:stance_id>/split/crease/", views.crease, name="crease"),
    path("<int:stance_id>/split/pair.json", views.pair, name="pair"),
    path("<int:stance_id>/split/pair.bin", views.pair_of_corners, name="pair_corners"),
    path("<int:stance_id>/split/others.bin", views.others, name="others"),
    path("<int:stance_id>/split/assembly.png", views.assembled, name="assembly"),
    path("<int:stance_id>/split/joint/", views.try_joint, name="joint"),
    path("<int:stance_id>/split/places/", views.places, name="places"),
    path("<int:stance_id>/split/propose/", views.proposals, name="propose"),
    path("<int:stance_id>/split/drawing.png", views.drawing, name="drawing"),
]
