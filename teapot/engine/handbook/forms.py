"""The forms of an answer, as the handbook tells of them."""

from __future__ import annotations

from teapot.engine.handbook.record import TRADE, HandbookRecord, record


def _form(
    name: str,
    pattern: str,
    summary: str,
    examples: tuple[tuple[str, str, str], ...],
    words: str,
    related: tuple[str, ...] = (),
    confused_with: str = "",
    source: str = TRADE,
) -> HandbookRecord:
    shown = f"… as {pattern}"
    return record(name, name, shown, summary, examples, words, related, confused_with, source)


FORMS = (
    _form(
        "prefixed", "prefixed", "A measure with the prefix that suits its size.",
        (("4200 W as prefixed", "=", "4.2 kW"), ("0.0035 kg as prefixed", "=", "3.5 g"),
         ("1 V / 20 kΩ as prefixed", "=", "50 µA")),
        "prefix kilo milli micro unit size system of a sheet", ("measures",),
        "engineering, which shows a power of ten.", source="SI brochure, 9th edition, 3.1",
    ),
    _form(
        "digits", "N digits", "So many significant digits.",
        (("pi as 4 digits", "≈", "3.142"), ("sqrt(2) as 20 digits", "≈", "1.4142135623730950488")),
        "significant figures precision more digits accuracy", ("decimal-places",),
        "places, which count from the decimal point.", source="ISO 80000-1, Annex B",
    ),
    _form(
        "decimal-places", "N places", "So many digits after the point.",
        (("pi as 2 places", "≈", "3.14"), ("20/3 as 3 places", "≈", "6.667")),
        "decimal places after the point fixed", ("digits",),
        "digits, which count from the first figure.",
    ),
    _form(
        "decimal", "decimal", "Digits with a point, however large or small.",
        (("1e-8 as decimal", "=", "0.00000001"), ("2/3 as decimal", "≈", "0.6666666667")),
        "plain decimal no exponent fixed", ("scientific",),
    ),
    _form(
        "scientific", "scientific", "One figure before the point, and a power of ten.",
        (("299792458 as scientific", "=", "2.99792458e8"),
         ("1/3 as scientific, 3 digits", "≈", "3.33e-1")),
        "scientific notation exponent power of ten standard form", ("engineering",),
    ),
    _form(
        "engineering", "engineering", "A power of ten that is a multiple of three.",
        (("123456 as engineering", "=", "123.456e3"), ("0.0047 as engineering", "=", "4.7e-3")),
        "engineering notation kilo milli micro thousand exponent in threes", ("scientific",),
    ),
    _form(
        "concise", "concise",
        "A measured value with the uncertainty of its last figures in brackets.",
        (("5.32 ± 0.04 m as concise", "≈", "5.320(40) m"),
         ("1.00794 ± 0.00007 as concise", "≈", "1.007940(70)")),
        "concise short form uncertainty in brackets parentheses last digits measured",
        ("digits",), "a product: 5.320(40) is 5.320 ± 0.040.", "SI brochure, 9th edition, 5.4.5",
    ),
    _form(
        "fraction", "fraction", "A fraction of whole numbers; the simplest where it is rounded.",
        (("0.75 as fraction", "=", "3/4"), ("2/3 + 1/12 as fraction", "=", "3/4")),
        "fraction rational ratio numerator denominator", ("mixed", "exact"),
    ),
    _form(
        "mixed", "mixed", "A whole number and a fraction.",
        (("7/3 as mixed", "=", "2 + 1/3"), ("-7/3 as mixed", "=", "-2 - 1/3")),
        "mixed number whole and fraction", ("fraction",),
    ),
    _form(
        "percent", "percent", "Hundredth parts.",
        (("0.125 as percent", "=", "12.5%"), ("2/3 as percent, 1 places", "≈", "66.7%")),
        "percent percentage", ("percent-sign",),
    ),
    _form(
        "binary", "binary", "A whole number to base 2.",
        (("11 as binary", "=", "0b1011"), ("0xFF as binary", "=", "0b11111111")),
        "binary base two bits", ("hex", "octal"),
        "binary64, which is how a machine holds a real number.",
    ),
    _form(
        "octal", "octal", "A whole number to base 8.",
        (("15 as octal", "=", "0o17"), ("8 as octal", "=", "0o10")),
        "octal base eight", ("binary", "hex"),
    ),
    _form(
        "hex", "hex", "A whole number to base 16.",
        (("255 as hex", "=", "0xFF"), ("16 as hex", "=", "0x10")),
        "hexadecimal base sixteen hex", ("binary", "octal"),
    ),
    _form(
        "exact", "exact", "Every digit, or the form with fractions, roots and π.",
        (("1/8 as exact", "=", "0.125"), ("pi/6 as exact", "=", "pi/6"),
         ("sin(45°) as exact", "=", "sqrt(2)/2")),
        "exact closed form surd root multiple of pi symbolic all digits", ("fraction",),
    ),
    _form(
        "binary64", "binary64", "What machine arithmetic gives, beside the true value.",
        (("sin(pi) as binary64", "→", "1.2246467991473532e-16"),
         ("0.1 + 0.2 as binary64", "→", "0.30000000000000004")),
        "double precision float floating point machine rounding error noise", ("eps", "tidy"),
        "the true value, which is shown without this form.", source="IEEE 754",
    ),
    _form(
        "rad", "rad", "An angle in radians, as a multiple of π where it is one.",
        (("60° as rad", "=", "(pi/3) rad"), ("100 gon as rad", "=", "(pi/2) rad")),
        "radian radians convert degrees to radians conversion", ("deg", "radians"),
        source="ISO 80000-3",
    ),
    _form(
        "deg", "deg", "An angle in degrees.",
        (("(pi/6) rad as deg", "=", "30°"), ("12°30′15″ as deg", "≈", "12.50416667°")),
        "degree degrees convert radians to degrees conversion decimal", ("rad", "dms", "degrees"),
        source="ISO 80000-3",
    ),
    _form(
        "gon", "gon", "An angle in gon, 400 to the full angle.",
        (("90° as gon", "=", "100 gon"), ("0.5 turn as gon", "=", "200 gon")),
        "gon gradian grad survey angle", ("deg", "turn"), source="ISO 80000-3",
    ),
    _form(
        "turn", "turn", "An angle in turns, full angles.",
        (("90° as turn", "=", "0.25 turn"), ("2 pi rad as turn", "=", "1 turn")),
        "turn revolution full angle cycle", ("deg", "gon"),
    ),
    _form(
        "dms", "dms", "An angle in degrees, minutes and seconds.",
        (("12.5° as dms", "=", "12°30′0″"), ("100 gon as dms", "=", "90°0′0″")),
        "degrees minutes seconds sexagesimal arc minutes", ("deg", "degree-sign"),
        source="ISO 80000-3",
    ),
    _form(
        "polar", "polar", "A complex number by its modulus and its angle.",
        (("3 + 4i as polar, deg", "≈", "5∠53.13010235°"),
         ("2i as polar, deg", "=", "2∠90°")),
        "polar phasor modulus argument magnitude phase", ("rectangular", "polar-sign", "arg"),
    ),
    _form(
        "rectangular", "rectangular", "A complex number by its real and imaginary part.",
        (("2∠90° as rectangular", "=", "2i"), ("3 + 4i as rectangular", "=", "3 + 4i")),
        "rectangular cartesian real and imaginary part", ("polar", "re", "im"),
    ),
)  # fmt: skip
