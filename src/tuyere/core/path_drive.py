"""A drive on many wheels: contact and routing, take-up, which run is tight, and which wheel slips first.

Power enters at the driver and leaves at the driven wheels; going with the belt from the driver, the runs grow tighter at
each wheel that takes power, so that the run back to the driver is the tightest and the one that leaves it the slackest.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from tuyere.core.geometry.belt_path import BeltPath, Clash, Pulley, belt_path, clashes, pull
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.sheet.verdict import Problem, Tone, Verdict

Role = Literal["driver", "driven", "idler"]
Contact = Literal["inside", "back"]
Face = Literal["grooved", "flat"]

# exp(0.5123 theta): the 5 : 1 of the V-belt arc factor, with its reserve (IP-20; from memory). A flat face on a belt's back
# or a flat idler holds far less: 0.3 is common practice, no source.
FRICTION = {"grooved": math.log(5) / math.pi, "flat": 0.3}
_KEEPER_LEAST, _KEEPER_MOST = 0.003, 0.0065  # 1/8 to 1/4 in off the taut belt: common practice, no source, low confidence


@dataclass(frozen=True)
class PathWheel:
    """A wheel as it stands: place (m), radius of the belt's line and of the rim (m), what it does, and how the belt touches it.

    `power_w`: taken from the belt (a driven wheel). `turns_wanted`: the way it must turn, +1 counter-clockwise, if that matters.
    """

    name: str
    role: Role
    x_m: float
    y_m: float
    line_radius_m: float
    rim_radius_m: float
    contact: Contact = "inside"
    face: Face = "grooved"
    power_w: float = 0.0
    takes_up: bool = False
    turns_wanted: int = 0


@dataclass(frozen=True)
class Keeper:
    """A finger, pin or plate that keeps the belt in: where it stands (m), on which face of the belt, with the figure the manual gives if any."""

    name: str
    x_m: float
    y_m: float
    side: Contact
    least_m: float | None = None
    most_m: float | None = None
    present: bool = True


@dataclass(frozen=True)
class WheelState:
    """What the path does to one wheel: way of turning, speed, wrap, tensions in and out, push on the shaft, margin against slip."""

    name: str
    turns: int
    speed_rad_per_s: float | None
    wrap_rad: float
    tension_in_n: float | None
    tension_out_n: float | None
    shaft_pull_n: float | None
    slips_at: float | None


@dataclass(frozen=True)
class PathAnswer:
    """The path of a drive: geometry, wheel by wheel, run by run, and what to say. `path` is None where none can be."""

    path: BeltPath | None
    length_m: float | None
    wheels: tuple[WheelState, ...]
    tight_run: int | None
    slack_run: int | None
    reverse_bends: int
    clashes: tuple[Clash, ...]
    verdicts: tuple[Verdict, ...]
    problems: tuple[Problem, ...]


def pulleys_of(wheels: Sequence[PathWheel], rotation: int, crossed: bool = False) -> list[Pulley]:
    """The wheels as the path takes them. Inside wheels turn with the driver, wheels on the belt's back against it; on a crossed belt every second one."""

    def turns(k: int, w: PathWheel) -> int:
        if crossed:
            return rotation if k % 2 == 0 else -rotation
        return rotation if w.contact == "inside" else -rotation

    return [Pulley(w.x_m, w.y_m, w.line_radius_m, turns(k, w), w.name) for k, w in enumerate(wheels)]


def solve_path(
    wheels: Sequence[PathWheel],
    rotation: int = 1,
    crossed: bool = False,
    driver_speed_rad_per_s: float | None = None,
    static_tension_n: float | None = None,
    keepers: Sequence[Keeper] = (),
) -> PathAnswer:
    """The whole drive. Impossible layouts come back as a problem beside the wheel, with what can still be said."""
    drivers = [i for i, w in enumerate(wheels) if w.role == "driver"]
    if len(drivers) != 1:
        return _nothing(Problem("wheels", "One wheel drives the belt: mark one as the driver."))
    start = drivers[0]
    wheels = [*wheels[start:], *wheels[:start]]
    if wheels[0].contact == "back":
        return _nothing(Problem(wheels[0].name, "The driver pulls on the belt's inside: mark it as inside."))
    try:
        path = belt_path(pulleys_of(wheels, rotation, crossed), crossed)
    except GeometryError as reason:
        return _nothing(Problem("wheels", str(reason)))
    hits = clashes(path, [w.rim_radius_m for w in wheels], crossed)
    speed = driver_speed_rad_per_s
    velocity = speed * wheels[0].line_radius_m if speed else None
    tensions = run_tensions(path, wheels, velocity, static_tension_n) if velocity and static_tension_n else None
    slips = slip_margins(path, wheels, velocity, static_tension_n) if velocity and static_tension_n else None
    states = tuple(_state(path, wheels, i, velocity, tensions, slips) for i in range(len(wheels)))
    loaded = [i for i, w in enumerate(wheels) if w.role == "driven"]
    verdicts = [
        *_routing(path, wheels, hits),
        *_take_up(wheels, loaded),
        *(_keeper(path, wheels, keeper) for keeper in keepers),
        *_slip(wheels, slips),
    ]
    last = len(wheels) - 1
    return PathAnswer(
        path, path.length_m, states, last if loaded else None, 0 if loaded else None, sum(w.contact == "back" for w in wheels), hits, tuple(verdicts), ()
    )  # fmt: skip


