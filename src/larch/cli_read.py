"""`larch read`: what was written or drawn in InkML files, one answer a line."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Any

from larch.cli_bounds import bounded, contents, in_json, printable, unforeseen
from larch.refused import Refused

if TYPE_CHECKING:
    import argparse

KINDS = ("shape", "words", "maths")
MOST_STROKES = 2_000  # in a file
SECONDS = 20.0  # of processor time for one
LANGUAGES = ("en", "de", "fr", "es", "it", "nl", "pt")


def add_command(commands: Any) -> None:
    reading = commands.add_parser("read", help="read handwriting or shapes from InkML files")
    reading.add_argument("files", nargs="+", type=Path, metavar="INK.inkml")
    reading.add_argument("--as", dest="kind", choices=KINDS, required=True)
    reading.add_argument("--language", choices=LANGUAGES, default="en", help="of words")
    reading.add_argument("--json", action="store_true")


def run(asked: argparse.Namespace) -> int:
    """Answers for each file in order, as soon as it is ready; 1 where one could not be read. Raises Refused where the reader
    itself is missing."""
    failed = False
    for path in asked.files:
        try:
            made = {"file": str(path), **read_file(path, asked.kind, asked.language)}
        except Refused as refused:
            made, failed = {"file": str(path), "error": str(refused)}, True
        except Exception as error:
            made, failed = {"file": str(path), "error": unforeseen(error)}, True
        print(in_json(made) if asked.json else printable(in_words(asked.kind, made)), flush=True)
    return int(failed)


def read_file(path: Path, kind: str, language: str = "en") -> dict[str, Any]:
    """Raises Refused with one sentence."""
    from larch.core.files.inkml_read import LARGEST, Unreadable, traces_of

    try:
        strokes = [trace.points for trace in traces_of(contents(path, LARGEST))]
    except Unreadable as error:
        raise Refused(str(error)) from error
    if len(strokes) > MOST_STROKES:
        raise Refused(f"{path} holds {len(strokes)} strokes; {MOST_STROKES} can be read at once.")
    with bounded("This is too much writing to be read at once.", SECONDS):
        return answer(strokes, kind, language)


def answer(strokes: list[Any], kind: str, language: str) -> dict[str, Any]:
    if kind == "shape":
        from larch.core.recognise.shapes.reading import shape_answer

        return shape_answer(strokes)
    if kind == "maths":
        from larch.core.recognise.maths.answers import maths_answer

        return maths_answer(strokes)
    from larch.core.recognise.words import words_answer

    try:
        return words_answer(strokes, language)
    except FileNotFoundError as error:
        raise Refused(str(error)) from error


def in_words(kind: str, made: dict[str, Any]) -> str:
    told = made.get("error") or made.get("kind" if kind == "shape" else "text") or "—"
    return f"{made['file']}: {told}"
