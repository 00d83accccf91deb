"""How a file of comma-separated values is written: its encoding, its separator, its head."""

from __future__ import annotations

import csv
import gzip
import re
import zlib
from collections import Counter
from io import BytesIO, StringIO
from itertools import islice
from operator import itemgetter

from teapot.engine.errors import LineError
from teapot.engine.files.cells import CURRENCIES, UNIT_BEHIND
from teapot.engine.files.layout import OF_SPACE, split_by
from teapot.engine.sentences.tables import NOT_A_FILE

SEPARATORS = (",", ";", "\t", "|")
LOOKED_AT = 200
"""Rows by which the separator is guessed."""

MAX_BYTES = 50 * 1024 * 1024
MAX_COLUMNS = 500
MAX_ROWS = 200_000
MAX_CELLS = 2_000_000
READ_AT_MOST = 2 * MAX_ROWS
"""Rows that are read, blank ones among them."""

MAX_CELL = 10_000
"""Characters of a cell."""

ENCODINGS = {
    "utf-8": "UTF-8", "utf-8-sig": "UTF-8 with a mark", "utf-16": "UTF-16",
    "utf-16-le": "UTF-16, least first", "utf-16-be": "UTF-16, greatest first",
    "cp1252": "Western European (1252)", "cp1250": "Central European (1250)",
    "cp1251": "Cyrillic (1251)", "koi8_r": "Cyrillic (KOI8)", "cp1253": "Greek (1253)",
    "cp1254": "Turkish (1254)", "cp1257": "Baltic (1257)", "mac_roman": "Macintosh",
    "cp850": "DOS (850)", "cp932": "Japanese (932)", "gb18030": "Chinese (GB 18030)",
    "big5": "Chinese (Big5)", "cp949": "Korean (949)",
}  # fmt: skip
"""Encodings that tables come in, each with what it is called."""

WESTERN = frozenset(
    "ÀÁÂÃÄÅÆÇÈÉÊËÌÍÎÏÑÒÓÔÕÖØÙÚÛÜßàáâãäåæçèéêëìíîïñòóôõöøùúûüÿŒœ°µ²³±·×½¼¾€§«»–—‘’“”„‰…\xa0"
)
"""Signs beyond ASCII that a file of measurements in Western Europe has."""

SAMPLE_BYTES = 200_000
"""Bytes by which an encoding is guessed."""

MARKS = ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"))
"""Marks at the beginning of a file that name its encoding (Unicode Standard, 23.8)."""

_NUMBER = re.compile(r"[-+−]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][-+]?\d+)?")


def too_large() -> LineError:
    """What is said of a file with more than :data:`MAX_BYTES`."""
    return NOT_A_FILE(why=f"it has more than {MAX_BYTES // 1024**2} megabytes")


def too_many_cells() -> LineError:
    """What is said of a file with more than :data:`MAX_CELLS`."""
    return NOT_A_FILE(why=f"it has more than {MAX_CELLS:,} cells")


PACKED = b"\x1f\x8b"
"""What a packed file begins with (RFC 1952, 2.3.1)."""


def unpacked(data: bytes) -> bytes:
    """What a file holds that is packed by gzip; any other as it is.

    Errors: :data:`NOT_A_FILE` where it is damaged, or holds too much.
    """
    if not data.startswith(PACKED):
        return data
    try:
        with gzip.open(BytesIO(data)) as file:
            held = file.read(MAX_BYTES + 1)
    except (OSError, EOFError, zlib.error):
        raise NOT_A_FILE(why="it is packed by gzip, and damaged") from None
    if len(held) > MAX_BYTES:
        raise too_large()
    return held


def decoded(data: bytes, encoding: str = "") -> tuple[str, str]:
    """The text of a file and the encoding that it is in, one of :data:`ENCODINGS` where it is
    not given.

    Errors: :data:`NOT_A_FILE` where it is empty, too large, or no text.
    """
    if not data.strip():
        raise NOT_A_FILE(why="it is empty")
    if len(data) > MAX_BYTES:
        raise too_large()
    if encoding:
        return _as_text(data, encoding), encoding
    for mark, marked in MARKS:
        if data.startswith(mark):
            return _as_text(data, marked), marked
    if b"\x00" in data[:SAMPLE_BYTES]:
        return _wide(data)
    try:
        return data.decode("utf-8"), "utf-8"
    except UnicodeDecodeError:
        found = _encoding_of(data[:SAMPLE_BYTES])
    return _as_text(data, found), found


def _wide(data: bytes) -> tuple[str, str]:
    """A text in UTF-16 without a mark, in which every other byte is 0 as a rule.

    Errors: :data:`NOT_A_FILE` where it is none.
    """
    sample = data[:SAMPLE_BYTES]
    for name, zeros in (("utf-16-le", sample[1::2]), ("utf-16-be", sample[::2])):
        if zeros.count(0) > 0.7 * len(zeros):
            return _as_text(data, name), name
    raise NOT_A_FILE(why="it holds no text")


def _encoding_of(sample: bytes) -> str:
    """The encoding that a text seems to be in that is not in UTF-8.

    Errors: :data:`NOT_A_FILE` where it is no text in any.
    """
    western = sample.decode("cp1252", errors="replace")
    letters = [sign for sign in western if sign.isalpha()]
    foreign = [sign for sign in western if not sign.isascii()]
    if set(foreign) <= WESTERN and sum(map(str.isalpha, foreign)) * 2 <= len(letters):
        return "cp1252"
    from charset_normalizer import from_bytes  # only here: to load it takes a twentieth of a start

    for match in from_bytes(sample):
        if match.encoding in ENCODINGS:
            return match.encoding
    if "\ufffd" in western:
        raise NOT_A_FILE(why="it holds no text")
    return "cp1252"


