"""Sheave grooves and the diameters they give. Figures: tables/v_grooves.csv."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.v_belt.section import BeltError, Section


@dataclass(frozen=True)
class Groove:
    """A groove for one range of diameters, m. `two_hd_m` is outside diameter minus that of the belt's line."""

    name: str
    kind: str
    over_m: float
    to_incl_m: float
    range_basis: str
    angle_deg: float
    datum_width_m: float | None
    top_width_m: float
    depth_min_m: float
    two_hd_m: float
    spacing_m: float | None
    edge_m: float | None
    confidence: Confidence
    source: str


@cache
def _all() -> tuple[Groove, ...]:
    def read(r: dict[str, str]) -> Groove:
        def length(column: str) -> float:
            return to_si(float(r[column]), "length", r["unit"])

        return Groove(
            r["groove"],
            r["groove_type"],
            length("diameter_over"),
            length("diameter_to_incl") if r["diameter_to_incl"] else float("inf"),
            r["diameter_basis"],
            float(r["angle_deg"]),
            length("reference_width") if r["reference_width"] else None,
            length("top_width"),
            length("depth_min"),
            length("outside_minus_line"),
            length("spacing") if r["spacing"] else None,
            length("edge") if r["edge"] else None,
            Confidence(r["confidence"]),
            r["source"],
        )

    return tuple(read(r) for r in rows("v_grooves"))


def grooves_of(name: str, kind: str | None = None) -> tuple[Groove, ...]:
    """The rows of a groove by its name, of one kind (standard, deep, combination...) or of all."""
    return tuple(g for g in _all() if g.name == name and kind in (None, g.kind))


def groove(belt: Section, line_diameter_m: float, kind: str = "standard") -> Groove:
    """The groove of the belt's section at a datum (pitch) diameter, m. Raises BeltError where none is tabled."""
    for g in grooves_of(belt.groove, kind):
        size = line_diameter_m + (g.two_hd_m if g.range_basis == "outside" else 0.0)
        if size <= g.to_incl_m + 1e-9:
            return g
    raise BeltError(f"There is no {kind} groove on the table for section {belt.name}.")


def groove_at_outside(belt: Section, outside_diameter_m: float, kind: str = "standard") -> Groove:
    """The groove at a given outside diameter, m."""
    for g in grooves_of(belt.groove, kind):
        size = outside_diameter_m - (g.two_hd_m if g.range_basis == "datum" else 0.0)
        if size <= g.to_incl_m + 1e-9:
            return g
    raise BeltError(f"There is no {kind} groove on the table for section {belt.name}.")


def datum_from_outside(belt: Section, outside_diameter_m: float, kind: str = "standard") -> float:
    """Diameter of the belt's line, m, on a sheave of the given outside diameter and kind of groove: d_d = d_o - 2 h_d.

    >>> from tuyere.core.kinds.v_belt.section import section
    >>> from tuyere.core.basis.quantity import to_si, from_si
    >>> round(from_si(datum_from_outside(section("B"), to_si(5.75, "length", "in")), "length", "in"), 3)
    5.4
    """
    return outside_diameter_m - groove_at_outside(belt, outside_diameter_m, kind).two_hd_m


def outside_from_datum(belt: Section, datum_diameter_m: float, kind: str = "standard") -> float:
    """Outside diameter, m, of a sheave of that kind of groove: d_o = d_d + 2 h_d."""
    return datum_diameter_m + groove(belt, datum_diameter_m, kind).two_hd_m


# Whose pitch line lies at the rim of a standard groove (IP-20, IP-21, S211: 2 a_p = 0); the lines of all others are their pitch lines.
_PITCH_AT_RIM = ("classical inch", "agricultural inch", "hexagonal inch")


def pitch_over_datum(belt: Section) -> float:
    """How much the pitch diameter, by which speeds go, is larger than the datum diameter, by which lengths go, m.

    IP-20's pitch diameter is d_o - 2 a_p, with 2 a_p = 0 in a standard groove: the datum diameter and that groove's 2 h_d. The belt is
    the same in any groove, so its two lines lie as far apart there; that gives the standard's other 2 a_p (combination A 0.37, B -0.07 in,
    deep B 0.36 in) within 0.015 in. Narrow, light-duty and metric belts have one line for both. Source: IP-20 (from memory, high).

    >>> from tuyere.core.kinds.v_belt.section import section
    >>> round(pitch_over_datum(section("A")) / 0.0254, 2), pitch_over_datum(section("SPA"))
    (0.25, 0.0)
    """
    if belt.series not in _PITCH_AT_RIM:
        return 0.0
    return grooves_of(belt.groove, "standard")[0].two_hd_m


def groove_kinds(belt: Section) -> tuple[str, ...]:
    """The kinds of groove that are tabled for the belt's groove by rule of the trade: standard, and deep or combination where made."""
    return tuple(k for k in ("standard", "deep", "combination") if grooves_of(belt.groove, k))


def line_on_flat(belt: Section, rim_m: float) -> float:
    """Diameter of the belt's line, m, on a flat wheel (V-flat).

    Its narrow face lies on the rim, the line as deep under its back as in a groove.
    """
    return rim_m + 2 * belt.height_m - groove(belt, rim_m).two_hd_m


def min_datum_diameter(belt: Section) -> float:
    """Smallest recommended diameter of the belt's line, m."""
    if belt.min_diameter_basis == "datum":
        return belt.min_diameter_m
    return datum_from_outside(belt, belt.min_diameter_m)
