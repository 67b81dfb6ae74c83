"""One candidate held against everything asked for, in words: what kills it and by how much, or what it is like.

The plain counterpart of `search`, by the scalar code of geometry, rating and loads.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from tuyere.core.basis.figure import both
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.quantity import System, show
from tuyere.core.kinds.choose import HUB_OVER_BORE, ChoiceWheel, Choosable, StockLength
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.traits import Measures, traits
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.loads import Strands, pull_on_shaft, strands_at_rest_tension
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tension.hanging import pair_hang

CLEAR_M = 0.005  # daylight between the two wheels
# In the order in which they are held against a candidate: the first one is what it is counted under.
CONSTRAINTS = {
    "family": "another family than you allow",
    "heat": "too hot for it",
    "kept": "does not run on the wheel you keep",
    "room": "wheel larger than the room",
    "bore": "wheel too small for the shaft",
    "small": "small wheel too small for the belt",
    "motor": "too hard on the motor's shaft",
    "speed": "driven speed off by more than you allow",
    "fast": "belt too fast",
    "rim": "rim too fast",
    "teeth": "too few teeth at its speed",
    "centres": "centres outside the room",
    "wrap": "wraps the small wheel too little",
    "width": "too wide",
    "grooves": "no wheel for so many or so wide",
    "proportion": "too broad for its wheel",
    "list": "not in your list",
    "rating": "nothing rates it here",
    "power": "does not carry the power",
    "reserve": "does not carry on with one belt gone",
    "pull": "pulls the shaft too hard",
}


@dataclass(frozen=True)
class Failure:
    """What kills a candidate: a constraint, a sentence with the amount, and the amount as a share of the limit."""

    constraint: str
    says: str
    share: float


@dataclass(frozen=True)
class Judged:
    """A candidate's failures, in the order of the constraints, and its measures where it can be drawn and rated."""

    failures: tuple[Failure, ...]
    measures: Measures | None


def judge(problem: Demands, kind: Choosable, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float) -> Judged:
    """Hold one candidate against the problem; everything that fails is said."""
    found = list(pair_failures(problem, kind, driver, driven))
    small = min((driver, driven), key=lambda w: w.line_m)
    speed, belt_speed = problem.driver_speed * driver.rolls_m / driven.rolls_m, problem.driver_speed * driver.rolls_m / 2
    try:
        centre = _centre(problem, kind, driver, driven, length)
        lean = math.asin((max(driver.line_m, driven.line_m) - small.line_m) / (2 * centre))
    except (GeometryError, ValueError):
        found.append(Failure("centres", f"{length.name if length else 'The belt'} is too short to go round both wheels.", 1.0))
        return Judged(tuple(found), None)
    wrap = math.pi - 2 * lean
    found += _centres(problem, driver, driven, centre)
    if wrap < kind.least_wrap * (1 - 1e-9):
        found.append(
            Failure(
                "wrap",
                f"It wraps only {math.degrees(wrap):.0f}° of the small wheel: it wants {math.degrees(kind.least_wrap):.0f}°. Farther "
                "apart, or a smaller ratio.",
                1 - wrap / kind.least_wrap,
            )
        )
    found += _count(problem, kind, driver, driven, length, count)
    try:
        capacity = kind.rate(driver, driven, length, count, wrap, problem)
    except OutOfRangeError as reason:
        return Judged((*found, Failure("rating", str(reason), 1.0)), None)
    factor, _ = problem.service_factor(kind.drive)
    design = problem.power_w * factor
    if capacity < design:
        found.append(
            Failure(
                "power",
                f"It carries {_power(capacity)}; the design power is {_power(design)}: {1 - capacity / design:.0%} short.",
                1 - capacity / design,
            )
        )
    elif problem.reserve and not (kind.reserve_counts and capacity * (count - 1) / count >= design):
        left = capacity * (count - 1) / count if kind.reserve_counts else 0.0
        found.append(
            Failure(
                "reserve",
                f"With one gone {_power(left)} is left; the design power is {_power(design)}."
                if left
                else "There is nothing left to run on when it breaks.",
                1 - left / design,
            )
        )
    hang = float(hang_of(problem, kind, driver.line_m, driven.line_m, centre, count))
    strands = _strands(problem, kind, design, belt_speed, wrap, hang)
    pull = pull_on_shaft(strands, wrap).total_n
    if problem.pull_most_n is not None and pull > problem.pull_most_n:
        found.append(
            Failure(
                "pull",
                f"It pulls the shaft with {show(pull, 'force', System.US)} ({show(pull, 'force', System.SI)}): "
                f"{pull / problem.pull_most_n - 1:.0%} over your limit.",
                pull / problem.pull_most_n - 1,
            )
        )
    try:
        made = length.line_m if length else open_belt.belt_length(driver.line_m, driven.line_m, centre)
    except GeometryError:
        return Judged(tuple(found), None)
    measures = Measures(
        speed,
        speed / problem.driven_speed - 1,
        belt_speed,
        centre,
        wrap,
        capacity,
        design,
        capacity / design - 1,
        pull,
        float(kind.width(np.array(count))),
        made,
    )
    return Judged(tuple(found), measures)


