"""One belt on its wheels: the path, what each wheel does, which run is tight, and what to say about it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from tuyere.core.basis.figure import both
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.mechanics.belt_path import BeltPath, Clash, Pulley, Run, belt_path, clashes, overlapping, pull
from tuyere.core.mechanics.on_wheels import routing, strain, take_up
from tuyere.core.mechanics.on_wheels.take_up import Reach
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Lay, PathWheel
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.quarter_turn import QuarterTurn, quarter_turn


@dataclass(frozen=True)
class WheelState:
    """What the path does to one wheel.

    Way of turning, speed, wrap, power through it, tensions in and out, push on the shaft (N, direction rad), margin against slip.
    """

    name: str
    turns: int
    speed_rad_per_s: float | None
    wrap_rad: float
    power_w: float
    tension_in_n: float | None = None
    tension_out_n: float | None = None
    pull_n: tuple[float, float] | None = None
    slips_at: float | None = None


@dataclass(frozen=True)
class CarriageState:
    """An open-ended belt on its carriage: the two spans beside it, and the belt from clamp to clamp (m)."""

    run: int
    near_span_m: float
    far_span_m: float
    belt_m: float


@dataclass(frozen=True)
class PathAnswer:
    """The path of one belt: geometry, wheel by wheel from the driver, run by run, and what to say. `path` is None where none can be.

    `order`: the wheels' places in the belt as given, from the driver on. `tension_n`: the standing tension that the run tensions
    and pulls are for (the one given, else the one that just carries the powers); `needed_n`: under which the first wheel slips.
    """

    path: BeltPath | None
    order: tuple[int, ...] = ()
    wheels: tuple[WheelState, ...] = ()
    tight_run: int | None = None
    slack_run: int | None = None
    reverse_bends: int = 0
    clashes: tuple[Clash, ...] = ()
    quarter: QuarterTurn | None = None
    carriage: CarriageState | None = None
    reaches: tuple[Reach, ...] = ()
    tension_n: float | None = None
    needed_n: float | None = None
    verdicts: tuple[Verdict, ...] = ()
    problems: tuple[Problem, ...] = ()

    @property
    def length_m(self) -> float | None:
        """Length of the belt's line round the wheels."""
        return self.path.length_m if self.path else None


def pulleys_of(wheels: Sequence[PathWheel], rotation: int, lay: Lay = Lay.OPEN) -> list[Pulley]:
    """The wheels as the path takes them.

    Inside wheels turn with the driver, wheels on the belt's back against it; on a crossed belt every second one.
    """

    def turns(k: int, w: PathWheel) -> int:
        if lay is Lay.CROSSED:
            return rotation if k % 2 == 0 else -rotation
        return rotation if w.contact == "inside" else -rotation

    return [Pulley(w.x_m, w.y_m, w.line_radius_m, turns(k, w), w.name) for k, w in enumerate(wheels)]


def solve_belt(belt: BeltOnWheels, rotation: int = 1, driver_speed_rad_per_s: float | None = None) -> PathAnswer:
    """The whole of one belt. Impossible layouts come back as a problem beside the wheel, with what can still be said."""
    drivers = [i for i, w in enumerate(belt.wheels) if w.role == "driver"]
    if len(drivers) != 1:
        return _nothing("wheels", "One wheel drives the belt: mark one as the driver.")
    count = len(belt.wheels)
    order = tuple((drivers[0] + k) % count for k in range(count))
    wheels = tuple(belt.wheels[i] for i in order)
    if wheels[0].contact == "back":
        return _nothing("wheels", "The driver pulls on the belt's inside: mark it as inside.")
    try:
        path, quarter = _path(belt, wheels, rotation)
    except GeometryError as reason:
        return _nothing("wheels", str(reason))
    if not quarter and (pair := overlapping(path.pulleys, [w.rim_radius_m for w in wheels])):
        return _nothing("wheels", f"{pair[0].name} and {pair[1].name} overlap: check their places and diameters.")
    hits = () if quarter else clashes(path, [w.rim_radius_m for w in wheels], belt.lay is Lay.CROSSED)
    carriage, carriage_problem = _carriage(belt, path, order)
    problems = (carriage_problem,) if carriage_problem else ()
    reaches, reach_verdicts = take_up.reaches(belt, path, wheels)
    states, tension, needed, slip_verdicts = _strain(belt, path, wheels, driver_speed_rad_per_s)
    loaded = any(w.role == "driven" for w in wheels)
    in_turn = replace(belt, wheels=wheels)
    centre = math.dist((wheels[0].x_m, wheels[0].y_m), (wheels[1].x_m, wheels[1].y_m))
    verdicts = [
        *routing.judge_routing(path, in_turn, hits),
        *(routing.judge_quarter(in_turn, quarter, centre) if quarter else routing.judge_take_up(wheels)),
        *(routing.judge_crossed(in_turn, centre) if belt.lay is Lay.CROSSED else []),
        *reach_verdicts,
        *(routing.judge_length(in_turn, path.length_m) if not carriage and not reaches else []),
        *slip_verdicts,
        *routing.judge_bends(in_turn),
        *([_carriage_verdict(carriage)] if carriage else []),
    ]
    return PathAnswer(
        path,
        order,
        states,
        count - 1 if loaded else None,
        0 if loaded else None,
        sum(w.contact == "back" for w in wheels),
        tuple(hits),
        quarter,
        carriage,
        reaches,
        tension,
        needed,
        tuple(verdicts),
        problems,
    )


