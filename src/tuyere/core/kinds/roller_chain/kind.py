"""A chain on two sprockets."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import cache

from tuyere.core.basis.verdict import Verdict
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.by_size import ExpectedSize, Sized
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.line import LineDrive, LineWheel, on_two
from tuyere.core.kinds.loop import Loop, LoopRead, Rim
from tuyere.core.kinds.meshing import Meshing
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.roller_chain import identify, told
from tuyere.core.kinds.roller_chain.about import Chains
from tuyere.core.kinds.roller_chain.choose import kinds
from tuyere.core.kinds.roller_chain.counter import slip_of
from tuyere.core.kinds.roller_chain.drive import ChainLine
from tuyere.core.kinds.roller_chain.loop import ChainLoop, read_loop
from tuyere.core.kinds.roller_chain.pair import lay_out
from tuyere.core.kinds.survey import Part, Surveyed
from tuyere.core.kinds.teeth import DriveReading, ToothedDrive
from tuyere.core.kinds.template import Template
from tuyere.core.kinds.told import Asked, Told
from tuyere.core.kinds.toothed import Named, ToothedReading


class RollerChain(Chains, Meshing):
    """A chain on sprockets: no slip; its rating is of itself by 15 000 hours."""

    sizes = ("roller_diameter", "inner_width", "plate_height", "plate_thickness", "pin_diameter", "wheel_caliper")
    answers: Mapping[str, tuple[str, ...]] = {"body": ("roller", "bushing", "forged"), "plates": ("figure-8", "straight")}
    wheel_size = "wheel_caliper"

    def kinds(self, own: OwnRatings) -> Sequence[Choosable]:
        return kinds(own)

    def names(self) -> tuple[str, ...]:
        return tuple(roller_chain.chains())

    def candidates(self) -> tuple[Sized, ...]:
        return _candidates()

    def wheel_measures(self, name: str, teeth: int) -> ExpectedSize:
        return identify.wheel_measures(name, teeth)

    def named(self, text: str) -> Named:
        return identify.named(text)

    def alike(self, name: str) -> list[Verdict]:
        return identify.alike(name)

    def described(self, name: str) -> tuple[str, Template]:
        of = roller_chain.chain(name)
        return of.series, identify.template(of)

    def lay_out(self, name: str, z1: int, z2: int, centre_m: float | None, count: int | None, open_ended: bool) -> ToothedDrive:
        return lay_out(roller_chain.chain(name), z1, z2, centre_m, count)

    def line(self, drive: ToothedDrive, wheels: tuple[LineWheel, LineWheel], seen: ToothedReading, driven: DriveReading) -> LineDrive:
        fit = drive.fittings[0] if drive.fittings else None
        loop = ChainLoop(roller_chain.chain(drive.of), driven.strands or seen.strands or 1, fit.count if fit else None)
        return ChainLine(*wheels, fit.centre_m if fit else None, loop)

    def loop(self, part: Part) -> LoopRead:
        return read_loop(part)

    def group_of(self, part: Part) -> str:
        return "conveyor" if told.dogs_of(part) else self.group

    def on_two(self, loop: Loop, driver: Rim, driven: Rim, centre_m: float) -> LineDrive | None:
        if isinstance(loop, ChainLoop) and loop.pitches is None and driver.teeth and driven.teeth:
            pitches = roller_chain.length_in_pitches(driver.teeth, driven.teeth, centre_m / loop.chain.pitch_m)
            loop = replace(loop, pitches=2 * round(pitches / 2))
        return on_two(ChainLine, loop, driver, driven, centre_m)

    def facts(self, part: Part) -> tuple[str, ...]:
        return ("dogs",) if told.dogs_of(part) else ()

    def beside(self, part: Part) -> Surveyed:
        dogs = told.dogs_of(part)
        return Surveyed(problems=dogs.problems, verdicts=dogs.verdicts) if dogs else Surveyed()

    def told(self, part: Part, asked: Asked) -> Told:
        return told.told(part, asked)

    def slip_of(self, seen: ToothedReading, driven: DriveReading, machine_part: str) -> CounterSlip | None:
        return slip_of(seen.strands or 1, driven, machine_part)


@cache
def _candidates() -> tuple[Sized, ...]:
    return tuple(identify.candidate(c) for c in roller_chain.chains().values())


ROLLER_CHAIN = RollerChain()
