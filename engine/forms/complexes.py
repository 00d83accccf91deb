"""Complex numbers written by their parts."""

from __future__ import annotations

from dataclasses import replace

from engine.errors import FormForRealNumber
from engine.forms.names import Form
from engine.forms.reals import BASES, WRITERS
from engine.forms.written import Written
from engine.numbers.arithmetic import negate
from engine.numbers.values import Complex, exact
from engine.reading.mathml import TIMES_NOTHING

ZERO = exact(0)


def _vanishes(part: Written) -> bool:
    """Whether a part is too close to 0 for any of its digits to be shown."""
    return part.text == "0" and part.sign == "≈"


def _of_part(which: str, part: Written) -> str:
    return part.notice.replace("This", f"The {which} part", 1)


def write_complex(number: Complex, form: Form) -> Written:
    """A complex number by its parts."""
    writer = WRITERS.get(form.style)
    if writer is None or form.style in (*BASES, "percent"):
        raise FormForRealNumber(form=form.style)
    re, im = writer(number.re, form), writer(number.im, form)
    if _vanishes(im):
        return replace(re, kind="complex", sign="≈", notice=_of_part("imaginary", im))
    if _vanishes(re):
        shown = write_complex(Complex(ZERO, number.im), form)
        return replace(shown, sign="≈", notice=_of_part("real", re))
    sign = "=" if (re.sign, im.sign) == ("=", "=") else "≈"
    minus = im.text.startswith("-")
    size = writer(negate(number.im), form) if minus else im
    unit = '<mi mathvariant="normal">i</mi>'
    factor, factor_shown = "", ""
    if size.text != "1" or size.sign != "=":
        factor, factor_shown = size.as_factor()
        factor_shown += TIMES_NOTHING
    has_re = re.text != "0" or re.sign != "="
    join = (" - " if minus else " + ") if has_re else "-" if minus else ""
    shown = f'<mo form="{"infix" if has_re else "prefix"}">{"−" if minus else "+"}</mo>'
    text = (re.text if has_re else "") + join + factor + "i"
    mathml = (re.mathml if has_re else "") + (shown if has_re or minus else "")
    notice = re.notice or im.notice
    return Written("complex", sign, text, f"<mrow>{mathml}{factor_shown}{unit}</mrow>", (), notice)
