"""Addresses of the page of the shelf."""

from django.urls import path

from shelf.views import files, page

urlpatterns = [
    path("", page.shelf, name="shelf"),
    path("everything.zip", page.everything, name="everything"),
    path("everything/in", page.bring_everything_in, name="bring-everything-in"),
    path("procedures/<uuid:pk>.<slug:ending>", files.procedure, name="save-procedure"),
    path("records/<uuid:pk>.<slug:ending>", files.record, name="save-record"),
    path("names.json", page.names, name="shelf-names"),
    path("<slug:kind>/<uuid:pk>/<slug:act>", page.change, name="change-thing"),
]
