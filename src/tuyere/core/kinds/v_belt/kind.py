"""V-belts as a kind of drive: a set on two sheaves, and what it answers."""

from collections.abc import Sequence

from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.loop import Loop, LoopRead, Rim
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.survey import Part, Surveyed
from tuyere.core.kinds.told import Asked, Called, Told
from tuyere.core.kinds.v_belt import told
from tuyere.core.kinds.v_belt.about import VBelts
from tuyere.core.kinds.v_belt.choose import kinds
from tuyere.core.kinds.v_belt.drive import VDrive, on_two
from tuyere.core.kinds.v_belt.loop import VLoop, read_loop
from tuyere.core.kinds.v_belt.survey import read_set


class VBelt(VBelts, Family):
    """V-belts and ribbed belts, one or a set."""

    def kinds(self, own: OwnRatings) -> Sequence[Choosable]:
        return kinds(own)

    def survey(self, part: Part) -> Surveyed:
        found = read_set(part)
        on = VDrive(**vars(found.on))
        return Surveyed(on, on.record, found.problems, notes=found.notes)

    def loop(self, part: Part) -> LoopRead:
        return read_loop(part.words)

    def group_of(self, part: Part) -> str:
        loop = self.loop(part).loop
        return "ribbed" if loop and loop.traits == "ribbed" else self.group

    def on_two(self, loop: Loop, driver: Rim, driven: Rim, centre_m: float) -> VDrive | None:
        return on_two(loop, driver, driven, centre_m) if isinstance(loop, VLoop) else None

    def facts(self, part: Part) -> tuple[str, ...]:
        return told.facts(part)

    def beside(self, part: Part) -> Surveyed:
        link = told.link_of(part)
        return Surveyed(verdicts=link.verdicts if told.is_link(part) else ())

    def side_by_side(self, part: Part) -> int:
        return told.side_by_side(part)

    def called(self, part: Part) -> Called:
        return told.called(part)

    def told(self, part: Part, asked: Asked) -> Told:
        return told.told(part)


V_BELT = VBelt()
