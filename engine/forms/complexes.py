"""Complex numbers written by their parts, or by modulus and angle."""

from __future__ import annotations

from engine.errors import LineError
from engine.forms.angles import write_angle
from engine.forms.names import Form
from engine.forms.reals import BASES, WRITERS
from engine.forms.written import Written
from engine.numbers.arithmetic import negate
from engine.numbers.complexes import argument, modulus
from engine.numbers.values import Angle, Complex
from engine.reading.mathml import TIMES_NOTHING


def write_complex(number: Complex, form: Form) -> Written:
    """A complex number by its parts, or by its modulus and its angle."""
    if form.shape == "polar":
        return _polar(number, form)
    writer = WRITERS.get(form.style)
    if writer is None or form.style in (*BASES, "percent"):
        raise LineError("form-for-number", f"The form {form.style} is for real numbers.")
    re, im = writer(number.re, form), writer(number.im, form)
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
    remark = re.remark or im.remark
    return Written("complex", sign, text, f"<mrow>{mathml}{factor_shown}{unit}</mrow>", (), remark)


def _polar(number: Complex, form: Form) -> Written:
    size = WRITERS[form.style](modulus(number), form)
    angle = write_angle(Angle(argument(number), form.unit or "rad"), form)
    sign = "=" if (size.sign, angle.sign) == ("=", "=") else "≈"
    text = f"{size.text} ∠ {angle.text}"
    return Written("complex", sign, text, f"<mrow>{size.mathml}<mo>∠</mo>{angle.mathml}</mrow>")
