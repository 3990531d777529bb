"""Handwritten words: line by line by a packaged line reader, its doubts settled by a list of words of the language.

The reader is the recognition model inside the package rapidocr (Apache 2.0), run by onnxruntime alone. It does not read
numbers well; those are read by Larch's own network.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from functools import cache, lru_cache
from itertools import pairwise
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.recognise.ink import clean
from larch.core.recognise.lines import WrittenLine, lines_of, picture_of
from larch.core.recognise.net import Net

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

WIDE = 10  # readings kept while a word is spelt out
KNOWN, UNKNOWN = 3.0, -2.0  # what a word gains by being in the list, and loses by not being there
AROUND = ".,!?:;()\"'’"  # signs that stand at words
SURE = 2.2  # what a word has to gain at least, so that others near to it are not looked at
LETTER, JOINED = 4.2, 2.2  # the price of another letter at most, and of letters that look alike
ALIKE = (("cl", "d"), ("ll", "h"), ("rn", "m"), ("vv", "w"), ("nn", "m"), ("ri", "n"), ("li", "h"), ("in", "h"), ("lo", "b"))
SAME_FORM = frozenset("CcOoSsUuVvWwXxZz")  # letters whose capitals are small ones enlarged
SMALL_LETTER, CAPITAL = 1.15, 1.35  # x-heights: no higher is a small letter of these, no lower a capital
OWN = 15.0  # the logarithm of how often a word of the writer counts as met
COMMON = 0.2  # for each power of e by which it is more common
SPELT = frozenset(
    "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZäöüÄÖÜßéèêëàâçîïôûùñáíóú'’-.,!?:;()&0123456789+=%/€$\""
)


class Word(NamedTuple):
    """others: further readings, the likeliest first. box: x0, y0, x1, y1; baseline: its height in the middle of the word."""

    text: str
    strokes: tuple[int, ...]
    box: tuple[float, float, float, float]
    baseline: float
    x_height: float
    confidence: float
    others: tuple[str, ...]
    line: int


class _Reader(Net):
    def source(self) -> bytes | str:
        return str(model_path())

    def letters(self) -> tuple[str, ...]:
        """What its answers mean; the first is no sign."""
        self.ask(x=_empty())
        session = self._session or self._loaded()
        listed = session.get_modelmeta().custom_metadata_map["character"].splitlines()
        return ("", *listed, " ")


def model_path() -> Path:
    """Raises FileNotFoundError with one sentence."""
    import importlib.util

    found = importlib.util.find_spec("rapidocr")
    path = Path(found.origin).parent / "models" / "PP-OCRv6_rec_small.onnx" if found is not None and found.origin else None
    if path is None or not path.exists():
        raise FileNotFoundError("The reader of words is not installed.")
    return path


def _empty() -> Array:
    import numpy as np

    return np.ones((1, 3, 48, 64), dtype=np.float32)


reader = _Reader("")


@cache
def _alphabet() -> tuple[tuple[str, ...], Array]:
    """All letters of the reader, and which of them are used here."""
    import numpy as np

    letters = reader.letters()
    return letters, np.array([k for k, sign in enumerate(letters) if k == 0 or sign in SPELT or sign == " "])


@cache
def lexicon(language: str) -> dict[str, float]:
    """Words of a language (lower case) with the logarithm of how often they are met."""
    import gzip
    import importlib.util

    import msgspec

    spec = importlib.util.find_spec("spellchecker")
    if spec is None or spec.origin is None:
        return {}
    path = Path(spec.origin).parent / "resources" / f"{language}.json.gz"
    if not path.exists():
        return {}
    counts = msgspec.json.decode(gzip.decompress(path.read_bytes()), type=dict[str, int])
    return {word: math.log(count) for word, count in counts.items() if count > 2}


@lru_cache(4)
def known_words(language: str, own: tuple[str, ...]) -> dict[str, float]:
    """The words of a language, and those that the writer chose before, which count as common ones."""
    return lexicon(language) | dict.fromkeys(own, OWN) if own else lexicon(language)


def read_words(strokes: Sequence[Any], language: str = "en", own: Sequence[str] = ()) -> list[Word]:
    """From top to bottom and left to right. own: words of the writer, in lower case. Raises FileNotFoundError where the
    reader is missing."""
    known = known_words(language, tuple(own))
    cleaned = clean(strokes)
    numbers = [k for k, stroke in enumerate(cleaned) if len(stroke)]
    if not numbers:
        return []
    kept = [cleaned[k] for k in numbers]
    found: list[Word] = []
    for n, line in enumerate(lines_of(kept)):
        found += _words(kept, numbers, line, n, known)
    return found


def _words(kept: Sequence[Array], numbers: Sequence[int], line: WrittenLine, n: int, known: dict[str, float]) -> list[Word]:
    import numpy as np

    own = [kept[k] for k in line.strokes]
    image, left, scale = picture_of(own, line)
    given = ((np.repeat(image[None], 3, axis=0) - 0.5) / 0.5)[None].astype(np.float32)
    answer = reader.ask(x=given)[0]
    letters, used = _alphabet()
    odds = np.log(np.maximum(answer[:, used], 1e-8))
    step = image.shape[1] / len(odds)
    made: list[Word] = []
    for start, end in _stretches(odds, used, letters):
        x0, x1 = left + start * step / scale, left + end * step / scale
        members = [k for k in line.strokes if x0 <= float(kept[k][:, 0].mean()) < x1]
        if not members:
            continue
        points = np.concatenate([kept[k] for k in members])
        box = (*points.min(axis=0).tolist(), *points.max(axis=0).tolist())
        ranked = spelt(odds[start:end], [letters[k] for k in used], known)
        if not ranked:
            continue
        ranked = _begun(ranked)
        stop = _full_stop([kept[k] for k in members], line)
        if stop:
            ranked = [(_stopped(text, stop), score) for text, score in ranked]
        number = _number(kept, members, ranked[0][0])
        number = _stopped(number, stop) if number and stop else number
        text = number or _cased(ranked[0][0], points, box, line)
        total = sum(math.exp(score - ranked[0][1]) for _text, score in ranked)
        others = tuple(word for word, _score in ranked if word != text)[:5]
        made.append(Word(text, tuple(numbers[k] for k in members), (box[0], box[1], box[2], box[3]),
                         line.base_at((box[0] + box[2]) / 2), line.x_height, 1 / total, others, n))  # fmt: skip
    return made


def _stopped(text: str, stop: str) -> str:
    """A word with the stop that stands at its end; whether that is a dot or a comma is told by its form."""
    if text[-1:] in (".", ",") and len(text) > 1:
        return text[:-1] + stop
    return text if text[-1:] in AROUND else text + stop


def _begun(ranked: list[tuple[str, float]]) -> list[tuple[str, float]]:
    """No word begins with a full stop: that belongs to the word before."""
    found: dict[str, float] = {}
    for text, score in ranked:
        bare = text.lstrip(".,;:!?")
        plain = bare if len(bare) > 1 and bare[0].isalpha() else text
        found[plain] = max(found.get(plain, -math.inf), score)
    return sorted(found.items(), key=lambda one: -one[1])


def _stretches(odds: Array, used: Array, letters: Sequence[str]) -> list[tuple[int, int]]:
    """Where words stand, parted in the middle of each blank."""
    import numpy as np

    best = used[odds.argmax(axis=1)]
    blanks = [k for k in range(len(best)) if letters[best[k]] == " "]
    cuts = [0]
    for k in blanks:
        if k - cuts[-1] > 1:
            cuts.append(k)
    cuts.append(len(best))
    written = best != 0
    return [(a, b) for a, b in pairwise(cuts) if np.any(written[a:b])]


def spelt(odds: Array, letters: Sequence[str], known: dict[str, float]) -> list[tuple[str, float]]:
    """The likeliest spellings, best first: a beam over prefixes (connectionist temporal classification, Graves 2012), then
    what is known of words. odds: logarithms, shape (steps, letters), the first letter being none."""
    import numpy as np

    beams: dict[str, tuple[float, float]] = {"": (0.0, -math.inf)}  # ending in none, ending in a letter
    for row in odds:
        fresh: dict[str, tuple[float, float]] = {}

        def add(text: str, none: float, letter: float, fresh: dict[str, tuple[float, float]] = fresh) -> None:
            a, b = fresh.get(text, (-math.inf, -math.inf))
            fresh[text] = (np.logaddexp(a, none), np.logaddexp(b, letter))

        top = [int(k) for k in np.argsort(-row)[:6] if k != 0 and row[k] > -7]
        for text, (none, letter) in beams.items():
            both = float(np.logaddexp(none, letter))
            add(text, both + row[0], -math.inf)
            for k in top:
                sign = letters[k]
                if sign == " ":
                    continue
                if text.endswith(sign):
                    add(text, -math.inf, letter + row[k])
                    add(text + sign, -math.inf, none + row[k])
                else:
                    add(text + sign, -math.inf, both + row[k])
        order = sorted(fresh, key=lambda text: -float(np.logaddexp(*fresh[text])))[:WIDE]
        beams = {text: fresh[text] for text in order}
    found = {text: float(np.logaddexp(*pair)) + word_bonus(text, known) for text, pair in beams.items() if text}
    best = max(found, key=lambda text: found[text], default="")
    if best and known and word_bonus(best, known) < SURE:
        bare = found[best] - word_bonus(best, known)
        for other, price in neighbours(best, known):
            likely = max(_odds_of(other, odds, letters), bare - price)
            found[other] = max(found.get(other, -math.inf), likely + word_bonus(other, known))
    return sorted(found.items(), key=lambda one: -one[1])[:WIDE]


def neighbours(text: str, known: dict[str, float]) -> Iterator[tuple[str, float]]:
    """Words of the list that are one letter away, or have letters that look alike when they are joined, and how much less
    likely they are at most. Signs round the word and a capital at its beginning stay."""
    core = text.strip(AROUND)
    if not 2 < len(core) < 24:
        return
    start = text.index(core)
    before, after = text[:start], text[start + len(core) :]
    small = "abcdefghijklmnopqrstuvwxyzäöüßéèêà"
    low = core.lower()
    near = {low[:k] + c + low[k + cut :]: LETTER for k in range(len(low) + 1) for c in (*small, "") for cut in (0, 1)}
    for one, other in (*ALIKE, *((b, a) for a, b in ALIKE)):
        near |= {low[:k] + other + low[k + len(one) :]: JOINED for k in range(len(low)) if low.startswith(one, k)}
    for word, price in near.items():
        if word in known and word != low:
            yield before + (word.capitalize() if core[0].isupper() else word) + after, price


def _odds_of(text: str, odds: Array, letters: Sequence[str]) -> float:
    """The logarithm of how likely just this text is, over all ways in which it can be spread over the steps."""
    import numpy as np

    index = {sign: k for k, sign in enumerate(letters)}
    if any(c not in index for c in text):
        return -math.inf
    labels = [0, *(k for c in text for k in (index[c], 0))]
    now = np.full(len(labels), -np.inf)
    now[0], now[1] = odds[0, 0], odds[0, labels[1]]
    skips = np.array([k > 1 and labels[k] != 0 and labels[k] != labels[k - 2] for k in range(len(labels))])
    for row in odds[1:]:
        one = np.concatenate([[-np.inf], now[:-1]])
        two = np.where(skips, np.concatenate([[-np.inf, -np.inf], now[:-2]]), -np.inf)
        now = np.logaddexp(np.logaddexp(now, one), two) + row[labels]
    return float(np.logaddexp(now[-1], now[-2]))


def word_bonus(text: str, known: dict[str, float]) -> float:
    core = text.strip(AROUND).lower()
    if not core or not known or any(c.isdigit() for c in core):
        return 0.0
    if core in known:
        return KNOWN + COMMON * (known[core] - 10)
    parts = [part for part in core.replace("’", "'").split("-") if part]
    if len(parts) > 1 and all(part in known for part in parts):
        return KNOWN / 2
    return UNKNOWN


def _full_stop(own: Sequence[Array], line: WrittenLine) -> str:
    """A dot or a comma that stands at the end of a word, which the reader easily overlooks; "" where there is none."""
    import numpy as np

    if len(own) < 2:
        return ""
    last = max(own, key=lambda stroke: float(stroke[:, 0].max()))
    rest = max(float(stroke[:, 0].max()) for stroke in own if stroke is not last)
    low, high = last.min(axis=0), last.max(axis=0)
    wide, tall = (high - low) / line.x_height
    base = line.base_at(float(low[0]))
    sits = base - 0.4 * line.x_height < float((low[1] + high[1]) / 2) < base + 0.35 * line.x_height
    if not sits or wide > 0.45 or tall > 0.8 or float(np.mean(last[:, 0])) < rest:
        return ""
    return "," if tall > 0.25 and high[1] > base + 0.16 * line.x_height else "."


def _cased(text: str, points: Array, box: Sequence[float], line: WrittenLine) -> str:
    """Whether the first letter is a capital, where only its height tells: S or s. points: of the word; box: around it."""
    if len(text) < 3 or text[0] not in SAME_FORM or not text[1:].islower():
        return text
    letter = (box[2] - box[0]) / len(text)

    def height(share: float) -> float:
        """Of what stands in so much of the first letter's place, in x-heights."""
        inside = points[points[:, 0] <= box[0] + share * letter]
        return (line.base_at(box[0]) - float(inside[:, 1].min())) / line.x_height

    if text[0].isupper() and height(0.9) < SMALL_LETTER:
        return text[0].lower() + text[1:]
    if text[0].islower() and height(0.6) > CAPITAL:
        return text[0].upper() + text[1:]
    return text


