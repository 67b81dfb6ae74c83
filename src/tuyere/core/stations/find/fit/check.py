"""Does it sit right: a belt in its groove, from tables or measurement, judged by two schools of ride height."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cache

from tuyere.core.basis.figure import Figure, Line, figure, given_figure, shown
from tuyere.core.basis.origin import Origin, least_sure
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import UFloat, probability_between, sureness, uncertain, wrapped
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.v_belt import BeltError, Section
from tuyere.core.kinds.v_belt.groove import Groove, groove_at_outside, grooves_of
from tuyere.core.stations.find.fit.pairing import SectionPair, in_groove
from tuyere.core.stations.find.fit.seat import Trapezoid, seat

_MADE_WIDTH_M, _MADE_GROOVE_M = 0.0002, 0.0001  # how far a made belt and groove lie from the table: common practice, no source
_MADE_ANGLE = math.radians(0.5)


@dataclass(frozen=True)
class Fitting:
    """What is put together. Measured sizes stand before the tables'; `ride` is measured on the machine, proud positive."""

    belt: Section
    made_for: Section
    groove_kind: str = "standard"
    wheel_diameter: Given | None = None
    top_width: Given | None = None
    thickness: Given | None = None
    belt_angle: Given | None = None
    groove_width: Given | None = None
    groove_depth: Given | None = None
    groove_angle: Given | None = None
    ride: Given | None = None


@dataclass(frozen=True)
class School:
    """One school's band for the belt's back against the rim (m, proud positive) and its verdict on this belt."""

    name: str
    low_m: float
    high_m: float
    low_us: str
    high_us: str
    low_si: str
    high_si: str
    verdict: Verdict
    source: str


@dataclass(frozen=True)
class Outline:
    """A trapezoid to draw: top width, height (m) and the angle between its sides (rad), and whether each was measured."""

    top_width_m: float
    height_m: float
    angle_rad: float
    measured: bool


@dataclass(frozen=True)
class GrooveCheck:
    """The groove check: belt and groove to scale, where the belt rests, and what to say of it."""

    belt: Outline
    groove: Outline
    ride_m: float
    measured_ride_m: float | None
    touches: str
    figures: tuple[Figure, ...]
    schools: tuple[School, ...]
    verdicts: tuple[Verdict, ...]


def system(belt: Section) -> str:
    """Which ride-height band holds for the section."""
    return "narrow" if belt.wedge else "light-duty" if belt.series == "light-duty inch" else "classical"


@cache
def bands(name: str) -> tuple[tuple[str, float, float, str], ...]:
    """Ride-height bands of a system: school, lowest, highest (m), source."""
    return tuple(
        (r["school"], to_si(float(r["low_in"]), "length", "in"), to_si(float(r["high_in"]), "length", "in"), r["source"])
        for r in rows("v_ride_height")
        if r["system"] == name
    )


def groove_for(fitting: Fitting) -> Groove:
    """The tabled groove of what the wheel was made for; without a diameter the row for mid-size wheels.

    Raises BeltError where the kind is not tabled for it.
    """
    if fitting.wheel_diameter:
        return groove_at_outside(fitting.made_for, fitting.wheel_diameter.value, fitting.groove_kind)
    found = grooves_of(fitting.made_for.groove, fitting.groove_kind)
    if not found:
        raise BeltError(f"There is no {fitting.groove_kind} groove on the table for section {fitting.made_for.name}.")
    return found[0]


