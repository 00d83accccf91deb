"""Addresses of the page of the shelf."""

from django.urls import path

from shelf.views import page

urlpatterns = [
    path("", page.shelf, name="shelf"),
    path("names.json", page.names, name="shelf-names"),
    path("<slug:kind>/<uuid:pk>/<slug:act>", page.change, name="change-thing"),
]
