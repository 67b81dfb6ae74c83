"""How far the centres must move to fit a belt and to keep it tight. Figures: tables/v_belt_allowance.csv."""

from dataclasses import dataclass

from tuyere.core.basis.origin import Confidence, least_sure
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.v_belt.belt import Belt
from tuyere.core.kinds.v_belt.groove import grooves_of


@dataclass(frozen=True)
class Allowance:
    """How far the centres must close to fit a belt (installation) and open to keep it tight (take-up), m."""

    installation_m: float
    takeup_m: float
    confidence: Confidence


def allowance(belt: Belt) -> Allowance | None:
    """Centre-distance allowances for a belt, single or joined; None where the table has no row for its length."""
    for r in rows("v_belt_allowance"):
        if r["groove"] == belt.section.groove and float(r["number_over"]) < belt.number <= float(r["number_to_incl"] or "inf"):
            over_rim = _over_the_rim(belt)
            sure = (
                least_sure(Confidence(r["confidence"]), Confidence.MEDIUM if "narrow" in belt.section.series else Confidence.LOW)
                if over_rim
                else Confidence(r["confidence"])
            )
            return Allowance(_larger(r, "installation", belt) + over_rim, _larger(r, "takeup", belt), sure)
    return None


def _over_the_rim(belt: Belt) -> float:
    """What a joined belt wants more to be fitted, m: it cannot be walked over the rim groove by groove, but is lifted over it whole.

    IP-22 prints about 2.1 in for 5V and 3.4 in for 8V where single belts want 1.0 and 1.5 (from memory, medium): 1.9 groove depths more,
    taken for every section.
    """
    if (belt.ribs or 1) < 2:
        return 0.0
    return JOINED_DEPTHS * grooves_of(belt.section.groove)[0].depth_min_m


JOINED_DEPTHS = 1.9


def _larger(r: dict[str, str], column: str, belt: Belt) -> float:
    fixed = to_si(float(r[column]), "length", r["unit"]) if r[column] else 0.0
    share = float(r[column + "_share"]) * belt.number * belt.section.step_m if r[column + "_share"] else 0.0
    return max(fixed, share)
