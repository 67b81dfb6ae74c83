"""Sheet step 3 of a drive that is not by V-belt: its own service factor, what it carries, and whether that will do."""

import math

from tuyere.core.drives import synchronous
from tuyere.core.drives.fitted import LineDrive, LineWheel
from tuyere.core.drives.flat import FlatBelt
from tuyere.core.drives.flat import rating as flat
from tuyere.core.drives.roller_chain import Chain
from tuyere.core.drives.roller_chain import rating as chain
from tuyere.core.drives.roller_chain.lubrication import lubrication
from tuyere.core.drives.synchronous import Profile
from tuyere.core.drives.synchronous import rating as toothed
from tuyere.core.entry.quantity import System, show
from tuyere.core.limit import limit
from tuyere.core.origin import Origin
from tuyere.core.rating.ip20 import OutOfRangeError
from tuyere.core.rating.own import OwnTable
from tuyere.core.sheet.spec import DriveSpec
from tuyere.core.uncertainty import exact
from tuyere.core.working.figure import Line, both, figure, given_figure, shown
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Tone

SMALL = "small-sheave"  # the flag of a wheel under its belt's smallest: no rating stands beside it
_MISSING = {
    "synchronous": ("belt_width", "The belt's width is missing", "Measure it, or take it from the name: the rating goes by it."),
    "flat belt": ("flat_width", "The belt's width is missing", "Measure it: the rating goes by it."),
    "roller chain": ("name", "Say which chain it is", "The rating goes by its size."),
}


def rating(spec: DriveSpec, page: Page) -> None:
    """What the belt or chain carries on these wheels, with the working of its own method."""
    line = spec.line
    if line is None or not page.has("ratio", "belt_speed"):
        return
    if any(p.field == "centre_distance" for p in page.problems):
        return
    _too_small(line, page)
    if line.of is None or line.size is None:
        if line.family in _MISSING:
            _, headline, detail = _MISSING[line.family]
            page.say("rating", Tone.OPEN, headline, detail)
        return
    try:
        _rate(line, spec.own.of(line.of.name), page)
    except OutOfRangeError as reason:
        page.say("rating", Tone.STOP, "No rating for this drive", str(reason))
        return
    if isinstance(line.of, Chain):
        _sag(spec, page)
    _judge(line, page)


def _too_small(line: LineDrive, page: Page) -> None:
    """A pulley too small for its belt is kept, and said; the smallest toothed one grows with speed."""
    role, fast = _small(page)
    wheel = line.driver if role == "driver" else line.driven
    if isinstance(line.of, FlatBelt) and line.of.smallest_pulley_m and wheel.rim_m < line.of.smallest_pulley_m * (1 - 1e-6):
        page.flag(SMALL, f"{role}_diameter", f"The {role} pulley is below the smallest for {line.of.name} ({both(line.of.smallest_pulley_m)}, {line.of.source}): bent tighter it cracks.")  # fmt: skip
    if not isinstance(line.of, Profile):
        return
    teeth = wheel.teeth or 0
    fewest = max(float(synchronous.least_teeth_at(line.of, fast)), float(line.of.fewest_teeth or 0))
    if teeth >= fewest:
        return
    at = show(fast, "rotation", System.US)
    wants = f"it wants {fewest:.0f} there" if math.isfinite(fewest) else "no pulley is tabled for that speed"
    page.flag(SMALL, f"{role}_diameter", f"{teeth} teeth are too few for {line.of.name} at {at}: {wants} (GB/T 11362, IP-24, JB/T 7512; from memory). Bent so sharply so often, cords and teeth crack early.")  # fmt: skip


def _small(page: Page) -> tuple[str, float]:
    """Which wheel is the small one, and the speed of its shaft."""
    role = "driver" if page.values["ratio"].n >= 1 else "driven"
    return role, page.values[f"{role}_speed"].n


def _rate(line: LineDrive, own: OwnTable | None, page: Page) -> None:
    small, fast = _small(page)
    wheel = line.driver if small == "driver" else line.driven
    assert line.size is not None
    if own:
        _by_own_table(line, own, wheel, small, fast, page)
    elif isinstance(line.of, Chain):
        assert wheel.teeth
        _chain(line, line.of, wheel.teeth, fast, small, page)
    elif isinstance(line.of, Profile):
        if page.has(f"wrap_{small}"):
            assert wheel.teeth
            _toothed(line.of, line.size, wheel.teeth, fast, page.values[f"wrap_{small}"].n, small, page)
    elif isinstance(line.of, FlatBelt) and page.has(f"wrap_{small}"):
        _flat(line, line.of, wheel.rim_m, small, page)


