"""Two toothed pulleys and their belt."""

import math

from tuyere.core.basis.figure import both
from tuyere.core.basis.limit import limit
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.synchronous.profile import Profile
from tuyere.core.kinds.teeth import Fitting, ToothedDrive, ToothedWheel, clear, mesh, set_at, those_that_fit
from tuyere.core.mechanics import open_belt

_LEAST_MESH = limit("least teeth in mesh").value


def lay_out(of: Profile, z1: int, z2: int, centre: float | None, count: int | None, open_ended: bool) -> ToothedDrive:
    """Two pulleys and the belts that fit: by count, from the roll, or near the centres. Raises GeometryError."""
    d1, d2 = synchronous.pitch_diameter(of, z1), synchronous.pitch_diameter(of, z2)

    def fitting(teeth: int) -> Fitting:
        at = open_belt.centre_distance(d1, d2, teeth * of.pitch_m)
        clear(at, touching)
        belt = synchronous.ToothedBelt(of, teeth, None, teeth in listed)
        return Fitting(teeth, belt.length_m, at, belt.designation, teeth in listed)

    listed = set(synchronous.standard_teeth(of))
    touching = sum(synchronous.outside_diameter(of, z) for z in (z1, z2)) / 2
    clear(centre, touching)
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
        fittings = those_that_fit(fitting, sorted({*near, *exact}, key=lambda z: abs(z - wanted)))
    else:
        fittings = []
    at = fittings[0].centre_m if fittings else None
    wheels = tuple(
        ToothedWheel(z, d, synchronous.outside_diameter(of, z), *mesh(d, other, z, at)) for z, d, other in ((z1, d1, d2), (z2, d2, d1))
    )
    said = _from_the_roll(fittings[0]) if open_ended and fittings else set_at(fittings, "teeth")
    return ToothedDrive(of.name, of.pitch_m, wheels, tuple(fittings), (*said, *_toothed_verdicts(of, wheels, at)))  # type: ignore[arg-type]


def _from_the_roll(roll: Fitting) -> list[Verdict]:
    return [
        Verdict(
            "length",
            Tone.GOOD,
            f"{roll.count} teeth round both wheels: {both(roll.length_m)}",
            "Less what the carriage spans between its clamps, plus what the clamps hold.",
        )
    ]


def _toothed_verdicts(of: synchronous.Profile, wheels: tuple[ToothedWheel, ...], centre: float | None) -> list[Verdict]:
    small = min(wheels, key=lambda w: w.teeth)
    found = []
    if of.fewest_teeth and small.teeth < of.fewest_teeth:
        found.append(
            Verdict(
                "wheel",
                Tone.WATCH,
                f"{small.teeth} teeth are few for {of.name}",
                f"It wants {of.fewest_teeth} at least: bent tighter, the cord and the tooth roots crack.",
            )
        )
    if small.in_mesh is not None and small.in_mesh < _LEAST_MESH:
        found.append(
            Verdict(
                "mesh",
                Tone.WATCH,
                f"Only {small.in_mesh:.1f} teeth in mesh on the small pulley",
                "Under 6 each counts for less: rate it down, or move the shafts apart.",
            )
        )
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
        return [
            Verdict(
                "flanges",
                Tone.OPEN,
                "Both pulleys want flanges",
                f"The centres are over {_LONG_CENTRES:g} times the small pulley: flanges on both sides of both. {widths}",
            )
        ]
    return [
        Verdict(
            "flanges",
            Tone.OPEN,
            "Flanges on both sides of the small pulley",
            f"Or one on either side of each, opposite. On upright shafts, and on centres over {_LONG_CENTRES:g} times the small pulley, "
            f"both pulleys want them. {widths}",
        )
    ]
