"""Addresses of the sheet page and of the fragments it asks for."""

from django.urls import path

from console.views import history, lines, out, page, pictures, quantities

urlpatterns = [
    path("", page.home, name="home"),
    path("history", history.typed, name="history"),
    path("history/search", history.search, name="history-search"),
    path("sheets/bring-in", out.bring_in, name="bring-sheet-in"),
    path("sheets/<uuid:pk>/sheet.<slug:ending>", out.save, name="save-sheet"),
    path("sheets/<uuid:pk>/print", out.to_print, name="print-sheet"),
    path("sheets/new", page.new_sheet, name="new-sheet"),
    path("samples", page.samples, name="samples"),
    path("sheets/<uuid:pk>", page.sheet, name="sheet"),
    path("sheets/<uuid:pk>/title", page.title, name="title"),
    path("sheets/<uuid:pk>/settings/<slug:name>", page.setting, name="setting"),
    path("sheets/<uuid:pk>/undo", page.undo, name="undo"),
    path("sheets/<uuid:pk>/redo", page.redo, name="redo"),
    path("sheets/<uuid:pk>/earlier", page.earlier, name="earlier"),
    path("sheets/<uuid:pk>/preview", lines.preview, name="preview"),
    path("sheets/<uuid:pk>/lines", lines.lines, name="lines"),
    path("sheets/<uuid:pk>/run", lines.run, name="run-into"),
    path("sheets/<uuid:pk>/lines/refresh", lines.refresh, name="refresh"),
    path("sheets/<uuid:pk>/lines/take-back", lines.take_back, name="take-back"),
    path("sheets/<uuid:pk>/lines/<int:number>", lines.mend, name="mend"),
    path("sheets/<uuid:pk>/lines/<int:number>/delete", lines.delete, name="delete"),
    path("sheets/<uuid:pk>/lines/<int:number>/move", lines.move, name="move"),
    path("sheets/<uuid:pk>/lines/<int:number>/form", lines.form, name="line-form"),
    path("sheets/<uuid:pk>/lines/<int:number>/workings", lines.workings, name="workings"),
    path("sheets/<uuid:pk>/lines/<int:number>/pictures/<slug:name>", lines.picture, name="picture"),
    path(
        "sheets/<uuid:pk>/lines/<int:number>/table-<int:place>.csv", lines.as_csv, name="line-csv"
    ),
    path(
        "sheets/<uuid:pk>/lines/<int:number>/answer-<int:place>.txt",
        lines.as_text,
        name="line-text",
    ),
    path("sheets/<uuid:pk>/lines/<int:number>/rows-<int:place>", lines.more_rows, name="more-rows"),
    path("sheets/<uuid:pk>/lines/<int:number>/latex", lines.as_latex, name="line-latex"),
    path("sheets/<uuid:pk>/dial", pictures.dial, name="dial"),
    path("sheets/<uuid:pk>/plane", pictures.plane, name="plane"),
    path("sheets/<uuid:pk>/quantities", quantities.quantities, name="quantities"),
    path("sheets/<uuid:pk>/quantities/value", quantities.value, name="set-value"),
    path("sheets/<uuid:pk>/quantities/again", quantities.again, name="again"),
    path("sheets/<uuid:pk>/quantities/rename", quantities.rename, name="rename"),
]
