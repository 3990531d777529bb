"""Printing: the system's dialog, then the pages go to the printer off the interface's thread."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtPrintSupport import QPrintDialog, QPrinter

from larch.board.printing import print_pages
from larch.board.timers import asked
from larch.core.base.words import _, many
from larch.desk.jobs import Job

if TYPE_CHECKING:
    from larch.desk.context import Context


def ask_print(context: Context) -> None:
    """Asks for a printer and which pages."""
    context.finish_typing()
    lesson = context.session.lesson
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setDocName(lesson.title or _("Lesson"))
    printer.setFromTo(1, len(lesson.pages))
    dialog = QPrintDialog(printer, context.top)
    dialog.setMinMax(1, len(lesson.pages))
    dialog.setOption(QPrintDialog.PrintDialogOption.PrintCurrentPage, True)
    if asked(dialog):
        send(context, printer)


def send(context: Context, printer: QPrinter) -> Job:
    """Prints what was asked for; the notice tells how far it is, and stops it."""
    lesson = context.session.lesson
    pages = list(lesson.pages)
    chosen = printer.printRange()
    if chosen == QPrinter.PrintRange.CurrentPage:
        pages = [context.canvas.page]
    elif chosen == QPrinter.PrintRange.PageRange and printer.fromPage():
        pages = pages[printer.fromPage() - 1 : max(printer.fromPage(), printer.toPage())]
    job = Job(lambda job: print_pages(printer, pages, job.progress))

    def done(count: object) -> None:
        assert isinstance(count, int)
        context.say(many("1 page went to the printer.", "{n} pages went to the printer.", count))

    job.finished.connect(done)
    job.failed.connect(lambda _error: context.say(_("The printer does not take it.")))
    job.progressed.connect(
        lambda n, count: context.say(
            _("Printing page {n} of {count}…").format(n=n, count=count), _("stop"), job.cancel, stay=True
        )
    )
    return job.start()
