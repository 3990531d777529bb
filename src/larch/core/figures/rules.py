"""The rules by which figures follow from others. To add one: an entry of RULES, which the tool, the Finder, the list of
steps and the file then know."""

from __future__ import annotations

from functools import partial
from typing import Any

from larch.core.base.words import N_
from larch.core.figures import rule_makers as make
from larch.core.figures.rule import CI, CU, FI, LN, PT, Rule
from larch.core.figures.rule_makers import MOST_CORNERS, Forms, Values
from larch.core.maths.plane import construct, moves
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, sound

RULES: dict[str, Rule] = {
    # Drawn between points
    "segment": Rule(
        (PT, PT),
        LN,
        make.make_joined("segment"),
        N_("segment"),
        N_("Join {0} and {1}."),
        "slash",
        "draw",
        search=N_("line straight join"),
    ),
    "ray": Rule(
        (PT, PT),
        LN,
        make.make_joined("ray"),
        N_("ray"),
        N_("Draw the ray from {0} through {1}."),
        "move-up-right",
        "draw",
        search=N_("half line"),
    ),
    "line": Rule(
        (PT, PT),
        LN,
        make.make_joined("line"),
        N_("line"),
        N_("Draw the line through {0} and {1}."),
        "move-diagonal",
        "draw",
        search=N_("straight endless"),
    ),
    "vector": Rule(
        (PT, PT),
        LN,
        make.make_joined("vector"),
        N_("vector"),
        N_("Draw the vector from {0} to {1}."),
        "arrow-up-right",
        "draw",
        search=N_("arrow"),
    ),
    "polyline": Rule(
        ("point…",),
        "polyline",
        make.make_polyline,
        N_("polyline"),
        N_("Join {all} in a row."),
        "spline",
        "draw",
        search=N_("path open"),
    ),
    "polygon": Rule(
        ("point…",),
        "polygon",
        make.make_polygon,
        N_("polygon"),
        N_("Join {all} to a polygon."),
        "pentagon",
        "draw",
        search=N_("corners irregular close"),
    ),
    "regular": Rule(
        (PT, PT),
        "polygon",
        make.make_regular,
        N_("regular polygon on a side"),
        N_("Put up a regular polygon on {0}{1}."),
        "hexagon",
        "draw",
        ((N_("corners"), ""),),
        (6.0,),
        search=N_("equal sides square hexagon"),
    ),
    "angle": Rule(
        (PT, PT, PT),
        "angle",
        make.make_angle,
        N_("angle"),
        N_("Mark the angle from {0} about {1} to {2}."),
        "chevron-left",
        "draw",
        (("", ""),),
        (0.0,),
        search=N_("arms vertex degrees"),
    ),
    # Circles
    "circle": Rule(
        (PT, PT),
        CI,
        make.from_points(make.make_about),
        N_("circle through a point"),
        N_("Draw the circle about {0} through {1}."),
        "circle",
        "circles",
        search=N_("centre radius compasses"),
    ),
    "circle with radius": Rule(
        (PT,),
        CI,
        make.with_radius,
        N_("circle with a radius"),
        N_("Draw the circle about {0} with radius {v0}."),
        "circle-dot",
        "circles",
        ((N_("radius"), "length"),),
        (96.0,),
        make.slide_radius,
        search=N_("centre number"),
    ),
    "carried circle": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(lambda p, q, c: make.carried(c, p, q)),
        N_("carry a length"),
        N_("Open the compasses from {0} to {1} and draw about {2}."),
        "drafting-compass",
        "circles",
        search=N_("compasses length transfer radius"),
    ),
    "circle through three": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(construct.circle_through),
        N_("circle through three points"),
        N_("Draw the circle through {0}, {1} and {2}."),
        "circle-dashed",
        "circles",
        search=N_("circumcircle"),
    ),
    "circle on diameter": Rule(
        (PT, PT),
        CI,
        make.from_points(construct.circle_on_diameter),
        N_("circle on a diameter"),
        N_("Draw the circle on the diameter {0}{1}."),
        "circle-slash-2",
        "circles",
        search=N_("thales semicircle"),
    ),
    "arc": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(partial(construct.arc_from, form="arc")),
        N_("arc"),
        N_("Draw the arc about {0} from {1} towards {2}."),
        "rotate-ccw",
        "circles",
    ),
    "arc through three": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(construct.arc_through),
        N_("arc through three points"),
        N_("Draw the arc from {0} over {1} to {2}."),
        "redo",
        "circles",
    ),
    "sector": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(partial(construct.arc_from, form="sector")),
        N_("sector"),
        N_("Draw the sector about {0} from {1} towards {2}."),
        "chart-pie",
        "circles",
        search=N_("slice pie"),
    ),
    "cap": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(partial(construct.arc_from, form="cap")),
        N_("segment of a circle"),
        N_("Cut a segment off the circle about {0}, from {1} towards {2}."),
        "sunset",
        "circles",
        search=N_("chord circular"),
    ),
    "ellipse": Rule(
        (PT, PT, PT),
        "ellipse",
        make.from_points(make.make_ellipse),
        N_("ellipse"),
        N_("Draw the ellipse with foci {0} and {1} through {2}."),
        "ellipsis",
        "circles",
        search=N_("foci oval"),
    ),
    "incircle": Rule(
        (PT, PT, PT),
        CI,
        make.from_points(construct.incircle),
        N_("circle inside three sides"),
        N_("Draw the circle that touches the sides of {0}{1}{2}."),
        "circle-dot-dashed",
        "circles",
        search=N_("incircle inscribed"),
    ),
    # Constructions
    "midpoint": Rule(
        (PT, PT),
        PT,
        make.from_points(construct.midpoint),
        N_("midpoint"),
        N_("Find the midpoint of {0} and {1}."),
        "git-commit-horizontal",
        "construct",
        search=N_("middle halfway"),
    ),
    "meet": Rule(
        (CU, CU),
        PT,
        make.make_meet,
        N_("meeting point"),
        N_("Find where {0} and {1} meet."),
        "x",
        "construct",
        (("", ""),),
        (0.0,),
        search=N_("intersection cross"),
    ),
    "on": Rule(
        (CU,),
        PT,
        make.make_on,
        N_("point on a line"),
        N_("Put a point on {0}."),
        "git-commit-vertical",
        "construct",
        (("", ""),),
        (0.5,),
        make.slide_on,
        search=N_("glider slides"),
    ),
    "perpendicular": Rule(
        (PT, LN),
        LN,
        lambda f, v: construct.perpendicular(make.points_of(f[:1])[0], make.line_form(f[1])),
        N_("perpendicular"),
        N_("Draw the perpendicular to {1} through {0}."),
        "corner-down-right",
        "construct",
        search=N_("right angle square normal"),
    ),
    "foot": Rule(
        (PT, LN),
        PT,
        lambda f, v: construct.foot(make.points_of(f[:1])[0], make.line_form(f[1])),
        N_("foot of a perpendicular"),
        N_("Drop the perpendicular from {0} to {1}."),
        "arrow-down-to-line",
        "construct",
        search=N_("height altitude"),
    ),
    "parallel": Rule(
        (PT, LN),
        LN,
        lambda f, v: construct.parallel(make.points_of(f[:1])[0], make.line_form(f[1])),
        N_("parallel"),
        N_("Draw the parallel to {1} through {0}."),
        "equal",
        "construct",
        search=N_("alongside"),
    ),
    "bisector": Rule(
        (PT, PT),
        LN,
        make.from_points(construct.perpendicular_bisector),
        N_("perpendicular bisector"),
        N_("Draw the perpendicular bisector of {0} and {1}."),
        "separator-vertical",
        "construct",
        search=N_("halve segment equal distance"),
    ),
    "angle bisector": Rule(
        (PT, PT, PT),
        LN,
        make.from_points(lambda a, v, b: construct.angle_bisector(v, a, b)),
        N_("angle bisector"),
        N_("Halve the angle from {0} about {1} to {2}."),
        "chevrons-left",
        "construct",
        search=N_("halve angle"),
    ),
    "tangent": Rule(
        (PT, CI),
        LN,
        make.make_tangent,
        N_("tangent"),
        N_("Draw the tangent from {0} to {1}."),
        "circle-arrow-out-up-right",
        "touching",
        (("", ""),),
        (0.0,),
        search=N_("touches circle"),
    ),
    "tangent at": Rule(
        (PT, CU),
        LN,
        make.make_touching(False),
        N_("tangent at a point"),
        N_("Draw the tangent to {1} at {0}."),
        "slash",
        "touching",
        search=N_("gradient slope touches curve graph"),
    ),
    "normal at": Rule(
        (PT, CU),
        LN,
        make.make_touching(True),
        N_("normal at a point"),
        N_("Draw the normal to {1} at {0}."),
        "corner-down-right",
        "touching",
        search=N_("right angle perpendicular curve graph"),
    ),
    "secant": Rule(
        (PT, PT, CU),
        LN,
        make.make_secant,
        N_("secant"),
        N_("Draw the secant of {2} through {0} and {1}; where they meet, it is the tangent."),
        "move-diagonal",
        "touching",
        search=N_("chord gradient difference quotient limit curve graph"),
    ),
    "centre": Rule(
        (FI,),
        PT,
        make.make_centre,
        N_("centre"),
        N_("Find the centre of {0}."),
        "crosshair",
        "construct",
        search=N_("centroid middle"),
    ),
    "centroid": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("centroid"),
        N_("centroid"),
        N_("Find the centroid of {0}{1}{2}."),
        "triangle-dashed",
        "construct",
        search=N_("medians balance centre triangle"),
    ),
    "circumcentre": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("circumcentre"),
        N_("circumcentre"),
        N_("Find the circumcentre of {0}{1}{2}."),
        "target",
        "construct",
        search=N_("centre triangle"),
    ),
    "incentre": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("incentre"),
        N_("incentre"),
        N_("Find the incentre of {0}{1}{2}."),
        "goal",
        "construct",
        search=N_("centre triangle bisectors"),
    ),
    "orthocentre": Rule(
        (PT, PT, PT),
        PT,
        make.centre_of("orthocentre"),
        N_("orthocentre"),
        N_("Find the orthocentre of {0}{1}{2}."),
        "locate",
        "construct",
        search=N_("centre triangle heights"),
    ),
    # Images
    "mirror": Rule(
        (FI, LN),
        "",
        make.make_image(lambda f, v: moves.reflection(make.line_form(f[0]))),
        N_("reflect in a line"),
        N_("Reflect {0} in {1}."),
        "flip-horizontal-2",
        "move",
        search=N_("mirror fold symmetry"),
    ),
    "point mirror": Rule(
        (FI, PT),
        "",
        make.make_image(lambda f, v: moves.point_reflection(make.points_of(f)[0])),
        N_("reflect in a point"),
        N_("Reflect {0} in {1}."),
        "rotate-3d",
        "move",
        search=N_("half turn"),
    ),
    "rotate": Rule(
        (FI, PT),
        "",
        make.make_image(lambda f, v: moves.rotation(make.points_of(f)[0], v[0])),
        N_("rotate about a point"),
        N_("Rotate {0} about {1} by {v0}."),
        "rotate-ccw-square",
        "move",
        ((N_("angle"), "°"),),
        (90.0,),
        search=N_("turn"),
    ),
    "translate": Rule(
        (FI, PT, PT),
        "",
        make.make_image(lambda f, v: moves.translation(make.difference(f))),
        N_("translate by a vector"),
        N_("Move {0} as {1} goes to {2}."),
        "move-3d",
        "move",
        search=N_("shift slide vector"),
    ),
    "enlarge": Rule(
        (FI, PT),
        "",
        make.make_image(lambda f, v: moves.enlargement(make.points_of(f)[0], v[0])),
        N_("enlarge from a centre"),
        N_("Enlarge {0} from {1} by the factor {v0}."),
        "scaling",
        "move",
        ((N_("factor"), ""),),
        (2.0,),
        search=N_("dilate scale similar factor"),
    ),
}


def made_by(name: str, forms: Forms, values: Values) -> Form:
    """What a rule makes. Raises NotThere with the reason where it makes nothing; never anything else."""
    rule = RULES.get(name)
    if rule is None:
        raise NotThere(N_("It was made by a newer Larch."))
    wanted = len(rule.takes)
    if rule.takes[0] == "point…":
        if not 2 <= len(forms) <= MOST_CORNERS:
            raise NotThere(N_("It needs more points."))
    elif len(forms) != wanted and not (len(forms) == 1 and isinstance(forms[0], Path)):
        raise NotThere(N_("It needs something else to follow from."))
    try:
        form = rule.make(forms, values if len(values) >= len(rule.starts) else rule.starts)
    except NotThere:
        raise
    except (ArithmeticError, ValueError, IndexError, TypeError) as error:
        raise NotThere(N_("It can't be worked out here.")) from error
    if not sound(form):
        raise NotThere(N_("It lies too far out."))
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
