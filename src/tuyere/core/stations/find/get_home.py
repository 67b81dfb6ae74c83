"""A get-home fix: a narrower belt in the groove, or fewer belts than the set, and what share of the load it carries.

What a short set carries is `short_set`'s; here it is set down as a fix, with its working and the day it comes off.
"""

from collections.abc import Collection
from dataclasses import dataclass, replace
from math import pi

from tuyere.core.basis.figure import Figure, Line, both, figure
from tuyere.core.basis.limit import limit
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import exact
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.v_belt import (
    Belt,
    BeltError,
    Section,
    datum_from_outside,
    groove_at_outside,
    min_datum_diameter,
    pitch_over_datum,
    short_set,
)
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.v_set import VSet
from tuyere.core.mechanics.open_belt import GeometryError, centre_distance
from tuyere.core.stations.find.fit.pairing import a, in_groove
from tuyere.core.stations.find.fit.seat import Trapezoid, seat

_AREA_CREDIT = 0.8  # of the ratio of belt areas, where a rating is missing: an estimate
_TAPE_M = 0.003  # how far a tape, a slide and a belt's make may be out together
NARROW_DAYS = 3  # that a narrower section may get one home: a judgement


@dataclass(frozen=True)
class Fix:
    """What was put on to get home: the section run, how many belts, and the one on the shelf by its name where it is known.

    `singles`: single belts in the grooves of a joined one; `back_driven`: whether a wheel is driven from the belt's back.
    """

    section: Section
    count: int
    belt: Belt | None = None
    singles: bool = False
    back_driven: bool = False


@dataclass(frozen=True)
class GetHome:
    """The share of the design load the fix carries (None: not known), how hard to run, by when it comes off, and what to say."""

    what: str
    share: float | None
    share_text: str
    days: int
    run: str
    figures: tuple[Figure, ...]
    verdicts: tuple[Verdict, ...]
    problems: tuple[Problem, ...]


def get_home(on: VSet, fix: Fix, page: Page, slide: Slide, own: OwnRatings, machine: Collection[str] = ()) -> GetHome:
    """Judge a get-home fix on a drive whose sheet is `page`. A fix that would destroy itself is a problem, not a fix.

    `machine`: what is so of the machine; where a slipping or breaking belt hurts somebody, the fix is computed and stopped.
    """
    made_for = on.section
    if made_for is None or not on.belt_count:
        return _refused("section", "Survey the drive first: its own section and the number of belts it should have.")
    other = fix.section.name != made_for.name
    singles = other or fix.singles
    whole = (on.parallel or 0) // (1 if singles else on.ribs)
    if fix.count > whole:
        what = "grooves in use" if singles or on.ribs == 1 else "belts of several ribs"
        return _refused("fix_count", f"The drive has {whole} {what}: write 1 to {whole}.")
    if other:
        pair = in_groove(fix.section, made_for)
        if pair.match not in ("narrower", "right", "near"):
            return _refused("fix_section", f"{pair.verdict.headline}: {pair.verdict.detail}")
        if made_for.construction == "hexagonal" and fix.section.construction != "hexagonal" and fix.back_driven:
            return _refused(
                "fix_section",
                f"A wheel is driven from the belt's back: {a(fix.section.name)} would let it stand still, or burn on it. Only "
                f"{a(made_for.name)} drives it.",
            )
        if small := _bent_too_sharply(fix.section, made_for, page):
            return _refused("fix_section", small)
    elif fix.count == whole and not fix.singles:
        return _refused("fix_count", "That is the full set in its own groove: nothing to record as a get-home fix.")
    if fix.belt and (reach := _out_of_reach(on, fix, slide, page)):
        return _refused("fix_belt", reach)
    judged = _judge(on, fix, whole, other, singles, own, page)
    why = short_set.not_here(machine)
    if not why:
        return judged
    return replace(
        judged, days=0, run="Do not run it.", verdicts=(Verdict("get home", Tone.STOP, "Not on this machine", why), *judged.verdicts)
    )


def _refused(field: str, sentence: str) -> GetHome:
    return GetHome("", None, "", 0, "", (), (), (Problem(field, sentence),))


