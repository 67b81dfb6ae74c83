"""The sheaves' diameters: outside, datum and pitch, from whichever was entered."""

from tuyere.core.basis.figure import Line, figure, given_figure, shown
from tuyere.core.basis.limit import limit
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import UFloat, uncertain, wrapped
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.fitted import Adjustable
from tuyere.core.kinds.v_belt.v_set import GrooveKind, VSet

# A rim smaller than this share of the section's least diameter cannot hold the groove at all.
_LEAST_SHARE = 0.25


def diameters(on: VSet, page: Page) -> None:
    """Outside, datum and pitch diameter of both sheaves."""
    # One belt rides alike in both grooves: the doubt about its line is shared, and counts the more on the smaller wheel.
    section, rides = (
        on.section,
        uncertain(
            0.0, limit("belt line rides").value * on.section.height_m if on.section else 0.0, "where in the groove the belt's line runs"
        ),
    )
    if section is None:
        return
    for role, given, basis, kind in (
        ("driver", on.driver_diameter, on.driver_basis, on.driver_groove),
        ("driven", on.driven_diameter, on.driven_basis, on.driven_groove),
    ):
        if given and basis == "flat":
            _flat_wheel(section, given, page)
        elif given:
            _one_wheel(section, role, given, basis, kind, page)
            if on.adjustable and on.adjustable.role == role and page.has(f"{role}_datum"):
                _opened(on.adjustable, page)
        if page.has(f"{role}_datum"):
            _pitch(section, role, rides, page)


def _pitch(section: v_belt.Section, role: str, rides: UFloat, page: Page) -> None:
    """The diameter that speeds go by."""
    over = v_belt.pitch_over_datum(section)
    symbol, line = ("d_p", "d_d") if role == "driver" else ("D_p", "D_d")
    value = page.values[f"{role}_datum"] + over + rides
    lines = page.lines((f"{role}_datum", line))
    if over:
        us, si = shown(over, "length", decimals=(2, 2))
        lines.append(Line("2h_d", f"datum to pitch, section {section.name}", us, si, Origin.STANDARD, Origin.STANDARD))
    page.put(
        figure(
            f"{role}_pitch",
            f"{role} pitch diameter",
            symbol,
            "length",
            value,
            lines,
            f"{symbol} = {line} + 2h_d" if over else f"{symbol} = {line}",
            "IP-20: pitch diameter = outside - 2a_p, 2a_p = 0 in a standard groove (from memory)" if over else v_belt.SOURCE,
            note=(
                "Speeds go by the pitch diameter, lengths by the datum diameter."
                if over
                else "One line for speeds and lengths in this system."
            )
            + " Where in the groove this belt's line really runs is known to about a tenth of its height (common practice, no source).",
        ),
        value,
    )


def _flat_wheel(section: v_belt.Section, given: Given, page: Page) -> None:
    """A flat driven wheel under V-belts: they lie on its rim with their narrow faces."""
    rim = page.put(
        given_figure("driven_outside", "driven outside diameter, flat", "D_o", "length", given.value, given.std, given.origin), given.u
    )
    line = wrapped(lambda x: v_belt.line_on_flat(section, x))(given.u)
    over_us, over_si = shown(v_belt.line_on_flat(section, given.value) - given.value, "length", decimals=(2, 2))
    over = Line("2e", f"line over the rim, section {section.name}", over_us, over_si, Origin.STANDARD, Origin.STANDARD)
    page.put(
        figure(
            "driven_datum",
            "driven diameter of the line, flat",
            "D",
            "length",
            line,
            [rim.line(), over],
            "D = D_o + 2e, e = height - h_d",
            v_belt.SOURCE,
            note="On a flat rim the belt stands on its narrow face; its line lies as deep under its back as in a groove.",
        ),
        line,
    )
    if "narrow" in section.series or section.construction == "ribbed":
        page.flag(
            "narrow-on-flat",
            "driven_diameter",
            f"Section {section.name} is tall for its base: on a flat wheel it turns over. V-flat drives run on classical belts, best "
            "joined.",
        )


