"""Addresses of the bench."""

from django.urls import path

from . import strip_views, turn_views, views

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
    path("<int:stance_id>/bodies/", views.bodies, name="bodies"),
    path("<int:stance_id>/bodies.bin", views.body_of_facet, name="body_of_facet"),
    path("<int:stance_id>/separate/", views.separate, name="separate"),
    path("<int:stance_id>/measures.csv", views.measures_file, name="measures_file"),
    path("<int:stance_id>/plane/", views.plane, name="plane"),
    path("<int:stance_id>/turning/live/", turn_views.live, name="live"),
    path("<int:stance_id>/turning/", turn_views.turns, name="turns"),
    path("<int:stance_id>/turning/drawing.png", turn_views.drawing, name="turn_drawing"),
    path("<int:stance_id>/ways-out/", turn_views.ways_out, name="ways_out"),
    path("disc-<int:directions>.bin", turn_views.disc, name="disc"),
    path("<int:stance_id>/strip/", strip_views.strip, name="strip"),
    path("<int:stance_id>/fork/", strip_views.fork, name="fork"),
    path("<int:stance_id>/rename/", strip_views.rename, name="rename"),
    path("<int:stance_id>/move/", strip_views.move, name="move"),
    path("<int:stance_id>/delete/", strip_views.delete, name="delete"),
    path("<int:stance_id>/bring-back/", strip_views.bring_back, name="bring_back"),
    path("<int:stance_id>/undo-strip/", strip_views.undo, name="undo_strip"),
    path("<int:stance_id>/redo-strip/", strip_views.redo, name="redo_strip"),
    path("piece/<int:piece_id>/compare/", strip_views.compare, name="compare"),
    path("piece/<int:piece_id>/compare.csv", strip_views.compare_file, name="compare_file"),
    path("<int:stance_id>/compare.png", strip_views.compare_drawing, name="compare_drawing"),
    path("<int:stance_id>/layers.zip", views.layers_file, name="layers_file"),
]
