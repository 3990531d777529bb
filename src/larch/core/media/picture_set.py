"""The pictures that come with Larch: some thousands of drawings, found by words of many languages, read one by one.

They lie in an SQLite file: `picture` (drawings, packed with a common dictionary) and `term` (a folded word and the
numbers of the pictures that it names or belongs to). Nothing of it is held in memory but the last pages that SQLite read.
"""

from __future__ import annotations

import struct
import threading
import zlib
from collections.abc import Mapping, Sequence
from functools import cache, lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from larch.core.base.folding import folded
from larch.core.base.words import N_

if TYPE_CHECKING:
    import sqlite3

FILE = Path(__file__).parents[2] / "assets/pictures/pictures.sqlite"
KEY = "dictionary"
TRAYS = (N_("Nature"), N_("Food"), N_("Places"), N_("Activities"), N_("Objects"), N_("People"), N_("Faces"), N_("Signs"))
LICENCE = "MIT"
MOST_TERMS = 400  # words looked at for one beginning

# What has no place among a child's results; in a lesson that has it, it is still shown.
NOT_OFFERED = frozenset((
    "face vomiting", "woozy face", "face with symbols on mouth", "smiling face with horns", "angry face with horns",
    "skull and crossbones", "pile of poo", "kiss mark", "pinched fingers", "sign of the horns", "middle finger", "kiss",
    "pregnant woman", "pregnant man", "pregnant person", "breast-feeding", "people with bunny ears", "men with bunny ears",
    "women with bunny ears", "person in bed", "sake", "bottle with popping cork", "wine glass", "cocktail glass",
    "tropical drink", "beer mug", "clinking beer mugs", "clinking glasses", "tumbler glass", "love hotel", "water pistol",
    "slot machine", "briefs", "bikini", "axe", "dagger", "crossed swords", "bomb", "syringe", "drop of blood", "pill",
    "toilet", "cigarette", "coffin", "headstone", "funeral urn", "no smoking", "no one under eighteen", "kitchen knife",
    "face blowing a kiss", "kissing face", "kissing face with closed eyes", "kissing face with smiling eyes",
    "exploding head", "skull",
))  # fmt: skip

_local = threading.local()


class Drawing(NamedTuple):
    """hash: SHA-256 of its SVG; label: its English name; tray: the sort of thing it shows."""

    hash: str
    label: str
    tray: str


def offered(label: str) -> bool:
    """Whether a drawing, or one that differs from it in a tone only, is offered."""
    return label.split(":")[0] not in NOT_OFFERED


def packed_ids(ids: Mapping[int, int]) -> bytes:
    """Numbers of pictures, each with what the word is to it: 0 a keyword, 1 a part of its name, 2 its name."""
    return struct.pack(f"<{len(ids)}H", *(4 * number + level for number, level in sorted(ids.items())))


def unpacked_ids(data: bytes) -> dict[int, int]:
    return {value >> 2: value & 3 for value in struct.unpack(f"<{len(data) // 2}H", data)}


def _base() -> sqlite3.Connection:
    """A connection of this thread's own. The file is never written to."""
    import sqlite3

    if not hasattr(_local, "base"):
        _local.base = sqlite3.connect(f"file:{FILE}?mode=ro&immutable=1", uri=True)
        _local.base.execute("PRAGMA cache_size = -2000")
    found: sqlite3.Connection = _local.base
    return found


@cache
def _dictionary() -> bytes:
    return bytes(_base().execute("SELECT value FROM about WHERE key = ?", (KEY,)).fetchone()[0])


def drawing(digest: str) -> bytes | None:
    """The SVG with this hash; None if it is not one of the set."""
    row = _base().execute("SELECT data FROM picture WHERE hash = ?", (digest,)).fetchone()
    if row is None:
        return None
    unpacker = zlib.decompressobj(zdict=_dictionary())
    return unpacker.decompress(row[0]) + unpacker.flush()


def tray(name: str, limit: int = 400) -> list[Drawing]:
    """The drawings of one sort, those that differ in nothing but a tone last."""
    rows = _base().execute(
        "SELECT hash, label, tray FROM picture WHERE tray = ? ORDER BY variant, id LIMIT ?", (name, limit)
    )
    return [Drawing(*row) for row in rows if offered(row[1])]


def count() -> int:
    return int(_base().execute("SELECT count(*) FROM picture").fetchone()[0])


def search(query: str, limit: int = 60) -> list[Drawing]:
    """What fits all words of a query, in any of the languages; names before keywords, whole words before beginnings."""
    words = folded(query).split()
    if not words:
        return []
    scores: dict[int, float] | None = None
    for word in words:
        found = _scores(word)
        scores = found if scores is None else {k: scores[k] + found[k] for k in scores.keys() & found.keys()}
        if not scores:
            return []
    assert scores is not None
    best = sorted(scores, key=lambda number: (-scores[number], number))[: 4 * limit]
    rows = _rows(best)
    order = sorted((k for k in best if k in rows), key=lambda k: (-scores[k] + 1.5 * rows[k][1], k))
    return [rows[k][0] for k in order if offered(rows[k][0].label)][:limit]


@lru_cache(6)
def _scores(word: str) -> dict[int, float]:
    """How well each picture fits one word, which may be only begun."""
    found: dict[int, float] = {}
    terms = _base().execute(
        "SELECT word, ids FROM term WHERE word >= ? AND word < ? LIMIT ?", (word, word + "\U0010ffff", MOST_TERMS)
    )
    for term, data in terms:
        whole = 2.0 if term == word else 0.4 if len(term) <= len(word) + 2 else 0.0
        for number, level in unpacked_ids(data).items():
            found[number] = max(found.get(number, 0.0), 1.0 + whole + level)
    return found


def _rows(numbers: Sequence[int]) -> dict[int, tuple[Drawing, int]]:
    marks = ",".join("?" * len(numbers))
    rows = _base().execute(f"SELECT id, hash, label, tray, variant FROM picture WHERE id IN ({marks})", tuple(numbers))
    return {row[0]: (Drawing(*row[1:4]), row[4]) for row in rows}
