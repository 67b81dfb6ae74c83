"""A shop's own rating table beside the standard's figures at the same sizes and speeds: what overriding it means."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from tuyere.core.basis.quantity import System, from_si, show
from tuyere.core.kinds import roller_chain, synchronous, v_belt
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.flat import rating as flat
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnTable
from tuyere.core.kinds.roller_chain import rating as chain
from tuyere.core.kinds.synchronous import rating as toothed
from tuyere.core.kinds.v_belt import rating as vee


@dataclass(frozen=True)
class Curve:
    """Power (W) by speed for one size of the small wheel: the shop's, and the standard's (None where it gives none)."""

    size_us: str
    size_si: str
    own_w: tuple[float, ...]
    standard_w: tuple[float | None, ...]


@dataclass(frozen=True)
class Compared:
    """One table of the shop.

    What it rates and how far it reaches, its speeds (rpm), a curve by size at its first ratio, and the difference in words.
    """

    name: str
    reach: str
    of: str
    rpm: tuple[float, ...]
    curves: tuple[Curve, ...]
    says: str


def compare(table: OwnTable) -> Compared:
    """Hold a shop's table against the standard that it overrides."""
    standard = _standard(table)
    ratio = table.ratios[0]
    curves = []
    for i, size in enumerate(table.sizes):
        shown = (f"{size:.0f} teeth",) * 2 if table.by == "teeth" else (show(size, "length", System.US), show(size, "length", System.SI))
        curves.append(
            Curve(*shown, tuple(float(p) for p in table.powers_w[0, i]), tuple(_try(standard, size, s, ratio) for s in table.speeds))
        )
    shares = sorted(own / std for c in curves for own, std in zip(c.own_w, c.standard_w, strict=True) if std)
    return Compared(
        table.name,
        table.reach,
        table.says,
        tuple(from_si(s, "rotation", "rpm") for s in table.speeds),
        tuple(curves),
        _says(shares, _estimated(table.name)),
    )


def _estimated(name: str) -> bool:
    """Whether what a table overrides is no standard's figure but an estimate."""
    if name in v_belt.sections():
        return vee.rated(v_belt.section(name)) and bool(vee.method(v_belt.section(name)).estimate)
    if name in synchronous.profiles():
        row = toothed.row(name)
        return row is not None and row["method"] != "standard"
    return name in roller_chain.chains() and "B" in name


def _says(shares: list[float], estimated: bool) -> str:
    if not shares:
        return "No standard known here rates it: yours is the only figure."
    against = "against the estimate that stands in for a standard" if estimated else "against the standard's figures"
    low, middle, high = shares[0] - 1, shares[len(shares) // 2] - 1, shares[-1] - 1
    if high - low < 0.01:
        return f"{middle:+.0%} {against}."
    return f"{low:+.0%} to {high:+.0%} {against}, {middle:+.0%} in the middle."


def _try(standard: Callable[[float, float, float], float], size: float, speed: float, ratio: float) -> float | None:
    try:
        return standard(size, speed, ratio)
    except OutOfRangeError:
        return None


def _standard(table: OwnTable) -> Callable[[float, float, float], float]:
    """The standard's power of the same thing: by size, fast shaft's speed and ratio."""
    name, width = table.name, table.width_m or 0.0
    if name in v_belt.sections():
        return lambda d, n, ratio: vee.rated_power(v_belt.section(name), d, n, ratio).total_w
    if name in synchronous.profiles():
        return lambda z, n, _: toothed.rated_power(synchronous.profile(name), width, int(z), n, z / 2).power_w
    if name in roller_chain.chains():
        return lambda z, n, _: chain.rated_power(roller_chain.chain(name), int(z), n).power_w
    belt = flat_belts()[name]
    return lambda d, n, _: flat.rated_power(belt, width, d, n * (d + belt.thickness_m) / 2, math.pi).power_w
