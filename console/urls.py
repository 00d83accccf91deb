"""Addresses of the sheet page and of the fragments it asks for."""

from django.urls import path

from console import views

urlpatterns = [
    path("", views.home, name="home"),
    path("sheets/new", views.new_sheet, name="new-sheet"),
    path("sheets/<uuid:pk>", views.sheet, name="sheet"),
    path("sheets/<uuid:pk>/title", views.title, name="title"),
    path("sheets/<uuid:pk>/preview", views.preview, name="preview"),
    path("sheets/<uuid:pk>/lines", views.lines, name="lines"),
    path("sheets/<uuid:pk>/earlier", views.earlier, name="earlier"),
    path("sheets/<uuid:pk>/quantities", views.quantities, name="quantities"),
]
