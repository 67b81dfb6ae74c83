"""Lines and figures that the workings of several kinds share."""

from collections.abc import Sequence

from tuyere.core.basis.figure import Line, figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.uncertainty import exact
from tuyere.core.kinds.rating.own_table import OwnTable


def put(
    page: Page, key: str, label: str, symbol: str, kind: str, value: float, lines: Sequence[Line], formula: str, source: str, **more: object
) -> None:
    """Put an exact figure with its working on the page."""
    page.put(figure(key, label, symbol, kind, exact(value), lines, formula, source, **more), exact(value))  # type: ignore[arg-type]


def teeth_line(role: str, teeth: int) -> Line:
    """The teeth of the small wheel."""
    return Line("z" if role == "pulley" else "N", f"teeth of the small {role}", str(teeth), str(teeth), Origin.MEASURED, Origin.MEASURED)


def rim_line(rim_m: float) -> Line:
    """The small pulley, over its rim."""
    return Line("d", "small pulley", show(rim_m, "length", System.US), show(rim_m, "length", System.SI), Origin.MEASURED, Origin.MEASURED)


def factor_line(symbol: str, label: str, value: float) -> Line:
    """A factor from a standard."""
    return Line(symbol, label, f"{value:.2f}", f"{value:.2f}", Origin.STANDARD, Origin.STANDARD)


def speed_line(small: str) -> tuple[str, str]:
    """The figure of the small wheel's speed, by its symbol in a formula."""
    return ("driver_speed" if small == "driver" else "driven_speed", "n")


def own_capacity(
    page: Page,
    own: OwnTable,
    size: Line,
    at: float,
    fast: float,
    small: str,
    power_w: float,
    factors: Sequence[tuple[str, str, float]],
    source: str,
) -> None:
    """Power by the shop's own table at a small wheel of `at` (teeth, or m), and with the standard's factors."""
    ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
    lines = [size, *page.lines(speed_line(small), "ratio")]
    put(
        page,
        "table_power",
        "power in your table",
        "P_t",
        "power",
        own.rated(at, fast, ratio),
        lines,
        "read straight between the figures",
        source,
        limits=f"{own.reach}.",
    )
    formula = f"P = P_t {' '.join(symbol for symbol, _, _ in factors)}"
    counted = [factor_line(*factor) for factor in factors]
    put(
        page,
        "capacity",
        "power it carries",
        "P",
        "power",
        power_w,
        [*page.lines("table_power"), *counted],
        formula,
        source,
        note="Your table overrides the standard's.",
    )
