"""What a drive does to its shafts.

Strand tensions in work, the pull on each shaft as a vector, bearing loads, life against a baseline, bushings.

SI inside. Shigley, Mechanical Engineering Design; Machinery's Handbook; ISO 281 (from memory).
"""

import math
from dataclasses import dataclass
from typing import Literal

BALL, ROLLER = 3.0, 10 / 3

# Porous bronze with oil: pressure (Pa), speed (m/s) and their product (Pa m/s); 50 000 psi ft/min. Machinery's Handbook, medium.
_BRONZE_PRESSURE, _BRONZE_SPEED, _BRONZE_PV = 13.79e6, 6.096, 1.751e6


class LoadError(ValueError):
    """The loads cannot be as given; the message is a sentence for the person."""


@dataclass(frozen=True)
class Strands:
    """Tensions (N) of the whole set while it works: tight and slack strand, and the centrifugal part that both hold and no shaft feels."""

    tight_n: float
    slack_n: float
    centrifugal_n: float = 0.0

    @property
    def effective_n(self) -> float:
        """What turns the wheel (N)."""
        return self.tight_n - self.slack_n


@dataclass(frozen=True)
class Pull:
    """Force on a shaft (N): along the line of centres towards the other wheel, and across it towards the tight strand (negative: away)."""

    along_n: float
    across_n: float

    @property
    def total_n(self) -> float:
        """The length of the arrow, N."""
        return math.hypot(self.along_n, self.across_n)

    def in_plane(self, centre_line_rad: float, tight_side: int) -> tuple[float, float]:
        """As (right, up), N.

        Centre_line_rad from this wheel to the other; tight_side 1 if the tight strand lies left of that line, -1 right.
        """
        c, s = math.cos(centre_line_rad), math.sin(centre_line_rad)
        return self.along_n * c - tight_side * self.across_n * s, self.along_n * s + tight_side * self.across_n * c


def strands_at_ratio(effective_n: float, tension_ratio: float, centrifugal_n: float = 0.0) -> Strands:
    """Tensions where (T1 - Tc)/(T2 - Tc) is `tension_ratio`, as a design supposes. Raises LoadError for a ratio of one or less.

    >>> strands_at_ratio(400, 5)
    Strands(tight_n=500.0, slack_n=100.0, centrifugal_n=0.0)
    """
    if tension_ratio <= 1:
        raise LoadError("The tight strand must pull harder than the slack one.")
    slack = effective_n / (tension_ratio - 1)
    return Strands(slack + effective_n + centrifugal_n, slack + centrifugal_n, centrifugal_n)


def strands_at_rest_tension(effective_n: float, standing_n: float, centrifugal_n: float = 0.0) -> Strands:
    """Tensions on fixed centres.

    The sum stays what it was at rest, one strand gains what the other loses. standing_n: one strand of the whole set.

    Raises LoadError where the slack strand would be slack altogether.

    >>> strands = strands_at_rest_tension(600.0, 500.0)
    >>> strands
    Strands(tight_n=800.0, slack_n=200.0, centrifugal_n=0.0)
    """
    slack = standing_n - effective_n / 2
    if slack < centrifugal_n:
        raise LoadError("So loose, the slack strand holds nothing: it slips, or jumps teeth.")
    return Strands(standing_n + effective_n / 2, slack, centrifugal_n)


def slipping_ratio(friction: float, wrap_rad: float, groove_rad: float | None = None) -> float:
    """(T1 - Tc)/(T2 - Tc) at which a belt slips: e^(fθ/sin(groove/2)), flat without a groove. Euler; Shigley.

    >>> from math import pi, radians
    >>> round(slipping_ratio(0.3, pi), 2), round(slipping_ratio(0.3, pi, radians(36)), 1)
    (2.57, 21.1)
    """
    return math.exp(friction * wrap_rad / (math.sin(groove_rad / 2) if groove_rad else 1.0))


def pull_on_shaft(strands: Strands, wrap_rad: float) -> Pull:
    """What the belt pulls a wheel's shaft with, while it works; wrap_rad: of that wheel itself.

    >>> round(pull_on_shaft(Strands(500, 100), math.pi).total_n)
    600
    """
    lean = (math.pi - wrap_rad) / 2
    tight, slack = strands.tight_n - strands.centrifugal_n, strands.slack_n - strands.centrifugal_n
    return Pull((tight + slack) * math.cos(lean), (tight - slack) * math.sin(lean))


