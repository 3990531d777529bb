"""A paint engine that hands on what is painted as paths, pictures and words, with clips, opacity and blending."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any, NamedTuple, Protocol

from PyQt6.QtCore import QLineF, QPoint, QPointF, QRect, QRectF, Qt
from PyQt6.QtGui import (
    QBrush,
    QColor,
    QFont,
    QImage,
    QPaintDevice,
    QPaintEngine,
    QPaintEngineState,
    QPainter,
    QPainterPath,
    QPen,
    QPixmap,
    QTextItem,
    QTransform,
)

Matrix = tuple[float, float, float, float, float, float]
Command = tuple[Any, ...]  # ("M", x, y), ("L", x, y), ("C", x, y, x, y, x, y) or ("Z",)
RASTER = 3.0  # pixels to a unit of the device, where only pixels will do (textures, gradients)
MOST_RASTER = 4000
FLAGS = QPaintEngine.DirtyFlag


class State(NamedTuple):
    """clip: commands in the device's coordinates, or None; blend: "" or "multiply"."""

    matrix: Matrix
    clip: tuple[Command, ...] | None
    clip_even_odd: bool
    opacity: float
    blend: str


class Stroke(NamedTuple):
    """width: in the coordinates of the state, or of the device where `fixed`."""

    colour: QColor
    width: float
    fixed: bool
    cap: Qt.PenCapStyle
    join: Qt.PenJoinStyle
    miter: float
    dashes: tuple[float, ...]
    offset: float


class Words(NamedTuple):
    """A run of text where it stands: baseline from (x, y) in the coordinates of a matrix; group: of what it is a part."""

    text: str
    matrix: Matrix
    x: float
    y: float
    width: float
    size: float
    font: QFont | None
    colour: QColor
    group: int

    def box(self) -> QRectF:
        """On the device."""
        onto = QTransform(*self.matrix)
        return onto.mapRect(QRectF(self.x, self.y - 0.8 * self.size, max(self.width, 0.1), self.size))


class Sink(Protocol):
    """What writes it down."""

    outlined: bool  # words are painted as paths; else the sink writes them itself

    def path(
        self, state: State, commands: Sequence[Command], even_odd: bool, fill: QColor | None, stroke: Stroke | None
    ) -> None: ...
    def image(self, state: State, rect: QRectF, image: QImage) -> None: ...
    def words(self, state: State, words: Words) -> None: ...
    def open_layer(self, state: State) -> None: ...
    def close_layer(self) -> None: ...


def commands_of(path: QPainterPath) -> list[Command]:
    found: list[Command] = []
    k, count = 0, path.elementCount()
    start: tuple[float, float] | None = None
    kinds = QPainterPath.ElementType
    while k < count:
        one = path.elementAt(k)
        if one.type == kinds.MoveToElement:
            start = (one.x, one.y)
            found.append(("M", one.x, one.y))
        elif one.type == kinds.LineToElement:
            found.append(("L", one.x, one.y))
        else:
            two, three = path.elementAt(k + 1), path.elementAt(k + 2)
            found.append(("C", one.x, one.y, two.x, two.y, three.x, three.y))
            k += 2
            one = three
        if (
            start is not None
            and k + 1 < count
            and path.elementAt(k + 1).type == kinds.MoveToElement
            and (one.x, one.y) == start
        ):
            found.append(("Z",))
        k += 1
    if start is not None and count > 1:
        last = path.elementAt(count - 1)
        if (last.x, last.y) == start:
            found.append(("Z",))
    return found


def matrix_of(transform: QTransform) -> Matrix:
    return (transform.m11(), transform.m12(), transform.m21(), transform.m22(), transform.dx(), transform.dy())


