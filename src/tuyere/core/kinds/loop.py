"""What goes round the wheels of a layout, two or many: a belt, a set side by side, or a chain, of any kind."""

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import TYPE_CHECKING, NamedTuple

from tuyere.core.basis.field import Note
from tuyere.core.basis.limit import Limit, limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds.about import About
from tuyere.core.mechanics.on_wheels.wheels import Contact, Face, Seat

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings
    from tuyere.core.kinds.stock_wheel import StockWheel


class Rim(NamedTuple):
    """A wheel as it is measured: over its rim (m), by its teeth, or both; which side of the loop meets it, and on what face.

    `face`: grooved is the face made for this loop (grooves, teeth, a pulley's rim); flat a plain roller or drum.
    """

    diameter_m: float | None
    teeth: int | None
    contact: Contact
    face: Face


class Seating(NamedTuple):
    """How the loop lies on a wheel: radius of its line, of the rim, and the one that speeds go by (m)."""

    line_m: float
    rim_m: float
    rolls_m: float


class MadeLoop(NamedTuple):
    """A loop that can be had: its name, and its length along the line (m)."""

    name: str
    length_m: float


class Strand(NamedTuple):
    """What is tensioned, one of it: a belt, a rib, the whole width of a toothed or flat belt, a chain with all its strands.

    `thick_m`: how high it stands. `friction`: of its material on iron, where it holds by it (gross slip, not a design's reserve).
    `rigidity_n`: EA; `bending_n_m2`: EI; None where not known, and then not reckoned with.
    """

    one: str
    mass_kg_per_m: float
    thick_m: float
    friction: float = 0.0
    rigidity_n: float | None = None
    bending_n_m2: float | None = None
    strength_n: float | None = None


class Stretch(NamedTuple):
    """How far a belt is stretched when it is set, as shares of its slack length, and where that is from."""

    low: float
    high: float
    source: str


class Stated(NamedTuple):
    """A tension that the machine's manual asks of it (N, give or take a share), the span it is read on (m), and what to mind before it is
    read.
    """

    tension_n: float
    within: float
    span_m: float | None
    steps: tuple[str, ...] = ()


@dataclass(frozen=True)
class Turning:
    """A wheel at work, as a rating looks at it: diameter of its line (m), teeth, speed (rad/s), wrap (rad).

    `ratio`: of the pair, 1 or more; 1 where there are more than two wheels.
    """

    line_m: float
    teeth: int | None
    speed: float
    wrap_rad: float
    ratio: float = 1.0
    length_m: float | None = None


