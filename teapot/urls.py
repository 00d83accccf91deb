"""Addresses."""

from django.urls import include, path

urlpatterns = [path("", include("console.urls"))]
