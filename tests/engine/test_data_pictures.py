"""Histogram, scatter and the strip of a long list, against NumPy and SciPy."""

import xml.etree.ElementTree as ET

import numpy
import pytest
from flint import fmpq
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.aids.histogram import histogram_of
from teapot.engine.aids.pictures import shown_in
from teapot.engine.numbers.values import exact
from teapot.pictures import histogram, scatter, strip


def shown(name, *lines):
    sheet = FullSheet()
    for line in lines:
        assert sheet.answer(line).status == "ok", line
    return [one.shown for one in shown_in(sheet, sheet.lines[-1], name)]


@given(st.lists(st.integers(-300, 300), min_size=5, max_size=80))
def test_a_histogram_counts_as_numpy_does(tenths):
    found = histogram_of([exact(fmpq(one, 10)) for one in tenths])
    if found is None:
        assert len({*tenths}) == 1
        return
    edges = [found.bins[0].low, *(one.high for one in found.bins)]
    # edges and values as whole numbers of thousandths, so that no border is missed
    scaled = [round(edge * 1000) for edge in edges]
    counts, _ = numpy.histogram([one * 100 for one in tenths], bins=scaled)
    assert [one.count for one in found.bins] == list(counts)
    assert sum(one.count for one in found.bins) == len(tenths) == found.count


BORDERS = [(0.0, 1), (0.2, 2), (0.4, 2), (0.6, 2)]
"""Steps of 0.2: 0.2, 0.4 and 0.6 lie on borders, and are not nearest floats of theirs."""


def test_a_value_on_a_border_belongs_to_the_upper_step():
    [found] = shown("histogram", "[0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7]")
    assert [(one.low, one.count) for one in found.bins] == BORDERS


@pytest.mark.parametrize("line", ["[1, 1, 1, 1, 1, 1]", "[1, 2]", '["a", "b", "c", "d", "e"]', "5"])
def test_there_is_no_histogram_of_what_does_not_spread(line):
    assert shown("histogram", line) == []


def test_a_scatter_has_its_points_and_the_line_of_scipy():
    lines = ("t = 0..60 by 2", "T = 18 + 78*exp(-t/25)")
    [found] = shown("scatter", *lines, "slope(t, T)")
    xs, ys = zip(*found.points, strict=True)
    import scipy.stats  # which takes seconds

    expected = scipy.stats.linregress(xs, ys)
    assert found.line == pytest.approx(
        (expected.intercept, expected.intercept + 60 * expected.slope)
    )
    assert (found.across, found.up, found.count) == ("t", "T", 31)
    [same] = shown("scatter", *lines, "table(t, T)")
    assert same.points == found.points
    root = ET.fromstring(scatter.draw(found))
    assert len([one for one in root.iter("circle") if one.get("class") == "pair"]) == 31
    assert "31 pairs" in root.get("aria-label")


def test_what_cannot_be_paired_has_no_scatter():
    assert shown("scatter", 'table([1, 2], ["a", "b"])') == []
    assert shown("scatter", "table([1, 2])") == []


def test_charts_are_well_formed():
    [found] = shown("histogram", "(1..50)^2")
    root = ET.fromstring(histogram.draw(found))
    assert len([one for one in root.iter("rect") if one.get("class") == "bin"]) == len(found.bins)
    assert "50 values" in root.get("aria-label")


def test_the_summary_of_a_long_list():
    sheet = FullSheet()
    [answer] = sheet.answer("(1..400)/7").answers
    summary = answer.kept().summary
    assert (summary.least, summary.greatest) == ("≈ 0.1428571429", "≈ 57.14285714")
    assert summary.mean == "≈ 28.64285714"
    assert len(summary.strip) == 60
    assert summary.strip[0][0] == 0
    assert summary.strip[-1][1] == 1
    ET.fromstring(strip.draw(summary.strip, "from 0 to 1"))
    [angles] = sheet.answer("(1..200)*1°").answers
    assert angles.kept().summary.greatest == "= 200°"
    [words] = sheet.answer('"x" + (1..200)').answers
    assert words.kept().summary is None
    [short] = sheet.answer("1..20").answers
    assert short.kept().summary is None


def test_a_table_shows_twenty_rows_with_their_points_above_each_other():
    [answer] = FullSheet().answer("table(1..12000, (1..12000)/8 - 5)").answers
    kept = answer.kept()
    assert len(kept.cells) == 21
    assert "12,000 rows, 20 shown" in kept.also
    assert len(answer.cells()) == 12_001
    [small] = FullSheet().answer("table([5, 12345.6, -7])").answers
    # one figure before the point gets the room of five, with their thin space
    assert small.value_mathml.count("<mphantom><mn>0000\u2009</mn></mphantom>") == 1
    assert small.value_mathml.count("<mphantom><mn>000\u2009</mn></mphantom>") == 1
