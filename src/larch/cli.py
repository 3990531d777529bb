"""The headless commands, and the way to the window. Bad input: one sentence on standard error and exit code 2."""

from __future__ import annotations

import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any, NoReturn

from larch import __version__
from larch.refused import Refused

if TYPE_CHECKING:
    import argparse

MATHS = ("evaluate", "same", "follows", "work", "typeset", "plot")
DEVELOPING = ("test", "bench", "screenshots", "attack")  # their mistakes are shown as they are
TOLD = 0.7  # seconds for which `check` asks things for their facts; of the others only whether they are there
MEASURED = 5.0  # seconds of processor time, of a picture
LONGEST_STEPS = 64 * 2**20  # bytes
WINDOW_COMMANDS = (
    "export",
    "facts",
    "demo",
    "check",
    *MATHS,
    "read",
    "measure",
    "classify",
    "things",
    "act",
    "open",
    "test",
    "bench",
    "screenshots",
    "attack",
    "install-desktop",
)


def parser() -> argparse.ArgumentParser:
    import argparse

    class _Parser(argparse.ArgumentParser):
        def error(self, message: str) -> NoReturn:
            raise Refused(message)

    top = _Parser(prog="larch", description="Mathematics lessons for a desk and a large touch board.")
    top.add_argument("--version", action="version", version=f"Larch {__version__}")
    commands = top.add_subparsers(dest="command", parser_class=_Parser)
    opening = commands.add_parser("open", help="open a lesson (the same as: larch FILE)")
    opening.add_argument("lesson", nargs="?", type=Path)
    demo = commands.add_parser("demo", help="open the demo lesson, or write it to a file")
    demo.add_argument("--save", type=Path, metavar="OUT.larch")
    exporting = commands.add_parser("export", help="write a lesson as PDF, PNG or SVG")
    exporting.add_argument("lesson", type=Path)
    exporting.add_argument("--to", type=Path, required=True, metavar="OUT.pdf|png|svg")
    exporting.add_argument("--pages", metavar="2-3", help="for example 2 or 2-3 or 1,4-")
    exporting.add_argument("--answers", action="store_true", help="show and write what frost covers")
    exporting.add_argument("--fonts", default="outlined", metavar="outlined|embedded|named", help="of an SVG")
    exporting.add_argument("--width", type=int, default=1920, metavar="PIXELS", help="of a PNG")
    facts = commands.add_parser("facts", help="print what the things of a lesson know")
    facts.add_argument("lesson", type=Path)
    facts.add_argument("--page", type=int, metavar="N")
    facts.add_argument("--json", action="store_true")
    check = commands.add_parser("check", help="say what is damaged, newer or missing")
    check.add_argument("lesson", type=Path)
    from larch.cli_maths import add_commands

    add_commands(commands)
    from larch.cli_read import add_command

    add_command(commands)
    measure = commands.add_parser("measure", help="measure the shapes of an SVG picture")
    measure.add_argument("picture", type=Path, metavar="SHAPES.svg")
    measure.add_argument("--json", action="store_true")
    sorting = commands.add_parser("classify", help="say what a polygon is")
    sorting.add_argument("points", nargs="+", metavar="X,Y")
    sorting.add_argument("--json", action="store_true")
    listing = commands.add_parser("things", help="list the kinds of things and what they can do")
    listing.add_argument("--json", action="store_true")
    acting = commands.add_parser("act", help="work at a lesson by steps that are written down")
    acting.add_argument("steps", type=Path, metavar="STEPS.json")
    acting.add_argument("--lesson", type=Path, metavar="IN.larch")
    acting.add_argument("--to", type=Path, metavar="OUT.larch")
    acting.add_argument("--json", action="store_true")
    for name, text in (("test", "run all checks"), ("bench", "measure speed"), ("screenshots", "make the pictures anew")):
        sub = commands.add_parser(name, help=text)
        if name == "bench":
            sub.add_argument("word", nargs="?", default="", metavar="WORD", help="only what has WORD in its name")
    attacking = commands.add_parser("attack", help="try to make it lose, crash or hang")
    attacking.add_argument("--minutes", type=float, default=10.0, metavar="N")
    attacking.add_argument("--seed", type=int, metavar="N", help="tries again what a run with this seed tried")
    desktop = commands.add_parser("install-desktop", help="add Larch to the desktop's menu")
    desktop.add_argument("--remove", action="store_true")
    return top


