"""What a candidate section should measure, and how far a good reading may lie from it.

The spreads are common practice without source: belts are made to a few tenths of a millimetre, wear narrow by a few
hundredths of their width, and a tape round a slack loop is good to about half a per cent.
"""

import math
from dataclasses import dataclass

from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import TOOLS
from tuyere.core.kinds.v_belt import BeltError, Section, grooves_of
from tuyere.core.kinds.v_belt.groove import Groove, groove_at_outside
from tuyere.core.stations.find.evidence import Evidence

_WEAR_SHARE = 0.012  # a belt in use has lost about this much of its width, give or take as much again
_MADE_WIDTH_M, _MADE_HEIGHT_M = 0.00025, 0.0003  # make, one standard deviation: a judgement
_GROOVE_WORN_M, _GROOVE_SPREAD_M = 0.0001, 0.0003  # a groove in use: a judgement
_ANGLE_SPREAD = math.radians(2.5)
_SPACING_SPREAD_M, _RIB_SPACING_SPREAD_M = 0.0004, 0.00008  # ISO 9982 holds rib pitch to 0.03 to 0.08 mm (from memory)


@dataclass(frozen=True)
class Expected:
    """The value a candidate leads one to expect, and its standard spread apart from the tool's (SI)."""

    value: float
    spread: float

    def off(self, reading: Given) -> float:
        """How many standard deviations the reading lies from it."""
        return (reading.value - self.value) / math.hypot(self.spread, reading.std)


def _groove(belt: Section, evidence: Evidence, kind: str = "standard") -> Groove | None:
    try:
        if evidence.wheel_diameter:
            return groove_at_outside(belt, evidence.wheel_diameter.value, kind)
    except BeltError:
        return None
    rows = grooves_of(belt.groove, kind)
    return rows[0] if rows else None


def expected(belt: Section, key: str, evidence: Evidence) -> Expected | None:
    """What the candidate should measure for `key`; None where the tables do not say."""
    if key == "top_width":
        ribs = evidence.ribs or 1 if belt.construction == "ribbed" else 1
        width = belt.top_width_m * ribs
        worn = 0.0 if belt.construction == "ribbed" else _WEAR_SHARE * width
        return Expected(width - worn, math.hypot(_MADE_WIDTH_M, worn))
    if key == "thickness":
        return Expected(belt.height_m * 0.985, math.hypot(_MADE_HEIGHT_M, 0.025 * belt.height_m))
    if key == "belt_angle":
        return Expected(math.radians(belt.angle_deg), _ANGLE_SPREAD)
    groove = _groove(belt, evidence)
    if groove is None:
        return None
    if key == "groove_width":
        # Combination and deep grooves are wider at the rim; they are asked for by their own rows.
        return Expected(groove.top_width_m + _GROOVE_WORN_M, _GROOVE_SPREAD_M)
    if key == "groove_angle":
        return Expected(math.radians(groove.angle_deg), _ANGLE_SPREAD / 2)
    if key == "groove_depth":
        return Expected(groove.depth_min_m * 1.08, 0.08 * groove.depth_min_m)
    if key == "groove_spacing" and groove.spacing_m:
        return Expected(groove.spacing_m, _RIB_SPACING_SPREAD_M if belt.construction == "ribbed" else _SPACING_SPREAD_M)
    return None


def other_groove_widths(belt: Section, evidence: Evidence) -> list[Expected]:
    """Top widths of the deep and combination grooves that take this belt too."""
    found = [_groove(belt, evidence, kind) for kind in ("deep", "combination")]
    return [Expected(g.top_width_m + _GROOVE_WORN_M, _GROOVE_SPREAD_M) for g in found if g]


USUAL_TOOL = {
    "top_width": "caliper",
    "thickness": "caliper",
    "groove_width": "caliper",
    "groove_spacing": "rule",
    "groove_depth": "rule",
}


def tool_doubt(key: str, size: float) -> float:
    """Standard uncertainty (SI) of measuring `key` with its usual tool."""
    if key in ("belt_angle", "groove_angle"):
        return math.radians(1.5)
    tool = TOOLS[USUAL_TOOL[key]]
    return math.hypot(tool.absolute_si, tool.relative * size)
