"""Lines of words and no formula: ``what is 2+2``, ``how do I convert degrees``, ``undo``.

They are looked for only in a line that cannot be read.  Each gets the formula in it, what is done
here instead, or where to look.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Container

from teapot.engine.diagnostics.foreign_names import MISSING_FEATURES
from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import Span, replace
from teapot.engine.reading.forms import COUNTED
from teapot.engine.reading.vocabulary import CONSTANT_NAMES, UNIT_WORDS, WORDS
from teapot.engine.sentences.foreign import A_SENTENCE, DONE_HERE, FORMULA_IN_WORDS
from teapot.engine.sentences.unreadable import NOT_HERE
from teapot.engine.units.table import atom_of

LONGEST = 200
"""Characters of a line that is looked through."""

ASKING = re.compile(
    r"^(?:please\s+)?(?:what\s+is|what's|whats|how\s+much\s+is|calculate|compute|evaluate|work\s+out|"
    r"find|tell\s+me|print|display|show|show\s+me|give\s+me)\s+(?:the\s+(?:value\s+of\s+)?)?",
    re.IGNORECASE,
)
"""What is said before a formula."""

SET_TO = re.compile(
    r"^(?:let\s+)?(?:the\s+)?(?P<name>[^\W\d]\w*)\s+(?:is|equals|be)\s+(?P<value>\S.*)$"
)

OPERAND = r"(@?[\w.]+(?:\([^()]*\))?)"

ALONE = rf"{OPERAND}(?![\w.(]|\s*[-+*/^²³])"
"""An operand with nothing after it that it may be a part of."""

DATE = r"(\d{4}-\d\d-\d\d|today\(\)|[^\W\d]\w*)"

NUMBERS = r"(?P<items>[-\d.]+(?:\s*(?:,\s*and\b|,|\band\b)\s*[-\d.]+)+)"


def _as_list_of(function: str) -> Callable[[re.Match[str]], str]:
    """What puts ``3, 4 and 5`` into a list that a function is called with."""
    between = re.compile(r"\s*(?:,\s*and\b|,|\band\b)\s*")
    return lambda found: (
        f"{function or found[1].lower()}([{', '.join(between.split(found['items']))}])"
    )


Meant = str | Callable[[re.Match[str]], str]

MEANINGS: tuple[tuple[re.Pattern[str], Meant], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), meant)
    for pattern, meant in (
        (rf"\bsquare\s+root\s+of\s+{OPERAND}", r"sqrt(\1)"),
        (rf"\bcube\s+root\s+of\s+{OPERAND}", r"cbrt(\1)"),
        (rf"\b(?:the\s+)?cube\s+of\s+{OPERAND}", r"\1^3"),
        (rf"\b(?:the\s+)?square\s+of\s+{OPERAND}", r"\1^2"),
        (rf"\b(?:the\s+)?(?:average|mean)\s+of\s+{NUMBERS}", _as_list_of("mean")),
        (rf"\b(?:the\s+)?(sum|product|median)\s+of\s+{NUMBERS}", _as_list_of("")),
        (rf"\b(?:the\s+)?(?:average|mean)\s+of\s+{ALONE}", r"mean(\1)"),
        (rf"\b(?:the\s+)?standard\s+deviation\s+of\s+{ALONE}", r"stdev(\1)"),
        (rf"\b(?:the\s+)?(max|min)(?:imum)?\s+of\s+{ALONE}", r"\1(\2)"),
        (rf"\b(?:the\s+)?(sum|product|median|variance|range)\s+of\s+{ALONE}", r"\1(\2)"),
        (rf"\b(?:the\s+)?(?:count|length|number)\s+of\s+{ALONE}", r"count(\1)"),
        (rf"\b(?:the\s+)?prime\s+factors\s+of\s+{ALONE}", r"factor(\1)"),
        (rf"^(?:the\s+)?(?:number\s+of\s+)?days\s+(?:until|till|to)\s+{DATE}$", r"\1 - today()"),
        (rf"^(?:the\s+)?(?:number\s+of\s+)?days\s+since\s+{DATE}$", r"today() - \1"),
        (rf"^(?:the\s+)?(?:number\s+of\s+)?days\s+between\s+{DATE}\s+and\s+{DATE}$", r"\2 - \1"),
        (rf"\bis\s+{OPERAND}\s+(?:a\s+)?prime(?:\s+number)?\??$", r"is_prime(\1)"),
        (r"\s+to\s+(\d+)\s+(?:decimals?|decimal\s+places|dp|d\.p\.)$", r" as \1 places"),
        (
            r"\s+to\s+(\d+)\s+(?:sig(?:nificant)?\.?\s*(?:figures|figs?|digits)|s\.?f\.?)$",
            r" as \1 digits",
        ),
        (rf"\b(sin|cos|tan|ln|lg|exp|sqrt|abs)\s+of\s+{OPERAND}(?:\s+degrees|°)", r"\1(\2°)"),
        (rf"\b(sin|cos|tan|ln|lg|exp|sqrt|abs)\s+of\s+{OPERAND}", r"\1(\2)"),
        (r"\b(sin|cos|tan)\s+inverse\s*\(", r"arc\1("),
        (rf"\bhalf\s+of\s+{OPERAND}", r"\1/2"),
        (rf"{OPERAND}\s*(?:percent|%)\s+of\s+", r"\1% * "),
        (r"\s+(?:divided\s+by|over)\s+", "/"),
        (r"\s+(?:multiplied\s+by|times)\s+", "*"),
        (r"\s+to\s+the\s+power\s+(?:of\s+)?", "^"),
        (r"\s+(?:squared)\b", "^2"),
        (r"\s+(?:cubed)\b", "^3"),
        (r"\s+plus\s+", " + "),
        (r"\s+minus\s+", " - "),
    )
)
"""What is meant by words in a formula."""

HERE = {
    **dict.fromkeys(
        ("undo",), "Ctrl+Z in an empty entry takes back the last change of the sheet."
    ),
    **dict.fromkeys(("redo",), "Ctrl+Shift+Z in an empty entry does the change again."),
    **dict.fromkeys(
        ("save",), "Nothing needs saving: each line is kept as soon as it is answered."
    ),
    **dict.fromkeys(
        ("exit", "quit", "close", "logout"),
        "The window can be closed at any time: every line is kept.",
    ),
    **dict.fromkeys(
        ("delete", "remove", "erase"), "Del on a line deletes it; PgUp goes to the lines."
    ),
    **dict.fromkeys(("copy",), "C on a line copies its answer; PgUp goes to the lines."),
    **dict.fromkeys(
        ("import", "from", "include"),
        "Nothing needs importing: every function is there.",
    ),
}  # fmt: skip
"""What does it here, by the word that a line begins with."""

COMMON = frozenset({
    "how", "what", "why", "when", "where", "which", "who", "is", "are", "the", "do", "does",
    "can", "could", "please", "you", "we", "my", "this", "that", "of", "show", "tell", "give",
    "want", "need", "would", "should", "it", "its", "there", "their", "about", "many", "much",
})  # fmt: skip
"""Words of sentences that nobody calls a quantity by."""


def words_in(text: str, quantities: Container[str] = ()) -> LineError | None:
    """The error for a line of words that cannot be read; None where it is no such line."""
    words = re.findall(r"[^\W\d_]+", text)
    if len(text) > LONGEST or not words:
        return None
    place = Span(0, len(text.rstrip()))
    formula = _formula_in(text.strip(), quantities)
    if formula is not None:
        return FORMULA_IN_WORDS(place, (replace(place, formula),))
    first = words[0].lower()
    is_line_of_words = len(words) > 1 and re.match(r"\s*[^\W\d_]+\s+\w", text) is not None
    if not is_line_of_words or words[0] in quantities:
        return None
    if first in HERE:
        return DONE_HERE(place, how=HERE[first])
    if first in MISSING_FEATURES:
        return NOT_HERE(place, why=MISSING_FEATURES[first])
    said = [word for word in words if word.lower() in COMMON and word not in quantities]
    if not said:
        return None
    sought = [one for one in words if one.lower() not in COMMON | WORDS and len(one) > 1]
    mends = (replace(place, f"/find {' '.join(sought)}"),) if sought else ()
    return A_SENTENCE(place, mends)


def _formula_in(text: str, quantities: Container[str]) -> str | None:
    """The formula that is said in words; None where nothing but its words are left."""
    asked = ASKING.sub("", text, count=1).strip()
    meant = asked
    for pattern, written in MEANINGS:
        meant = pattern.sub(written, meant)
    if meant != text:
        meant = meant.rstrip("?.= ")
    found = None if asked.endswith("?") else SET_TO.match(meant)
    name = found["name"] if found is not None else ""
    if found is not None and name.lower() not in COMMON:
        # nothing that has a value is overwritten unasked
        meant = f"{name} {'==' if name in quantities else '='} {found['value']}"
    if meant == text or not meant:
        return None
    names = set(re.findall(r"[^\W\d]\w*", meant)) - {name}
    return meant if all(_is_known(one, quantities) for one in names) else None


def _is_known(name: str, quantities: Container[str]) -> bool:
    known = name in quantities or name in BY_NAME or name in CONSTANT_NAMES
    return (
        known
        or name in COUNTED
        or len(name) == 1
        or name in WORDS
        or name in UNIT_WORDS
        or atom_of(name) is not None
    )
