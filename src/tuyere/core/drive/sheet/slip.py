"""Slip from two shafts that were read, on two wheels or along a train: the figure, its doubt and what to say of it."""

from collections.abc import Sequence

from tuyere.core.basis.figure import Line, figure
from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import UFloat, probability_between, sureness, wrapped
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.about import Slip
from tuyere.core.mechanics import speed

_slip = wrapped(speed.slip)


def read_slip(
    first: UFloat, read: UFloat, ratio: UFloat, lines: Sequence[Line], usual: Slip, toothed: bool, both_measured: bool, page: Page
) -> None:
    """Put `slip` on the page, s = 1 - (n_2m / n_1m) R, and judge it by what is usual. first, read: the shafts' speeds (rad/s)."""
    slip = _slip(first, read, ratio)
    found = page.put(figure("slip", "slip", "s", "share", slip, lines, "s = 1 - (n_2m / n_1m) R", usual.said, Confidence.MEDIUM), slip)
    if toothed:
        _keeps_step(page, found.us, found.plus_minus_us)
    else:
        _slips(page, usual, found.us, found.plus_minus_us, both_measured)


def along(slips: Sequence[Slip]) -> Slip:
    """What is usual over stages one after another: shares that are left multiply.

    >>> round(along([Slip((0.005, 0.02), 0.03, "V"), Slip((0.01, 0.02), 0.03, "flat")]).fault, 4)
    0.0591
    """
    low, high, fault = 1.0, 1.0, 1.0
    for s in slips:
        low, high, fault = low * (1 - s.usual[0]), high * (1 - s.usual[1]), fault * (1 - s.fault)
    said = "; ".join(dict.fromkeys(s.said for s in slips))
    if len(slips) > 1:
        said = f"Over {len(slips)} stages together {1 - low:.1%} to {1 - high:.1%} is usual. {said}"
    return Slip((1 - low, 1 - high), 1 - fault, said)


def _keeps_step(page: Page, shown_slip: str, plus_minus: str) -> None:
    """Teeth hold step: any difference is in the counting, the reading, or teeth that jump."""
    slip = page.values["slip"]
    off = 1 - probability_between(slip, -0.005, 0.005)
    agree = abs(slip.n) <= max(0.005, 2 * slip.s)
    doubt = f" (± {plus_minus})" if plus_minus else ""
    if not agree:
        page.say(
            "speed",
            Tone.WATCH,
            f"The shafts are out of step by {shown_slip}{doubt}",
            "Teeth cannot slip. Count both wheels' teeth again and read both shafts together; a belt or chain that jumps teeth is heard.",
            sureness(off).value,
        )
    else:
        page.say(
            "speed",
            Tone.GOOD,
            "The shafts keep step",
            f"Teeth cannot slip: the two readings agree with the teeth counted, within their doubt{doubt}.",
        )


def _slips(page: Page, usual: Slip, shown_slip: str, plus_minus: str, both_measured: bool) -> None:
    slip = page.values["slip"]
    fault, negative = 1 - probability_between(slip, -9, usual.fault), probability_between(slip, -9, -0.005)
    settle = "" if both_measured else " Read the driver's speed with the tachometer too: its plate is only near."
    doubt = f" (± {plus_minus})" if plus_minus else ""
    if fault >= 2 / 3:
        page.say(
            "speed",
            Tone.WATCH,
            f"Slip {shown_slip}{doubt}: too much",
            f"Over {100 * usual.fault:.0f} % is a fault: gauge the tension, look for glazed sides and worn grooves, and check both "
            "diameters." + settle,
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
