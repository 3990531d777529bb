"""Makes assets/pictures/pictures.sqlite from two openly licensed packages, unpacked beside each other:

    python tools/make_pictures.py FOLDER_OF_DRAWINGS FOLDER_OF_WORDS

FOLDER_OF_DRAWINGS holds icons.json and chars.json (a flat emoji set under the MIT licence, in Iconify's JSON);
FOLDER_OF_WORDS holds a folder for each language with data.json (CLDR names and keywords, as gathered by emojibase under
the MIT licence).
"""

from __future__ import annotations

import hashlib
import json
import sqlite3
import sys
import zlib
from pathlib import Path

from larch.core.base.folding import folded
from larch.core.media.picture_set import KEY, packed_ids

LANGUAGES = [
    "en",
    "de",
    "fr",
    "es",
    "it",
    "pt",
    "nl",
    "da",
    "sv",
    "nb",
    "fi",
    "et",
    "lt",
    "pl",
    "hu",
    "uk",
    "ru",
    "hi",
    "zh",
    "ja",
    "ko",
    "vi",
]
GROUPS = {
    0: "Faces",
    1: "People",
    3: "Nature",
    4: "Food",
    5: "Places",
    6: "Activities",
    7: "Objects",
    8: "Signs",
    9: "Signs",
}
TARGET = Path(__file__).parents[1] / "src/larch/assets/pictures/pictures.sqlite"


def plain(code: str) -> str:
    return "-".join(part for part in code.lower().split("-") if part != "fe0f")


def words_of(folder: Path, language: str) -> dict[str, tuple[str, list[str], int, int]]:
    """Name, keywords, group and order by code; of variants in tone, the name alone."""
    found = {}
    for entry in json.loads((folder / language / "data.json").read_text("utf-8")):
        group, order = entry.get("group", 8), entry.get("order", 9999)
        found[plain(entry["hexcode"])] = (entry["label"], entry.get("tags", []), group, order)
        for skin in entry.get("skins", []):
            found[plain(skin["hexcode"])] = (skin["label"], [], group, skin.get("order", order))
    return found


def main(drawings: Path, words: Path) -> None:
    icons = json.loads((drawings / "icons.json").read_text("utf-8"))
    by_name: dict[str, str] = {}
    for code, name in json.loads((drawings / "chars.json").read_text("utf-8")).items():
        by_name.setdefault(name, plain(code))
    known = {language: words_of(words, language) for language in LANGUAGES}
    rows, terms = [], {}
    side = icons.get("width", 32)
    order = sorted(icons["icons"], key=lambda name: known["en"].get(by_name.get(name, ""), ("", [], 8, 9999))[3])
    common = b"".join(icons["icons"][name]["body"].encode()[:3000] for name in order[::120])[-32000:]
    for name in order:
        body = icons["icons"][name]["body"]
        code = by_name.get(name, "")
        if "<filter" in body or code not in known["en"]:
            continue
        number = len(rows) + 1
        spaces = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
        svg = f'<svg {spaces} viewBox="0 0 {side} {side}">{body}</svg>'
        packer = zlib.compressobj(9, zdict=common)
        data = packer.compress(svg.encode()) + packer.flush()
        label, _tags, group, _order = known["en"][code]
        variant = any(tone in name for tone in ("-light", "-dark", "medium-"))
        rows.append(
            (number, hashlib.sha256(svg.encode()).hexdigest(), label, GROUPS.get(group, "Signs"), int(variant), data)
        )
        for entry in (known[language].get(code) for language in LANGUAGES):
            if entry is None:
                continue
            for term, level in [(entry[0], 1), *((tag, 0) for tag in entry[1])]:
                for word in folded(term).split():
                    if len(word) > 1 or not word.isascii():
                        postings = terms.setdefault(word, {})
                        here = 2 if level and word == folded(term) else level
                        postings[number] = max(postings.get(number, 0), here)
    TARGET.unlink(missing_ok=True)
    base = sqlite3.connect(TARGET)
    base.execute(
        "CREATE TABLE picture(id INTEGER PRIMARY KEY, hash TEXT, label TEXT, tray TEXT, variant INTEGER, data BLOB)"
    )
    base.execute("CREATE TABLE term(word TEXT PRIMARY KEY, ids BLOB) WITHOUT ROWID")
    base.execute("CREATE TABLE about(key TEXT PRIMARY KEY, value BLOB)")
    base.executemany("INSERT INTO picture VALUES(?,?,?,?,?,?)", rows)
    base.executemany("INSERT INTO term VALUES(?,?)", [(w, packed_ids(ids)) for w, ids in sorted(terms.items())])
    base.execute("INSERT INTO about VALUES(?,?)", (KEY, common))
    base.execute("CREATE INDEX by_hash ON picture(hash)")
    base.execute("CREATE INDEX by_tray ON picture(tray, variant, id)")
    base.commit()
    base.execute("VACUUM")
    base.close()
    print(len(rows), "pictures,", len(terms), "words,", TARGET.stat().st_size // 1024, "kB")


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