def _nothing(problem: Problem) -> PathAnswer:
    return PathAnswer(None, None, (), None, None, 0, (), (), (problem,))


def _state(
    path: BeltPath,
    wheels: Sequence[PathWheel],
    i: int,
    velocity: float | None,
    tensions: Sequence[float] | None,
    slips: Sequence[float] | None,
) -> WheelState:
    before, after = (tensions[i - 1], tensions[i]) if tensions else (None, None)
    push = math.hypot(*pull(path, i, before, after)) if before is not None and after is not None else None
    return WheelState(
        wheels[i].name, path.pulleys[i].turns, velocity / wheels[i].line_radius_m if velocity else None, path.wraps_rad[i], before, after, push,
        slips[i] if slips and math.isfinite(slips[i]) else None,
    )  # fmt: skip


def run_tensions(path: BeltPath, wheels: Sequence[PathWheel], velocity: float, static_n: float, load: float = 1.0) -> list[float]:
    """Tension in each run (N) at `load` times the wheels' powers: the belt's length, and so the mean over its runs, stays as it was set.

    Run i leaves wheel i; wheel 0 is the driver. Source: elastic belt of fixed length, equal stiffness all along.
    """
    rise = [0.0]
    for w in wheels[1:]:
        rise.append(rise[-1] + (load * w.power_w / velocity if w.role == "driven" else 0.0))
    lengths = [r.length_m for r in path.runs]
    mean = sum(t * length for t, length in zip(rise, lengths, strict=True)) / sum(lengths)
    return [static_n - mean + t for t in rise]


def slip_margins(path: BeltPath, wheels: Sequence[PathWheel], velocity: float, static_n: float) -> list[float]:
    """For each wheel, at how many times the load it slips (infinite for one that passes no power): capstan equation at its own wrap.

    Slips where the tight side is exp(f theta) times the slack side. The smallest is the wheel that slips first.
    """
    idle, full = run_tensions(path, wheels, velocity, static_n, 0.0), run_tensions(path, wheels, velocity, static_n, 1.0)
    found = []
    for i, w in enumerate(wheels):
        tight, slack = (i - 1, i) if w.role == "driver" else (i, i - 1)
        ratio = math.exp(FRICTION[w.face] * path.wraps_rad[i])
        # Both sides are straight lines in the load: static + load * change.
        change_tight, change_slack = full[tight] - idle[tight], full[slack] - idle[slack]
        closing = change_tight - ratio * change_slack
        gap = ratio * idle[slack] - idle[tight]
        passes = w.role == "driver" or w.power_w > 0
        found.append(gap / closing if passes and closing > 0 else math.inf)
    return found


def _routing(path: BeltPath, wheels: Sequence[PathWheel], hits: Sequence[Clash]) -> list[Verdict]:
    found = [Verdict("path", Tone.STOP, "The belt is not routed so", c.sentence) for c in hits]
    for w, p in zip(wheels, path.pulleys, strict=True):
        if w.turns_wanted and w.turns_wanted != p.turns:
            found.append(
                Verdict(
                    "path",
                    Tone.STOP,
                    f"{w.name} would turn the wrong way",
                    "The belt lies on its wrong side: follow the routing on the machine's own plate.",
                )
            )
        if w.contact == "inside" and w.face == "flat" and w.role == "idler":
            found.append(
                Verdict(
                    "path",
                    Tone.WATCH,
                    f"{w.name}: a flat idler on the groove side",
                    "The belt's narrow edge rides on it and wears: it wants a grooved idler there, or its place on the back.",
                )
            )
        if w.contact == "back" and w.face == "grooved":
            found.append(
                Verdict(
                    "path",
                    Tone.STOP,
                    f"{w.name}: a grooved idler on the belt's back",
                    "The back does not fit a groove: it wants a flat idler without a crown there.",
                )
            )
    return found


