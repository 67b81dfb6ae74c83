"""A flat belt on two pulleys."""

from collections.abc import Sequence

from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.flat import told
from tuyere.core.kinds.flat.about import FlatBelts
from tuyere.core.kinds.flat.choose import kinds
from tuyere.core.kinds.flat.counter import slip_of
from tuyere.core.kinds.flat.drive import FlatLine, of_survey
from tuyere.core.kinds.flat.loop import read_loop
from tuyere.core.kinds.flat.survey import read_flat
from tuyere.core.kinds.line import LineDrive, on_two
from tuyere.core.kinds.loop import Loop, LoopRead, Rim
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.survey import Part, Record, RecordedWheel, Surveyed
from tuyere.core.kinds.told import Asked, Called, Told


class Flat(FlatBelts, Family):
    """A flat belt on pulleys."""

    def kinds(self, own: OwnRatings) -> Sequence[Choosable]:
        return kinds(own)

    def survey(self, part: Part) -> Surveyed:
        read = read_flat(part.quantities, part.words)
        speed = part.quantities.get("driver_speed")
        if read.drive is None:
            return Surveyed(problems=read.problems, verdicts=read.verdicts, driver_speed=speed)
        first, second = read.drive.wheels
        wheels = (
            RecordedWheel("driver", 2 * first.rim_radius_m, "outside", face="flat"),
            RecordedWheel("driven", 2 * second.rim_radius_m, "outside", face="flat"),
        )
        record = Record("flat", None, second.x_m - first.x_m, wheels, read.drive.lay.value)
        return Surveyed(of_survey(read.drive, part.words.get("belt", ""), read.width_m), record, read.problems, read.verdicts, speed)

    def loop(self, part: Part) -> LoopRead:
        return read_loop(part)

    def on_two(self, loop: Loop, driver: Rim, driven: Rim, centre_m: float) -> LineDrive | None:
        return on_two(FlatLine, loop, driver, driven, centre_m)

    def facts(self, part: Part) -> tuple[str, ...]:
        return ("leather",) if part.words.get("belt", "").startswith("leather") else ()

    def called(self, part: Part) -> Called:
        return Called("", "", "the belt")

    def told(self, part: Part, asked: Asked) -> Told:
        return told.told(part, asked)

    def counter_slip(self, part: Part, machine_part: str) -> CounterSlip | None:
        read = read_flat(part.quantities, part.words)
        return slip_of(read, part.words.get("belt", ""), read.width_m, machine_part)


FLAT = Flat()
