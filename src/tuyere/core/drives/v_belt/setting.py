"""The tension to set, the gauge's deflection and force, and what the readings say."""

import math

from tuyere.core import tension
from tuyere.core.drives import v_belt
from tuyere.core.drives.gauge import Gauge
from tuyere.core.drives.v_belt.tension import half_turn_ratio
from tuyere.core.drives.v_belt.v_set import VSet
from tuyere.core.entry.quantity import System, from_si, show
from tuyere.core.origin import Confidence, Origin
from tuyere.core.uncertainty import UFloat, exact, largest_doubt, probability_between, sureness, uncertain, wrapped
from tuyere.core.working.figure import Line, figure, given_figure, shown
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Tone

SOURCE = "ARPM/RMA-MPTA IP-20; Machinery's Handbook (from memory)"
METRIC = "GB/T 13575.1 (from memory)"
STRING = "statics of a centre-loaded string"
# One-sigma shares of a careful gauge reading: common practice, no source.
_STICTION, _SQUARENESS, _STIFFNESS = 0.05, 0.015, 0.2
_DEFLECTION_READING_M = 0.0005
# A matched set's belts lie within this share of their mean: rule of thumb, no source.
SPREAD_LIMIT = 0.20

_strand = wrapped(tension.tension_from_force)
_gauge_force = wrapped(tension.deflection_force)


def target(on: VSet, page: Page) -> None:
    """Static tension and the force range, for run-in and for new belts."""
    if not (on.section and on.parallel and page.has("design_power", "arc_factor", "belt_speed")):
        return
    belts, section = on.parallel, on.section
    inch = section.unit == "in"
    mass, half_turn = v_belt.centrifugal_mass(section), half_turn_ratio(section)
    velocity, arc = page.values["belt_speed"], page.values["arc_factor"].n
    static = wrapped(lambda power, v: tension.static_tension(power, v, belts, arc, mass, half_turn, inch))(
        page.values["design_power"], velocity
    )
    centrifugal = tension.centrifugal_tension(mass, velocity.n)
    count = given_figure(
        "belt_count", "belts fitted" if on.ribs == 1 else "ribs in use", "N", "number", float(belts), 0.0, Origin.MEASURED, (0, 0)
    )
    us, si = show(centrifugal, "force", System.US), show(centrifugal, "force", System.SI)
    centrifugal_line = Line("T_c", f"centrifugal, m V² at {mass:.3f} kg/m", us, si, Origin.COMPUTED, Origin.STANDARD)
    page.put(
        figure("static_tension", "static tension of one strand", "T_st", "force", static,
               [*page.lines("design_power", "belt_speed", "arc_factor"), count.line(), centrifugal_line],
               f"T_st = {'15' if inch else '500'} ({2 * half_turn / (half_turn - 1):.3g} - K_θ)/K_θ · {'1000 ' if inch else ''}P_d/(N V) + T_c", SOURCE if inch else METRIC, limits="hp, ft/min, lbf" if inch else "kW, m/s, N",
               note=("15 is nine tenths of the exact half-sum of the strand tensions (16.5), as published: some growth of tension under load is allowed for." if inch else "500 is the exact half-sum of the strand tensions.") + " It uses the design power; a lightly loaded motor needs less."),
        static,
    )  # fmt: skip
    _forces(on, section, page, static)