def _opened(sheave: Adjustable, page: Page) -> None:
    """An adjustable sheave: turned open, the belt sinks, and its line with it."""
    if sheave.turns is None:
        return
    role, symbol = sheave.role, "d_d" if sheave.role == "driver" else "D_d"
    closed = page.figures[f"{role}_datum"]
    drop_us, drop_si = shown(sheave.drop_m, "length", decimals=(2, 1))
    turns = f"{sheave.turns:g}"
    value = page.values[f"{role}_datum"] - sheave.turns * uncertain(sheave.drop_m, 0.1 * sheave.drop_m, "drop a turn")
    lines = [
        closed.line(f"{symbol} closed"),
        Line("x", "turns open", turns, turns, Origin.CHOSEN, Origin.CHOSEN),
        Line("c", "loss a turn", drop_us, drop_si, sheave.drop_origin, sheave.drop_origin),
    ]
    page.put(
        figure(
            f"{role}_datum",
            f"{role} datum diameter",
            symbol,
            "length",
            value,
            lines,
            f"{symbol} = {symbol} closed - x c",
            "geometry of the flange screw; about 0.2 in a turn on light-duty sheaves: common practice, no source",
            Confidence.MEDIUM,
            limits="Half turns only: the set screw must land on a flat.",
        ),
        value,
    )


def _one_wheel(section: v_belt.Section, role: str, given: Given, basis: str, kind: GrooveKind, page: Page) -> None:
    try:
        groove = v_belt.groove_at_outside(section, given.value, kind) if basis == "outside" else v_belt.groove(section, given.value, kind)
    except v_belt.BeltError as refusal:
        page.refuse(f"{role}_groove", f"{refusal} Choose {' or '.join(v_belt.groove_kinds(section))}.")
        return
    add_us, add_si = shown(groove.two_hd_m, "length", decimals=(2, 2))
    add = Line(
        "2h_d",
        f"outside minus datum, {'' if kind == 'standard' else kind + ' '}groove {section.groove}",
        add_us,
        add_si,
        Origin.STANDARD,
        Origin.STANDARD,
    )
    symbols = ("d_o", "d_d") if role == "driver" else ("D_o", "D_d")
    to_datum = wrapped(lambda outside: v_belt.datum_from_outside(section, outside, kind))
    to_outside = wrapped(lambda datum: v_belt.outside_from_datum(section, datum, kind))
    datum_value = to_datum(given.u) if basis == "outside" else given.u
    if datum_value.n < _LEAST_SHARE * v_belt.min_datum_diameter(section):
        page.refuse(
            f"{role}_diameter",
            f"That is too small for a section {section.name} groove: measure over the outside of the rim, or choose a smaller section.",
        )
        return
    entered = given_figure(
        f"{role}_{basis}", f"{role} {basis} diameter", symbols[basis == "datum"], "length", given.value, given.std, given.origin
    )
    page.put(entered, given.u)
    if basis == "outside":
        page.put(
            figure(
                f"{role}_datum",
                f"{role} datum diameter",
                symbols[1],
                "length",
                datum_value,
                [entered.line(), add],
                f"{symbols[1]} = {symbols[0]} - 2h_d",
                v_belt.SOURCE,
                note="Lengths and ratings go by the datum diameter; older books call it the pitch diameter.",
            ),
            datum_value,
        )
    else:
        outside = to_outside(given.u)
        page.put(
            figure(
                f"{role}_outside",
                f"{role} outside diameter",
                symbols[0],
                "length",
                outside,
                [entered.line(), add],
                f"{symbols[0]} = {symbols[1]} + 2h_d",
                v_belt.SOURCE,
            ),
            outside,
        )
    if datum_value.n < v_belt.min_datum_diameter(section) - 1e-6:
        least = v_belt.min_datum_diameter(section)
        across, behind = ("outside", "datum") if basis == "outside" else ("datum", "outside")
        (us, si), (us_2, si_2) = (
            shown(to_outside(uncertain(least, 0.0, "")).n if line == "outside" else least, "length", decimals=(1, 0))
            for line in (across, behind)
        )
        page.flag(
            "small-sheave",
            f"{role}_diameter",
            f"The {role} sheave is below the smallest for section {section.name} ({us}, {si} {across}; {us_2}, {si_2} {behind}): the belt "
            "bends too sharply and dies early, and the rating does not hold. Fit a larger "
            f"sheave{'' if section.cogged else ' or a cogged belt'}.",
        )
