"""Two toothed wheels and what runs round them: pulleys or sprockets by teeth, length in whole teeth or links, exact centres."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import both
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds.unknown import NotKnownError
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.open_belt import GeometryError


@dataclass(frozen=True)
class ToothedWheel:
    """One pulley or sprocket (m).

    Through the belt's line or roller centres, over the tips; for a sprocket its bottom, callipers and tooth width.
    """

    teeth: int
    pitch_diameter_m: float
    outside_diameter_m: float
    wrap_rad: float | None = None
    in_mesh: float | None = None
    bottom_m: float | None = None
    caliper_m: float | None = None
    tooth_width_m: float | None = None


@dataclass(frozen=True)
class Fitting:
    """One length that could go on.

    How many teeth or pitches, its length (m), the exact centres (m), its name, and whether it is a listed or an even one.
    """

    count: int
    length_m: float
    centre_m: float
    name: str
    plain: bool


@dataclass(frozen=True)
class ToothedDrive:
    """Both wheels, the profile or chain and its pitch (m), and the lengths that fit, the nearest to what was asked first."""

    of: str
    pitch_m: float
    wheels: tuple[ToothedWheel, ToothedWheel]
    fittings: tuple[Fitting, ...]
    verdicts: tuple[Verdict, ...]


@dataclass(frozen=True)
class DriveReading:
    """What was understood of the form; `drive` is None until both wheels and the profile or chain are known."""

    drive: ToothedDrive | None
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    strands: int | None = None


LayOut = Callable[[str, int, int, float | None, int | None, bool], ToothedDrive]


def read_toothed_drive(lay_out: LayOut, quantities: Mapping[str, Typed], words: Mapping[str, str]) -> DriveReading:
    """Read name, teeth, and centres or count; each with its problem beside it.

    `lay_out`: of the kind; name, both teeth, centres (m), count, open-ended.
    """
    reader = FieldReader(quantities, words)
    centre = reader.value("centre_distance")
    z1, z2 = (reader.whole(f"teeth_{k}", 6) for k in (1, 2))
    count = reader.whole("count", 10, 5000)
    strands = reader.whole("strands", 1, 6)
    notes, problems = reader.notes, reader.problems
    name = words.get("name", "").strip()
    if not name or z1 is None or z2 is None or problems:
        return DriveReading(None, notes, tuple(problems))
    try:
        drive = lay_out(name, z1, z2, centre, count, words.get("open_ended") == "yes")
    except NotKnownError as reason:
        return DriveReading(None, notes, (Problem("name", str(reason)),))
    except GeometryError as reason:
        field = "count" if count is not None else "centre_distance"
        return DriveReading(None, notes, (Problem(field, str(reason)),))
    return DriveReading(drive, notes, (), strands)


def clear(centre: float | None, touching: float) -> None:
    """Raises GeometryError for centres at which the teeth would touch."""
    if centre is not None and centre <= touching:
        raise GeometryError(open_belt.overlap(touching))


def those_that_fit(fitting: Callable[[int], Fitting], counts: Sequence[int]) -> list[Fitting]:
    """The fittings of those counts whose wheels stand clear. Raises GeometryError where none do."""
    found = []
    for n in counts:
        try:
            found.append(fitting(n))
        except GeometryError:
            continue
    if not found:
        raise GeometryError("The wheels are too near each other: their teeth would touch.")
    return found


def mesh(own: float, other: float, teeth: int, centre: float | None) -> tuple[float | None, float | None]:
    """Wrap (rad) and teeth in mesh of a wheel beside another; None while the centres are not known."""
    if centre is None or centre <= abs(own - other) / 2:
        return None, None
    wrap = math.pi + 2 * math.asin((own - other) / (2 * centre))
    return wrap, teeth * wrap / math.tau


def set_at(fittings: list[Fitting], what: str) -> list[Verdict]:
    """Where the first of them stands."""
    if not fittings:
        return [
            Verdict("length", Tone.OPEN, "Tape the centres, or count what is on it", f"Either gives the other, exactly, in whole {what}.")
        ]
    best = fittings[0]
    return [
        Verdict(
            "length",
            Tone.GOOD,
            f"{best.count} {what}: centres {both(best.centre_m)}",
            f"{best.name}, {both(best.length_m)} long. Exact for a taut one on new wheels.",
        )
    ]


def teeth_named(teeth: int) -> str:
    """A wheel by its teeth."""
    return f"{teeth} teeth"
