"""Sheet step 1: the sheaves' diameters, ratio, speeds, slip."""

from tuyere.core import speed
from tuyere.core.drives import v_belt
from tuyere.core.drives.family import Slip
from tuyere.core.drives.fitted import LineWheel
from tuyere.core.entry.quantity import System, show
from tuyere.core.entry.typed import Given
from tuyere.core.limit import limit
from tuyere.core.origin import Confidence, Origin
from tuyere.core.sheet.spec import Adjustable, DriveSpec, GrooveKind
from tuyere.core.uncertainty import UFloat, exact, probability_between, sureness, uncertain, wrapped
from tuyere.core.working.figure import Line, figure, given_figure, shown
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Tone

GEOMETRY = "plane geometry and kinematics"

# A rim smaller than this share of the section's least diameter cannot hold the groove at all.
_LEAST_SHARE = 0.25


_ratio = wrapped(speed.ratio)
_driven_speed = wrapped(speed.driven_speed)
_belt_speed = wrapped(speed.belt_speed)
_slip = wrapped(speed.slip)


def diameters(spec: DriveSpec, page: Page) -> None:
    """Outside and datum diameter of both sheaves, from whichever was entered; of other wheels, as their own family has them."""
    if spec.line:
        _line_wheel("driver", spec.line.driver, page)
        _line_wheel("driven", spec.line.driven, page)
        return
    # One belt rides alike in both grooves: the doubt about its line is shared, and counts the more on the smaller wheel.
    rides = uncertain(
        0.0, limit("belt line rides").value * spec.section.height_m if spec.section else 0.0, "where in the groove the belt's line runs"
    )
    for role, given, basis, kind in (
        ("driver", spec.driver_diameter, spec.driver_basis, spec.driver_groove),
        ("driven", spec.driven_diameter, spec.driven_basis, spec.driven_groove),
    ):
        if given and spec.section and basis == "flat":
            _flat_wheel(spec.section, given, page)
        elif given and spec.section:
            _one_wheel(spec.section, role, given, basis, kind, page)
            if spec.adjustable and spec.adjustable.role == role and page.has(f"{role}_datum"):
                _opened(spec.adjustable, page)
        if spec.section and page.has(f"{role}_datum"):
            _pitch(spec.section, role, rides, page)


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
        figure(f"{role}_pitch", f"{role} pitch diameter", symbol, "length", value, lines, f"{symbol} = {line} + 2h_d" if over else f"{symbol} = {line}",
               "IP-20: pitch diameter = outside - 2a_p, 2a_p = 0 in a standard groove (from memory)" if over else v_belt.SOURCE,
               note=("Speeds go by the pitch diameter, lengths by the datum diameter." if over else "One line for speeds and lengths in this system.")
               + " Where in the groove this belt's line really runs is known to about a tenth of its height (common practice, no source)."),
        value,
    )  # fmt: skip


def _flat_wheel(section: v_belt.Section, given: Given, page: Page) -> None:
    """A flat driven wheel under V-belts: they lie on its rim with their narrow faces."""
    rim = page.put(
        given_figure("driven_outside", "driven outside diameter, flat", "D_o", "length", given.value, given.std, given.origin), given.u
    )
    line = wrapped(lambda x: v_belt.line_on_flat(section, x))(given.u)
    over_us, over_si = shown(v_belt.line_on_flat(section, given.value) - given.value, "length", decimals=(2, 2))
    over = Line("2e", f"line over the rim, section {section.name}", over_us, over_si, Origin.STANDARD, Origin.STANDARD)
    page.put(
        figure("driven_datum", "driven diameter of the line, flat", "D", "length", line, [rim.line(), over], "D = D_o + 2e, e = height - h_d", v_belt.SOURCE,
               note="On a flat rim the belt stands on its narrow face; its line lies as deep under its back as in a groove."),
        line,
    )  # fmt: skip
    if "narrow" in section.series or section.construction == "ribbed":
        page.flag(
            "narrow-on-flat",
            "driven_diameter",
            f"Section {section.name} is tall for its base: on a flat wheel it turns over. V-flat drives run on classical belts, best joined.",
        )


