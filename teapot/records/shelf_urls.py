"""Addresses of what goes out of records."""

from django.urls import path

from teapot.records import views

urlpatterns = [
    path("<uuid:pk>.<slug:ending>", views.save, name="save-record"),
    path("<uuid:pk>/print", views.to_print, name="print-record"),
]
