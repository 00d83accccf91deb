"""Names that nothing has: what may be meant by them."""

from __future__ import annotations

import re
from collections.abc import Callable, Collection, Container, Iterable

from teapot.engine.diagnostics.foreign_names import (
    MISSING_FEATURES,
    NAMES,
    WRITTEN,
    WRITTEN_WITH_TWO,
)
from teapot.engine.diagnostics.plain_words import HERE
from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import (
    BY_NAME,
    CONSTANTS,
    called_in_words,
    closest,
    in_another_case,
)
from teapot.engine.functions.physics import ALSO as CALLED_ALSO
from teapot.engine.mends import Mend, Span, at_the_end, replace, replace_each
from teapot.engine.reading.commands import COMMANDS
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Call, ColumnOf, ListOf, Literal, Name, Node, Postfix, Range
from teapot.engine.reading.unit_words import BEHIND
from teapot.engine.reading.units import YEAR
from teapot.engine.reading.vocabulary import CONSTANT_NAMES, GREEK, UNIT_WORDS
from teapot.engine.sentences.commands import COMMAND_WITHOUT_SLASH
from teapot.engine.sentences.foreign import DONE_HERE, NAME_WITH_POINT
from teapot.engine.sentences.names import (
    BASE_IN_THE_NAME,
    LAST_ANSWER_IS_AT,
    NO_QUANTITY,
    SYMBOL_OF_CONSTANT,
    UNKNOWN_FUNCTION,
    UNKNOWN_FUNCTION_NEAR,
    UNKNOWN_NAME,
    UNKNOWN_NAME_NEAR,
    WRITTEN_OTHERWISE,
)
from teapot.engine.sentences.units import BARE_UNIT, UNIT_ALONE, UNIT_OR_CONSTANT
from teapot.engine.sentences.unreadable import (
    CALL_IN_WORDS,
    NO_BRACKETS,
    NOT_HERE,
    NOTHING_TO_PRINT,
)
from teapot.engine.units.table import PLAIN, atom_of

BESSEL = re.compile(r"([JYIK])_?(\d)")
"""``J0``: a Bessel function with its order."""

RUN_TOGETHER = re.compile(r"([a-z]+)_?([0-9]+)")
"""``sqrt2``: a function's name and its argument, or ``log3``: that and its base."""

LONGEST_SPLIT = 12
"""Letters of a name that is looked at as two names run together."""


def _as_command(node: Name) -> LineError:
    summary = COMMANDS[node.name].summary
    mend = replace(node.span, f"/{node.name}")
    return COMMAND_WITHOUT_SLASH(node.span, (mend,), name=node.name, summary=summary)


def _as_unit(node: Name) -> LineError:
    atom = atom_of(node.name)
    assert atom is not None
    full = atom.names[0].replace("_", " ")
    constant = CALLED_ALSO.get(node.name)
    if constant is not None:
        mends = (_called(node, constant), replace(node.span, f"1 {node.name}"))
        return UNIT_OR_CONSTANT(node.span, mends, name=node.name, full=full, constant=constant)
    mend = at_the_end(replace(node.span, f"1 {node.name}"))  # (C/P)^3 only lacks its values
    return UNIT_ALONE(node.span, (mend,), name=node.name, full=full)


def _called(node: Name, constant: str) -> Mend:
    return replace(node.span, f'constant("{constant}")')


BELOW_BAR = re.compile(r"/\s*(?P<unit>[^\W\d_]{2,})(?![\w(^²³])")
"""``r/cm``: how many centimetres a length is (ISO 80000-1, 7.1.4)."""


def counted_in_units(text: str, quantities: Container[str]) -> tuple[Mend, ...]:
    """The mend that puts a 1 before units which quantities are divided by; none without such."""
    places = [
        (Span(*found.span("unit")), f"(1 {found['unit']})")
        for found in BELOW_BAR.finditer(text)
        if found["unit"] not in quantities and atom_of(found["unit"]) is not None
    ]
    return (replace_each(text, places),) if places else ()


POWERS = {word: f"^{power}" for word, power in BEHIND.items()}
"""What is written for a word after a value."""


class _Units:
    """All that stands for a unit after a number."""

    def __contains__(self, name: object) -> bool:
        return (
            isinstance(name, str)
            and name not in UNIT_WORDS
            and name != YEAR  # hardly ever the year
            and atom_of(name) is not None
        )