def _line_wheel(role: str, wheel: LineWheel, page: Page) -> None:
    """A toothed or flat wheel: the diameter of its line, and over the rim or tips."""
    small, big = ("d", "d_o") if role == "driver" else ("D", "D_o")
    name = f"{role} diameter of the line"
    line = uncertain(wheel.line_m, wheel.std_m, name)
    if wheel.teeth:
        teeth = Line("z", f"{role} teeth", str(wheel.teeth), str(wheel.teeth), Origin.MEASURED, Origin.MEASURED)
        page.put(figure(f"{role}_datum", f"{role} pitch diameter", small, "length", line, [teeth], f"{small} from z and the pitch", GEOMETRY, decimals=(3, 2)), line)  # fmt: skip
    else:
        page.put(given_figure(f"{role}_datum", f"{role} diameter at mid-thickness", small, "length", line.n, line.s, wheel.origin), line)
    rim = uncertain(wheel.rim_m, wheel.std_m, name)
    page.put(given_figure(f"{role}_outside", f"{role} outside diameter", big, "length", rim.n, rim.s, wheel.origin, decimals=(3, 2) if wheel.teeth else None), rim)  # fmt: skip


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
        figure(f"{role}_datum", f"{role} datum diameter", symbol, "length", value, lines, f"{symbol} = {symbol} closed - x c",
               "geometry of the flange screw; about 0.2 in a turn on light-duty sheaves: common practice, no source", Confidence.MEDIUM,
               limits="Half turns only: the set screw must land on a flat."),
        value,
    )  # fmt: skip


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
            figure(f"{role}_datum", f"{role} datum diameter", symbols[1], "length", datum_value, [entered.line(), add],
                   f"{symbols[1]} = {symbols[0]} - 2h_d", v_belt.SOURCE, note="Lengths and ratings go by the datum diameter; older books call it the pitch diameter."),
            datum_value,
        )  # fmt: skip
    else:
        outside = to_outside(given.u)
        page.put(
            figure(f"{role}_outside", f"{role} outside diameter", symbols[0], "length", outside, [entered.line(), add],
                   f"{symbols[0]} = {symbols[1]} + 2h_d", v_belt.SOURCE),
            outside,
        )  # fmt: skip
    if datum_value.n < v_belt.min_datum_diameter(section) - 1e-6:
        least_us, least_si = shown(v_belt.min_datum_diameter(section), "length", decimals=(1, 0))
        page.flag(
            "small-sheave", f"{role}_diameter",
            f"The {role} sheave is below the smallest for section {section.name} ({least_us}, {least_si} datum): the belt bends too sharply and dies early, and the rating does not hold. Fit a larger sheave{'' if section.cogged else ' or a cogged belt'}.",
        )  # fmt: skip


def ratio_and_speeds(spec: DriveSpec, page: Page) -> None:
    """Ratio, driven speed, belt speed and rim speeds."""
    if not page.has("driver_datum", "driven_datum"):
        return
    if spec.driven_flat and page.values["driven_datum"].n < page.values["driver_datum"].n:
        page.refuse(
            "driven_diameter", "Only the large wheel of a V-belt drive may be flat: the small one wants grooves, or the belts slip."
        )
        return
    first, second = (rolls_by(page, role) for role in ("driver", "driven"))
    small, large = page.values[first], page.values[second]
    if spec.line and spec.line.driver.teeth and spec.line.driven.teeth:
        ratio = exact(spec.line.driven.teeth / spec.line.driver.teeth)
        formula, note = "R = z_2 / z_1", "Teeth cannot slip: the ratio is exact."
    else:
        ratio = _ratio(small, large)
        by_outside = page.values["driven_outside"].n / page.values["driver_outside"].n
        formula = "R = D / d" if spec.line else "R = D_p / d_p"
        if spec.line:
            note = f"By outside diameters the ratio would be {by_outside:.3f}. The belt's line runs at mid-thickness; the tachometer settles it."
        else:
            by_datum = page.values["driven_datum"].n / page.values["driver_datum"].n
            note = (
                f"By outside diameters the ratio would be {by_outside:.3f}, by datum diameters {by_datum:.3f}; the tachometer settles it."
            )
    page.put(
        figure("ratio", "speed ratio", "R", "number", ratio, page.lines(second, first), formula, GEOMETRY, note=note),
        ratio,
    )
    if not spec.driver_speed:
        return
    driver_value = spec.driver_speed.u
    driver = page.put(
        given_figure(
            "driver_speed", "driver speed", "n_1", "rotation", spec.driver_speed.value, spec.driver_speed.std, spec.driver_speed.origin
        ),
        driver_value,
    )
    driven = _driven_speed(driver_value, ratio)
    page.put(
        figure("driven_speed", "driven speed", "n_2", "rotation", driven, [driver.line(), *page.lines("ratio")], "n_2 = n_1 / R", GEOMETRY,
               limits=spec.family.slip.said),
        driven,
    )  # fmt: skip
    chain = spec.line.rolls_m if spec.line else None
    rolls = exact(chain) if chain else small
    velocity = _belt_speed(rolls, driver_value)
    fastest, source = _fastest(spec)
    page.put(
        figure("belt_speed", f"{spec.family.runs} speed", "V", "velocity", velocity, page.lines(first, "driver_speed"), "V = N p n_1" if chain else "V = π d n_1", GEOMETRY,
               limits=source, limit_si=fastest),
        velocity,
    )  # fmt: skip
    _speed_limits(spec, page, driven.n)


