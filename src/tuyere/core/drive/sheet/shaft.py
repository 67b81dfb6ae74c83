"""Sheet step 4: what the drive does to its shafts: strands at work and at the start, and the pull on each shaft as a vector."""

import math

from tuyere.core.basis.figure import Line, figure, shown
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.table import rows
from tuyere.core.basis.uncertainty import exact
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.starts import start_times
from tuyere.core.mechanics.loads import Strands, pull_at_rest, pull_on_shaft, strands_at_ratio, strands_at_rest_tension
from tuyere.core.mechanics.tension.hanging import pair_hang

SOURCE = "statics; Shigley, Mechanical Engineering Design; Machinery's Handbook (from memory)"


def loads(spec: DriveSpec, page: Page) -> None:
    """Strand tensions and shaft pulls at the tension that the design power asks for; a chain's by the driver's power."""
    on = spec.fitted
    if not on or not on.loop or not on.known or not spec.driver_power or not page.has("belt_speed", "driver_power", "wrap_driver"):
        return
    loop, chain = on.loop, on.loop.hangs
    if not chain and not page.has("design_power"):
        return
    wrap = min(page.values["wrap_driver"].n, page.values["wrap_driven"].n)
    speed = page.values["belt_speed"].n
    power = spec.driver_power.value if chain else page.values["design_power"].n
    found, said = loop.grips(wrap)
    ratio = float(found)
    effective = power / speed
    mass = loop.mass_kg_per_m
    centrifugal = mass * speed**2
    hang = _hang(spec, page) if chain else None
    # The tension that the Tension station sets, for the whole set: what the strands at work come from, where the kind says it.
    aimed = None if chain else on.standing_n(power, speed, page)
    if aimed is not None:
        strands = strands_at_rest_tension(effective, aimed, centrifugal)
    elif math.isinf(ratio):
        slack = (hang or 0.0) + centrifugal
        strands = Strands(effective + slack, slack, centrifugal)
    else:
        strands = strands_at_ratio(effective, ratio, centrifugal)
    pull = pull_on_shaft(strands, wrap).total_n
    text = "∞" if math.isinf(ratio) else f"{ratio:.1f}"
    by = [Line("R", f"tight over slack, {said}", text, text, Origin.STANDARD, Origin.RULE_OF_THUMB)]
    forms = (
        ("T_1 = T_0 + T_e/2", "T_2 = T_0 - T_e/2") if aimed is not None else ("T_1 = T_e + T_e/(R - 1) + T_c", "T_2 = T_e/(R - 1) + T_c")
    )
    if hang is not None:
        by = [Line("T_h", "what the slack run hangs with, moving as Tension asks", *shown(hang, "force"), Origin.COMPUTED, Origin.STANDARD)]
    elif aimed is not None:
        by = [Line("T_0", "standing tension of the set, as it is set run in", *shown(aimed, "force"), Origin.COMPUTED, Origin.STANDARD)]
    _put(
        page,
        "effective_pull",
        "effective pull of the set",
        "T_e",
        effective,
        page.lines("driver_power" if chain else "design_power", "belt_speed"),
        "T_e = P/V" if chain else "T_e = P_d/V",
        "The driver's power: a chain's tension follows the load." if chain else "By design power, as the tension is set.",
    )
    weight = Line("m", "mass of the set", f"{mass * 0.671969:.3f} lb/ft", f"{mass:.3f} kg/m", Origin.STANDARD, Origin.STANDARD)
    _put(
        page,
        "centrifugal_pull",
        "centrifugal part, in both strands",
        "T_c",
        centrifugal,
        [weight, *page.lines("belt_speed")],
        "T_c = m V²",
        "It holds the belt on its curve; no shaft feels it.",
    )
    _put(
        page,
        "tight_strand",
        "tight strand at work",
        "T_1",
        strands.tight_n,
        [*page.lines("effective_pull", "centrifugal_pull"), *by],
        "T_1 = T_e + T_h + T_c" if hang is not None else forms[0],
    )
    _put(
        page,
        "slack_strand",
        "slack strand at work, its hang apart" if chain and hang is None else "slack strand at work",
        "T_2",
        strands.slack_n,
        [*page.lines("effective_pull", "centrifugal_pull"), *by],
        "T_2 = T_h + T_c" if hang is not None else forms[1],
        "The centrifugal part alone: what a chain's slack run hangs with comes on top, once the centres and its mass are known."
        if chain and hang is None
        else "",
    )
    _put(
        page,
        "shaft_pull",
        "pull on each shaft at work",
        "F_s",
        pull,
        [*page.lines("tight_strand", "slack_strand"), *page.lines("wrap_driver")],
        "F_s² = ((T_1 + T_2 - 2T_c) cos α)² + ((T_1 - T_2) sin α)², α = (180° - θ)/2",
        "Both shafts feel the same pull, towards each other, askew to the line of centres. The wheel's weight is not in it.",
    )
    standing = 0.0 if chain else (strands.tight_n + strands.slack_n) / 2
    by_target = aimed is not None
    standing = standing if aimed is None else aimed
    if standing:
        _put(
            page,
            "standing_pull",
            "pull on each shaft standing",
            "F_0",
            pull_at_rest(standing, wrap),
            [*page.lines("design_power", "belt_speed", "arc_factor", "wrap_driver")]
            if by_target
            else page.lines("tight_strand", "slack_strand", "wrap_driver"),
            "F_0 = 2 N T_st sin(θ/2)" if by_target else "F_0 = (T_1 + T_2) sin(θ/2)",
            "At the static tension that Tension asks for, run in; new belts are set 1.3 to 1.5 times as tight."
            if by_target
            else "More than at work, where the centrifugal part carries itself.",
        )
    times = spec.start_times or start_times("direct", spec.driver_class == "high")
    start = times * spec.driver_power.value / speed
    starting = standing + start / 2 if standing else (hang or 0.0) + start
    _put(
        page,
        "starting_strand",
        "tight strand at a start",
        "T_s",
        starting,
        page.lines("driver_power", "belt_speed"),
        "T_s = T_0 + k P/(2V)" if standing else "T_s = T_h + k P/V" if hang is not None else "T_s = k P/V",
        f"k = {times:.2g}: what the motor gives for a moment, less what its own rotor takes, by how the machine is started (common "
        "practice, from memory). A machine that jams gives more; slip or a shear pin ends it.",
    )

    _shock(spec, standing, hang or 0.0, speed, page)