def _by_own_table(line: LineDrive, own: OwnTable, wheel: LineWheel, small: str, fast: float, page: Page) -> None:
    assert line.size is not None
    ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
    wrap = page.values[f"wrap_{small}"].n if page.has(f"wrap_{small}") else math.pi
    size = (
        _teeth_line("wheel", wheel.teeth)
        if wheel.teeth
        else Line(
            "d",
            "small pulley",
            show(wheel.rim_m, "length", System.US),
            show(wheel.rim_m, "length", System.SI),
            Origin.MEASURED,
            Origin.MEASURED,
        )
    )
    factors: tuple[tuple[str, str, float], ...]
    if isinstance(line.of, Chain):
        assert wheel.teeth
        strands = chain.rated_power(line.of, wheel.teeth, fast, int(line.size), own, ratio, line.pitches or chain.USUAL_PITCHES)
        power, factors, source = (
            strands.power_w,
            (("K_2", "strands", strands.strand_factor), ("K_o", "offset link", strands.offset)),
            strands.source,
        )
        _chain_signs(line, line.of, wheel.teeth, strands, page)
        if oiling := lubrication(line.of, page.values["belt_speed"].n):
            page.say("oil", Tone.OPEN, oiling.headline, oiling.detail)
    elif isinstance(line.of, Profile):
        assert wheel.teeth
        belt = toothed.rated_power(line.of, line.size, wheel.teeth, fast, wheel.teeth * wrap / math.tau, own, ratio)
        power, factors, source = (
            belt.power_w,
            (("K_z", "teeth in mesh", belt.mesh_factor), ("K_w", "width against the table's", belt.width_factor)),
            belt.source,
        )
    else:
        assert isinstance(line.of, FlatBelt) and own.width_m
        flat_belt = flat.rated_power(line.of, line.size, wheel.rim_m, page.values["belt_speed"].n, wrap, own, ratio, line.lay)
        power, factors, source = (
            flat_belt.power_w,
            (
                ("K_θ", "grip at this wrap", flat_belt.friction_share),
                ("b/b_0", "width against the table's", line.size / own.width_m),
                ("K_lay", f"{line.lay} belt", flat_belt.lay_share),
            ),
            flat_belt.source,
        )
    table = own.rated(wheel.teeth or wheel.rim_m, fast, ratio)
    lines = [size, *page.lines(("driver_speed" if small == "driver" else "driven_speed", "n"), "ratio")]
    _put(
        page,
        "table_power",
        "power in your table",
        "P_t",
        "power",
        table,
        lines,
        "read straight between the figures",
        source,
        limits=f"{own.reach}.",
    )
    counted = [Line(symbol, label, f"{value:.2f}", f"{value:.2f}", Origin.STANDARD, Origin.STANDARD) for symbol, label, value in factors]
    formula = f"P = P_t {' '.join(symbol for symbol, _, _ in factors)}"
    _put(
        page,
        "capacity",
        "power it carries",
        "P",
        "power",
        power,
        [*page.lines("table_power"), *counted],
        formula,
        source,
        note="Your table overrides the standard's.",
    )


def _put(
    page: Page, key: str, label: str, symbol: str, kind: str, value: float, lines: list[Line], formula: str, source: str, **more: object
) -> None:
    page.put(figure(key, label, symbol, kind, exact(value), lines, formula, source, **more), exact(value))  # type: ignore[arg-type]


def _teeth_line(role: str, teeth: int) -> Line:
    return Line("z" if role == "pulley" else "N", f"teeth of the small {role}", str(teeth), str(teeth), Origin.MEASURED, Origin.MEASURED)


