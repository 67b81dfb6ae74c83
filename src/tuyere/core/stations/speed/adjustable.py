"""An adjustable sheave: what each half turn does, and how many turns open give the wanted speed.

Opening lets the belt sink: the pitch diameter falls by c a turn, c = p / tan(φ/2) for a flange thread of pitch p and groove angle φ
(geometry). The set screw wants a flat, and there are two: half turns only. Common practice, no source, for the rest.
"""

import math
from dataclasses import dataclass

from tuyere.core.basis.figure import both, shown
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.fitted import Role
from tuyere.core.stations.speed.machine import not_judged

HALF = 0.5


def drop_per_turn(thread_pitch_m: float, groove_angle_rad: float) -> float:
    """Pitch diameter lost a turn when one flange moves, m.

    >>> round(drop_per_turn(0.05, math.radians(28)), 3)
    0.201
    """
    return thread_pitch_m / math.tan(groove_angle_rad / 2)


@dataclass(frozen=True)
class Setting:
    """One half turn.

    Turns open, pitch diameter of the adjustable wheel (m), driven speed (rad/s), whether it may stand there; `small`: under the least.
    """

    turns: float
    pitch_diameter_m: float
    driven_speed: float
    usable: bool
    now: bool
    small: bool = False


@dataclass(frozen=True)
class AdjustableRange:
    """Every setting from closed to open, the one nearest the target, by how much the belt's plane moves (m) to get there, and what to say."""

    settings: tuple[Setting, ...]
    nearest: Setting | None
    shift_m: float
    verdicts: tuple[Verdict, ...]


def settings(
    role: Role, closed_m: float, drop_m: float, most: float, now: float, driven_now: float, least_m: float = 0.0
) -> tuple[Setting, ...]:
    """Every half turn. closed_m.

    Pitch diameter (which speeds go by) closed; driven_now: driven speed at `now` turns open (rad/s); the other wheel stays.
    """
    at_now = closed_m - now * drop_m
    found = []
    for k in range(math.floor(most / HALF + 1e-9) + 1):
        turns = k * HALF
        diameter = closed_m - turns * drop_m
        if diameter <= 0:
            break
        share = diameter / at_now
        speed = driven_now * (share if role == "driver" else 1 / share)
        found.append(Setting(turns, diameter, speed, 0 < turns < most - 1e-9, abs(turns - now) < 1e-6, diameter < least_m - 1e-6))
    return tuple(found)


def adjust(
    role: Role,
    closed_m: float,
    drop_m: float,
    most: float,
    now: float,
    driven_now: float,
    target: float | None,
    design_turns: float | None,
    grooves: int = 1,
    groove_angle_rad: float = math.radians(28),
    least_m: float = 0.0,
    least_of: str = "",
    most_speed: float | None = None,
) -> AdjustableRange:
    """The range of an adjustable sheave and the half turn nearest the target speed (rad/s), or where the design point has it.

    least_m: the smallest pitch diameter by the belt and the motor, `least_of` which of them; most_speed: the machine's own (rad/s), None:
    not known.
    """
    table = settings(role, closed_m, drop_m, most, now, driven_now, least_m)
    usable = [s for s in table if s.usable]
    nearest: Setting | None = None
    said: list[Verdict] = []
    if design_turns is not None and abs(design_turns - now) > 0.25:
        said.append(_set_back(design_turns, now))
    if target is not None and usable:
        nearest = min(usable, key=lambda s: abs(s.driven_speed - target))
        said.append(_aim(nearest, target, usable, role, now))
        said += [v for v in (_too_fast(nearest, most_speed), not_judged(driven_now, nearest.driven_speed, most_speed)) if v]
    said += _stands(now, most, role) + _small(table, nearest, least_m, least_of)
    # One flange moves: the middle of the groove moves by half of that.
    thread = drop_m * math.tan(groove_angle_rad / 2)
    shift = abs((nearest.turns if nearest else now) - now) * thread / 2
    if nearest and nearest.turns != now:
        said.append(_how(nearest.turns - now, grooves))
    return AdjustableRange(table, nearest, shift, tuple(said))


