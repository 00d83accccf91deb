"""Complex numbers written by their parts."""

from __future__ import annotations

from dataclasses import replace

from teapot.engine.forms import trees
from teapot.engine.forms.reals import BASES, WRITERS
from teapot.engine.forms.written import Written
from teapot.engine.numbers.arithmetic import negate
from teapot.engine.numbers.values import Complex, Number, exact
from teapot.engine.reading.forms import Form
from teapot.engine.reading.tree import NOWHERE, Binary, Node
from teapot.engine.sentences.forms import FORM_FOR_REAL_NUMBER

ZERO = exact(0)


def write_complex(number: Complex, form: Form) -> Written:
    """A complex number by its parts."""
    if form.style not in WRITERS or form.style in (*BASES, "percent"):
        raise FORM_FOR_REAL_NUMBER(form=form.style)
    writer = WRITERS[form.style]
    re, im = writer(number.re, form), writer(number.im, form)
    if _vanishes(im):
        return replace(re, kind="complex", sign="≈", notice=_of_part("imaginary", im))
    if _vanishes(re):
        shown = write_complex(Complex(ZERO, number.im), form)
        return replace(shown, sign="≈", notice=_of_part("real", re))
    sign = "=" if (re.sign, im.sign) == ("=", "=") else "≈"
    is_negative = im.text.startswith("-")
    size = writer(_negated(number.im), form) if is_negative else im
    tree: Node = trees.I
    if size.text != "1" or size.sign != "=":
        tree = trees.times(_expression(size), trees.I)
    if re.text != "0" or re.sign != "=":
        tree = Binary(NOWHERE, "-" if is_negative else "+", _expression(re), tree)
    elif is_negative:
        tree = trees.signed(tree, True)
    return Written("complex", sign, tree, (), re.notice or im.notice)


def _negated(number: Number) -> Number:
    negative = negate(number)
    assert isinstance(negative, Number)
    return negative


def _expression(written: Written) -> Node:
    assert isinstance(written.tree, Node)
    return written.tree


def _vanishes(part: Written) -> bool:
    """Whether a part is too close to 0 for any of its digits to be shown."""
    return part.text == "0" and part.sign == "≈"


def _of_part(which: str, part: Written) -> str:
    return part.notice.replace("This", f"The {which} part", 1)