def _chain(line: LineDrive, of: Chain, teeth: int, fast: float, small: str, page: Page) -> None:
    strands, pitches = int(line.size or 1), line.pitches or chain.USUAL_PITCHES
    found = chain.rated_power(of, teeth, fast, strands, pitches=pitches)
    speed = page.lines(("driver_speed" if small == "driver" else "driven_speed", "n"))
    shared = [_teeth_line("sprocket", teeth), *speed]
    more = {
        "confidence": found.confidence,
        "limits": "hp, p in inches, n in 1/min; 15 000 h, the right lubricant.",
        "origin": Origin.ASSUMED if found.estimate else Origin.COMPUTED,
    }
    _put(
        page,
        "plates_power",
        "one strand, by link-plate fatigue",
        "H_1",
        "power",
        found.plates_w,
        shared,
        "H_1 = k N^1.08 n^0.9 p^(3 - 0.07 p)",
        found.source,
        note=found.estimate,
        **more,
    )
    _put(
        page,
        "rollers_power",
        "one strand, by roller and bushing impact",
        "H_2",
        "power",
        found.rollers_w,
        [*shared, _pitches_line(line)],
        "H_2 = 1000 K_r N^1.5 p^0.8 / n^1.5 · (L_p/100)^0.4",
        found.source,
        note=found.estimate,
        **more,
    )
    factors = [Line("K_2", f"strands: {strands}", f"{found.strand_factor:g}", f"{found.strand_factor:g}", Origin.STANDARD, Origin.STANDARD)]
    if found.offset < 1:
        factors.append(Line("K_o", "offset link", f"{found.offset:g}", f"{found.offset:g}", Origin.STANDARD, Origin.STANDARD))
    _chain_signs(line, of, teeth, found, page)
    _put(page, "capacity", "power the chain carries", "H", "power", found.power_w, [*page.lines("plates_power", "rollers_power"), *factors], f"H = {'K_o ' if found.offset < 1 else ''}K_2 min(H_1, H_2)", found.source,
         note=f"{found.governs.capitalize()} govern here. {found.estimate}".strip(), confidence=found.confidence, origin=more["origin"])  # fmt: skip
    if found.past_table:
        page.flag("past-table", "driver_speed", "Past the speed of the rating tables: pins may gall.")
        page.say(
            "rating",
            Tone.WATCH,
            "Past the speed of the rating tables: pins may gall",
            "Between pin and bushing the oil film breaks down at high speed. Take a smaller pitch in more strands, or ask the chain's maker.",
        )
    oiling = lubrication(of, page.values["belt_speed"].n)
    if oiling:
        page.say("oil", Tone.OPEN, oiling.headline, oiling.detail)


STEEP_DEG = 45.0


def _sag(spec: DriveSpec, page: Page) -> None:
    """How far the slack run of a chain should move at its middle, up and down together: 4 to 6 % of the span, half of that on steep or shock drives."""
    if not page.has("span"):
        return
    lean = abs((spec.centre_line_deg + 90) % 180 - 90)
    hard = lean > STEEP_DEG or spec.driven_class in ("heavy", "extra_heavy", "chokable")
    low, high = (0.02, 0.03) if hard else (0.04, 0.06)
    span = page.values["span"].n
    why = "steep or shock" if hard else "level and even"
    page.say("sag", Tone.OPEN, f"Slack side: {both(low * span)} to {both(high * span)} of movement in all", f"At mid-span, up and down together: {low:.0%} to {high:.0%} of the span on a {why} drive (American Chain Association; common practice, from memory). Turn the drive so that all the slack is on one side.")  # fmt: skip


def _pitches_line(line: LineDrive) -> Line:
    text = str(line.pitches or f"{chain.USUAL_PITCHES:.0f}")
    origin = Origin.MEASURED if line.pitches else Origin.ASSUMED
    return Line("L_p", "pitches of the chain", text, text, origin, origin)


def _chain_signs(line: LineDrive, of: Chain, teeth: int, found: chain.ChainRating, page: Page) -> None:
    """An offset link, the polygon's ripple, and the safety of a slow chain against breaking."""
    number = Line("N", "teeth of the small sprocket", str(teeth), str(teeth), Origin.MEASURED, Origin.MEASURED)
    _put(page, "ripple", "ripple of the chain's speed", "Δv/v", "share", chain.polygon_ripple(teeth), [number], "Δv/v = (π/N)(1/sin(180°/N) - 1/tan(180°/N))", "kinematics; Shigley, eq. 17-31 (from memory)",
         note="A chain lies on a polygon: at each tooth it is drawn faster and slower by this share.")  # fmt: skip
    if teeth < limit("smooth sprocket").value:
        page.flag("few-teeth", "teeth", f"{teeth} teeth run roughly: the chain's speed ripples by {page.figures['ripple'].us} at each tooth. {limit('smooth sprocket').printed} or more run smoothly.")  # fmt: skip
    if found.offset < 1:
        page.flag("offset-link", "count", f"{line.pitches} pitches are an odd number: the chain needs an offset link, and carries {found.offset:.0%} of its rating ({limit('offset link').source}). Use an even number if the centres can be moved.")  # fmt: skip
    if found.strength_w is None or not page.has("design_power") or of.strength_n is None:
        return
    strands = int(line.size or 1)
    safety = of.strength_n * strands * page.values["belt_speed"].n / page.values["design_power"].n
    wanted = limit("slow chain safety")
    _put(page, "breaking_safety", "safety against breaking", "S", "number", safety, [*page.lines("design_power", "belt_speed"), Line("Q", f"breaking load, {strands} strand{'s' if strands > 1 else ''}", *shown(of.strength_n * strands, "force"), Origin.STANDARD, Origin.STANDARD)],
         "S = Q V/P_d", wanted.source, limits=f"Counts under {limit('slow chain').printed}: at least {wanted.printed}.", decimals=(1, 1))  # fmt: skip
    if safety < wanted.value:
        page.flag("weak-chain", "name", f"So slow a chain is held by its strength: its breaking load is {safety:.1f} times the working pull with its service factor, and {wanted.printed} is wanted ({wanted.source}).")  # fmt: skip


