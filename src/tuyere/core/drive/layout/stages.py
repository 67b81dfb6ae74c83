"""What each stage of a surveyed layout does and wants.

Shaft speeds, powers with their losses, pulls, the belts each wheel needs, what slips first.

A stage is one belt set on its wheels, two or many. No standard rates a belt on many wheels: each loaded wheel is rated as the small wheel
of a pair, at its own diameter, speed and wrap, without the power that a ratio adds; the wheel that wants the most belts governs. Where a
stage has two wheels its ratio counts. An engineering estimate, on the safe side, and said so.
"""

import math
from collections.abc import Mapping, Sequence

from tuyere.core.basis.page import Page
from tuyere.core.drive.layout.carries import carried_by, carried_whole
from tuyere.core.drive.layout.duties import ENOUGH, ShaftDuty, StageDuty, TrainDemands, TrainDuty, WheelDuty
from tuyere.core.drive.layout.form import PathReading
from tuyere.core.drive.layout.slip import slip_between
from tuyere.core.kinds.loop import Loop, Turning
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.rating.service import IDLERS, service_factor
from tuyere.core.mechanics.on_wheels.one_belt import PathAnswer
from tuyere.core.mechanics.on_wheels.train import TrainAnswer
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, PathWheel


def duties_of(read: PathReading, duty: TrainDemands, own: OwnRatings) -> TrainDuty | None:
    """The stages of a layout that runs; None until it does."""
    if read.train is None or not read.train.belts[0].path:
        return None
    order, shares = read.train.order, read.train.powers
    stages = [_stage(b, read, shares[b], duty, own) for b in order]
    shafts = _shafts(read, read.train)
    wanted = [
        w
        for w, known in (("driven_class", duty.driven_class), ("hours_per_day", duty.hours_per_day), ("driver_speed", duty.driver_speed))
        if not known
    ]
    if not any(shares):
        wanted.append("wheel_power")
    page = Page()
    last = _last(stages, shafts)
    carried_whole(page, stages, last)
    _read(page, read, shafts, last, duty)
    return TrainDuty(read, tuple(stages), shafts, last, page, tuple(wanted))


def _driver(on: BeltOnWheels) -> int:
    return next(i for i, w in enumerate(on.wheels) if w.role == "driver")


def _read(page: Page, read: PathReading, shafts: Sequence[ShaftDuty], last: ShaftDuty | None, duty: TrainDemands) -> None:
    """The slip between the driver and a shaft that was read: the one named, or else the last."""
    shaft = next((s for s in shafts if s.over and s.name == duty.shaft and math.isfinite(s.ratio)), last)
    if shaft and duty.tach_driven and (duty.tach_driver or duty.driver_speed):
        slip_between(page, read, shaft.name, shaft.wheels, shaft.ratio, shaft.over, (duty.tach_driver, duty.driver_speed, duty.tach_driven))


def _shafts(read: PathReading, train: TrainAnswer) -> tuple[ShaftDuty, ...]:
    speeds: dict[int, float | None] = {}
    names: dict[int, list[str]] = {}
    alone: dict[int, float | None] = {}
    for b in train.order:
        answer, on = train.belts[b], read.on_wheels[b]
        states = {i: s for i, s in zip(answer.order, answer.wheels, strict=True)}
        for i, w in enumerate(on.wheels):
            names.setdefault(w.shaft, []).append(w.name)
            if i in states:
                speeds.setdefault(w.shaft, states[i].speed_rad_per_s)
                pull = states[i].pull_n
                alone[w.shaft] = math.hypot(*pull) if pull else None
    shared = {s.number: s.force_n for s in train.shafts}
    return tuple(
        ShaftDuty(
            " and ".join(n), tuple(n), speeds.get(s), train.ratios.get(s, math.nan), shared.get(s, alone.get(s)), train.over.get(s, ())
        )
        for s, n in names.items()
    )


def _idler_words(on: BeltOnWheels, answer: PathAnswer) -> list[tuple[str, str]]:
    """Each idler and where it presses.

    Before the first wheel that takes power the belt is slack, after the last it is tight, between them both.
    """
    in_turn = [on.wheels[i] for i in answer.order]
    loaded = [k for k, w in enumerate(in_turn) if w.role == "driven"]
    found = []
    for k, w in enumerate(in_turn):
        if w.role == "idler":
            side = "slack" if not loaded or k < loaded[0] else "tight"
            found.append((w.name, f"{side} side, {'inside' if w.contact == 'inside' else 'outside'}"))
    return found


