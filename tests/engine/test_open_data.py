"""Special functions against the open test data of the Boost C++ libraries.

The data were computed by their authors at high precision, and are written here by no one: SciPy
carries them in ``scipy/special/tests/data/boost.npz``.  Every row is typed into Teapot with the
exact decimal value of its arguments, answered to 17 digits, and read back as a binary64; it must
be the published binary64 or the neighbour of it, for the tables are not always rounded to the
nearest.
"""

import decimal
import math
from importlib.util import find_spec
from pathlib import Path

import numpy
import pytest

from tests.engine.answers import answer

pytestmark = pytest.mark.slow

DATA = Path(find_spec("scipy").origin).parent / "special" / "tests" / "data" / "boost.npz"

TABLES = [
    # table, the line that is typed, the column of its answer
    ("cbrt_data", "cbrt({1})", 0),
    ("log1p_expm1_data", "ln(1 + {0})", 1),
    ("log1p_expm1_data", "exp({0}) - 1", 2),
    ("sinc_data", "sin({0})/{0}", 1),
    ("factorials", "gamma({0})", 1),
    ("factorials", "lgamma({0})", 2),
    ("near_0", "gamma({0})", 1),
    ("near_1", "gamma({0})", 1),
    ("near_1", "lgamma({0})", 2),
    ("near_2", "gamma({0})", 1),
    ("near_m10", "gamma({0})", 1),
    ("near_m55", "gamma({0})", 1),
    ("tgamma_ratio_data", "gamma({0})/gamma({1})", 2),
    ("beta_med_data", "beta({0}, {1})", 2),
    ("beta_exp_data", "beta({0}, {1})", 2),
    ("binomial_data", "binomial({0}, {1})", 2),
    ("binomial_large_data", "binomial({0}, {1})", 2),
    ("digamma_data", "digamma({0})", 1),
    ("digamma_neg_data", "digamma({0})", 1),
    ("digamma_root_data", "digamma({0})", 1),
    ("digamma_small_data", "digamma({0})", 1),
    ("erf_data", "erf({0})", 1),
    ("erf_data", "erfc({0})", 2),
    ("erf_large_data", "erfc({0})", 2),
    ("erf_small_data", "erf({0})", 1),
    ("zeta_data", "zeta({0})", 1),
    ("zeta_neg_data", "zeta({0})", 1),
    ("zeta_1_below_data", "zeta({0})", 1),
    ("zeta_1_up_data", "zeta({0})", 1),
    # the tables of elliptic integrals go by the modulus, whose square is the parameter
    ("ellint_k_data", "elliptic_k(({0})^2)", 1),
    ("ellint_e_data", "elliptic_e(({0})^2)", 1),
    ("bessel_j_data", "bessel_j({0}, {1})", 2),
    ("bessel_j_int_data", "bessel_j({0}, {1})", 2),
    ("bessel_j_large_data", "bessel_j({0}, {1})", 2),
    ("bessel_y01_data", "bessel_y({0}, {1})", 2),
    ("bessel_yn_data", "bessel_y({0}, {1})", 2),
    ("bessel_yv_data", "bessel_y({0}, {1})", 2),
    ("bessel_i_data", "bessel_i({0}, {1})", 2),
    ("bessel_i_int_data", "bessel_i({0}, {1})", 2),
    ("bessel_k_data", "bessel_k({0}, {1})", 2),
    ("bessel_k_int_data", "bessel_k({0}, {1})", 2),
]

DIGITS = 17
"""With these a decimal names its binary64."""


@pytest.fixture(scope="module")
def tables() -> dict[str, numpy.ndarray]:
    with numpy.load(DATA) as archive:
        return {name.rpartition("-")[2]: archive[name] for name in archive.files}


def in_full(value: float) -> str:
    """The decimal that is exactly this binary64."""
    return format(decimal.Decimal(value), "f")


@pytest.mark.parametrize(("table", "line", "column"), TABLES)
def test_every_row_of_a_published_table(tables, table, line, column):
    differing = []
    for row in tables[table].tolist():
        typed = line.format(*(in_full(argument) for argument in row))
        value = float(answer(typed, digits=DIGITS).partition(" ")[2])
        if abs(value - row[column]) > math.ulp(row[column]):
            differing.append((typed, value, row[column]))
    assert not differing
