"""Farm adjustable-speed belts, HI to HO: known by name and by size, never sized here. Figures: tables/v_broad.csv."""

import re
from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows

_NAMED = re.compile(r"(H[I-O])[\s\-]*\d*(?:\.\d+)?")
_WIDTH_OFF, _HEIGHT_OFF = 0.06, 0.12  # shares: what wear, make and a calliper take; a judgement


@dataclass(frozen=True)
class Broad:
    """An adjustable-speed section; top width and height in m."""

    name: str
    top_width_m: float
    height_m: float

    @property
    def sentence(self) -> str:
        """What it is and who says which."""
        return (
            f"{self.name} is a farm adjustable-speed section (ASABE S211): it runs between sliding flanges. "
            "Ask for the machine’s own part number; nothing is worked out for it here."
        )


@cache
def broads() -> tuple[Broad, ...]:
    """The sections, narrowest first."""
    return tuple(Broad(r["section"], *(to_si(float(r[c]), "length", "in") for c in ("top_width", "height"))) for r in rows("v_broad"))


def broad_named(text: str) -> Broad | None:
    """The section that a label or a typed name begins with.

    >>> broad_named("hk 72").name, broad_named("HB72"), broad_named("H")
    ('HK', None, None)
    """
    match = _NAMED.fullmatch(text.strip().upper())
    return next((b for b in broads() if b.name == match[1]), None) if match else None


def broad_like(top_width_m: float, height_m: float) -> Broad | None:
    """The section of that size, where one is near.

    >>> broad_like(0.0376, 0.0172).name, broad_like(0.0376, 0.011)
    ('HK', None)
    """
    near = [b for b in broads() if abs(top_width_m / b.top_width_m - 1) < _WIDTH_OFF and abs(height_m / b.height_m - 1) < _HEIGHT_OFF]
    return min(near, key=lambda b: abs(top_width_m / b.top_width_m - 1), default=None)
