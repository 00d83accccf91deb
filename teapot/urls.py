"""Addresses."""

from django.urls import include, path

urlpatterns = [
    path("handbook/", include("handbook.urls")),
    path("shelf/", include("shelf.shelf_urls")),
    path("procedures/", include("procedures.urls")),
    path("records/", include("records.urls")),
    path("tables/", include("shelf.urls")),
    path("", include("console.urls")),
]
