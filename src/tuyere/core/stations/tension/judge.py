"""What a reading says, and the next thing to do: every verdict ends in one."""

import math
from collections.abc import Sequence

from tuyere.core.basis.figure import both
from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import from_si
from tuyere.core.basis.uncertainty import UFloat, largest_doubt, probability_between, sureness
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tension.moved import move_for
from tuyere.core.stations.tension.limits import Holds
from tuyere.core.stations.tension.methods import TensionMethod
from tuyere.core.stations.tension.scale import Band, Scale

_SURE = 2 / 3
# Less than this nobody can set; more than that is no adjustment but a mistake somewhere: common practice, no source.
_HAIR_M, _FARTHEST_M = 0.0002, 0.03
LOCKS = "Lock the adjuster, read again; then look at alignment, and at brake and clutch where they hang on this belt."


def judge(
    stage: TightStage, method: TensionMethod, scale: Scale, holds: Holds, fresh: bool, strands: Sequence[UFloat], average: UFloat
) -> list[Verdict]:
    """Of the set, and of its tension."""
    found = _of_set(stage, method, strands, average)
    band = scale.band(fresh, holds.by_manual)
    if band is None:
        found.append(_without_window(stage, average))
    else:
        found.append(_of_tension(stage, scale, band, holds, fresh, strands, average, any(v.tone is Tone.WATCH for v in found)))
    return found


def _of_set(stage: TightStage, method: TensionMethod, strands: Sequence[UFloat], average: UFloat) -> list[Verdict]:
    found = []
    many = stage.loop.count if method.each else 1
    if len(strands) > 1:
        limit_n, mean = limit("spread of a matched set").value, average.n
        spread = (max(strands, key=lambda t: t.n) - min(strands, key=lambda t: t.n)) / average
        loose = [str(i) for i, t in enumerate(strands, 1) if t.n < mean * (1 - limit_n / 2)]
        tight = [str(i) for i, t in enumerate(strands, 1) if t.n > mean * (1 + limit_n / 2)]
        off = loose if loose and len(loose) <= len(strands) / 2 else tight or loose
        word = "slack" if off is loose else "tight"
        which = f"Belt {' and '.join(off)} {'is' if len(off) == 1 else 'are'} {word}"
        if spread.n <= limit_n:
            found.append(Verdict("set", Tone.GOOD, f"The set pulls together: spread {spread.n:.0%}", ""))
        elif spread.n > limit_n + spread.s:
            found.append(
                Verdict(
                    "set",
                    Tone.WATCH,
                    f"{which} against the rest: spread {spread.n:.0%}",
                    f"Turn the drive by hand and read belt {' and '.join(off)} again. If it is the same, tighten, run it and read once "
                    f"more; if the spread stays over {limit_n:.0%}, replace the whole set.",
                )
            )
        else:
            found.append(
                Verdict(
                    "set",
                    Tone.OPEN,
                    f"Spread {spread.n:.0%}: it may be the gauge",
                    f"{which}, if at all: turn the drive by hand and read belt {' and '.join(off)} again.",
                )
            )
    if len(strands) < many:
        found.append(
            Verdict("set", Tone.OPEN, f"{len(strands)} of {many} belts read", "Read every belt of the set: the average is what counts.")
        )
    return found


def _without_window(stage: TightStage, average: UFloat) -> Verdict:
    ask = "Say power, speed and the kind of machine at Survey, or write the manual's figure below: then it can be judged."
    return Verdict("tension", Tone.OPEN, f"It stands at {both(average.n, 'force')} a {stage.strand.one}", ask)


