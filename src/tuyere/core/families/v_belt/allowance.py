"""How far the centres must move to fit a belt and to keep it tight. Figures: tables/v_belt_allowance.csv."""

from dataclasses import dataclass

from tuyere.core.families.v_belt.belt import Belt
from tuyere.core.origin import Confidence
from tuyere.core.quantity import to_si
from tuyere.core.table import rows


@dataclass(frozen=True)
class Allowance:
    """How far the centres must close to fit a belt (installation) and open to keep it tight (take-up), m."""

    installation_m: float
    takeup_m: float
    confidence: Confidence


def allowance(belt: Belt) -> Allowance | None:
    """Centre-distance allowances for a belt; None where the table has no row for its length."""
    for r in rows("v_belt_allowance"):
        if r["groove"] == belt.section.groove and float(r["number_over"]) < belt.number <= float(r["number_to_incl"] or "inf"):
            return Allowance(_larger(r, "installation", belt), _larger(r, "takeup", belt), Confidence(r["confidence"]))
    return None


def _larger(r: dict[str, str], column: str, belt: Belt) -> float:
    fixed = to_si(float(r[column]), "length", r["unit"]) if r[column] else 0.0
    share = float(r[column + "_share"]) * belt.number * belt.section.step_m if r[column + "_share"] else 0.0
    return max(fixed, share)
