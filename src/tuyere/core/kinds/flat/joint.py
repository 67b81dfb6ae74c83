"""Joining a flat belt: where it is cut, how long its lap, which fasteners take it, and whether the joint suits the wheel and the speed."""

import math
from dataclasses import dataclass
from typing import Literal, get_args

from tuyere.core.basis.figure import both
from tuyere.core.basis.table import rows

Joint = Literal["metal hooks", "hinged plates", "rawhide", "cemented lap"]
JOINTS: tuple[Joint, ...] = get_args(Joint)
Material = str
IN = 0.0254
LIGHT_M = 0.125 * IN + 1e-5  # leather to 1/8 in: skived by a short lap alone
LIGHT_LAP_M = 0.25 * IN  # common practice, no source
HEAVY_M = 0.005  # leather from 3/16 in on stretches less


@dataclass(frozen=True)
class Cut:
    """Where the belt is cut (m): its length at mid-thickness when joined, less stretch, less what fasteners add, plus the lap."""

    middle_m: float
    stretch_m: float
    fastener_m: float
    lap_m: float
    why_no_stretch: str

    @property
    def length_m(self) -> float:
        return self.middle_m - self.stretch_m - self.fastener_m + self.lap_m


@dataclass(frozen=True)
class FastenerSize:
    """A size of fastener (empty.

    The joint has none), the smallest pulley it runs on (m, None: as the belt), its share of the belt's strength.
    """

    joint: Joint
    size: str
    smallest_pulley_m: float | None
    adds_m: float
    holds: float
    to_m_s: float
    source: str


def size_of(joint: Joint, thickness_m: float) -> FastenerSize | None:
    """The size whose belts are so thick; None outside the table. Where two meet, the smaller.

    >>> size_of("metal hooks", 0.25 * IN).size, size_of("metal hooks", 0.02)
    ('E', None)
    """
    mm = 1000 * thickness_m
    for r in rows("flat_joints"):
        if r["joint"] == joint and float(r["thick_from_mm"]) - 1e-6 <= mm <= float(r["thick_to_mm"]) + 1e-6:
            pulley = float(r["smallest_pulley_in"]) * IN if r["smallest_pulley_in"] else None
            said = f"{r['source']} ({r['confidence']})"
            return FastenerSize(joint, r["size"], pulley, float(r["adds_mm"]) / 1000, float(r["holds"]), float(r["to_m_s"]), said)
    return None


def lap_of(material: Material, thickness_m: float, width_m: float, plies: int = 1) -> float | None:
    """Length of a skived lap (m); None for a material that is not cemented so. Source: shop handbooks (low).

    >>> round(lap_of("leather", 0.0052, 5 * IN) / IN, 2), round(lap_of("leather", 0.0031, 1.5 * IN) / IN, 2)
    (6.0, 0.25)
    """
    if material == "leather":
        if thickness_m <= LIGHT_M and plies == 1:
            return LIGHT_LAP_M
        fits = [r for r in rows("flat_laps") if r["material"] == "leather" and int(r["plies"]) == min(plies, 2)]
        row = next((r for r in fits if width_m <= float(r["to_in"]) * IN * (1 + 1e-9)), None)
        return float(row["lap_in"]) * IN if row else None
    points = [(float(r["to_mm"]) / 1000, float(r["lap_mm"]) / 1000) for r in rows("flat_laps") if r["material"] == material]
    if not points or thickness_m > points[-1][0]:
        return None
    below = points[0]
    for at in points:
        if thickness_m <= at[0]:
            share = (thickness_m - below[0]) / (at[0] - below[0]) if at is not below else 0.0
            return below[1] + share * (at[1] - below[1])
        below = at
    return None


def take_off(material: Material, thickness_m: float) -> float | None:
    """By which share a belt of it is cut short; None for a material that the table lacks."""
    heavy = "yes" if thickness_m > HEAVY_M else "no"
    row = next((r for r in rows("flat_take_off") if r["material"] == material and r["heavy"] in ("", heavy)), None)
    return float(row["share"]) if row else None


def cut(
    inside_m: float,
    thickness_m: float,
    joint: Joint,
    material: Material,
    width_m: float,
    plies: int = 1,
    take_up: bool = False,
    stretched: bool = False,
) -> Cut | None:
    """Where to cut a belt whose tape round both pulleys, in place, is `inside_m`. None outside the tables.

    `take_up`: the drive tightens it itself, which starts from slack. `stretched`: it was pulled round the pulleys and marked there, so that
    its stretch is in the mark already. Either way nothing is taken off a second time.
    Formula: Lc = (Li + pi t)(1 - e) - gap + lap (geometry; open belt).

    >>> round(cut(2.0, 0.005, "metal hooks", "leather", 0.05).length_m, 4)
    1.9902
    """
    size, share = size_of(joint, thickness_m), take_off(material, thickness_m)
    lap = lap_of(material, thickness_m, width_m, plies) if joint == "cemented lap" else 0.0
    if size is None or share is None or lap is None:
        return None
    middle = inside_m + math.pi * thickness_m
    why = "the take-up tightens it" if take_up else "it was stretched in place before it was marked" if stretched else ""
    if joint == "cemented lap" and lap == LIGHT_LAP_M:
        # Stretched, wrapped and cut where its ends meet: the lap alone makes it short.
        return Cut(middle, 0.0, 0.0, 0.0, "its ends are cut where they meet: the lap alone makes it short")
    return Cut(middle, 0.0 if why else share * middle, size.adds_m, lap, why)


def holes(width_m: float) -> tuple[int, int]:
    """Holes in each end for rawhide lacing: in the row nearest the end, and in the second.

    Source: Kent (from memory, high); between them by width.

    >>> holes(3 * IN), holes(6 * IN), holes(10 * IN)
    ((2, 2), (4, 3), (5, 4))
    """
    inches = width_m / IN
    if inches <= 3:
        return 2, 2
    return (4, 3) if inches <= 6 else (5, 4) if inches <= 10 else (math.ceil(inches / 2), math.ceil(inches / 2) - 1)


def suits(joint: Joint, thickness_m: float, smallest_pulley_m: float, velocity_m_s: float) -> str:
    """Why a joint does not suit, in a sentence; empty where it does."""
    size = size_of(joint, thickness_m)
    if size is None:
        return f"No size of {joint} is on the table for a belt {both(thickness_m, decimals=(3, 1))} thick: ask its supplier."
    if size.smallest_pulley_m and smallest_pulley_m < size.smallest_pulley_m * (1 - 1e-6):
        return f"{joint.capitalize()} of size {size.size} want a pulley of {both(size.smallest_pulley_m)} at least; the smallest here is {both(smallest_pulley_m)}."
    if velocity_m_s > size.to_m_s:
        return f"At {both(velocity_m_s, 'velocity')} a belt wants a smoother joint than {joint} (to {both(size.to_m_s, 'velocity')})."
    return ""