WORDS: tuple[tuple[Container[str], Callable[[Name], LineError]], ...] = (
    (UNIT_WORDS, lambda node: BARE_UNIT(node.span, name=node.name)),
    (_Units(), _as_unit),
    (("help", "clear"), _as_command),
    (HERE, lambda node: DONE_HERE(node.span, how=HERE[node.name])),
    (
        POWERS,
        lambda node: CALL_IN_WORDS(
            node.span, (replace(node.span, POWERS[node.name]),), call=POWERS[node.name]
        ),
    ),
    (MISSING_FEATURES, lambda node: NOT_HERE(node.span, why=MISSING_FEATURES[node.name])),
    (("print", "echo", "display"), lambda node: NOTHING_TO_PRINT(node.span)),
    (
        ("ans", "answer", "Ans"),
        lambda node: LAST_ANSWER_IS_AT(node.span, (replace(node.span, "@"),)),
    ),
)
"""Words that are no names of values anywhere here, and what is said of each."""


def unknown_name(node: Name, quantities: Iterable[str]) -> LineError:
    """The error for a name that nothing has, with what is closest to it."""
    name, known = node.name, {*quantities}
    if len(name) > 1 and all(letter in known for letter in name):
        parts = "*".join(name)  # RC, of a resistor and a capacitor
        return NO_QUANTITY(node.span, (replace(node.span, parts),), name=name)
    if name.endswith("'") and name.rstrip("'") in known:
        mends = (replace(node.span, f"transpose({name[:-1]})"),) if name.count("'") == 1 else ()
        return UNKNOWN_NAME(node.span, mends, name=name)
    is_near = (closest(name, known) if len(name) > 2 else in_another_case(name, known)) is not None
    for words, error in WORDS:
        if name in words and not (is_near and isinstance(words, _Units)):
            return error(node)
    together = run_together(node)
    if together is not None:
        return together
    parts = _two_names(name, known)
    if parts:
        return NO_QUANTITY(node.span, (replace(node.span, parts),), name=name)
    other = (
        NAMES.get(name)
        or _in_other_letters(name, known)
        or closest(name, _may_be_meant(name, known))
    )
    is_symbol = len(name) > 1 or (name in SYMBOLS and other is None)
    constant = CALLED_ALSO.get(name) if is_symbol else None
    if constant is not None:
        mends = (_called(node, constant),)
        return SYMBOL_OF_CONSTANT(node.span, mends, name=name, constant=constant)
    if other is None:
        return UNKNOWN_NAME(node.span, name=name)
    return UNKNOWN_NAME_NEAR(node.span, (replace(node.span, other),), name=name, other=other)


SYMBOLS = frozenset("c")
"""Single letters that are no units and that a constant is mostly meant by: k is many things."""


def _in_other_letters(name: str, known: Collection[str]) -> str | None:
    """The quantity theta_1, of which the letter θ_1 is typed, or the other way round."""
    spelt = _spelt_out(name)
    return next((one for one in known if one != name and _spelt_out(one) == spelt), None)


def _spelt_out(name: str) -> str:
    """A Greek letter at the head of a name by its name."""
    return NAMES_OF_LETTERS.get(name[:1], name[:1]) + name[1:]


NAMES_OF_LETTERS = {letter: name for name, letter in GREEK.items()}


def _may_be_meant(name: str, known: Collection[str]) -> Collection[str]:
    """The names that ``name`` may be a slip for: E is no e, and a short one is no function that
    is not called."""
    constants = CONSTANTS if len(name) > 1 else ()
    functions = BY_NAME if len(name) >= SHORTEST_FUNCTION else ()
    return {*known, *constants, *functions}


SHORTEST_FUNCTION = 4
"""Letters of a name without brackets that may be a slip for a function's."""


def _two_names(name: str, known: Collection[str]) -> str:
    """``sinx`` and ``ab``: a function and its argument, or two values, run together."""
    if len(name) > LONGEST_SPLIT:
        return ""
    values = {*known, *CONSTANT_NAMES}
    for at in range(len(name) - 1, 0, -1):
        first, second = name[:at], name[at:]
        if first in BY_NAME and len(first) > 1 and (second in values or second in ("x", "t", "α")):
            return f"{first}({second})"
    for at in range(1, len(name)):
        first, second = name[:at], name[at:]
        if first in values and second in values and {first, second} & {*known}:
            return f"{first}*{second}"
    return ""


def _function_and_number(name: str) -> tuple[str, str] | None:
    parts = RUN_TOGETHER.fullmatch(name)
    return (parts[1], parts[2]) if parts and parts[1] in BY_NAME else None