def _forces(on: VSet, section: v_belt.Section, page: Page, static: UFloat) -> None:
    assert on.parallel
    belt_length = page.values["belt_length"] if page.has("belt_length") else page.values["length_by_tape"]
    span = page.values["span"].n
    known = section.stiffness_n or 0.0
    term = tension.stiffness_share(known, on.parallel, span, belt_length.n)
    share = " · t/L, one belt alone" if on.parallel == 1 else ""
    stiff = page.put(
        figure("stiffness_term", "belt-stiffness term", "K_y", "force", exact(term), [Line("K_y", f"section {section.name}", *shown(known, "force"), Origin.STANDARD, Origin.STANDARD)],
               f"table{share}", SOURCE, section.stiffness_confidence, limits="Within about 40 %." if known else f"Not known for section {section.name}: the string relation alone.", origin=Origin.STANDARD),
        exact(term),
    )  # fmt: skip
    strands = {
        "low": ("lowest, run-in belts", 1.0, "T_st"),
        "new_low": ("lowest, new belts", tension.NEW_BELT_LOW, "1.3 T_st"),
        "high": ("highest, new or run-in", tension.NEW_BELT_HIGH, "1.5 T_st"),
    }
    for key, (label, times, symbol) in strands.items():
        strand = static * times
        page.put(
            figure(
                f"tension_{key}", f"strand tension, {label}", symbol, "force", strand, page.lines("static_tension"), f"T = {symbol}", SOURCE
            ),
            strand,
        )
        string_us, string_si = shown(strand.n / 16, "force")
        force = _gauge_force(strand, span, tension.deflection(span), term) * on.ribs
        page.put(
            figure(f"force_{key}", f"gauge force, {label}", "P", "force", force, [*page.lines((f"tension_{key}", "T"), "stiffness_term"), *page.lines("deflection")],
                   "P = (T + K_y) / 16 at q = t/64" if on.ribs == 1 else f"P = {on.ribs} (T + K_y) / 16 at q = t/64, on the whole band", f"{SOURCE}; {STRING}", stiff.working.confidence if stiff.working else Confidence.LOW,
                   note=f"The string relation alone (T = 16 P) asks for {string_us} ({string_si}). The belt also resists being stretched by the push itself, which K_y/16 = {show(term / 16, 'force', System.US)} ({show(term / 16, 'force', System.SI)}) adds; the target counts both."),
            force,
        )  # fmt: skip
    if page.has("driver_power") and page.has("service_factor"):
        plain = (static - _centrifugal(section, page)) / page.values["service_factor"].n + _centrifugal(section, page)
        page.put(
            figure(
                "tension_running",
                "strand tension, plate power without service factor",
                "T_p",
                "force",
                plain,
                page.lines("static_tension", "service_factor"),
                "T_p = (T_st - T_c)/SF + T_c",
                SOURCE,
            ),
            plain,
        )


def _centrifugal(section: v_belt.Section, page: Page) -> UFloat:
    mass = v_belt.centrifugal_mass(section)
    return wrapped(lambda v: tension.centrifugal_tension(mass, v))(page.values["belt_speed"])


def readings(on: VSet, gauge: Gauge, page: Page) -> None:
    """Each belt's strand tension from the gauge, the average, the spread, and the verdict."""
    if not (gauge.forces and on.section and page.has("span", "deflection")):
        return
    belts = (on.parallel or 0) // on.ribs or len(gauge.forces)
    tensions, inputs = _strands(gauge, on.section, belts, on.ribs, page)
    for index, strand in enumerate(tensions, 1):
        page.put(
            figure(f"strand_{index}", f"belt {index} strand tension", f"T_{index}", "force", strand, [inputs[index - 1], *page.lines("span"), *_used(gauge, page)],
                   "T = P t/(4 q) - K_y (64 q/t)²", STRING, Confidence.MEDIUM, limits="Gauge at mid-span, square to the belt."),
            strand,
        )  # fmt: skip
    average = sum(tensions[1:], tensions[0]) / len(tensions)
    lines = page.lines(*(f"strand_{i}" for i in range(1, len(tensions) + 1)))
    page.put(
        figure("strand_average", "average strand tension", "T_m", "force", average, lines, "mean of the belts", STRING, Confidence.MEDIUM),
        average,
    )
    if len(tensions) > 1:
        top, bottom = max(tensions, key=lambda t: t.n), min(tensions, key=lambda t: t.n)
        spread = (top - bottom) / average
        page.put(
            figure(
                "strand_spread",
                "spread over the set",
                "ΔT/T_m",
                "share",
                spread,
                lines,
                "(highest - lowest) / mean",
                "rule of thumb, no source",
                Confidence.LOW,
                limits="Up to 20 % is a matched set.",
            ),
            spread,
        )
        _spread_verdict(tensions, spread, page)
    if len(tensions) < belts:
        page.say("set", Tone.OPEN, f"{len(tensions)} of {belts} belts read", "Gauge every belt of the set and use the average.")
    _tension_verdict(on.section, gauge, average, page)


def _used(gauge: Gauge, page: Page) -> list[Line]:
    if not gauge.deflection:
        return page.lines("deflection")
    us, si = shown(gauge.deflection.value, "length", to_set=True)
    return [Line("q", "deflection used", us, si, gauge.deflection.origin, gauge.deflection.origin)]


