"""A target speed over stock wheels: every pair within the tolerance, whether the belt that is on still fits, and what speaks against it.

Stock is the tables' common sizes, assumed; the driven speed is by the tachometer's ratio where both shafts were read, else by the
diameters with the slip usual for the family.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from tuyere.core.basis.page import Page
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds import motor
from tuyere.core.kinds.fitted import ROLES, Fitted, Role
from tuyere.core.kinds.loop import Loop
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT, CAST_IRON_RIM_LIMIT_M_PER_S
from tuyere.core.stations.speed.machine import not_judged

Keep = Literal["", "driver", "driven"]
Meaning = Literal["", "slip", "diameter"]
_FASTER = 0.02  # a driven shaft cannot turn faster than its wheels allow: past this share the reading is not explained
_APART = 1.02  # of touching centres
_LOOKED_AT = 60  # nearest pairs judged in full
SHOWN = 12


@dataclass(frozen=True)
class TargetPair:
    """One pair of wheels that gives the speed: driven speed (rad/s), off the target (a share), and what runs `on` it.

    `changes`: which wheels are new. `against`: what speaks against it, in words.
    """

    driver: StockWheel
    driven: StockWheel
    speed: float
    off: float
    belt_speed: float | None
    wrap_rad: float | None
    changes: tuple[Role, ...]
    on: PairBelt
    against: tuple[str, ...]


@dataclass(frozen=True)
class Targets:
    """Pairs, the best first.

    How many pairs of the stock there are and how many hit the speed; how the speed was reckoned; the exact wheel for each; `held`: a
    reading is to be explained first.
    """

    pairs: tuple[TargetPair, ...]
    stock: int
    hits: int
    by: str
    exact_driver_m: float
    exact_driven_m: float
    held: bool = False


@dataclass(frozen=True)
class _Limits:
    """What a pair is held against besides its belt.

    The motor's shaft by its power, and the machine's highest speed (rad/s); None: not known. `held`: what the tachometer read is not
    explained yet.
    """

    motor: motor.MotorLimit | None
    most_speed: float | None
    held: bool


def motor_limit(spec: DriveSpec) -> motor.MotorLimit | None:
    """What an electric motor of the driver's power and speed stands; None for an engine, or where no table has it."""
    if spec.driver_class != "normal" or not (spec.driver_power and spec.driver_speed):
        return None
    found = motor.limit(spec.driver_power.value, spec.driver_speed.value)
    return found if isinstance(found, motor.MotorLimit) else None


def smallest(spec: DriveSpec, role: Role) -> tuple[float, str]:
    """The smallest diameter that the speed of a wheel on that shaft goes by (m), by what runs on it and, on the driver, by the motor's shaft;
    and which of them.
    """
    loop = spec.fitted.loop if spec.fitted else None
    if loop is None:
        return 0.0, ""
    least, of = loop.smallest
    stands = motor_limit(spec) if role == "driver" and of else None
    by_motor = loop.rolls_by_motor(stands.classical_m, stands.narrow_m) if stands else 0.0
    return (by_motor, f"a motor of {stands.named}") if stands and by_motor > least else (least, of)


def targets(
    spec: DriveSpec,
    page: Page,
    target: float,
    tolerance: float,
    keep: Keep = "",
    most_speed: float | None = None,
    meaning: Meaning = "",
) -> Targets | None:
    """Search the stock for pairs within `tolerance` (a share) of the target driven speed (rad/s).

    most_speed: the machine's own limit (rad/s). meaning: what a tachometer reading that disagrees with the diameters was found to mean;
    while it is not settled, every pair is held. None until the wheels and the driver's speed are known.
    """
    on = spec.fitted
    loop = on.loop if on else None
    if on is None or loop is None or not page.has("ratio", "driver_speed"):
        return None
    pace, by, held = _pace(spec, page, meaning)
    limits = _Limits(motor_limit(spec), most_speed, held)
    here, over = loop.stock(), loop.over_m
    now: dict[Role, StockWheel] = {
        role: StockWheel(page.values[f"{role}_datum"].n, page.values[f"{role}_outside"].n, on.teeth(role), over) for role in ROLES
    }
    drivers = (now["driver"],) if keep == "driver" else _with(here, now["driver"])
    drivens = (now["driven"],) if keep == "driven" else _with(here, now["driven"])
    size = tuple(np.array([w.rolls for w in wheels]) for wheels in (drivers, drivens))
    speeds = pace * size[0][:, None] / size[1][None, :]
    off = np.abs(speeds / target - 1)
    hits = np.argwhere(off <= tolerance)
    best = sorted(((float(off[i, j]), int(i), int(j)) for i, j in hits), key=lambda h: (_changed(now, drivers[h[1]], drivens[h[2]]), h[0]))
    kept = [
        p
        for p in (
            _pair(spec, on, loop, page, now, drivers[i], drivens[j], float(speeds[i, j]), target, limits) for _, i, j in best[:_LOOKED_AT]
        )
        if p
    ]
    kept.sort(key=_rank)
    k = pace * now["driver"].rolls / (now["driven"].rolls * target)  # driven speed now over the target
    return Targets(
        tuple(kept[:SHOWN]),
        len(drivers) * len(drivens),
        len(hits),
        by,
        (now["driver"].line_m + over) / k - over,
        (now["driven"].line_m + over) * k - over,
        held,
    )


