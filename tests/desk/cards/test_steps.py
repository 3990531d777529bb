"""The steps of a construction."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.things.geometry.point import Point
from larch.desk.window import Window
from tests.board.test_surface import differing


def picture(window: Window):  # type: ignore[no-untyped-def]
    window.canvas.surface.sharpen(5000)
    return window.canvas.surface.base.toImage()


def meeting_place(window: Window) -> None:
    window.show_page("p12")


def test_the_steps_are_listed_played_and_the_page_follows(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    meeting_place(window)
    alone = picture(window)
    window.run("steps")  # the page makes room for the card
    qtbot.waitUntil(lambda: window.canvas.surface.sharp)
    whole = picture(window)
    card = window._cards["steps"]
    assert card is not None and card.isVisible()
    assert card.list.count() == len(card.steps) == 8
    assert card.steps[-1].words == "Draw the circle about P through A."
    assert "the perpendicular bisector of AB" in card.steps[-2].words
    card.go(3)
    assert differing(picture(window), whole) > 500
    card.buttons["on"].click()
    assert card.done == 4
    card._timer.setInterval(1)
    card.play()
    qtbot.waitUntil(lambda: card.done == 8 and not card._timer.isActive())
    assert differing(picture(window), whole) == 0
    card.go(1)
    card.finish()
    assert differing(picture(window), alone) == 0  # closed, it shows everything again
    assert not card.isVisible()


def test_what_is_gone_is_said_in_the_steps(window: Window) -> None:
    meeting_place(window)
    points = {thing.name: thing for thing in window.canvas.page.things if isinstance(thing, Point)}
    a, b, c = (points[name] for name in "ABC")
    page = window.canvas.page
    flat = page.with_things(
        {c.id: c.replace(placement=Placement(2 * b.placement.x - a.placement.x, 2 * b.placement.y - a.placement.y))}
    )
    from larch.core.model.edit import Edit

    window.canvas.commit(Edit("Move", page, flat))
    assert window.canvas.page.thing(points["P"].id).why == "They are parallel."
    window.run("steps")
    assert any(step.why == "They are parallel." for step in window._cards["steps"].steps)
    window.undo()
    assert not window.canvas.page.thing(points["P"].id).why
