"""What the rules of `core.rules` make of the forms that they are given."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane import construct, moves
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, direction
from larch.core.maths.plane.meet import meetings
from larch.core.maths.plane.near import on_form, parameter

Forms = Sequence[Form]
Values = Sequence[float]
Maker = Callable[[Forms, Values], Form]
MOST_CORNERS = 200
LONG = 100.0  # page units from one point of a line to the other that tells its direction


def points_of(forms: Forms) -> list[Point]:
    found = []
    for form in forms:
        if not isinstance(form, Spot):
            raise NotThere(N_("It needs a point there."))
        found.append((form.x, form.y))
    return found


def line_form(form: Form) -> Line:
    if not isinstance(form, Line):
        raise NotThere(N_("It needs a line there."))
    return form


def circle_form(form: Form) -> Circle:
    if not isinstance(form, Circle):
        raise NotThere(N_("It needs a circle there."))
    return form


def from_points(build: Callable[..., Form]) -> Maker:
    return lambda forms, values: build(*points_of(forms))


def make_joined(form: str) -> Maker:
    def make(forms: Forms, values: Values) -> Form:
        a, b = points_of(forms)
        if a == b:
            raise NotThere(N_("The two points coincide."))
        return Line(a, b, form)

    return make


def make_about(centre: Point, through: Point) -> Circle:
    if centre == through:
        raise NotThere(N_("Its radius is nothing."))
    return Circle(centre, math.dist(centre, through))


def with_radius(forms: Forms, values: Values) -> Form:
    radius = values[0]
    if not radius > 0:
        raise NotThere(N_("Its radius is nothing."))
    return Circle(points_of(forms)[0], radius)


def carried(centre: Point, p: Point, q: Point) -> Circle:
    if p == q:
        raise NotThere(N_("The compasses are closed: the two points coincide."))
    return Circle(centre, math.dist(p, q))


def make_ellipse(f: Point, g: Point, p: Point) -> Ellipse:
    """By its foci and a point."""
    major, focal = (math.dist(f, p) + math.dist(g, p)) / 2, math.dist(f, g) / 2
    minor = math.sqrt(max(0.0, (major - focal) * (major + focal)))
    if minor <= 1e-6 * major:
        raise NotThere(N_("The ellipse is flat."))
    return Ellipse(construct.midpoint(f, g), major, minor, direction(f, g) if focal else 0.0)


def make_meet(forms: Forms, values: Values) -> Form:
    found = meetings(forms[0], forms[1])
    k = int(values[0]) if values else 0
    if k >= len(found):
        if len(found) == 1 and k == 1:
            return Spot(*found[0]) if make_touches(forms) else no_more()
        no_more()
    return Spot(*found[k])


def no_more() -> Form:
    raise NotThere(N_("They meet less often now."))


def make_touches(forms: Forms) -> bool:
    """Whether two whole curves have come to touch, so that their two meetings are one."""
    whole = [not isinstance(f, Circle) or f.form == "circle" for f in forms]
    endless = [not isinstance(f, Line) or f.form == "line" for f in forms]
    return all(whole) and all(endless)


def make_tangent(forms: Forms, values: Values) -> Form:
    point, circle = points_of(forms[:1])[0], circle_form(forms[1])
    found = construct.tangents(point, circle)
    return found[min(int(values[0]) if values else 0, len(found) - 1)]


BESIDE = 1e-3  # page units by which a place beside a point is looked at
SHARE = 1e-4  # of the parameter, where that tells more


def _off(form: Graph | Circle, points: Sequence[Point]) -> list[float]:
    """How far places lie to the one side of a curve."""
    if isinstance(form, Graph):
        return list(form.offs(points))
    return [math.dist(point, form.centre) - form.radius for point in points]


def touching(form: Form, near: Point) -> tuple[Point, Point]:
    """The place of a curve that is nearest to another, and its direction there, of length 1. Raises NotThere."""
    if isinstance(form, Spot | Angle):
        raise NotThere(N_("That has no direction."))
    t = parameter(form, near)
    at = on_form(form, t)
    if isinstance(form, Graph | Circle):
        x, y = at
        places = [at, (x + BESIDE, y), (x - BESIDE, y), (x, y + BESIDE), (x, y - BESIDE)]
        here, right, left, low, high = _off(form, places)
        across, down = right - left, low - high
        size = math.hypot(across, down)
        bent = abs(right + left - 2 * here) + abs(low + high - 2 * here)
        way = (-down, across)
    else:
        (ax, ay), (bx, by) = on_form(form, t - SHARE), on_form(form, t + SHARE)
        way, bent = (bx - ax, by - ay), 0.0
        size = math.hypot(*way)
    if not math.isfinite(size) or size < 1e-12 or bent > 0.05 * size:
        raise NotThere(N_("The curve has no direction there."))
    return at, (way[0] / size, way[1] / size)


def make_touching(upright: bool) -> Maker:
    """The tangent at a point of a curve, or the line at a right angle to it."""

    def make(forms: Forms, values: Values) -> Form:
        (x, y), (dx, dy) = touching(forms[1], points_of(forms[:1])[0])
        if upright:
            dx, dy = -dy, dx
        return Line((x, y), (x + dx * LONG, y + dy * LONG), "line")

    return make


def make_secant(forms: Forms, values: Values) -> Form:
    a, b = points_of(forms[:2])
    if math.dist(a, b) > 0.01:
        return Line(a, b, "line")
    (x, y), (dx, dy) = touching(forms[2], a)
    return Line((x, y), (x + dx * LONG, y + dy * LONG), "line")


def make_centre(forms: Forms, values: Values) -> Form:
    match forms[0]:
        case Circle(centre) | Ellipse(centre):
            return Spot(*centre)
        case Path(corners) if corners:
            from larch.core.maths.measure import centroid

            found = centroid(corners)
            if found is None:
                raise NotThere(N_("It has no area, so no centre."))
            return Spot(*found)
        case Line(a, b):
            return construct.midpoint(a, b)
    raise NotThere(N_("It has no centre."))


def make_polygon(forms: Forms, values: Values) -> Form:
    if not 3 <= len(forms) <= MOST_CORNERS:
        raise NotThere(N_("A polygon needs three corners."))
    return Path(tuple(points_of(forms)))


def make_regular(forms: Forms, values: Values) -> Form:
    """On the side from a to b, to its left as seen."""
    a, b = points_of(forms)
    count = int(values[0])
    if not 3 <= count <= 20:
        raise NotThere(N_("A regular polygon here has 3 to 20 corners."))
    if a == b:
        raise NotThere(N_("The two points coincide."))
    corners, step = [complex(*a), complex(*b)], complex(*b) - complex(*a)
    turn = complex(math.cos(2 * math.pi / count), -math.sin(2 * math.pi / count))
    while len(corners) < count:
        step *= turn
        corners.append(corners[-1] + step)
    return Path(tuple((z.real, z.imag) for z in corners))


def make_polyline(forms: Forms, values: Values) -> Form:
    return Path(tuple(points_of(forms)), closed=False)


def make_angle(forms: Forms, values: Values) -> Form:
    a, vertex, b = points_of(forms)
    if vertex in (a, b):
        raise NotThere(N_("Two of the three points coincide."))
    return Angle(vertex, a, b, "inner" if not values or values[0] == 0 else "outer")


def make_image(move: Callable[[Forms, Values], moves.Move]) -> Maker:
    return lambda forms, values: move(forms[1:], values).form(forms[0])


def slide_on(forms: Forms, values: Values, at: Point) -> Values:
    return (parameter(forms[0], at),)


def slide_radius(forms: Forms, values: Values, at: Point) -> Values:
    return (max(1.0, math.dist(points_of(forms[:1])[0], at)),)


def make_on(forms: Forms, values: Values) -> Form:
    return Spot(*on_form(forms[0], values[0]))


def centre_of(name: str) -> Maker:
    return lambda forms, values: construct.triangle_centre(name, *make_three(forms))


def make_three(forms: Forms) -> list[Point]:
    """Three points, or the corners of a triangle."""
    if len(forms) == 1 and isinstance(forms[0], Path):
        if len(forms[0].corners) != 3:
            raise NotThere(N_("Only a triangle has these centres."))
        return list(forms[0].corners)
    return points_of(forms)


def difference(forms: Forms) -> Point:
    a, b = points_of(forms)
    return (b[0] - a[0], b[1] - a[1])