def _warm(celsius: float) -> str:
    return f"{celsius * 1.8 + 32:.0f} °F ({celsius:.0f} °C)"


def _power(value: float) -> str:
    return f"{show(value, 'power', System.US)} ({show(value, 'power', System.SI)})"


def pair_failures(problem: Demands, kind: Choosable, driver: ChoiceWheel, driven: ChoiceWheel) -> Iterator[Failure]:
    """What kills two wheels whatever runs on them."""
    if not kind.wanted_by(problem.families) or (problem.kinds and kind.name not in problem.kinds):
        yield Failure("family", f"{kind.name} is not among the drives that you allow.", 1.0)
    most = traits()[kind.traits].hottest_c
    if problem.ambient_c is not None and problem.ambient_c > most:
        yield Failure(
            "heat",
            f"The air is at {_warm(problem.ambient_c)}; its usual make stands {_warm(most)}. Ask for a heat-proof one, or keep the heat "
            "off it.",
            problem.ambient_c / most - 1,
        )
    for kept, wheel, side in ((problem.keep_driver, driver, "driver"), (problem.keep_driven, driven, "driven wheel")):
        if kept and kind.wheel_kept(kept, side == "driver") != wheel:
            yield Failure("kept", f"The {side} stays as it is: {wheel.name} is another.", 1.0)
    for limit, wheel, side in ((problem.driver_most_m, driver, "driver"), (problem.driven_most_m, driven, "driven wheel")):
        if limit is not None and wheel.outside_m > limit:
            yield Failure(
                "room", f"The {side} is {both(wheel.outside_m)} across; there is room for {both(limit)}.", wheel.outside_m / limit - 1
            )
    for shaft, wheel, side in ((problem.driver_shaft_m, driver, "driver"), (problem.driven_shaft_m, driven, "driven wheel")):
        if shaft is not None and shaft > wheel.bore_most_m:
            yield Failure(
                "bore",
                f"The {side}'s shaft of {both(shaft)} is too thick for {wheel.name}: it goes to about {both(wheel.bore_most_m)} (a hub of "
                f"{HUB_OVER_BORE:g} bores inside the rim).",
                shaft / max(wheel.bore_most_m, 1e-6) - 1,
            )
    small = min((driver, driven), key=lambda w: w.line_m)
    least, said = kind.least_small(problem)
    measure = float(kind.small_measure(np.array(small.line_m), np.array(float(small.teeth or 0))))
    if measure < least * (1 - 1e-9):
        yield Failure("small", f"The small wheel ({small.name}) is too small: {said}.", 1 - measure / least)
    short = float(kind.motor_short(np.array(driver.line_m), np.array(driver.outside_m), problem))
    if problem.motor and short > 1e-9:
        yield Failure(
            "motor",
            f"{driver.name} pulls too hard on the motor's shaft ({problem.motor.named}): it must be {both(short)} larger.",
            short / driver.line_m,
        )
    speed, belt_speed = problem.driver_speed * driver.rolls_m / driven.rolls_m, problem.driver_speed * driver.rolls_m / 2
    error = speed / problem.driven_speed - 1
    if abs(error) > problem.tolerance:
        yield Failure(
            "speed",
            f"The driven shaft turns at {show(speed, 'rotation', System.US)}: {abs(error):.1%} too {'fast' if error > 0 else 'slow'}, and "
            f"you allow {problem.tolerance:.1%}.",
            abs(error) - problem.tolerance,
        )
    limit = kind.fastest(problem)
    if belt_speed > limit:
        yield Failure(
            "fast",
            f"It runs at {both(belt_speed, 'velocity')}; the limit is "
            f"{both(limit, 'velocity')}{'' if problem.fast_wheels else ', with cast-iron wheels of ordinary balance'}.",
            belt_speed / limit - 1,
        )
    yield from _turning(problem, kind, driver, driven, speed)


