"""Addresses of the records."""

from django.urls import path

from teapot.records import views

urlpatterns = [
    path("from-lines", views.from_lines, name="record-from-lines"),
    path("stop/<uuid:sheet>", views.stop, name="stop-record"),
    path("<uuid:pk>", views.record, name="record"),
    path("<uuid:pk>/events", views.events, name="record-events"),
    path("<uuid:pk>/note", views.note, name="record-note"),
]