def run_together(node: Name | Postfix) -> LineError | None:
    """``sqrt2`` or ``sin30°``: the error that puts the brackets in; None for another node."""
    name, unit = (node.operand, node.op) if isinstance(node, Postfix) else (node, "")
    parts = _function_and_number(name.name) if isinstance(name, Name) else None
    if parts is None:
        return None
    function, number = parts
    gap = " " if unit.isalpha() else ""
    mend = replace(node.span, f"{function}({number}{gap}{unit})")
    return NO_BRACKETS(node.span, (mend,), function=function)


def of_library(node: ColumnOf) -> LineError | None:
    """The error for ``math.pi``, of which nothing is needed before the point; None for a name
    that is no constant or function."""
    names = (node.name, node.name.lower())
    name = next((one for one in names if one in CONSTANTS or one in BY_NAME), None)
    if name is None or not isinstance(node.of, Name) or node.of.name.lower() != "math":
        return None
    return NAME_WITH_POINT(node.span, (replace(node.span, name),))


Suggest = Callable[[str], Iterable[str]]
"""Gives the functions that a word of a purpose is looked up by, the likeliest first."""


def unknown_function(node: Call, functions: Iterable[str], suggested: Suggest) -> LineError:
    """The error for a call of what is no function, with the one that may be meant; the
    handbook is asked for what it ``suggested``, for a word such as ``average``."""
    name = node.function
    if name in MISSING_FEATURES:
        return NOT_HERE(node.name_span, why=MISSING_FEATURES[name])
    other_way = _written_otherwise(node)
    if other_way is not None:
        return other_way
    base = _function_and_number(name)
    if base and base[0] == "log" and len(node.args) == 1 and f"log{base[1]}" not in BY_NAME:
        return _base_in_the_name(node, base[1])
    other = (
        NAMES.get(name)
        or in_another_case(name, [*BY_NAME, *functions])
        or NAMES.get(name.lower())
        or called_in_words(name)
        or _that_takes(len(node.args), closest(name, [*BY_NAME, *functions]))
        or _that_takes(len(node.args), _suggested(node, suggested))
    )
    if other is None and _is_before_bracket(node):
        return unknown_name(Name(node.name_span, name), ())
    if other is None:
        return UNKNOWN_FUNCTION(node.name_span, name=name)
    return UNKNOWN_FUNCTION_NEAR(
        node.name_span, (replace(node.name_span, other),), name=name, other=other
    )


def _suggested(node: Call, suggested: Suggest) -> str | None:
    """What the handbook has for the word; for P(5, 2), but not for the P(X = 3) of a textbook."""
    if len(node.function) == 1 and (len(node.args) != 2 or node.named):
        return None
    return next(iter(suggested(node.function)), None)


def _is_before_bracket(node: Call) -> bool:
    """Whether it is rather a factor before a bracket: ``k (T_1 - T_2)``, with a space between."""
    if len(node.args) != 1 or node.named:
        return False
    return node.args[0].span.start - node.name_span.end > 1


def beside_others(error: LineError, text: str) -> None:
    """Puts brackets around what is written for a call, where other things stand beside it:
    ``square(2)^3`` is (2^2)^3."""
    error.mends = tuple(_bracketed(mend, text) for mend in error.mends)


def _bracketed(mend: Mend, text: str) -> Mend:
    before, after = text[: mend.span.start].rstrip(), text[mend.span.end :].lstrip()
    is_alone = before[-1:] in ALONE_AFTER and after[:1] in ALONE_BEFORE
    is_one = re.fullmatch(r"[\w.]*(?:\([^()]*\))?", mend.replacement)
    if is_alone or is_one:
        return mend
    return Mend(mend.label, mend.span, f"({mend.replacement})")


ALONE_AFTER = ("", "=", ",", ";", "(", "[")
ALONE_BEFORE = ("", ",", ";", ")", "]", "#")
"""Between which nothing takes hold of a part."""


def _that_takes(count: int, name: str | None) -> str | None:
    """``name``, unless it is a function that never has so many arguments: ``roots(1, 2, 3)``
    is hardly a slip for ``root``."""
    record = BY_NAME.get(name or "")
    if record is None or record.variadic or count == 0:
        return name
    return name if count <= len(record.parameters) else None


