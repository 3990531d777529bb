"""What goes wrong in a kind is held to the thing concerned: the page, the lesson and the save go on without it.

Each hook of a kind that the program asks on its own account (not because a hand pressed something) is wrapped when the kind
is defined. If it raises, the thing counts as troubled and the harmless answer of the table below is given in its place.
A sentence that a hook raises for a person to read (`NotThere`, and ValueError where a hook promises one) passes.
"""

from __future__ import annotations

import functools
import weakref
from collections.abc import Callable, Iterator
from types import FunctionType
from typing import Any

from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.maths.plane.forms import NotThere

Listener = Callable[[Exception], object]
GENERATOR = 0x20  # of a function's flags (inspect.CO_GENERATOR; a start does without that module)
BLANK = Box(0, 0, 260, 72)  # how large a thing is whose size can't be told
Answer = Callable[..., Any]  # (thing, *what the hook was given)

strict = False  # whether it is raised all the same: in tests and where mistakes are looked for
_listeners: list[Listener] = []
_troubled: dict[int, tuple[weakref.ref[Any], str]] = {}


def listen(listener: Listener) -> Callable[[], None]:
    """Has somebody told of each mistake, such as the log; returns the way to stop that."""
    _listeners.append(listener)
    return lambda: _listeners.remove(listener)


def trouble_of(thing: object) -> str:
    """Why a thing can't be shown or told as it should; "" if it can."""
    known = _troubled.get(id(thing))
    return known[1] if known is not None and known[0]() is thing else ""


def hold(thing: Any, error: Exception) -> str:
    """Notes that a mistake of ours met this thing. Returns the reason, for a person. Raises the error if strict."""
    if strict:
        raise error
    why = trouble_of(thing)
    if not why:
        why = _("{kind}: this can't be worked out here; it is kept as it is.").format(kind=_title(thing))
        number = id(thing)
        _troubled[number] = (weakref.ref(thing, lambda _gone: _troubled.pop(number, None)), why)
        for listener in list(_listeners):
            listener(error)
    return why


def _title(thing: Any) -> str:
    try:
        return str(thing.title())
    except Exception:
        return type(thing).__name__


def _itself(thing: Any, *_given: object, **_named: object) -> Any:
    return thing


def _always(value: object) -> Answer:
    return lambda *_given, **_named: value


def _told(thing: Any, *_given: object) -> Iterator[Any]:
    from larch.core.model.fact import Fact

    yield Fact("trouble", trouble_of(thing), text=trouble_of(thing), label=_("trouble"))


def _named(thing: Any, *_given: object) -> str:
    return str(thing.name or thing.kind())


NOTHING: tuple[object, ...] = ()
ANSWERS: dict[str, Answer] = {
    # of any thing
    "label": _named, "extent": _always(BLANK), "facts": _told, "actions": _always(NOTHING), "handles": _always(NOTHING),
    "with_handle": _itself, "stretched": _always(None), "edges": _always(NOTHING), "box": _always(BLANK),
    "touches": lambda thing, x, y, slack: BLANK.grown(slack).holds(x, y),
    # of those that can more
    "parts": _always(NOTHING), "part_place": _always(BLANK.centre), "part_at": _always(""), "drag_part": _itself,
    "part_let_go": _itself, "tap_part": _always(None), "part_label": _always(""), "zoomed": _itself,
    "tap_action": _always(""), "next_change": _always(None), "as_of": _itself, "sounds_since": _always(NOTHING),
    "says": _always(""),
    "worth": _always(None), "snap": _always(None), "merged": _always(None), "places": _always(NOTHING),
    "held_turn": lambda thing, page, others, degrees: (degrees, ""), "with_ink": _always(None), "rubbed": _always(None),
    "rearranged": lambda *_given: {}, "fitted": _always(None), "keeps": _always(False), "media_names": _always(NOTHING),
    "plain_text": _always(""), "tells": _always(False), "told_on": _itself, "definition": _always(None),
    "ends_of_letter": _always(None), "defined_as": _always(None), "axes_on": _always(None), "points_on": _always(NOTHING),
    "residuals": _always(NOTHING), "shaded": _always(NOTHING), "lines_on": _always(NOTHING), "ends": _always(NOTHING),
    "grips_on": _always(NOTHING), "form_on": _always(None), "rests_on": _always(NOTHING), "uses": _always(NOTHING),
    "bare": _itself, "christened": _itself, "draws": _always(False), "words_top": _always(0.0), "inset": _always(0.0),
}  # fmt: skip


def guard(kind: type[Any], answers: dict[str, Answer], of: int = 0) -> None:
    """Wraps the hooks that a class itself defines. `answers`: what each gives where it fails. of: as in `guarded`."""
    own = kind.__dict__
    for name in own.keys() & answers.keys():
        if isinstance(hook := own[name], FunctionType) and not hasattr(hook, "guarded"):
            setattr(kind, name, guarded(hook, answers[name], of))


def guarded(hook: Any, answer: Answer, of: int = 0) -> Callable[..., Any]:
    """A hook that gives an answer where it fails. of: which of what it is given is the thing."""
    if hook.__code__.co_flags & GENERATOR:

        @functools.wraps(hook)
        def held(*given: Any, **named: Any) -> Any:
            try:
                yield from hook(*given, **named)
            except NotThere:
                raise
            except Exception as error:
                hold(given[of], error)
                yield from answer(*given, **named)

    else:

        @functools.wraps(hook)
        def held(*given: Any, **named: Any) -> Any:
            try:
                return hook(*given, **named)
            except NotThere:
                raise
            except Exception as error:
                hold(given[of], error)
                return answer(*given, **named)

    held.guarded = True  # type: ignore[attr-defined]
    return held
