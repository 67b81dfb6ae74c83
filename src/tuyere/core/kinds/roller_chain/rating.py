"""What a roller chain carries: the lesser of link-plate fatigue and roller and bushing impact, by strands; galling as a caution.

H1 = k N^1.08 n^0.9 p^(3 - 0.07 p) and H2 = 1000 K_r N^1.5 p^0.8 / n^1.5 (L_p/100)^0.4 (15 000/h)^0.4, hp, p in inches, N and n of the
small sprocket, L_p the chain's pitches, h its hours: American Chain Association; Shigley, Mechanical Engineering Design (from memory).
The right lubricant. Link plates are a matter of fatigue, and neither length nor hours count there.

Slow chains: plates come to their fatigue limit of ten million passes in 15 000 h at 18.5 pitches a second on 100 pitches, which is 0.24 m/s
for a half-inch chain and 0.6 m/s for one of 1 1/4 in. Slower ones see fewer, and textbooks hold them by their strength: under 0.6 m/s the
breaking load over 7 is a limit here too.
"""

import math
from dataclasses import dataclass
from functools import cache
from typing import Literal

import numpy as np

from tuyere.core.basis.limit import limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnTable
from tuyere.core.kinds.roller_chain import Chain, chain

Governs = Literal["link plates", "rollers and bushings", "breaking load"]
USUAL_PITCHES, USUAL_HOURS = 100.0, 15_000.0


@dataclass(frozen=True)
class ChainRating:
    """Power that the chain carries (W), each limit of one strand (W), which governs, the strand factor, cautions, and where it comes from.

    `offset`: the share that an offset link leaves (1: none). `strength_w`: by its breaking load, where it runs so slowly that this counts.
    """

    power_w: float
    plates_w: float
    rollers_w: float
    governs: Governs
    strand_factor: float
    past_table: bool
    estimate: str
    confidence: Confidence
    source: str
    offset: float = 1.0
    strength_w: float | None = None


def polygon_ripple(teeth: int) -> float:
    """How much a chain's speed varies at each tooth, a share: (π/N)(1/sin(180/N) - 1/tan(180/N)). Shigley, eq. 17-31 (from memory, high).

    >>> [round(100 * polygon_ripple(n), 2) for n in (11, 17, 25)]
    [4.11, 1.71, 0.79]
    """
    half = math.pi / teeth
    return half * (1 / math.sin(half) - 1 / math.tan(half))


def roller_share(pitches: Numbers, life_h: float = USUAL_HOURS) -> Numbers:
    """What the rollers' limit is of that for 100 pitches and 15 000 h.

    >>> round(roller_share(56), 3)
    0.793
    """
    return (pitches / USUAL_PITCHES) ** 0.4 * float((USUAL_HOURS / life_h) ** 0.4)


def offset_share(pitches: Numbers) -> Numbers:
    """What is left of a chain's rating: all of it with an even number of pitches, less with an odd one, which needs an offset link."""
    return np.where(np.round(pitches) % 2 == 1, limit("offset link").value, 1.0)


def strength_power(of: Chain, strands: Numbers, velocity_m_per_s: Numbers) -> Numbers:
    """Power (W) by the breaking load with its safety; infinite for a chain that is not slow, or of unknown strength."""
    if of.strength_n is None:
        return np.full_like(np.asarray(velocity_m_per_s, dtype=float), np.inf)
    safe = of.strength_n * strands * velocity_m_per_s / limit("slow chain safety").value
    return np.where(np.asarray(velocity_m_per_s) < limit("slow chain").value, safe, np.inf)


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
    of: Chain,
    teeth: int,
    fast_shaft_rad_per_s: float,
    strands: int = 1,
    own: OwnTable | None = None,
    ratio: float = 1.0,
    pitches: float = USUAL_PITCHES,
    life_h: float = USUAL_HOURS,
) -> ChainRating:
    """Rated power of a chain of so many pitches on a small sprocket of `teeth`, by the shop's own table (with `ratio`) if there is one.

    Raises OutOfRangeError for a chain without figures.

    A chain of the B series is counted as the inch chain of its pitch, or the share of it that its strength is: an estimate.
    """
    offset = float(offset_share(pitches))
    slow = float(strength_power(of, strands, teeth * of.pitch_m * fast_shaft_rad_per_s / math.tau))
    if own:
        one, factor = own.rated(teeth, fast_shaft_rad_per_s, ratio), strand_factor(strands)
        return ChainRating(
            min(one * factor * offset, slow), one, one, "link plates", factor, False, "", Confidence.MEDIUM, own.says, offset, _known(slow)
        )
    row, share, estimate = constants(of)
    rpm, pitch = from_si(fast_shaft_rad_per_s, "rotation", "rpm"), from_si(of.pitch_m, "length", "in")
    if rpm <= 0:
        raise OutOfRangeError("A chain that stands still carries no power: give its speed.")
    plates, rollers = horsepower(float(row["k"]), float(row["kr"]), teeth, rpm, pitch)
    limits = [to_si(float(h) * share, "power", "hp") for h in (plates, rollers * roller_share(pitches, life_h))]
    factor = strand_factor(strands)
    by_wear = min(limits) * factor * offset
    governs: Governs = "breaking load" if slow < by_wear else "link plates" if limits[0] <= limits[1] else "rollers and bushings"
    return ChainRating(
        min(by_wear, slow),
        limits[0],
        limits[1],
        governs,
        factor,
        rpm > float(row["last_rpm"]) * 1.0001,
        estimate,
        Confidence.LOW if estimate else Confidence(row["confidence"]),
        f"{row['source']} (from memory)",
        offset,
        _known(slow),
    )


def _known(power_w: float) -> float | None:
    return power_w if math.isfinite(power_w) else None


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