def check(fitting: Fitting) -> GrooveCheck:
    """Seat the belt and judge it. Raises BeltError where the groove is not tabled."""
    table = groove_for(fitting)
    belt = fitting.belt
    u_width = _known(fitting.top_width, belt.top_width_m, _MADE_WIDTH_M, "top width of the belt as made")
    u_height = _known(fitting.thickness, belt.height_m, 0.0003, "thickness of the belt as made")
    u_angle = _known(fitting.belt_angle, math.radians(belt.angle_deg), _MADE_ANGLE, "angle of the belt as made")
    u_groove = _known(fitting.groove_width, table.top_width_m, _MADE_GROOVE_M, "groove width as made")
    u_depth = _known(fitting.groove_depth, table.depth_min_m, 0.0002, "groove depth as made")
    u_groove_angle = _known(fitting.groove_angle, math.radians(table.angle_deg), _MADE_ANGLE, "groove angle as made")
    inputs = (u_width, u_height, u_angle, u_groove, u_depth, u_groove_angle)
    ride = wrapped(lambda *v: seat(Trapezoid(*v[:3]), Trapezoid(*v[3:])).ride_m)(*inputs)
    rest = seat(Trapezoid(*(u.n for u in inputs[:3])), Trapezoid(*(u.n for u in inputs[3:])))
    lines = [
        _line("b", "belt top width", fitting.top_width, u_width),
        _line("h", "belt thickness", fitting.thickness, u_height),
        _line("b_g", "groove top width", fitting.groove_width, u_groove),
        _line("h_g", "groove depth", fitting.groove_depth, u_depth),
        _angle_line("β", "belt angle", fitting.belt_angle, u_angle),
        _angle_line("α", "groove angle", fitting.groove_angle, u_groove_angle),
    ]
    expected = figure(
        "ride",
        "belt's back above the rim, by the sizes",
        "e",
        "length",
        ride,
        lines,
        _FORMULA.get(rest.touches, "e = h - h_g"),
        f"plane geometry; {belt.source}; {table.source}",
        least_sure(belt.confidence, table.confidence),
        to_set=True,
        note=f"The belt touches with its {rest.touches}."
        if rest.touches != "rim"
        else "The belt is wider than the groove: it rests on the rim's edges.",
    )
    figures = [expected]
    if fitting.ride:
        figures.append(
            given_figure(
                "ride_measured",
                "belt's back above the rim, measured",
                "e",
                "length",
                fitting.ride.value,
                fitting.ride.std,
                fitting.ride.origin,
                to_set=True,
            )
        )
    judged = fitting.ride.u if fitting.ride else ride
    pair = in_groove(belt, fitting.made_for, fitting.groove_kind)
    by_design = fitting.groove_kind in ("deep", "combination")
    # A belt of another system may lie flush and still be wrong: its ride says nothing.
    schools = (
        ()
        if by_design or pair.match == "other system"
        else tuple(_school(s, judged, bool(fitting.ride)) for s in bands(system(fitting.made_for)))
    )
    return GrooveCheck(
        Outline(u_width.n, u_height.n, u_angle.n, bool(fitting.top_width)),
        Outline(u_groove.n, u_depth.n, u_groove_angle.n, bool(fitting.groove_width)),
        rest.ride_m,
        fitting.ride.value if fitting.ride else None,
        rest.touches,
        tuple(figures),
        schools,
        tuple(_by_what(fitting, _verdicts(fitting, pair, judged, ride, rest.bottoms, rest.room_below_m, schools, by_design))),
    )


def _by_what(fitting: Fitting, said: Sequence[Verdict]) -> list[Verdict]:
    """Nothing is right before anything was measured: by the tables alone it only should be."""
    f = fitting
    if any((f.ride, f.top_width, f.thickness, f.groove_width, f.groove_depth, f.belt_angle, f.groove_angle)):
        return list(said)
    only = "By the tables. Nothing is measured yet."
    return [replace(v, tone=Tone.OPEN, detail=f"{only} {v.detail}".strip()) if v.tone is Tone.GOOD else v for v in said]


_FORMULA = {
    "rim": "e = (b - b_g) / (2 tan(β/2))",
    "top corners": "e = (b - b_g) / (2 tan(α/2))",
    "bottom corners": "e = h - (b_g - b + 2 h tan(β/2)) / (2 tan(α/2))",
}


def _known(given: Given | None, tabled: float, spread: float, name: str) -> UFloat:
    return given.u if given else uncertain(tabled, spread, name)


def _line(symbol: str, label: str, given: Given | None, value: UFloat) -> Line:
    origin = given.origin if given else Origin.STANDARD
    return Line(symbol, label, *shown(value.n, "length", decimals=(3, 2)), origin, origin)


def _angle_line(symbol: str, label: str, given: Given | None, value: UFloat) -> Line:
    origin = given.origin if given else Origin.STANDARD
    text = f"{math.degrees(value.n):.0f}°"
    return Line(symbol, label, text, text, origin, origin)


