"""What the headless commands answer, as plain values: called in the worker, where time and memory are bounded."""

from __future__ import annotations

from typing import Any

from larch.core.maths.algebra.compare import same
from larch.core.maths.algebra.follows import follows
from larch.core.maths.algebra.work import work
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.tree import ExpressionError
from larch.core.maths.layout.reading import meaning


class Unread(ValueError):
    """Could not be read or worked out; the message is one sentence."""


def _read(source: str) -> Any:
    try:
        return meaning(source)
    except ExpressionError as error:
        raise Unread(f"“{source.strip()[:60]}”: {error.message}") from error


def ready() -> bool:
    """Nothing but that all is imported."""
    return True


def same_answer(a: str, b: str) -> dict[str, Any]:
    """{"same": true, false or null, "why": text}. Raises Unread."""
    found = same(_read(a), _read(b))
    return {"same": found.same, "why": found.why}


def follows_answer(a: str, b: str) -> dict[str, Any]:
    """{"follows": "yes", "only if" or "no", "when": text or null, "why": text, "mistake": kind or ""}. Raises Unread."""
    found = follows(_read(a), _read(b))
    if found.follows is None:
        raise Unread(found.why)
    return {"follows": found.follows, "when": found.when, "why": found.why, "mistake": found.mistake}


def work_answer(expr: str) -> dict[str, Any]:
    """{"steps": [{"line", "reason"}], "answer": [text]}. Raises Unread, Unsolved."""
    found = work(_read(expr))
    steps = [{"line": compact(step.line), "reason": step.reason} for step in found.steps]
    return {"steps": steps, "answer": list(found.answer)}
