"""Addresses of what goes out of procedures and runs."""

from django.urls import path

from teapot.procedures import saving

urlpatterns = [
    path("<uuid:pk>.<slug:ending>", saving.procedure, name="save-procedure"),
    path("<uuid:pk>/print", saving.print_procedure, name="print-procedure"),
    path("<uuid:pk>/runs/<uuid:run>.<slug:ending>", saving.run, name="save-run"),
    path("<uuid:pk>/runs/<uuid:run>/print", saving.print_run, name="print-run"),
]
