"""Addresses of the page of the shelf."""

from django.urls import path

from teapot.shelf.views import arriving, page

urlpatterns = [
    path("", page.shelf, name="shelf"),
    path("everything.zip", page.everything, name="everything"),
    path("bring-in", arriving.arrive, name="arrive"),
    path("bring-in/on-its-way", arriving.arrival, name="arrival"),
    path("bring-in/stop", arriving.stop, name="stop-arrival"),
    path("bring-in/settle", arriving.settle, name="settle-clashes"),
    path("names.json", page.names, name="shelf-names"),
    path("<slug:kind>/<uuid:pk>/opened", page.opened, name="opened"),
    path("<slug:kind>/<uuid:pk>/<slug:act>", page.change, name="change-thing"),
]
