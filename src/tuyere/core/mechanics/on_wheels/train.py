"""Several belts in one drive.

One after another over a jackshaft, or side by side on a shaft; speeds, powers and shaft pulls through them.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from tuyere.core.basis.verdict import Problem
from tuyere.core.mechanics.on_wheels.one_belt import PathAnswer, solve_belt
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Lay, PathWheel


@dataclass(frozen=True)
class Shaft:
    """A shaft: its wheels as (belt, place in the belt), speed, and the belts' pulls on it added as arrows (N), where known."""

    number: int
    wheels: tuple[tuple[int, int], ...]
    speed_rad_per_s: float | None
    pull_n: tuple[float, float] | None

    @property
    def force_n(self) -> float | None:
        """How hard, N; None where it is not known."""
        return math.hypot(*self.pull_n) if self.pull_n else None


@dataclass(frozen=True)
class TrainAnswer:
    """Each belt's answer, in the order of the belts, the shafts that carry more than one wheel, and each belt's speed over the first's (0:
    unknown).

    `order`: the belts that run, from the driver on. By shaft, the driver's speed over its own (`ratios`) and the belts between the driver
    and it (`over`). `powers`: of each belt, by the place of a wheel on it: its power there (W), what hangs on that shaft and its own loss
    in it, all of it at its driver.
    """

    belts: tuple[PathAnswer, ...]
    shafts: tuple[Shaft, ...] = ()
    paces: tuple[float, ...] = (1.0,)
    order: tuple[int, ...] = ()
    ratios: Mapping[int, float] = field(default_factory=dict)
    over: Mapping[int, tuple[int, ...]] = field(default_factory=dict)
    powers: tuple[Mapping[int, float], ...] = ()


def solve_train(
    belts: Sequence[BeltOnWheels], rotation: int = 1, driver_speed_rad_per_s: float | None = None, driver_power_w: float | None = None
) -> TrainAnswer:
    """Solve belt after belt, from the first one's driver on. A belt that hangs on no shaft of the others comes back as a problem.

    driver_power_w: goes through where nobody states what a wheel takes, and each belt turns one shaft only.
    """
    order, fed_by = _order(belts)
    if driver_power_w is not None:
        belts = _in_line(belts, order, driver_power_w)
    powered = _powers(belts, order, fed_by)
    answers: dict[int, PathAnswer] = {}
    turning: dict[int, tuple[int, float | None]] = {}
    ratios: dict[int, float] = {}
    over: dict[int, tuple[int, ...]] = {}
    if order:
        first = _driver(belts[0]).shaft
        turning[first], ratios[first], over[first] = (rotation, driver_speed_rad_per_s), 1.0, ()
    for b in order:
        shaft = _driver(powered[b]).shaft
        if shaft not in turning:  # the belt before could not be solved
            answers[b] = _refused("The belt that drives this one does not run yet.")
            continue
        way, speed = turning[shaft]
        answers[b] = answer = solve_belt(powered[b], way, speed)
        for i, state in zip(answer.order, answer.wheels, strict=True):
            w = powered[b].wheels[i]
            turning.setdefault(w.shaft, (state.turns, state.speed_rad_per_s))
            ratios.setdefault(w.shaft, ratios[shaft] * w.rolls_radius_m / _driver(powered[b]).rolls_radius_m)
            over.setdefault(w.shaft, (*over[shaft], b))
    for b in set(range(len(belts))) - set(order):
        answers[b] = _refused(
            "Say on which shaft this belt's driving wheel sits: one that another belt turns, or the driver's own."
            if sum(w.role == "driver" for w in belts[b].wheels) == 1
            else "One wheel drives the belt: mark one as the driver."
        )
    found = tuple(answers[b] for b in range(len(belts)))
    rim = [_driver(x).rolls_radius_m / ratios[_driver(x).shaft] if answers[b].path else 0.0 for b, x in enumerate(belts)]
    paces = tuple(r / rim[0] if rim and rim[0] else 0.0 for r in rim)
    runs, given = tuple(b for b in order if answers[b].path), tuple(_given(powered.get(b, x)) for b, x in enumerate(belts))
    return TrainAnswer(found, _shafts(belts, found, turning), paces, runs, ratios, over, given)


def _given(belt: BeltOnWheels) -> dict[int, float]:
    """The power of a belt at each of its wheels that has any, all of it at its driver."""
    found = {i: w.power_w for i, w in enumerate(belt.wheels) if w.role != "driver" and w.power_w > 0}
    return found | {i: sum(found.values()) for i, w in enumerate(belt.wheels) if w.role == "driver" and found}