def _as_text(data: bytes, encoding: str) -> str:
    text = data.decode(encoding, errors="replace")
    if "\x00" in text:
        raise NOT_A_FILE(why="it holds no text")
    return text


def rows_of(text: str, separator: str, most: int = READ_AT_MOST) -> list[list[str]]:
    """The first rows of a file (RFC 4180), blank ones left out.

    Errors: :data:`NOT_A_FILE` where a quotation mark never closes, or there are too many rows
    or columns.
    """
    if separator in OF_SPACE:
        return _checked([split_by(separator)(line) for line in islice(text.splitlines(), most)])
    csv.field_size_limit(MAX_CELL)
    rows: list[list[str]] = []
    if text.count(separator) > 3 * MAX_CELLS:
        raise too_many_cells()  # even if most of them stand in quotation marks
    reader = csv.reader(StringIO(text, newline=""), delimiter=separator, strict=True)
    try:
        rows.extend(islice(reader, most))
    except csv.Error as error:
        if "limit" in str(error):
            said = f"a cell near row {len(rows) + 1:,} is longer than {MAX_CELL:,} characters: "
            raise NOT_A_FILE(why=f"{said}perhaps a quotation mark is never closed") from None
        why = f"near row {len(rows) + 1:,} a quotation mark is never closed"
        raise NOT_A_FILE(why=why) from None
    return _checked(rows)


def _checked(rows: list[list[str]]) -> list[list[str]]:
    """The rows that are not blank.  Errors: :data:`NOT_A_FILE` where there are too many."""
    if len(rows) == READ_AT_MOST:
        raise NOT_A_FILE(why=f"it has more than {MAX_ROWS:,} rows")
    if not all(rows) or not all(map(itemgetter(0), rows)):
        rows = [row for row in rows if any(map(str.strip, row))]
    if len(rows) > MAX_ROWS:
        raise NOT_A_FILE(why=f"it has more than {MAX_ROWS:,} rows")
    if sum(map(len, rows)) > MAX_CELLS:
        raise too_many_cells()
    if max(map(len, rows), default=0) > MAX_COLUMNS:
        wide = next(at for at, row in enumerate(rows, 1) if len(row) > MAX_COLUMNS)
        raise NOT_A_FILE(why=f"row {wide:,} has more than {MAX_COLUMNS} columns")
    return rows


def separator_of(text: str) -> str:
    """The separator that gives the most columns in the most rows."""
    head = "".join(islice(StringIO(text, newline=""), LOOKED_AT))
    best, most = ",", 0.0
    for separator in SEPARATORS:
        try:
            widths = Counter(map(len, rows_of(head, separator)))
        except LineError:
            continue
        width, times = max(widths.items(), key=lambda pair: (pair[1], pair[0]), default=(1, 0))
        share = times * times * (width - 1) / max(1, widths.total())
        if share > most:
            best, most = separator, share
    return best


def point_of(rows: list[list[str]], separator: str) -> str:
    """The sign before the decimals: a comma where more numbers have one than a point; then that
    between thousands, where some number has one."""
    cells = [_bare(cell) for row in rows for cell in row]
    for point, grouped in GROUPED.items():
        if any(map(grouped.fullmatch, cells)):
            return point
    numbers = [cell for cell in cells if _NUMBER.fullmatch(cell)]
    if separator == "," and not any("," in cell for cell in numbers):
        return "."
    commas = sum("," in cell for cell in numbers)
    return "," if commas > sum("." in cell for cell in numbers) else "."


_BEHIND = re.compile(rf"(?<=[\d.,])\s*(?:{UNIT_BEHIND})$")


def _bare(cell: str) -> str:
    """A cell without the unit after its number, or the sign of a currency."""
    return _BEHIND.sub("", cell.strip().lstrip(CURRENCIES).strip())


_SPACE = r"[ \u00a0\u202f\u2009]"
GROUPED = {
    ".,": re.compile(r"[-+−]?\d{1,3}(?:,\d{3})*,\d{3}\.\d+|[-+−]?\d{1,3}(?:,\d{3}){2,}"),
    ",.": re.compile(r"[-+−]?\d{1,3}(?:\.\d{3})*\.\d{3},\d+|[-+−]?\d{1,3}(?:\.\d{3}){2,}"),
    ", ": re.compile(rf"[-+−]?\d{{1,3}}(?:{_SPACE}\d{{3}})+,\d+"),
    ". ": re.compile(rf"[-+−]?\d{{1,3}}(?:{_SPACE}\d{{3}})+(?:\.\d+)?"),
    ".'": re.compile(r"[-+−]?\d{1,3}(?:['’]\d{3})+(?:\.\d+)?"),
}
"""Numbers by which the signs before decimals and between thousands are known."""


def has_head(rows: list[list[str]]) -> bool:
    """Whether the first row names the columns: it has no number, and the others have one."""
    if len(rows) < 2:
        return False
    if any(_NUMBER.fullmatch(cell.strip()) for cell in rows[0]):
        return False
    others = [cell.strip() for row in rows[1:] for cell in row]
    if any(_NUMBER.fullmatch(cell) for cell in others):
        return True
    return len({*rows[0]}) == len(rows[0]) and all(rows[0])