class VectorEngine(QPaintEngine):
    """See `VectorDevice`. `kept`: the words painted, without those that something lies over (see `cover`)."""

    def __init__(self, sink: Sink) -> None:
        super().__init__(QPaintEngine.PaintEngineFeature.AllFeatures)
        self.sink = sink
        self.kept: list[Words] = []
        self.group = 0
        self._state: State | None = None
        self._clip: tuple[tuple[Command, ...] | None, bool] = (None, False)
        self._pen, self._brush, self._font = QPen(Qt.PenStyle.NoPen), QBrush(), QFont()
        self._silent = 0  # inside words that are read in another form

    def type(self) -> QPaintEngine.Type:
        return QPaintEngine.Type.User

    def begin(self, device: QPaintDevice | None) -> bool:
        return True

    def end(self) -> bool:
        return True

    def updateState(self, state: QPaintEngineState) -> None:
        flags = state.state()
        if flags & FLAGS.DirtyPen:
            self._pen = state.pen()
        if flags & FLAGS.DirtyBrush:
            self._brush = state.brush()
        if flags & (FLAGS.DirtyClipPath | FLAGS.DirtyClipRegion | FLAGS.DirtyClipEnabled):
            self._take_clip()
        if flags & (FLAGS.DirtyTransform | FLAGS.DirtyOpacity | FLAGS.DirtyCompositionMode | FLAGS.DirtyClipPath
                    | FLAGS.DirtyClipRegion | FLAGS.DirtyClipEnabled):  # fmt: skip
            self._state = None

    def _take_clip(self) -> None:
        painter = self.painter()
        if painter is None or not painter.hasClipping():
            self._clip = (None, False)
            return
        path = painter.deviceTransform().map(painter.clipPath())
        self._clip = (tuple(commands_of(path)), path.fillRule() == Qt.FillRule.OddEvenFill)

    def now(self) -> State:
        if self._state is None:
            painter = self.painter()
            assert painter is not None
            multiply = painter.compositionMode() == QPainter.CompositionMode.CompositionMode_Multiply
            self._state = State(
                matrix_of(painter.deviceTransform()), *self._clip, painter.opacity(), "multiply" if multiply else ""
            )
        return self._state

    # What is painted

    def _stroke(self) -> Stroke | None:
        pen = self._pen
        if pen.style() == Qt.PenStyle.NoPen or pen.brush().style() == Qt.BrushStyle.NoBrush:
            return None  # a pen whose brush is none paints nothing, whatever its style says
        wide = pen.widthF() or 1.0
        dashes = tuple(part * wide for part in pen.dashPattern()) if pen.style() != Qt.PenStyle.SolidLine else ()
        fixed = pen.isCosmetic() or pen.widthF() == 0
        return Stroke(pen.color(), wide, fixed, pen.capStyle(), pen.joinStyle(), pen.miterLimit(), dashes, pen.dashOffset())

    def _put(self, commands: Sequence[Command], even_odd: bool, closed: bool, path: QPainterPath | None = None) -> None:
        brush, stroke = self._brush, self._stroke()
        fill: QColor | None = None
        if closed and brush.style() == Qt.BrushStyle.SolidPattern:
            fill = brush.color()
        elif closed and brush.style() != Qt.BrushStyle.NoBrush:
            self._fill_with_pixels(path if path is not None else _path_of(commands, even_odd), brush)
        if fill is not None or stroke is not None:
            self.sink.path(self.now(), commands, even_odd, fill, stroke)

    def _fill_with_pixels(self, path: QPainterPath, brush: QBrush) -> None:
        """A texture or a gradient, as a picture that is clipped to the shape."""
        box = path.boundingRect()
        state = self.now()
        onto = QTransform(*state.matrix)
        scale = min(RASTER * abs(onto.determinant()) ** 0.5, MOST_RASTER / max(box.width(), box.height(), 1e-6))
        image = QImage(
            max(1, round(box.width() * scale)),
            max(1, round(box.height() * scale)),
            QImage.Format.Format_ARGB32_Premultiplied,
        )
        image.fill(Qt.GlobalColor.transparent)
        painter = QPainter(image)
        painter.setRenderHints(QPainter.RenderHint.Antialiasing | QPainter.RenderHint.SmoothPixmapTransform)
        painter.scale(image.width() / max(box.width(), 1e-6), image.height() / max(box.height(), 1e-6))
        painter.translate(-box.topLeft())
        painter.fillPath(path, brush)
        painter.end()
        self.sink.image(state, box, image)

    def drawPath(self, path: QPainterPath) -> None:
        self._put(commands_of(path), path.fillRule() == Qt.FillRule.OddEvenFill, True, path)

    def drawPolygon(self, points: Sequence[QPointF], mode: QPaintEngine.PolygonDrawMode) -> None:  # type: ignore[override]
        commands: list[Command] = [("L", point.x(), point.y()) for point in points]
        commands[0] = ("M", *commands[0][1:])
        closed = mode != QPaintEngine.PolygonDrawMode.PolylineMode
        if closed:
            commands.append(("Z",))
        self._put(commands, mode == QPaintEngine.PolygonDrawMode.OddEvenMode, closed)

    def drawLines(self, lines: Sequence[QLineF]) -> None:  # type: ignore[override]
        for line in lines:
            self._put([("M", line.x1(), line.y1()), ("L", line.x2(), line.y2())], False, False)

    def drawRects(self, rects: Sequence[QRectF]) -> None:  # type: ignore[override]
        for rect in rects:
            x0, y0, x1, y1 = rect.x(), rect.y(), rect.x() + rect.width(), rect.y() + rect.height()
            self._put([("M", x0, y0), ("L", x1, y0), ("L", x1, y1), ("L", x0, y1), ("Z",)], False, True)

    def drawPoints(self, points: Sequence[QPointF]) -> None:  # type: ignore[override]
        for point in points:
            self._put([("M", point.x(), point.y()), ("L", point.x() + 1e-4, point.y())], False, False)

    def drawEllipse(self, rect: QRectF | QRect) -> None:
        path = QPainterPath()
        path.addEllipse(QRectF(rect))
        self.drawPath(path)

    def drawImage(self, rect: QRectF, image: QImage, source: QRectF, flags: Any = None) -> None:
        part = source.toAlignedRect()
        self.sink.image(self.now(), rect, image if part == image.rect() else image.copy(part))

    def drawPixmap(self, rect: QRectF, pixmap: QPixmap, source: QRectF) -> None:
        self.drawImage(rect, pixmap.toImage(), source)

    def drawTiledPixmap(self, rect: QRectF, pixmap: QPixmap, start: QPointF | QPoint) -> None:
        path = QPainterPath()
        path.addRect(rect)
        brush = QBrush(pixmap)
        brush.setTransform(QTransform.fromTranslate(rect.x() - start.x(), rect.y() - start.y()))
        self._fill_with_pixels(path, brush)

    # Words

    def drawTextItem(self, at: QPointF, item: QTextItem) -> None:
        font = item.font()
        size = font.pixelSize() if font.pixelSize() > 0 else font.pointSizeF() * 96 / 72
        run = Words(item.text(), self.now().matrix, at.x(), at.y(), item.width(), size, font, self._pen.color(), self.group)
        if not self._silent and run.text.strip():
            self.kept.append(run)
        if self.sink.outlined or self._silent:
            super().drawTextItem(at, item)
        else:
            self.sink.words(self.now(), run)

    def speak(self, text: str, box: QRectF, size: float) -> None:
        """Words that are read here, though they are painted as something else. box: in the painter's coordinates."""
        if text.strip():
            self.kept.append(Words(text, self.now().matrix, box.left(), box.bottom() - 0.25 * size, box.width(), size, None,
                                   self._pen.color(), self.group))  # fmt: skip

    def cover(self, area: QPainterPath) -> None:
        """What lies under an area (in the painter's coordinates) is not read."""
        painter = self.painter()
        assert painter is not None
        hidden = painter.deviceTransform().map(area)
        self.kept = [run for run in self.kept if not hidden.contains(run.box().center())]


