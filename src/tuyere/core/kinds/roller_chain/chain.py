"""A chain by its mark: its sizes when new, and what it is nearly, but not, the same as."""

import re
from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.unknown import NotKnownError


class ChainError(NotKnownError):
    """The chain is not known; the message is a sentence for the person."""


@dataclass(frozen=True)
class Chain:
    """One size of chain, as new; lengths in m, None where the tables do not say.

    `body`: what runs on the tooth (roller, large roller, bushing, or the forged link itself). `plates`: figure-8, straight
    or forged. `nearly_fits`: what it is mixed up with.
    """

    name: str
    series: str
    body: str
    plates: str
    pitch_m: float
    roller_m: float | None
    inner_width_m: float | None
    pin_m: float | None
    plate_height_m: float | None
    plate_thickness_m: float | None
    transverse_pitch_m: float | None
    strength_n: float | None
    mass_kg_per_m: float | None
    measuring_force_n: float | None
    common: float
    nearly_fits: str
    confidence: Confidence
    source: str

    @property
    def on_sprocket_m(self) -> float:
        """What sits in the tooth space: roller or bushing, or the pin of a forged chain (m)."""
        return self.roller_m or self.pin_m or 0.0


@cache
def chains() -> dict[str, Chain]:
    """Every size of the table by its mark, in table order."""
    return {r["chain"]: _chain(r) for r in rows("chains")}


def _chain(r: dict[str, str]) -> Chain:
    def length(column: str) -> float | None:
        return to_si(float(r[column]), "length", r["unit"]) if r[column] else None

    def number(column: str) -> float | None:
        return float(r[column]) if r[column] else None

    return Chain(
        r["chain"],
        r["series"],
        r["body"],
        r["plates"],
        length("pitch") or 0.0,
        length("roller"),
        length("inner_width"),
        length("pin"),
        length("plate_height"),
        length("plate_thickness"),
        length("transverse_pitch"),
        number("strength_n"),
        number("mass_kg_per_m"),
        number("measuring_force_n"),
        float(r["common"]),
        r["nearly_fits"],
        Confidence(r["confidence"]),
        r["source"],
    )


def chain(name: str) -> Chain:
    """The chain called `name`. Raises ChainError with the usual ones."""
    wanted = name.strip().upper()
    found = next((c for c in chains().values() if c.name.upper() == wanted), None)
    if found is None:
        raise ChainError(f"“{name[:20]}” is not a chain known here. The usual ones are 35, 40, 50, 60, 80 and 06B, 08B, 10B, 12B, 16B.")
    return found


_STRANDS = re.compile(r"^(.*?)(?:-(\d))?$")
_ISO_A = {
    "04C": "25",
    "06C": "35",
    "085": "41",
    "08A": "40",
    "10A": "50",
    "12A": "60",
    "16A": "80",
    "20A": "100",
    "24A": "120",
    "28A": "140",
    "32A": "160",
    "36A": "180",
    "40A": "200",
    "48A": "240",
    "208A": "2040",
    "210A": "2050",
    "212A": "2060",
    "216A": "2080",
    "220A": "2100",
}


def parse_mark(text: str) -> tuple[Chain, int]:
    """The chain and its strands from what is stamped on a plate: 60-2, 08B-1, 12A, X348. Raises ChainError.

    >>> found, strands = parse_mark("08A-2")
    >>> found.name, strands
    ('40', 2)
    """
    match = _STRANDS.match(text.strip())
    assert match
    name, strands = match.groups()
    if name[:1] in "xX" and name[1:].isdigit():
        name = f"X-{name[1:]}"
    return chain(_ISO_A.get(name.upper(), name)), int(strands or 1)
