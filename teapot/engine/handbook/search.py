"""Finding an entry by its name, a synonym or a purpose, in spite of a slip.

Each word that is looked for counts where an entry has it, or begins with it, or has
one that is a slip away.  A word that few entries have counts more.  Words that
stand together as they do in an entry count once more.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache, lru_cache
from math import log

from teapot.engine.handbook.entries import BY_TYPED, ENTRIES, FUNCTION, Entry
from teapot.engine.spelling import within

NAME, WORDS, SUMMARY, EXAMPLE = 6.0, 3.0, 1.5, 0.5
"""How much a word counts, by the place in which an entry has it."""

OF_FUNCTION = 1.25
"""A function is looked for more often than the sign that does the same."""

BEGINNING, SLIP = 0.7, 0.6
"""How much of it is left where only its beginning is the same, or it is a slip away."""

MOST_MEANT = 5
"""Known words that one with a slip may stand for."""

LETTERS_A_SLIP = 4
"""So many letters a word needs for each slip that is forgiven, two at most."""

MOST_WORDS = 8
LONGEST_WORD = 30
SHOWN = 12

IDLE = frozenset(
    ["a", "an", "the", "of", "to", "in", "is", "it", "do", "i", "how", "what", "for", "with",
     "my", "me", "can", "and", "or", "from"]
)  # fmt: skip
"""Words that say nothing of what is looked for."""

_WORD = re.compile(r"[^\W_]+|[^\w\s]+")


def words_of(text: str) -> list[str]:
    """The words of a text in lower case; signs count as words."""
    return [word[:LONGEST_WORD] for word in _WORD.findall(text.lower())]


def _weights(entry: Entry) -> dict[str, float]:
    weights: dict[str, float] = {}
    examples = " ".join(example.input for example in entry.examples)
    names = f"{entry.name} {' '.join(entry.aliases)}"
    words = f"{entry.key} {entry.words}"
    places = ((names, NAME), (words, WORDS), (entry.summary, SUMMARY), (examples, EXAMPLE))
    for text, weight in places:
        for word in words_of(text):
            weights[word] = max(weight, weights.get(word, 0))
    return weights


@dataclass(frozen=True, slots=True)
class Index:
    """The words of all entries, in the order of the entries.

    ``having`` counts the entries that have a word, ``plain`` is what each word of an entry weighs
    by its place there, and ``weights`` the more, the fewer entries have it.
    """

    phrases: list[str]
    having: Counter[str]
    plain: list[dict[str, float]]
    weights: list[dict[str, float]]
    vocabulary: list[str]


@cache
def _index() -> Index:
    """Made when it is first looked into: most starts of the engine do without."""
    plain = [_weights(entry) for entry in ENTRIES]
    having = Counter(word for weights in plain for word in weights)
    return Index(
        phrases=[
            f" {' '.join(words_of(entry.words))} / {' '.join(words_of(entry.summary))} "
            for entry in ENTRIES
        ],
        having=having,
        plain=plain,
        weights=[
            {word: weight * (1 + log(len(ENTRIES) / having[word])) for word, weight in one.items()}
            for one in plain
        ],
        vocabulary=sorted(having),
    )


def search(text: str, most: int = SHOWN) -> list[Entry]:
    """The entries that ``text`` may mean, the likeliest first."""
    exact = BY_TYPED.get(text.strip())
    wanted = words_of(text)[:MOST_WORDS]
    telling = [word for word in wanted if word not in IDLE] or wanted
    if not telling:
        return []
    meant = {word: _meant(word) for word in wanted}
    mended = [max(meant[word], key=meant[word].__getitem__, default=word) for word in wanted]
    index = _index()
    scores = [
        _score(entry, weights, plain, phrases, telling, meant, mended)
        for entry, weights, plain, phrases in zip(
            ENTRIES, index.weights, index.plain, index.phrases, strict=True
        )
    ]
    order = sorted(range(len(ENTRIES)), key=lambda at: -scores[at])
    best = scores[order[0]]
    found = [ENTRIES[at] for at in order[:most] if scores[at] > best / 5]
    if exact is not None:
        found = [exact, *(entry for entry in found if entry is not exact)]
    return found


def _score(
    entry: Entry,
    weights: dict[str, float],
    plain: dict[str, float],
    phrases: str,
    telling: Iterable[str],
    meant: dict[str, dict[str, float]],
    mended: list[str],
) -> float:
    score = 0.0
    for word in telling:
        of_word = 0.0
        for known, share in meant[word].items():
            if known in weights:
                # of a beginning it does not tell which of its words is the rarer
                weight = plain[known] if share == BEGINNING else weights[known]
                of_word = max(of_word, share * weight)
        score += of_word
    if entry.kind == FUNCTION:
        score *= OF_FUNCTION
    if score and len(mended) > 1 and f" {' '.join(mended)} " in phrases:
        score *= 2
    return score


@lru_cache(maxsize=4096)
def _meant(word: str) -> dict[str, float]:
    """The known words that ``word`` may stand for, each with how surely."""
    index = _index()
    found = {
        known: BEGINNING for known in index.vocabulary if len(word) > 1 and known.startswith(word)
    }
    slips = min(len(word) // LETTERS_A_SLIP, 2)
    if slips and word not in index.having:
        for known in within(word, index.vocabulary, slips, MOST_MEANT):
            found[known] = max(SLIP, found.get(known, 0))
    if word in index.having:
        found[word] = 1.0
    return found


def functions_for(word: str) -> list[str]:
    """The functions that a word of a purpose is looked up by, such as ``average``."""
    return [] if len(word) == 1 else [one.name for one in search(word) if one.kind == FUNCTION]
