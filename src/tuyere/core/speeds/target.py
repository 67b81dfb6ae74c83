"""A target speed over stock wheels: every pair within the tolerance, whether the belt that is on still fits, and what speaks against it.

Stock is the tables' common sizes, assumed; the driven speed is by the tachometer's ratio where both shafts were read, else by the
diameters with the slip usual for the family.
"""

import math
from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

import numpy as np

from tuyere.core.drives import v_belt
from tuyere.core.drives.fitted import On, StockWheel
from tuyere.core.drives.slide import slide_needed
from tuyere.core.drives.v_belt import rating as vee
from tuyere.core.entry.quantity import to_si
from tuyere.core.geometry import open_belt
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.limit import limit
from tuyere.core.selection import motor
from tuyere.core.sheet.spec import DriveSpec, Role
from tuyere.core.speed import CAST_IRON_RIM_LIMIT_M_PER_S
from tuyere.core.speeds.machine import not_judged
from tuyere.core.table import rows
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Tone, Verdict

Keep = Literal["", "driver", "driven"]
Meaning = Literal["", "slip", "diameter"]
_FASTER = 0.02  # a driven shaft cannot turn faster than its wheels allow: past this share the reading is not explained
_APART = 1.02  # of touching centres
_LOOKED_AT = 60  # nearest pairs judged in full
SHOWN = 12
_ROLES: tuple[Role, Role] = ("driver", "driven")


@dataclass(frozen=True)
class Pair:
    """One pair of wheels that gives the speed: driven speed (rad/s), off the target (a share), belt or chain, centres it stands at (m).

    `changes`: which wheels are new. `belt_stays`: the one that is on fits within the take-up. `slide`: how far the motor has to slide for the
    belt, in words. `links`: a chain's. `against`: what speaks against it, in words.
    """

    driver: StockWheel
    driven: StockWheel
    speed: float
    off: float
    belt_speed: float | None
    wrap_rad: float | None
    changes: tuple[Role, ...]
    belt: str
    belt_stays: bool
    centre_m: float | None
    slide: str
    links: int | None
    against: tuple[str, ...]


@dataclass(frozen=True)
class Targets:
    """Pairs, the best first; how many pairs of the stock there are and how many hit the speed; how the speed was reckoned; the exact wheel for each; `held`: a reading is to be explained first."""

    pairs: tuple[Pair, ...]
    stock: int
    hits: int
    by: str
    exact_driver_m: float
    exact_driven_m: float
    held: bool = False


@dataclass(frozen=True)
class _Limits:
    """What a pair is held against besides its belt: the motor's shaft by its power, and the machine's highest speed (rad/s); None: not known. `held`: what the tachometer read is not explained yet."""

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
    """The smallest pitch diameter of a V-sheave on that shaft (m), by the belt and, on the driver, by the motor's shaft; and which of them."""
    if spec.section is None:
        return 0.0, ""
    over, narrow = v_belt.pitch_over_datum(spec.section), "narrow" in spec.section.series
    least, of = v_belt.min_datum_diameter(spec.section) + over, f"section {spec.section.name}"
    stands = motor_limit(spec) if role == "driver" else None
    if stands:
        by_motor = v_belt.datum_from_outside(spec.section, stands.narrow_m) if narrow else stands.classical_m + over
        if by_motor > least:
            return by_motor, f"a motor of {stands.named}"
    return least, of


@cache
def _v_stock(groove: str, count: int, over: float) -> tuple[StockWheel, ...]:
    found = []
    for r in rows("v_sheaves"):
        if r["groove"] == groove and r["kind"] == "stock" and (not r["grooves"] or str(count) in r["grooves"].split()):
            found.append(
                StockWheel(
                    to_si(float(r["diameter"]), "length", r["unit"]), to_si(float(r["outside_diameter"]), "length", r["unit"]), over_m=over
                )
            )
    return tuple(found)


def stock(spec: DriveSpec) -> tuple[StockWheel, ...]:
    """The stock wheels that the drive's belt or chain runs on."""
    if spec.section:
        return _v_stock(spec.section.groove, spec.belt_count or 1, v_belt.pitch_over_datum(spec.section))
    return spec.line.stock() if spec.line else ()


