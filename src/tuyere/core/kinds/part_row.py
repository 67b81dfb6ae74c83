"""One part of a shop's own list, as a kind of drive takes it up."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.quantity import System, show

PartOf = Literal["wheel", "belt", "chain"]
Of = Literal["v", "toothed", "chain", "flat"]


@dataclass(frozen=True)
class PartRow:
    """One part. `fits`: what runs with it (wheels: a groove, a toothed profile, a chain, flat; belts and chain: their own name).

    `size`: of a wheel its diameter (m) or teeth, of a belt the length of its line (m), 0 where cut to length. Grooves, ribs or strands;
    width in m.
    """

    line: int
    part: PartOf
    of: Of
    fits: str
    size: float
    said: str
    grooves: int
    width_m: float
    on_hand: float | None
    price: float | None
    number: str

    @property
    def numbered(self) -> str:
        """The shop's own number, where it has one."""
        return f" ({self.number})" if self.number else ""

    @property
    def pulley_name(self) -> str:
        """A flat pulley as it is called."""
        return f"{show(self.size, 'length', System.SI)} pulley{self.numbered}"

    @property
    def same(self) -> tuple[object, ...]:
        """What makes it the same part as another row."""
        return self.part, self.fits, round(self.size, 4), self.grooves, round(self.width_m, 4)