def _strands(gauge: Gauge, section: v_belt.Section, belts: int, ribs: int, page: Page) -> tuple[list[UFloat], list[Line]]:
    """Errors of the span and stiffness are shared by the set; those of force, deflection and seating are each belt's own. A band's force is shared by its ribs."""
    span, nominal_span = page.values["span"], page.values["span"].n
    aimed = gauge.deflection.value if gauge.deflection else page.values["deflection"].n
    length = page.values["belt_length"] if page.has("belt_length") else page.values["length_by_tape"]
    term = tension.stiffness_share(section.stiffness_n or 0.0, belts * ribs, nominal_span, length.n)
    stiffness = uncertain(term, _STIFFNESS * term, "belt stiffness")
    square = uncertain(1.0, _SQUARENESS, "not quite at mid-span or square")
    tensions, lines = [], []
    for index, force in enumerate(gauge.forces, 1):
        pushed = uncertain(aimed, _DEFLECTION_READING_M, "deflection reading")
        seated = uncertain(1.0, _STICTION, "belt not settled in the groove")
        tensions.append(_strand(force.u * seated * square / ribs, span, pushed, stiffness))
        us, si = shown(force.value, "force")
        lines.append(Line(f"P_{index}", f"gauge force, belt {index}", us, si, force.origin, force.origin))
    return tensions, lines


def _spread_verdict(tensions: list[UFloat], spread: UFloat, page: Page) -> None:
    found = page.figures["strand_spread"]
    if spread.n <= SPREAD_LIMIT:
        page.say("set", Tone.GOOD, f"The set pulls together: spread {found.us}", "")
    elif spread.n > SPREAD_LIMIT + spread.s:
        mean = page.values["strand_average"].n
        slack = [str(i) for i, t in enumerate(tensions, 1) if t.n < mean * (1 - SPREAD_LIMIT / 2)]
        which = f"Belt {', '.join(slack)} {'is' if len(slack) == 1 else 'are'} slack against the rest. " if slack else ""
        page.say(
            "set",
            Tone.WATCH,
            f"The belts differ by {found.us}: the set does not share the load",
            which + "Turn the drive a few times by hand and read again; if it stays, replace the whole set.",
            "",
        )
    else:
        page.say("set", Tone.OPEN, f"Spread {found.us}: may be the gauge", "Turn the drive by hand, read each belt again.")


def _tension_verdict(section: v_belt.Section, gauge: Gauge, average: UFloat, page: Page) -> None:
    if not page.has("tension_low"):
        return
    fresh = gauge.belt_state == "new"
    low = page.values["tension_new_low" if fresh else "tension_low"].n
    high = page.values["tension_high"].n
    within = probability_between(average, low, high)
    below = probability_between(average, -math.inf, low)
    above = 1 - within - below
    wants = f"Average {page.figures['strand_average'].us} a strand, wants {_between(low, high)} for {gauge.belt_state} belts."
    if below >= 2 / 3:
        slack_in_running = average.n < page.values["tension_low"].n
        headline = "Slack: it may slip under load" if slack_in_running else "A little slack for new belts"
        page.say(
            "tension",
            Tone.WATCH,
            headline,
            f"{wants} {_move(section, average, low, high, page, 'away')} Then read again.",
            sureness(below).value,
        )
    elif above >= 2 / 3:
        page.say(
            "tension",
            Tone.WATCH,
            "Too tight: hard on bearings and shafts",
            f"{wants} {_move(section, average, low, high, page, 'closer')} Then read again.",
            sureness(above).value,
        )
    elif within >= 2 / 3:
        tail = "Run a few minutes, then read again; and once more after 24 hours." if fresh else "Keep this reading."
        page.say("tension", Tone.GOOD, "Right for these belts", f"{wants} {tail}", sureness(within).value)
    else:
        doubt = largest_doubt(average)
        page.say(
            "tension",
            Tone.OPEN,
            "Near the edge: cannot tell",
            f"{wants} The largest doubt is {doubt[0] if doubt else 'the reading'}: read that again, over a straightedge.",
            sureness(within).value,
        )


def _between(low: float, high: float) -> str:
    lows, highs = (round(from_si(v, "force", "lbf")) for v in (low, high))
    return f"{lows} to {highs} lbf ({round(low)} to {round(high)} N)"


def _move(section: v_belt.Section, average: UFloat, low: float, high: float, page: Page, way: str) -> str:
    """The take-up movement, from the rigidity that the stiffness term implies: good to about 40 %."""
    length = page.values["belt_length"] if page.has("belt_length") else page.values["length_by_tape"]
    if not section.stiffness_n:
        return f"Move the motor {way} a little and gauge again."
    lean = abs(math.pi - page.values["wrap_driver"].n) / 2
    change = tension.centre_change_for(abs((low + high) / 2 - average.n), length.n, section.stiffness_n, lean)
    if change < 0.0002:
        return f"Move the motor {way} a hair."
    if change > 0.03:
        return f"Move the motor {way}: more than an inch by this reading, so look for a wrong belt or a misread gauge first."
    us, si = shown(change, "length", to_set=True)
    return f"Move the motor {way} about {us} ({si})."