def _number(kept: Sequence[Array], members: Sequence[int], text: str) -> str:
    """What stands there as a number, by the network for signs; "" where it is none."""
    from larch.core.maths.layout.rows import Sign
    from larch.core.recognise.maths.reading import read_maths

    digits = sum(c.isdigit() for c in text)
    if not digits and not (len(text) <= 2 and set(text) <= set("OolISZB|")):
        return ""
    if digits * 2 < len(text.strip(".,!?")):
        return ""
    row = read_maths([kept[k] for k in members]).row
    made = "".join(item.text for item in row if isinstance(item, Sign))
    return (
        made
        if len(made) == len(row) and any(c.isdigit() for c in made) and all(c.isdigit() or c in ".,−-%:" for c in made)
        else ""
    )


def words_answer(strokes: Sequence[Any], language: str = "en", own: Sequence[str] = ()) -> dict[str, Any]:
    """{"text", "alternatives", "words": [{"text", "box", "baseline", "confidence", …}]}, as plain values."""
    found = read_words(strokes, language, own)
    text = joined(found, [word.text for word in found])
    others = []
    doubtful = sorted((k for k in range(len(found)) if found[k].others), key=lambda k: found[k].confidence)
    for k in doubtful[:5]:
        for other in found[k].others[: 5 if len(found) == 1 else 2]:
            changed = [word.text for word in found]
            changed[k] = other
            others.append(joined(found, changed))
    return {
        "text": text,
        "alternatives": list(dict.fromkeys(others))[:5],
        "words": [
            {"text": word.text, "box": [round(v, 3) for v in word.box], "baseline": round(word.baseline, 3),
             "confidence": round(word.confidence, 4), "others": list(word.others), "strokes": list(word.strokes),
             "x_height": round(word.x_height, 3), "line": word.line}
            for word in found
        ],
    }  # fmt: skip


def joined(words: Sequence[Word], texts: Sequence[str]) -> str:
    """Words of a line parted by blanks, lines by line breaks."""
    made = ""
    for k, (word, text) in enumerate(zip(words, texts, strict=True)):
        made += ("" if k == 0 else "\n" if word.line != words[k - 1].line else " ") + text
    return made