def _too_fast(aimed: Setting, most: float | None) -> Verdict | None:
    if most is None or aimed.driven_speed <= most * (1 + 1e-9):
        return None
    return Verdict(
        "machine",
        Tone.STOP,
        f"Stop: the machine may turn {shown(most, 'rotation')[0]} at most",
        "Its plate or manual says so: past that it comes apart.",
        "sure",
    )


def _small(table: tuple[Setting, ...], aimed: Setting | None, least_m: float, least_of: str) -> list[Verdict]:
    """Settings under the smallest diameter for the belt or the motor."""
    first = next((s for s in table if s.small), None)
    if first is None:
        return []
    here = [s for s in table if s.small and (s.now or s is aimed)]
    headline = (
        f"{'There' if here else 'From'} {_turns((here[0] if here else first).turns)} open it is too small for {least_of}"
        if first.turns or here
        else f"At every setting it is too small for {least_of}"
    )
    return [
        Verdict(
            "adjustable",
            Tone.WATCH if here else Tone.OPEN,
            headline,
            f"{both(least_m, decimals=(1, 0))} of pitch diameter at least: under it belt, bearing and shaft pay. A larger sheave, set "
            "near its middle, gives the same speed with a larger driven wheel.",
        )
    ]


def _turns(count: float) -> str:
    whole, half = divmod(abs(count), 1)
    text = f"{whole:.0f} 1/2" if half and whole else "1/2" if half else f"{whole:.0f}"
    return f"{text} turn{'' if text in ('1', '1/2') else 's'}"


def _set_back(design: float, now: float) -> Verdict:
    way = "Close it" if now > design else "Open it"
    return Verdict(
        "adjustable",
        Tone.WATCH,
        f"It stands {_turns(now)} open; it was set up at {_turns(design)}",
        f"{way} {_turns(design - now)}, tighten the set screw on the flat, and mark it: a flange that creeps loses speed and slackens the "
        "belt.",
    )


def _aim(nearest: Setting, target: float, usable: list[Setting], role: Role, now: float) -> Verdict:
    off = nearest.driven_speed / target - 1
    slow, fast = sorted((usable[0].driven_speed, usable[-1].driven_speed))
    if not slow * 0.98 <= target <= fast * 1.02:
        return Verdict(
            "adjustable",
            Tone.WATCH,
            "The sheave does not reach that speed",
            "Short of fully open and fully closed it stops before; change the other wheel, and keep this one near the middle.",
        )
    if nearest.turns == now:
        return Verdict("adjustable", Tone.GOOD, f"Leave it {_turns(now)} open", f"No half turn comes nearer ({off:+.1%} of the target).")
    way = "Close" if nearest.turns < now else "Open"
    effect = "faster" if (nearest.turns < now) == (role == "driver") else "slower"
    return Verdict(
        "adjustable",
        Tone.OPEN,
        f"{way} it {_turns(nearest.turns - now)}, to {_turns(nearest.turns)} open",
        f"On the {role} that makes the driven shaft {effect}; it lands {off:+.1%} of the target.",
    )


def _stands(now: float, most: float, role: Role) -> list[Verdict]:
    if now <= 1e-9:
        return [
            Verdict(
                "adjustable",
                Tone.WATCH,
                "It stands fully closed",
                f"The belt rides out of the groove, and there is no more to close. Use a larger wheel on the {role}, set near the middle.",
            )
        ]
    if now >= most - 1e-9:
        return [
            Verdict(
                "adjustable",
                Tone.WATCH,
                "It stands fully open",
                "The belt runs on the bottom, not on the sides, and the flange hangs on its last threads: use a smaller wheel, set near "
                "the middle.",
            )
        ]
    return []


def _how(turns: float, grooves: int) -> Verdict:
    alike = f" All {grooves} grooves the same, or one belt carries everything." if grooves > 1 else ""
    return Verdict(
        "adjustable",
        Tone.OPEN,
        "Isolated; belt off first, key out, then turn the flange",
        f"{_turns(turns)} from where it stands, the set screw on the flat, the key back in.{alike} Tension is set with the motor's base, "
        "never with the sheave: re-tension and re-align afterwards.",
    )