def _in_line(belts: Sequence[BeltOnWheels], order: Sequence[int], power_w: float) -> Sequence[BeltOnWheels]:
    """The belts with the driver's power, less each one's loss, at the last wheel; as they are where powers are stated or ways part."""
    ways = [[w for w in belts[b].wheels if w.role == "driven"] for b in order]
    shafts = {_driver(belts[b]).shaft for b in order}
    if not order or any(w.power_w > 0 for way in ways for w in way) or any(len(way) != 1 for way in ways) or len(shafts) < len(order):
        return belts
    arrives, last = power_w * math.prod(belts[b].kept for b in order), order[-1]
    wheels = tuple(replace(w, power_w=arrives) if w.role == "driven" else w for w in belts[last].wheels)
    return [replace(belt, wheels=wheels) if b == last else belt for b, belt in enumerate(belts)]


def _refused(sentence: str) -> PathAnswer:
    return PathAnswer(None, problems=(Problem("wheels", sentence),))


def _driver(belt: BeltOnWheels) -> PathWheel:
    return next(w for w in belt.wheels if w.role == "driver")


def _order(belts: Sequence[BeltOnWheels]) -> tuple[list[int], dict[int, int]]:
    """The belts from the engine on, and for each shaft that a belt turns, which belt does."""
    order: list[int] = []
    fed_by: dict[int, int] = {}
    waiting = [b for b, belt in enumerate(belts) if sum(w.role == "driver" for w in belt.wheels) == 1]
    turned = {_driver(belts[0]).shaft} if waiting[:1] == [0] else set()
    while ready := [b for b in waiting if _driver(belts[b]).shaft in turned]:
        b = ready[0]
        waiting.remove(b)
        order.append(b)
        if belts[b].lay is Lay.QUARTER:
            continue  # what hangs on the turned shaft lies in another plane
        for w in belts[b].wheels:
            if w.shaft not in turned:
                turned.add(w.shaft)
                fed_by[w.shaft] = b
    return order, fed_by


def _powers(belts: Sequence[BeltOnWheels], order: Sequence[int], fed_by: dict[int, int]) -> dict[int, BeltOnWheels]:
    """The belts with what each gives up at a wheel.

    Its own machine's power and that of every belt driven from its shaft, the belt's loss in it.
    """
    passed_on: dict[int, float] = {}  # shaft: power that leaves it by other belts
    done: dict[int, BeltOnWheels] = {}
    for b in reversed(order):
        wheels = tuple(_gives(w, passed_on if fed_by.get(w.shaft) == b else {}, belts[b].kept) for w in belts[b].wheels)
        done[b] = replace(belts[b], wheels=wheels)
        shaft = _driver(belts[b]).shaft
        passed_on[shaft] = passed_on.get(shaft, 0.0) + sum(w.power_w for w in wheels if w.role == "driven")
    return done


def _gives(w: PathWheel, passed_on: dict[int, float], kept: float) -> PathWheel:
    if w.role == "driver":
        return w
    takes = w.power_w + passed_on.get(w.shaft, 0.0)
    return replace(w, role="driven" if w.shaft in passed_on else w.role, power_w=takes / kept)


def _shafts(
    belts: Sequence[BeltOnWheels], answers: Sequence[PathAnswer], turning: dict[int, tuple[int, float | None]]
) -> tuple[Shaft, ...]:
    on: dict[int, list[tuple[int, int]]] = {}
    for b, belt in enumerate(belts):
        for i, w in enumerate(belt.wheels):
            on.setdefault(w.shaft, []).append((b, i))
    return tuple(
        Shaft(shaft, tuple(wheels), turning[shaft][1] if shaft in turning else None, _pull(answers, wheels))
        for shaft, wheels in on.items()
        if len(wheels) > 1
    )


def _pull(answers: Sequence[PathAnswer], wheels: Sequence[tuple[int, int]]) -> tuple[float, float] | None:
    pulls = []
    for b, i in wheels:
        if i not in answers[b].order or answers[b].quarter:
            return None
        pull = answers[b].wheels[answers[b].order.index(i)].pull_n
        if pull is None:
            return None
        pulls.append(pull)
    return sum(p[0] for p in pulls), sum(p[1] for p in pulls)
