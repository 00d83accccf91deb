"""Addresses of links, and of what they lead to."""

from django.urls import path

from teapot.sharing import views

urlpatterns = [
    path("links/<slug:kind>/<uuid:pk>", views.links, name="links"),
    path("links/<uuid:pk>/take-back", views.take_back, name="take-link-back"),
    path("<uuid:link>", views.shared, name="shared"),
    path("<uuid:link>/copy", views.copy, name="copy-shared"),
    path("<uuid:link>/page", views.page, name="shared-page"),
    path("<uuid:link>/events", views.events, name="shared-events"),
    path("<uuid:link>/lines/<int:number>/workings", views.workings, name="shared-workings"),
    path(
        "<uuid:link>/lines/<int:number>/pictures/<slug:name>",
        views.picture,
        name="shared-picture",
    ),
]
