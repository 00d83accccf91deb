"""Every change of a sheet can be undone and done again, and other windows see it."""

import uuid

import pytest
from django.test import Client

from teapot.console import changes, evaluating, services
from teapot.console.models import Change, Line, Sheet
from teapot.engine.errors import LineError

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def sheet():
    client = Client()
    client.post(client.get("/").headers["Location"] + "/title")
    return Sheet.objects.get()


def keep(sheet, *texts):
    for text in texts:
        kept = services.keep(sheet, text, uuid.uuid4())
        assert kept.refused is None


def present(sheet):
    sheet.refresh_from_db()
    lines = list(sheet.lines.present())
    evaluating.refresh(sheet, lines)
    return lines


def texts(sheet):
    return [line.text for line in present(sheet)]


def answers(sheet):
    return [evaluating.answer_texts(line) for line in present(sheet)]


def quantity(sheet, name):
    sheet.refresh_from_db()
    known = evaluating.quantities(sheet).changed
    return {found.name: found for found in known}[name]


CUPS = "cups = 6; guests = 2; seats = cups + guests"


def mend_first(sheet):
    services.mend(sheet, 1, "cups = 9; guests = 2; seats = cups + guests")


def test_mending_says_what_has_moved(sheet):
    keep(sheet, CUPS, "seats*2")
    kept = services.mend(sheet, 1, "cups = 9; guests = 2; seats = cups + guests")
    assert kept.moved == ("6 → 9", "8 → 11")
    lines = list(sheet.lines.present())
    assert evaluating.refresh(sheet, lines) == {2: ["16 → 22"]}


@pytest.mark.parametrize(
    "change",
    [
        lambda sheet: keep(sheet, "1 + 1"),
        mend_first,
        lambda sheet: services.delete(sheet, 2),
        lambda sheet: services.move(sheet, 3, up=True),
        lambda sheet: services.set_form(sheet, 2, "scientific"),
        lambda sheet: services.set_value(sheet, "extra", "7"),
        lambda sheet: services.rename(sheet, "seats", "chairs"),
        lambda sheet: keep(sheet, "/forget cups"),
        lambda sheet: keep(sheet, "/show 3 digits"),
        lambda sheet: keep(sheet, "/clear"),
        lambda sheet: services.keep(sheet, "5*5", uuid.uuid4(), below=1),
    ],
)
def test_undo_and_redo_of_every_kind_of_change(sheet, change):
    keep(sheet, CUPS, "seats*2", "extra = 1/3")
    before = (texts(sheet), answers(sheet), sheet.form, sheet.cleared)
    change(sheet)
    after = (texts(sheet), answers(sheet), sheet.form, sheet.cleared)
    assert after != before
    assert changes.undo(sheet)
    assert (texts(sheet), answers(sheet), sheet.form, sheet.cleared) == before
    assert changes.redo(sheet)
    assert (texts(sheet), answers(sheet), sheet.form, sheet.cleared) == after
    assert changes.redo(sheet) is None


def test_undo_goes_back_to_the_empty_sheet_and_a_new_change_ends_redo(sheet):
    keep(sheet, "1", "2", "3")
    for left in (2, 1, 0):
        assert changes.undo(sheet).label == "new line"
        assert len(texts(sheet)) == left
    assert changes.undo(sheet) is None
    changes.redo(sheet)
    keep(sheet, "4")
    assert changes.redo(sheet) is None
    assert texts(sheet) == ["1", "4"]
    assert not Change.objects.filter(undone=True).exists()


def test_a_number_is_never_given_twice(sheet):
    keep(sheet, "10", "20")
    services.delete(sheet, 2)
    keep(sheet, "@ + 1")
    assert [line.number for line in present(sheet)] == [1, 3]
    assert answers(sheet)[-1] == ["11"]


