"""Classical inch V-belts and their sheaves: sections, designations, lengths, grooves, allowances.

Source of every figure: the tables beside this package (ARPM/RMA-MPTA IP-20, Machinery's Handbook, from memory).
"""

import re
from dataclasses import dataclass
from functools import cache

from tuyere.core.origin import Confidence
from tuyere.core.quantity import from_si, to_si
from tuyere.core.table import rows

SOURCE = "ARPM/RMA-MPTA IP-20; Machinery's Handbook (from memory)"


class BeltError(ValueError):
    """The section or designation cannot be used; the message is a sentence for the person."""


def _inch(text: str) -> float:
    return to_si(float(text), "length", "in")


@dataclass(frozen=True)
class Section:
    """One belt section; lengths in m, mass in kg/m, stiffness K_y in N."""

    name: str
    groove: str
    construction: str
    top_width_m: float
    height_m: float
    mass_kg_per_m: float
    min_datum_diameter_m: float
    max_speed_m_per_s: float
    datum_adder_in: float
    datum_adder_240_in: float | None
    stiffness_n: float
    stiffness_confidence: Confidence
    confidence: Confidence

    @property
    def cogged(self) -> bool:
        return self.construction == "cogged"


@cache
def sections() -> dict[str, Section]:
    """Every classical inch section by name."""
    pound_per_foot = to_si(1.0, "force", "lbf") / 9.80665 / to_si(1.0, "length", "ft")
    return {
        r["section"]: Section(
            name=r["section"],
            groove=r["groove"],
            construction=r["construction"],
            top_width_m=_inch(r["top_width_in"]),
            height_m=_inch(r["height_in"]),
            mass_kg_per_m=float(r["mass_lb_per_ft"]) * pound_per_foot,
            min_datum_diameter_m=_inch(r["min_datum_diameter_in"]),
            max_speed_m_per_s=to_si(float(r["max_speed_ft_min"]), "velocity", "ft/min"),
            datum_adder_in=float(r["datum_adder_in"]),
            datum_adder_240_in=float(r["datum_adder_240_in"]) if r["datum_adder_240_in"] else None,
            stiffness_n=to_si(float(r["stiffness_lbf"]), "force", "lbf"),
            stiffness_confidence=Confidence(r["stiffness_confidence"]),
            confidence=Confidence(r["confidence"]),
        )
        for r in rows("v_belt_sections")
    }


def section(name: str) -> Section:
    """The section called `name`. Raises BeltError with the known ones."""
    found = sections().get(name.strip().upper())
    if not found:
        raise BeltError(f"“{name[:20]}” is not a section known here: choose one of {', '.join(sections())}.")
    return found


def centrifugal_mass(belt: Section) -> float:
    """Mass per metre for the centrifugal term, kg/m: a cogged belt takes the wrapped belt's (safe side)."""
    return sections()[belt.groove].mass_kg_per_m


@dataclass(frozen=True)
class Groove:
    """A standard sheave groove for one range of datum diameters, m; two_hd is outside minus datum diameter."""

    angle_deg: float
    datum_width_m: float
    top_width_m: float
    depth_min_m: float
    two_hd_m: float
    spacing_m: float
    edge_m: float


def groove(belt: Section, datum_diameter_m: float) -> Groove:
    """The standard groove of the belt's section at a datum diameter (m)."""
    datum_in = from_si(datum_diameter_m, "length", "in")
    for r in rows("v_groove_standard"):
        upper = float(r["datum_diameter_to_incl_in"] or "inf")
        if r["groove"] == belt.groove and datum_in <= upper:
            return Groove(
                float(r["angle_deg"]),
                _inch(r["datum_width_in"]),
                _inch(r["top_width_in"]),
                _inch(r["depth_min_in"]),
                _inch(r["two_hd_in"]),
                _inch(r["spacing_in"]),
                _inch(r["edge_in"]),
            )
    raise BeltError(f"There is no groove on the table for section {belt.name}.")


