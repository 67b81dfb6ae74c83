"""Flat belts: kinds, crown and face of their pulleys. Figures: tables/flat_*.csv."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.table import rows

_MM = 1e-3


@dataclass(frozen=True)
class FlatBelt:
    """One kind of flat belt: thickness and smallest pulley (m, None where not known), friction, density (kg/m3)."""

    name: str
    material: str
    made: str
    thickness_m: float
    smallest_pulley_m: float | None
    friction: float
    density_kg_m3: float
    confidence: Confidence
    source: str

    def least_pulley_m(self, thickness_m: float | None) -> float | None:
        """The smallest pulley for a belt as thick as it measures (m): of leather it goes with the thickness; None where not known.

        Source: the kind's own row, scaled as bending strain is, t/d (beam theory).

        >>> heavy = flat_belts()["leather 1ply heavy"]
        >>> round(heavy.least_pulley_m(None) * 1000, 1), round(heavy.least_pulley_m(2 * heavy.thickness_m) * 1000, 1)
        (88.9, 177.8)
        """
        if self.smallest_pulley_m is None or self.material != "leather" or not thickness_m:
            return self.smallest_pulley_m
        return self.smallest_pulley_m * thickness_m / self.thickness_m


@cache
def flat_belts() -> dict[str, FlatBelt]:
    """Every kind by name, in table order."""
    return {r["belt"]: _belt(r) for r in rows("flat_belts")}


def _belt(r: dict[str, str]) -> FlatBelt:
    smallest = float(r["smallest_pulley_mm"]) * _MM if r["smallest_pulley_mm"] else None
    return FlatBelt(
        r["belt"],
        r["material"],
        r["made"],
        float(r["thickness_mm"]) * _MM,
        smallest,
        float(r["friction"]),
        float(r["density_kg_m3"]),
        Confidence(r["confidence"]),
        r["source"],
    )


_FACES = (125, 160, 200, 250, 315, 355)


def crown_height(diameter_m: float, face_m: float) -> float | None:
    """How much the middle of a crowned pulley stands over its edges, m; None beyond the table. Source: ISO 100, next size down."""
    table = [r for r in rows("flat_crowns") if float(r["diameter"]) * _MM <= diameter_m * (1 + 1e-9)]
    if not table or diameter_m > 2.2:
        return None
    limit = next((f for f in _FACES if face_m <= f * _MM * (1 + 1e-9)), None)
    return float(table[-1][f"face_to_{limit}" if limit else "face_over_355"]) * _MM


def face_width(belt_width_m: float) -> float | None:
    """The pulley face for a belt's width, m: the next row of ISO 22, an inch width counting as its neighbour; None beyond the table."""
    row = next((r for r in rows("flat_faces") if float(r["belt_width"]) * _MM >= belt_width_m * 0.98), None)
    return float(row["face"]) * _MM if row else None
