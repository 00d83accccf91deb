"""How often the values of a list fall into each of even steps."""

from __future__ import annotations

from teapot.engine.aids.histogram import Histogram
from teapot.pictures.chart import HEIGHT, WIDTH, Chart
from teapot.pictures.svg import picture
from teapot.pictures.ticks import short


def draw(histogram: Histogram) -> str:
    """The picture of a histogram."""
    bins = histogram.bins
    most = max(one.count for one in bins)
    behind = f" {histogram.unit}" if histogram.unit else ""
    chart = Chart(bins[0].low, bins[-1].high, 0, most * 1.06)
    drawn = [*chart.frame(histogram.unit)]
    for one in bins:
        x, y = chart.x(one.low), chart.y(one.count)
        wide, tall = chart.x(one.high) - x, chart.y(0) - y
        said = f"{one.count:,} from {short(one.low)} to {short(one.high)}{behind}"
        drawn.append(
            f'<rect class="bin" x="{x + 0.5:.1f}" y="{y:.1f}" width="{max(wide - 1, 0.5):.1f}" '
            f'height="{tall:.1f}"><title>{said}</title></rect>'
        )
    told = f"{histogram.count:,} values: " + "; ".join(
        f"{one.count:,} from {short(one.low)} to {short(one.high)}{behind}"
        for one in bins
        if one.count
    )
    return picture(WIDTH, HEIGHT, "".join(drawn), told)


SMALL_WIDTH, SMALL_HEIGHT = 120, 30


def draw_small(histogram: Histogram) -> str:
    """The bars alone, as they stand above a column."""
    bins = histogram.bins
    most = max(one.count for one in bins)
    wide = SMALL_WIDTH / len(bins)
    drawn = [
        f'<rect class="bin" x="{at * wide:.1f}" y="{SMALL_HEIGHT * (1 - one.count / most):.1f}" '
        f'width="{max(wide - 1, 0.5):.1f}" height="{SMALL_HEIGHT * one.count / most:.1f}"/>'
        for at, one in enumerate(bins)
    ]
    told = f"from {short(bins[0].low)} to {short(bins[-1].high)} in {len(bins)} steps"
    return picture(SMALL_WIDTH, SMALL_HEIGHT, "".join(drawn), told)
