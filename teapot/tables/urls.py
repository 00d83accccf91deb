"""Addresses of the data tables."""

from django.urls import path

from teapot.tables import views as views

urlpatterns = [
    path("", views.tables, name="tables"),
    path("new", views.bring_in, name="bring-in"),
    path("files/<uuid:pk>", views.look_at, name="look-at"),
    path("files/<uuid:pk>/keep", views.keep, name="keep-table"),
    path("files/<uuid:pk>/drop", views.drop, name="drop-file"),
    path("<uuid:pk>", views.table, name="table"),
    path("<uuid:pk>/rows", views.rows, name="table-rows"),
    path("<uuid:pk>/rest-of-file", views.rest_of_file, name="table-rest-of-file"),
    path("<uuid:pk>/picture", views.picture, name="table-picture"),
    path("<uuid:pk>/rows.csv", views.as_csv, name="table-csv"),
    path("<uuid:pk>/bring-back", views.bring_back, name="bring-back-table"),
]
