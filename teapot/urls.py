"""Addresses."""

from django.templatetags.static import static
from django.urls import include, path
from django.views.generic import RedirectView

from teapot.hosting.health import health
from teapot.kit import kit
from teapot.offline import nothing_kept, worker

MARK = RedirectView.as_view(url=static("teapot/mark.svg"))
"""Asked for by pages that name no icon: those that are printed."""

urlpatterns = [
    path("", include("teapot.console.urls")),
    path("sheets/", include("teapot.procedures.sheet_urls")),
    path("favicon.ico", MARK),
    path("kit", kit, name="kit"),
    path("health", health, name="health"),
    path("worker.js", worker, name="worker"),
    path("nothing-kept", nothing_kept, name="nothing-kept"),
    path("account/", include("teapot.accounts.urls")),
    path("handbook/", include("teapot.handbook.urls")),
    path("shared/", include("teapot.sharing.urls")),
    path("shelf/procedures/", include("teapot.procedures.shelf_urls")),
    path("shelf/records/", include("teapot.records.shelf_urls")),
    path("shelf/", include("teapot.shelf.urls")),
    path("procedures/", include("teapot.procedures.urls")),
    path("records/", include("teapot.records.urls")),
    path("tables/", include("teapot.tables.urls")),
]

handler400 = "teapot.plainly.not_read"
handler404 = "teapot.plainly.not_found"
handler500 = "teapot.plainly.went_wrong"
