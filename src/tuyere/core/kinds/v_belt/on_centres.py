"""Belt length and centre distance (each gives the other), span, wraps, take-up."""

from dataclasses import replace

from tuyere.core.basis.figure import Figure, figure, given_figure, shown
from tuyere.core.basis.limit import limit
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import exact, uncertain, wrapped
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.two_wheels import GEOMETRY, spans_and_wraps
from tuyere.core.kinds.v_belt.v_set import VSet
from tuyere.core.mechanics import open_belt

# A run-in belt on its sheaves against its name: common practice, no source.
_BELT_LENGTH_RELATIVE = 0.004

# A hair clear of touching, so that the doubt about the sizes can be followed by small steps.
_CLEAR = 1 + 1e-4

_NAMED = {
    "inside": "L_d = number + adder",
    "datum": "L_d = number in the name, mm",
    "effective": "L_p = length in the name - π (d_o - d_p)",
}

_length = wrapped(open_belt.belt_length)
_centres = wrapped(open_belt.centre_distance)


def length_and_centres(on: VSet, slide: Slide, page: Page) -> None:
    """Whichever of centre distance and belt is known gives the other; both known are compared."""
    touching = (page.values["driver_outside"].n + page.values["driven_outside"].n) / 2
    if on.belt and not _belt_goes_round(on.belt, touching, page):
        return
    touching = max(touching, (page.values["driver_datum"].n + page.values["driven_datum"].n) / 2 * _CLEAR)
    if on.centre_distance and on.centre_distance.value <= touching:
        page.refuse("centre_distance", open_belt.overlap(touching))
        return
    d, big = page.values["driver_datum"], page.values["driven_datum"]
    if on.belt:
        _belt_figures(on.belt, on.belt_origin, page)
        belt_length = page.values["belt_length"]
        by_belt = _centres(d, big, belt_length)
        page.put(
            figure(
                "centres_by_belt",
                "centre distance by the belt",
                "C_b",
                "length",
                by_belt,
                page.lines("belt_length", "driver_datum", "driven_datum"),
                "solve L(C) = L_d for C",
                GEOMETRY,
                to_set=True,
            ),
            by_belt,
        )
    if on.centre_distance:
        _by_tape(on.centre_distance, page)
    if not page.has("centres_by_belt") and not page.has("centres_taped"):
        return
    source = "centres_taped" if page.has("centres_taped") else "centres_by_belt"
    page.put(_as(page.figures[source], "centre_distance", "centre distance", "C"), page.values[source])
    spans_and_wraps(page, limit("least wrap of a belt"), ("The belt", "it slips early under"))
    _length_verdict(on, page)
    if on.belt:
        _take_up(on.belt, on.centre_distance, slide, page)


def _as(figure_: Figure, key: str, label: str, symbol: str) -> Figure:
    return replace(figure_, key=key, label=label, symbol=symbol)


def _belt_goes_round(belt: v_belt.Belt, touching: float, page: Page) -> bool:
    d, big = page.values["driver_datum"].n, page.values["driven_datum"].n
    shortest = open_belt.belt_length(d, big, max(touching, (d + big) / 2) * _CLEAR)
    if belt.datum_length_m > shortest:
        return True
    least_us, least_si = shown(shortest, "length", decimals=(1, 0))
    page.refuse(
        "belt",
        f"{belt.designation} is too short to span these sheaves: with the rims touching the belt already needs {least_us} ({least_si}) "
        "datum length. Read the name again, or measure the sheaves.",
    )
    return False


def _belt_figures(belt: v_belt.Belt, origin: Origin, page: Page) -> None:
    us, si = shown(belt.datum_length_m, "length", decimals=(1, 0))
    length = uncertain(belt.datum_length_m, _BELT_LENGTH_RELATIVE * belt.datum_length_m, "length of the belt as made")
    named = given_figure("belt_name", f"belt {belt.designation}", "", "number", belt.number, 0.0, origin)
    page.put(
        figure(
            "belt_length",
            f"datum length of {belt.designation}",
            "L_d",
            "length",
            length,
            [named.line("No.")],
            _NAMED[belt.section.named_by],
            belt.section.source,
            belt.section.confidence,
            decimals=(1, 0),
            note=""
            if belt.listed
            else f"{belt.designation} is not in the standard list{', but the trade makes it' if belt.made else ''}: its length is worked out from the name.",
        ),
        length,
    )
    if not belt.made:
        page.flag(
            "odd-length",
            "belt",
            f"{belt.designation} is not a standard length as we know them ({us}, {si} by its name): read the name again; a dealer may "
            "still have it.",
        )


def _by_tape(taped: Given, page: Page) -> None:
    page.put(given_figure("centres_taped", "centre distance", "C", "length", taped.value, taped.std, taped.origin, to_set=True), taped.u)
    length = _length(page.values["driver_datum"], page.values["driven_datum"], taped.u)
    check = open_belt.approximate_belt_length(page.values["driver_datum"].n, page.values["driven_datum"].n, taped.value)
    check_us, check_si = shown(check, "length", decimals=(2, 1))
    page.put(
        figure(
            "length_by_tape",
            "datum length by the tape",
            "L",
            "length",
            length,
            page.lines("centres_taped", "driver_datum", "driven_datum"),
            "L = 2 √(C² - ((D-d)/2)²) + d θ_d/2 + D θ_D/2",
            GEOMETRY,
            decimals=(1, 0),
            note=f"The series 2C + π(D+d)/2 + (D-d)²/4C gives {check_us} ({check_si}).",
        ),
        length,
    )


