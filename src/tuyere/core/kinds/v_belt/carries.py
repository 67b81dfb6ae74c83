"""Rated power of one belt as fitted and of the set, belts needed, and whether what is fitted will do."""

from tuyere.core.basis.figure import Line, figure, given_figure, over
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.uncertainty import UFloat, exact
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.fitted import SMALL, small_wheel
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.ip20 import RatedPower
from tuyere.core.kinds.v_belt.tension import arc_factor, half_turn_ratio
from tuyere.core.kinds.v_belt.v_set import VSet


def rating(on: VSet, own: OwnRatings, page: Page) -> None:
    """Rated power of one belt as fitted, and of the set."""
    if not (on.section and page.has("wrap_driver")):
        return
    _arc(on, on.section, page)
    belt = on.belt or _nearest(on.section, page)
    if belt is None:
        return
    try:
        _rate(on, on.section, belt, own, page)
    except duties.OutOfRangeError as reason:
        page.say("rating", Tone.STOP, "No rating for this drive", str(reason))


def _arc(on: VSet, section: v_belt.Section, page: Page) -> None:
    """Known for every section, rated or not: the tension target needs it."""
    small, _ = small_wheel(page)
    ratio = half_turn_ratio(section)
    factor = exact(float(arc_factor(section, page.values[f"wrap_{small}"].n, on.driven_flat)))
    formula = f"K_θ = {ratio / (ratio - 1):.3g} (1 - {ratio:g}^(-θ/180°))"
    note = "printed table by closed form, within 0.005" if ratio == 5 else "the same algebra at a ratio of 4 (IP-26, medium)"
    if on.driven_flat:
        formula, note = (
            "V-flat column by θ",
            "The large wheel is flat: above 127° it slips there first. Printed table, straight between its points.",
        )
    page.put(
        figure(
            "arc_factor",
            "arc factor",
            "K_θ",
            "number",
            factor,
            page.lines(f"wrap_{small}"),
            formula,
            duties.SOURCE,
            note=note,
            origin=Origin.STANDARD,
            decimals=(3, 3),
        ),
        factor,
    )


def _nearest(section: v_belt.Section, page: Page) -> v_belt.Belt | None:
    """With no belt named, the standard length nearest the tape stands in for the length factor.

    Link and ribbed belting comes in any length.
    """
    length = page.values["length_by_tape"].n
    if section.construction in ("link", "ribbed"):
        return v_belt.belt_of(section, round(v_belt.number_from_datum(section, length)))
    return min((b for b in v_belt.nearest_belts(section, length) if b), key=lambda b: abs(b.datum_length_m - length), default=None)


def _rate(on: VSet, section: v_belt.Section, belt: v_belt.Belt, ratings: OwnRatings, page: Page) -> None:
    ratio = page.values["ratio"].n
    small, _ = small_wheel(page)
    fast_key = "driver_speed" if small == "driver" else "driven_speed"
    big_over_small = max(ratio, 1 / ratio)
    diameter = page.values[f"{small}_datum"].n
    own = ratings.of(section.name)
    how = vee.method(section, own)
    rated = vee.rated_power(section, diameter, page.values[fast_key].n, big_over_small, own)
    factors = vee.speed_ratio_factor(how, big_over_small), vee.length_factor(belt, own)
    ratio_line = page.lines("ratio")
    belt_line = Line(
        "",
        "belt length by its name",
        belt.designation,
        belt.designation,
        on.belt_origin if on.belt else Origin.ASSUMED,
        on.belt_origin if on.belt else Origin.ASSUMED,
    )
    for key, label, symbol, value, lines, formula, note in (
        ("speed_ratio_factor", "speed-ratio factor", "K_SR", factors[0], ratio_line, "table by ratio", ""),
        (
            "length_factor",
            "length factor",
            "K_L",
            factors[1],
            [belt_line],
            "table by belt name",
            "" if on.belt else "No belt is named: the standard length nearest the tape stands in.",
        ),
    ):
        page.put(
            figure(
                key, label, symbol, "number", exact(value), lines, formula, how.source, note=note, origin=Origin.STANDARD, decimals=(3, 3)
            ),
            exact(value),
        )
    _power_per_belt(section, how, small, fast_key, rated, page)
    corrected = exact(rated.total_w * page.values["arc_factor"].n * factors[1])
    page.put(
        figure(
            "power_per_belt",
            "power one belt carries here",
            "P_b",
            "power",
            corrected,
            page.lines("rated_power", "arc_factor", "length_factor"),
            "P_b = HP K_θ K_L",
            how.source,
            rated.confidence,
            note=how.estimate,
        ),
        corrected,
    )
    _belts(on, page, corrected)