def targets(
    spec: DriveSpec, page: Page, target: float, tolerance: float, keep: Keep = "", most_speed: float | None = None,
    meaning: Meaning = "",
) -> Targets | None:  # fmt: skip
    """Search the stock for pairs within `tolerance` (a share) of the target driven speed (rad/s).

    most_speed: the machine's own limit (rad/s). meaning: what a tachometer reading that disagrees with the diameters was found to mean; while
    it is not settled, every pair is held. None until the wheels and the driver's speed are known.
    """
    if not page.has("ratio", "driver_speed"):
        return None
    pace, by, held = _pace(spec, page, meaning)
    limits = _Limits(motor_limit(spec), most_speed, held)
    here = stock(spec)
    over = v_belt.pitch_over_datum(spec.section) if spec.section else 0.0
    now: dict[Role, StockWheel] = {role: StockWheel(page.values[f"{role}_datum"].n, page.values[f"{role}_outside"].n, _teeth(spec, role), over) for role in _ROLES}  # fmt: skip
    drivers = (now["driver"],) if keep == "driver" else _with(here, now["driver"])
    drivens = (now["driven"],) if keep == "driven" else _with(here, now["driven"])
    size = tuple(np.array([w.rolls for w in wheels]) for wheels in (drivers, drivens))
    speeds = pace * size[0][:, None] / size[1][None, :]
    off = np.abs(speeds / target - 1)
    hits = np.argwhere(off <= tolerance)
    best = sorted(((float(off[i, j]), int(i), int(j)) for i, j in hits), key=lambda h: (_changed(now, drivers[h[1]], drivens[h[2]]), h[0]))
    kept = [
        p
        for p in (_pair(spec, page, now, drivers[i], drivens[j], float(speeds[i, j]), target, limits) for _, i, j in best[:_LOOKED_AT])
        if p
    ]
    kept.sort(key=_rank)
    k = pace * now["driver"].rolls / (now["driven"].rolls * target)  # driven speed now over the target
    return Targets(
        tuple(kept[:SHOWN]), len(drivers) * len(drivens), len(hits), by, (now["driver"].line_m + over) / k - over, (now["driven"].line_m + over) * k - over, held,
    )  # fmt: skip


def rated(spec: DriveSpec) -> bool:
    """Whether the drive's power can be rated here."""
    return bool(spec.section and (spec.own.of(spec.section.name) or vee.rated(spec.section)))


def say(found: Targets | None, spec: DriveSpec, page: Page, target: float | None = None, most_speed: float | None = None) -> list[Verdict]:
    """What a search came to; target and the machine's highest speed in rad/s."""
    if found is not None and found.held:
        off = page.figures["slip"].us
        return [Verdict("target", Tone.WATCH, f"The tachometer and the diameters are {off} apart: settle that first", "Slip leaves with the wheel that caused it; a wrong diameter stays in the ratio. Turn the drive by hand and count, under What it means, then say here which it was: until then every pair is held.")]  # fmt: skip
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
                f"{found.stock} pairs looked at{f', {found.hits} near enough but none that fits' if found.hits else ''}. Allow more, free the other wheel, or turn one down: its exact size stands below.",
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
                f"{found.hits} of {found.stock} stock pairs are near enough. Speeds {found.by}. Stock is the tables' common sizes, assumed.",
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


def with_pair(pair: Pair, spec: DriveSpec) -> DriveSpec:
    """A V-belt drive with this pair and its belt on, untouched by what the tachometer read of the old one."""
    assert spec.section and spec.driver_diameter and spec.driven_diameter
    return replace(
        spec,
        driver_diameter=replace(spec.driver_diameter, value=pair.driver.rim_m),
        driver_basis="outside",
        driver_groove="standard",
        driven_diameter=replace(spec.driven_diameter, value=pair.driven.rim_m),
        driven_basis="outside",
        driven_groove="standard",
        belt=v_belt.parse_designation(pair.belt, spec.section) if pair.belt else None,
        centre_distance=replace(spec.centre_distance, value=pair.centre_m) if spec.centre_distance and pair.centre_m else None,
        tach_driver=None,
        tach_driven=None,
        adjustable=None,
    )


def _teeth(spec: DriveSpec, role: Role) -> int | None:
    return getattr(spec.line, role).teeth if spec.line else None


def _with(here: tuple[StockWheel, ...], now: StockWheel) -> tuple[StockWheel, ...]:
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
    spec: DriveSpec, page: Page, now: dict[Role, StockWheel], driver: StockWheel, driven: StockWheel, speed: float, target: float,
    limits: _Limits,
) -> Pair | None:  # fmt: skip
    changes: list[Role] = [r for r, w in zip(_ROLES, (driver, driven), strict=True) if w is not now[r]]
    on = _belt(spec, page, driver, driven)
    centre = on.tight_at
    if centre is not None and centre <= (driver.rim_m + driven.rim_m) / 2:
        return None
    velocity = (driver.line_m + driver.over_m) * page.values["driver_speed"].n / 2
    wrap = min(open_belt.wraps(driver.line_m, driven.line_m, centre)) if centre and centre > (driver.line_m + driven.line_m) / 2 else None
    return Pair(
        driver, driven, speed, speed / target - 1, velocity, wrap, tuple(changes), on.belt, on.stays, centre,
        on.slide, on.links, tuple(_against(spec, page, driver, driven, speed, velocity, wrap, on, limits)),
    )  # fmt: skip


