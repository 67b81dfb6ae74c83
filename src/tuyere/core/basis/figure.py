"""Figures and their workings: what the person sees of a number, with its mark and how it came about."""

from collections.abc import Sequence
from dataclasses import dataclass

from uncertainties import UFloat

from tuyere.core.basis.origin import Confidence, Origin, weakest
from tuyere.core.basis.quantity import System, fraction_inches, half_millimetres, show
from tuyere.core.basis.uncertainty import largest_doubt


@dataclass(frozen=True)
class Line:
    """One number put into a formula: its symbol in the book, name, value in both systems, and mark."""

    symbol: str
    label: str
    us: str
    si: str
    origin: Origin
    weakest: Origin
    figure: str | None = None


@dataclass(frozen=True)
class Working:
    """How a figure came about: formula in the trade's symbols, the numbers, the source and the limits."""

    formula: str
    lines: tuple[Line, ...]
    source: str
    confidence: Confidence
    limits: str = ""
    note: str = ""


@dataclass(frozen=True)
class Figure:
    """A number on the sheet. `value_si`, `std_si` and `limit_si` (the most it may be) in SI; `us` and `si` as shown; `weakest` its mark."""

    key: str
    label: str
    symbol: str
    kind: str
    value_si: float
    std_si: float
    us: str
    si: str
    origin: Origin
    weakest: Origin
    plus_minus_us: str = ""
    plus_minus_si: str = ""
    largest_doubt: str = ""
    working: Working | None = None
    limit_si: float | None = None

    def line(self, symbol: str | None = None) -> Line:
        """This figure as a number put into another formula."""
        opens = self.key if self.working else None
        return Line(symbol or self.symbol, self.label, self.us, self.si, self.origin, self.weakest, opens)


def shown(value: float, kind: str, to_set: bool = False, decimals: tuple[int, int] | None = None) -> tuple[str, str]:
    """A value in both systems; a length `to_set` as a mechanic reads it (1/64 in, 0.5 mm)."""
    if to_set:
        return f"{fraction_inches(value)} in", f"{half_millimetres(value)} mm"
    us, si = decimals or (None, None)
    return show(value, kind, System.US, us), show(value, kind, System.SI, si)


def both(value: float, kind: str = "length", decimals: tuple[int, int] | None = None) -> str:
    """A value in both systems within a sentence; a length as a mechanic sets it, or with `decimals` as callipers read it."""
    us, si = shown(value, kind, to_set=kind == "length" and decimals is None, decimals=decimals)
    return f"{us} ({si})"


def fine(length_m: float) -> str:
    """A size that callipers read, in both systems: thousandths of an inch, hundredths of a millimetre."""
    return both(length_m, decimals=(3, 2))


def over(share: float) -> str:
    """How much more than is wanted something carries, `share` times it, as the end of a sentence.

    Words once the figure tells nobody anything.

    >>> over(1.35), over(3.2), over(153.7)
    (', with 35% to spare', ' 3 times over', ' many times over')
    """
    if share < 2:
        return f", with {share - 1:.0%} to spare"
    return f" {share:.0f} times over" if share < MANY else " many times over"


MANY = 10.0  # beyond it nobody reads the figure: a judgement
FAR = "far above"


def plus_minus(std: float, kind: str, decimals: tuple[int, int] | None = None) -> tuple[str, str]:
    """Expanded uncertainty (k = 2) in both systems; empty where it would round to nothing."""
    us, si = shown(2 * std, kind, decimals=decimals)
    return tuple(text if any(c in "123456789" for c in text) else "" for text in (us, si))  # type: ignore[return-value]


def figure(
    key: str,
    label: str,
    symbol: str,
    kind: str,
    value: UFloat | float,
    inputs: Sequence[Line],
    formula: str,
    source: str,
    confidence: Confidence = Confidence.HIGH,
    *,
    limits: str = "",
    note: str = "",
    to_set: bool = False,
    decimals: tuple[int, int] | None = None,
    origin: Origin = Origin.COMPUTED,
    limit_si: float | None = None,
    said: str = "",
) -> Figure:
    """A computed figure (or, with `origin`, a looked-up one) with its working and its weakest input's mark.

    Shown as `said` where its value tells nobody anything.
    """
    nominal, std = (float(value.n), float(value.s)) if isinstance(value, UFloat) else (float(value), 0.0)
    us, si = (said, said) if said else shown(nominal, kind, to_set, decimals)
    doubt = largest_doubt(value) if isinstance(value, UFloat) else None
    pm_us, pm_si = plus_minus(std, kind, decimals)
    mark = weakest(*(line.weakest for line in inputs), *([origin] if origin is not Origin.COMPUTED else []))
    return Figure(
        key,
        label,
        symbol,
        kind,
        nominal,
        std,
        us,
        si,
        origin,
        mark,
        pm_us,
        pm_si,
        f"{doubt[0]} ({doubt[1]:.0%} of the doubt)" if doubt else "",
        Working(formula, tuple(inputs), source, confidence, limits, note),
        limit_si,
    )


def given_figure(
    key: str,
    label: str,
    symbol: str,
    kind: str,
    value: float,
    std: float,
    origin: Origin,
    decimals: tuple[int, int] | None = None,
    to_set: bool = False,
) -> Figure:
    """A figure somebody entered: no working, its own mark."""
    us, si = shown(value, kind, to_set, decimals)
    pm_us, pm_si = plus_minus(std, kind, decimals)
    return Figure(key, label, symbol, kind, value, std, us, si, origin, origin, pm_us, pm_si)
