"""All that the Finder can find at a moment."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.actions.arrange.arrange import set_out_again
from larch.core.base.words import _
from larch.core.model.action import actions_for
from larch.desk.finder.finder import Found

MOST_PICTURES = 8

if TYPE_CHECKING:
    from larch.desk.window import Window


def findable(window: Window) -> list[Found]:
    """Actions of the selection, entries of the shelf, commands, pages."""
    page, things = window.canvas.page, window.canvas.things()
    found = [
        Found(a.label(page, things), a.words, a.icon, _("selection"), lambda a=a: window.canvas.do(a))
        for a in actions_for(page, things)
    ]
    found += [
        Found(_("set out again: {name}").format(name=kept.name), _("arrangement restore"), "flag", _("Page"),
              lambda name=kept.name: window.canvas.commit(set_out_again(window.canvas.page, name)))
        for kept in page.setouts if kept.name
    ]  # fmt: skip
    window.shelf.open() if not window.shelf.items else None
    window.shelf.setVisible(window.ledge.shelf.isChecked())
    found += [
        Found(
            item.label,
            f"{item.words} {item.name}",
            item.make().icon,
            _(item.tray),
            lambda item=item: window.putting.put_out(item),
        )
        for item in window.shelf.items
    ]
    found += [
        Found(c.label.replace("&", ""), f"{c.words} {c.shortcut}", c.icon, _(c.menu or "Tools"), c.run)
        for c in window.commands.listed
        if c.enabled()
    ]
    for number, other in enumerate(window.session.lesson.pages, 1):
        label = _("page {n}: {title}").format(n=number, title=other.title or _("untitled"))
        found.append(Found(label, _("go to"), "file-text", _("Page"), lambda id=other.id: window.show_page(id)))
    return found


def pictures_found(window: Window, query: str) -> list[Found]:
    """A few drawings of the set, so that the Finder finds them without having listed all."""
    from larch.desk.shelf import drawings as shelf_pictures

    if len(query.strip()) < 2:
        return []
    return [
        Found(item.label, query, "image", _("Pictures"), lambda item=item: window.putting.put_out(item))
        for item in shelf_pictures.found(query)[:MOST_PICTURES]
    ]