def _written_otherwise(node: Call) -> LineError | None:
    """``square(3)``, ``hex(255)``, ``J0(1)``: what is no function of the language is
    written with what it has."""
    name = node.function
    if name in WRITTEN_WITH_TWO and len(node.args) == 2 and not node.named:
        meant = WRITTEN_WITH_TWO[name].format(*map(_enclosed, node.args))
        return WRITTEN_OTHERWISE(
            node.name_span, (replace(node.span, meant),), name=name, meant=meant
        )
    if len(node.args) != 1 or node.named:
        return None
    argument = node_text(node.args[0])
    bessel = BESSEL.fullmatch(name)
    may_be_list = isinstance(node.args[0], ListOf | Range | Name)
    if name in WRITTEN and (may_be_list or name not in NAMES):
        meant = (
            WRITTEN[name].format(argument)
            if "{}" in WRITTEN[name]
            else (WRITTEN[name].format(_enclosed(node.args[0])))
        )
    elif bessel:
        meant = f"bessel_{bessel[1].lower()}({bessel[2]}, {argument})"
    else:
        return None
    return WRITTEN_OTHERWISE(node.name_span, (replace(node.span, meant),), name=name, meant=meant)


def _enclosed(node: Node) -> str:
    text = node_text(node)
    return text if isinstance(node, Name | Literal | Call | ListOf) else f"({text})"


def _base_in_the_name(node: Call, base: str) -> LineError:
    """``log_3(81)``."""
    mend: Mend = replace(node.span, f"log({node_text(node.args[0])}, {base})")
    return BASE_IN_THE_NAME(node.name_span, (mend,), base=base)


UNITS_MEANT = {
    "KG": "kg", "Kg": "kg", "gm": "g", "gms": "g", "gr": "g", "sec": "s", "secs": "s",
    "Sec": "s", "hr": "h", "hrs": "h", "Hr": "h", "micron": "µm", "microns": "µm",
    "um": "µm", "us": "µs", "ug": "µg", "uL": "µL", "ul": "µL", "uF": "µF", "uA": "µA", "uV": "µV",
    "kph": "km/h", "kmh": "km/h", "kmph": "km/h", "mps": "m/s", "cc": "cm^3", "ccm": "cm^3",
    "sqm": "m^2", "cbm": "m^3", "ohms": "Ω", "Ohm": "Ω", "Ohms": "Ω", "kohm": "kΩ", "KHz": "kHz",
    "KW": "kW", "KWh": "kWh", "kwh": "kWh", "KJ": "kJ", "KN": "kN", "KPa": "kPa", "kpa": "kPa",
    "hpa": "hPa", "mpa": "MPa", "khz": "kHz", "Mhz": "MHz", "Km": "km",
    "KM": "km", "Cm": "cm", "CM": "cm", "MM": "mm", "Mm": "mm", "ML": "mL",
    "mhz": "MHz", "MHZ": "MHz", "ghz": "GHz", "GHZ": "GHz", "Kwh": "kWh",
    "KWH": "kWh", "KMH": "km/h", "kw": "kW",
    "amp": "A", "amps": "A", "Amp": "A", "yrs": "year",
    "degC": "°C", "degF": "°F", "Cal": "kcal", "KV": "kV", "kv": "kV",
    "lbm": "lb", "mpg": "mi/gal",
}  # fmt: skip
"""What is typed for a unit after a number, and its symbol."""

WITH_POWER = re.compile(r"([^\W\d]+)([23])")
"""``m2``: a symbol with its power after it."""


def unit_meant(name: str) -> str:
    """The unit that is meant by a name which has no value; empty where none is.

    >>> unit_meant("Kg"), unit_meant("cm2"), unit_meant("kNm"), unit_meant("tea")
    ('kg', 'cm^2', 'kN m', '')
    """
    power = WITH_POWER.fullmatch(name)
    if power is not None and atom_of(power[1]) is not None:
        return f"{power[1]}^{power[2]}"
    if name in UNITS_MEANT:
        return UNITS_MEANT[name]
    if len(name) > 2 and atom_of(name.lower()) is not None:
        return name.lower()  # a full name with a capital letter
    together = _factors_of_unit(name)
    if together:
        return together
    if name[:1] == name[1:2] and len(name) > 2 and atom_of(name[1:]) is not None:
        return name[1:]  # kkg: a key hit twice
    singular = name.removesuffix("s")
    if len(singular) > 1 and singular != name and atom_of(singular) is not None:
        return singular  # kms
    alike = [symbol for symbol in PLAIN if symbol.lower() == name.lower()]
    return alike[0] if len(name) > 1 and len(alike) == 1 else ""  # AU


LAST_FACTORS = ("mm", "cm", "m", "s", "h")


def _factors_of_unit(name: str) -> str:
    """``Nm`` and ``kNm``: two units run together."""
    for last in LAST_FACTORS:
        first = name.removesuffix(last)
        if first and first != name and len(first) <= 3 and first[-1:].isalpha():
            atom = atom_of(first)
            if atom is not None and atom.symbol == first and first[-1].isupper():
                return f"{first} {last}"
    return "Pa s" if name == "Pas" else ""
