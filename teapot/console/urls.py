"""Addresses of the sheet page and of the fragments it asks for."""

from django.urls import include, path

from teapot.console.views import history, lines, out, page, pictures, quantities, recording

of_sheet = [
    path("preview", lines.preview, name="preview"),
    path("lines", lines.lines, name="lines"),
    path("sheet.<slug:ending>", out.save, name="save-sheet"),
    path("print", out.to_print, name="print-sheet"),
    path("title", page.title, name="title"),
    path("settings/<slug:name>", page.setting, name="setting"),
    path("undo", page.undo, name="undo"),
    path("redo", page.redo, name="redo"),
    path("earlier", page.earlier, name="earlier"),
    path("lines/refresh", lines.refresh, name="refresh"),
    path("lines/take-back", lines.take_back, name="take-back"),
    path("lines/<int:number>", lines.mend, name="mend"),
    path("lines/<int:number>/delete", lines.delete, name="delete"),
    path("lines/<int:number>/move", lines.move, name="move"),
    path("lines/<int:number>/form", lines.form, name="line-form"),
    path("lines/<int:number>/workings", lines.workings, name="workings"),
    path("lines/<int:number>/units", lines.units, name="units"),
    path("lines/<int:number>/pictures/<slug:name>", lines.picture, name="picture"),
    path("lines/<int:number>/table-<int:place>.csv", lines.as_csv, name="line-csv"),
    path(
        "lines/<int:number>/answer-<int:place>.txt",
        lines.as_text,
        name="line-text",
    ),
    path("lines/<int:number>/rows-<int:place>", lines.more_rows, name="more-rows"),
    path("lines/<int:number>/latex", lines.as_latex, name="line-latex"),
    path("lines/<int:number>/line.svg", lines.as_svg, name="line-svg"),
    path("convert", lines.convert, name="convert"),
    path("dial", pictures.dial, name="dial"),
    path("plane", pictures.plane, name="plane"),
    path("quantities", quantities.quantities, name="quantities"),
    path("quantities/picture", quantities.picture, name="quantities-picture"),
    path("quantities/value", quantities.value, name="set-value"),
    path("quantities/again", quantities.again, name="again"),
    path("quantities/rename", quantities.rename, name="rename"),
]
"""What is asked for most comes first."""

urlpatterns = [
    path("records/from-lines", recording.from_lines, name="record-from-lines"),
    path("records/stop/<uuid:sheet>", recording.stop, name="stop-record"),
    path("sheets/<uuid:pk>/", include(of_sheet)),
    path("", page.home, name="home"),
    path("history", history.typed, name="history"),
    path("history/search", history.search, name="history-search"),
    path("sheets/bring-in", out.bring_in, name="bring-sheet-in"),
    path("sheets/new", page.new_sheet, name="new-sheet"),
    path("samples", page.samples, name="samples"),
    path("sheets/<uuid:pk>", page.sheet, name="sheet"),
]
