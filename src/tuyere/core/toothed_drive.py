"""Two toothed wheels and what runs round them: pulleys or sprockets by teeth, length in whole teeth or links, exact centres."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from tuyere.core.drives import roller_chain, synchronous
from tuyere.core.entry.field import Note
from tuyere.core.entry.reader import FieldReader
from tuyere.core.entry.typed import Typed
from tuyere.core.geometry import open_belt
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.identify.toothed import Family
from tuyere.core.limit import limit
from tuyere.core.working.figure import both
from tuyere.core.working.verdict import Problem, Tone, Verdict

_LEAST_MESH = limit("least teeth in mesh").value
_LEAST_WRAP = limit("least wrap of a chain").value
_SMALL_SPROCKET = limit("smooth sprocket").value


@dataclass(frozen=True)
class ToothedWheel:
    """One pulley or sprocket (m): through the belt's line or roller centres, over the tips; for a sprocket its bottom, callipers and tooth width."""

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
    """One length that could go on: how many teeth or pitches, its length (m), the exact centres (m), its name, and whether it is a listed or an even one."""

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


def read_toothed_drive(family: Family, quantities: Mapping[str, Typed], words: Mapping[str, str]) -> DriveReading:
    """Read name, teeth, and centres or count; each with its problem beside it."""
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
        of = synchronous.profile(name) if family == "synchronous" else roller_chain.chain(name)
    except (synchronous.ToothedError, roller_chain.ChainError) as reason:
        return DriveReading(None, notes, (Problem("name", str(reason)),))
    try:
        open_ended = words.get("open_ended") == "yes"
        drive = (
            _toothed(of, z1, z2, centre, count, open_ended) if isinstance(of, synchronous.Profile) else _chain(of, z1, z2, centre, count)
        )
    except GeometryError as reason:
        field = "count" if count is not None else "centre_distance"
        return DriveReading(None, notes, (Problem(field, str(reason)),))
    return DriveReading(drive, notes, (), strands)


def _toothed(of: synchronous.Profile, z1: int, z2: int, centre: float | None, count: int | None, open_ended: bool) -> ToothedDrive:
    d1, d2 = synchronous.pitch_diameter(of, z1), synchronous.pitch_diameter(of, z2)

    def fitting(teeth: int) -> Fitting:
        at = open_belt.centre_distance(d1, d2, teeth * of.pitch_m)
        _clear(at, touching)
        belt = synchronous.ToothedBelt(of, teeth, None, teeth in listed)
        return Fitting(teeth, belt.length_m, at, belt.designation, teeth in listed)

    listed = set(synchronous.standard_teeth(of))
    touching = sum(synchronous.outside_diameter(of, z) for z in (z1, z2)) / 2
    _clear(centre, touching)
    if open_ended and centre is not None:
        length = open_belt.belt_length(d1, d2, centre)
        whole = math.ceil(length / of.pitch_m)
        fittings = [Fitting(whole, whole * of.pitch_m, centre, f"{of.name} from the roll, {whole} teeth", True)]
    elif count is not None:
        fittings = [fitting(count)]
    elif centre is not None:
        wanted = open_belt.belt_length(d1, d2, centre) / of.pitch_m
        near = sorted(listed, key=lambda z: abs(z - wanted))[:3]
        exact = {math.floor(wanted), math.ceil(wanted)}
        fittings = _those_that_fit(fitting, sorted({*near, *exact}, key=lambda z: abs(z - wanted)))
    else:
        fittings = []
    at = fittings[0].centre_m if fittings else None
    wheels = tuple(
        ToothedWheel(z, d, synchronous.outside_diameter(of, z), *_mesh(d, other, z, at)) for z, d, other in ((z1, d1, d2), (z2, d2, d1))
    )
    said = _from_the_roll(fittings[0]) if open_ended and fittings else _set_at(fittings, "teeth")
    return ToothedDrive(of.name, of.pitch_m, wheels, tuple(fittings), (*said, *_toothed_verdicts(of, wheels, at)))  # type: ignore[arg-type]


def _chain(of: roller_chain.Chain, z1: int, z2: int, centre: float | None, count: int | None) -> ToothedDrive:
    d1, d2 = roller_chain.pitch_diameter(of.pitch_m, z1), roller_chain.pitch_diameter(of.pitch_m, z2)
    touching = sum(roller_chain.outside_diameter(of.pitch_m, z) for z in (z1, z2)) / 2
    _clear(centre, touching)

    def fitting(pitches: int) -> Fitting:
        at = roller_chain.centre_distance(z1, z2, pitches) * of.pitch_m
        _clear(at, touching)
        return Fitting(pitches, pitches * of.pitch_m, at, f"{of.name}, {pitches} pitches", pitches % 2 == 0)

    if count is not None:
        fittings = [fitting(count)]
    elif centre is not None:
        wanted = roller_chain.length_in_pitches(z1, z2, centre / of.pitch_m)
        even = 2 * round(wanted / 2)
        odd = 2 * math.floor(wanted / 2) + 1
        fittings = _those_that_fit(fitting, [*sorted((even, even - 2, even + 2), key=lambda n: abs(n - wanted))[:2], odd])
    else:
        fittings = []
    at = fittings[0].centre_m if fittings else None
    wheels = []
    for z, d, other in ((z1, d1, d2), (z2, d2, d1)):
        s = roller_chain.sprocket(of, z)
        wheels.append(ToothedWheel(z, d, s.outside_m, *_mesh(d, other, z, at), s.bottom_m, s.caliper_m, s.tooth_width_m))
    pair = (wheels[0], wheels[1])
    return ToothedDrive(of.name, of.pitch_m, pair, tuple(fittings), tuple(_chain_verdicts(of, pair, fittings)))