def rated(spec: DriveSpec) -> bool:
    """Whether the drive's power can be rated here."""
    loop = spec.fitted.loop if spec.fitted else None
    return loop is not None and loop.rateable(spec.own)


def say(found: Targets | None, spec: DriveSpec, page: Page, target: float | None = None, most_speed: float | None = None) -> list[Verdict]:
    """What a search came to; target and the machine's highest speed in rad/s."""
    if found is not None and found.held:
        off = page.figures["slip"].us
        return [
            Verdict(
                "target",
                Tone.WATCH,
                f"The tachometer and the diameters are {off} apart: settle that first",
                "Slip leaves with the wheel that caused it; a wrong diameter stays in the ratio. Turn the drive by hand and count, under "
                "What it means, then say here which it was: until then every pair is held.",
            )
        ]
    if found is None:
        known = page.has("ratio", "driver_speed")
        return [
            Verdict(
                "target",
                Tone.OPEN,
                "Which speed should it have?" if known else "Survey both wheels and the driver's speed first",
                "Every stock pair that gives it stands here then.",
            )
        ]
    if not found.pairs:
        said = [
            Verdict(
                "target",
                Tone.WATCH,
                "No stock pair comes that near",
                f"{found.stock} pairs looked at{f', {found.hits} near enough but none that fits' if found.hits else ''}. Allow more, free "
                "the other wheel, or turn one down: its exact size stands below.",
            )
        ]
    else:
        sound = sum(not p.against for p in found.pairs)
        now = spec.tach_driven.value if spec.tach_driven else page.values["driven_speed"].n
        unjudged = not_judged(now, target, most_speed) if target is not None else None
        tone = Tone.WATCH if not sound else Tone.OPEN if unjudged else Tone.GOOD
        said = [
            *([unjudged] if unjudged else []),
            Verdict(
                "target",
                tone,
                f"{sound} of the nearest {len(found.pairs)} pairs have nothing against them",
                f"{found.hits} of {found.stock} stock pairs are near enough. Speeds {found.by}. Stock is the tables' common sizes, "
                "assumed.",
            ),
        ]
    if not rated(spec):
        said.append(
            Verdict(
                "target",
                Tone.OPEN,
                "This kind of drive is not rated here yet",
                "Speed, fit and limits are judged; what it carries is not: ask its maker's table.",
            )
        )
    return said


def with_pair(pair: TargetPair, spec: DriveSpec) -> DriveSpec:
    """A drive with this pair and what runs on it, untouched by what the tachometer read of the old one."""
    assert spec.fitted
    return replace(spec, fitted=spec.fitted.with_pair(pair.driver, pair.driven, pair.on), tach_driver=None, tach_driven=None)


def carries(pair: TargetPair, spec: DriveSpec) -> str:
    """What the pair carries or wants, in few words; empty where it is not rated, or nothing runs on it."""
    if not rated(spec) or not pair.on.belt or spec.fitted is None:
        return ""
    page, on = solve_page(with_pair(pair, spec)), spec.fitted
    if page.has("belts_needed"):
        return f"{page.values['belts_needed'].n:.0f}{f' of {on.pieces}' if on.pieces else ''} belts needed"
    if not page.has("capacity"):
        return ""
    if not page.has("design_power"):
        return f"carries {page.figures['capacity'].us} ({page.figures['capacity'].si})"
    return f"carries {page.values['capacity'].n / page.values['design_power'].n:.0%} of the design power"


def _with(here: Sequence[StockWheel], now: StockWheel) -> tuple[StockWheel, ...]:
    """The stock, and the wheel that is on: it costs nothing."""
    return (now, *(w for w in here if not _same(w, now)))


def _same(a: StockWheel, b: StockWheel) -> bool:
    return a.teeth == b.teeth if a.teeth and b.teeth else abs(a.rim_m - b.rim_m) < 0.0008


def _changed(now: dict[Role, StockWheel], driver: StockWheel, driven: StockWheel) -> int:
    return (driver is not now["driver"]) + (driven is not now["driven"])


