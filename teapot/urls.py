"""Addresses."""

from django.urls import include, path

urlpatterns = [
    path("handbook/", include("handbook.urls")),
    path("tables/", include("shelf.urls")),
    path("", include("console.urls")),
]
