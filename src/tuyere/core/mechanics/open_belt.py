"""The open belt over two wheels: exact length, its inverse, span, wraps and the path itself.

Diameters are those of the line whose length is wanted: datum diameters give the datum length. Lengths in
metres, angles in radians. Source: plane geometry; the textbook series (Shigley, Mechanical Engineering Design,
flexible elements; Machinery's Handbook, belts) serves only as a check.
"""

import math
from dataclasses import dataclass

from scipy.optimize import brentq

from tuyere.core.basis.quantity import fraction_inches, half_millimetres


class GeometryError(ValueError):
    """The wheels and belt cannot be as stated; the message says why."""


def _checked_centres(driver_diameter_m: float, driven_diameter_m: float, centre_distance_m: float) -> float:
    if min(driver_diameter_m, driven_diameter_m, centre_distance_m) <= 0:
        raise GeometryError("Diameters and centre distance must be above zero.")
    touching = (driven_diameter_m + driver_diameter_m) / 2
    if centre_distance_m <= touching:
        raise GeometryError(overlap(touching))
    return centre_distance_m


def overlap(touching_m: float) -> str:
    """What to say of wheels that would overlap; touching_m: the centres at which they touch.

    >>> overlap(0.254)
    'The wheels would overlap: the centres of these two are more than 10 in (254 mm) apart. Measure from shaft centre to shaft centre.'
    """
    return f"The wheels would overlap: the centres of these two are more than {fraction_inches(touching_m)} in ({half_millimetres(touching_m)} mm) apart. Measure from shaft centre to shaft centre."


def span_length(driver_diameter_m: float, driven_diameter_m: float, centre_distance_m: float) -> float:
    """Free span between tangent points, m: sqrt(C^2 - ((D - d)/2)^2).

    >>> round(span_length(0.2, 0.4, 0.6), 4)
    0.5916
    """
    _checked_centres(driver_diameter_m, driven_diameter_m, centre_distance_m)
    return math.sqrt(centre_distance_m**2 - ((driven_diameter_m - driver_diameter_m) / 2) ** 2)


def wraps(driver_diameter_m: float, driven_diameter_m: float, centre_distance_m: float) -> tuple[float, float]:
    """Arc of contact on the driver and on the driven wheel, rad: pi -/+ 2 asin((D - d)/(2 C)).

    >>> tuple(round(math.degrees(a), 1) for a in wraps(0.1, 0.1, 0.5))
    (180.0, 180.0)
    """
    _checked_centres(driver_diameter_m, driven_diameter_m, centre_distance_m)
    lean = math.asin((driven_diameter_m - driver_diameter_m) / (2 * centre_distance_m))
    return math.pi - 2 * lean, math.pi + 2 * lean


def belt_length(driver_diameter_m: float, driven_diameter_m: float, centre_distance_m: float) -> float:
    """Exact length of the open belt, m: two spans and two arcs.

    >>> round(belt_length(0.2, 0.2, 1.0), 9) == round(2.0 + math.pi * 0.2, 9)
    True
    """
    driver_wrap, driven_wrap = wraps(driver_diameter_m, driven_diameter_m, centre_distance_m)
    span = span_length(driver_diameter_m, driven_diameter_m, centre_distance_m)
    return 2 * span + (driver_diameter_m * driver_wrap + driven_diameter_m * driven_wrap) / 2


def approximate_belt_length(driver_diameter_m: float, driven_diameter_m: float, centre_distance_m: float) -> float:
    """The textbook series 2C + pi (D + d)/2 + (D - d)^2/(4C), m. A check, never an answer.

    >>> round(approximate_belt_length(0.2, 0.4, 0.6), 4), round(belt_length(0.2, 0.4, 0.6), 4)
    (2.1591, 2.1592)
    """
    difference = driven_diameter_m - driver_diameter_m
    return 2 * centre_distance_m + math.pi * (driver_diameter_m + driven_diameter_m) / 2 + difference**2 / (4 * centre_distance_m)


def centre_distance(driver_diameter_m: float, driven_diameter_m: float, belt_length_m: float) -> float:
    """Centre distance at which an open belt of the given length is taut, m: the inverse of `belt_length`.

    Raises GeometryError when the belt is too short to go round both wheels without their overlapping.

    >>> round(centre_distance(0.1, 0.3, belt_length(0.1, 0.3, 0.7)), 9)
    0.7
    """
    closest = (driven_diameter_m + driver_diameter_m) / 2 * (1 + 1e-12) + 1e-9
    if belt_length_m <= belt_length(driver_diameter_m, driven_diameter_m, closest):
        raise GeometryError("The belt is too short to go round both wheels: they would overlap.")
    return float(
        brentq(
            lambda c: belt_length(driver_diameter_m, driven_diameter_m, c) - belt_length_m,
            closest,
            belt_length_m / 2,
            xtol=1e-12,
        )
    )


@dataclass(frozen=True)
class RoundWheel:
    """A wheel in the drawing plane: centre (m) and the radius of the belt's line on it (m)."""

    x_m: float
    y_m: float
    radius_m: float


@dataclass(frozen=True)
class Span:
    """A straight run of the belt's line, from the tangent point it leaves to the one it meets (m)."""

    x1_m: float
    y1_m: float
    x2_m: float
    y2_m: float


@dataclass(frozen=True)
class OpenPath:
    """The open belt round two wheels, y up: `upper` and `lower` span both run from wheel 1 to wheel 2.

    The normals point outward from each span: moved along them, the same path is drawn at another radius
    (the belt's back, its inside).
    """

    wheels: tuple[RoundWheel, RoundWheel]
    upper: Span
    lower: Span
    upper_normal_rad: float
    lower_normal_rad: float


def open_path(driver_diameter_m: float, driven_diameter_m: float, centre_distance_m: float, centre_line_rad: float = 0.0) -> OpenPath:
    """The path with the driver at the origin and the driven wheel along `centre_line_rad`, m and rad."""
    _checked_centres(driver_diameter_m, driven_diameter_m, centre_distance_m)
    first = RoundWheel(0.0, 0.0, driver_diameter_m / 2)
    second = RoundWheel(centre_distance_m * math.cos(centre_line_rad), centre_distance_m * math.sin(centre_line_rad), driven_diameter_m / 2)
    lean = math.acos((first.radius_m - second.radius_m) / centre_distance_m)

    def span(normal: float) -> Span:
        ux, uy = math.cos(normal), math.sin(normal)
        return Span(
            first.x_m + first.radius_m * ux,
            first.y_m + first.radius_m * uy,
            second.x_m + second.radius_m * ux,
            second.y_m + second.radius_m * uy,
        )

    upper, lower = centre_line_rad + lean, centre_line_rad - lean
    return OpenPath((first, second), span(upper), span(lower), upper, lower)
