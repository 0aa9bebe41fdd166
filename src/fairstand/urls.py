"""All addresses."""

from django.urls import include, path

urlpatterns = [
    path("", include("fairstand.library.urls")),
    path("bench/", include("fairstand.bench.urls")),
    path("work/", include("fairstand.work.urls")),
    path("hand-over/", include("fairstand.handover.urls")),
]