def _school(band: tuple[str, float, float, str], ride: UFloat, measured: bool) -> School:
    name, low, high, source = band
    inside = probability_between(ride, low, high)
    above = probability_between(ride, high, 1.0)
    if inside >= 0.5:
        verdict = Verdict("ride", Tone.GOOD, "sits right", "", sureness(inside).value)
    elif above >= 0.5:
        verdict = Verdict("ride", Tone.WATCH, "stands too proud", "", sureness(above).value)
    else:
        verdict = Verdict("ride", Tone.WATCH, "sits too deep", "", sureness(1 - inside - above).value)
    return School(name, low, high, *_band(low, high), verdict, source)


def _band(low: float, high: float) -> tuple[str, str, str, str]:
    (low_us, low_si), (high_us, high_si) = (shown(abs(v), "length", to_set=True) for v in (low, high))
    return f"{low_us} sunk", f"{high_us} proud", f"{low_si} sunk", f"{high_si} proud"


def _verdicts(
    fitting: Fitting,
    pair: SectionPair,
    judged: UFloat,
    ride: UFloat,
    bottoms: bool,
    room: float,
    schools: tuple[School, ...],
    by_design: bool,
) -> list[Verdict]:
    found = [pair.verdict]
    if bottoms or room < 0.0002:
        found.append(
            Verdict(
                "ride",
                Tone.STOP,
                "The belt bottoms in the groove",
                "It no longer wedges: it slips, glazes and burns. The belt is too narrow or the groove worn out: try a new belt of the "
                "right section, then gauge the groove.",
            )
        )
    if by_design or not schools:
        return found
    low, high = min(s.low_m for s in schools), max(s.high_m for s in schools)
    us, si = shown(abs(judged.n), "length", to_set=True)
    where = f"{us} ({si})"
    above, below = probability_between(judged, high, 1.0), probability_between(judged, -1.0, low)
    if above >= 0.5:
        found.append(
            Verdict(
                "ride",
                Tone.STOP,
                f"The belt stands {where} proud of the rim",
                "It is too wide for this groove and will be destroyed. Check the section on its label, and what the wheel was made for.",
                sureness(above).value,
            )
        )
    elif below >= 0.5 and not bottoms:
        found.append(
            Verdict("ride", Tone.WATCH, f"The belt sits {where} below the rim", _why_low(fitting, pair.match), sureness(below).value)
        )
    elif pair.match in ("right", "near"):
        found.append(_sits(judged, where, schools))
    if fitting.ride and abs(judged.n - ride.n) > 3 * math.hypot(judged.s, ride.s) and pair.match == "right":
        want_us, want_si = shown(abs(ride.n), "length", to_set=True)
        side = "proud" if ride.n > 0 else "sunk"
        found.append(
            Verdict(
                "ride",
                Tone.WATCH,
                "It does not sit where these sizes put it",
                f"By the sizes its back would lie {want_us} ({want_si}) {side}. The belt is of another section than thought, or belt or "
                "groove is worn: measure its top width with callipers.",
            )
        )
    return found


def _why_low(fitting: Fitting, match: str) -> str:
    if match == "narrower":
        return "It is a narrower section: it only gets you home."
    if fitting.groove_width and fitting.top_width:
        return "Belt worn narrow or groove worn wide: try a new belt. If it sits low too, replace the sheave."
    return "Too narrow a belt, a worn belt or a worn groove: measure the belt's top width, then try a new belt and gauge the groove."


def _sits(judged: UFloat, where: str, schools: tuple[School, ...]) -> Verdict:
    side = "flush with the rim" if abs(judged.n) < 0.0004 else f"{where} {'proud' if judged.n > 0 else 'below the rim'}"
    if all(s.verdict.tone is Tone.GOOD for s in schools):
        return Verdict(
            "ride",
            Tone.GOOD,
            f"The belt sits right: {side}",
            "By both schools.",
            min((s.verdict.sureness for s in schools), key=("cannot tell", "likely", "sure").index),
        )
    good = " and ".join(s.name for s in schools if s.verdict.tone is Tone.GOOD)
    bad = " and ".join(s.name for s in schools if s.verdict.tone is not Tone.GOOD)
    return Verdict(
        "ride",
        Tone.GOOD if good else Tone.WATCH,
        f"The belt sits {side}",
        f"Right by the {good}; those who want it {bad} would look for wear or a wrong section." if good else "",
    )