class Loop(ABC):
    """`count`: belts side by side.

    `counted`: whether more of them side by side is how it is made stronger. `seat`: what holds it on a wheel.

    `both_faces`: whether it drives from its back too. `named`: whether it is said which one of its kind it is.
    """

    seat: Seat
    count: int = 1
    counted: bool = False
    both_faces: bool = False

    @property
    def named(self) -> bool:
        return True

    @property
    def missing(self) -> tuple[str, str] | None:
        """What is still wanted before it can be rated, and what to do; None once it can."""
        return None

    def rateable(self, own: "OwnRatings") -> bool:
        """Whether its power can be rated here."""
        return self.named and self.missing is None

    @property
    def pitch_m(self) -> float | None:
        """From tooth to tooth of it; None where it has none."""
        return None

    @property
    def link_m(self) -> float | None:
        """From joint to joint of a chain, new; None where it has none."""
        return None

    @property
    def stretch(self) -> Stretch | None:
        """How far it is stretched when it is set, where that is a rule of its material."""
        return None

    @property
    def stated(self) -> Stated | None:
        """What the machine's manual asks of it, where its survey says."""
        return None

    @property
    def slips(self) -> bool:
        """Whether it holds by friction."""
        return self.seat in ("groove", "rim")

    @property
    def hangs(self) -> bool:
        """Whether its slack side hangs free: its tension follows the load, and its sag is set."""
        return self.seat == "sprocket"

    @property
    def flat_only(self) -> bool:
        """Whether it runs in one plane only, neither crossed nor turned."""
        return not self.slips

    @property
    @abstractmethod
    def family(self) -> About:
        """Which kind it is."""

    @property
    @abstractmethod
    def of(self) -> str:
        """Which one of its kind: section, profile, chain."""

    @property
    def traits(self) -> str:
        """Which row of the kinds' traits holds for it."""
        return self.family.key

    @property
    def ribs(self) -> int:
        """Ribs of each, where belts are joined."""
        return 1

    @property
    def narrow(self) -> bool:
        """Whether it wears its grooves as narrow, joined or ribbed belts do."""
        return False

    @property
    def made(self) -> MadeLoop | None:
        """The one that is on, by its name; None while not known, or where it is cut to length."""
        return None

    @abstractmethod
    def nearest(self, length_m: float) -> Sequence[MadeLoop]:
        """What can be had that is nearest in length, one shorter and one longer; none where it is cut to length."""

    @property
    @abstractmethod
    def mass_kg_per_m(self) -> float:
        """Of the whole set; zero where not known."""

    @property
    @abstractmethod
    def width_m(self) -> float:
        """Over the whole set; zero where not known."""

    @property
    @abstractmethod
    def faces(self) -> tuple[float, float]:
        """How far its inside and its back stand off its line (m)."""

    @property
    @abstractmethod
    def fastest(self) -> tuple[float | None, str]:
        """The usual limit of its speed (m/s), and where that comes from."""

    @property
    def overhung(self) -> tuple[str, float]:
        """How many times the effective pull it pulls its shaft, when its tensions are not known, and what that is said of."""
        return self.family.key, self.family.overhung_factor

    @property
    def least_wrap(self) -> Limit | None:
        """The least wrap of the small wheel; None where teeth in mesh decide."""
        return limit("least wrap of a belt")

    @property
    def too_little_wrap(self) -> tuple[str, str]:
        """Who wraps too little, and what comes of it."""
        return "The belt", "it slips early under"

    @property
    def far_apart(self) -> Limit:
        """How many times their diameters together the wheels may stand apart before a slip of the hand is likelier."""
        return limit("far apart")

    @property
    def broad_m(self) -> float | None:
        """How broad it is, where it goes by its width (m)."""
        return None

    @property
    def over_m(self) -> float:
        """How far a wheel's pitch diameter, which speeds go by, lies beyond its line's (m)."""
        return 0.0

    @property
    def smallest(self) -> tuple[float, str]:
        """The smallest diameter that its speed goes by (m), and by what; nothing where there is none at every speed."""
        return 0.0, ""

    @property
    def narrow_series(self) -> bool | None:
        """Whether it counts as narrow or as classical belts in the tables of motors; None where those say nothing of it."""
        return None

    def rolls_by_motor(self, classical_m: float, narrow_m: float) -> float:
        """The diameter its speed goes by, of the smallest wheel that a motor's table allows for either (m)."""
        return classical_m

    @abstractmethod
    def stock(self) -> Sequence["StockWheel"]:
        """The wheels that the tables' common sizes hold for it."""

    def speaks_against(self, driver: "StockWheel", driven: "StockWheel", fastest: float) -> list[str]:
        """What of a pair, and its faster shaft (rad/s), speaks against it."""
        return []

    @property
    def least_m(self) -> float:
        """The smallest diameter that its line bends round (m); zero where that goes by speed or is not known."""
        return 0.0

    def joint_n(self, joint: str) -> float | None:
        """What a joint stands in the tight strand (N); None where it has none, or its strength is not known."""
        return None

    @property
    def set_as(self) -> str:
        """Whose rule says how tight it is set: a row of tension_bands."""
        return self.seat

    @property
    def half_turn_ratio(self) -> float:
        """Tight over slack strand that its own face holds at half a turn; infinite for teeth, which do not slip."""
        return float("inf")

    @property
    @abstractmethod
    def strand(self) -> Strand:
        """What is tensioned of it, one."""

    @abstractmethod
    def grips(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        """Tight over slack strand that a sound design supposes at that wrap (infinite where the slack side hangs free), and where it is from.

        Scalars or arrays.
        """

    def design_ratio(self, wrap_rad: float) -> float:
        """That ratio alone."""
        return float(self.grips(wrap_rad)[0])

    def groove_rad(self, rim_m: float) -> float | None:
        """The whole angle of its groove in a wheel of that diameter over the rim (m); None where it lies flat."""
        return None

    def groove_edge(self, rim_m: float) -> tuple[float, float] | None:
        """From a wheel's face to the middle of its first groove, and from groove to groove (m); None where it has none by a table."""
        return None

    @abstractmethod
    def sits(self, rim: Rim) -> Seating | None:
        """How it lies on a wheel; None while that is not measured well enough."""

    @abstractmethod
    def rated(self, on: Turning, own: "OwnRatings") -> float:
        """What one belt (or rib), or the whole loop where it is not counted, carries on that wheel (W). Raises OutOfRangeError."""


class LoopRead(NamedTuple):
    """What was understood of a loop, and what is wrong with what was typed; `loop` is None until it is known which it is."""

    loop: Loop | None
    problems: tuple[Problem, ...] = ()
    notes: Mapping[str, Note] = MappingProxyType({})


def on_roller(radius_m: float, contact: Contact, faces: tuple[float, float]) -> Seating:
    """A loop on a plain roller: its inside or its back lies on the rim."""
    line = radius_m + (faces[1] if contact == "back" else faces[0])
    return Seating(line, radius_m, line)