def main(arguments: Sequence[str] | None = None) -> int:
    given = list(sys.argv[1:] if arguments is None else arguments)
    if given[:1] == ["test"]:
        from larch.checks import run_checks

        return run_checks(given[1:])
    if _plain(given):  # the way to the window does without a parser
        _speak()
        from larch.desk.app import run

        return run(demo=True) if given == ["demo"] else run(Path(given[0]) if given else None)
    if not given or (given[0] not in WINDOW_COMMANDS and not given[0].startswith("-")):
        given = ["open", *given]
    _speak()
    asked: argparse.Namespace | None = None
    try:
        return HANDLERS[(asked := parser().parse_args(_signs_kept(given))).command](asked)
    except Refused as refused:
        from larch.cli_bounds import printable

        print(f"larch: {printable(str(refused))}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 1
    except Exception as error:
        if asked is not None and asked.command in DEVELOPING:
            raise
        from larch.cli_bounds import unforeseen

        print(f"larch: {unforeseen(error)}", file=sys.stderr)
        return 2


def _plain(given: list[str]) -> bool:
    """Whether only the window is wanted: with nothing, with the demo, or with a lesson's file."""
    return given in ([], ["demo"]) or (len(given) == 1 and given[0].endswith(".larch") and not given[0].startswith("-"))


def _speak() -> None:
    from larch.core.base.words import speak

    speak(os.environ.get("LC_ALL") or os.environ.get("LC_MESSAGES") or os.environ.get("LANG") or "en")


def _signs_kept(given: list[str]) -> list[str]:
    """For `evaluate` and `classify`: "-x^2" is an expression and "--at -3" gives a number; neither is an option."""
    if given[:1] == ["classify"]:  # "-1,0" is a point
        flags = [word for word in given[1:] if word in ("--json", "-h", "--help")]
        return ["classify", *flags, "--", *(word for word in given[1:] if word not in flags)]
    if not given or given[0] not in MATHS:
        return given
    from larch.cli_maths import expressions_kept

    return expressions_kept(given)


def _maths(asked: argparse.Namespace) -> int:
    from larch.cli_maths import run

    return run(asked)


def _read_ink(asked: argparse.Namespace) -> int:
    from larch.cli_read import run

    return run(asked)


def _read(path: Path) -> Any:
    from larch.core.base.signs import use_signs
    from larch.core.files.lesson_file import LessonFileError, read_lesson

    try:
        opened = read_lesson(path)
        use_signs(opened.lesson.signs)
        return opened
    except LessonFileError as error:
        raise Refused(str(error)) from error


def _open(asked: argparse.Namespace) -> int:
    from larch.desk.app import run

    return run(asked.lesson)


def _demo(asked: argparse.Namespace) -> int:
    if asked.save is None:
        from larch.desk.app import run

        return run(demo=True)
    from larch.core.files.lesson_file import write_lesson
    from larch.demo import demo_lesson

    _offscreen()
    from larch.board.paint import page_svg

    try:
        write_lesson(demo_lesson(), asked.save, lambda page: page_svg(page, fonts="named"))
    except OSError as error:
        raise Refused(f"{asked.save} can't be written: {error.strerror}.") from error
    return 0


_kept: list[Any] = []  # the application must outlive the painting


def _offscreen() -> None:
    """Qt's fonts and painters without any window or display."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from PyQt6.QtGui import QGuiApplication

    if QGuiApplication.instance() is None:
        _kept.append(QGuiApplication(["larch"]))


def chosen_pages(text: str | None, count: int) -> list[int]:
    """Indexes from a text such as "2-3,5" or "4-" (counted from 1). Raises Refused."""
    if text is None:
        return list(range(count))
    found: list[int] = []
    for part in text.split(","):
        first, dash, last = part.strip().partition("-")
        try:
            if not first and not last:
                raise ValueError
            start = int(first) if first else 1
            end = (int(last) if last else count) if dash else start
        except ValueError as error:
            raise Refused(f"“{text}” does not name pages; write for example 2-3.") from error
        if not 1 <= start <= end <= count:
            raise Refused(f"The lesson has pages 1 to {count}; “{part.strip()}” is not among them.")
        found += range(start - 1, end)
    return list(dict.fromkeys(found))


def _export(asked: argparse.Namespace) -> int:
    lesson = _read(asked.lesson).lesson
    pages = [lesson.pages[i] for i in chosen_pages(asked.pages, len(lesson.pages))]
    _offscreen()
    from larch.board.export import Asked, ExportError, export

    try:
        wanted = Asked(pages, lesson.title or asked.lesson.stem, lesson.language, asked.width, answers=asked.answers,
                       fonts=asked.fonts)  # fmt: skip
        for path in export(wanted, asked.to):
            print(path)
    except ExportError as error:
        raise Refused(str(error)) from error
    return 0


def _facts(asked: argparse.Namespace) -> int:
    from larch.cli_bounds import in_json

    lesson = _read(asked.lesson).lesson
    pages = lesson.pages
    if asked.page is not None:
        if not 1 <= asked.page <= len(pages):
            raise Refused(f"The lesson has pages 1 to {len(pages)}.")
        pages = (pages[asked.page - 1],)
    listed = [
        {
            "title": page.title,
            "things": [
                {
                    "id": thing.id,
                    "kind": thing.kind() if thing.kind() != "unknown" else getattr(thing, "was", ""),
                    "name": thing.label(page),
                    "facts": [fact.plain() for fact in thing.facts(page)],
                }
                for thing in page.things
            ],
        }
        for page in pages
    ]
    if asked.json:
        print(in_json({"pages": listed}, 2))
        return 0
    for page in listed:
        print(page["title"] or "(untitled)")
        for thing in page["things"]:
            print(f"  {thing['name']}")
            for fact in thing["facts"]:
                print(f"    {fact['name']}: {fact['text']}")
    return 0


def _check(asked: argparse.Namespace) -> int:
    """0 sound, 1 readable with losses, 2 not readable."""
    import larch.core.figures.settle  # noqa: F401  (else it counts as time spent on the lesson)
    from larch.cli_bounds import bounded, printable

    with bounded("This lesson takes too long to be looked through; it may have been made to."):
        opened = _read(asked.lesson)
        found = [*opened.losses, *_troubles(opened.lesson)]
    for sentence in found or ["sound"]:
        print(printable(sentence))
    return 1 if found else 0


def _troubles(lesson: Any) -> list[str]:
    """One sentence for what this version can't show, and one for each thing that can't be worked out."""
    import time

    from larch.core.model.guarded import trouble_of

    began = time.process_time()
    unknown, found = 0, []
    for number, page in enumerate(lesson.pages, 1):
        for thing in page.things:
            unknown += thing.kind() == "unknown"
            if time.process_time() - began < TOLD:
                list(thing.facts(page))
            name = thing.label(page)
            thing.box()
            if why := trouble_of(thing):
                found.append(f"Page {number}, {name}: {why}")
    return [f"{unknown} things can't be shown by this version; they are kept as they are."] * bool(unknown) + found


def _measure(asked: argparse.Namespace) -> int:
    from larch.cli_bounds import bounded, contents, in_json
    from larch.core.maths.measure import measured
    from larch.core.maths.svg_shapes import LARGEST, SvgError, read_svg
    from larch.core.model.fact import number_text

    try:
        with bounded("This picture takes too long to be measured.", MEASURED):
            shapes, left = read_svg(contents(asked.picture, LARGEST))
            listed = [measured(shape) for shape in shapes]
    except SvgError as error:
        raise Refused(str(error)) from error
    for one in left:
        print(f"larch: {one.id} was left out: {one.why}.", file=sys.stderr)
    if asked.json:
        print(in_json({"shapes": listed}))
        return 0
    for shape in listed:
        area = "" if shape["area"] is None else f", area {number_text(shape['area'], 6)}"
        print(f"{shape['id']}: {shape['kind']}, perimeter {number_text(shape['perimeter'], 6)}{area}")
    return 0


def _classify(asked: argparse.Namespace) -> int:
    import json

    from larch.core.maths.classify import classify
    from larch.core.maths.exact import read_coordinate

    points = []
    for word in " ".join(asked.points).replace(";", " ").split():
        parts = word.split(",")
        if len(parts) != 2:
            raise Refused(f"“{word}” is not a point; write for example 0,0 4,0 4,3.")
        try:
            points.append((read_coordinate(parts[0]), read_coordinate(parts[1])))
        except ValueError as error:
            raise Refused(str(error)) from error
    if not 3 <= len(points) <= 1000:
        raise Refused("Give three to a thousand points, for example 0,0 4,0 4,3.")
    found = classify(points)
    if asked.json:
        print(json.dumps({"kind": found.kind, "also": list(found.also)} | ({"why": found.why} if found.why else {})))
    else:
        print("; also ".join([found.kind, ", ".join(found.also)]) if found.also else found.why or found.kind)
    return 0


def _things(asked: argparse.Namespace) -> int:
    from larch.cli_bounds import in_json
    from larch.core.session.steps import described

    listed = described()
    if asked.json:
        print(in_json({"things": listed}, 1))
        return 0
    for kind in listed:
        print(f"{kind['title']}: {', '.join(item['name'] for item in kind['shelf']) or '—'}")
    return 0


def _act(asked: argparse.Namespace) -> int:
    import json

    from larch.cli_bounds import contents, in_json
    from larch.core.files.lesson_file import write_lesson
    from larch.core.model.lesson import blank_lesson
    from larch.core.session.steps import Doing, StepError

    try:
        steps = json.loads(contents(asked.steps, LONGEST_STEPS))
    except (ValueError, RecursionError) as error:
        raise Refused(f"{asked.steps} is not JSON.") from error
    if not isinstance(steps, list):
        raise Refused("The steps are a list.")
    doing = Doing(_read(asked.lesson).lesson if asked.lesson is not None else blank_lesson())
    try:
        answers = doing.run(steps)
    except StepError as error:
        raise Refused(str(error)) from error
    if asked.to is not None:
        try:
            write_lesson(doing.session.lesson, asked.to)
        except OSError as error:
            raise Refused(f"{asked.to} can't be written: {error.strerror}.") from error
    if asked.json:
        print(in_json({"answers": answers}))
    else:
        for answer in answers:
            for key, known in answer.items():
                print(f"{key}: " + ", ".join(f"{name} {value}" for name, value in known.items()))
    return 0


def _bench(asked: argparse.Namespace) -> int:
    from larch.bench.run import run_bench

    return run_bench(asked.word)


def _screenshots(_asked: argparse.Namespace) -> int:
    from larch.bench.screenshots import make_screenshots

    return make_screenshots()


def _attack(asked: argparse.Namespace) -> int:
    from larch.attack.run import attack

    return attack(max(0.0, asked.minutes), asked.seed)


def _install_desktop(asked: argparse.Namespace) -> int:
    from larch.services.desktop import install, remove

    for line in remove() if asked.remove else install():
        print(line)
    return 0


HANDLERS: dict[str, Callable[[argparse.Namespace], int]] = {
    "open": _open,
    "demo": _demo,
    "export": _export,
    "facts": _facts,
    "check": _check,
    **dict.fromkeys(MATHS, _maths),
    "read": _read_ink,
    "measure": _measure,
    "classify": _classify,
    "things": _things,
    "act": _act,
    "bench": _bench,
    "screenshots": _screenshots,
    "attack": _attack,
    "install-desktop": _install_desktop,
}