def _stage(b: int, read: PathReading, powers: Mapping[int, float], duty: TrainDemands, own: OwnRatings) -> StageDuty:
    assert read.train
    loop, answer, on = read.belts[b], read.train.belts[b], read.on_wheels[b]
    assert answer.path
    first = on.wheels[_driver(on)]
    driven = [w for w in on.wheels if w.role == "driven"]
    ratio = driven[0].rolls_radius_m / first.rolls_radius_m if len({round(w.rolls_radius_m, 6) for w in driven}) == 1 else None
    factor = _factor(on, answer, duty, loop, ratio)
    length = answer.path.length_m
    wheels = tuple(
        _wheel(k, i, on, answer, powers.get(i, 0.0), factor, loop, length, own, read.places[b][i]) for k, i in enumerate(answer.order)
    )
    state = answer.wheels[0]
    speed = state.speed_rad_per_s * first.rolls_radius_m if state.speed_rad_per_s else None
    rated = [w for w in wheels if w.belts is not None]
    worst = max(rated, key=lambda w: w.belts or 0.0, default=None)
    needed = math.ceil((worst.belts or 0.0) - ENOUGH) if worst else None
    slips = sorted((w for w in wheels if w.slips_at is not None), key=lambda w: w.slips_at or 0.0)
    fitted = loop.count * loop.ribs
    title = f"{first.name} to {_listed([w.name for w in driven])}" if driven else first.name
    verdicts = carried_by(wheels, worst, needed, fitted, factor, loop, on)
    return StageDuty(
        b + 1,
        first.shaft == read.on_wheels[0].wheels[_driver(read.on_wheels[0])].shaft,
        title,
        loop.made.name if loop.made else loop.of,
        fitted,
        loop.family.runs,
        loop.counted,
        speed,
        ratio,
        powers.get(_driver(on)),
        factor,
        needed if loop.counted else None,
        worst.name if worst else "",
        slips[0].name if slips else None,
        answer.tension_n / on.count if answer.tension_n is not None else None,
        on.tension_n is not None,
        wheels,
        tuple(verdicts),
    )


def _listed(names: Sequence[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _factor(on: BeltOnWheels, answer: PathAnswer, duty: TrainDemands, loop: Loop, ratio: float | None) -> float | None:
    if not duty.driven_class or not duty.hours_per_day:
        return None
    up = 1 / ratio if ratio else 1.0
    factor, _ = service_factor(
        loop.family, duty.driven_class, duty.driver_class, duty.hours_per_day, up, "none", duty.surroundings, duty.starts
    )
    if not loop.family.counts_idler:
        return factor
    return factor + sum(IDLERS[where] for _, where in _idler_words(on, answer))


def _wheel(
    k: int,
    i: int,
    on: BeltOnWheels,
    answer: PathAnswer,
    power_w: float,
    factor: float | None,
    loop: Loop,
    length_m: float,
    own: OwnRatings,
    place: int,
) -> WheelDuty:
    w, state = on.wheels[i], answer.wheels[k]
    pull = state.pull_n
    rated, why_not = _rated(w, state.speed_rad_per_s, state.wrap_rad, on, loop, length_m, own) if power_w > 0 else (None, "")
    belts = power_w * factor / rated if rated and factor else None
    return WheelDuty(
        w.name,
        w.role,
        state.speed_rad_per_s,
        state.wrap_rad,
        power_w,
        power_w * (on.kept if w.role != "driver" else 1.0),
        math.hypot(*pull) if pull else None,
        math.atan2(pull[1], pull[0]) if pull else None,
        state.slips_at,
        rated,
        belts,
        why_not,
        place,
    )


def _rated(
    w: PathWheel, speed: float | None, wrap_rad: float, on: BeltOnWheels, loop: Loop, length_m: float, own: OwnRatings
) -> tuple[float | None, str]:
    """What one belt (or rib), or the whole loop where it is not counted, carries on a wheel, W, or why that is not known."""
    if speed is None:
        return None, "The driver's speed is not known."
    if w.contact == "back" and not (on.both_faces and (w.face == "grooved" or on.seat == "rim")):
        return None, "Driven from the belt's back, it is not rated: only friction on a flat face carries."
    two = len(on.wheels) == 2
    rolls = [x.rolls_radius_m for x in on.wheels]
    pair = max(rolls) / min(rolls)
    # The large wheel of a pair is never the one that governs; it is rated by the small one's bend and speed.
    small, fast = w, speed
    if two:
        small = min(on.wheels, key=lambda x: x.line_radius_m)
        fast = speed * w.rolls_radius_m / small.rolls_radius_m
        wrap_rad = min(wrap_rad, math.tau - wrap_rad) if wrap_rad > math.pi else wrap_rad
    try:
        return loop.rated(Turning(2 * small.line_radius_m, small.teeth, fast, wrap_rad, pair if two else 1.0, length_m), own), ""
    except OutOfRangeError as reason:
        return None, str(reason)


def _last(stages: Sequence[StageDuty], shafts: Sequence[ShaftDuty]) -> ShaftDuty | None:
    """The shaft at the end.

    Over the most stages, however fast it turns; of several the one whose power is the most, then the last surveyed.
    """
    ends = [s for s in shafts if s.over and math.isfinite(s.ratio) and not _is_idler(s, stages)]
    takes = {w.name: w.shaft_w for stage in stages for w in stage.wheels if w.role != "driver"}
    return max(reversed(ends), key=lambda s: (len(s.over), max(takes.get(w, 0.0) for w in s.wheels)), default=None)


def _is_idler(shaft: ShaftDuty, stages: Sequence[StageDuty]) -> bool:
    roles = {w.role for s in stages for w in s.wheels if w.name in shaft.wheels}
    return roles == {"idler"}
