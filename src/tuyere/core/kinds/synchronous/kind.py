"""A toothed belt on two pulleys."""

from collections.abc import Mapping, Sequence
from functools import cache

from tuyere.core.basis.verdict import Verdict
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.by_size import ExpectedSize, Sized
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.line import LineDrive, LineWheel, on_two
from tuyere.core.kinds.loop import Loop, LoopRead, Rim
from tuyere.core.kinds.meshing import Meshing
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.survey import Part, Surveyed
from tuyere.core.kinds.synchronous import identify, told
from tuyere.core.kinds.synchronous.about import ToothedBelts
from tuyere.core.kinds.synchronous.choose import kinds
from tuyere.core.kinds.synchronous.counter import slip_of
from tuyere.core.kinds.synchronous.drive import ToothedLine
from tuyere.core.kinds.synchronous.loop import ToothedLoop, read_loop
from tuyere.core.kinds.synchronous.pair import lay_out
from tuyere.core.kinds.teeth import DriveReading, ToothedDrive
from tuyere.core.kinds.template import Template
from tuyere.core.kinds.told import Asked, Told
from tuyere.core.kinds.toothed import Named, ToothedReading


class Toothed(ToothedBelts, Meshing):
    """A belt with teeth: no slip, and faster driven shafts wear its teeth."""

    sizes = ("tooth_height", "belt_thickness", "belt_width", "wheel_outside")
    answers: Mapping[str, tuple[str, ...]] = {"shape": ("straight", "round"), "material": ("rubber", "polyurethane")}
    wheel_size = "wheel_outside"

    def kinds(self, own: OwnRatings) -> Sequence[Choosable]:
        return kinds(own)

    def names(self) -> tuple[str, ...]:
        return tuple(synchronous.profiles())

    def candidates(self) -> tuple[Sized, ...]:
        return _candidates()

    def wheel_measures(self, name: str, teeth: int) -> ExpectedSize:
        return identify.wheel_measures(name, teeth)

    def named(self, text: str) -> Named:
        return identify.named(text)

    def alike(self, name: str) -> list[Verdict]:
        return identify.alike(name)

    def described(self, name: str) -> tuple[str, Template]:
        of = synchronous.profile(name)
        return f"{of.form} teeth, {of.material}", identify.template(of)

    def lay_out(self, name: str, z1: int, z2: int, centre_m: float | None, count: int | None, open_ended: bool) -> ToothedDrive:
        return lay_out(synchronous.profile(name), z1, z2, centre_m, count, open_ended)

    def line(self, drive: ToothedDrive, wheels: tuple[LineWheel, LineWheel], seen: ToothedReading, driven: DriveReading) -> LineDrive:
        width = seen.width_m or (seen.named.width_m if seen.named else None)
        loop = ToothedLoop(synchronous.profile(drive.of), width)
        return ToothedLine(*wheels, drive.fittings[0].centre_m if drive.fittings else None, loop)

    def loop(self, part: Part) -> LoopRead:
        return read_loop(part)

    def on_two(self, loop: Loop, driver: Rim, driven: Rim, centre_m: float) -> LineDrive | None:
        return on_two(ToothedLine, loop, driver, driven, centre_m)

    def facts(self, part: Part) -> tuple[str, ...]:
        return ("carriage",) if told.linear_of(part) else ()

    def beside(self, part: Part) -> Surveyed:
        linear = told.linear_of(part)
        return Surveyed(problems=linear.problems, verdicts=linear.verdicts) if linear else Surveyed()

    def told(self, part: Part, asked: Asked) -> Told:
        return told.told(part)

    def slip_of(self, seen: ToothedReading, driven: DriveReading, machine_part: str) -> CounterSlip | None:
        named = seen.named.of if seen.named else None
        return slip_of(named if isinstance(named, synchronous.ToothedBelt) else None, driven, seen.width_m, machine_part)


@cache
def _candidates() -> tuple[Sized, ...]:
    return tuple(identify.candidate(p) for p in synchronous.profiles().values())


TOOTHED = Toothed()
