"""Text with values: ``{…}`` in a text is filled in, ``{{`` and ``}}`` are braces."""

import pickle

import pytest

from teapot.engine import FullSheet
from teapot.engine.aids.completion import complete
from teapot.engine.numbers.context import STANDARD
from teapot.engine.numbers.values import InterpolatedText
from teapot.engine.reading.tree import NOWHERE, Filled
from teapot.engine.sheet.line import NewLine
from tests.engine.answers import answer, error, outcome


@pytest.mark.parametrize(
    ("lines", "text"),
    [
        (['"m = {2 + 3} kg"'], '"m = 5 kg"'),
        (["m = 1.2", '"m = {m}, twice {2*m}"'], '"m = 1.2, twice 2.4"'),
        (['"{1/3 as 3 digits}"'], '"0.333"'),
        (['"{30°} and {[1, 2]}"'], '"30° and [1, 2]"'),
        (['"{{m}}"'], '"{{m}}"'),
        (['f(x) = "{x}²"', "f(3)"], '"3²"'),
    ],
)
def test_values_in_text(lines, text):
    sign = "≈" if "0.333" in text else "="
    assert answer(*lines) == f"{sign} {text}"


def test_what_a_text_uses_is_used_by_the_line():
    sheet = FullSheet()
    sheet.answer("m = 2")
    sheet.answer('label := "m is {m}"')
    sheet.answer("m = 3")
    assert sheet.answer("label").answers[0].text == '"m is 3"'


@pytest.mark.parametrize(
    ("line", "code", "place"),
    [
        ('"{1 + zzz} kg"', "unknown-name", "zzz"),
        ('"{2 *} kg"', "empty-braces", "{2 *}"),
        ('"{1/0"', "unclosed-brace", None),
        ('"1}"', "unopened-brace", None),
        ('"{} kg"', "empty-braces", "{}"),
    ],
)
def test_errors_in_text_have_their_place(line, code, place):
    assert error(line) == code
    found = outcome(line).error
    assert found.span is not None
    assert 0 < found.span.start <= found.span.end <= len(line)
    if place is not None:
        assert line[slice(*found.span)] == place


def test_the_spaces_beside_a_value_are_set():
    """MathML Core 2.1.8: white space at the ends of an element counts for nothing."""
    [found] = outcome("m = 2", '"m = {m} kg"').answers
    assert "<mtext>m =\xa0</mtext>" in found.reading_mathml
    assert "<mtext>\xa0kg</mtext>" in found.reading_mathml


def answered(sheet, *texts):
    new = [NewLine(10 + at, text, 10.0 + at) for at, text in enumerate(texts)]
    return list(sheet.preview_several(new, None, STANDARD))


def test_lines_put_in_together_see_each_other_and_leave_nothing():
    sheet = FullSheet()
    sheet.answer("m = 2")
    outcomes = answered(sheet, "Q = m*10", "@ + 1", "m = Q")
    assert [one.answers[0].text for one in outcomes] == ["20", "21", "20"]
    assert [line.text for line in sheet.lines] == ["m = 2"]
    assert sheet.answer("m").answers[0].text == "2"
    assert sheet.answer("Q").error is not None


def test_lines_put_in_together_end_at_the_first_that_cannot_be_kept():
    outcomes = answered(FullSheet(), "a = 1", "a +* 2", "a = 3")
    assert [one.is_kept for one in outcomes] == [True, False]
    outcomes = answered(FullSheet(), "a = 1", "/angle deg", "a = 3")
    assert [one.is_kept for one in outcomes] == [True, False]


def test_lines_that_are_given_up_halfway_leave_nothing():
    sheet = FullSheet()
    new = [NewLine(1, "a = 1", 1.0), NewLine(2, "b = a", 2.0)]
    outcomes = sheet.preview_several(new, None, STANDARD)
    assert next(outcomes).answers[0].text == "1"
    outcomes.close()
    assert not sheet.lines
    assert not sheet.definitions.current()


@pytest.mark.parametrize(
    ("line", "sign", "text"),
    [
        ('"n = " + 5', "=", '"n = 5"'),
        ('2/3 + " of it"', "≈", '"0.6666666667 of it"'),
        ('"a" + 1 + 2', "=", '"a12"'),
        ('1 + 2 + "a"', "=", '"3a"'),
        ('"x" + [1, 2]', "=", '["x1", "x2"]'),
        ('["a", "b"] + 1', "=", '["a1", "b1"]'),
        ('["x"] + [1]', "=", '["x1"]'),
        ('"at " + 30°', "=", '"at 30°"'),
        ('"it is " + (2 < 3)', "=", '"it is true"'),
        ('"{2/3} of {3}"', "≈", '"0.6666666667 of 3"'),
        ('"{1/4} of {3}"', "=", '"0.25 of 3"'),
        ('"a" + "{1/3}"', "≈", '"a0.3333333333"'),
        ('"{1/3}" == "0.3333333333"', "=", "true"),
    ],
)
def test_text_is_joined_with_what_stands_beside_it(line, sign, text):
    [answer] = FullSheet().answer(line).answers
    assert (answer.sign, answer.text) == (sign, text)


def test_a_text_is_read_back_with_its_values_filled_in_and_marked():
    sheet = FullSheet()
    sheet.answer("w = [2, 3, 7, 8]")
    [answer] = sheet.answer('"{count(w)} cups, {mean(w) as 2 places} on the mean"').answers
    assert answer.text == '"4 cups, 5.00 on the mean"'
    assert answer.reading_mathml.count('class="filled"') == 2
    assert "5.00" in answer.reading_mathml
    assert answer.kept().says_itself
    [rounded] = sheet.answer('s = "a third is {1/3}"').answers
    assert "≈ 0.3333333333" in rounded.reading_mathml
    [later] = sheet.answer("s").answers
    assert (later.sign, later.text) == ("≈", '"a third is 0.3333333333"')


def test_a_sentence_in_parts_is_offered_as_one_text():
    sheet = FullSheet()
    sheet.answer("a = 3")
    [notice] = sheet.answer('"The area is", 2*a, "m2"').notices
    [mend] = notice.shown('"The area is", 2*a, "m2"').mends
    assert mend.input == '"The area is {2*a} m2"'
    assert sheet.answer(mend.input).answers[0].text == '"The area is 6 m2"'
    assert sheet.answer('"tea", "cup"').notices == ()
    assert sheet.answer('"tea"; a').notices == ()


def test_names_are_completed_in_the_braces_of_a_text():
    sheet = FullSheet()
    sheet.answer("mass = 2")

    def first(text):
        return [one.name for one in complete(sheet, text, len(text))][:1]

    assert first('"{ma') == first('"{1} and {sqrt(ma') == first('"{{{ma') == ["mass"]
    assert first('"ma') == first('"{{ma') == first('"{mass} ma') == []


def test_a_sentence_goes_from_process_to_process_with_its_parts():
    sentence = InterpolatedText(("a ", Filled(NOWHERE, "1", "≈")))
    copy = pickle.loads(pickle.dumps(sentence))
    assert (copy, copy.parts) == (sentence, sentence.parts)