def _bent_too_sharply(section: Section, made_for: Section, page: Page) -> str:
    """Why the stand-in does not bend round the small wheel; empty where it does, or where the wheels are not known."""
    if not page.has("driver_outside", "driven_outside"):
        return ""
    try:
        line = min(_line_diameter(section, made_for, page.values[f"{role}_outside"].n) for role in ("driver", "driven"))
    except (BeltError, GeometryError):
        return ""
    least = min_datum_diameter(section)
    if line >= least * (1 - 1e-3):
        return ""
    more = f" {made_for.name} is notched for small wheels; {section.name} is not." if made_for.cogged and not section.cogged else ""
    return f"The small wheel is too small for {section.name}: {both(line, decimals=(1, 0))} where it bends, and it wants {both(least, decimals=(1, 0))} at least.{more} It would crack within hours."


def _out_of_reach(on: VSet, fix: Fix, slide: Slide, page: Page) -> str:
    """Why the belt on the shelf does not fit the centres; empty where it does, or where they are not known."""
    assert on.section and fix.belt
    if not (on.centre_distance and slide.closer and slide.away and page.has("driver_outside", "driven_outside")):
        return ""
    low, high = on.centre_distance.value - slide.closer.value, on.centre_distance.value + slide.away.value
    try:
        d, big = (_line_diameter(fix.section, on.section, page.values[f"{role}_outside"].n) for role in ("driver", "driven"))
        at = centre_distance(d, big, fix.belt.datum_length_m)
    except (BeltError, GeometryError):
        return f"{fix.belt.designation} is too short to go round these wheels."
    if low - _TAPE_M <= at <= high + _TAPE_M:
        return ""
    way = "long" if at > high else "short"
    return f"{fix.belt.designation} is too {way} here: it is tight at centres of {both(at)}, and the slide goes from {both(low)} to {both(high)}."


def _judge(on: VSet, fix: Fix, whole: int, other: bool, singles: bool, own: OwnRatings, page: Page) -> GetHome:
    assert on.section and on.parallel
    one, basis = _one_belt(on, fix.section, own, page) if other else (1.0, "the same belt")
    of_set = one * fix.count / whole
    figures = [
        figure(
            "share_of_set",
            "share of the full set",
            "s",
            "share",
            exact(of_set),
            [
                Line("n", "belts on", str(fix.count), str(fix.count), Origin.CHOSEN, Origin.CHOSEN),
                Line("N", "belts of the full set", str(whole), str(whole), Origin.CHOSEN, Origin.CHOSEN),
                Line(
                    "p",
                    f"one {fix.section.name} against one {on.section.name}: {basis}",
                    f"{one:.0%}",
                    f"{one:.0%}",
                    Origin.STANDARD,
                    Origin.STANDARD,
                ),
            ],
            "s = p n / N",
            duties.SOURCE if basis.startswith("rated") else "estimate",
            decimals=(0, 0),
        ),
    ]
    share = None
    ratio = short_set.share_of_load(page, one * fix.count * (1 if singles else on.ribs))
    if ratio is not None:
        figures.append(
            figure(
                "share_of_load",
                "share of the design load",
                "S",
                "share",
                ratio,
                [figures[0].line(), *page.lines("power_per_belt", "design_power")],
                "S = P_b p n / P_d",
                duties.SOURCE,
                decimals=(0, 0),
            )
        )
        share = ratio.n
    known = share if share is not None else of_set
    narrower = other and fix.section.groove != on.section.groove
    days = min(NARROW_DAYS if narrower else 99, short_set.days(known))
    kind = "single belts" if singles and not other else f"{fix.section.name} {'belt' if fix.count == 1 else 'belts'}"
    what = (
        f"{fix.count} {kind} in {on.section.name} grooves"
        if other
        else f"{fix.count} {'single belt' if fix.count == 1 else 'single belts'} in place of {whole} joined"
        if singles
        else f"{fix.count} of {whole} belts"
    )
    text = f"{share:.0%} of the design load ({of_set:.0%} of the full set)" if share is not None else f"{of_set:.0%} of the full set"
    verdicts = _verdicts(on, fix, narrower, singles and not other, text, known, share is not None, page)
    return GetHome(what, share, text, days, short_set.run(known, share is not None), tuple(figures), tuple(verdicts), ())


