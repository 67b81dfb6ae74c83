"""A layout as typed: every entry as text beside its unit, every wheel by its number, counted from 1."""

from collections.abc import Sequence
from dataclasses import dataclass

from tuyere.core.basis.typed import Typed
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.survey import Part

_NONE = Typed()


@dataclass(frozen=True)
class TypedPoint:
    """A point.

    By tape from two wheels (counted from 1), or by coordinates from the first wheel's centre, which also say on which side it lies.
    """

    x: Typed = _NONE
    y: Typed = _NONE
    from_a: int = 0
    tape_a: Typed = _NONE
    from_b: int = 0
    tape_b: Typed = _NONE


@dataclass(frozen=True)
class TypedTakeUp:
    """How a wheel moves.

    `how` is "" (it does not), line or arm; `along` the line's direction in degrees, empty for straight into the belt.
    """

    how: str = ""
    along: str = ""
    pivot: TypedPoint = TypedPoint()
    tighten: Typed = _NONE
    slacken: Typed = _NONE


@dataclass(frozen=True)
class TypedWheel:
    """One wheel as typed.

    `diameter` over the rim, or its `teeth`; `x`, `y` from the first wheel's centre, y up (unused when placed by tape).

    `belt` and `shaft_of` count from 1; `shaft_of` is the wheel whose shaft this one shares, 0 for a shaft of its own.
    """

    name: str
    role: str
    contact: str
    face: str
    diameter: Typed
    x: Typed = _NONE
    y: Typed = _NONE
    power: Typed = _NONE
    turns: str = ""
    belt: int = 1
    shaft_of: int = 0
    take_up: TypedTakeUp = TypedTakeUp()
    teeth: str = ""


@dataclass(frozen=True)
class TypedTape:
    """One tape measurement between two wheels, counted from 1; one that is not `held` is left out."""

    a: int
    b: int
    distance: Typed
    held: bool = True


@dataclass(frozen=True)
class TypedBelt:
    """What goes round, a belt, a set side by side or a chain.

    Its kind of drive and that kind's part of the survey, how it lies, and the standing tension of each.
    """

    family: Family
    part: Part
    lay: str = "open"
    tension: Typed = _NONE


@dataclass(frozen=True)
class TypedKeeper:
    """One keeper: the belt it keeps (from 1), the face the belt shows it, where it stands, its gap, and the manual's figures."""

    name: str
    belt: int
    side: str
    state: str
    at: TypedPoint = TypedPoint()
    gap: Typed = _NONE
    least: Typed = _NONE
    most: Typed = _NONE


@dataclass(frozen=True)
class TypedCarriage:
    """A carriage on the run that leaves wheel `run` (from 1; 0 for none)."""

    run: int = 0
    position: Typed = _NONE
    length: Typed = _NONE


@dataclass(frozen=True)
class TypedPath:
    """A whole layout as typed.

    `placed_by`: tape, coordinates or drag. `lies_deg`: which way the second wheel lies from the first, by tape.
    """

    wheels: Sequence[TypedWheel]
    belts: Sequence[TypedBelt]
    tapes: Sequence[TypedTape] = ()
    placed_by: str = "tape"
    mirrored: bool = False
    rotation: str = "clockwise"
    lies_deg: str = "0"
    driver_speed: Typed = _NONE
    driver_power: Typed = _NONE
    keepers: Sequence[TypedKeeper] = ()
    carriage: TypedCarriage = TypedCarriage()
