"""Sheet step 3 of a drive that is not by V-belt: its own service factor, what it carries, and whether that will do."""

import math

from tuyere.core.families.flat import FlatBelt
from tuyere.core.families.roller_chain import Chain
from tuyere.core.families.synchronous import Profile
from tuyere.core.lubrication import lubrication
from tuyere.core.origin import Origin
from tuyere.core.quantity import System, show
from tuyere.core.rating import chain, flat, toothed
from tuyere.core.rating.ip20 import OutOfRangeError
from tuyere.core.rating.own import OwnTable
from tuyere.core.sheet.figure import Line, figure, given_figure
from tuyere.core.sheet.page import Page
from tuyere.core.sheet.spec import DriveSpec, LineDrive, LineWheel
from tuyere.core.sheet.verdict import Tone
from tuyere.core.uncertainty import exact

_MISSING = {
    "synchronous": ("belt_width", "The belt's width is missing", "Measure it, or take it from the name: the rating goes by it."),
    "flat belt": ("flat_width", "The belt's width is missing", "Measure it: the rating goes by it."),
    "roller chain": ("name", "Say which chain it is", "The rating goes by its size."),
}


def rating(spec: DriveSpec, page: Page) -> None:
    """What the belt or chain carries on these wheels, with the working of its own method."""
    line = spec.line
    if line is None or not page.has("ratio", "belt_speed") or line.crossed:
        return
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
    _judge(page)


def _rate(line: LineDrive, own: OwnTable | None, page: Page) -> None:
    small = "driver" if page.values["ratio"].n >= 1 else "driven"
    fast = page.values["driver_speed" if small == "driver" else "driven_speed"].n
    wheel = line.driver if small == "driver" else line.driven
    assert line.size is not None
    if own:
        _by_own_table(line, own, wheel, small, fast, page)
    elif isinstance(line.of, Chain):
        assert wheel.teeth
        _chain(line.of, wheel.teeth, fast, int(line.size), small, page)
    elif isinstance(line.of, Profile):
        if page.has(f"wrap_{small}"):
            assert wheel.teeth
            _toothed(line.of, line.size, wheel.teeth, fast, page.values[f"wrap_{small}"].n, small, page)
    elif isinstance(line.of, FlatBelt) and page.has(f"wrap_{small}"):
        _flat(line.of, line.size, wheel.rim_m, page.values[f"wrap_{small}"].n, small, page)


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
        strands = chain.rated_power(line.of, wheel.teeth, fast, int(line.size), own, ratio)
        power, factors, source = strands.power_w, (("K_2", "strands", strands.strand_factor),), strands.source
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
        flat_belt = flat.rated_power(line.of, line.size, wheel.rim_m, page.values["belt_speed"].n, wrap, own, ratio)
        power, factors, source = (
            flat_belt.power_w,
            (("K_θ", "grip at this wrap", flat_belt.friction_share), ("b/b_0", "width against the table's", line.size / own.width_m)),
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
    shown = [Line(symbol, label, f"{value:.2f}", f"{value:.2f}", Origin.STANDARD, Origin.STANDARD) for symbol, label, value in factors]
    formula = f"P = P_t {' '.join(symbol for symbol, _, _ in factors)}"
    _put(
        page,
        "capacity",
        "power it carries",
        "P",
        "power",
        power,
        [*page.lines("table_power"), *shown],
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


def _chain(of: Chain, teeth: int, fast: float, strands: int, small: str, page: Page) -> None:
    found = chain.rated_power(of, teeth, fast, strands)
    speed = page.lines(("driver_speed" if small == "driver" else "driven_speed", "n"))
    shared = [_teeth_line("sprocket", teeth), *speed]
    more = {
        "confidence": found.confidence,
        "limits": "hp, p in inches, n in 1/min; 15 000 h, about 100 pitches, the right lubricant.",
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
        shared,
        "H_2 = 1000 K_r N^1.5 p^0.8 / n^1.5",
        found.source,
        note=found.estimate,
        **more,
    )
    factor = Line("K_2", f"strands: {strands}", f"{found.strand_factor:g}", f"{found.strand_factor:g}", Origin.STANDARD, Origin.STANDARD)
    _put(page, "capacity", "power the chain carries", "H", "power", found.power_w, [*page.lines("plates_power", "rollers_power"), factor], "H = K_2 min(H_1, H_2)", found.source,
         note=f"{found.governs.capitalize()} govern here. {found.estimate}".strip(), confidence=found.confidence, origin=more["origin"])  # fmt: skip
    if found.past_table:
        page.say(
            "rating",
            Tone.WATCH,
            "Past the speed of the rating tables: pins may gall",
            "Between pin and bushing the oil film breaks down at high speed. Take a smaller pitch in more strands, or ask the chain's maker.",
        )
    oiling = lubrication(of, page.values["belt_speed"].n)
    if oiling:
        page.say("oil", Tone.OPEN, oiling.headline, oiling.detail)


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


def _flat(of: FlatBelt, width_m: float, small_rim_m: float, wrap_rad: float, small: str, page: Page) -> None:
    found = flat.rated_power(of, width_m, small_rim_m, page.values["belt_speed"].n, wrap_rad)

    def line(symbol: str, label: str, value: float) -> Line:
        return Line(symbol, label, f"{value:.2f}", f"{value:.2f}", Origin.STANDARD, Origin.STANDARD)

    width = given_figure("flat_width", "belt width", "b", "length", width_m, 0.0, Origin.MEASURED, (3, 1)).line()
    shares = [
        line("C_p", "pulley factor", found.pulley_factor),
        line("C_v", "velocity factor", found.speed_factor),
        line("1 - e^(-fφ)", "grip of the arc", found.friction_share),
    ]
    _put(page, "capacity", "power the belt carries", "P", "power", found.power_w, [width, *shares, *page.lines(f"wrap_{small}", ("belt_speed", "v"))], "P = (b F_a C_p C_v - F_c)(1 - e^(-fφ)) v", found.source,
         note=f"Friction {of.friction:g} on clean cast iron; C_v is of leather only.", confidence=found.confidence)  # fmt: skip


def _judge(page: Page) -> None:
    if not page.has("capacity", "design_power"):
        return
    capacity, wanted = page.values["capacity"].n, page.values["design_power"].n
    weighed = f"It carries {page.figures['capacity'].us} ({page.figures['capacity'].si}); the design power is {page.figures['design_power'].us} ({page.figures['design_power'].si})."
    if capacity >= wanted:
        page.say("rating", Tone.GOOD, f"It will carry it, with {capacity / wanted - 1:.0%} to spare", weighed)
    else:
        page.say(
            "rating",
            Tone.WATCH,
            f"It will not do: {capacity / wanted:.0%} of the design power",
            weighed + " Take larger wheels, more width or strands, or the next size up.",
        )
        page.flag("underrated", "name", f"It carries {capacity / wanted:.0%} of the design power.")
