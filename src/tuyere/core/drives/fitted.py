"""What is fitted on two wheels."""

from dataclasses import dataclass

from tuyere.core.drives.flat import FlatBelt
from tuyere.core.drives.roller_chain import Chain
from tuyere.core.drives.synchronous import Profile
from tuyere.core.origin import Origin


@dataclass(frozen=True)
class LineWheel:
    """A wheel that is no V-sheave: diameter of the belt's or chain's line and over the rim or tips (m), its doubt; teeth where it has them."""

    line_m: float
    rim_m: float
    std_m: float
    origin: Origin
    teeth: int | None = None


@dataclass(frozen=True)
class LineDrive:
    """A toothed, flat or chain drive on two wheels: what the sheet needs of it. `back_m`: the back over the line; `fastest_m_per_s`: its usual limit.

    `of` is what is rated, `size` its width (m) or its strands; None while not known. `lay`: open, crossed or quarter-turn. `pitches`: a chain's.
    """

    family: str
    driver: LineWheel
    driven: LineWheel
    centre_m: float | None
    height_m: float
    back_m: float
    fastest_m_per_s: float | None
    fastest_source: str
    lay: str = "open"
    of: Profile | Chain | FlatBelt | None = None
    size: float | None = None
    pitches: int | None = None

    @property
    def crossed(self) -> bool:
        """Whether it lies otherwise than open, in one plane."""
        return self.lay != "open"