def _clear(centre: float | None, touching: float) -> None:
    """Raises GeometryError for centres at which the teeth would touch."""
    if centre is not None and centre <= touching:
        raise GeometryError(open_belt.overlap(touching))


def _those_that_fit(fitting: Callable[[int], Fitting], counts: Sequence[int]) -> list[Fitting]:
    found = []
    for n in counts:
        try:
            found.append(fitting(n))
        except GeometryError:
            continue
    if not found:
        raise GeometryError("The wheels are too near each other: their teeth would touch.")
    return found


def _mesh(own: float, other: float, teeth: int, centre: float | None) -> tuple[float | None, float | None]:
    if centre is None or centre <= abs(own - other) / 2:
        return None, None
    wrap = math.pi + 2 * math.asin((own - other) / (2 * centre))
    return wrap, teeth * wrap / math.tau


def _from_the_roll(roll: Fitting) -> list[Verdict]:
    return [Verdict("length", Tone.GOOD, f"{roll.count} teeth round both wheels: {both(roll.length_m)}", "Less what the carriage spans between its clamps, plus what the clamps hold.")]  # fmt: skip


def _toothed_verdicts(of: synchronous.Profile, wheels: tuple[ToothedWheel, ...], centre: float | None) -> list[Verdict]:
    small = min(wheels, key=lambda w: w.teeth)
    found = []
    if of.fewest_teeth and small.teeth < of.fewest_teeth:
        found.append(Verdict("wheel", Tone.WATCH, f"{small.teeth} teeth are few for {of.name}", f"It wants {of.fewest_teeth} at least: bent tighter, the cord and the tooth roots crack."))  # fmt: skip
    if small.in_mesh is not None and small.in_mesh < _LEAST_MESH:
        found.append(Verdict("mesh", Tone.WATCH, f"Only {small.in_mesh:.1f} teeth in mesh on the small pulley", "Under 6 each counts for less: rate it down, or move the shafts apart."))  # fmt: skip
    if centre is not None:
        found += _flanges(small, centre)
    return found


_LONG_CENTRES = 8.0  # times the small pulley: both pulleys flanged past it. IP-24 and handbooks, from memory, medium


def _flanges(small: ToothedWheel, centre: float) -> list[Verdict]:
    """Which pulleys want flanges, and how wide they are beside the belt."""
    both_ends = centre > _LONG_CENTRES * small.pitch_diameter_m
    widths = (
        "Both pulleys are as wide as the belt or wider; where they differ, the narrower one carries the flanges, and nothing overhangs."
    )
    if both_ends:
        return [Verdict("flanges", Tone.OPEN, "Both pulleys want flanges", f"The centres are over {_LONG_CENTRES:g} times the small pulley: flanges on both sides of both. {widths}")]  # fmt: skip
    return [Verdict("flanges", Tone.OPEN, "Flanges on both sides of the small pulley", f"Or one on either side of each, opposite. On upright shafts, and on centres over {_LONG_CENTRES:g} times the small pulley, both pulleys want them. {widths}")]  # fmt: skip


def _chain_verdicts(of: roller_chain.Chain, wheels: tuple[ToothedWheel, ...], fittings: list[Fitting]) -> list[Verdict]:
    small = min(wheels, key=lambda w: w.teeth)
    found = _set_at(fittings, "pitches")
    if fittings and not fittings[0].plain:
        found.append(Verdict("length", Tone.WATCH, "An odd number of pitches wants an offset link", f"The chain then carries {limit('offset link').value:.0%} of its rating ({limit('offset link').source}): use an even number if the centres can be moved."))  # fmt: skip
    if small.teeth < _SMALL_SPROCKET:
        found.append(Verdict("wheel", Tone.WATCH, f"{small.teeth} teeth run roughly", "Under 17 the chain jerks and wears faster; 19 or more for a smooth drive."))  # fmt: skip
    if small.wrap_rad is not None and small.wrap_rad < _LEAST_WRAP:
        found.append(Verdict("mesh", Tone.WATCH, f"The chain wraps only {math.degrees(small.wrap_rad):.0f}° of the small sprocket", "It wants 120°: move the shafts apart, or use a smaller ratio."))  # fmt: skip
    if fittings:
        travel = both(1.5 * of.pitch_m)
        found.append(Verdict("take-up", Tone.OPEN, f"Leave about {travel} of travel to take up wear", "One and a half pitches, then two links come out. Fixed centres: set them a little short, so that some sag is left."))  # fmt: skip
    return found


def _set_at(fittings: list[Fitting], what: str) -> list[Verdict]:
    if not fittings:
        return [
            Verdict("length", Tone.OPEN, "Tape the centres, or count what is on it", f"Either gives the other, exactly, in whole {what}.")
        ]
    best = fittings[0]
    return [Verdict("length", Tone.GOOD, f"{best.count} {what}: centres {both(best.centre_m)}", f"{best.name}, {both(best.length_m)} long. Exact for a taut one on new wheels.")]  # fmt: skip