def _nothing(field: str, sentence: str) -> PathAnswer:
    return PathAnswer(None, problems=(Problem(field, sentence),))


def _path(belt: BeltOnWheels, wheels: Sequence[PathWheel], rotation: int) -> tuple[BeltPath, QuarterTurn | None]:
    if belt.lay is Lay.OPEN:
        return belt_path(pulleys_of(wheels, rotation)), None
    if len(wheels) != 2:
        raise GeometryError(f"A {belt.lay} belt runs on two wheels: take the others out, or lay it open.")
    if belt.lay is Lay.CROSSED:
        return belt_path(pulleys_of(wheels, rotation, Lay.CROSSED), crossed=True), None
    return _quarter_path(wheels, rotation)


def _quarter_path(wheels: Sequence[PathWheel], rotation: int) -> tuple[BeltPath, QuarterTurn]:
    """The quarter turn as seen along the driver's shaft: true lengths and wraps, the driven wheel edge on, drawn at its offset."""
    a, b = wheels
    centre = math.dist((a.x_m, a.y_m), (b.x_m, b.y_m))
    turn = quarter_turn(a.line_radius_m, b.line_radius_m, centre)
    ux, uy = (b.x_m - a.x_m) / centre, (b.y_m - a.y_m) / centre
    # Turning counter-clockwise, the rim runs towards the driven wheel on the right of the line of centres.
    nx, ny = (uy, -ux) if rotation > 0 else (-uy, ux)
    px, py = a.x_m + a.line_radius_m * nx, a.y_m + a.line_radius_m * ny
    qx, qy = px + centre * ux, py + centre * uy
    far = centre * math.cos(turn.driver_lead_rad)
    side = turn.driven_lead_rad
    back = (-ux * math.cos(side) - nx * math.sin(side), -uy * math.cos(side) - ny * math.sin(side))
    runs = (
        Run(px, py, px + far * ux, py + far * uy, centre, math.atan2(uy, ux)),
        Run(qx, qy, qx + centre * back[0], qy + centre * back[1], centre, math.atan2(back[1], back[0])),
    )
    pulleys = (
        Pulley(a.x_m, a.y_m, a.line_radius_m, rotation, a.name),
        Pulley(qx, qy, b.line_radius_m, rotation, b.name),
    )
    return BeltPath(pulleys, runs, (turn.driver_wrap_rad, turn.driven_wrap_rad)), turn


def _carriage(belt: BeltOnWheels, path: BeltPath, order: Sequence[int]) -> tuple[CarriageState | None, Problem | None]:
    """The spans beside a carriage; the tape from a wheel's centre along the run is the same as from where the belt leaves it."""
    if not belt.carriage:
        return None, None
    run = order.index(belt.carriage.run)
    length = path.runs[run].length_m
    near, far = belt.carriage.position_m, length - belt.carriage.position_m - belt.carriage.length_m
    if far < 0:
        return None, Problem(
            "carriage_position",
            f"The carriage stands beyond its run, which is {both(length)} long: measure again from the wheel's centre to the near clamp.",
        )
    return CarriageState(run, near, far, path.length_m - belt.carriage.length_m), None


