"""Two sprockets and their chain."""

import math

from tuyere.core.basis.figure import both
from tuyere.core.basis.limit import limit
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.roller_chain.chain import Chain
from tuyere.core.kinds.teeth import Fitting, ToothedDrive, ToothedWheel, clear, mesh, set_at, those_that_fit

_LEAST_WRAP = limit("least wrap of a chain").value
_SMALL_SPROCKET = limit("smooth sprocket").value


def lay_out(of: Chain, z1: int, z2: int, centre: float | None, count: int | None) -> ToothedDrive:
    """Two sprockets and the chains that fit: by count, or near the centres. Raises GeometryError."""
    d1, d2 = roller_chain.pitch_diameter(of.pitch_m, z1), roller_chain.pitch_diameter(of.pitch_m, z2)
    touching = sum(roller_chain.outside_diameter(of.pitch_m, z) for z in (z1, z2)) / 2
    clear(centre, touching)

    def fitting(pitches: int) -> Fitting:
        at = roller_chain.centre_distance(z1, z2, pitches) * of.pitch_m
        clear(at, touching)
        return Fitting(pitches, pitches * of.pitch_m, at, f"{of.name}, {pitches} pitches", pitches % 2 == 0)

    if count is not None:
        fittings = [fitting(count)]
    elif centre is not None:
        wanted = roller_chain.length_in_pitches(z1, z2, centre / of.pitch_m)
        even = 2 * round(wanted / 2)
        odd = 2 * math.floor(wanted / 2) + 1
        fittings = those_that_fit(fitting, [*sorted((even, even - 2, even + 2), key=lambda n: abs(n - wanted))[:2], odd])
    else:
        fittings = []
    at = fittings[0].centre_m if fittings else None
    wheels = []
    for z, d, other in ((z1, d1, d2), (z2, d2, d1)):
        s = roller_chain.sprocket(of, z)
        wheels.append(ToothedWheel(z, d, s.outside_m, *mesh(d, other, z, at), s.bottom_m, s.caliper_m, s.tooth_width_m))
    pair = (wheels[0], wheels[1])
    return ToothedDrive(of.name, of.pitch_m, pair, tuple(fittings), tuple(_chain_verdicts(of, pair, fittings)))


def _chain_verdicts(of: roller_chain.Chain, wheels: tuple[ToothedWheel, ...], fittings: list[Fitting]) -> list[Verdict]:
    small = min(wheels, key=lambda w: w.teeth)
    found = set_at(fittings, "pitches")
    if fittings and not fittings[0].plain:
        found.append(
            Verdict(
                "length",
                Tone.WATCH,
                "An odd number of pitches wants an offset link",
                f"The chain then carries {limit('offset link').value:.0%} of its rating ({limit('offset link').source}): use an even "
                "number if the centres can be moved.",
            )
        )
    if small.teeth < _SMALL_SPROCKET:
        found.append(
            Verdict(
                "wheel",
                Tone.WATCH,
                f"{small.teeth} teeth run roughly",
                "Under 17 the chain jerks and wears faster; 19 or more for a smooth drive.",
            )
        )
    if small.wrap_rad is not None and small.wrap_rad < _LEAST_WRAP:
        found.append(
            Verdict(
                "mesh",
                Tone.WATCH,
                f"The chain wraps only {math.degrees(small.wrap_rad):.0f}° of the small sprocket",
                f"It wants {limit('least wrap of a chain').printed}: move the shafts apart, or use a smaller ratio.",
            )
        )
    if fittings:
        travel = both(1.5 * of.pitch_m)
        found.append(
            Verdict(
                "take-up",
                Tone.OPEN,
                f"Leave about {travel} of travel to take up wear",
                "One and a half pitches, then two links come out. Fixed centres: set them a little short, so that some sag is left.",
            )
        )
    return found