def test_lines_put_between_others_again_and_again_are_a_change_each(sheet):
    for text in ("1", "2"):
        services.keep(sheet, text, uuid.uuid4())
    for at in range(60):
        services.keep(sheet, f"10 + {at}", uuid.uuid4(), below=1)
        sheet.refresh_from_db()
    assert sheet.changes.count() == 62
    assert len({line.place for line in Line.objects.all()}) == 62
    texts = list(sheet.lines.present().values_list("text", flat=True))
    assert texts == ["1", *(f"10 + {at}" for at in reversed(range(60))), "2"]
    for left in reversed(range(60)):
        assert changes.undo(sheet) is not None
        assert sheet.lines.present().count() == left + 2
    assert list(sheet.lines.present().values_list("text", flat=True)) == ["1", "2"]


def test_a_change_that_was_overtaken_is_not_written(sheet):
    keep(sheet, "1")
    stale = Sheet.objects.get()
    keep(sheet, "2")
    line = stale.lines.get(number=1)
    line.text = "overtaken"
    assert not changes.commit(stale, "late", [line])
    assert texts(sheet) == ["1", "2"]


def test_computing_again_one_and_all(sheet):
    keep(sheet, "a = 1", "b = a + 1", "c = b + 1", "a = 5")
    assert quantity(sheet, "c").state == "out-of-date"
    services.compute_again(sheet, 2)
    assert quantity(sheet, "b").text == "6"
    assert quantity(sheet, "c").reason == "used b = 2; b is now 6"
    services.compute_again(sheet, None)
    assert quantity(sheet, "c").text == "7"
    assert quantity(sheet, "c").state == "stored"


def test_renaming_to_a_bad_or_taken_name_is_refused(sheet):
    keep(sheet, "a = 1", "b = a")
    for name in ("b", "2x", "mod", "a b", ""):
        with pytest.raises(LineError):
            services.rename(sheet, "a", name)
    with pytest.raises(LineError):
        services.rename(sheet, "nothing", "c")
    services.rename(sheet, "a", "α_1")
    assert texts(sheet) == ["α_1 = 1", "b = α_1"]


def test_an_error_elsewhere_is_shown_and_goes_when_it_is_mended(sheet):
    keep(sheet, "m = 2", "m*3")
    services.delete(sheet, 1)
    assert answers(sheet) == [["an error"]]
    changes.undo(sheet)
    assert answers(sheet) == [["2"], ["6"]]


def test_refused_changes_leave_no_trace(sheet):
    keep(sheet, "1")
    revision = sheet.revision
    assert services.mend(sheet, 1, "sqr(4)").line is None
    with pytest.raises(LineError):
        services.mend(sheet, 1, "/clear")
    with pytest.raises(LineError):
        services.set_form(sheet, 1, "nonsense")
    with pytest.raises(LineError):
        services.set_value(sheet, "nothing", "1")
    sheet.refresh_from_db()
    assert sheet.revision == revision
    assert texts(sheet) == ["1"]


def test_answers_made_for_an_overtaken_state_are_not_kept(sheet):
    keep(sheet, "a = 1", "a + 1")
    services.mend(sheet, 1, "a = 2")
    late = Sheet.objects.get()
    lines = list(late.lines.present())
    services.mend(sheet, 1, "a = 3")
    evaluating.refresh(late, lines)
    assert Line.objects.get(number=2).stale
    assert answers(sheet) == [["3"], ["4"]]


def test_evaluators_that_lost_everything_give_the_same(sheet, settings):
    """A sheet in an evaluator's memory is a cache: made anew, it answers alike."""
    keep(sheet, CUPS, "twice := seats*2", "cups = 9", "twice + @")
    services.mend(sheet, 1, "cups = 7; guests = 3; seats = cups + guests")
    expected = answers(sheet)
    moved = Sheet.objects.create(owner=sheet.owner, revision=sheet.revision)
    sheet.lines.update(sheet=moved, stale=True)
    assert answers(moved) == expected