def _length_verdict(on: VSet, page: Page) -> None:
    if on.belt and page.has("length_by_tape"):
        _compare(on.belt, page)
    elif on.belt:
        centres = page.figures["centres_by_belt"]
        page.say(
            "length",
            Tone.OPEN,
            f"{on.belt.designation} puts the centres {centres.us} apart ({centres.si})",
            "Tape the centre distance to check the belt against it.",
        )
    elif on.section:
        _suggest(on.section, page)


def _compare(belt: v_belt.Belt, page: Page) -> None:
    taped, named = page.values["length_by_tape"], page.values["belt_length"]
    gap = taped - named
    apart_us, apart_si = shown(abs(gap.n), "length", to_set=True)
    if abs(gap.n) <= max(2 * gap.s, 0.01 * named.n):
        where = "the same" if abs(gap.n) < 0.0004 else f"{apart_us} ({apart_si}) {'more' if gap.n > 0 else 'less'}"
        page.say(
            "length",
            Tone.GOOD,
            f"{belt.designation} is the right length here",
            f"The tape asks for {page.figures['length_by_tape'].us}, the belt is {page.figures['belt_length'].us}: {where}, within tape, "
            "take-up and stretch.",
        )
        return
    candidates = [b for b in v_belt.nearest_made(belt.section, taped.n) if b]
    near = min(candidates, key=lambda b: abs(b.datum_length_m - taped.n)) if candidates else None
    ask = f" By the tape it would be {near.designation}." if near and near.number != belt.number else ""
    word = "too short" if gap.n > 0 else "too long"
    page.say(
        "length",
        Tone.WATCH,
        f"{belt.designation} is {word} for these centres by {apart_us} ({apart_si})",
        f"The tape asks for {page.figures['length_by_tape'].us}, the belt is {page.figures['belt_length'].us}.{ask} Read the name on the "
        "belt again and tape again before ordering.",
    )


def _suggest(section: v_belt.Section, page: Page) -> None:
    length = page.figures["length_by_tape"]
    d, big = page.values["driver_datum"].n, page.values["driven_datum"].n
    shortest = open_belt.belt_length(d, big, (d + big) / 2 * _CLEAR)
    below, above = (b if b and b.datum_length_m > shortest else None for b in v_belt.nearest_made(section, page.values["length_by_tape"].n))
    if not below and not above:
        if section.construction not in ("link", "ribbed"):
            wants = f"These centres want {length.us} of belt ({length.si}): no {section.name} belt is near that"
            page.say("length", Tone.WATCH, wants, "Check the centre distance and its unit.")
        return
    near = min((b for b in (below, above) if b), key=lambda b: abs(b.datum_length_m - length.value_si))
    centres = open_belt.centre_distance(d, big, near.datum_length_m)
    us, si = shown(centres, "length", to_set=True)
    others = " and ".join(b.designation for b in (below, above) if b)
    page.say(
        "length",
        Tone.OPEN,
        f"These centres want {length.us} of belt ({length.si}): nearest {near.designation}",
        f"{near.designation} puts the centres at {us} ({si}). Made lengths either side: {others}{_common(below, above)}. Read the belt's "
        "own name if there is one.",
    )


def _common(*belts: v_belt.Belt | None) -> str:
    """Which of them are common stock."""
    listed = [b.designation for b in belts if b and b.listed]
    made = [b for b in belts if b]
    return (
        f" ({' and '.join(listed)} common stock)"
        if listed and len(listed) < len(made)
        else " (common stock)"
        if listed
        else " (made, not common stock)"
    )


def _take_up(belt: v_belt.Belt, taped: Given | None, slide: Slide, page: Page) -> None:
    allowed = v_belt.allowance(belt)
    if allowed:
        for key, label, value in (
            ("installation", "close the centres to fit the belt", allowed.installation_m),
            ("takeup", "room to take up", allowed.takeup_m),
        ):
            page.put(
                figure(
                    key,
                    label,
                    "",
                    "length",
                    exact(value),
                    page.lines("belt_length"),
                    f"table by length for section {belt.section.groove}",
                    v_belt.SOURCE,
                    allowed.confidence,
                    to_set=True,
                    origin=Origin.STANDARD,
                )
            )
    if not (taped and slide.away):
        return
    farthest = taped.value + slide.away.value
    by_belt = page.values["centres_by_belt"].n
    if by_belt > farthest:
        us, si = shown(by_belt - farthest, "length", to_set=True)
        page.flag(
            "long-belt",
            "belt",
            f"{belt.designation} is too long for the take-up: it is tight only {us} ({si}) beyond the end of the slide. Fit a shorter "
            "belt.",
        )
    elif allowed and by_belt + allowed.takeup_m > farthest:
        us, si = shown(max(0.0, farthest - by_belt), "length", to_set=True)
        page.flag(
            "short-takeup",
            "travel_out",
            f"Only {us} ({si}) is left to take up stretch; {page.figures['takeup'].us} is usual for {belt.designation}.",
        )
    closest = taped.value - slide.closer.value if slide.closer else None
    if allowed and closest is not None and by_belt - allowed.installation_m < closest:
        page.flag(
            "tight-fit",
            "travel_in",
            f"The centres do not close far enough to fit {belt.designation} without prying: it wants {page.figures['installation'].us} "
            f"({page.figures['installation'].si}). Free more slide; never roll a belt on.",
        )