def _take_up(wheels: Sequence[PathWheel], loaded: Sequence[int]) -> list[Verdict]:
    if not loaded:
        return []
    first_load = loaded[0]
    found = []
    for i, w in enumerate(wheels):
        if not w.takes_up or w.role != "idler":
            continue
        if i < first_load:
            found.append(
                Verdict(
                    "take-up",
                    Tone.GOOD,
                    f"{w.name} sits on the slack side",
                    "Between the driver's leaving side and the first load: near the driver is best.",
                )
            )
        elif i > loaded[-1]:
            found.append(
                Verdict(
                    "take-up",
                    Tone.STOP,
                    f"{w.name} sits on the tight side",
                    "Under load the belt pushes it away and goes slack behind the driver. It belongs on the run that leaves the driver.",
                )
            )
        else:
            found.append(
                Verdict(
                    "take-up",
                    Tone.WATCH,
                    f"{w.name} sits between the loads",
                    "It sees part of the pull; it belongs on the run that leaves the driver.",
                )
            )
    return found


def _keeper(path: BeltPath, wheels: Sequence[PathWheel], keeper: Keeper) -> Verdict:
    if not keeper.present:
        return Verdict(
            "keeper",
            Tone.STOP,
            f"{keeper.name} is missing or worn off",
            "Without it the belt climbs out when it goes slack. Replace it before the machine runs.",
        )
    gap, side = keeper_gap(path, wheels, keeper)
    least, most = (
        keeper.least_m if keeper.least_m is not None else _KEEPER_LEAST,
        keeper.most_m if keeper.most_m is not None else _KEEPER_MOST,
    )
    source = "the machine's manual" if keeper.least_m is not None else "common practice, low confidence: the manual's figure goes before"
    if side != keeper.side:
        return Verdict(
            "keeper",
            Tone.STOP,
            f"The belt runs on the wrong side of {keeper.name}",
            f"It should pass with its {_FACES[keeper.side]} to the keeper. Route it again before tensioning.",
        )
    if gap < least:
        return Verdict(
            "keeper",
            Tone.WATCH,
            f"{keeper.name} is too near the belt",
            f"{gap * 1000:.1f} mm; at least {least * 1000:.1f} mm when tensioned ({source}). It rubs.",
        )
    if gap > most:
        return Verdict(
            "keeper",
            Tone.WATCH,
            f"{keeper.name} stands too far off",
            f"{gap * 1000:.1f} mm; at most {most * 1000:.1f} mm ({source}). The belt can climb out.",
        )
    return Verdict("keeper", Tone.GOOD, f"{keeper.name} is right", f"{gap * 1000:.1f} mm off the taut belt ({source}).")


_FACES = {"inside": "inside", "back": "back"}


def keeper_gap(path: BeltPath, wheels: Sequence[PathWheel], keeper: Keeper) -> tuple[float, Contact]:
    """How far a keeper stands from the nearest run or arc of the belt's line (m), and which face of the belt it sees."""
    driver = path.pulleys[0].turns
    best: tuple[float, float] | None = None  # distance, signed side (left of travel positive)
    for run in path.runs:
        ux, uy = math.cos(run.direction_rad), math.sin(run.direction_rad)
        dx, dy = keeper.x_m - run.x1_m, keeper.y_m - run.y1_m
        along, left = dx * ux + dy * uy, -dx * uy + dy * ux
        if 0 <= along <= run.length_m and (best is None or abs(left) < best[0]):
            best = abs(left), left
    for p in path.pulleys:
        out = math.hypot(keeper.x_m - p.x_m, keeper.y_m - p.y_m) - p.radius_m
        if best is None or abs(out) < best[0]:
            best = abs(out), -p.turns * out
    assert best
    inside = best[1] * driver > 0
    return best[0], "inside" if inside else "back"


def _slip(wheels: Sequence[PathWheel], slips: Sequence[float] | None) -> list[Verdict]:
    if not slips:
        return []
    i = min(range(len(wheels)), key=lambda k: slips[k])
    if not math.isfinite(slips[i]):
        return []
    if slips[i] < 1:
        return [
            Verdict(
                "slip",
                Tone.STOP,
                f"{wheels[i].name} slips before full load",
                f"At {slips[i]:.0%} of the stated powers. More tension, more wrap there, or less load.",
            )
        ]
    return [
        Verdict(
            "slip",
            Tone.GOOD if slips[i] > 1.25 else Tone.WATCH,
            f"{wheels[i].name} would slip first",
            f"At {slips[i]:.0%} of the stated powers, by the capstan rule with the V-belt's 5 : 1 (flat faces: f = 0.3, common practice).",
        )
    ]