def _path_of(commands: Sequence[Command], even_odd: bool) -> QPainterPath:
    path = QPainterPath()
    path.setFillRule(Qt.FillRule.OddEvenFill if even_odd else Qt.FillRule.WindingFill)
    for name, *numbers in commands:
        if name == "M":
            path.moveTo(*numbers)
        elif name == "L":
            path.lineTo(*numbers)
        elif name == "C":
            path.cubicTo(*numbers)
        else:
            path.closeSubpath()
    return path


class VectorDevice(QPaintDevice):
    """To be painted on like any other. width, height: of the page in the device's units, `fine` of which make a unit."""

    def __init__(self, sink: Sink, width: float, height: float) -> None:
        super().__init__()
        self.engine = VectorEngine(sink)
        self._size = (round(width), round(height))

    def paintEngine(self) -> QPaintEngine:
        return self.engine

    def metric(self, which: QPaintDevice.PaintDeviceMetric) -> int:
        metrics = QPaintDevice.PaintDeviceMetric
        across, down = self._size
        found = {
            metrics.PdmWidth: across, metrics.PdmHeight: down, metrics.PdmWidthMM: round(across * 25.4 / 96),
            metrics.PdmHeightMM: round(down * 25.4 / 96), metrics.PdmDpiX: 96, metrics.PdmDpiY: 96,
            metrics.PdmPhysicalDpiX: 96, metrics.PdmPhysicalDpiY: 96, metrics.PdmDevicePixelRatio: 1,
            metrics.PdmDevicePixelRatioScaled: int(QPaintDevice.devicePixelRatioFScale()), metrics.PdmDepth: 32,
            metrics.PdmNumColors: 2**31 - 1,
        }  # fmt: skip
        return found.get(which, 0)


def engine_of(painter: QPainter) -> VectorEngine | None:
    """The engine, if what is painted on is a drawing."""
    engine = painter.paintEngine()
    return engine if isinstance(engine, VectorEngine) else None


@contextmanager
def read_as(painter: QPainter, text: str, box: QRectF, size: float) -> Iterator[None]:
    """What is painted within is read as this text, in a drawing: an equation as it would be typed."""
    engine = engine_of(painter)
    if engine is None:
        yield
        return
    engine.speak(text, box, size)
    engine._silent += 1
    try:
        yield
    finally:
        engine._silent -= 1


@contextmanager
def layered(painter: QPainter) -> Iterator[None]:
    """What is painted within is laid on the drawing as one, in the painter's mode of composition."""
    engine = engine_of(painter)
    assert engine is not None
    painter.save()
    engine.sink.open_layer(engine.now())
    painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_SourceOver)
    try:
        yield
    finally:
        engine.sink.close_layer()
        painter.restore()
