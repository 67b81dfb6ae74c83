"""Sheet step 5: the drive to scale, in metres, y up, driver at the origin, for whatever draws it."""

import math
from dataclasses import dataclass

from tuyere.core.basis.page import Page
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.mechanics.loads import Strands, pull_on_shaft
from tuyere.core.mechanics.open_belt import Span, open_path


@dataclass(frozen=True)
class DrawnWheel:
    """A sheave.

    Centre and radii in m, wrap arc of the belt (start and sweep, rad, counter-clockwise), speed and the pull on its shaft (N) if known.
    """

    role: str
    x_m: float
    y_m: float
    datum_radius_m: float
    outside_radius_m: float
    wrap_start_rad: float
    wrap_sweep_rad: float
    speed_rad_per_s: float | None
    pull_x_n: float | None = None
    pull_y_n: float | None = None


@dataclass(frozen=True)
class DrawnSpan:
    """A span of the belt's datum line from driver to driven sheave, its outward normal, and whether it pulls."""

    x1_m: float
    y1_m: float
    x2_m: float
    y2_m: float
    normal_rad: float
    tight: bool


@dataclass(frozen=True)
class Drawing:
    """Everything needed to draw the drive to scale.

    The belt's back lies `back_offset_m` outside the datum line; `bands`: joined belts in words.
    """

    wheels: tuple[DrawnWheel, ...]
    spans: tuple[DrawnSpan, ...]
    belt_height_m: float
    back_offset_m: float
    clockwise: bool
    deflection_m: float | None
    bands: str = ""


def draw(spec: DriveSpec, page: Page) -> Drawing | None:
    """The drawing, once both sheaves and their centres are known."""
    on = spec.fitted
    if on is None or on.crossed or not page.has("centre_distance", "driver_datum", "driven_datum"):
        return None
    d, big, c = (page.values[k].n for k in ("driver_datum", "driven_datum", "centre_distance"))
    path = open_path(d, big, c, math.radians(spec.centre_line_deg))
    clockwise = spec.rotation == "clockwise"
    upper, lower = path.upper_normal_rad, path.lower_normal_rad
    speeds = [page.values[k].n if page.has(k) else None for k in ("driver_speed", "driven_speed")]
    pulls = _pulls(spec, page, clockwise)
    wheels = (
        DrawnWheel(
            "driver",
            path.wheels[0].x_m,
            path.wheels[0].y_m,
            d / 2,
            page.values["driver_outside"].n / 2,
            upper,
            _sweep(upper, lower),
            speeds[0],
            *pulls[0],
        ),
        DrawnWheel(
            "driven",
            path.wheels[1].x_m,
            path.wheels[1].y_m,
            big / 2,
            page.values["driven_outside"].n / 2,
            lower,
            _sweep(lower, upper),
            speeds[1],
            *pulls[1],
        ),
    )
    # A driver turning clockwise sends the upper strand away from itself: the lower one pulls.
    return Drawing(
        wheels,
        (_span(path.upper, upper, not clockwise), _span(path.lower, lower, clockwise)),
        on.loop.strand.thick_m if on.loop else 0.0,
        on.back_over_line(page),
        clockwise,
        page.values["deflection"].n if page.has("deflection") else None,
        on.bands,
    )


def _pulls(spec: DriveSpec, page: Page, clockwise: bool) -> tuple[tuple[float, float] | tuple[None, None], ...]:
    """The pull on each shaft in the drawing's plane, N: equal and opposite, leaning to the tight strand on the small wheel."""
    if not page.has("tight_strand", "slack_strand"):
        return (None, None), (None, None)
    strands = Strands(page.values["tight_strand"].n, page.values["slack_strand"].n, page.values["centrifugal_pull"].n)
    line, side = math.radians(spec.centre_line_deg), -1 if clockwise else 1
    # Each by its own wrap: the large wheel, wrapped by more than half a turn, is pulled away from the tight strand.
    first, second = (pull_on_shaft(strands, page.values[f"wrap_{role}"].n) for role in ("driver", "driven"))
    return first.in_plane(line, side), second.in_plane(line + math.pi, -side)


def _sweep(start: float, end: float) -> float:
    return (end - start) % (2 * math.pi)


def _span(span: Span, normal: float, tight: bool) -> DrawnSpan:
    return DrawnSpan(span.x1_m, span.y1_m, span.x2_m, span.y2_m, normal, tight)
