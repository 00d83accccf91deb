"""Which known word is meant by one that is not known: the one that needs the fewest
changes (RapidFuzz)."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, cast

# RapidFuzz is loaded where it is used: it takes a twentieth of the start of an evaluator.


def nearest(word: str, known: Iterable[str], least: float) -> str | None:
    """The known word that shares the most letters in the same order with ``word``.

    ``least`` is the share of the letters of both that they must have in common, from 0
    to 1.  Among equally near ones it is the last of the alphabet; None where none is near.

    >>> nearest("sqart", ["sqrt", "sort", "sin"], 0.7)
    'sqrt'
    """
    from rapidfuzz import process
    from rapidfuzz.distance import Indel

    found = process.extract(
        word, list(known), scorer=Indel.normalized_similarity, score_cutoff=least, limit=None
    )
    return max(found, key=lambda one: (one[1], one[0]))[0] if found else None


def within(word: str, known: Iterable[str], slips: int, most: int) -> list[str]:
    """At most so many known words that ``word`` becomes by so many ``slips``: a letter
    too much, too few, another one, or two that changed places.

    >>> within("avreage", ["average", "mean"], 1, 5)
    ['average']
    """
    from rapidfuzz import process
    from rapidfuzz.distance import OSA

    found = process.extract(
        word, known, scorer=cast(Any, OSA.distance), score_cutoff=slips, limit=most
    )
    return [one for one, _, _ in found]