def _pace(spec: DriveSpec, page: Page, meaning: Meaning) -> tuple[float, str, bool]:
    """Driven speed times D/d, how it was reckoned, and whether it is held back until somebody says what the reading means.

    A loss that is a wrong diameter goes with the ratio to other wheels; one that is slip need not.
    """
    usual = spec.family.slip
    if page.has("slip") and spec.tach_driven:
        strange = not -_FASTER <= page.values["slip"].n <= usual.fault
        if meaning == "diameter" or (not strange and spec.tach_driver):
            return spec.tach_driven.value * page.values["ratio"].n, "by the ratio that the tachometer read, carried over", False
        if strange and not meaning:
            return (
                spec.tach_driven.value * page.values["ratio"].n,
                "by the ratio that the tachometer read, as if a diameter were wrong",
                True,
            )
    loss = sum(usual.usual) / 2
    words = f"by the diameters, {loss:.2%} off for usual slip" if loss else "by the teeth"
    return page.values["driver_speed"].n * (1 - loss), words, False


def _pair(
    spec: DriveSpec,
    on: Fitted,
    loop: Loop,
    page: Page,
    now: dict[Role, StockWheel],
    driver: StockWheel,
    driven: StockWheel,
    speed: float,
    target: float,
    limits: _Limits,
) -> TargetPair | None:
    changes: list[Role] = [r for r, w in zip(ROLES, (driver, driven), strict=True) if w is not now[r]]
    belt = _belt(spec, on, loop, page, driver, driven)
    centre = belt.tight_at
    if centre is not None and centre <= (driver.rim_m + driven.rim_m) / 2:
        return None
    velocity = (driver.line_m + driver.over_m) * page.values["driver_speed"].n / 2
    wrap = min(open_belt.wraps(driver.line_m, driven.line_m, centre)) if centre and centre > (driver.line_m + driven.line_m) / 2 else None
    return TargetPair(
        driver,
        driven,
        speed,
        speed / target - 1,
        velocity,
        wrap,
        tuple(changes),
        belt,
        tuple(_against(loop, page, driver, driven, speed, velocity, wrap, belt, limits)),
    )


def _against(
    loop: Loop,
    page: Page,
    driver: StockWheel,
    driven: StockWheel,
    speed: float,
    velocity: float,
    wrap: float | None,
    belt: PairBelt,
    limits: _Limits,
) -> list[str]:
    found = ["held: the tachometer's reading is not explained"] if limits.held else []
    if limits.most_speed is not None and speed > limits.most_speed * (1 + 1e-9):
        found.append("faster than the machine may turn")
    found += loop.speaks_against(driver, driven, max(page.values["driver_speed"].n, speed))
    if (
        limits.motor
        and loop.narrow_series is not None
        and motor.short(limits.motor, loop.narrow_series, driver.line_m, driver.rim_m) > 1e-6
    ):
        found.append(f"driver too small for a motor of {limits.motor.named}")
    fastest, _ = loop.fastest
    if fastest and velocity > fastest:
        found.append("belt too fast")
    rims = driver.rim_m / 2 * page.values["driver_speed"].n, driven.rim_m / 2 * speed
    if max(rims) > CAST_IRON_RIM_LIMIT_M_PER_S:
        found.append(f"rim past {CAST_IRON_RIM_LIMIT}")
    least = loop.least_wrap
    if wrap is not None and least and wrap < least.value:
        found.append(f"wraps only {math.degrees(wrap):.0f}°")
    if not belt.belt:
        nearest = f": {belt.nearest} comes nearest and wants the motor {belt.slide}" if belt.nearest and belt.slide else ""
        found.append(f"no made belt fits the take-up{nearest}")
    return found


def _belt(spec: DriveSpec, on: Fitted, loop: Loop, page: Page, driver: StockWheel, driven: StockWheel) -> PairBelt:
    """The belt or chain for the pair."""
    if not page.has("centre_distance"):
        return PairBelt(loop.made.name if loop.made else "", False, None)
    now = page.values["centre_distance"].n
    return on.belt_for(driver, driven, _clear(driver, driven, now), now, spec.slide)


def _clear(driver: StockWheel, driven: StockWheel, now: float) -> float:
    """The centres as they are, or as near as the pair's wheels let them come: what would overlap has to move apart."""
    return max(now, max(driver.line_m + driven.line_m, driver.rim_m + driven.rim_m) / 2 * _APART)


def _rank(pair: TargetPair) -> tuple[int, int, int, float]:
    """Sound ones first, then the fewest new parts, then the nearest speed."""
    return len(pair.against), len(pair.changes), 0 if pair.on.stays else 1, abs(pair.off)
