"""All addresses."""

from django.urls import include, path

urlpatterns = [
    path("", include("fairstand.library.urls")),
    path("bench/", include("fairstand.bench.urls")),
    path("bench/", include("fairstand.stances.urls")),
    path("bench/", include("fairstand.turning.urls")),
    path("bench/", include("fairstand.supports.urls")),
    path("bench/", include("fairstand.splitting.urls")),
    path("bench/", include("fairstand.reshaping.urls")),
    path("bench/", include("fairstand.compare.urls")),
    path("workshop/", include("fairstand.workshop.urls")),
    path("work/", include("fairstand.work.urls")),
    path("interface/", include("fairstand.interface.urls")),
    path("hand-over/", include("fairstand.handover.urls")),
]
