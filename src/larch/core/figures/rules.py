"""The rules by which figures follow from others. To add one: an entry of RULES, which the tool, the Finder, the list of
steps and the file then know."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any, NamedTuple

from larch.core.base.shape import Point
from larch.core.figures import rule_makers as make
from larch.core.figures.rule_makers import MOST_CORNERS, Forms, Maker, Values
from larch.core.maths.plane import construct, moves
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, sound


class Rule(NamedTuple):
    """takes: what it follows from, in order: "point", "line", "circle" (round), "curve" (anything with a line), "figure"
    (anything), "axes"; "point…" for three or more points. makes: the kind of thing, "" for that of the first.
    words: the sentence of a step. values: name and unit of each number, with those it begins with in `starts`.
    slides: where its values go when it is dragged to a place."""

    takes: tuple[str, ...]
    makes: str
    make: Maker
    label: str
    words: str
    icon: str
    family: str
    values: tuple[tuple[str, str], ...] = ()
    starts: tuple[float, ...] = ()
    slides: Callable[[Forms, Values, Point], Values] | None = None
    search: str = ""


PT, LN, CI, CU, FI = "point", "line", "circle", "curve", "figure"

RULES: dict[str, Rule] = {
    # Drawn between points
    "segment": Rule(
        (PT, PT),
        LN,
        make.make_joined("segment"),
        "segment",
        "Join {0} and {1}.",
        "slash",
        "draw",
        search="line straight join",
    ),
    "ray": Rule(
        (PT, PT),
        LN,
        make.make_joined("ray"),
        "ray",
        "Draw the ray from {0} through {1}.",
        "move-up-right",
        "draw",
        search="half line",
    ),
    "line": Rule(
        (PT, PT),
        LN,
        make.make_joined("line"),
        "line",
        "Draw the line through {0} and {1}.",
        "move-diagonal",
        "draw",
        search="straight endless",
    ),
    "vector": Rule(
        (PT, PT),
        LN,
        make.make_joined("vector"),
        "vector",
        "Draw the vector from {0} to {1}.",
        "arrow-up-right",
        "draw",
        search="arrow",
    ),
    "polyline": Rule(
        ("point…",), "polyline", make.make_polyline, "polyline", "Join {all} in a row.", "spline", "draw", search="path open"
    ),
    "polygon": Rule(
        ("point…",),
        "polygon",
        make.make_polygon,
        "polygon",
        "Join {all} to a polygon.",
        "pentagon",
        "draw",
        search="corners irregular close",
    ),
    "regular": Rule(
        (PT, PT),
        "polygon",
        make.make_regular,
        "regular polygon on a side",
        "Put up a regular polygon on {0}{1}.",
        "hexagon",
        "draw",
        (("corners", ""),),
        (6.0,),
        search="equal sides square hexagon",
    ),
    "angle": Rule(
        (PT, PT, PT),
        "angle",
        make.make_angle,
        "angle",
        "Mark the angle from {0} about {1} to {2}.",
        "chevron-left",
        "draw",
        (("", ""),),
        (0.0,),
        search="arms vertex degrees",
    ),
    # Circles
    "circle": Rule(
        (PT, PT),
        CI,
        make.from_points(make.make_about),
        "circle through a point",
        "Draw the circle about {0} through {1}.",
        "circle",
        "circles",
        search="centre radius compasses",
    ),
    "circle with radius": Rule(
        (PT,),
        CI,
        make.with_radius,
        "circle with a radius",
        "Draw the circle about {0} with radius {v0}.",
        "circle-dot",
        "circles",
        (("radius", "length"),),
        (96.0,),
        make.slide_radius,
        search="centre number",
    ),
    "carried circle": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(lambda p, q, c: make.carried(c, p, q)),
        "carry a length",
        "Open the compasses from {0} to {1} and draw about {2}.",
        "drafting-compass",
        "circles",
        search="compasses length transfer radius",
    ),
    "circle through three": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(construct.circle_through),
        "circle through three points",
        "Draw the circle through {0}, {1} and {2}.",
        "circle-dashed",
        "circles",
        search="circumcircle",
    ),
    "circle on diameter": Rule(
        (PT, PT),
        CI,
        make.from_points(construct.circle_on_diameter),
        "circle on a diameter",
        "Draw the circle on the diameter {0}{1}.",
        "circle-slash-2",
        "circles",
        search="thales semicircle",
    ),
    "arc": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(partial(construct.arc_from, form="arc")),
        "arc",
        "Draw the arc about {0} from {1} towards {2}.",
        "rotate-ccw",
        "circles",
    ),
    "arc through three": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(construct.arc_through),
        "arc through three points",
        "Draw the arc from {0} over {1} to {2}.",
        "redo",
        "circles",
    ),
    "sector": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(partial(construct.arc_from, form="sector")),
        "sector",
        "Draw the sector about {0} from {1} towards {2}.",
        "chart-pie",
        "circles",
        search="slice pie",
    ),
    "cap": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(partial(construct.arc_from, form="cap")),
        "segment of a circle",
        "Cut a segment off the circle about {0}, from {1} towards {2}.",
        "sunset",
        "circles",
        search="chord circular",
    ),
    "ellipse": Rule(
        (PT, PT, PT),
        "ellipse",
        make.from_points(make.make_ellipse),
        "ellipse",
        "Draw the ellipse with foci {0} and {1} through {2}.",
        "ellipsis",
        "circles",
        search="foci oval",
    ),
    "incircle": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(construct.incircle),
        "circle inside three sides",
        "Draw the circle that touches the sides of {0}{1}{2}.",
        "circle-dot-dashed",
        "circles",
        search="incircle inscribed",
    ),
    # Constructions
    "midpoint": Rule(
        (PT, PT),
        PT,
        make.from_points(construct.midpoint),
        "midpoint",
        "Find the midpoint of {0} and {1}.",
        "git-commit-horizontal",
        "construct",
        search="middle halfway",
    ),
    "meet": Rule(
        (CU, CU),
        PT,
        make.make_meet,
        "meeting point",
        "Find where {0} and {1} meet.",
        "x",
        "construct",
        (("", ""),),
        (0.0,),
        search="intersection cross",
    ),
    "on": Rule(
        (CU,),
        PT,
        make.make_on,
        "point on a line",
        "Put a point on {0}.",
        "git-commit-vertical",
        "construct",
        (("", ""),),
        (0.5,),
        make.slide_on,
        search="glider slides",
    ),
    "perpendicular": Rule(
        (PT, LN),
        LN,
        lambda f, v: construct.perpendicular(make.points_of(f[:1])[0], make.line_form(f[1])),
        "perpendicular",
        "Draw the perpendicular to {1} through {0}.",
        "corner-down-right",
        "construct",
        search="right angle square normal",
    ),
    "foot": Rule(
        (PT, LN),
        PT,
        lambda f, v: construct.foot(make.points_of(f[:1])[0], make.line_form(f[1])),
        "foot of a perpendicular",
        "Drop the perpendicular from {0} to {1}.",
        "arrow-down-to-line",
        "construct",
        search="height altitude",
    ),
    "parallel": Rule(
        (PT, LN),
        LN,
        lambda f, v: construct.parallel(make.points_of(f[:1])[0], make.line_form(f[1])),
        "parallel",
        "Draw the parallel to {1} through {0}.",
        "equal",
        "construct",
        search="alongside",
    ),
    "bisector": Rule(
        (PT, PT),
        LN,
        make.from_points(construct.perpendicular_bisector),
        "perpendicular bisector",
        "Draw the perpendicular bisector of {0} and {1}.",
        "separator-vertical",
        "construct",
        search="halve segment equal distance",
    ),
    "angle bisector": Rule(
        (PT, PT, PT),
        LN,
        make.from_points(lambda a, v, b: construct.angle_bisector(v, a, b)),
        "angle bisector",
        "Halve the angle from {0} about {1} to {2}.",
        "chevrons-left",
        "construct",
        search="halve angle",
    ),
    "tangent": Rule(
        (PT, CI),
        LN,
        make.make_tangent,
        "tangent",
        "Draw the tangent from {0} to {1}.",
        "circle-arrow-out-up-right",
        "construct",
        (("", ""),),
        (0.0,),
        search="touches circle",
    ),
    "centre": Rule(
        (FI,), PT, make.make_centre, "centre", "Find the centre of {0}.", "crosshair", "construct", search="centroid middle"
    ),
    "centroid": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("centroid"),
        "centroid",
        "Find the centroid of {0}{1}{2}.",
        "triangle-dashed",
        "construct",
        search="medians balance centre triangle",
    ),
    "circumcentre": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("circumcentre"),
        "circumcentre",
        "Find the circumcentre of {0}{1}{2}.",
        "target",
        "construct",
        search="centre triangle",
    ),
    "incentre": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("incentre"),
        "incentre",
        "Find the incentre of {0}{1}{2}.",
        "goal",
        "construct",
        search="centre triangle bisectors",
    ),
    "orthocentre": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("orthocentre"),
        "orthocentre",
        "Find the orthocentre of {0}{1}{2}.",
        "locate",
        "construct",
        search="centre triangle heights",
    ),
    # Images
    "mirror": Rule(
        (FI, LN),
        "",
        make.make_image(lambda f, v: moves.reflection(make.line_form(f[0]))),
        "reflect in a line",
        "Reflect {0} in {1}.",
        "flip-horizontal-2",
        "move",
        search="mirror fold symmetry",
    ),
    "point mirror": Rule(
        (FI, PT),
        "",
        make.make_image(lambda f, v: moves.point_reflection(make.points_of(f)[0])),
        "reflect in a point",
        "Reflect {0} in {1}.",
        "rotate-3d",
        "move",
        search="half turn",
    ),
    "rotate": Rule(
        (FI, PT),
        "",
        make.make_image(lambda f, v: moves.rotation(make.points_of(f)[0], v[0])),
        "rotate about a point",
        "Rotate {0} about {1} by {v0}.",
        "rotate-ccw-square",
        "move",
        (("angle", "°"),),
        (90.0,),
        search="turn",
    ),
    "translate": Rule(
        (FI, PT, PT),
        "",
        make.make_image(lambda f, v: moves.translation(make.difference(f))),
        "translate by a vector",
        "Move {0} as {1} goes to {2}.",
        "move-3d",
        "move",
        search="shift slide vector",
    ),
    "enlarge": Rule(
        (FI, PT),
        "",
        make.make_image(lambda f, v: moves.enlargement(make.points_of(f)[0], v[0])),
        "enlarge from a centre",
        "Enlarge {0} from {1} by the factor {v0}.",
        "scaling",
        "move",
        (("factor", ""),),
        (2.0,),
        search="dilate scale similar factor",
    ),
}


def made_by(name: str, forms: Forms, values: Values) -> Form:
    """What a rule makes. Raises NotThere with the reason where it makes nothing; never anything else."""
    rule = RULES.get(name)
    if rule is None:
        raise NotThere("It was made by a newer Larch.")
    wanted = len(rule.takes)
    if rule.takes[0] == "point…":
        if not 2 <= len(forms) <= MOST_CORNERS:
            raise NotThere("It needs more points.")
    elif len(forms) != wanted and not (len(forms) == 1 and isinstance(forms[0], Path)):
        raise NotThere("It needs something else to follow from.")
    try:
        form = rule.make(forms, values if len(values) >= len(rule.starts) else rule.starts)
    except NotThere:
        raise
    except (ArithmeticError, ValueError, IndexError, TypeError) as error:
        raise NotThere("It can't be worked out here.") from error
    if not sound(form):
        raise NotThere("It lies too far out.")
    return form


def fits(wanted: str, form: Any) -> bool:
    """Whether a form is of the sort that a rule takes."""
    match wanted:
        case "point" | "point…":
            return isinstance(form, Spot)
        case "line":
            return isinstance(form, Line)
        case "circle":
            return isinstance(form, Circle)
        case "curve":
            return isinstance(form, Line | Circle | Ellipse | Path | Angle | Graph)
        case "figure":
            return isinstance(form, Spot | Line | Circle | Ellipse | Path | Angle)
    return False
