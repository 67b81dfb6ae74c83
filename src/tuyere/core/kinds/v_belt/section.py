"""V-belt sections: sizes, how their lengths are named, and what they weigh. Figures: tables/v_sections.csv."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.v_belt.broad import broad_named

SOURCE = "ARPM/RMA-MPTA IP-20, IP-22, IP-23; ISO 4184; Machinery's Handbook (from memory)"

NamedBy = Literal["inside", "datum", "effective"]
# Narrow (wedge) sections are deeper for their width than classical ones; the two never share a drive.
WEDGE = ("narrow inch", "narrow metric", "effective metric")


class BeltError(ValueError):
    """The section or designation cannot be used; the message is a sentence for the person."""


@dataclass(frozen=True)
class Section:
    """One belt section; lengths in m, mass in kg/m, stiffness K_y in N (None: not known).

    `step_m` is what one unit of the number in a belt's name measures, by `named_by`. `long_from` is the number
    from which the second length adders hold.
    """

    name: str
    series: str
    construction: str
    groove: str
    unit: str
    top_width_m: float
    height_m: float
    angle_deg: float
    mass_kg_per_m: float
    min_diameter_m: float
    min_diameter_basis: str
    max_speed_m_per_s: float
    named_by: NamedBy
    step_m: float
    to_datum_m: float
    to_datum_long_m: float
    to_outside_m: float
    to_outside_long_m: float
    to_inside_m: float | None
    stiffness_n: float | None
    common: float
    mass_confidence: Confidence
    stiffness_confidence: Confidence
    confidence: Confidence
    source: str

    @property
    def cogged(self) -> bool:
        return self.construction == "cogged"

    @property
    def wedge(self) -> bool:
        return self.series in WEDGE

    @property
    def label(self) -> str:
        """Name with what it is, for a list."""
        return f"{self.name} · {self.series}{', cogged' if self.cogged else ''}"

    @property
    def stamp(self) -> str:
        """What stands before the number on the belt itself: ISO A belts are stamped A."""
        return self.name.removeprefix("ISO ")


LONG_FROM = 240


@cache
def sections() -> dict[str, Section]:
    """Every section by name."""
    return {r["section"]: _section(r) for r in rows("v_sections")}


def _section(r: dict[str, str]) -> Section:
    inch = r["unit"] == "in"

    def length(column: str, otherwise: str | None = None) -> float:
        return to_si(float(r[column] or r[otherwise or column]), "length", r["unit"])

    mass = float(r["mass"]) * (to_si(1.0, "force", "lbf") / 9.80665 / to_si(1.0, "length", "ft") if inch else 1.0)
    return Section(
        name=r["section"],
        series=r["series"],
        construction=r["construction"],
        groove=r["groove"],
        unit=r["unit"],
        top_width_m=length("top_width"),
        height_m=length("height"),
        angle_deg=float(r["belt_angle_deg"]),
        mass_kg_per_m=mass,
        min_diameter_m=length("min_diameter"),
        min_diameter_basis=r["min_diameter_basis"],
        max_speed_m_per_s=to_si(float(r["max_speed"]), "velocity", "ft/min" if inch else "m/s"),
        named_by=r["named_by"],  # type: ignore[arg-type]
        step_m=length("step"),
        to_datum_m=length("to_datum"),
        to_datum_long_m=length("to_datum_240", "to_datum"),
        to_outside_m=length("to_outside"),
        to_outside_long_m=length("to_outside_240", "to_outside"),
        to_inside_m=length("to_inside") if r["to_inside"] else None,
        stiffness_n=to_si(float(r["stiffness"]), "force", "lbf" if inch else "N") if r["stiffness"] else None,
        common=float(r["common"]),
        mass_confidence=Confidence(r["mass_confidence"]),
        stiffness_confidence=Confidence(r["stiffness_confidence"]),
        confidence=Confidence(r["confidence"]),
        source=r["source"],
    )


def section(name: str) -> Section:
    """The section called `name`. Raises BeltError with the commonest ones."""
    cleaned = " ".join(name.upper().split())
    for found in sections().values():
        if found.name.upper() == cleaned:
            return found
    if broad := broad_named(name):
        raise BeltError(broad.sentence)
    usual = ", ".join(s.name for s in sections().values() if s.common >= 4)
    raise BeltError(f"“{name[:20]}” is not a section known here. The usual ones are {usual}; the Tables list them all.")


def centrifugal_mass(belt: Section) -> float:
    """Mass per metre for the centrifugal term, kg/m: a cogged belt takes the wrapped belt's (safe side)."""
    wrapped = [s.mass_kg_per_m for s in sections().values() if s.groove == belt.groove and s.construction == "wrapped"]
    return max([belt.mass_kg_per_m, *wrapped]) if belt.cogged else belt.mass_kg_per_m