def _one_belt(on: VSet, section: Section, own: OwnRatings, page: Page) -> tuple[float, str]:
    """Power of one stand-in belt against one right belt, each rated by its own construction where it rides, and on what it rests."""
    assert on.section
    by_area = _AREA_CREDIT * section.top_width_m * section.height_m / (on.section.top_width_m * on.section.height_m)
    same_groove = section.groove == on.section.groove
    if not page.has("ratio", "driver_outside", "driven_outside", "driver_speed"):
        return (1.0 if same_groove and not on.section.cogged else by_area), "by the belts' areas"
    strange = 1.0 if same_groove else limit("wrong groove").value
    try:
        d, big = (_line_diameter(section, on.section, page.values[f"{r}_outside"].n) for r in ("driver", "driven"))
        over = pitch_over_datum(section)
        ratio = (max(d, big) + over) / (min(d, big) + over)
        fast = page.values["driver_speed"].n * max(1.0, (d + over) / (big + over))
        right = vee.rated_power(
            on.section,
            min(page.values["driver_datum"].n, page.values["driven_datum"].n),
            page.values["driver_speed"].n * max(1.0, 1 / page.values["ratio"].n),
            max(page.values["ratio"].n, 1 / page.values["ratio"].n),
            own.of(on.section.name),
        ).total_w
        stands_in = vee.rated_power(section, min(d, big), fast, ratio, own.of(section.name)).total_w
    except (duties.OutOfRangeError, BeltError, GeometryError):
        return min(1.0, by_area), "by the belts' areas"
    if right <= 0:
        return min(1.0, by_area), "by the belts' areas"
    basis = "each by its own rating" if same_groove else "rated power where it rides, a fifth off for the strange groove"
    return min(1.0, strange * stands_in / right), f"rated: {basis}" if same_groove else basis


def _line_diameter(section: Section, made_for: Section, outside_m: float) -> float:
    """Diameter of the narrower belt's line in the wider groove: its back is lower by the ride."""
    if section.groove == made_for.groove:
        return datum_from_outside(section, outside_m)
    groove = groove_at_outside(made_for, outside_m)
    ride = seat(
        Trapezoid(section.top_width_m, section.height_m, section.angle_deg * pi / 180),
        Trapezoid(groove.top_width_m, groove.depth_min_m, groove.angle_deg * pi / 180),
    ).ride_m
    flush = outside_m + 2 * ride
    return datum_from_outside(section, flush)


def _verdicts(
    on: VSet, fix: Fix, narrower: bool, in_place_of_joined: bool, carries: str, known: float, by_load: bool, page: Page
) -> list[Verdict]:
    assert on.section
    enough = known >= short_set.ENOUGH
    found = [Verdict("get home", Tone.WATCH if enough else Tone.STOP, f"Carries about {carries}", "Temporary: order the right set today.")]
    if in_place_of_joined:
        all_in = fix.count == on.parallel
        found.append(
            Verdict(
                "get home",
                Tone.WATCH,
                "Singles in every groove of a joined belt" if all_in else "Single belts in some grooves of a joined belt",
                ("Left on, they must be a matched set, all new. " if all_in else "For a while only. ")
                + "The joined belt was fitted against whip and turning over: watch the first run.",
            )
        )
    if narrower:
        found.append(
            Verdict(
                "get home",
                Tone.WATCH,
                f"{fix.section.name} sits deep in {a(on.section.name)} groove",
                _speed(on, fix.section, page) + " Look at it after the first hour: it must not touch the bottom.",
            )
        )
    if fix.section.name != on.section.name:
        pair = in_groove(fix.section, on.section)
        if pair.match == "near" or (pair.match == "right" and pair.verdict.tone is Tone.WATCH):
            found.append(Verdict("get home", Tone.WATCH, pair.verdict.headline, pair.verdict.detail))
        found.append(
            Verdict(
                "get home",
                Tone.WATCH,
                f"Never {fix.section.name} beside {on.section.name}",
                "Take every belt of the old set off: two constructions share the load badly, and one drags the other.",
            )
        )
    if fix.belt is None:
        found.append(
            Verdict(
                "get home",
                Tone.OPEN,
                "Which length is it?",
                "Write the name of the belt from the shelf: then it says whether the slide takes it.",
            )
        )
    if not by_load:
        found.append(
            Verdict(
                "get home",
                Tone.OPEN,
                "Share of the load not known",
                "Give power, speed and kind of machine at Survey: then it says what the fix carries.",
            )
        )
    return found


def _speed(on: VSet, section: Section, page: Page) -> str:
    if not page.has("driver_outside", "driven_outside", "ratio"):
        return ""
    assert on.section
    over = pitch_over_datum(section)
    d, big = (_line_diameter(section, on.section, page.values[f"{r}_outside"].n) + over for r in ("driver", "driven"))
    change = (d / big) * page.values["ratio"].n - 1
    return f"The driven speed changes by {change:+.1%}." if abs(change) >= 0.005 else "The driven speed hardly changes."
