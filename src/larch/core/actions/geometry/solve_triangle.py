"""Finding the rest of a triangle from what is given, step by step, as it is written in class.

Given is what is shown on the triangle (and a right angle, where it has one). The steps name facts in braces, so that the
working follows while the triangle is dragged (see `core.telling`).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from larch.core.base.shape import Box, Placement
from larch.core.base.words import N_, _
from larch.core.maths import geometry
from larch.core.model.action import Action, Things, register
from larch.core.model.capabilities import Constructible
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.words.text import Text

MOST_STEPS = 8
SIZE, LEAST = 40.0, 18.0


class Step(NamedTuple):
    """found: the side or angle that is known after it; words: the line that is written."""

    found: str
    words: str


class _Solver:
    """sides: those known, by the number of the corner across; angles: likewise by corner."""

    def __init__(
        self, names: list[str], sides: set[int], angles: set[int], right: int | None, lengths: Sequence[float] = ()
    ) -> None:
        self.lengths = lengths  # of the sides, by the corner across
        self.names, self.sides, self.angles, self.right = names, sides, angles, right
        self.steps: list[Step] = []

    def side(self, i: int) -> str:
        """The name of the side across from corner i."""
        return self.names[(i + 1) % 3] + self.names[(i + 2) % 3]

    def angle(self, i: int) -> str:
        return f"angle {self.names[i]}"

    def solved(self) -> bool:
        return len(self.sides) == 3 and len(self.angles) == 3

    def note(self, found: str, words: str) -> None:
        self.steps.append(Step(found, words))

    def run(self) -> list[Step]:
        """All steps. Raises ValueError with one sentence if what is given does not fix the triangle."""
        ways: list[Callable[[], bool]] = [self.third_angle, self.pythagoras, self.ratio, self.angle_by_ratio,
                                          self.sine_side, self.cosine_side, self.cosine_angle, self.sine_angle]  # fmt: skip
        while not self.solved() and len(self.steps) < MOST_STEPS:
            if not any(way() for way in ways):
                raise ValueError(_("What is shown does not fix the triangle: show a side and two measures more."))
        return self.steps

    def third_angle(self) -> bool:
        if len(self.angles) != 2:
            return False
        i = ({0, 1, 2} - self.angles).pop()
        a, b = (self.angle(k) for k in sorted(self.angles))
        self.note(self.angle(i), f"∠{self.names[i]} = 180° − {{{a}}} − {{{b}}} = {{{self.angle(i)}}}")
        self.angles.add(i)
        return True

    def pythagoras(self) -> bool:
        """Two sides of a right-angled triangle give the third."""
        if self.right is None or len(self.sides) != 2:
            return False
        i = ({0, 1, 2} - self.sides).pop()
        hyp = self.side(self.right)
        own = self.side(i)
        others = [self.side(k) for k in sorted(self.sides)]
        if i == self.right:
            self.note(own, f"{own}² = {others[0]}² + {others[1]}²")
            self.note(own, f"{own} = √({{{others[0]}}}² + {{{others[1]}}}²)\n    = {{{own}}}")
        else:
            leg = next(name for name in others if name != hyp)
            self.note(own, f"{own}² = {hyp}² − {leg}²")
            self.note(own, f"{own} = √({{{hyp}}}² − {{{leg}}}²)\n    = {{{own}}}")
        self.sides.add(i)
        return True

    def ratio(self) -> bool:
        """A side and an acute angle of a right-angled triangle give another side."""
        if self.right is None:
            return False
        for corner in sorted(self.angles - {self.right}):
            far, near, hyp = corner, 3 - corner - self.right, self.right  # sides across from: it, the other, the right angle
            name, size = self.names[corner], f"{{{self.angle(corner)}}}"
            forms = {
                (far, near): ("tan", "·", near), (near, far): ("tan", ":", far), (far, hyp): ("sin", "·", hyp),
                (hyp, far): ("sin", ":", far), (near, hyp): ("cos", "·", hyp), (hyp, near): ("cos", ":", near),
            }  # fmt: skip
            for (wanted, given), (function, sign, _k) in forms.items():
                if wanted in self.sides or given not in self.sides:
                    continue
                own, other = self.side(wanted), self.side(given)
                above, below = (own, other) if sign == "·" else (other, own)
                self.note(own, f"{function} {name} = {above} : {below}")
                self.note(own, f"{own} = {{{other}}} {sign} {function} {size}\n    = {{{own}}}")
                self.sides.add(wanted)
                return True
        return False

    def angle_by_ratio(self) -> bool:
        """Two sides of a right-angled triangle give an acute angle."""
        if self.right is None or len(self.sides) < 2 or self.angles - {self.right}:
            return False
        corner = (self.right + 1) % 3
        other = 3 - corner - self.right
        pairs = (("tan", corner, other), ("sin", corner, self.right), ("cos", other, self.right))
        for function, above, below in pairs:
            if {above, below} <= self.sides:
                a, b, name = self.side(above), self.side(below), self.names[corner]
                self.note(self.angle(corner), f"{function} {name} = {a} : {b} = {{{a}}} : {{{b}}}")
                self.note(self.angle(corner), f"∠{name} = {{{self.angle(corner)}}}")
                self.angles.add(corner)
                return True
        return False

    def sine_side(self) -> bool:
        """A side with the angle across from it, and another angle: the rule of sines."""
        for known in sorted(self.sides & self.angles):
            for i in sorted(self.angles - self.sides):
                own, other = self.side(i), self.side(known)
                a, b = self.names[i], self.names[known]
                self.note(own, f"{own} : sin {a} = {other} : sin {b}")
                self.note(
                    own, f"{own} = {{{other}}} · sin {{{self.angle(i)}}} : sin {{{self.angle(known)}}}\n    = {{{own}}}"
                )
                self.sides.add(i)
                return True
        return False

    def sine_angle(self) -> bool:
        """Two sides and the angle across from the longer one: the rule of sines, the other way. Across from the shorter one,
        two triangles would fit."""
        for known in sorted(self.sides & self.angles):
            for i in sorted(self.sides - self.angles):
                if not self.lengths or self.lengths[known] < self.lengths[i] * (1 - 1e-9):
                    continue
                own, other = self.side(i), self.side(known)
                a, b = self.names[i], self.names[known]
                size = f"{{{self.angle(known)}}}"
                rule = f"sin {a} = {own} · sin {b} : {other}"
                self.note(self.angle(i), f"{rule}\n    = {{{own}}} · sin {size} : {{{other}}}")
                self.note(self.angle(i), f"∠{a} = {{{self.angle(i)}}}")
                self.angles.add(i)
                return True
        return False

    def cosine_side(self) -> bool:
        """Two sides and the angle between them: the rule of cosines."""
        for i in sorted(self.angles - self.sides):
            if self.sides >= {0, 1, 2} - {i}:
                own = self.side(i)
                p, q = (self.side(k) for k in (0, 1, 2) if k != i)
                self.note(own, f"{own}² = {p}² + {q}² − 2 · {p} · {q} · cos {self.names[i]}")
                angle = f"{{{self.angle(i)}}}"
                self.note(own, f"{own} = √({{{p}}}² + {{{q}}}² − 2 · {{{p}}} · {{{q}}} · cos {angle})\n    = {{{own}}}")
                self.sides.add(i)
                return True
        return False

    def cosine_angle(self) -> bool:
        """Three sides: the rule of cosines, the other way."""
        if len(self.sides) != 3 or len(self.angles) == 3:
            return False
        i = min({0, 1, 2} - self.angles)
        own = self.side(i)
        p, q = (self.side(k) for k in (0, 1, 2) if k != i)
        name = self.names[i]
        self.note(self.angle(i), f"cos {name} = ({p}² + {q}² − {own}²) : (2 · {p} · {q})")
        self.note(self.angle(i), f"∠{name} = {{{self.angle(i)}}}")
        self.angles.add(i)
        return True


def given(triangle: object) -> tuple[set[int], set[int], int | None]:
    """What is shown on a triangle: sides and angles by the corner (across), and where it has a right angle."""
    assert isinstance(triangle, Polygon)
    names = triangle.fact_names()
    shown = set(triangle.all_shown())
    sides = {(i + 2) % 3 for i in range(3) if names[i] + names[(i + 1) % 3] in shown}
    angles = {i for i in range(3) if f"angle {names[i]}" in shown}
    sizes = geometry.interior_angles(triangle.vertices)
    right = next((i for i, size in enumerate(sizes) if size is not None and abs(size - 90) < 1e-7), None)
    if right is not None:
        angles.add(right)
    return sides, angles, right


def working(triangle: object, unit: str = "") -> list[str]:
    """The lines of the working, beginning with what is given. Raises ValueError with one sentence."""
    assert isinstance(triangle, Polygon)
    sides, angles, right = given(triangle)
    names = triangle.fact_names()
    measured = geometry.sides(triangle.vertices)
    solver = _Solver(names, set(sides), set(angles), right, [measured[(i + 1) % 3] for i in range(3)])
    unit = f" {unit}" if unit else ""
    known = [f"{solver.side(i)} = {{{solver.side(i)}}}{unit}" for i in sorted(sides)]
    known += [f"∠{names[i]} = {{{solver.angle(i)}}}" for i in sorted(angles)]
    if not sides or len(sides) + len(angles) < 3:
        raise ValueError(_("Show a side and two more measures of the triangle: they are what is given."))
    first, rest = ", ".join(known[:2]), ", ".join(known[2:])
    lines = [_("Given: {facts}").format(facts=first + (",\n    " + rest if rest else ""))]
    steps = solver.run()
    ends = {step.found: k for k, step in enumerate(steps)}  # the last line of each result has its unit
    for k, step in enumerate(steps):
        lines.append(step.words + (unit if ends[step.found] == k and not step.found.startswith("angle") else ""))
    return lines


def work_out(page: Page, things: Things) -> Edit:
    """Writes the working beside a triangle, and shows all that is found."""
    triangle = things[0]
    lines = working(triangle, page.scale.unit)
    after = page.put(_beside(page, triangle.box(), Text(text="\n".join(lines), size=SIZE, hue="slate")))
    return Edit(_("Work it out"), page, after, select=(after.things[-1].id,))


def _beside(page: Page, box: Box, text: Text) -> Text:
    """The working where it finds room on the page: right of the triangle, left of it or below; smaller where it must be."""
    seen = page.printed().grown(-24)
    rooms = [Box(box.x1 + 64, seen.y0, seen.x1, seen.y1), Box(seen.x0, seen.y0, box.x0 - 64, seen.y1),
             Box(seen.x0, box.y1 + 48, seen.x1, seen.y1)]  # fmt: skip
    for size in (SIZE, 34.0, 28.0, 24.0, 20.0):
        wide, high = text.replace(size=size).estimate()
        for room in rooms:
            if wide <= room.width and high <= room.height:
                top = min(max(box.y0, room.y0), room.y1 - high)
                placed: Text = text.replace(size=size, placement=Placement(room.x0, top))
                return placed
    room = max(rooms, key=lambda one: max(0.0, one.width) * max(0.0, one.height))
    small = text.replace(size=LEAST, width=max(200.0, room.width))
    at = Placement(max(seen.x0, min(room.x0, seen.x1 - small.width)), max(seen.y0, room.y0))
    squeezed: Text = small.replace(placement=at)
    return squeezed


def _triangle(page: Page, things: Things) -> bool:
    return len(things) == 1 and things[0].kind() == "polygon" and len(getattr(things[0], "vertices", ())) == 3


SOLVING = (
    Action("work it out", lambda p, ts: _("work it out"), "list-ordered", work_out, _triangle, rank=41,
           words=N_("solve triangle trigonometry sine cosine tangent pythagoras height steps")),
)  # fmt: skip
register(SOLVING, Constructible, at=50)