def _turning(problem: Demands, kind: Choosable, driver: ChoiceWheel, driven: ChoiceWheel, speed: float) -> Iterator[Failure]:
    """What the wheels' own speeds forbid: rims past their limit, and too few teeth for the small one."""
    most = kind.rim_limit(problem)
    for side, wheel, turns in (("driver", driver, problem.driver_speed), ("driven wheel", driven, speed)):
        rim = wheel.outside_m * turns / 2
        if rim > most:
            yield Failure(
                "rim", f"The {side}'s rim runs at {both(rim, 'velocity')}; the limit is {both(most, 'velocity')}.", rim / most - 1
            )
            break
    small = min((driver, driven), key=lambda w: w.line_m)
    fast = max(problem.driver_speed, speed)
    fewest = float(kind.least_teeth(np.array(fast)))
    if (small.teeth or 0) < fewest:
        at = show(fast, "rotation", System.US)
        says = (
            f"{small.name} are too few at {at}: it wants {fewest:.0f}."
            if math.isfinite(fewest)
            else f"No pulley of {kind.name} is tabled for {at}."
        )
        yield Failure("teeth", says, 1 - (small.teeth or 0) / fewest)


def _centre(problem: Demands, kind: Choosable, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None) -> float:
    if length is None:
        return problem.centre_middle_m
    return kind.centre(driver, driven, length)


def _centres(problem: Demands, driver: ChoiceWheel, driven: ChoiceWheel, centre: float) -> Iterator[Failure]:
    touching = (driver.outside_m + driven.outside_m) / 2 + CLEAR_M
    if centre < touching:
        yield Failure("centres", f"At {both(centre)} the wheels would touch: they want {both(touching)}.", touching / centre - 1)
    elif centre < problem.centre_low_m * (1 - 1e-9):
        yield Failure(
            "centres",
            f"The centres come to {both(centre)}: {both(problem.centre_low_m - centre)} closer than there is room for.",
            problem.centre_low_m / centre - 1,
        )
    elif centre > problem.centre_high_m * (1 + 1e-9):
        yield Failure(
            "centres",
            f"The centres come to {both(centre)}: {both(centre - problem.centre_high_m)} farther than there is room for.",
            centre / problem.centre_high_m - 1,
        )


def _count(
    problem: Demands, kind: Choosable, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float
) -> Iterator[Failure]:
    width = float(kind.width(np.array(count)))
    most, where = kind.widest(problem)
    if most is not None and width > most * (1 + 1e-9):
        yield Failure("width", f"It is {both(width)} wide; there is room for {both(most)} {where}.", width / most - 1)
    for wheel in (driver, driven):
        if not wheel.fewest <= count <= wheel.most:
            yield Failure(
                "grooves",
                f"{wheel.name} {kind.made_for(wheel)}.",
                abs(count / min(max(count, wheel.fewest), wheel.most) - 1),
            )
            break
    small = min(driver.outside_m, driven.outside_m)
    if kind.most_over_wheel is not None and width > kind.most_over_wheel * small * (1 + 1e-9):
        yield Failure(
            "proportion",
            f"A belt {both(width)} wide on a wheel of {both(small)}: nobody builds it so broad. A larger wheel, or a narrower belt.",
            width / small,
        )
    if not kind.had_at(length, count):
        yield Failure("list", f"Your list has no {kind.shown(count)}{f' as {length.name}' if length else ''}, or not enough of them.", 1.0)


def hang_of(problem: Demands, kind: Choosable, driver_m: Numbers, driven_m: Numbers, centre_m: Numbers, count: Numbers) -> Numbers:
    """What the slack run of `count` strands hangs with (N), the wheels' line diameters and centres in m; 0 where it does not hang free.

    Scalars or arrays.
    """
    if not kind.loop.hangs:
        return np.zeros_like(centre_m)
    return pair_hang(
        kind.loop.strand.mass_kg_per_m * np.asarray(count),
        centre_m,
        np.asarray(driver_m) / 2,
        np.asarray(driven_m) / 2,
        math.radians(problem.centre_line_deg),
        problem.rotation == "clockwise",
        problem.driven_class,
    )


def _strands(problem: Demands, kind: Choosable, design: float, belt_speed: float, wrap: float, hang: float) -> Strands:
    """At the tension that design power sets; a chain hangs free on its slack side and pulls by the power there is.

    The centrifugal part is left out: it holds the belt on its curve, and no shaft feels it.
    """
    ratio = kind.loop.design_ratio(wrap)
    if math.isinf(ratio):
        return Strands(problem.power_w / belt_speed + hang, hang, 0.0)
    effective = design / belt_speed
    return strands_at_rest_tension(effective, kind.standing * effective / 2 * (ratio + 1) / (ratio - 1))
