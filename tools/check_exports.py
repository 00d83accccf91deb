"""``make check-exports``: what goes out is taken by the programs that it is for.

The sheets of the demo go through pdflatex (Debian's texlive-latex-recommended), and their print
pages become PDFs in Chromium; ``python -m tools.check_exports FOLDER`` keeps all of it there.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any
from uuid import uuid4


def main() -> None:
    """Prints what was made; stops where a program does."""
    with tempfile.TemporaryDirectory() as data:
        os.environ["TEAPOT_DATA"] = data
        os.environ["DJANGO_SETTINGS_MODULE"] = "teapot.settings"
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
        import django
        from django.core.management import call_command

        django.setup()
        call_command("migrate", verbosity=0)
        call_command("load_demo", verbosity=0)
        folder = Path(sys.argv[1]) if len(sys.argv) > 1 else Path(data) / "out"
        folder.mkdir(parents=True, exist_ok=True)
        _check(folder)


def _check(folder: Path) -> None:
    from teapot.console.models import Sheet
    from teapot.console.out import document_of
    from teapot.shelf.saving import FORMATS
    from tools.browser import chromium

    _awkward()
    sheets = list(Sheet.objects.all())
    with chromium() as browser:
        page = browser.new_page()
        for sheet in sheets:
            document = document_of(sheet, who="A. Student", latex=True, workings=True)
            for ending, wanted in FORMATS.items():
                (folder / f"{sheet.pk}.{ending}").write_text(wanted.write(document), "utf-8")
            page.goto((folder / f"{sheet.pk}.html").as_uri())
            page.pdf(path=folder / f"{sheet.pk}.page.pdf", prefer_css_page_size=True)
            _set(folder, sheet)
            print(f"{sheet.title}: {len(document.lines)} lines, as LaTeX and as a page")
    _others(folder)


def _others(folder: Path) -> None:
    """A run of each procedure and each record of the demo, as LaTeX."""
    from teapot.accounts.models import Person
    from teapot.engine.out.latex import as_latex
    from teapot.fence import procedure_jobs as jobs
    from teapot.procedures.out import document_of_run
    from teapot.procedures.samples import copy_procedures
    from teapot.procedures.services import keep_run
    from teapot.records import out
    from teapot.records.models import Record
    from teapot.shelf.queries import ask

    person = Person.objects.create()
    copy_procedures(person)
    for procedure in person.procedures.all():
        job = jobs.RunThrough(procedure=procedure.newest.for_engine, replies=())
        run = keep_run(procedure, {}, ask(procedure.pk, job, person))
        document = document_of_run(run, latex=True, workings=True)
        (folder / f"{run.pk}.tex").write_text(as_latex(document), "utf-8")
        _set(folder, run)
        print(f"a run of {procedure.name}, as LaTeX")
    for record in Record.objects.all():
        (folder / f"{record.pk}.tex").write_text(out.as_latex(record), "utf-8")
        _set(folder, record)
        print(f"the record {record.name}, as LaTeX")


def _awkward() -> None:
    """A sheet with what is special in LaTeX, and what its fonts lack."""
    from teapot.console import services
    from teapot.console.models import Sheet
    from tools.check_latex import MORE

    sheet = Sheet.objects.create(title="Awkward: <b> & 100 % of \\ #1 茶 ✓ ~^_")
    for line in (*MORE, "# a note: 50 % of {m} & ~^\\ – “quoted” 茶 π ≈ ½", '"茶 {2+3} €"'):
        services.keep(sheet, line, uuid4())


def _set(folder: Path, sheet: Any) -> None:
    if shutil.which("pdflatex") is None:
        sys.exit("pdflatex is missing: apt-get install texlive-latex-recommended")
    done = subprocess.run(
        ["pdflatex", "-halt-on-error", "-interaction=nonstopmode", f"{sheet.pk}.tex"],
        cwd=folder, capture_output=True, text=True, errors="replace", check=False,
    )  # fmt: skip
    if done.returncode:
        sys.exit("\n".join(done.stdout.splitlines()[-30:]))


if __name__ == "__main__":
    main()