def _against(
    spec: DriveSpec, page: Page, driver: StockWheel, driven: StockWheel, speed: float, velocity: float, wrap: float | None, on: On,
    limits: _Limits,
) -> list[str]:  # fmt: skip
    found = ["held: the tachometer's reading is not explained"] if limits.held else []
    if limits.most_speed is not None and speed > limits.most_speed * (1 + 1e-9):
        found.append("faster than the machine may turn")
    if spec.section and min(driver.line_m, driven.line_m) < v_belt.min_datum_diameter(spec.section) - 1e-6:
        found.append(f"under the smallest for {spec.section.name}")
    if limits.motor and spec.section and motor.short(limits.motor, "narrow" in spec.section.series, driver.line_m, driver.rim_m) > 1e-6:
        found.append(f"driver too small for a motor of {limits.motor.named}")
    small, fast = min(driver.teeth or 999, driven.teeth or 999), max(page.values["driver_speed"].n, speed)
    found += spec.line.speaks_against(small, fast) if spec.line else []
    fastest = spec.section.max_speed_m_per_s if spec.section else spec.line.fastest_m_per_s if spec.line else None
    if fastest and velocity > fastest:
        found.append("belt too fast")
    rims = driver.rim_m / 2 * page.values["driver_speed"].n, driven.rim_m / 2 * speed
    if max(rims) > CAST_IRON_RIM_LIMIT_M_PER_S:
        found.append("rim past 6500 ft/min")
    least = spec.line.least_wrap if spec.line else limit("least wrap of a belt")
    if wrap is not None and least and wrap < least.value:
        found.append(f"wraps only {math.degrees(wrap):.0f}°")
    if not on.belt:
        nearest = f": {on.nearest} comes nearest and wants the motor {on.slide}" if on.nearest and on.slide else ""
        found.append(f"no made belt fits the take-up{nearest}")
    return found


def _belt(spec: DriveSpec, page: Page, driver: StockWheel, driven: StockWheel) -> On:
    """The belt or chain for the pair."""
    if not page.has("centre_distance"):
        return On(spec.belt.designation if spec.belt else "", False, None)
    now = page.values["centre_distance"].n
    # A slide that nobody measured is unknown, not none: any belt counts, and its centres are said.
    low = now - spec.travel_in.value if spec.travel_in else 0.0
    high = now + spec.travel_out.value if spec.travel_out else math.inf
    if spec.line:
        if spec.family.toothed and not (driver.teeth and driven.teeth):
            return On("cut to length", False, now)
        return spec.line.belt_for(driver, driven, _clear(driver, driven, now), now)
    if spec.belt:
        try:
            at = open_belt.centre_distance(driver.line_m, driven.line_m, spec.belt.datum_length_m)
            if spec.travel_in and spec.travel_out and low - 1e-4 <= at <= high + 1e-4:
                return On(spec.belt.designation, True, at)
        except GeometryError:
            pass
    assert spec.section
    wanted = open_belt.belt_length(driver.line_m, driven.line_m, _clear(driver, driven, now))
    for made in sorted((b for b in v_belt.standard_belts(spec.section.name)), key=lambda b: abs(b.datum_length_m - wanted)):
        try:
            at = open_belt.centre_distance(driver.line_m, driven.line_m, made.datum_length_m)
        except GeometryError:
            continue
        fits = low - 1e-4 <= at <= high + 1e-4
        return On(made.designation if fits else "", False, at, _slide(at, now, made), made.designation)
    return On("", False, None)


def _slide(at: float, now: float, belt: v_belt.Belt) -> str:
    room = v_belt.allowance(belt)
    return slide_needed(at, now, room.installation_m, room.takeup_m) if room else slide_needed(at, now)


def _clear(driver: StockWheel, driven: StockWheel, now: float) -> float:
    """The centres as they are, or as near as the pair's wheels let them come: what would overlap has to move apart."""
    return max(now, max(driver.line_m + driven.line_m, driver.rim_m + driven.rim_m) / 2 * _APART)


def _rank(pair: Pair) -> tuple[int, int, int, float]:
    """Sound ones first, then the fewest new parts, then the nearest speed."""
    return len(pair.against), len(pair.changes), 0 if pair.belt_stays else 1, abs(pair.off)
