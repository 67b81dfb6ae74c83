"""One scale for a stage: the window, every rule of thumb, the manual's figure and the published form on it."""

import math
from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.tension import INCH_FORM
from tuyere.core.mechanics.tension.beam import tension_under
from tuyere.core.mechanics.tension.hanging import chain_hangs, chain_slack
from tuyere.core.mechanics.tension.published import Shares, published
from tuyere.core.mechanics.tension.window import Strained, Upper, WindowError, strain, target, upper_limits
from tuyere.core.stations.tension.grip import grip_of
from tuyere.core.stations.tension.limits import Holds

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
AIM_OVER = (
    1.1  # of the standing tension, where the rule's own is the exact half-sum: common practice, 1.0 to 1.1 for belts that have run in
)
_NINETY = 1.645  # 5 to 95 % of a normal


class Mark(NamedTuple):
    """Where it lets go: likely, and at the latest (N)."""

    likely_n: float
    cautious_n: float


class Slips(NamedTuple):
    """Tension under which it slips running, starting, in a jolt.

    The margin of running (N); the wheel that slips first running and starting.
    """

    running: Mark
    starting: Mark
    jolt: Mark
    margin_n: float
    first_running: int | None
    first_starting: int | None


@dataclass(frozen=True)
class Band:
    """From, to (N), the middle to aim for, and where it is from."""

    low_n: float
    high_n: float
    aim_n: float
    source: str


class ThumbRule(NamedTuple):
    """One school's rule here: what it comes to (N; 5 to 95 %), in words."""

    key: str
    label: str
    low_n: float
    mid_n: float
    high_n: float
    said: str


@dataclass(frozen=True)
class Scale:
    """Everything on the scale of a stage, tensions of one strand at rest (N). `capped`: the upper limit that ends the band early.

    `run_in`, `new`: what to aim for here; `published`: the same bands as the standard gives them. `raised`: what the aim goes above them
    for (a start, a jolt). `chirps`: set so, a cautious grip does not hold its start.
    """

    slips: Slips | None
    target_n: float | None
    run_in: Band | None
    new: Band | None
    published: tuple[Band, Band] | None
    raised: Literal["", "start", "jolt"]
    chirps: bool
    upper: tuple[Upper, ...]
    lowest: Upper | None
    capped: bool
    empty: bool
    rules: tuple[ThumbRule, ...]
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


def means(rule: ThumbRule, scale: Scale) -> str:
    """What a rule of thumb would do here, in a few words: by its middle, and by how far its band reaches."""
    band = scale.run_in
    if band is None:
        return ""

    def at(tension: float) -> str:
        if scale.slips and tension < scale.slips.running.likely_n:
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


def _scale_of(stage: TightStage, holds: Holds, span_m: float | None, rules: tuple[ThumbRule, ...]) -> Scale:
    manual = _manual(stage, holds, span_m)
    if stage.hangs:
        run_in = _by_sag(stage)
        return Scale(None, run_in.aim_n if run_in else None, run_in, run_in, None, "", False, (), None, False, False, (), manual)
    if not stage.loaded:
        return Scale(None, None, None, None, None, "", False, (), None, False, False, rules, manual)
    base = stage.as_window()
    on = strain(base)
    wraps = [wrap for wrap, w in zip(on.path.wraps_rad, base.wheels, strict=True) if w.power_w]
    if min(wraps) < 1e-6:
        raise WindowError("wheels", "A wheel that takes or gives power is hardly touched: check its place and the order of the wheels.")
    ratio = stage.loop.design_ratio(min(wraps))
    # The model raises its half-turn ratio to the wrap's power; a kind may have another rule, met here at this wrap.
    full = replace(base, ratio_at_half_turn=math.pow(ratio, math.pi / min(wraps)), shafts=holds.shafts)
    on = strain(full)
    slips = _slips(stage, holds, on.offset_n)
    aim = target(on)
    run_in, new, most = _published(stage, on, aim, holds.joint)
    upper = (*(u for u in upper_limits(on) if u.name != "belt strength"), Upper("belt strength", None, most))
    lowest = min((u for u in upper if u.limit_n is not None), key=lambda u: u.limit_n or 0.0, default=None)
    top = lowest.limit_n if lowest and lowest.limit_n is not None else math.inf
    book = run_in, new
    peak = slips.running if holds.jolt_is_assumed else slips.jolt
    need = max(slips.starting.likely_n, peak.likely_n)
    raised: Literal["", "start", "jolt"] = ""
    if need > run_in.aim_n:
        raised = "start" if slips.starting.likely_n >= peak.likely_n else "jolt"
    run_in, new = (_raised(b, need) for b in book)
    bottom = slips.running.likely_n
    capped, empty = top < max(run_in.high_n, new.high_n), top < bottom
    if capped and not empty:
        run_in, new = (_under(b, top, bottom) for b in (run_in, new))
    chirps = stage.loop.slips and run_in.aim_n < slips.starting.cautious_n
    return Scale(slips, aim, run_in, new, book, raised, chirps, upper, lowest, capped, empty, rules, manual)


