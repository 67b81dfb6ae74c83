"""One scale for a stage: the window, every rule of thumb, the manual's figure and the published form on it."""

import math
from dataclasses import dataclass, replace
from typing import NamedTuple

from tuyere.core.drives.loop import Loop
from tuyere.core.entry.quantity import to_si
from tuyere.core.limit import limit
from tuyere.core.table import rows
from tuyere.core.tension import statics
from tuyere.core.tension.beam import tension_under
from tuyere.core.tension.window import Stage, Upper, WindowError, strain, target, upper_limits
from tuyere.core.tight.limits import Holds, chain_slack
from tuyere.core.tight.stage import TightStage

# What to ask where an upper limit is not judged: the one thing that would settle most.
ASKS = {
    "bearing life": "the near bearing's rating C, how far the wheel overhangs it, and how far apart the bearings stand",
    "overhung load": "the most pull the motor's or gearbox's own sheet allows",
    "bushing pressure": "the bushing's bore and length, and how far the wheel overhangs it",
    "bushing pressure-velocity": "the bushing's bore and length, and how far the wheel overhangs it",
    "shaft stress": "the shaft's diameter and how far the wheel overhangs its bearing",
    "mounts": "the pull at the wheel that leans the rubber mounts out of line, by a spring scale against a straightedge",
    "belt strength": "the belt maker's own strength",
}
_NINETY = 1.645  # 5 to 95 % of a normal


class Slips(NamedTuple):
    """Tension under which it slips running, starting, in a jolt (N), and the wheel that slips first running and starting."""

    running_n: float
    starting_n: float
    jolt_n: float
    first_running: int | None
    first_starting: int | None


@dataclass(frozen=True)
class Band:
    """From, to (N), the middle to aim for, and where it is from."""

    low_n: float
    high_n: float
    aim_n: float
    source: str


class Rule(NamedTuple):
    """One school's rule here: what it comes to (N; 5 to 95 %), in words."""

    key: str
    label: str
    low_n: float
    mid_n: float
    high_n: float
    said: str


@dataclass(frozen=True)
class Scale:
    """Everything on the scale of a stage, tensions of one strand at rest (N). `capped`: the upper limit that ends the band early."""

    slips: Slips | None
    target_n: float | None
    run_in: Band | None
    new: Band | None
    upper: tuple[Upper, ...]
    lowest: Upper | None
    capped: bool
    empty: bool
    rules: tuple[Rule, ...]
    manual: Band | None

    def band(self, fresh: bool, by_manual: bool) -> Band | None:
        """What a reading is held against."""
        window = self.new if fresh else self.run_in
        return self.manual if self.manual and (by_manual or window is None) else window


def scale_of(stage: TightStage, holds: Holds, span_m: float | None) -> Scale:
    """The scale; without power or speed only what does not ask for them. Raises GeometryError, WindowError."""
    rules = tuple(_rules(stage, span_m)) if span_m else ()
    found = _scale_of(stage, holds, span_m, rules)
    return replace(found, rules=tuple(r._replace(said=means(r, found)) for r in rules)) if found.run_in else found


def means(rule: Rule, scale: Scale) -> str:
    """What a rule of thumb would do here, in a few words: by its middle, and by how far its band reaches."""
    band = scale.run_in
    if band is None:
        return ""

    def at(tension: float) -> str:
        if scale.slips and tension < scale.slips.running_n:
            return "slips under load"
        if scale.lowest and scale.lowest.limit_n is not None and tension > scale.lowest.limit_n:
            return f"past its {scale.lowest.name}"
        if tension < band.low_n:
            return "slack"
        return "right" if tension <= band.high_n else "tighter than it needs"

    low, mid, high = at(rule.low_n), at(rule.mid_n), at(rule.high_n)
    if low == mid == high:
        return mid
    return f"most likely {mid}; anything from {low} to {high}" if low != high else mid


def _scale_of(stage: TightStage, holds: Holds, span_m: float | None, rules: tuple[Rule, ...]) -> Scale:
    manual = _manual(stage, holds, span_m)
    if stage.hangs:
        run_in = _by_sag(stage)
        return Scale(None, run_in.aim_n if run_in else None, run_in, run_in, (), None, False, False, (), manual)
    if not stage.loaded:
        return Scale(None, None, None, None, (), None, False, False, rules, manual)
    base = stage.as_window()
    on = strain(base)
    wraps = [wrap for wrap, w in zip(on.path.wraps_rad, base.wheels, strict=True) if w.power_w]
    if min(wraps) < 1e-6:
        raise WindowError("wheels", "A wheel that takes or gives power is hardly touched: check its place and the order of the wheels.")
    ratio = stage.loop.design_ratio(min(wraps))
    # The model raises its half-turn ratio to the wrap's power; a kind may have another rule, met here at this wrap.
    full = replace(
        base, ratio_at_half_turn=math.pow(ratio, math.pi / min(wraps)), shafts=holds.shafts, belt_strength_n=stage.strand.strength_n
    )
    on = strain(full)
    running, starting = on.first_slip(holds.grip, on.offset_n), on.first_slip(holds.grip * holds.start)
    jolt = on.first_slip(holds.grip * holds.jolt, on.offset_n)
    slips = Slips(running.tension_n, starting.tension_n, jolt.tension_n, running.wheel, starting.wheel)
    aim = target(on)
    upper = upper_limits(on)
    lowest = min((u for u in upper if u.limit_n is not None), key=lambda u: u.limit_n or 0.0, default=None)
    run_in, new = _bands(stage, full, aim, on.offset_n, stage.loop)
    top = lowest.limit_n if lowest and lowest.limit_n is not None else math.inf
    capped = top < max(run_in.high_n, new.high_n)
    empty = top < max(slips.running_n, slips.starting_n)
    if capped and not empty:
        run_in, new = (_under(b, top, max(slips.running_n, slips.starting_n)) for b in (run_in, new))
    return Scale(slips, aim, run_in, new, upper, lowest, capped, empty, rules, manual)


