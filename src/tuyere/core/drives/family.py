"""What every kind of drive answers, whatever it is: what is known of the kind as such. `fitted` holds what is known of one that is on."""

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from tuyere.core.drives.counter import CounterSlip
    from tuyere.core.drives.loop import LoopRead
    from tuyere.core.drives.survey import Part, Surveyed
    from tuyere.core.drives.told import Asked, Called, Told
    from tuyere.core.rating.own_table import OwnRatings
    from tuyere.core.selection.kind import Kind


@dataclass(frozen=True)
class Slip:
    """How much a drive of a kind loses, as shares: the usual range, from where on it is a fault, and in words. Common practice, no source."""

    usual: tuple[float, float]
    fault: float
    said: str


NO_SLIP = Slip((0.0, 0.0), 0.005, "Teeth do not slip")


class Family(ABC):
    """A kind of drive. One folder each; `registry.FAMILIES` is the only list there is.

    `key`: as kept. `label`: as said. `group`: which part of the knowledge of wear and failure holds for it. `runs`: what goes round. `part`: what it runs on, by which a survey's form for it goes. `overhung_factor`: how many times
    the effective pull it pulls its shaft, when its tensions are not known (chain and V high, others medium, flat 2 to 3). `counts_idler`: whether idlers and hours count in its service factor. `forms`: rarer forms of it that are chosen by name. `turns_open`: whether its wheels are made adjustable, and turned out of a blank.
    """

    key: str
    label: str
    group: str
    runs: str = "belt"
    part: str
    toothed: bool = False
    slip: Slip
    overhung_factor: float
    counts_idler: bool = True
    forms: tuple[str, ...] = ()
    turns_open: bool = False

    @property
    def wheel(self) -> str:
        """What it runs on, one of them, in a word."""
        return {"sheaves": "sheave", "teeth": "sprocket" if self.runs == "chain" else "pulley"}.get(self.part, "pulley")

    def speed_up(self, ratio_up: float) -> tuple[float, float, str]:
        """What a driven shaft that turns `ratio_up` times as fast as the driver multiplies the service factor by, what it adds, and in words."""
        return 1.0, 0.0, ""

    def kinds(self, own: "OwnRatings") -> "Sequence[Kind]":
        """What of it there is to choose from at Size: what has a rating, a standard's or the shop's own, and wheels."""
        return ()

    @abstractmethod
    def survey(self, part: "Part") -> "Surveyed":
        """What its part of a survey says."""

    def loop(self, part: "Part") -> "LoopRead | None":
        """What goes round many wheels, by its part of a survey; None where it is surveyed on two only."""
        return None

    def counter_slip(self, part: "Part", machine_part: str) -> "CounterSlip | None":
        """What to ask for at the counter, by its part alone; None until that says enough, or where the slip wants more than it."""
        return None

    # --- for those who work at it, by its part of a survey

    def group_of(self, part: "Part") -> str:
        """Which part of the knowledge of wear and failure holds for the one that is on."""
        return self.group

    def facts(self, part: "Part") -> tuple[str, ...]:
        """What is on, in the words that steps of jobs and items of rounds ask by."""
        return ()

    def beside(self, part: "Part") -> "Surveyed":
        """What its part says of what only some drives have: verdicts and problems."""
        from tuyere.core.drives.survey import Surveyed

        return Surveyed()

    def side_by_side(self, part: "Part") -> int:
        """How many belts or bands are on; 1 where nobody counted."""
        return 1

    @abstractmethod
    def called(self, part: "Part") -> "Called":
        """Its wheels and what runs on them, as one asks for them."""

    def told(self, part: "Part", asked: "Asked") -> "Told":
        """What a job is told of it."""
        from tuyere.core.drives.told import Told

        return Told()
