"""The trade's limits that are single numbers: tables/limits.csv, asked by name."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.basis.units import KINDS

_KIND_OF_UNIT = {unit.symbol: kind for kind in ("velocity", "angle", "stress") for unit in KINDS[kind].units}


@dataclass(frozen=True)
class Limit:
    """A limit in SI (or a plain number), as printed, and where it comes from."""

    value: float
    printed: str
    confidence: Confidence
    source: str


@cache
def limit(name: str) -> Limit:
    """The limit called `name`. Raises KeyError for one that the table does not have.

    >>> round(limit("least wrap of a belt").value, 4), limit("leather speed").printed
    (2.0944, '5500 ft/min')
    """
    for r in rows("limits"):
        if r["name"] == name:
            kind = _KIND_OF_UNIT.get(r["unit"])
            value = float(r["value"])
            return Limit(
                to_si(value, kind, r["unit"]) if kind else value,
                f"{r['value']} {r['unit']}".strip(),
                Confidence(r["confidence"]),
                r["source"],
            )
    raise KeyError(name)
