"""V-belts round the wheels of a layout."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from typing import TYPE_CHECKING

from tuyere.core.basis.limit import limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.quantity import to_si, whole_number
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds.about import About
from tuyere.core.kinds.loop import Loop, LoopRead, MadeLoop, Rim, Seating, Strand, Turning, on_roller
from tuyere.core.kinds.stock_wheel import StockWheel
from tuyere.core.kinds.v_belt.about import ABOUT
from tuyere.core.kinds.v_belt.belt import Belt, nearest_belts, parse_designation
from tuyere.core.kinds.v_belt.groove import datum_from_outside, groove_at_outside, grooves_of, min_datum_diameter, pitch_over_datum
from tuyere.core.kinds.v_belt.rating import length_factor, rated, rated_power
from tuyere.core.kinds.v_belt.section import BeltError, Section, centrifugal_mass, section
from tuyere.core.kinds.v_belt.tension import FRICTION, STRETCH_AT_A_64TH, arc_factor, bending_stiffness, half_turn_ratio, tension_ratio
from tuyere.core.mechanics.on_wheels.wheels import Seat

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings


RIBBED_OVERHUNG = 1.67


@dataclass(frozen=True)
class VLoop(Loop):
    """A set of V-belts of one section; `belt`: the one that is on, where its name is known; `band`: ribs of each as counted.

    `on_flat`: its large wheel is flat.
    """

    section: Section
    belt: Belt | None = None
    count: int = 1
    band: int | None = None
    on_flat: bool = False
    counted: bool = field(default=True, init=False)
    seat: Seat = field(default="groove", init=False)

    @property
    def family(self) -> About:
        return ABOUT

    @property
    def of(self) -> str:
        return self.section.name

    @property
    def traits(self) -> str:
        if self.section.construction == "ribbed":
            return "ribbed"
        if self.on_flat:
            return "V-flat"
        if self.ribs > 1:
            return "V-belt, joined"
        return "V-belt, cogged" if self.section.cogged else "V-belt, wrapped"

    @property
    def narrow(self) -> bool:
        return self.ribs > 1 or self.traits == "ribbed" or self.of.endswith(("V", "VX"))

    @property
    def ribs(self) -> int:
        return (self.belt.ribs if self.belt else None) or self.band or 1

    @property
    def made(self) -> MadeLoop | None:
        return MadeLoop(self.belt.designation, self.belt.datum_length_m) if self.belt else None

    def nearest(self, length_m: float) -> Sequence[MadeLoop]:
        return [MadeLoop(n.designation, n.datum_length_m) for n in nearest_belts(self.section, length_m) if n]

    @property
    def mass_kg_per_m(self) -> float:
        return centrifugal_mass(self.section) * (self.count * self.ribs)

    @property
    def width_m(self) -> float:
        return self.section.top_width_m * self.count * self.ribs

    @property
    def both_faces(self) -> bool:  # type: ignore[override]
        return self.section.construction == "hexagonal"

    @property
    def faces(self) -> tuple[float, float]:
        rows = grooves_of(self.section.groove, "standard")
        if self.both_faces and rows:  # widest at the rim, half its height above and half below
            return self.section.height_m / 2 - rows[0].two_hd_m / 2, self.section.height_m / 2 + rows[0].two_hd_m / 2
        back = max(0.0, rows[0].two_hd_m / 2) if rows else self.section.height_m / 3
        return self.section.height_m - back, back

    @property
    def least_m(self) -> float:
        return min_datum_diameter(self.section)

    @property
    def smallest(self) -> tuple[float, str]:
        return self.least_m + self.over_m, f"section {self.of}"

    @property
    def over_m(self) -> float:
        return pitch_over_datum(self.section)

    @property
    def fastest(self) -> tuple[float | None, str]:
        return self.section.max_speed_m_per_s, f"by the table of sections: {self.section.source}"

    @property
    def overhung(self) -> tuple[str, float]:
        return ("ribbed", RIBBED_OVERHUNG) if self.section.construction == "ribbed" else super().overhung

    @property
    def narrow_series(self) -> bool:
        return "narrow" in self.section.series

    def rolls_by_motor(self, classical_m: float, narrow_m: float) -> float:
        return datum_from_outside(self.section, narrow_m) if self.narrow_series else classical_m + self.over_m

    def stock(self) -> Sequence[StockWheel]:
        return _stock(self.section.groove, self.count, self.over_m)

    def rateable(self, own: "OwnRatings") -> bool:
        return bool(own.of(self.of) or rated(self.section))

    def speaks_against(self, driver: StockWheel, driven: StockWheel, fastest: float) -> list[str]:
        return [f"under the smallest for {self.of}"] if min(driver.line_m, driven.line_m) < self.least_m - 1e-6 else []

    @property
    def half_turn_ratio(self) -> float:
        return half_turn_ratio(self.section)

    @property
    def set_as(self) -> str:
        return f"V-belts, {'inch' if self.section.unit == 'in' else 'metric'}"

    @property
    def strand(self) -> Strand:
        of = self.section
        rigidity = STRETCH_AT_A_64TH * of.stiffness_n if of.stiffness_n else None
        return Strand("rib" if self.ribs > 1 else "belt", centrifugal_mass(of), of.height_m, FRICTION, rigidity, bending_stiffness(of))

    def grips(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return tension_ratio(self.section, wrap_rad, self.on_flat)

    def groove_rad(self, rim_m: float) -> float | None:
        rows = grooves_of(self.section.groove, "standard")
        return math.radians(groove_at_outside(self.section, rim_m).angle_deg if rows else self.section.angle_deg)

    def groove_edge(self, rim_m: float) -> tuple[float, float] | None:
        if not grooves_of(self.section.groove, "standard"):
            return None
        at = groove_at_outside(self.section, rim_m)
        return (at.edge_m, at.spacing_m) if at.edge_m and at.spacing_m else None

    def sits(self, rim: Rim) -> Seating | None:
        """In a groove by the groove table: the line lies half of (outside less datum diameter) under the back of a belt that sits flush."""
        if rim.diameter_m is None:
            return None
        radius, over = rim.diameter_m / 2, pitch_over_datum(self.section) / 2
        if rim.face == "flat" or (rim.contact == "back" and not self.both_faces):
            line = on_roller(radius, rim.contact, self.faces).line_m
        elif rim.contact == "back":
            # A double-V fills the groove with its upper V as with its lower one; the datum line lies as far outside that rim as inside a rim below.
            line = radius + groove_at_outside(self.section, rim.diameter_m).two_hd_m / 2
        else:
            line = datum_from_outside(self.section, rim.diameter_m) / 2
        return Seating(line, radius, line + (over if rim.contact == "inside" else -over))

    def rated(self, on: Turning, own: "OwnRatings") -> float:
        table = own.of(self.section.name)
        found = rated_power(self.section, on.line_m, on.speed, on.ratio, table)
        belt = self.belt or self._near(on.length_m)
        length = length_factor(belt, table) if belt else 1.0
        return (found.basic_w + found.added_for_ratio_w) * float(arc_factor(self.section, on.wrap_rad)) * length

    def _near(self, length_m: float | None) -> Belt | None:
        found = [n for n in nearest_belts(self.section, length_m) if n] if length_m else []
        return min(found, key=lambda n: abs(n.datum_length_m - (length_m or 0.0)), default=None)


@cache
def _stock(groove: str, count: int, over_m: float) -> tuple[StockWheel, ...]:
    found = []
    for r in rows("v_sheaves"):
        if r["groove"] == groove and r["kind"] == "stock" and (not r["grooves"] or str(count) in r["grooves"].split()):
            datum, rim = (to_si(float(r[key]), "length", r["unit"]) for key in ("diameter", "outside_diameter"))
            found.append(StockWheel(datum, rim, over_m=over_m))
    return tuple(found)


def read_loop(words: Mapping[str, str]) -> LoopRead:
    """By section, the name on the belt, and how many run side by side."""
    problems: list[Problem] = []
    text, name, many = (words.get(key, "").strip() for key in ("section", "belt", "belt_count"))
    found, belt, most = None, None, int(limit("belts side by side").value)
    try:
        found = section(text) if text else None
    except BeltError as refusal:
        problems.append(Problem("section", str(refusal)))
    try:
        belt = parse_designation(name, found) if found and name and name != "-" else None
    except BeltError as refusal:
        problems.append(Problem("belt", str(refusal)))
    count = whole_number(many, 1, most) if many else 1
    if count is None:
        problems.append(Problem("count", f"Write how many belts run side by side: 1 to {most}."))
    band = whole_number(words.get("ribs", "").strip(), 1, 40) if words.get("ribs", "").strip() else None
    return LoopRead(VLoop(found, belt, count or 1, band) if found else None, tuple(problems))