def _carriage_verdict(state: CarriageState) -> Verdict:
    return Verdict(
        "carriage",
        Tone.OPEN,
        f"The belt is open-ended: {both(state.belt_m)} from clamp to clamp",
        f"Add what the clamps hold. With the carriage here its spans are {both(state.near_span_m)} and {both(state.far_span_m)}; "
        "a tension reading holds for this position only, so put the carriage back here for the next one.",
    )


def _strain(
    belt: BeltOnWheels, path: BeltPath, wheels: Sequence[PathWheel], speed: float | None
) -> tuple[tuple[WheelState, ...], float | None, float | None, list[Verdict]]:
    """Each wheel's state, the standing tension used, the one needed, and which wheel slips first."""
    velocity = speed * wheels[0].rolls_radius_m if speed else None
    powered = velocity is not None and any(w.power_w > 0 for w in wheels)
    needed = strain.tensions_needed(path, wheels, velocity, belt.mass_kg_per_m, belt.half_turn_ratio) if powered and velocity else None
    most = max(needed) if needed else None
    tension = belt.tension_n if belt.tension_n is not None else most
    runs = strain.run_tensions(path, wheels, velocity, tension) if velocity and tension is not None and needed else None
    margins = (
        strain.slip_margins(path, wheels, velocity, tension, belt.mass_kg_per_m, belt.half_turn_ratio)
        if runs and velocity and tension is not None and belt.slips
        else None
    )
    total = sum(w.power_w for w in wheels if w.role == "driven")
    lost = belt.mass_kg_per_m * velocity**2 if velocity else 0.0  # carries itself round the wheel: no shaft feels it
    states = tuple(
        WheelState(
            w.name,
            path.pulleys[i].turns,
            velocity / w.rolls_radius_m if velocity else None,
            path.wraps_rad[i],
            total if w.role == "driver" else w.power_w,
            runs[i - 1] if runs else None,
            runs[i] if runs else None,
            pull(path, i, runs[i - 1] - lost, runs[i] - lost) if runs else None,
            margins[i] if margins and math.isfinite(margins[i]) else None,
        )
        for i, w in enumerate(wheels)
    )
    return states, tension if runs else None, most, _slip_verdicts(belt, wheels, needed, margins) if needed else []


def _slip_verdicts(
    belt: BeltOnWheels, wheels: Sequence[PathWheel], needed: Sequence[float], margins: Sequence[float] | None
) -> list[Verdict]:
    rank = sorted((i for i in range(len(wheels)) if needed[i] > 0), key=lambda i: -needed[i])
    if not rank or not belt.slips:
        return []
    first = wheels[rank[0]].name
    least = [both(needed[i] / belt.count, "force") for i in rank[:2]]
    then = f", then {wheels[rank[1]].name}" if len(rank) > 1 else ""
    each = "each belt" if belt.count > 1 else "the belt"
    where = "in a groove; flat faces at f = 0.3, common practice" if belt.seat == "groove" else "on clean iron"
    rule = f"By the capstan rule with {belt.half_turn_ratio:.3g} : 1 at half a turn {where}."
    if belt.tension_n is None or not margins:
        later = f" Under {least[1]} {wheels[rank[1]].name} slips too." if len(rank) > 1 else ""
        return [
            Verdict(
                "slip",
                Tone.OPEN,
                f"Overloaded, {first} slips first{then}",
                f"The stated powers want {each} at {least[0]} or more, at rest.{later} {rule}",
            )
        ]
    at = margins[rank[0]]
    if at < 1:
        return [
            Verdict(
                "slip",
                Tone.STOP,
                f"{first} slips before full load",
                f"At {at:.0%} of the stated powers: it wants {each} at {least[0]} at rest, more wrap there, or less load. {rule}",
            )
        ]
    return [
        Verdict(
            "slip", Tone.GOOD if at > 1.25 else Tone.WATCH, f"{first} would slip first", f"At {at:.0%} of the stated powers{then}. {rule}"
        )
    ]
