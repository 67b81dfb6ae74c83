"""The tension to set, the gauge's deflection and force, and what the readings say."""

from tuyere.core.basis.figure import Line, figure, given_figure, shown
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.uncertainty import UFloat, exact, wrapped
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.v_belt.tension import half_turn_ratio
from tuyere.core.kinds.v_belt.v_set import VSet
from tuyere.core.mechanics import tension

SOURCE = "ARPM/RMA-MPTA IP-20; Machinery's Handbook (from memory)"
METRIC = "GB/T 13575.1 (from memory)"
STRING = "statics of a centre-loaded string"
# One-sigma shares of a careful gauge reading: common practice, no source.
_STICTION, _SQUARENESS, _STIFFNESS = 0.05, 0.015, 0.2
_DEFLECTION_READING_M = 0.0005  # of a rule read by eye: common practice, no source
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
        figure(
            "static_tension",
            "static tension of one strand",
            "T_st",
            "force",
            static,
            [*page.lines("design_power", "belt_speed", "arc_factor"), count.line(), centrifugal_line],
            f"T_st = {'15' if inch else '500'} ({2 * half_turn / (half_turn - 1):.3g} - K_θ)/K_θ · {'1000 ' if inch else ''}P_d/(N V) + "
            "T_c",
            SOURCE if inch else METRIC,
            limits="hp, ft/min, lbf" if inch else "kW, m/s, N",
            note=(
                "15 is nine tenths of the exact half-sum of the strand tensions (16.5), as published: some growth of tension under load "
                "is allowed for."
                if inch
                else "500 is the exact half-sum of the strand tensions."
            )
            + " It uses the design power; a lightly loaded motor needs less.",
        ),
        static,
    )
    _forces(on, section, page, static)


def _forces(on: VSet, section: v_belt.Section, page: Page, static: UFloat) -> None:
    assert on.parallel
    belt_length = page.values["belt_length"] if page.has("belt_length") else page.values["length_by_tape"]
    span = page.values["span"].n
    known = section.stiffness_n or 0.0
    term = tension.stiffness_share(known, on.parallel, span, belt_length.n)
    share = " · t/L, one belt alone" if on.parallel == 1 else ""
    stiff = page.put(
        figure(
            "stiffness_term",
            "belt-stiffness term",
            "K_y",
            "force",
            exact(term),
            [Line("K_y", f"section {section.name}", *shown(known, "force"), Origin.STANDARD, Origin.STANDARD)],
            f"table{share}",
            SOURCE,
            section.stiffness_confidence,
            limits="Within about 40 %." if known else f"Not known for section {section.name}: the string relation alone.",
            origin=Origin.STANDARD,
        ),
        exact(term),
    )
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
            figure(
                f"force_{key}",
                f"gauge force, {label}",
                "P",
                "force",
                force,
                [*page.lines((f"tension_{key}", "T"), "stiffness_term"), *page.lines("deflection")],
                "P = (T + K_y) / 16 at q = t/64" if on.ribs == 1 else f"P = {on.ribs} (T + K_y) / 16 at q = t/64, on the whole band",
                f"{SOURCE}; {STRING}",
                stiff.working.confidence if stiff.working else Confidence.LOW,
                note=f"The string relation alone (T = 16 P) asks for {string_us} ({string_si}). The belt also resists being stretched by the push itself, which K_y/16 = {show(term / 16, 'force', System.US)} ({show(term / 16, 'force', System.SI)}) adds; the target counts both.",
            ),
            force,
        )
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