def rolls_by(page: Page, role: str) -> str:
    """The figure of a wheel's diameter that its speed goes by: the pitch diameter of a V-sheave, the line of any other."""
    return f"{role}_pitch" if page.has(f"{role}_pitch") else f"{role}_datum"


def _speed_limits(spec: DriveSpec, page: Page, driven_speed: float) -> None:
    assert spec.driver_speed
    for role, rotation in (("driver", spec.driver_speed.value), ("driven", driven_speed)):
        rim = _belt_speed(page.values[f"{role}_outside"], rotation)
        page.put(
            figure(f"{role}_rim_speed", f"{role} rim speed", "v_r", "velocity", rim, page.lines(f"{role}_outside", "driver_speed"),
                   "v_r = π d_o n", GEOMETRY, limits="Cast iron to 6500 ft/min (33 m/s) unless another limit is cast on the wheel.",
                limit_si=speed.CAST_IRON_RIM_LIMIT_M_PER_S),
            rim,
        )  # fmt: skip
        if rim.n > speed.CAST_IRON_RIM_LIMIT_M_PER_S:
            most = show(speed.speed_at_rim_limit(page.values[f"{role}_outside"].n), "rotation", System.US)
            page.flag(
                "rim-speed", f"{role}_diameter",
                f"The {role} rim runs faster than 6500 ft/min (33 m/s), the limit for cast iron: stop at {most}, or fit a wheel marked for the speed.",
            )  # fmt: skip
    fastest, source = _fastest(spec)
    if fastest and page.values["belt_speed"].n > fastest:
        most = f"{show(fastest, 'velocity', System.US)} ({show(fastest, 'velocity', System.SI)})"
        page.flag("belt-speed", "driver_speed", f"The belt runs faster than {most}: use smaller wheels or a slower motor. {source}.")


def _fastest(spec: DriveSpec) -> tuple[float | None, str]:
    """The usual limit of the belt's speed (m/s), and where it comes from."""
    if spec.line:
        return spec.line.fastest_m_per_s, spec.line.fastest_source
    return (spec.section.max_speed_m_per_s, f"by the table of sections: {spec.section.source}") if spec.section else (None, "")


def tachometer(spec: DriveSpec, page: Page) -> None:
    """Slip from measured speeds, and the driven speed against the design point."""
    if not page.has("ratio", "driven_speed") or not spec.driver_speed:
        return
    if not spec.tach_driven:
        _against_design(spec, page)
        return
    first = spec.tach_driver or spec.driver_speed
    page.put(
        given_figure(
            "tach_driven",
            "driven speed measured",
            "n_2m",
            "rotation",
            spec.tach_driven.value,
            spec.tach_driven.std,
            spec.tach_driven.origin,
        )
    )
    driver = page.put(
        given_figure(
            "tach_driver",
            "driver speed" + (" measured" if spec.tach_driver else " by its plate"),
            "n_1m",
            "rotation",
            first.value,
            first.std,
            first.origin,
        )
    )
    slip = _slip(first.u, spec.tach_driven.u, page.values["ratio"])
    found = page.put(
        figure(
            "slip",
            "slip",
            "s",
            "share",
            slip,
            [driver.line(), *page.lines("tach_driven", "ratio")],
            "s = 1 - (n_2m / n_1m) R",
            spec.family.slip.said,
            Confidence.MEDIUM,
        ),
        slip,
    )
    if spec.family.toothed:
        _step_verdict(page, found.us, found.plus_minus_us)
    else:
        _slip_verdict(page, spec.family.slip, found.us, found.plus_minus_us, bool(spec.tach_driver))
    _against_design(spec, page)


