"""A drive on many wheels as it crosses the web: wheels, tapes, belts, keepers, a carriage."""

from dataclasses import replace
from typing import Annotated

from pydantic import Field

from tuyere.core.drive.layout.form import MOST_BELTS
from tuyere.core.drive.layout.typed import TypedCarriage, TypedKeeper, TypedPoint, TypedTakeUp, TypedTape, TypedWheel
from tuyere.core.drive.survey import Layout
from tuyere.record.entry import Entry, Strict, none_typed

WheelNumber = Annotated[int, Field(ge=0, le=99)]
BeltNumber = Annotated[int, Field(ge=1, le=MOST_BELTS)]


class PointEntry(Strict):
    """A point: by tape from two wheels (counted from 1), or by coordinates from the first wheel's centre."""

    x: Entry = none_typed
    y: Entry = none_typed
    from_a: WheelNumber = 0
    tape_a: Entry = none_typed
    from_b: WheelNumber = 0
    tape_b: Entry = none_typed

    def typed(self) -> TypedPoint:
        """As the core reads it."""
        return TypedPoint(self.x.typed(), self.y.typed(), self.from_a, self.tape_a.typed(), self.from_b, self.tape_b.typed())


class TakeUpEntry(Strict):
    """How a wheel moves to tighten: not, along a line, or on an arm; `along` in degrees, empty for straight into the belt."""

    how: str = Field("", max_length=20)
    along: str = Field("", max_length=20)
    pivot: PointEntry = Field(default_factory=PointEntry)
    tighten: Entry = none_typed
    slacken: Entry = none_typed

    def typed(self) -> TypedTakeUp:
        """As the core reads it."""
        return TypedTakeUp(self.how, self.along, self.pivot.typed(), self.tighten.typed(), self.slacken.typed())


class WheelEntry(Strict):
    """One wheel of a drive on many: diameter over the rim; place from the first wheel's centre (unused when placed by tape).

    `belt` and `shaft_of` count from 1; `shaft_of` 0 is a shaft of its own. `takes_up` is the earlier, shorter form of `take_up`.
    """

    name: str = Field("", max_length=60)
    role: str = Field("driven", max_length=20)
    contact: str = Field("inside", max_length=20)
    face: str = Field("grooved", max_length=20)
    diameter: Entry = none_typed
    x: Entry = none_typed
    y: Entry = none_typed
    power: Entry = none_typed
    turns: str = Field("", max_length=20)
    belt: BeltNumber = 1
    shaft_of: WheelNumber = 0
    take_up: TakeUpEntry = Field(default_factory=TakeUpEntry)
    takes_up: bool = False
    teeth: str = Field("", max_length=20, description="of a toothed pulley or a sprocket")

    def typed(self) -> TypedWheel:
        """As the core reads it."""
        take_up = self.take_up.typed()
        if self.takes_up and not take_up.how:
            take_up = replace(take_up, how="line")
        return TypedWheel(
            self.name,
            self.role,
            self.contact,
            self.face,
            self.diameter.typed(),
            self.x.typed(),
            self.y.typed(),
            self.power.typed(),
            self.turns,
            self.belt,
            self.shaft_of,
            take_up,
            self.teeth,
        )


class TapeEntry(Strict):
    """One tape measurement between two wheels, counted from 1; one that is not held is left out."""

    a: int = Field(ge=1, le=99)
    b: int = Field(ge=1, le=99)
    distance: Entry = none_typed
    held: bool = True


class KeeperEntry(Strict):
    """A keeper or guide: which belt it keeps, the face the belt shows it, where it stands, its gap, and the manual's figures."""

    name: str = Field("", max_length=60)
    belt: BeltNumber = 1
    side: str = Field("back", max_length=20)
    state: str = Field("in place", max_length=20)
    at: PointEntry = Field(default_factory=PointEntry)
    gap: Entry = none_typed
    least: Entry = none_typed
    most: Entry = none_typed

    def typed(self) -> TypedKeeper:
        """As the core reads it."""
        return TypedKeeper(
            self.name, self.belt, self.side, self.state, self.at.typed(), self.gap.typed(), self.least.typed(), self.most.typed()
        )


class CarriageEntry(Strict):
    """A carriage that the belt's ends are clamped to: on the run that leaves wheel `run` (0: none), near clamp from that wheel's centre."""

    run: WheelNumber = 0
    position: Entry = none_typed
    length: Entry = none_typed


class LayoutForm(Strict):
    """The wheels in the order in which the belts meet them; empty for an ordinary drive on two. Belts are stages, counted from 1."""

    wheels: list[WheelEntry] = Field(default_factory=list, max_length=40)
    tapes: list[TapeEntry] = Field(default_factory=list, max_length=300)
    placed_by: str = Field("tape", max_length=20)
    mirrored: bool = False
    keepers: list[KeeperEntry] = Field(default_factory=list, max_length=20)
    carriage: CarriageEntry = Field(default_factory=CarriageEntry)

    def typed(self) -> Layout:
        """As the core reads it."""
        carriage = TypedCarriage(self.carriage.run, self.carriage.position.typed(), self.carriage.length.typed())
        tapes = [TypedTape(t.a, t.b, t.distance.typed(), t.held) for t in self.tapes]
        return Layout([w.typed() for w in self.wheels], tapes, self.placed_by, self.mirrored, [k.typed() for k in self.keepers], carriage)
