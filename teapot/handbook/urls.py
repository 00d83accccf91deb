"""Addresses of the handbook."""

from django.urls import path

from teapot.handbook import views

urlpatterns = [
    path("", views.contents, name="handbook"),
    path("find", views.find, name="handbook-find"),
    path("whole", views.whole, name="handbook-whole"),
    path("drawer", views.drawer, name="handbook-drawer"),
    path("<slug:key>", views.entry, name="handbook-entry"),
]
