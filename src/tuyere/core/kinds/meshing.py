"""What the kinds of drive with teeth share: how they are recognised, surveyed and recorded."""

from abc import ABC, abstractmethod
from dataclasses import replace

from tuyere.core.basis.origin import Origin
from tuyere.core.kinds.about import AboutTeeth
from tuyere.core.kinds.choose import ChoiceWheel, StockLength
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.survey import Part, Record, RecordedWheel, Surveyed
from tuyere.core.kinds.teeth import DriveReading, ToothedDrive, read_toothed_drive
from tuyere.core.kinds.told import Called
from tuyere.core.kinds.toothed import Recognised, ToothedReading, read_toothed
from tuyere.core.kinds.written import Written

BY_RULE = ("pitch_span", "belt_width")  # measured with a rule, whatever tool was named
TOOLS = ("caliper", "rule", "tape")


class Meshing(AboutTeeth, Family, Recognised, ABC):
    """A drive by teeth."""

    @abstractmethod
    def lay_out(self, name: str, z1: int, z2: int, centre_m: float | None, count: int | None, open_ended: bool) -> ToothedDrive:
        """Two wheels and the lengths that fit. Raises NotKnownError, GeometryError."""

    @abstractmethod
    def line(self, drive: ToothedDrive, wheels: tuple[LineWheel, LineWheel], seen: ToothedReading, driven: DriveReading) -> LineDrive:
        """The drive as the sheet takes it."""

    @abstractmethod
    def slip_of(self, seen: ToothedReading, driven: DriveReading, machine_part: str) -> CounterSlip | None:
        """What to ask for at the counter."""

    @property
    def fields(self) -> tuple[str, ...]:
        """Every quantity that a survey asks of it."""
        return (*BY_RULE, *self.sizes)

    def read(self, part: Part) -> tuple[ToothedReading, DriveReading]:
        """What was typed of it, and of the drive that it runs on."""
        drive, words = part.more.get("drive", Part()), dict(part.words)
        linear = part.more.get("linear", Part())
        tool = words.get("tool") if words.get("tool") in TOOLS else None
        quantities = {
            key: replace(typed, tool="rule" if key in BY_RULE else tool) for key, typed in part.quantities.items() if key in self.fields
        }
        asked = {**drive.words, "open_ended": "yes" if linear.words.get("fitted") == "yes" else ""}
        return read_toothed(self, quantities, words), read_toothed_drive(self.lay_out, drive.quantities, asked)

    def survey(self, part: Part) -> Surveyed:
        seen, driven = self.read(part)
        drive, problems = driven.drive, (*seen.problems, *driven.problems)
        if drive is None:
            return Surveyed(problems=problems)
        first, second = drive.wheels
        wheels = tuple(LineWheel(w.pitch_diameter_m, w.outside_diameter_m, 0.0, Origin.MEASURED, w.teeth) for w in (first, second))
        recorded = (
            RecordedWheel("driver", first.pitch_diameter_m, "datum", first.teeth),
            RecordedWheel("driven", second.pitch_diameter_m, "datum", second.teeth),
        )
        fit = drive.fittings[0] if drive.fittings else None
        record = Record(drive.of, fit.name if fit else None, fit.centre_m if fit else None, recorded)
        return Surveyed(self.line(drive, (wheels[0], wheels[1]), seen, driven), record, problems)

    def called(self, part: Part) -> Called:
        drive = part.more.get("drive", Part()).words
        driver, driven = (f"{teeth} teeth" if (teeth := drive.get(key, "").strip()) else "" for key in ("teeth_1", "teeth_2"))
        return Called(driver, driven, part.words.get("label") or drive.get("name") or "belt or chain")

    def counter_slip(self, part: Part, machine_part: str) -> CounterSlip | None:
        return self.slip_of(*self.read(part), machine_part)


def teeth_written(driver: StockWheel, driven: StockWheel, on: PairBelt) -> Written:
    """A pair by its teeth, and by links where it is bought by them."""
    return {"drive": {"teeth_1": str(driver.teeth), "teeth_2": str(driven.teeth), "count": str(on.links or "")}}


def loop_typed(name: str, pitch_m: float, length: StockLength | None) -> Written:
    """A belt or chain by its count, which gives the centres."""
    return {"drive": {"name": name, "count": str(round(length.line_m / pitch_m) if length else 0)}}


def teeth_typed(driver: ChoiceWheel, driven: ChoiceWheel) -> Written:
    """A chosen pair by its teeth."""
    centre = {"text": "", "unit": "", "origin": None}
    return {"drive": {"teeth_1": str(driver.teeth), "teeth_2": str(driven.teeth), "centre_distance": centre}}
