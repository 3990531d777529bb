"""Opening, saving and exporting from the window: off the interface's thread, and losing nothing."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog

from larch.board.paint import Care, page_svg
from larch.board.timers import asked, timer
from larch.core.base.memo import remember
from larch.core.base.words import _, many
from larch.core.files.journal import Gone, Journal
from larch.core.files.lesson_file import LessonFileError, read_lesson
from larch.core.model.lesson import Lesson, blank_lesson
from larch.desk.jobs import Job, in_background
from larch.services.recent import remember_lesson
from larch.services.work import OpenLesson, Saved
from larch.services.workspace import fresh_seed, open_demo, open_file, open_new, open_unsaved

if TYPE_CHECKING:
    from larch.desk.context import Context

picture_of = remember(partial(page_svg, fonts="named"))  # a page's SVG is drawn once for each state it is saved in


class Files(QObject):
    """The lesson's file and journal. Signals carry what must reach the interface's thread."""

    _trouble = pyqtSignal(object)

    def __init__(self, context: Context, work: OpenLesson) -> None:
        super().__init__(context.top)
        self.context = context
        self.work = work
        self.saved: Lesson | None = work.lesson if work.path and not work.brought_back else None
        self.started = work.lesson
        self._saving = False
        self._page = ""
        self._told = False
        self._trouble.connect(self._disk_trouble)
        work.begin(self._trouble.emit, context.session.lesson)
        context.session.recorder, context.session.drafter = work.record, work.draft
        context.session.refused = context.say

    @property
    def journal(self) -> Journal:
        return self.work.journal

    @property
    def path(self) -> Path | None:
        return self.work.path

    @property
    def modified(self) -> bool:
        """Whether the lesson holds work that its file, if it has one, does not."""
        lesson = self.context.session.lesson
        if self.work.path is None:
            return lesson is not self.started or self.work.brought_back > 0
        return lesson is not self.saved

    def watch_first_paint(self) -> None:
        """Until all is painted, the journal's folder says that it isn't; the next start is careful if it never was."""
        work = self.work
        if work.careful:
            Care.on = True
            text = _("Larch ended while this was being shown. Pictures and graphs are left out for now.")
            self.context.say(" ".join([*work.notes, text]), _("show them"), self._show_all, stay=True)
        else:
            Care.on = False
        self._painted = timer(self, self._look_whether_painted, every=250)
        self._painted.start()

    def _look_whether_painted(self) -> None:
        if self.context.canvas.surface.sharp:
            self._painted.stop()
            self.work.shown()

    def _show_all(self) -> None:
        Care.on = False
        self.context.canvas.surface.invalidate_all()
        self.context.canvas.update()

    def note_page(self, id: str) -> None:
        """The page that is open is open again when the work is taken up after a crash."""
        if id != self._page:
            self._page = id
            self.work.note_page(id)

    def _disk_trouble(self, error: Exception | None) -> None:
        """What could not be kept is said, and goes on being said."""
        if isinstance(error, Gone):
            text = _("The folder in which Larch keeps your work had been taken away. It was made again; all of it is there.")
            self.context.insist("")
            self.context.say(text, stay=True)
        elif error is None:
            self.context.insist("")
            self.context.say(_("The disk works again; all changes are kept."))
        else:
            why = error.strerror if isinstance(error, OSError) else error
            text = _("The disk refuses to keep changes ({why}). Free some space; Larch goes on trying.")
            self.context.insist(text.format(why=why or error))

    # Opening

    def new(self) -> None:
        self._switch(open_new(blank_lesson(fresh_seed())))

    def demo_afresh(self) -> None:
        from larch.demo import demo_lesson

        self._close()
        self._switch(open_demo(demo_lesson, anew=True), closed=True)

    def ask_open(self) -> None:
        name, _filter = QFileDialog.getOpenFileName(
            self.context.top, _("Open a lesson"), str(self.path.parent if self.path else Path.home()), _("Lessons (*.larch)")
        )
        if name:
            self.open(Path(name))

    def open(self, path: Path) -> None:
        """Opens a lesson's file in this window. A file that can't be read changes nothing."""
        if self.path is not None and path.resolve() == self.path.resolve():
            self.context.say(_("This lesson is open already."))
            return

        def failed(error: Exception) -> None:
            self.context.say(str(error) if isinstance(error, LessonFileError) else _("It can't be opened."))

        in_background(self.context.top, lambda _job: open_file(path), self._switch, failed)

    def open_kept(self, folder: Path) -> None:
        work = open_unsaved(folder)
        if work is not None:
            self._switch(work)

    def _switch(self, work: OpenLesson, closed: bool = False) -> None:
        if not closed:
            self._close()
        self.context.take_lesson(work)

    def _close(self) -> None:
        self.context.finish_typing()
        self.work.close()

    def may_close(self) -> bool:
        """Whether all is kept, or the person has been told that it is not."""
        if not self.journal.refused or self._told:
            return True
        self._told = True
        self.context.say(_("The disk refuses to keep your last changes: save the lesson elsewhere, or close again to give "
                           "them up."), stay=True)  # fmt: skip
        return False

    def close(self) -> None:
        """When the program ends. What is not in a file stays in the journal."""
        self._close()

    # Saving

    def save(self, then: Callable[[], None] | None = None) -> None:
        if self.path is None:
            self.ask_save()
        else:
            self.save_to(self.path, then)

    def ask_save(self) -> None:
        title = self.context.session.lesson.title or _("Lesson")
        start = self.path or Path.home() / (title.replace("/", "-") + ".larch")
        name, _filter = QFileDialog.getSaveFileName(
            self.context.top, _("Save the lesson"), str(start), _("Lessons (*.larch)")
        )
        if name:
            path = Path(name)
            self.save_to(path if path.suffix else path.with_suffix(".larch"))

    def save_to(self, path: Path, then: Callable[[], None] | None = None) -> None:
        """Writes the lesson as it is now; work goes on meanwhile."""
        if self._saving:
            self.context.say(_("It is being saved already."))
            return
        self.context.keep_typing()
        lesson = self.context.session.lesson
        self._saving = True

        work = self.work

        def done(saved: Saved) -> None:
            self._saving = False
            if work is self.work:
                self._saved(lesson, saved)
            if then is not None:
                then()

        def failed(error: Exception) -> None:
            self._saving = False
            why = error.strerror if isinstance(error, OSError) else str(error)
            text = _("It could not be saved there ({why}); nothing is lost, save it in another place.")
            self.context.say(text.format(why=why))

        in_background(self.context.top, lambda _job: work.save(lesson, path, picture_of), done, failed)

    def _saved(self, lesson: Lesson, saved: Saved) -> None:
        self.saved = lesson
        remember_lesson(saved.path)
        self.context.refresh_title()
        sentences = [*saved.notes, _("Saved as {name}.").format(name=saved.path.name)]
        self.context.say(" ".join(sentences), stay=bool(saved.notes))

    def back_to_saved(self) -> None:
        """The lesson as it is in its file; undo brings the changes back."""
        if self.path is None:
            self.context.say(_("It has not been saved yet."))
            return
        path = self.path

        def done(opened: object) -> None:
            from larch.core.model.edit import Edit

            session = self.context.session
            session.commit(Edit(_("Back to the saved lesson"), session.lesson, opened.lesson))  # type: ignore[attr-defined]
            self.context.pages_changed()

        in_background(self.context.top, lambda _job: read_lesson(path), done, lambda error: self.context.say(str(error)))

    # Exporting

    def ask_export(self) -> None:
        from larch.desk.dialogs.export import ExportDialog

        dialog = ExportDialog(self.context.session.lesson.pages, self.context.canvas.page_id, self.context.top)
        if not asked(dialog):
            return
        name = (self.context.session.lesson.title or _("Lesson")).replace("/", "-")
        start = (self.path.parent if self.path else Path.home()) / f"{name}.{dialog.format}"
        chosen, _filter = QFileDialog.getSaveFileName(self.context.top, _("Export"), str(start))
        if chosen:
            target = Path(chosen)
            if target.suffix.lower() != f".{dialog.format}":
                target = target.with_name(target.name + f".{dialog.format}")
            self.export_to(target, dialog.whole, width=dialog.width_in_pixels, grow=dialog.grow, answers=dialog.answers,
                           fonts=dialog.fonts)  # fmt: skip

    def export_to(self, target: Path, whole: bool = True, **how: Any) -> Job:
        """Exports in the background; progress can be cancelled from the notice. how: see `Asked`."""
        from larch.board.export import Asked, ExportError, export

        self.context.finish_typing()
        lesson = self.context.session.lesson
        pages = lesson.pages if whole else (self.context.canvas.page,)
        asked = Asked(pages, lesson.title or (self.path.stem if self.path else ""), lesson.language, **how)
        job = Job(lambda job: export(asked._replace(progress=job.progress), target))

        def done(files: object) -> None:
            assert isinstance(files, list)
            text = many("Exported as {{name}}.", "Exported as {n} files, {{name}} and on.", len(files)) if files else ""
            self.context.say(text.format(name=files[0].name) if files else _("The export was stopped."))

        def failed(error: object) -> None:
            text = str(error) if isinstance(error, ExportError) else _("It could not be exported.")
            self.context.say(text)

        def progressed(number: int, count: int) -> None:
            text = _("Exporting page {n} of {count}…").format(n=number, count=count)
            self.context.say(text, _("stop"), job.cancel, stay=True)

        job.finished.connect(done)
        job.failed.connect(failed)
        job.progressed.connect(progressed)
        return job.start()