def _power_per_belt(section: v_belt.Section, how: vee.RatingMethod, small: str, fast_key: str, rated: RatedPower, page: Page) -> None:
    other = ""
    if how.standard == "IP-20" and _outside_in_range(section, small, fast_key, page):
        ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
        outside = vee.rated_power(section, page.values[f"{small}_outside"].n, page.values[fast_key].n, ratio)
        other = f" With the outside diameter (the pitch diameter of the 1988 datum system) it would be {show(outside.total_w, 'power', System.US)} ({show(outside.total_w, 'power', System.SI)})."
    constants = [
        Line(symbol, f"section {how.rated_as.name}", text, text, Origin.STANDARD, Origin.STANDARD) for symbol, text in how.constants
    ]
    estimate = f"{how.estimate} " if how.estimate else ""
    page.put(
        figure(
            "rated_power",
            "rated power of one belt",
            "HP",
            "power",
            exact(rated.total_w),
            [*page.lines((f"{small}_datum", "d"), (fast_key, "n"), "speed_ratio_factor"), *constants],
            how.formula,
            how.source,
            rated.confidence,
            limits=how.limits,
            note=f"{estimate}{how.note}{other}",
            origin=Origin.ASSUMED if how.estimate else Origin.COMPUTED,
        ),
        exact(rated.total_w),
    )
    if how.estimate:
        page.flag(
            "estimated-rating",
            "section",
            f"No standard rates section {section.name} here. {how.estimate} Ask the belt's supplier before you rely on it.",
        )


def _outside_in_range(section: v_belt.Section, small: str, fast_key: str, page: Page) -> bool:
    return bool(page.values[f"{small}_outside"].n * page.values[fast_key].n / 2 <= section.max_speed_m_per_s)


def _belts(on: VSet, page: Page, corrected: UFloat) -> None:
    if not page.has("design_power"):
        return
    wanted = page.values["design_power"].n
    needed = ip20.belts_needed(wanted, corrected.n)
    if needed is None:
        page.say(
            "rating",
            Tone.STOP,
            "These sheaves carry no power at this speed",
            "The small sheave is too small for the section at this speed: fit larger sheaves or a cogged belt.",
        )
        return
    inputs = page.lines("design_power", "power_per_belt")
    page.put(
        figure(
            "belts_needed",
            "belts needed",
            "N",
            "number",
            exact(float(needed)),
            inputs,
            "N = P_d / P_b, up to the next whole belt",
            duties.SOURCE,
            decimals=(0, 0),
        ),
        exact(float(needed)),
    )
    count = on.parallel
    if not count:
        page.say(
            "rating",
            Tone.OPEN,
            f"{needed} {_belts_word(needed, on)} would carry it",
            f"One belt carries {page.figures['power_per_belt'].us} here, the design power is {page.figures['design_power'].us}.",
        )
        return
    if on.ribs > 1 and on.belt_count == on.ribs:
        page.flag(
            "bands-or-ribs",
            "belt_count",
            f"{on.belt_count} bands of {on.ribs} ribs are {count} ribs: if there is one band, write 1 band.",
        )
    fitted = given_figure(
        "belt_count",
        "belts fitted" if on.ribs == 1 else f"ribs in use, {on.belt_count} × {on.ribs}",
        "N_f",
        "number",
        float(count),
        0.0,
        Origin.MEASURED,
        (0, 0),
    )
    capacity = corrected * count
    found = page.put(
        figure(
            "capacity",
            "power the set carries",
            "N_f P_b",
            "power",
            capacity,
            [fitted.line(), *page.lines("power_per_belt")],
            "N_f P_b",
            duties.SOURCE,
        ),
        capacity,
    )
    share = capacity.n / wanted
    weighed = f"The set carries {found.us} ({found.si}); the design power is {page.figures['design_power'].us} ({page.figures['design_power'].si})."
    too_small = next((f for f in page.flags if f.code == SMALL), None)
    if needed <= count and too_small:
        page.say(
            "rating",
            Tone.WATCH,
            "By its rating the set would carry it, but a sheave is too small",
            standing=True,
            detail=f"{weighed} {too_small.sentence}",
        )
    elif needed <= count:
        page.say("rating", Tone.GOOD, f"{count} {_belts_word(count, on)} will carry it{over(share)}", weighed)
    else:
        page.say(
            "rating",
            Tone.WATCH,
            f"{count} {_belts_word(count, on)} will not do: {needed} needed",
            weighed + " Fit more grooves, larger sheaves or cogged belts; meanwhile expect slip and short life.",
        )
        page.flag(
            "too-few-belts",
            "belt_count",
            f"{count} {_belts_word(count, on)} {'carries' if count == 1 else 'carry'} {share:.0%} of the design power; {needed} are "
            "needed.",
        )


def _belts_word(count: int, on: VSet) -> str:
    word = "rib" if on.ribs > 1 or (on.section and on.section.construction == "ribbed") else "belt"
    return word if count == 1 else f"{word}s"
