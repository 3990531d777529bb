"""Whether lines of a solution follow from each other: asked of the worker once, remembered, painted when it has come."""

from __future__ import annotations

from collections import OrderedDict
from typing import Any, NamedTuple

from larch.board.media.arrivals import arrivals
from larch.services.worker import Request, worker

ANSWERS = "larch.core.maths.algebra.answers:follows_answer"
SECONDS = 3.0
KEPT = 2000


class Verdict(NamedTuple):
    """follows: "yes", "only if", "no", "unread" where a line is not finished, or "" where it is not known; when, why: as
    `larch follows` has them."""

    follows: str
    when: str = ""
    why: str = ""
    mistake: str = ""


class Checks:
    """Answers by the two lines they are about."""

    def __init__(self) -> None:
        self._known: OrderedDict[tuple[str, str], Verdict | None] = OrderedDict()

    def verdict(self, first: str, second: str) -> Verdict | None:
        """What is known by now; None while it is being worked out. Never waits."""
        key = (first, second)
        if key not in self._known:
            self._known[key] = None
            while len(self._known) > KEPT:
                self._known.popitem(last=False)
            worker().ask(ANSWERS, first, second, seconds=SECONDS, then=lambda request: self._came(key, request))
        return self._known[key]

    def _came(self, key: tuple[str, str], request: Request) -> None:
        """In the worker's thread."""
        if request.error is not None:
            known = "unread" if request.error.kind == "Unread" else ""
            self._known[key] = Verdict(known, why=str(request.error))
        else:
            found: dict[str, Any] = request.result
            self._known[key] = Verdict(found["follows"], found["when"] or "", found["why"], found["mistake"])
        arrivals.checked.emit()


checks = Checks()
