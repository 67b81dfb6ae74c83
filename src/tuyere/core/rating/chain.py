"""What a roller chain carries: the lesser of link-plate fatigue and roller and bushing impact, by strands; galling as a caution.

H1 = k N^1.08 n^0.9 p^(3 - 0.07 p) and H2 = 1000 K_r N^1.5 p^0.8 / n^1.5, hp, p in inches, N and n of the small sprocket: American
Chain Association; Shigley, Mechanical Engineering Design (from memory). 15 000 h, 100 pitches, 1:1, the right lubricant.
"""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from tuyere.core.families.roller_chain import Chain, chain
from tuyere.core.origin import Confidence
from tuyere.core.quantity import from_si, to_si
from tuyere.core.rating.ip20 import Numbers, OutOfRangeError
from tuyere.core.rating.own import OwnTable
from tuyere.core.table import rows

Governs = Literal["link plates", "rollers and bushings"]


@dataclass(frozen=True)
class ChainRating:
    """Power that the chain carries (W), each limit of one strand (W), which governs, the strand factor, cautions, and where it comes from."""

    power_w: float
    plates_w: float
    rollers_w: float
    governs: Governs
    strand_factor: float
    past_table: bool
    estimate: str
    confidence: Confidence
    source: str


def horsepower(k: float, kr: float, teeth: Numbers, rpm: Numbers, pitch_in: float) -> tuple[Numbers, Numbers]:
    """Link-plate and roller limits of one strand in their own units, hp, for one or many.

    >>> [round(h, 1) for h in horsepower(0.004, 17, 17, 300, 1.75)]
    [72.4, 358.8]
    """
    plates = k * teeth**1.08 * rpm**0.9 * pitch_in ** (3 - 0.07 * pitch_in)
    rollers = 1000 * kr * teeth**1.5 * pitch_in**0.8 / rpm**1.5
    return plates, rollers


def strand_factor(strands: int) -> float:
    """How many times one strand so many strands carry. Raises OutOfRangeError past six.

    >>> strand_factor(3)
    2.5
    """
    if strands not in _strands():
        raise OutOfRangeError("Strand factors are known for 1 to 6 strands.")
    return _strands()[strands]


@cache
def _strands() -> dict[int, float]:
    return {int(r["strands"]): float(r["factor"]) for r in rows("chain_strands")}


def rated_power(
    of: Chain, teeth: int, fast_shaft_rad_per_s: float, strands: int = 1, own: OwnTable | None = None, ratio: float = 1.0
) -> ChainRating:
    """Rated power of a chain on a small sprocket of `teeth`, by the shop's own table (with `ratio`) if there is one. Raises OutOfRangeError for a chain without figures.

    A chain of the B series is counted as the inch chain of its pitch, or the share of it that its strength is: an estimate.
    """
    if own:
        one, factor = own.rated(teeth, fast_shaft_rad_per_s, ratio), strand_factor(strands)
        return ChainRating(one * factor, one, one, "link plates", factor, False, "", Confidence.MEDIUM, own.says)
    row, share, estimate = constants(of)
    rpm, pitch = from_si(fast_shaft_rad_per_s, "rotation", "rpm"), from_si(of.pitch_m, "length", "in")
    if rpm <= 0:
        raise OutOfRangeError("A chain that stands still carries no power: give its speed.")
    limits = [to_si(float(h) * share, "power", "hp") for h in horsepower(float(row["k"]), float(row["kr"]), teeth, rpm, pitch)]
    factor = strand_factor(strands)
    governs: Governs = "link plates" if limits[0] <= limits[1] else "rollers and bushings"
    return ChainRating(
        min(limits) * factor, limits[0], limits[1], governs, factor, rpm > float(row["last_rpm"]) * 1.0001, estimate,
        Confidence.LOW if estimate else Confidence(row["confidence"]), f"{row['source']} (from memory)",
    )  # fmt: skip


@cache
def constants(of: Chain) -> tuple[dict[str, str], float, str]:
    """The row that rates a chain, the share of it that counts, and what to say of that. Raises OutOfRangeError where none does."""
    table = {r["chain"]: r for r in rows("chain_rating")}
    name = of.name.removesuffix("H")
    if name in table:
        return table[name], 1.0, "" if name == of.name else f"Heavy plates are counted as the plain {name}."
    like = next((n for n in table if n != "41" and abs(chain(n).pitch_m / of.pitch_m - 1) < 0.005), None)
    if like is None or "B" not in of.name:
        raise OutOfRangeError(
            f"No rating for {of.name} chain is known here: its maker's table says, or its breaking load and a safe share of it."
        )
    own, twin = of.strength_n, chain(like).strength_n
    if not own or not twin:
        raise OutOfRangeError(f"No rating for {of.name} chain is known here: its breaking load is not in the tables.")
    share = min(1.0, own / twin)
    return table[like], share, f"Estimate: the B series is not this standard's; counted as {share:.0%} of {like}, by breaking load."