def pull_at_rest(standing_n: float, wrap_rad: float) -> float:
    """What a standing belt pulls a shaft with: 2 T sin(θ/2), N; more than while it works, by the centrifugal part.

    >>> from math import pi
    >>> round(pull_at_rest(500.0, pi)), round(pull_at_rest(500.0, 2 * pi / 3))
    (1000, 866)
    """
    return 2 * standing_n * math.sin(wrap_rad / 2)


def overhung_load(power_w: float, speed_rad_per_s: float, diameter_m: float, factor: float) -> float:
    """Pull on a shaft by the usual factor where tensions are not known, N: factor · 2P/(ω d).

    >>> round(overhung_load(7460, 183.3, 0.15, 1.5))
    814
    """
    return factor * 2 * power_w / (speed_rad_per_s * diameter_m)


def reactions(force_n: float, overhang_m: float, span_m: float) -> tuple[float, float]:
    """Bearings' loads (near, far), N, of a force overhung past the near one; negative: the far one holds down what the near one lifts.

    >>> reactions(1000, 0.25, 0.5)
    (1500.0, -500.0)
    """
    return force_n * (overhang_m + span_m) / span_m, -force_n * overhang_m / span_m


def life_ratio(belt_share: float, times: float, exponent: float = BALL) -> float:
    """Bearing life over what it was, when the belt pulls `times` as hard and its pull is `belt_share` of the bearing's load (in line).

    ISO 281.

    >>> [round(life_ratio(1, k), 2) for k in (0.9, 1.2, 1.5, 2)]
    [1.37, 0.58, 0.3, 0.12]
    """
    return float((1 + belt_share * (times - 1)) ** -exponent)


def life_hours(rating_n: float, load_n: float, speed_rad_per_s: float, exponent: float = BALL) -> float:
    """L10 of a bearing, hours: (C/P)^p million turns. ISO 281.

    >>> from math import pi
    >>> round(life_hours(14_000.0, 1_000.0, 1750 * pi / 30))
    26133
    """
    return float(1e6 * (rating_n / load_n) ** exponent / (speed_rad_per_s / math.tau) / 3600)


@dataclass(frozen=True)
class ShaftStrain:
    """An overhung solid shaft.

    Bending and shear stress (Pa) at the near bearing, deflection (m) and slope (rad) at the wheel, slope at the bearing.
    """

    bending_pa: float
    shear_pa: float
    deflection_m: float
    slope_wheel_rad: float
    slope_bearing_rad: float


def shaft_strain(
    force_n: float, torque_nm: float, shaft_m: float, overhang_m: float, span_m: float, modulus_pa: float = 206e9
) -> ShaftStrain:
    """One diameter throughout, simple supports. Shigley; beam tables.

    >>> found = shaft_strain(1000.0, 100.0, 0.04, 0.08, 0.3)
    >>> round(found.bending_pa / 1e6, 2), round(found.shear_pa / 1e6, 2), round(found.deflection_m * 1e6, 1)
    (12.73, 7.96, 31.3)
    """
    a, b, ei = overhang_m, span_m, modulus_pa * math.pi * shaft_m**4 / 64
    return ShaftStrain(
        32 * force_n * a / (math.pi * shaft_m**3),
        16 * torque_nm / (math.pi * shaft_m**3),
        force_n * a**2 * (a + b) / (3 * ei),
        force_n * a * (2 * b + 3 * a) / (6 * ei),
        force_n * a * b / (3 * ei),
    )


BushingLimit = Literal["pressure", "speed", "pressure times speed"]


@dataclass(frozen=True)
class BushingDuty:
    """A sleeve of porous bronze.

    Pressure on its shadow (Pa), sliding speed (m/s), their product, the share of each limit, and which governs.
    """

    pressure_pa: float
    speed_m_per_s: float
    pv: float
    shares: dict[BushingLimit, float]
    governs: BushingLimit


def bushing_duty(reaction_n: float, bore_m: float, length_m: float, speed_rad_per_s: float) -> BushingDuty:
    """How hard a sleeve works under its bearing's own load (not the belt's pull: overhang makes it more).

    >>> duty = bushing_duty(200.0, 0.0254, 0.0254, 180.0)
    >>> round(duty.pressure_pa / 1e6, 2), round(duty.speed_m_per_s, 2), duty.governs
    (0.31, 2.29, 'pressure times speed')
    """
    pressure, speed = abs(reaction_n) / (bore_m * length_m), abs(speed_rad_per_s) * bore_m / 2
    shares: dict[BushingLimit, float] = {
        "pressure": pressure / _BRONZE_PRESSURE,
        "speed": speed / _BRONZE_SPEED,
        "pressure times speed": pressure * speed / _BRONZE_PV,
    }
    return BushingDuty(pressure, speed, pressure * speed, shares, max(shares, key=lambda k: shares[k]))
