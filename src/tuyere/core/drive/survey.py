"""What a drive is, as people typed it: what drives, what is driven, and the stages between them. `answer` reads it and works it out."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from tuyere.core.basis.typed import Typed
from tuyere.core.drive.layout.typed import TypedBelt, TypedCarriage, TypedKeeper, TypedPath, TypedTape, TypedWheel
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.held import HeldBy
from tuyere.core.kinds.rating.service import idler_on
from tuyere.core.kinds.survey import Part

NOTHING = Typed()
NO_PART = Part()
NO_CARRIAGE = TypedCarriage()


@dataclass(frozen=True)
class Driver:
    """What drives: power and speed by its plate, its class, and which way it turns."""

    power: Typed = NOTHING
    speed: Typed = NOTHING
    torque: str = "normal"
    rotation: str = "clockwise"


@dataclass(frozen=True)
class DrivenMachine:
    """What is driven.

    Its class and hours, what kind of machine it is, what was read of it and of its motor, and a fan's curve, point by point.
    """

    driven_class: str = ""
    hours_per_day: Typed = NOTHING
    surroundings: str = "clean"
    starts: str = "seldom"
    kind: str = ""
    part: Part = NO_PART
    curve: Sequence[tuple[Typed, Typed]] = ()


@dataclass(frozen=True)
class Stage:
    """One belt set, chain or flat belt: its kind of drive and that kind's part of the survey, how it lies, what holds its tension.

    `tension`: of each belt at rest, where stated. `kept`: what was said once of it and stands with it: margins, the manual's figure,
    shafts, feet.
    """

    family: Family
    part: Part = NO_PART
    lay: str = "open"
    held_by: HeldBy = ""
    tension: Typed = NOTHING
    kept: Part = NO_PART
    travel_in: Typed = NOTHING
    travel_out: Typed = NOTHING
    centre_line_deg: str = "0"
    idler: str = "none"

    @property
    def idler_on(self) -> str:
        """Its idler, as the service factor counts it."""
        return idler_on(self.idler, self.held_by)


@dataclass(frozen=True)
class Layout:
    """Wheels in the plane, in the order in which the belts meet them; none for a plain drive on two.

    `placed_by`: tape, coordinates or drag.
    """

    wheels: Sequence[TypedWheel] = ()
    tapes: Sequence[TypedTape] = ()
    placed_by: str = "tape"
    mirrored: bool = False
    keepers: Sequence[TypedKeeper] = ()
    carriage: TypedCarriage = NO_CARRIAGE


@dataclass(frozen=True)
class Tachometer:
    """Shaft speeds as they were read; along a train, of which `shaft` the second one is, by name (empty: the last)."""

    driver: Typed = NOTHING
    driven: Typed = NOTHING
    shaft: str = ""


NOTHING_READ = Tachometer()


@dataclass(frozen=True)
class Survey:
    """A drive as typed. `stages`: the first from the driver, one at least. `design`: what it is meant to have, by field."""

    stages: Sequence[Stage]
    driver: Driver = Driver()
    machine: DrivenMachine = DrivenMachine()
    layout: Layout = Layout()
    design: Mapping[str, Typed] = field(default_factory=dict)

    @property
    def first(self) -> Stage:
        """The stage on the driver's shaft."""
        return self.stages[0]

    @property
    def path(self) -> TypedPath:
        """Its layout, with the belts that run on it."""
        on = self.layout
        belts = [TypedBelt(s.family, s.part, s.lay, s.tension) for s in self.stages]
        turns, lies = self.driver.rotation, self.first.centre_line_deg
        return TypedPath(
            on.wheels,
            belts,
            on.tapes,
            on.placed_by,
            on.mirrored,
            turns,
            lies,
            self.driver.speed,
            self.driver.power,
            on.keepers,
            on.carriage,
        )
