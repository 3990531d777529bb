"""Commands of equations: what is worked out in the worker, and comes as lines below."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING, Any

from larch.board.views import view_of
from larch.core.actions.equations.working import asked_line, with_lines
from larch.core.base.words import N_, _
from larch.desk.commands.command import Command
from larch.desk.jobs import Job
from larch.services.worker import WorkerError, worker

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 25
SECONDS = 6.0
CALL = "larch.core.maths.algebra.answers:done_answer"
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
                enabled=lambda: asked_line(w.canvas.things()) is not None, fold=_("Equation"), apart=what == "solve",
                board=True)
        for what, label, picture, words in DONE
    ] + [
        Command("equation both sides", _("Do to both sides…"), partial(_both_sides, w), "Edit", "equal", words=_(
                "add subtract multiply divide balance solve"),
                enabled=lambda: asked_line(w.canvas.things()) is not None, fold=_("Equation"), board=True)
    ]  # fmt: skip


def _both_sides(w: Context) -> None:
    """Asks, in the place of the next line, what is to be done to both sides."""
    w.part("editors").edit(w.canvas.things()[0], "both_sides")


def _work(w: Context, what: str) -> None:
    """Asks the worker; the lines come below the one that is selected, as one step of undo."""
    line = asked_line(w.canvas.things())
    if line is None:
        w.say(_("Select one equation first."))
        return
    id, source = line

    def asked(job: Job) -> Any:
        return worker().ask(CALL, what, source, seconds=SECONDS).wait()

    def failed(error: object) -> None:
        known = isinstance(error, WorkerError) and error.kind in ("Unread", "Unsolved")
        w.say(str(error) if known else _("This could not be worked out in the time there is."))

    job = Job(asked)
    job.answered = True
    job.finished.connect(partial(_came, w, id, source))
    job.failed.connect(failed)
    job.start()


def _came(w: Context, id: str, source: str, lines: list[dict[str, str]]) -> None:
    edit = with_lines(w.canvas.page, id, source, lines, lambda thing: view_of(thing).extent(thing).height)
    if edit is not None:
        w.canvas.commit(edit)
