"""What becomes of the members of a sequence, in words."""

from __future__ import annotations

from collections.abc import Sequence

from larch.core.base.words import _
from larch.core.maths.recursion import comes_to, round_of
from larch.core.maths.surd import recognised
from larch.core.model.fact import plain_number

FARTHEST = 1e6
PATIENCE = 400  # members looked at to see where they come to


def limit_text(value: float) -> str:
    """Exactly where it is a short fraction or root, else to six places."""
    known = recognised(round(value, 12))
    return known.text() if known is not None else plain_number(value, 6)


def course(found: Sequence[float]) -> str:
    """found: the members from the first one on, as far as there are any, they settle or run out of reach, or one more than
    `PATIENCE` of them."""
    if (end := comes_to(found)) is not None:
        return _("towards {number}").format(number=limit_text(end))
    beyond = next((k for k, value in enumerate(found) if abs(value) > FARTHEST), None)
    if beyond is not None:
        return _("past {number} after {count} steps").format(number=plain_number(FARTHEST), count=beyond)
    if len(found) <= PATIENCE:
        return _("stops: there is no value at {number}").format(number=plain_number(found[-1], 4))
    if again := round_of(found):
        return _("round and round: {members}").format(members=";  ".join(map(limit_text, again)))
    return _("not settled after {count} steps").format(count=PATIENCE)
