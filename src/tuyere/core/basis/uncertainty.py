"""Measurement uncertainty: the tools' standard deviations, their propagation, and how sure a verdict is.

Linear propagation with correlations (JCGM 100:2008, GUM) is done by the `uncertainties` package; this
module is the only one that talks to it.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

from uncertainties import UFloat, ufloat, wrap
from uncertainties.core import AffineScalarFunc, LinearCombination

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import to_si

__all__ = [
    "Sureness",
    "Tool",
    "UFloat",
    "exact",
    "largest_doubt",
    "probability_between",
    "standard_uncertainty",
    "sureness",
    "uncertain",
    "wrapped",
]


@dataclass(frozen=True)
class Tool:
    """A measuring tool and its standard uncertainty (k = 1): an absolute part in SI and a relative part."""

    name: str
    kind: str
    absolute_si: float
    relative: float
    source: str


def _inch(value: float) -> float:
    return to_si(value, "length", "in")


# Common practice, no source: what a careful person reads off each tool at a machine.
TOOLS: dict[str, Tool] = {
    t.name: t
    for t in (
        Tool("tape", "length", _inch(1 / 32), 0.0005, "common practice, no source"),
        Tool("rule", "length", _inch(1 / 64), 0.0, "common practice, no source"),
        Tool("caliper", "length", 0.00005, 0.0002, "common practice, no source"),
        Tool("feeler", "length", 0.00002, 0.0, "common practice, no source"),
        Tool("dial", "length", 0.00001, 0.0, "common practice, no source"),
        Tool("stamped", "length", _inch(0.01), 0.001, "common practice, no source"),
        Tool("tachometer", "rotation", to_si(0.5, "rotation", "rpm"), 0.0005, "common practice, no source"),
        Tool("spring gauge", "force", to_si(0.5, "force", "lbf"), 0.02, "common practice, no source"),
        Tool("spring scale", "force", to_si(0.25, "force", "lbf"), 0.02, "common practice, no source"),
        Tool("thumb", "force", 0.0, 0.45, "common practice, no source"),
    )
}

_NAMEPLATE_SPEED_RELATIVE = 0.01  # full-load plate speed against the true load: common practice, no source


def standard_uncertainty(value_si: float, kind: str, origin: Origin, tool: str | None = None) -> float:
    """Standard uncertainty (k = 1, SI) of an entered value, from its tool or else from its origin."""
    if tool and TOOLS[tool].kind == kind:
        return math.hypot(TOOLS[tool].absolute_si, TOOLS[tool].relative * value_si)
    if kind == "length":
        usual = TOOLS["tape"] if origin is Origin.MEASURED else TOOLS["stamped"]
        return math.hypot(usual.absolute_si, usual.relative * value_si)
    if kind == "rotation":
        if origin is Origin.MEASURED:
            return math.hypot(TOOLS["tachometer"].absolute_si, TOOLS["tachometer"].relative * value_si)
        return _NAMEPLATE_SPEED_RELATIVE * value_si
    if kind == "angle" and origin is Origin.MEASURED:
        return math.radians(1.5)  # a template held against the flanks: common practice, no source
    return 0.0


def uncertain(value: float, std: float, name: str) -> UFloat:
    """A value with its standard uncertainty; `name` is how a budget calls it."""
    return ufloat(value, std, name) if std > 0 else exact(value)


def exact(value: float) -> UFloat:
    """A value taken as known."""
    return AffineScalarFunc(value, LinearCombination({}))


def wrapped(function: Callable[..., float]) -> Callable[..., UFloat]:
    """`function` of floats made to take and return uncertain values (numerical derivatives)."""
    return wrap(function)  # type: ignore[no-any-return]


def largest_doubt(value: UFloat) -> tuple[str, float] | None:
    """The input that contributes most variance to `value` and its share of the whole (0..1); None if exact."""
    total = value.s**2
    if not total > 0:
        return None
    shares: dict[str, float] = {}
    for variable, part in value.error_components().items():
        shares[variable.tag or "other"] = shares.get(variable.tag or "other", 0.0) + part**2 / total
    name = max(shares, key=lambda tag: shares[tag])
    return name, shares[name]


def probability_between(value: UFloat, low: float, high: float) -> float:
    """Probability that the true value lies in [low, high], the error taken as normal."""

    def below(limit: float) -> float:
        if value.s == 0:
            return float(value.n <= limit)
        return 0.5 * (1.0 + math.erf((limit - value.n) / (value.s * math.sqrt(2.0))))

    return below(high) - below(low)


class Sureness(StrEnum):
    """How sure a verdict is, in words."""

    SURE = "sure"
    LIKELY = "likely"
    OPEN = "cannot tell"


def sureness(probability: float) -> Sureness:
    """95 % and more is sure, two in three and more is likely, less is open.

    >>> sureness(0.97), sureness(0.8), sureness(0.5)
    (<Sureness.SURE: 'sure'>, <Sureness.LIKELY: 'likely'>, <Sureness.OPEN: 'cannot tell'>)
    """
    if probability >= 0.95:
        return Sureness.SURE
    return Sureness.LIKELY if probability >= 2 / 3 else Sureness.OPEN