def _of_tension(
    stage: TightStage, scale: Scale, band: Band, holds: Holds, fresh: bool, strands: Sequence[UFloat], average: UFloat, uneven: bool
) -> Verdict:
    within = probability_between(average, band.low_n, band.high_n)
    below, above = probability_between(average, -math.inf, band.low_n), probability_between(average, band.high_n, math.inf)
    state = "new" if fresh else "run-in"
    by = band.source if band is scale.manual else "the window"
    wants = f"{both(average.n, 'force')} a {stage.strand.one}, and {between(band)} is wanted{'' if band is scale.manual else f' for {state} {stage.loop.family.runs}s'}, by {by}."
    if stage.hangs:
        wants = f"{both(average.n, 'force')} in the slack strand, and {between(band)} is wanted."
    other = _by_the_other(scale, band, average)
    if other:
        return Verdict("tension", Tone.OPEN, other[0], f"{wants} {other[1]}")
    first = "Read the odd belt again first. " if uneven else ""
    if below >= _SURE or (within < _SURE and average.n < band.low_n):
        decided = below >= _SURE
        loose = scale.slips is not None and average.n < scale.slips.running.likely_n
        headline = "Slack: it may slip under load" if loose else "Too slack" if stage.hangs else "Slack"
        if not decided:
            headline = "A little slack, within the tool's doubt"
        return Verdict(
            "tension",
            Tone.WATCH if decided else Tone.OPEN,
            headline,
            f"{wants} {first}{'' if decided else _again(average) + ' If it is the same: '}{to_do(stage, holds, average, band.aim_n)}",
            sureness(below).value if decided else "",
        )
    if above >= _SURE or (within < _SURE and average.n > band.high_n):
        decided = above >= _SURE
        over = scale.lowest and scale.lowest.limit_n is not None and average.n > scale.lowest.limit_n
        headline = f"Too tight: past its {scale.lowest.name}" if over and scale.lowest else "Too tight"
        if not decided:
            headline = "A little tight, within the tool's doubt"
        return Verdict(
            "tension",
            Tone.WATCH if decided else Tone.OPEN,
            headline,
            f"{wants} {first}{'' if decided else _again(average) + ' If it is the same: '}{to_do(stage, holds, average, band.aim_n)}",
            sureness(above).value if decided else "",
        )
    if scale.empty:
        return Verdict(
            "tension",
            Tone.WATCH,
            "Enough for the drive, too much for a component",
            f"{wants} The window is empty: see what to change below.",
        )
    if stage.share is not None and stage.share < 1:
        return Verdict(
            "tension",
            Tone.WATCH,
            f"As tight as it should be, but the {stage.loop.family.runs} will not do",
            f"{wants} Size says it carries {stage.share:.0%} of what this drive wants: no tension mends that.",
        )
    if odd := _odd(stage, scale, strands, uneven):
        return Verdict(
            "tension", Tone.WATCH, f"Right on average, but {odd}", f"{wants} The average hides nobody: put the odd one right first."
        )
    sure = sureness(within).value if within >= _SURE else ""
    tail = (
        "Run it a quarter of an hour, read again; and after 24 running hours."
        if fresh and stage.loop.slips
        else "Keep this reading; the next one falls due by itself."
    )
    if within < _SURE:
        doubt = largest_doubt(average)
        tail = f"As near as this tool can tell: leave it. {'The largest doubt is ' + doubt[0] + '. ' if doubt else ''}{tail}"
    return Verdict(
        "tension", Tone.GOOD, "Right" if within >= _SURE else "Right, as near as this tool can tell", f"{wants} {first}{tail}", sure
    )


def _odd(stage: TightStage, scale: Scale, strands: Sequence[UFloat], uneven: bool) -> str:
    """Which of a set is not right where their average is."""
    slips = scale.slips.running.likely_n if scale.slips else 0.0
    slack = [str(i) for i, t in enumerate(strands, 1) if t.n < slips]
    if slack and len(strands) > 1:
        return f"{stage.loop.family.runs} {' and '.join(slack)} would slip under load"
    return "the set does not pull together" if uneven else ""


def _by_the_other(scale: Scale, band: Band, average: UFloat) -> tuple[str, str] | None:
    """A reading that is right by the manual's figure and not by the window, or the other way round: what to settle first."""
    other = scale.run_in if band is scale.manual else scale.manual
    if other is None or band.low_n <= average.n <= band.high_n or not other.low_n <= average.n <= other.high_n:
        return None
    if band is scale.manual:
        return (
            "Right as worked out, not by the manual",
            f"{between(other)} comes of the power and the wheels. The manual comes first: check its span and what its force pushes.",
        )
    return (
        "Right by the manual, not as worked out",
        f"The manual wants {between(other)}. Does its idler push while it runs, or is it latched? Say what holds the tension, or go by "
        "the manual below.",
    )


def _again(average: UFloat) -> str:
    doubt = largest_doubt(average)
    return f"Read it once more{', minding ' + doubt[0] if doubt else ''}."