def datum_from_outside(belt: Section, outside_diameter_m: float) -> float:
    """Datum diameter, m, of a standard sheave of the given outside diameter: d_d = d_o - 2 h_d.

    >>> from tuyere.core.quantity import to_si, from_si
    >>> round(from_si(datum_from_outside(section("B"), to_si(5.75, "length", "in")), "length", "in"), 3)
    5.4
    """
    return outside_diameter_m - groove(belt, outside_diameter_m).two_hd_m


def outside_from_datum(belt: Section, datum_diameter_m: float) -> float:
    """Outside diameter, m, of a standard sheave: d_o = d_d + 2 h_d."""
    return datum_diameter_m + groove(belt, datum_diameter_m).two_hd_m


@dataclass(frozen=True)
class Belt:
    """A belt by designation: its section, the number in its name, datum length (m), and whether it is a standard one."""

    section: Section
    number: float
    datum_length_m: float
    listed: bool
    preferred: bool

    @property
    def designation(self) -> str:
        return f"{self.section.name}{self.number:g}"


_DESIGNATION = re.compile(r"\s*([A-Ea-e][Xx]?)\s*-?\s*(\d{2,3}(?:\.\d)?)\s*")


def datum_length(belt: Section, number: float) -> float:
    """Datum length, m, of the belt with `number` in its name: number plus the section's adder.

    From 240 up the adder drops, since long belts are named nearer to their datum length.
    """
    adder = belt.datum_adder_240_in if number >= 240 and belt.datum_adder_240_in is not None else belt.datum_adder_in
    return to_si(number + adder, "length", "in")


@cache
def standard_belts(name: str) -> tuple[Belt, ...]:
    """The standard belts of a section, shortest first."""
    belt = section(name)
    listed = [
        Belt(belt, float(r["number"]), _inch(r["datum_length_in"]), True, r["preferred"] == "yes")
        for r in rows("v_belt_lengths")
        if r["section"] == belt.name
    ]
    return tuple(sorted(listed, key=lambda b: b.datum_length_m))


def parse_designation(text: str, expected: Section | None = None) -> Belt:
    """Read a designation such as ``B81``, ``B-81`` or ``BX81``; a bare number takes the `expected` section.

    Raises BeltError with a sentence.
    """
    cleaned = text.strip()
    if expected and re.fullmatch(r"\d{2,3}(\.\d)?", cleaned):
        cleaned = expected.name + cleaned
    match = _DESIGNATION.fullmatch(cleaned)
    if not match:
        shown = cleaned[:20]
        raise BeltError(f"“{shown}” is not a classical belt name: write the section and the number, such as B81 or BX81.")
    belt = section(match.group(1))
    number = float(match.group(2))
    if number < 10:
        raise BeltError(f"{belt.name}{number:g} is too short to be a belt of this section.")
    if expected and belt.groove != expected.groove:
        raise BeltError(f"{belt.name}{number:g} is a section {belt.name} belt and the drive is set to {expected.name}: change one of them.")
    for standard in standard_belts(belt.name):
        if standard.number == number:
            return standard
    return Belt(belt, number, datum_length(belt, number), False, False)


def nearest_belts(belt: Section, datum_length_m: float) -> tuple[Belt | None, Belt | None]:
    """The standard belts just below (or at) and just above a datum length; None beyond the end of the list."""
    below = [b for b in standard_belts(belt.name) if b.datum_length_m <= datum_length_m]
    above = [b for b in standard_belts(belt.name) if b.datum_length_m > datum_length_m]
    return (below[-1] if below else None), (above[0] if above else None)


@dataclass(frozen=True)
class Allowance:
    """How far the centres must close to fit a belt (installation) and open to keep it tight (take-up), m."""

    installation_m: float
    takeup_m: float
    confidence: Confidence


def allowance(belt: Belt) -> Allowance | None:
    """Centre-distance allowances for a belt; None where the table has no row for its length."""
    for r in rows("v_belt_allowance"):
        upper = float(r["number_to_incl"] or "0")
        if r["groove"] == belt.section.groove and float(r["number_over"]) < belt.number <= upper:
            return Allowance(_inch(r["installation_in"]), _inch(r["takeup_in"]), Confidence(r["confidence"]))
    return None
