"""What is known of a set of V-belts on two sheaves, in SI. None means not known."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.typed import Given
from tuyere.core.kinds.fitted import Adjustable
from tuyere.core.kinds.v_belt.belt import Belt
from tuyere.core.kinds.v_belt.section import Section

Basis = Literal["outside", "datum"]
DrivenBasis = Literal["outside", "datum", "flat"]
GrooveKind = Literal["standard", "deep", "combination"]


@dataclass(frozen=True)
class VSet:
    """Sheaves, belts and centres. `belt_count`: belts, or bands; `band_ribs`: of each, where counted."""

    section: Section | None = None
    driver_diameter: Given | None = None
    driver_basis: Basis = "outside"
    driver_groove: GrooveKind = "standard"
    driven_diameter: Given | None = None
    driven_basis: DrivenBasis = "outside"
    driven_groove: GrooveKind = "standard"
    centre_distance: Given | None = None
    belt: Belt | None = None
    belt_origin: Origin = Origin.NAMEPLATE
    belt_count: int | None = None
    band_ribs: int | None = None
    adjustable: Adjustable | None = None

    @property
    def driven_flat(self) -> bool:
        """V-belts that run on a flat driven wheel (V-flat)."""
        return self.driven_basis == "flat" and self.section is not None

    @property
    def ribs(self) -> int:
        """Ribs of one belt: joined or ribbed ones have several, by the belt's name or as counted."""
        return (self.belt.ribs if self.belt else None) or self.band_ribs or 1

    @property
    def parallel(self) -> int | None:
        """What a rating counts: belts side by side, or bands times the ribs of each."""
        return self.belt_count * self.ribs if self.belt_count else None
