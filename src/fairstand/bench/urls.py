"""Addresses of the bench."""

from django.urls import path

from . import views

app_name = "bench"
urlpatterns = [
    path("piece/<int:piece_id>/", views.open_piece, name="open"),
    path("piece/<int:piece_id>/drawing.png", views.piece_drawing, name="piece_drawing"),
    path("<int:stance_id>/", views.page, name="page"),
    path("<int:stance_id>/state/", views.state, name="state"),
    path("<int:stance_id>/findings/", views.findings, name="findings"),
    path("<int:stance_id>/slice/", views.slice_in_background, name="slice"),
    path("<int:stance_id>/edits/", views.edit, name="edit"),
    path("<int:stance_id>/undo/", views.undo, name="undo"),
    path("<int:stance_id>/redo/", views.redo, name="redo"),
    path("<int:stance_id>/pillar-preview/", views.pillar_preview, name="pillar_preview"),
    path("<int:stance_id>/mesh.bin", views.mesh, name="mesh"),
    path("<int:stance_id>/creases.bin", views.creases, name="creases"),
    path("<int:stance_id>/slopes.bin", views.slopes, name="slopes"),
    path("<int:stance_id>/patches.bin", views.patches, name="patches"),
    path("<int:stance_id>/drawing.png", views.drawing, name="drawing"),
    path("<int:stance_id>/section/<int:layer>/", views.section, name="section"),
    path("<int:stance_id>/section/<int:layer>.svg", views.section_file, name="section_file"),
    path("<int:stance_id>/sides.bin", views.sides, name="sides"),
    path("<int:stance_id>/colours.bin", views.colours, name="colours"),
    path("<int:stance_id>/bodies/", views.bodies, name="bodies"),
    path("<int:stance_id>/bodies.bin", views.body_of_facet, name="body_of_facet"),
    path("<int:stance_id>/separate/", views.separate, name="separate"),
    path("<int:stance_id>/measures.csv", views.measures_file, name="measures_file"),
    path("<int:stance_id>/plane/", views.plane, name="plane"),
    path("<int:stance_id>/layers.zip", views.layers_file, name="layers_file"),
]
