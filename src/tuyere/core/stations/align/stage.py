"""Two wheels of a stage as the Align station looks at them.

Which moves, how the line of centres lies from it, where faces and grooves stand.
"""

import math
from dataclasses import dataclass

from tuyere.core.basis.reader import FieldReader
from tuyere.core.drive.stage import StageWheel, TightStage
from tuyere.core.stations.align.readings import WheelPair
from tuyere.core.stations.align.words import Names

BODIES = ("behind", "in front")
MACHINES = {"driver": "driver", "driven": "driven machine"}


@dataclass(frozen=True)
class AlignStage:
    """A stage and the place (from 0) of the wheel that moves and of the one that it is held against.

    `in_front`: the body of the one that moves stands on the drawing's near side.
    """

    stage: TightStage
    moving: int
    still: int
    in_front: bool = False

    @property
    def moves(self) -> StageWheel:
        """The wheel that is moved."""
        return self.stage.wheels[self.moving]

    @property
    def stays(self) -> StageWheel:
        """The wheel that stays."""
        return self.stage.wheels[self.still]

    @property
    def centre_m(self) -> float:
        """Between the two centres, m."""
        return math.hypot(self.stays.x_m - self.moves.x_m, self.stays.y_m - self.moves.y_m)

    @property
    def slope_rad(self) -> float:
        """Of the line from the wheel that moves to the other, from the left (+y, seen from behind the machine) upward.

        A drawing shows a drive from the wheels' free side: its right is +y. From a body on the near side it is the other way round.
        """
        drawn = math.atan2(self.stays.y_m - self.moves.y_m, self.stays.x_m - self.moves.x_m)
        return math.remainder(math.pi - drawn, 2 * math.pi) if self.in_front else drawn

    @property
    def kind(self) -> str:
        """Whose tolerance holds."""
        loop = self.stage.loop
        by_seat = {"groove": "v-belt", "teeth": "synchronous", "sprocket": "roller chain", "rim": "flat belt"}
        return {"V-belt, joined": "joined v-belt", "ribbed": "ribbed"}.get(loop.traits, by_seat[loop.seat])

    @property
    def names(self) -> Names:
        """On two wheels the machines by their part, on more each wheel by its own name."""
        wheel = self.stage.loop.family.wheel
        if len(self.stage.wheels) > 2:
            return Names(self.moves.name, self.stays.name, wheel)
        return Names(MACHINES.get(self.moves.role, self.moves.name), MACHINES.get(self.stays.role, self.stays.name), wheel)

    def key(self, what: str) -> str:
        """How what is kept of this wheel is called."""
        return f"align_{self.moving + 1}_{what}"

    def pair(self, kept: FieldReader) -> WheelPair:
        """The two wheels with what is kept of their faces: the diameter that the edge touches, and where the groove lies."""

        def touched(which: str, wheel: StageWheel) -> float:
            across = kept.value(self.key(f"edge_{which}"), "wheel_diameter")
            return across / 2 if across else wheel.rim_m

        def inward(which: str, wheel: StageWheel) -> float:
            typed = kept.value(self.key(f"face_{which}"), "face_to_groove")
            return typed if typed is not None else self.groove_m(which, wheel, kept) or 0.0

        return WheelPair(
            self.slope_rad,
            self.centre_m,
            touched("still", self.stays),
            touched("moving", self.moves),
            inward("still", self.stays),
            inward("moving", self.moves),
        )

    def groove_m(self, which: str, wheel: StageWheel, kept: FieldReader) -> float | None:
        """From the outer face to the middle of the first groove that runs, by the groove table; None where there are no grooves."""
        at = self.stage.loop.groove_edge(2 * wheel.rim_m)
        if at is None or wheel.face == "flat":
            return None
        free = kept.whole(self.key(f"free_{which}"), 0, 20, "Count the grooves on the outer side that no belt runs in: 0 to 20.")
        return at[0] + (free or 0) * at[1]


def pair_of(stage: TightStage, wheel: int, moves: str, in_front: bool) -> AlignStage:
    """Which wheel is held against which.

    On two, the one that moves against the other; on more, `wheel` (place from 1, 0: the first) against the driving one.
    """
    driving = next((i for i, w in enumerate(stage.wheels) if w.role == "driver"), 0)
    if len(stage.wheels) == 2:
        moving = int(moves) - 1 if moves in ("1", "2") else driving
        return AlignStage(stage, moving, 1 - moving, in_front)
    others = [i for i in range(len(stage.wheels)) if i != driving]
    moving = wheel - 1 if wheel - 1 in others else others[0]
    return AlignStage(stage, moving, driving, in_front)
