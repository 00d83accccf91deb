"""Addresses of the records."""

from django.urls import path

from teapot.records import views

urlpatterns = [
    path("<uuid:pk>", views.record, name="record"),
    path("<uuid:pk>/events", views.events, name="record-events"),
    path("<uuid:pk>/note", views.note, name="record-note"),
]
