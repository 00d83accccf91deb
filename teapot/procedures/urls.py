"""Addresses of the procedures."""

from django.urls import path

from teapot.procedures import views

urlpatterns = [
    path("new", views.new, name="new-procedure"),
    path("from-lines", views.from_lines, name="procedure-from-lines"),
    path("<uuid:pk>", views.procedure, name="procedure"),
    path("<uuid:pk>/keep", views.keep, name="keep-procedure"),
    path("<uuid:pk>/preview", views.preview, name="procedure-preview"),
    path("<uuid:pk>/readings", views.readings, name="procedure-readings"),
    path("<uuid:pk>/run", views.run, name="run-procedure"),
    path("<uuid:pk>/stop", views.stop, name="stop-procedure"),
    path("<uuid:pk>/over", views.over, name="run-over"),
    path("<uuid:pk>/versions/<uuid:version>", views.version, name="procedure-version"),
    path("questions", views.questions, name="run-questions"),
]
