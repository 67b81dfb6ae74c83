"""What the errors look like at the machine, and the corrections in order, as a person at the feet hears them."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from tuyere.core.basis.figure import fine
from tuyere.core.stations.align.base import Base, base_of
from tuyere.core.stations.align.frame import along
from tuyere.core.stations.align.moves import Moves
from tuyere.core.stations.align.readings import ERRORS, Errors
from tuyere.core.stations.align.shims import MOST, Stock, pack
from tuyere.core.stations.align.tolerance import Tolerance
from tuyere.core.stations.align.views import lie_of, side_of

_HAIR = 0.00005  # thinner than any shim
_BY_HAND = 0.0001  # finer than a machine is knocked or a wheel is slid: common practice, no source
FRONT, BACK = (1, 2), (3, 4)
Way = Literal["lift", "lower", "left", "right", "out", "in", ""]


class Names(NamedTuple):
    """How the machine that moves, the one that stays, and a wheel are called."""

    moving: str = "machine"
    still: str = "other machine"
    wheel: str = "sheave"


UNNAMED = Names()


@dataclass(frozen=True)
class Correction:
    """One correction.

    Its words, the feet it is made at (1 front-left, 2 front-right, 3 back-left, 4 back-right), which way and how far (m).
    """

    kind: Literal["lift", "swing", "slide", "cannot", "tension"]
    text: str
    feet: tuple[int, ...] = ()
    way: Way = ""
    by_m: float = 0.0
    effect: str = ""


@dataclass(frozen=True)
class AtFeet:
    """The machine at its feet: what it stands on, the shims at hand (None: any thickness), and those there now (m)."""

    base: Base
    stock: Stock | None = None
    shims_now_m: Sequence[float] = ()


FOUR_FEET = AtFeet(base_of(""))


def toward(slope_rad: float, names: Names, side: str) -> str:
    """A side with what stands there, where that helps."""
    c = math.cos(slope_rad)
    if abs(c) < 0.5:
        return side
    return f"{side} ({'toward' if (side == 'left') == (c > 0) else 'away from'} the {names.still})"


def seen(errors: Errors, slope_rad: float, names: Names) -> list[str]:
    """What the eye sees of each settled error, in words of the place."""
    said = []
    _, v = along(slope_rad)
    m, s, w = names
    if errors.angle_rad is not None and abs(errors.angle_rad) > 1e-6:
        far, end = ("away from", "toward") if errors.angle_rad > 0 else ("toward", "away from")
        said.append(f"Angle: the {m}'s far end swings {far} the {s}; at the wheels its shaft leans {end} it.")
    if errors.twist_rad is not None and abs(errors.twist_rad) > 1e-6:
        out = "out, away from its body" if errors.twist_rad > 0 else "in, toward its body"
        said.append(f"Twist: the {side_of(v)} of the {m}'s {w} leans {out}, against the {s}'s.")
    if errors.offset_m is not None and abs(errors.offset_m) > 1e-6:
        out = "too far out, away from its body" if errors.offset_m > 0 else "too far in, toward its body"
        said.append(f"Offset: the {m}'s {w} stands {out}.")
    return said


def cures(slope_rad: float) -> tuple[str, str]:
    """What shims cure, and what swinging the back feet cures, by how the line of centres lies."""
    lie = lie_of(slope_rad)
    if lie == "steep":
        return "Twist and angle, first half", "Twist and angle, second half"
    return ("The twist", "The angle") if lie == "level" else ("The angle", "The twist")


def steps_of(moves: Moves, slope_rad: float, at: AtFeet, names: Names = UNNAMED) -> list[Correction]:
    """The corrections in order: shims at one end, swing, slide, then tension and a reading again.

    A move that the base cannot make is not advised.
    """
    found: list[Correction] = []
    base = at.base
    lifted, swung = cures(slope_rad)
    if moves.shims_m and (by := moves.shims_m[0] or moves.shims_m[2]) and abs(by) > _HAIR:
        found.append(_lift(by, moves, lifted, at) if base.lift else Correction("cannot", f"{lifted}: {base.no_lift}."))
    if moves.jack_back_m is not None and abs(moves.jack_back_m) > _BY_HAND:
        side: Literal["left", "right"] = "left" if moves.jack_back_m > 0 else "right"
        how = base.swing.format(back=base.back, by=fine(abs(moves.jack_back_m)), side=toward(slope_rad, names, side))
        text = f"{swung}: {how or base.no_swing}{'; seen from the back of the machine' if how else ''}."
        found.append(Correction("swing" if how else "cannot", text, BACK if how else (), side, abs(moves.jack_back_m)))
    if moves.slide_m is not None and abs(moves.slide_m) > _BY_HAND:
        way = "out, away from its body" if moves.slide_m > 0 else "back, toward its body"
        how = base.slide.format(wheel=names.wheel, by=fine(abs(moves.slide_m)), way=way)
        found.append(Correction("slide", f"The offset: {how}.", (), "out" if moves.slide_m > 0 else "in", abs(moves.slide_m)))
    if found:
        change = moves.centre_change_m or 0.0
        effect = ""
        if abs(change) > 0.0002:
            effect = f"All this brings the centres {fine(abs(change))} {'farther apart, tighter' if change > 0 else 'nearer, slacker'}."
        found.append(
            Correction(
                "tension",
                "Set the tension with equal turns on both screws, tighten the feet crosswise, turn both wheels round half a turn, and "
                "read again at final tension.",
                effect=effect,
            )
        )
    return found


def _lift(by: float, moves: Moves, lifted: str, at: AtFeet) -> Correction:
    assert moves.shims_m
    front = moves.shims_m[0] != 0
    end = at.base.front if front else at.base.back
    under = at.base.lift.format(end=end)
    thick = fine(abs(by))
    if at.stock:
        made = pack(abs(by), at.stock)
        thick += f" of shims, {' + '.join(at.stock.name(p) for p in made.pieces)} {at.stock.unit}"
    text = f"{lifted}: {'put' if by > 0 else 'take'} {thick} {'' if by > 0 else 'out from '}{under}, none at the other end."
    now = [n for n in (at.shims_now_m[:2] if front else at.shims_now_m[2:])]
    notes = []
    if at.stock and by > 0 and now and max(now) > 0:
        whole = pack(max(now) + by, at.stock)
        notes.append(
            f"With what lies there that makes {fine(max(now) + by)}: build it again of "
            f"{' + '.join(at.stock.name(p) for p in whole.pieces)} {at.stock.unit}, at most {MOST} to a foot."
        )
    if abs(moves.short_m) > _HAIR:
        notes.append(f"That is {fine(abs(moves.short_m))} {'short' if moves.short_m > 0 else 'over'}, the nearest there is.")
    if abs(moves.carries_m) > _HAIR:
        notes.append(
            f"It carries the wheel {fine(abs(moves.carries_m))} {'out' if moves.carries_m > 0 else 'in'}; the slide allows for it."
        )
    return Correction("lift", text, FRONT if front else BACK, "lift" if by > 0 else "lower", abs(by), " ".join(notes))


def within(errors: Errors, allowed: Tolerance) -> bool:
    """Whether everything that is read lies within tolerance, and anything is."""
    pairs = ((errors.angle_rad, allowed.angle_rad), (errors.twist_rad, allowed.angle_rad), (errors.offset_m, allowed.offset_m))
    true = [abs(value) <= most for value, most in pairs if value is not None]
    return bool(true) and all(true)


def missing(errors: Errors) -> list[str]:
    """Which errors the readings do not settle."""
    return [name for name in ("angle", "twist", "offset") if getattr(errors, f"{name}_{'m' if name == 'offset' else 'rad'}") is None]


LEAVE = "Within tolerance: leave it. Set the tension, turn the wheels round once, and read again."


def corrections(
    errors: Errors, moves: Moves, allowed: Tolerance, slope_rad: float, at: AtFeet = FOUR_FEET, names: Names = UNNAMED
) -> list[str]:
    """Everything said about the corrections, numbered; where all is within tolerance, that it is."""
    said = [*errors.instead]
    if errors.disagree:
        return [
            *said,
            f"The readings disagree on the {' and the '.join(errors.disagree)} by more than their doubts: read again before anything is "
            "moved.",
        ]
    lacks = missing(errors)
    if lacks:
        said.append(f"The readings do not say the {' nor the '.join(lacks)}: read that too before it is called true.")
    if within(errors, allowed):
        fits = all(2 * errors.of(k)[1] <= (allowed.offset_m if k == "offset" else allowed.angle_rad) * (1 + 1e-9) for k in ERRORS)
        return [*said, LEAVE] if fits and not lacks else said
    steps = steps_of(moves, slope_rad, at, names)
    return [*said, *(f"{k}. {s.text}{f' {s.effect}' if s.effect else ''}" for k, s in enumerate(steps, 1))]
