"""Two wheels and their centres: spans, wraps and lines that every kind of drive has."""

import math

from tuyere.core.basis.figure import figure
from tuyere.core.basis.limit import Limit
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import exact, wrapped
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.quarter_turn import quarter_turn

GEOMETRY = "plane geometry, exact; the textbook series is only a check"

_span = wrapped(open_belt.span_length)
_driver_wrap = wrapped(lambda d, big, c: open_belt.wraps(d, big, c)[0])
_driven_wrap = wrapped(lambda d, big, c: open_belt.wraps(d, big, c)[1])


def spans_and_wraps(page: Page, least: Limit | None, too_little: tuple[str, str]) -> None:
    """An open belt's free span and its wraps; flagged where the small wheel has less than `least`.

    `too_little`: who wraps too little, and what comes of it.
    """
    d, big, c = page.values["driver_datum"], page.values["driven_datum"], page.values["centre_distance"]
    inputs = page.lines("centre_distance", "driver_datum", "driven_datum")
    span = _span(d, big, c)
    page.put(figure("span", "free span", "t", "length", span, inputs, "t = √(C² - ((D-d)/2)²)", GEOMETRY, to_set=True), span)
    for role, function, symbol, sign in (("driver", _driver_wrap, "θ_d", "-"), ("driven", _driven_wrap, "θ_D", "+")):
        wrap = function(d, big, c)
        formula = f"{symbol} = 180° {sign} 2 asin((D-d)/2C)"
        page.put(figure(f"wrap_{role}", f"wrap on the {role} sheave", symbol, "angle", wrap, inputs, formula, GEOMETRY), wrap)
    small = min(page.values["wrap_driver"].n, page.values["wrap_driven"].n)
    if least and small < least.value * (1 - 1e-9):
        what, why = too_little
        page.flag(
            "small-wrap",
            "centre_distance",
            f"{what} wraps only {math.degrees(small):.0f}° of the small wheel: {why} {least.printed}. Move the shafts apart, use a "
            "smaller ratio, or put an idler on the slack side.",
        )


def crossed_wraps(lay: str, page: Page) -> None:
    """Wraps of a crossed or quarter-turn belt: more than half a turn on both."""
    d, big, c = (page.values[k].n for k in ("driver_datum", "driven_datum", "centre_distance"))
    inputs = page.lines("centre_distance", "driver_datum", "driven_datum")
    if lay == "crossed":
        wraps, formula = (math.pi + 2 * math.asin((d + big) / (2 * c)),) * 2, "θ = 180° + 2 asin((D+d)/2C)"
    else:
        turn = quarter_turn(d / 2, big / 2, c)
        wraps, formula = (turn.driver_wrap_rad, turn.driven_wrap_rad), "geometry of the quarter turn"
    for role, symbol, wrap in zip(("driver", "driven"), ("θ_d", "θ_D"), wraps, strict=True):
        page.put(figure(f"wrap_{role}", f"wrap on the {role}", symbol, "angle", exact(wrap), inputs, formula, GEOMETRY), exact(wrap))
