"""Commands of equations: what is worked out in the worker, and comes as lines below."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING, Any

from larch.board.views import view_of
from larch.core.actions.equations.working import line_below
from larch.core.base.words import N_, _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation
from larch.desk.commands.command import Command
from larch.desk.jobs import Job
from larch.services.worker import WorkerError, worker

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 25
SECONDS = 6.0
DONE = (
    ("solve", N_("Solve, line by line"), "list-ordered", N_("work out steps solution equation")),
    ("next", N_("Next step"), "step-forward", N_("line reason hint solution")),
    ("simplify", N_("Simplify"), "square-function", N_("work out evaluate collect cancel")),
    ("expand", N_("Expand brackets"), "unfold-vertical", N_("multiply out remove brackets")),
    ("factor", N_("Factorise"), "fold-vertical", N_("factor product bracket")),
    ("differentiate", N_("Differentiate"), "chart-line", N_("derivative gradient function")),
    ("integrate", N_("Integrate"), "waves", N_("integral area antiderivative")),
)


def build(w: Context) -> list[Command]:
    return [
        Command(f"equation {what}", _(label), partial(_work, w, what), "Edit", picture, words=_(words),
                enabled=lambda: _selected(w) is not None, fold=_("Equation"), apart=what == "solve", board=True)
        for what, label, picture, words in DONE
    ]  # fmt: skip


def _selected(w: Context) -> Equation | None:
    things = w.canvas.things()
    return things[0] if len(things) == 1 and isinstance(things[0], Equation) else None


def _work(w: Context, what: str) -> None:
    """Asks the worker; the lines come below the one that is selected, as one step of undo."""
    line = _selected(w)
    if line is None:
        w.say(_("Select one equation first."))
        return

    def asked(job: Job) -> Any:
        return (
            worker()
            .ask("larch.core.maths.algebra.answers:done_answer", what, line.source, seconds=SECONDS)
            .wait(SECONDS + 1)
        )

    def failed(error: object) -> None:
        known = isinstance(error, WorkerError) and error.kind in ("Unread", "Unsolved")
        w.say(str(error) if known else _("This could not be worked out in the time there is."))

    job = Job(asked)
    job.answered = True
    job.finished.connect(partial(_came, w, line.id, line.source))
    job.failed.connect(failed)
    job.start()


def _came(w: Context, id: str, source: str, lines: list[dict[str, str]]) -> None:
    page = w.canvas.page
    above = page.thing(id)
    if not isinstance(above, Equation) or above.source != source:
        return  # it was changed meanwhile
    after: Page = page
    for one in lines:
        drop = (view_of(above).extent(above).height + 0.35 * above.size) * above.placement.scale
        made = line_below(after, above, drop).replace(source=one["line"], reason=one["reason"])
        after = after.put(made)
        above = after.things[-1]
        assert isinstance(above, Equation)
    w.canvas.commit(Edit(_("Work out"), page, after, select=(above.id,)))
