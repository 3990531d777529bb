"""A kernel of plane geometry: forms, how they meet, what is constructed from them, and how they are moved.

Coordinates are float64 with y pointing down, as on a page; angles are in degrees, counter-clockwise as seen. Whatever
does not exist raises `NotThere` with one sentence that says why; nothing returns a number that means nothing.
"""

from larch.core.maths.plane.forms import Angle as Angle
from larch.core.maths.plane.forms import Circle as Circle
from larch.core.maths.plane.forms import Ellipse as Ellipse
from larch.core.maths.plane.forms import Form as Form
from larch.core.maths.plane.forms import Line as Line
from larch.core.maths.plane.forms import NotThere as NotThere
from larch.core.maths.plane.forms import Path as Path
from larch.core.maths.plane.forms import Spot as Spot
