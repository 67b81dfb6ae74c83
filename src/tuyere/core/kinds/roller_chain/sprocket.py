"""Sprockets: diameters by ASME B29.1 and ISO 606, and the shape of a tooth."""

import math
from dataclasses import dataclass

from tuyere.core.basis.quantity import to_si
from tuyere.core.kinds.roller_chain.chain import Chain


def pitch_diameter(pitch_m: float, teeth: float) -> float:
    """Diameter through the roller centres, m: p / sin(180/N). Source: ASME B29.1, ISO 606.

    >>> round(pitch_diameter(1, 17), 4)
    5.4422
    """
    return pitch_m / math.sin(math.pi / teeth)


def outside_diameter(pitch_m: float, teeth: float) -> float:
    """Over the tooth tips, m: p (0.6 + cot(180/N)). Source: ASME B29.1."""
    return pitch_m * (0.6 + 1 / math.tan(math.pi / teeth))


def caliper_diameter(pitch_m: float, teeth: int, roller_m: float) -> float:
    """From tooth bottom to tooth bottom as callipers reach it, m: across, or for odd teeth to the bottom nearest to opposite.

    Source: ASME B29.1.
    """
    across = pitch_diameter(pitch_m, teeth)
    return (across if teeth % 2 == 0 else across * math.cos(math.pi / (2 * teeth))) - roller_m


def pitch_from_caliper(caliper_m: float, teeth: int, roller_m: float) -> float:
    """The pitch of a sprocket from its caliper diameter and the roller that fits it, m (the inverse of `caliper_diameter`)."""
    across = (caliper_m + roller_m) / (1 if teeth % 2 == 0 else math.cos(math.pi / (2 * teeth)))
    return across * math.sin(math.pi / teeth)


@dataclass(frozen=True)
class Sprocket:
    """The diameters (m) of a sprocket.

    Through roller centres, over the tips, at the bottoms, as callipers reach; the largest hub, and the tooth's width.
    """

    teeth: int
    pitch_m: float
    outside_m: float
    bottom_m: float
    caliper_m: float
    hub_most_m: float
    tooth_width_m: float | None


def sprocket(of: Chain, teeth: int, strands: int = 1) -> Sprocket:
    """The sprocket of a chain. Tooth width by ASME B29.1 (inch sizes) or ISO 606. Raises ValueError under 5 teeth."""
    if teeth < 5:
        raise ValueError("A sprocket has 5 teeth at least.")
    across = pitch_diameter(of.pitch_m, teeth)
    hub = of.pitch_m * (1 / math.tan(math.pi / teeth) - 1) - to_si(0.030, "length", "in")
    return Sprocket(
        teeth,
        across,
        outside_diameter(of.pitch_m, teeth),
        across - of.on_sprocket_m,
        caliper_diameter(of.pitch_m, teeth, of.on_sprocket_m),
        hub,
        _tooth_width(of, strands),
    )


def _tooth_width(of: Chain, strands: int) -> float | None:
    if of.inner_width_m is None:
        return None
    if of.series.startswith("ISO"):
        short = of.pitch_m <= 0.0127 + 1e-9
        share = (0.93 if short else 0.95) if strands == 1 else (0.91 if short else 0.93)
        return share * of.inner_width_m
    share = 0.93 if strands == 1 else 0.90 if strands <= 3 else 0.88
    return share * of.inner_width_m - to_si(0.006, "length", "in")


def tooth_outline(pitch_m: float, roller_m: float, teeth: int, steps: int = 8) -> list[tuple[float, float]]:
    """One tooth space and its two half teeth (m; the wheel's centre at the origin, the space straight up), left to right.

    Seating radius and angle and flank radius half between ISO 606's limits, cut at the ASME tip diameter.
    """
    across = pitch_diameter(pitch_m, teeth)
    seat = 0.505 * roller_m + 0.0345 * (roller_m * 1000) ** (1 / 3) / 1000
    half_angle = math.radians((140 - 90 / teeth + 120 - 90 / teeth) / 2) / 2
    flank = (0.12 * roller_m * (teeth + 2) + 0.008 * roller_m * (teeth**2 + 180)) / 2
    tip = outside_diameter(pitch_m, teeth) / 2
    cy = across / 2
    # Seat from the bottom up one side: angle from straight down.
    right = [(seat * math.sin(a), cy - seat * math.cos(a)) for k in range(steps + 1) for a in (half_angle * k / steps,)]
    # The flank curves away, its centre on the line through seat centre and the end of the seat, beyond it.
    fx, fy = (seat + flank) * math.sin(half_angle), cy - (seat + flank) * math.cos(half_angle)
    start = math.atan2(right[-1][1] - fy, right[-1][0] - fx)
    for k in range(1, 6 * steps):
        a = start - k * (seat / flank) / steps
        x, y = fx + flank * math.cos(a), fy + flank * math.sin(a)
        bearing = math.atan2(x, y)
        if math.hypot(x, y) >= tip or bearing >= math.pi / teeth:
            break
        right.append((x, y))
    middle = math.pi / teeth
    top = min(tip, math.hypot(*right[-1]))
    bearing = min(math.atan2(right[-1][0], right[-1][1]), middle)
    right += [(top * math.sin(b), top * math.cos(b)) for k in range(1, 4) for b in (bearing + (middle - bearing) * k / 3,)]
    return [(-x, y) for x, y in reversed(right)] + right[1:]
