"""Addresses of the page of the shelf."""

from django.urls import path

from teapot.shelf.views import arriving, files, page

urlpatterns = [
    path("", page.shelf, name="shelf"),
    path("everything.zip", page.everything, name="everything"),
    path("bring-in", arriving.arrive, name="arrive"),
    path("bring-in/on-its-way", arriving.arrival, name="arrival"),
    path("bring-in/stop", arriving.stop, name="stop-arrival"),
    path("bring-in/settle", arriving.settle, name="settle-clashes"),
    path("procedures/<uuid:pk>.<slug:ending>", files.procedure, name="save-procedure"),
    path("procedures/<uuid:pk>/print", files.print_procedure, name="print-procedure"),
    path("procedures/<uuid:pk>/runs/<uuid:run>.<slug:ending>", files.run, name="save-run"),
    path("procedures/<uuid:pk>/runs/<uuid:run>/print", files.print_run, name="print-run"),
    path("records/<uuid:pk>.<slug:ending>", files.record, name="save-record"),
    path("records/<uuid:pk>/print", files.print_record, name="print-record"),
    path("names.json", page.names, name="shelf-names"),
    path("<slug:kind>/<uuid:pk>/opened", page.opened, name="opened"),
    path("<slug:kind>/<uuid:pk>/<slug:act>", page.change, name="change-thing"),
]