def _slips(stage: TightStage, holds: Holds, offset: float) -> Slips:
    """Where it lets go by the likely and by the cautious grip. Starting it stands still: nothing is thrown outward."""
    grip = grip_of(stage, holds.surface, holds.lets_go)
    likely, cautious = strain(stage.gripping(grip.likely, grip.flat_likely)), strain(stage.gripping(grip.cautious, grip.flat_cautious))

    def mark(load: float, thrown: float) -> Mark:
        return Mark(likely.first_slip(load, thrown).tension_n, cautious.first_slip(load, thrown).tension_n)

    return Slips(
        mark(1.0, offset),
        mark(holds.start, 0.0),
        mark(holds.jolt, offset),
        likely.first_slip(holds.grip, offset).tension_n,
        likely.first_slip(1.0, offset).wheel,
        likely.first_slip(holds.start).wheel,
    )


def _published(stage: TightStage, on: Strained, aim: float, joint: str) -> tuple[Band, Band, float | None]:
    """The bands run in and new by whose rule it is set, and the most that the belt's own strength allows (None: not rated)."""
    row = next(r for r in rows("tension_bands") if r["set_as"] == stage.loop.set_as)
    shares = Shares(
        INCH_FORM if row["standing"] == "inch" else float(row["standing"]), *(float(row[k]) for k in ("high", "new_low", "new_high"))
    )
    edges = published(aim, on.offset_n, on.stage.held_by, shares)
    usual = aim if shares.standing < 1 or on.stage.held_by != "fixed" else min(AIM_OVER * edges.standing_n, edges.high_n)
    run_in = Band(edges.standing_n, edges.high_n, usual, row["source"])
    new = Band(edges.new_low_n, edges.new_high_n, (edges.new_low_n + edges.new_high_n) / 2, row["source"])
    return run_in, new, _strongest(stage, on, joint, edges.new_high_n)


def _strongest(stage: TightStage, on: Strained, joint_kind: str, high: float) -> float | None:
    """The most that the belt itself stands, N at rest. By its rating: what the rule would have it at most, loaded with all that it carries.

    What lies flat has an allowable tension of its own, and a joint; both count at the power of the plate.
    """
    joint = stage.loop.joint_n(joint_kind)
    if stage.share is None and joint is None:
        return None
    if stage.loop.seat != "rim":
        assert stage.share is not None
        return stage.share * (high - on.offset_n) + on.offset_n
    wrap = min(wrap for wrap, w in zip(on.path.wraps_rad, on.stage.wheels, strict=True) if w.power_w)
    ratio = stage.loop.design_ratio(wrap)
    pull = on.effective_n * on.stage.design_factor
    allowed = stage.share * pull * ratio / (ratio - 1) + on.centrifugal_n if stage.share is not None else math.inf
    allowed = min(allowed, joint if joint is not None else math.inf)
    # The tight strand at work lies so far over what it is at rest.
    return max(0.0, allowed - max(on.shares) - on.centrifugal_n + on.offset_n)


def _raised(band: Band, need: float) -> Band:
    """The band where it slips under more than the rule would set: from there, its top up in proportion."""
    if need <= band.aim_n:
        return band
    return Band(need, band.high_n * need / band.aim_n, need, band.source)


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
    span = stage.spans[stage.longest]
    hangs = chain_hangs(mass, span.length_m, span.slope_rad, stage.steepest_rad, stage.driven_class)
    low, high, why = chain_slack(stage.steepest_rad, stage.driven_class)
    source = f"{low:.0%} to {high:.0%} of the span up and down together on a {why} drive (American Chain Association; common practice, from memory)"
    return Band(hangs.low_n, hangs.high_n, hangs.middle_n, source)


def _manual(stage: TightStage, holds: Holds, span_m: float | None) -> Band | None:
    """A manual's figure as tension of one strand: stated, or a push over a deflection on this span."""
    tension, within = holds.manual_tension_n, holds.manual_within or limit("manual's tolerance").value
    if tension is None and (asked := stage.loop.stated):
        tension, within = asked.tension_n, holds.manual_within or asked.within
    if tension is None and holds.manual_force_n and holds.manual_deflection_m and span_m:
        # On a single belt its one push is a push on a belt; on many, nobody knows until somebody says.
        pushed = {"belt": 1, "rib": 1, "band": stage.loop.ribs}.get(holds.manual_pushes)
        if pushed is None and stage.count > 1:
            return None
        tension = tension_under(holds.manual_force_n / (pushed or 1), span_m, holds.manual_deflection_m)
    if tension is None:
        return None
    said = f"the machine's manual, within {within:.0%}{'' if holds.manual_within or stage.loop.stated else ' as nothing else was said'}"
    return Band(tension * (1 - within), tension * (1 + within), tension, said)


def _rules(stage: TightStage, span_m: float) -> list[ThumbRule]:
    found = []
    for r in rows("tension_thumb_rules"):
        if stage.loop.seat not in r["seats"].split(";"):
            continue
        q = {
            "in": to_si(float(r["deflection"]), "length", "in"),
            "share": float(r["deflection"]) * span_m,
            "thickness": float(r["deflection"]) * stage.strand.thick_m,
            "tension": float(r["deflection"]),
        }[r["given_in"]]
        if not q or (q > span_m / 6 and r["given_in"] != "tension"):  # on a short span so much give is no rule
            continue
        mid = q if r["given_in"] == "tension" else tension_under(to_si(float(r["push_lbf"]), "force", "lbf"), span_m, q)
        spread = math.pow(float(r["factor"]), _NINETY)
        found.append(ThumbRule(r["key"], r["rule"], mid / spread, mid, mid * spread, r["source"]))
    return found