def _step_verdict(page: Page, shown_slip: str, plus_minus: str) -> None:
    """Teeth hold step: any difference is in the counting, the reading, or teeth that jump."""
    slip = page.values["slip"]
    off = 1 - probability_between(slip, -0.005, 0.005)
    agree = abs(slip.n) <= max(0.005, 2 * slip.s)
    doubt = f" (± {plus_minus})" if plus_minus else ""
    if not agree:
        page.say("speed", Tone.WATCH, f"The shafts are out of step by {shown_slip}{doubt}",
                 "Teeth cannot slip. Count both wheels' teeth again and read both shafts together; a belt or chain that jumps teeth is heard.", sureness(off).value)  # fmt: skip
    else:
        page.say("speed", Tone.GOOD, "The shafts keep step", f"Teeth cannot slip: the two readings agree with the teeth counted, within their doubt{doubt}.")  # fmt: skip


def _slip_verdict(page: Page, usual: Slip, shown_slip: str, plus_minus: str, both_measured: bool) -> None:
    slip = page.values["slip"]
    fault, negative = 1 - probability_between(slip, -9, usual.fault), probability_between(slip, -9, -0.005)
    settle = "" if both_measured else " Read the driver's speed with the tachometer too: its plate is only near."
    doubt = f" (± {plus_minus})" if plus_minus else ""
    if fault >= 2 / 3:
        page.say(
            "speed",
            Tone.WATCH,
            f"Slip {shown_slip}{doubt}: too much",
            "Over 3 % is a fault: gauge the tension, look for glazed sides and worn grooves, and check both diameters." + settle,
            sureness(fault).value,
        )
    elif negative >= 2 / 3:
        page.say(
            "speed",
            Tone.WATCH,
            f"The driven sheave turns faster than its diameters allow ({shown_slip}{doubt})",
            "A belt cannot do that: measure both diameters again, and both shafts with the tachometer." + settle,
            sureness(negative).value,
        )
    elif slip.s > 0.02:
        page.say(
            "speed",
            Tone.OPEN,
            f"Slip {shown_slip}{doubt}: cannot tell",
            f"The largest doubt is the {page.figures['slip'].largest_doubt}: measure that better." + settle,
        )
    elif slip.n > usual.usual[1]:
        page.say(
            "speed",
            Tone.OPEN,
            f"Slip {shown_slip}{doubt}: on the high side",
            f"{usual.said}. Gauge the tension soon." + settle,
        )
    else:
        page.say(
            "speed",
            Tone.GOOD,
            f"Slip {shown_slip}{doubt}: as it should be",
            f"{usual.said}.",
            sureness(1 - fault - negative).value,
        )


def _against_design(spec: DriveSpec, page: Page) -> None:
    if not spec.design_speed:
        return
    page.put(
        given_figure(
            "design_speed",
            "driven speed it should have",
            "n_d",
            "rotation",
            spec.design_speed.value,
            spec.design_speed.std,
            spec.design_speed.origin,
        )
    )
    actual = spec.tach_driven.u if spec.tach_driven else page.values["driven_speed"]
    key = "tach_driven" if spec.tach_driven else "driven_speed"
    off = actual / spec.design_speed.value - 1
    found = page.put(
        figure("off_design", "off the design speed", "Δ", "share", off, page.lines(key, "design_speed"), "Δ = n_2 / n_d - 1", "arithmetic"),
        off,
    )
    word = "above" if off.n > 0 else "below"
    size = found.us.lstrip("-")
    if abs(off.n) <= 0.03:
        if spec.tach_driven:
            page.say("design", Tone.GOOD, f"At its design speed (within {size})", "")
        else:
            page.say(
                "design",
                Tone.OPEN,
                f"By its wheels at its design speed (within {size})",
                "Read the driven shaft to know: slip is not in this.",
            )
    else:
        how = "measured" if spec.tach_driven else "by the diameters"
        page.say(
            "design",
            Tone.WATCH,
            f"{size} {word} its design speed",
            f"It should turn {page.figures['design_speed'].us}; {how} it turns {page.figures[key].us}. On a fan or centrifugal pump power goes with the cube of speed.",
        )
