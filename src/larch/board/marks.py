"""What stands out on graphs: asked of the worker once for each graph and window, remembered, painted when it has come."""

from __future__ import annotations

from collections import OrderedDict
from typing import Any, NamedTuple

from larch.board.media.arrivals import arrivals
from larch.services.worker import Request, worker

CALL = "larch.core.maths.plot.answer:plot_marks"
CURVE = "larch.core.maths.plot.answer:curve_marks"
MEETINGS = "larch.core.maths.plot.answer:plot_meetings"
CHARACTER = "larch.core.maths.plot.character:plot_character"
SECONDS = 3.0
KEPT = 300
AT_ONCE = 3  # asked for at the same time: of a slider that runs, only what it has come to by then


class Mark(NamedTuple):
    """kind: as `plot_marks` tells it. at: the letter; height: the value, None at a pole; text: coordinates."""

    kind: str
    at: float
    height: float | None
    text: str


Letters = tuple[tuple[str, str], ...]
Asked = tuple[Any, ...]


class Marks:
    """Marks by what they are about: the source, the letters of the page, and from where to where."""

    def __init__(self) -> None:
        self._known: OrderedDict[Asked, tuple[Any, ...]] = OrderedDict()
        self._waited: set[Asked] = set()

    def of(self, source: str, letters: Letters, low: float, high: float) -> tuple[Mark, ...]:
        """What is known by now; nothing while it is being worked out. Never waits."""
        return self._found((source, letters, low, high), CALL, source, dict(letters), low, high)

    def of_curve(self, source: str, letters: Letters, along: str, ends: tuple[float, ...]) -> tuple[Mark, ...]:
        """What is known by now of a curve that is no function; see `curve_marks`."""
        return self._found((source, letters, along, ends), CURVE, source, dict(letters), along, *ends)

    def meetings(self, one: tuple[str, Letters], other: tuple[str, Letters], low: float, high: float) -> tuple[Mark, ...]:
        """Where two graphs of functions of the same letter meet."""
        given = [(source, dict(letters)) for source, letters in (one, other)]
        return self._found((one, other, low, high), MEETINGS, *given, low, high)

    def character(self, source: str, letters: Letters, low: float, high: float) -> tuple[tuple[str, str], ...]:
        """What is said of a function as a whole: pairs of a name and words, as `plot_character` tells them."""
        return self._found(("whole", source, letters, low, high), CHARACTER, source, dict(letters), low, high)

    def _found(self, key: Asked, call: str, *given: Any) -> tuple[Any, ...]:
        if key not in self._known and key not in self._waited and len(self._waited) < AT_ONCE:
            self._waited.add(key)
            worker().ask(call, *given, seconds=SECONDS, then=lambda done: self._came(key, done))
        return self._known.get(key, ())

    def asked(self) -> set[Asked]:
        """What was asked for up to now."""
        return self._waited | set(self._known)

    def _came(self, key: Asked, request: Request) -> None:
        """In the worker's thread."""
        found: list[dict[str, Any]] = [] if request.error is not None else request.result
        self._known[key] = tuple(
            (one["name"], one["text"]) if "name" in one else Mark(one["kind"], one["at"], one["height"], one["text"])
            for one in found
        )
        while len(self._known) > KEPT:
            self._known.popitem(last=False)
        self._waited.discard(key)
        arrivals.checked.emit()


marks = Marks()