def _bands(stage: TightStage, full: Stage, aim: float, offset: float, loop: Loop) -> tuple[Band, Band]:
    row = next(r for r in rows("tension_bands") if r["seat"] == loop.seat)
    share = {k: float(row[k]) for k in ("low", "high", "new_low", "new_high")}
    held = full.held_by != "fixed"
    low = aim if held else share["low"] * (aim - offset) + offset
    new_low = aim if held else share["new_low"] * aim
    return (
        Band(low, share["high"] * aim, aim, row["source"]),
        Band(new_low, share["new_high"] * aim, (new_low + share["new_high"] * aim) / 2, row["source"]),
    )


def _under(band: Band, top: float, bottom: float) -> Band:
    """The band under an upper limit: down to where it slips, if need be."""
    high = min(band.high_n, top)
    low = min(band.low_n, max(bottom, 0.9 * high)) if band.low_n >= high else band.low_n
    return Band(low, high, min(band.aim_n, (low + high) / 2 if band.aim_n > high else band.aim_n), band.source)


def _by_sag(stage: TightStage) -> Band | None:
    """A chain's slack strand: the tensions of the least and most sag that its movement allows."""
    mass = stage.strand.mass_kg_per_m
    if not mass:
        return None
    low, high, why = chain_slack(stage)
    span = stage.spans[stage.longest]
    most, least = (sag_of_movement(m * span.length_m) for m in (high, low))
    slope = min(span.slope_rad, statics.STEEPEST_RAD)
    tensions = [statics.chain_tension(s, span.length_m, slope, mass) for s in (most, least)]
    source = f"{low:.0%} to {high:.0%} of the span up and down together on a {why} drive (American Chain Association; common practice, from memory)"
    return Band(tensions[0], tensions[1], math.sqrt(tensions[0] * tensions[1]), source)


def sag_of_movement(movement_m: float) -> float:
    """Sag (m) of a strand that moves so far at its middle, up and down together: drawn to a V it lies 1.155 times its sag to either side.

    The same extra length as an arc, 8 s²/(3 L), and as a V, 2 d²/L.

    >>> round(sag_of_movement(0.0462), 4)
    0.02
    """
    return movement_m / (2 * math.sqrt(4 / 3))


def _manual(stage: TightStage, holds: Holds, span_m: float | None) -> Band | None:
    """A manual's figure as tension of one strand: stated, or a push over a deflection on this span."""
    tension, within = holds.manual_tension_n, limit("manual's tolerance").value
    if tension is None and (asked := stage.loop.stated):
        tension, within = asked.tension_n, asked.within
    if tension is None and holds.manual_force_n and holds.manual_deflection_m and span_m:
        # On a single belt its one push is a push on a belt; on many, nobody knows until somebody says.
        pushed = {"belt": 1, "rib": 1, "band": stage.loop.ribs}.get(holds.manual_pushes)
        if pushed is None and stage.count > 1:
            return None
        tension = tension_under(holds.manual_force_n / (pushed or 1), span_m, holds.manual_deflection_m)
    if tension is None:
        return None
    return Band(tension * (1 - within), tension * (1 + within), tension, "the machine's manual")


def _rules(stage: TightStage, span_m: float) -> list[Rule]:
    found = []
    for r in rows("tension_thumb_rules"):
        if stage.loop.seat not in r["seats"].split(";"):
            continue
        q = {"in": to_si(float(r["deflection"]), "length", "in"), "share": float(r["deflection"]) * span_m, "thickness": float(r["deflection"]) * stage.strand.thick_m, "tension": float(r["deflection"])}[r["given_in"]]  # fmt: skip
        if not q or (q > span_m / 6 and r["given_in"] != "tension"):  # on a short span so much give is no rule
            continue
        mid = q if r["given_in"] == "tension" else tension_under(to_si(float(r["push_lbf"]), "force", "lbf"), span_m, q)
        spread = math.pow(float(r["factor"]), _NINETY)
        found.append(Rule(r["key"], r["rule"], mid / spread, mid, mid * spread, r["source"]))
    return found
