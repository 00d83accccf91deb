"""Addresses of what procedures do on a sheet."""

from django.urls import path

from teapot.procedures import views

urlpatterns = [path("<uuid:pk>/run", views.into_sheet, name="run-into")]
