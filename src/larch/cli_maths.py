"""The headless commands about mathematics. What may run away is done in the worker."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import TYPE_CHECKING, Any

from larch.cli_bounds import in_json, printable, unforeseen
from larch.refused import Refused

if TYPE_CHECKING:
    import argparse
    from fractions import Fraction

SECONDS = 1.5  # for one question; what is about it takes the rest of two
WARM = 30.0
ANSWERS = "larch.core.maths.algebra.answers"
PLOTS = "larch.core.maths.plot.answer"
COMMANDS = ("evaluate", "same", "follows", "work", "typeset", "plot")
LONGEST_LINE = 200_000


def add_commands(commands: Any) -> None:
    """Their arguments."""
    evaluate = commands.add_parser("evaluate", help="compute an expression or an equation")
    evaluate.add_argument("expression", nargs="?")
    evaluate.add_argument("--at", metavar="NUMBER", help="the value of x")
    two = {
        "same": "whether two expressions or equations are the same",
        "follows": "whether a line follows from the one above",
    }
    for name, text in two.items():
        sub = commands.add_parser(name, help=text)
        sub.add_argument("a", nargs="?", metavar="A")
        sub.add_argument("b", nargs="?", metavar="B")
    working = commands.add_parser("work", help="work an equation or expression out, line by line")
    working.add_argument("expression", nargs="?")
    typeset = commands.add_parser("typeset", help="set mathematics in type, or turn it into other notation")
    typeset.add_argument("expression", nargs="?")
    typeset.add_argument("--to", type=Path, metavar="OUT.svg|.mml|.tex|.txt")
    plotting = commands.add_parser("plot", help="draw a function and tell its features")
    plotting.add_argument("expression", nargs="?")
    plotting.add_argument("--x", metavar="A B", help="from where to where")
    plotting.add_argument("--to", type=Path, metavar="OUT.svg|png")
    for name in COMMANDS:
        commands.choices[name].add_argument("--batch", metavar="FILE", help="one JSON request a line")
        commands.choices[name].add_argument("--json", action="store_true")


def expressions_kept(given: list[str]) -> list[str]:
    """ "-x^2" is an expression and "--at -3" gives a number; neither is an option. "--" ends the options."""
    options: list[str] = []
    expressions: list[str] = []
    rest = iter(given[1:])
    for word in rest:
        if word == "--":
            expressions += rest
        elif word == "--x":
            options.append(f"--x={next(rest, '')} {next(rest, '')}")
        elif word in ("--at", "--batch", "--to"):
            options.append(f"{word}={next(rest, '')}")
        elif (
            word in ("--json", "-h", "--help")
            or word.startswith(("--at=", "--batch=", "--to="))
            or (word.startswith("--") and word[2:].isalpha())
        ):
            options.append(word)
        else:
            expressions.append(word)
    return [given[0], *options, "--", *expressions]


def _asked_worker(function: str, *given: str | float, of: str = "") -> dict[str, Any]:
    """Raises Refused with one sentence."""
    from larch.services.worker import WorkerError, worker

    try:
        if worker().pid is None:
            worker().ask(f"{ANSWERS}:ready", seconds=WARM).wait()
        found: dict[str, Any] = worker().ask(f"{of or ANSWERS}:{function}", *given, seconds=SECONDS).wait()
        return found
    except WorkerError as error:
        if error.kind == "late":
            raise Refused("This takes too long to be decided.") from error
        if error.kind in ("Unread", "Unsolved", "died", "RecursionError"):
            raise Refused(str(error)) from error
        raise Refused("This could not be worked out.") from error


def _text(request: dict[str, Any], key: str) -> str:
    value = request.get(key)
    if not isinstance(value, str):
        raise Refused(f"“{key}” is missing, or no text.")
    if any("\ud800" <= letter <= "\udfff" for letter in value):
        raise Refused(f"There is half a character in “{key}”.")
    return value


def _same(request: dict[str, Any]) -> dict[str, Any]:
    try:
        return _asked_worker("same_answer", _text(request, "a"), _text(request, "b"))
    except Refused as refused:
        if "too long" in str(refused):
            return {"same": None, "why": str(refused)}
        raise


def _follows(request: dict[str, Any]) -> dict[str, Any]:
    return _asked_worker("follows_answer", _text(request, "a"), _text(request, "b"))


def _work(request: dict[str, Any]) -> dict[str, Any]:
    return _asked_worker("work_answer", _text(request, "expr"))


def _plot(request: dict[str, Any]) -> dict[str, Any]:
    given = request.get("x")
    ends = [n for n in given if isinstance(n, int | float) and abs(n) <= 1e6] if isinstance(given, list) else []
    if len(ends) != 2 or given != ends:
        raise Refused("Say from where to where, for example --x -10 10.")
    found = _asked_worker("plot_answer", _text(request, "expr"), float(ends[0]), float(ends[1]), of=PLOTS)
    if request.get("to") is not None:
        from larch.core.maths.plot.picture import plot_svg

        _picture(plot_svg(found, float(ends[0]), float(ends[1]), _text(request, "expr")), Path(str(request["to"])))
    return found


def _picture(svg: str, path: Path) -> None:
    """Writes a picture as SVG or PNG."""
    if path.suffix not in (".svg", ".png"):
        raise Refused("It can be drawn as .svg or .png.")
    try:
        if path.suffix == ".svg":
            path.write_text(svg, encoding="utf-8")
            return
        _offscreen()
        from PyQt6.QtGui import QImage, QPainter
        from PyQt6.QtSvg import QSvgRenderer

        image = QImage(1280, 800, QImage.Format.Format_RGB32)
        image.fill(0xFFFFFFFF)
        painter = QPainter(image)
        QSvgRenderer(svg.encode()).render(painter)
        painter.end()
        if not image.save(str(path)):
            raise Refused(f"{path} can't be written.")
    except OSError as error:
        raise Refused(f"{path} can't be written: {error.strerror}.") from error


def _lines(path: str) -> Iterator[str]:
    """Of a longer line only the beginning: one that never ends must not be waited for."""
    from larch.core.base.disk import ordinary

    try:
        with sys.stdin.buffer if path == "-" else ordinary(Path(path)) as file:
            while line := file.readline(4 * LONGEST_LINE + 1):
                ends = line.endswith(b"\n")
                while not ends and (rest := file.readline(1 << 20)):
                    ends = rest.endswith(b"\n")
                yield line.decode("utf-8", "replace")
    except OSError as error:
        raise Refused(f"{path} can't be read: {error.strerror}.") from error


def _batch(path: str, answer: Callable[[dict[str, Any]], dict[str, Any]]) -> int:
    """One JSON answer a line, in order, each as soon as it is ready."""
    for line in _lines(path):
        if not line.strip():
            continue
        try:
            if len(line) > LONGEST_LINE:
                raise Refused("This line is too long.")
            try:
                request = json.loads(line)
            except (ValueError, RecursionError) as error:
                raise Refused("This line is no JSON.") from error
            if not isinstance(request, dict):
                raise Refused("A request is an object with its parts by name.")
            made = answer(request)
        except Refused as refused:
            made = {"error": str(refused)}
        except Exception as error:
            made = {"error": unforeseen(error)}
        print(in_json(made), flush=True)
    return 0


def run(asked: argparse.Namespace) -> int:
    """One of the commands. Raises Refused."""
    answer = {"evaluate": _evaluated, "same": _same, "follows": _follows, "work": _work, "typeset": _typeset, "plot": _plot}[
        asked.command
    ]
    if asked.batch is not None:
        return _batch(asked.batch, answer)
    request: dict[str, Any]
    if asked.command in ("same", "follows"):
        if asked.a is None or asked.b is None:
            raise Refused("Give two expressions or equations.")
        request = {"a": asked.a, "b": asked.b}
    else:
        if asked.expression is None:
            raise Refused("Give an expression or an equation.")
        request = {"expr": asked.expression, "at": getattr(asked, "at", None)}
        if asked.command == "plot":
            request["x"] = _two_numbers(asked.x)
        if asked.command in ("typeset", "plot"):
            request["to"] = None if asked.to is None else str(asked.to)
    found = answer(request)
    print(in_json(found) if asked.json else printable(_in_words(asked.command, found)))
    return 0


def _two_numbers(text: str | None) -> list[float]:
    try:
        return [float(_number(word) or 0) for word in (text or "").split()]
    except OverflowError as error:
        raise Refused("Say from where to where, for example --x -10 10.") from error


def _in_words(command: str, found: dict[str, Any]) -> str:
    if command == "same":
        return f"{ {True: 'same', False: 'different', None: 'undecided'}[found['same']] }: {found['why']}"
    if command == "follows":
        when = f" {found['when']}" if found["when"] else ""
        return f"{found['follows']}{when}: {found['why']}"
    if command == "work":
        return (
            "\n".join(f"{step['line']}    ({step['reason']})" for step in found["steps"]) + "\n" + ", ".join(found["answer"])
        )
    if command == "plot":
        return "\n".join(f"{name}: {value}" for name, value in found["features"].items())
    return str(found["text"])


# evaluate


def _evaluated(request: dict[str, Any]) -> dict[str, Any]:
    from larch.core.maths.expression import ExpressionError, reading
    from larch.core.maths.layout.reading import read_any

    try:
        found = read_any(_text(request, "expr"))
    except ExpressionError as error:
        raise Refused(f"{error.message.rstrip('.')}, at character {error.position + 1}.") from error
    at = request.get("at")
    made = {**_value_of(found.node, _number(None if at is None else str(at))), "reading": reading(found.node)}
    if found.doubts:
        made["doubts"] = list(found.doubts)
    return made


def _number(text: str | None) -> Fraction | None:
    from fractions import Fraction

    if text is None:
        return None
    from larch.core.maths.expression import ExpressionError, Undefined, exact_at, value_at
    from larch.core.maths.layout.reading import meaning

    try:
        node = meaning(text)
        exact = exact_at(node)
        return exact if exact is not None else Fraction(float(value_at(node)))
    except (ExpressionError, Undefined) as error:
        raise Refused(f"“{text}” is not a number.") from error


def _value_of(node: Any, at: Fraction | None) -> dict[str, Any]:
    from larch.core.maths.expression import Undefined, names_in
    from larch.core.maths.expression.evaluate import value_at
    from larch.core.maths.expression.precise import as_float, precise
    from larch.core.maths.expression.quantity import dimension, has_units, said_in
    from larch.core.maths.expression.tree import Name, Relation, states
    from larch.core.model.fact import number_text
    from larch.core.things.graphs.equation import fraction_text

    if isinstance(node, Relation) and node.op == "=" and isinstance(node.left, Name) and node.left != Name("x"):
        node = node.right  # y = …: the value of y
    unknown = names_in(node)
    if unknown - {"x"}:
        name = sorted(unknown - {"x"})[0]
        raise Refused(f"The value of {name} is not known; only x can be given, with --at.")
    if unknown and at is None:
        raise Refused("Say at which x, for example --at 8.")
    given: dict[str, Any] = {} if at is None else {"x": at}
    try:
        if states(node):
            if has_units(node):
                dimension(node)
            value = value_at(node, **given)
            return {"value": value, "text": "true" if value else "false"}
        unit = said_in(node) if has_units(node) else None
        exact = precise(node, given)
        if unit is not None:
            exact = exact / unit[1]
        number = as_float(exact)
    except Undefined as why:
        return {"value": None, "text": str(why), "why": str(why)}
    result: dict[str, Any] = {"value": number + 0.0, "text": number_text(number, 12) + (f" {unit[0]}" if unit else "")}
    if hasattr(exact, "denominator") and exact.denominator != 1:
        result["exact"] = fraction_text(exact)
    return result


# typeset


def _typeset(request: dict[str, Any]) -> dict[str, Any]:
    """Without a file to go to, all notations of text."""
    from larch.core.maths.layout.notations import notations

    source = _text(request, "expr")
    made = notations(source)
    if made is None:
        raise Refused(f"“{source.strip()[:60]}” can't be read.")
    to = request.get("to")
    if to is None:
        return {"text": made["txt"], **made}
    path = Path(str(to))
    kind = path.suffix.lstrip(".")
    if kind == "svg":
        _offscreen()
        from larch.board.typeset.svg import equation_svg

        data = equation_svg(source)
    elif kind in made:
        data = made[kind]
    else:
        raise Refused("It can be written as .svg, .mml, .tex or .txt.")
    try:
        path.write_text(data if data.endswith("\n") else data + "\n", encoding="utf-8")
    except OSError as error:
        raise Refused(f"{path} can't be written: {error.strerror}.") from error
    return {"text": str(path), "file": str(path)}


_kept: list[Any] = []  # the application must outlive the painting


def _offscreen() -> None:
    """Qt's fonts without any window or display."""
    import os

    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from PyQt6.QtGui import QGuiApplication

    if QGuiApplication.instance() is None:
        _kept.append(QGuiApplication(["larch"]))