def between(band: Band) -> str:
    """From and to, in both systems."""
    us = [from_si(v, "force", "lbf") for v in (band.low_n, band.high_n)]
    digits = 0 if us[0] >= 10 else 1
    return f"{us[0]:.{digits}f} to {us[1]:.{digits}f} lbf ({band.low_n:.0f} to {band.high_n:.0f} N)"


def to_do(stage: TightStage, holds: Holds, average: UFloat, aim_n: float) -> str:
    """How to get from a reading to the tension to aim for, in the words of what holds it."""
    tighten = average.n < aim_n
    if stage.hangs:
        return _chain_move(stage, average, aim_n)
    if stage.holds != "fixed":
        times = aim_n / average.n if average.n > 0 else math.inf
        what = {"spring idler, slack side": "spring", "weight idler, slack side": "weight or its arm"}.get(stage.held_by, "spring or lever")
        return (
            f"The {what} sets it, not the belt's stretch: it must pull {times:.2f} times as hard. Then read again."
            if math.isfinite(times)
            else f"The {what} does not pull at all: look whether it hangs free."
        )
    if stage.held_by == "pivoted base":
        return f"{'Move the weight out from the pivot, or add to it' if tighten else 'Move the weight in, or take some off'}: {aim_n / average.n:.2f} times its moment. Then read again."
    away = "apart" if tighten else "together"
    strand = stage.strand
    if strand.rigidity_n is None or average.n < 0:
        return f"Move the {'base' if len(stage.wheels) == 2 else 'take-up'} {'to tighten' if tighten else 'to slacken'} a little, all screws alike. {LOCKS}"
    if len(stage.wheels) > 2 or stage.crossed:
        longer = abs(aim_n - average.n) * stage.length_m / strand.rigidity_n
        return f"Take {'up' if tighten else 'back'} about {both(longer)} of belt at the take-up, give or take a quarter. {LOCKS}"
    first, second = stage.wheels
    centre = math.dist((first.x_m, first.y_m), (second.x_m, second.y_m))
    try:
        move = move_for(average.n, aim_n, strand.rigidity_n, first.line_m, second.line_m, centre, holds.screw_pitch_m)
    except GeometryError:
        return "Slacken it: the wheels stand too near to reckon the move."
    size = abs(move.centre_change_m)
    if size < _HAIR_M:
        return f"A hair {away} is enough. {LOCKS}"
    if size > _FARTHEST_M:
        return f"By this reading the wheels would go {away} by more than an inch: look for a wrong belt or a misread tool first."
    turns = f", {abs(move.turns):.1f} turns of every screw alike, in turn" if move.turns else ", all screws alike, in turn"
    room = _room(stage, move.centre_change_m)
    return f"Move the wheels {away} by about {both(size)}{turns} (give or take a quarter); a straightedge over both wheels as you pull. {LOCKS}{room}"


def _room(stage: TightStage, change_m: float) -> str:
    """What is left to take up after it."""
    if stage.take_up_m is None or change_m <= 0:
        return ""
    left = stage.take_up_m - change_m
    if left <= 0:
        return " There is not so much take-up left: a shorter belt, or move the base."
    return f" Then {both(left)} of take-up is left."


def _chain_move(stage: TightStage, average: UFloat, aim_n: float) -> str:
    """By the slack's extra length, 8 s²/(3 L), shared by both strands where the centres move."""
    from tuyere.core.mechanics.tension import statics

    span = stage.spans[stage.longest]
    slope, mass = min(span.slope_rad, statics.STEEPEST_RAD), stage.strand.mass_kg_per_m
    now, then = (statics.chain_sag(t, span.length_m, slope, mass) for t in (average.n, aim_n))
    extra = 8 * (now**2 - then**2) / (3 * span.length_m)
    if len(stage.wheels) > 2:
        return f"Take {'up' if extra > 0 else 'back'} about {both(abs(extra))} of chain at the idler or slide, then measure again."
    if abs(extra) / 2 < _HAIR_M:
        return "A hair is enough; then measure again."
    return f"Move the sprockets {'apart' if extra > 0 else 'together'} by about {both(abs(extra) / 2)}, both screws alike; a straightedge across the sprockets. Turn it round and measure at the tightest place."