def _toothed(of: Profile, width_m: float, teeth: int, fast: float, wrap_rad: float, small: str, page: Page) -> None:
    in_mesh = teeth * wrap_rad / math.tau
    found = toothed.rated_power(of, width_m, teeth, fast, in_mesh)
    mesh = Line("z_m", "teeth in mesh, whole", f"{int(in_mesh + 1e-9)}", f"{int(in_mesh + 1e-9)}", Origin.COMPUTED, Origin.MEASURED)
    width = given_figure("belt_width", "belt width", "b", "length", width_m, 0.0, Origin.MEASURED, (3, 1)).line()
    k_z = Line("K_z", "teeth-in-mesh factor", f"{found.mesh_factor:.2f}", f"{found.mesh_factor:.2f}", Origin.STANDARD, Origin.STANDARD)
    k_w = Line("K_w", "width factor", f"{found.width_factor:.2f}", f"{found.width_factor:.2f}", Origin.STANDARD, Origin.STANDARD)
    formula = "P = (pull allowed - m v²) v" if found.estimate else "P = (K_z K_w T_a - (b/b_0) m v²) v"
    _put(page, "capacity", "power the belt carries", "P", "power", found.power_w, [width, mesh, k_z, *([] if found.estimate else [k_w]), *page.lines(("belt_speed", "v"))], formula, found.source,
         note=found.estimate, confidence=found.confidence, origin=Origin.ASSUMED if found.estimate else Origin.COMPUTED)  # fmt: skip
    if found.estimate:
        page.flag("estimated-rating", "name", f"No standard that is known here rates {of.name}. {found.estimate}")


def _flat(drive: LineDrive, of: FlatBelt, small_rim_m: float, small: str, page: Page) -> None:
    width_m = drive.size or 0.0
    found = flat.rated_power(of, width_m, small_rim_m, page.values["belt_speed"].n, page.values[f"wrap_{small}"].n, lay=drive.lay)

    def line(symbol: str, label: str, value: float) -> Line:
        return Line(symbol, label, f"{value:.2f}", f"{value:.2f}", Origin.STANDARD, Origin.STANDARD)

    width = given_figure("flat_width", "belt width", "b", "length", width_m, 0.0, Origin.MEASURED, (3, 1)).line()
    shares = [
        line("C_p", "pulley factor", found.pulley_factor),
        line("C_v", "velocity factor", found.speed_factor),
        line("1 - 1/R", "share of the tight strand that turns the wheel", found.friction_share),
    ]
    if found.lay_share < 1:
        shares.append(line("K_lay", f"{drive.lay} belt carries less", found.lay_share))
    _put(page, "capacity", "power the belt carries", "P", "power", found.power_w, [width, *shares, *page.lines(f"wrap_{small}", ("belt_speed", "v"))], f"P = (b F_a C_p C_v - F_c)(1 - 1/R) v{' K_lay' if found.lay_share < 1 else ''}", found.source,
         note=f"Friction {of.friction:g} on clean cast iron; R is the strands' ratio of a sound design, four fifths of the friction and at most 3, the same that the loads go by. C_v is of leather only.", confidence=found.confidence)  # fmt: skip


def _judge(line: LineDrive, page: Page) -> None:
    if not page.has("capacity", "design_power"):
        return
    too_small = next((f for f in page.flags if f.code == SMALL), None)
    capacity, wanted = page.values["capacity"].n, page.values["design_power"].n
    weighed = f"It carries {page.figures['capacity'].us} ({page.figures['capacity'].si}); the design power is {page.figures['design_power'].us} ({page.figures['design_power'].si})."
    if capacity >= wanted and too_small:
        page.say("rating", Tone.WATCH, "By its rating it would carry it, but a wheel is too small", f"{weighed} {too_small.sentence}")
    elif capacity >= wanted:
        page.say("rating", Tone.GOOD, f"It will carry it, with {capacity / wanted - 1:.0%} to spare", weighed)
    else:
        page.say(
            "rating",
            Tone.WATCH,
            f"It will not do: {capacity / wanted:.0%} of the design power",
            weighed + " Take larger wheels, more width or strands, or the next size up.",
        )
        page.flag("underrated", "name", f"It carries {capacity / wanted:.0%} of the design power.")
