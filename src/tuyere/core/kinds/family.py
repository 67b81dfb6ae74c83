"""What every kind of drive answers, whatever it is. `fitted` holds what is known of one that is on."""

from abc import ABC, abstractmethod
from collections.abc import Sequence

from tuyere.core.kinds.about import About
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.fitted import Fitted
from tuyere.core.kinds.loop import Loop, LoopRead, Rim
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.survey import Part, Surveyed
from tuyere.core.kinds.told import Asked, Called, Told


class Family(About, ABC):
    """A kind of drive. One folder each; `registry.FAMILIES` is the only list there is."""

    def kinds(self, own: OwnRatings) -> Sequence[Choosable]:
        """What of it there is to choose from at Size: what has a rating, a standard's or the shop's own, and wheels."""
        return ()

    @abstractmethod
    def survey(self, part: Part) -> Surveyed:
        """What its part of a survey says."""

    def loop(self, part: Part) -> LoopRead | None:
        """What goes round many wheels, by its part of a survey; None where it is surveyed on two only."""
        return None

    def on_two(self, loop: Loop, driver: Rim, driven: Rim, centre_m: float) -> Fitted | None:
        """It on two wheels of a layout, as a drive of its own; None where it does not run so."""
        return None

    def counter_slip(self, part: Part, machine_part: str) -> CounterSlip | None:
        """What to ask for at the counter, by its part alone; None until that says enough, or where the slip wants more than it."""
        return None

    # --- for those who work at it, by its part of a survey

    def group_of(self, part: Part) -> str:
        """Which part of the knowledge of wear and failure holds for the one that is on."""
        return self.group

    def facts(self, part: Part) -> tuple[str, ...]:
        """What is on, in the words that steps of jobs and items of rounds ask by."""
        return ()

    def beside(self, part: Part) -> Surveyed:
        """What its part says of what only some drives have: verdicts and problems."""
        return Surveyed()

    def side_by_side(self, part: Part) -> int:
        """How many belts or bands are on; 1 where nobody counted."""
        return 1

    @abstractmethod
    def called(self, part: Part) -> Called:
        """Its wheels and what runs on them, as one asks for them."""

    def told(self, part: Part, asked: Asked) -> Told:
        """What a job is told of it."""
        return Told()
