"""Any unknown of a train of wheels: speeds, diameters or teeth, ratios; one is left out and follows from the rest.

n_last = n_first · Π (d_i / D_i) · (1 - s_i), the d_i driving and the D_i driven: kinematics, any textbook (Machinery's Handbook).
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from tuyere.core.stations.speed.band import Band, exactly

Unknown = Literal["first speed", "last speed", "driving", "driven", "ratio"]


class SpeedError(ValueError):
    """What was given cannot be solved; the message is a sentence for the person. `where` names the field."""

    def __init__(self, where: str, sentence: str) -> None:
        super().__init__(sentence)
        self.where = where


@dataclass(frozen=True)
class TrainStep:
    """One stage: diameters (m) or teeth of the wheel that drives and the one driven, or their ratio D/d; None where not known.

    `slip`: a share.
    """

    driving: Band | None = None
    driven: Band | None = None
    ratio: Band | None = None
    slip: float = 0.0

    @property
    def reduction(self) -> Band | None:
        """Turns of the driving wheel to one of the driven, without slip."""
        if self.driving and self.driven:
            return self.driven / self.driving
        return self.ratio


@dataclass(frozen=True)
class Solved:
    """Every speed from the first shaft to the last (rad/s), every stage with what was found, and what that was (stage counted from 0)."""

    speeds: tuple[Band, ...]
    steps: tuple[TrainStep, ...]
    found: tuple[Unknown, int] | None
    off: float | None = None


def solve(first: Band | None, last: Band | None, steps: Sequence[TrainStep]) -> Solved:
    """Find the one thing left out. With nothing left out, `off` is how far the given last speed lies from the one that follows (a share).

    Raises SpeedError naming the field to fill in, when more than one thing is missing.

    >>> one = solve(exactly(1750.0), None, [TrainStep(exactly(5.0), exactly(10.0))])
    >>> one.speeds[-1].middle, one.found
    (875.0, ('last speed', 1))
    """
    steps = [_settled(k, s) for k, s in enumerate(steps)]
    open_steps = [k for k, s in enumerate(steps) if s.reduction is None]
    if len(open_steps) > 1:
        raise SpeedError(_field(open_steps[1], steps[open_steps[1]]), "One unknown at a time: give this stage's wheels or its ratio.")
    if not open_steps:
        return _speeds(first, last, steps)
    k = open_steps[0]
    if first is None or last is None:
        where = "first_speed" if first is None else "last_speed"
        raise SpeedError(where, "Give both speeds, or both wheels of every stage: one thing may be left out.")
    others = exactly(1.0)
    for i, s in enumerate(steps):
        others = others * exactly(1 - s.slip)
        if i != k and s.reduction:
            others = others / s.reduction
    reduction = first * others / last
    step, found = _fill(steps[k], reduction)
    steps[k] = step
    speeds = _run(first, steps)
    return Solved((*speeds[:-1], last), tuple(steps), (found, k))


def _settled(k: int, step: TrainStep) -> TrainStep:
    """A stage with two of its three given has the third."""
    if step.ratio and step.driving and not step.driven:
        return replace(step, driven=step.driving * step.ratio)
    if step.ratio and step.driven and not step.driving:
        return replace(step, driving=step.driven / step.ratio)
    if step.ratio and step.driving and step.driven:
        by_wheels = step.driven / step.driving
        if not (by_wheels.low * 0.995 <= step.ratio.high and step.ratio.low <= by_wheels.high * 1.005):
            raise SpeedError(f"ratio_{k + 1}", f"The two wheels give a ratio of {by_wheels.middle:.3f}: leave one of the three out.")
    return step


def _field(k: int, step: TrainStep) -> str:
    return f"driven_{k + 1}" if step.driving or not step.driven else f"driving_{k + 1}"


def _fill(step: TrainStep, reduction: Band) -> tuple[TrainStep, Unknown]:
    if step.driving:
        return replace(step, driven=step.driving * reduction), "driven"
    if step.driven:
        return replace(step, driving=step.driven / reduction), "driving"
    return replace(step, ratio=reduction), "ratio"


def _run(first: Band, steps: Sequence[TrainStep]) -> list[Band]:
    speeds = [first]
    for s in steps:
        assert s.reduction
        speeds.append(speeds[-1] / s.reduction * exactly(1 - s.slip))
    return speeds


def _speeds(first: Band | None, last: Band | None, steps: Sequence[TrainStep]) -> Solved:
    if first is None and last is None:
        raise SpeedError("first_speed", "Give the speed of one shaft.")
    if first is not None:
        speeds = _run(first, steps)
        off = last.middle / speeds[-1].middle - 1 if last else None
        return Solved(tuple(speeds), tuple(steps), None if last else ("last speed", len(steps)), off)
    assert last
    back = [last]
    for s in reversed(steps):
        assert s.reduction
        back.append(back[-1] * s.reduction / exactly(1 - s.slip))
    return Solved(tuple(reversed(back)), tuple(steps), ("first speed", 0))


def by_marks(driving_turns: float, driven_turns: float) -> Band:
    """Ratio by marks on both wheels, turned by hand: turns of the one over the other, each read to an eighth of a turn.

    >>> band = by_marks(20, 8)
    >>> round(band.low, 3), round(band.high, 3)
    (2.446, 2.556)
    """
    eighth = 1 / 8
    return Band((driving_turns - eighth) / (driven_turns + eighth), (driving_turns + eighth) / (driven_turns - eighth))
