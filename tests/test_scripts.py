"""The scripts of the pages: modules that import what they use, sent compressed."""

import re
from hashlib import sha256
from pathlib import Path

import pytest
from django.contrib.staticfiles.finders import get_finders
from django.core.management import call_command

from teapot.settings import ROOT

OURS = [
    path
    for path in sorted(ROOT.glob("teapot/**/static/**/*.js"))
    if "dist" not in path.parts and path.name not in ("theme.js", "foot.js")
]
"""All but the two that run before the first paint."""

IMPORT = re.compile(r'^import .*?"([^"]+)";|^\} from "([^"]+)";', re.MULTILINE)


def served() -> dict[str, Path]:
    """The file after each path that static files are served from."""
    found = {}
    for finder in get_finders():
        for name, storage in finder.list([]):
            found.setdefault(name, Path(storage.path(name)))
    return found


@pytest.mark.parametrize("path", OURS, ids=lambda path: path.name)
def test_a_script_is_a_module_whose_imports_are_there_and_that_leaves_no_globals(path):
    addresses = {file: name for name, file in served().items()}
    text = path.read_text()
    for imported in IMPORT.findall(text):
        at = Path("/") / addresses[path]
        wanted = (at.parent / "".join(imported)).as_posix()
        assert str(Path(wanted).resolve())[1:] in served(), (path.name, imported)
    assert not re.search(r"\bwindow\.\w+ = |\bglobalThis\b", text)


def test_no_two_scripts_import_each_other():
    imports = {}
    for path in OURS:
        named = ["".join(one) for one in IMPORT.findall(path.read_text())]
        imports[path.resolve()] = {(path.parent / one).resolve() for one in named}
    # a path under /static/ is one under the folder of its app
    by_tail = {"/".join(path.parts[-3:]): path for path in imports}

    def reached(path, seen):
        for one in imports[path]:
            other = by_tail.get("/".join(one.parts[-3:]))
            if other and other not in seen:
                seen.add(other)
                reached(other, seen)
        return seen

    assert [path.name for path in imports if path in reached(path, set())] == []


def test_the_pages_are_made_of_the_scripts_as_they_are():
    """``make assets`` puts them together; who changes one runs it."""
    sources = [path for path in ROOT.glob("teapot/**/static/**/*.js") if "pages" not in path.parts]
    sources.sort(key=lambda path: path.relative_to(ROOT).as_posix())
    told = ROOT / "teapot/static/teapot/dist/pages/sources.sha256"
    assert (
        sha256(b"".join(path.read_bytes() for path in sources)).hexdigest()
        == told.read_text().strip()
    )


def test_collected_files_are_compressed(settings, tmp_path):
    settings.STATIC_ROOT = tmp_path
    settings.STORAGES = settings.STORAGES | {
        "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"}
    }
    call_command("collectstatic", interactive=False, verbosity=0)
    for name in ("teapot/dist/alpine.js", "teapot/dist/teapot.css", "teapot/dist/pages/sheet.js"):
        whole, compressed = tmp_path / name, tmp_path / f"{name}.gz"
        assert compressed.stat().st_size < whole.stat().st_size / 2


def test_no_line_of_a_template_is_long():
    root = Path(__file__).parent.parent / "teapot"
    long = [
        f"{path.name}:{number}"
        for path in root.rglob("templates/**/*.html")
        for number, line in enumerate(path.read_text("utf-8").splitlines(), 1)
        if len(line) > 120
    ]
    assert not long