def _hang(spec: DriveSpec, page: Page) -> float | None:
    """What a chain's slack run hangs with (N), as the Tension station sets it; None while its place or its mass is not known."""
    if not page.has("centre_distance", "driver_datum", "driven_datum") or not spec.fitted or not spec.fitted.loop:
        return None
    mass = spec.fitted.loop.mass_kg_per_m
    if not mass:
        return None
    apart, driver, driven = page.values["centre_distance"].n, page.values["driver_datum"].n / 2, page.values["driven_datum"].n / 2
    lies, clockwise = math.radians(spec.centre_line_deg), spec.rotation == "clockwise"
    return float(pair_hang(mass, apart, driver, driven, lies, clockwise, spec.driven_class))


def _shock(spec: DriveSpec, standing: float, hang: float, speed: float, page: Page) -> None:
    """The tight strand in a jolt of the driven machine: a belt gives no more than twice its standing tension, then it slips."""
    row = next((r for r in rows("shock_factors") if r["driven_class"] == spec.driven_class), None)
    if row is None or not spec.driver_power:
        return
    k = float(row["k"])
    jolt = k * spec.driver_power.value / speed
    full = standing + jolt / 2 if standing else hang + jolt
    most = 2 * standing if standing and not spec.family.toothed else math.inf
    line = Line("k", "torque in a jolt over the working one", row["k"], row["k"], Origin.RULE_OF_THUMB, Origin.RULE_OF_THUMB)
    slips = " More than twice the standing tension is not to be had: the slack strand is empty and the belt slips." if full > most else ""
    page.put(
        figure(
            "shock_strand",
            "tight strand in a jolt",
            "T_k",
            "force",
            exact(min(full, most)),
            [line, *page.lines("driver_power", "belt_speed")],
            "T_k = T_0 + k P/(2V)" if standing else "T_k = T_h + k P/V" if hang else "T_k = k P/V",
            row["source"],
            Confidence(row["confidence"]),
            note=f"By the class of the driven machine. A jam gives what the rotor's flywheel gives, and is not in it.{slips}",
        ),
        exact(min(full, most)),
    )


def _put(page: Page, key: str, label: str, symbol: str, value: float, lines: list[Line], formula: str, note: str = "") -> None:
    page.put(figure(key, label, symbol, "force", exact(value), lines, formula, SOURCE, Confidence.MEDIUM, note=note), exact(value))
