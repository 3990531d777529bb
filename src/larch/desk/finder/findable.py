"""All that the Finder can find at a moment."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.actions.arrange.arrange import set_out_again
from larch.core.base.words import _
from larch.core.model.action import Action, actions_for
from larch.core.model.kinds import shelf_items
from larch.desk.finder.finder import Found
from larch.desk.topics import TOPICS

MOST_PICTURES = 8

if TYPE_CHECKING:
    from larch.desk.context import Context


def _searched(action: Action) -> str:
    """What else an action is found by: its words, and the menu that it lies in."""
    words = _(action.words) if action.words else ""
    return f"{words} {_(action.fold.label)}" if action.fold is not None else words


def findable(context: Context) -> list[Found]:
    """Actions of the selection, entries of the shelf, commands, pages."""
    page, things = context.canvas.page, context.canvas.things()
    found = [
        Found(
            a.label(page, things),
            _searched(a),
            a.icon,
            _("selection"),
            partial(lambda a: context.canvas.do(a), a),
        )
        for a in actions_for(page, things)
        if not a.command
    ]
    found += [
        Found(_("set out again: {name}").format(name=kept.name), _("arrangement restore"), "flag", _("Page"),
              partial(lambda name: context.canvas.commit(set_out_again(context.canvas.page, name)), kept.name))
        for kept in page.setouts if kept.name
    ]  # fmt: skip
    found += [
        Found(
            item.label,
            f"{item.words} {item.name}",
            item.make().icon,
            _(item.tray),
            partial(lambda item: context.part("putting").put_out(item), item),
        )
        for item in shelf_items()
    ]
    found += [
        Found(c.label.replace("&", ""), f"{c.words} {c.shortcut}", c.icon, _(c.menu) if c.menu else _("Tools"), c.run)
        for c in context.part("commands").listed
        if context.part("commands").can(c)
    ]
    of_help = _("help how")
    found += [
        Found(_(topic.title), f"{_(topic.words)} {of_help}", "circle-help", _("Help"),
              partial(_help, context, topic.name))
        for topic in TOPICS
    ]  # fmt: skip
    for number, other in enumerate(context.session.lesson.pages, 1):
        label = _("page {n}: {title}").format(n=number, title=other.title or _("untitled"))
        found.append(Found(label, _("go to"), "file-text", _("Page"), partial(context.show_page, other.id)))
    return found


def _help(context: Context, topic: str) -> None:
    context.part("show_topic")(topic)


def pictures_found(context: Context, query: str) -> list[Found]:
    """A few drawings of the set, so that the Finder finds them without having listed all."""
    from larch.desk import drawings as shelf_pictures

    if len(query.strip()) < 2:
        return []
    return [
        Found(item.label, query, "image", _("Pictures"), partial(lambda item: context.part("putting").put_out(item), item))
        for item in shelf_pictures.found(query)[:MOST_PICTURES]
    ]
