"""Fans and pumps: the laws of similarity, air density, and a fan's own curve against its ducts.

Flow as speed, pressure as its square, power as its cube; pressure and power as density: AMCA 201 and fan engineering texts (from memory).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.optimize import brentq

STANDARD_DENSITY = 1.204  # kg/m3, 20 °C at sea level: AMCA 210 (0.075 lb/ft3)
_SCALE_HEIGHT_M = 8435.0  # of the lower atmosphere at 15 °C: g M / R T, standard atmosphere
_KELVIN = 273.15


def density(temperature_c: float, altitude_m: float) -> float:
    """Density of dry air, kg/m3: as absolute temperature and barometer.

    >>> round(density(20, 0), 3), round(density(70, 0) / density(20, 0), 3)
    (1.204, 0.854)
    """
    return STANDARD_DENSITY * (20 + _KELVIN) / (temperature_c + _KELVIN) * math.exp(-altitude_m / _SCALE_HEIGHT_M)


@dataclass(frozen=True)
class Similar:
    """A fan or pump at another speed and density, each as a multiple of what it was."""

    flow: float
    pressure: float
    power: float


def similar(speed_ratio: float, density_ratio: float = 1.0) -> Similar:
    """The laws of similarity on the same system.

    >>> similar(1.1).power
    1.3310000000000004
    """
    return Similar(speed_ratio, speed_ratio**2 * density_ratio, speed_ratio**3 * density_ratio)


@dataclass(frozen=True)
class FanCurve:
    """A fan's curve at one speed (rad/s) and density (kg/m3): points of flow (m3/s) and static pressure (Pa), flow rising."""

    speed: float
    flows: tuple[float, ...]
    pressures: tuple[float, ...]
    density: float = STANDARD_DENSITY

    def at(self, speed: float, air: float = STANDARD_DENSITY) -> "FanCurve":
        """The same fan at another speed and density."""
        law = similar(speed / self.speed, air / self.density)
        return FanCurve(speed, tuple(q * law.flow for q in self.flows), tuple(p * law.pressure for p in self.pressures), air)

    def pressure(self, flow: float) -> float:
        """Static pressure at a flow, Pa, between the points (a curve through them that adds no bumps)."""
        return float(PchipInterpolator(np.array(self.flows), np.array(self.pressures))(flow))


class CurveError(ValueError):
    """The curve does not serve; the message is a sentence for the person."""


def fan_curve(speed: float, points: Sequence[tuple[float, float]], air: float = STANDARD_DENSITY) -> FanCurve:
    """A curve from points in any order. Raises CurveError for fewer than three, or two at one flow."""
    ordered = sorted(points)
    if len(ordered) < 3:
        raise CurveError("Give at least three points of the curve: flow and static pressure.")
    if any(b[0] - a[0] < 1e-9 for a, b in pairwise(ordered)):
        raise CurveError("Two points have the same flow: a curve has one pressure at each.")
    return FanCurve(speed, tuple(q for q, _ in ordered), tuple(p for _, p in ordered), air)


def working_point(curve: FanCurve, resistance: float) -> tuple[float, float]:
    """Flow (m3/s) and pressure (Pa) where the fan meets ducts of p = resistance · Q². Raises CurveError outside the curve's points."""

    def over(flow: float) -> float:
        return curve.pressure(flow) - resistance * flow**2

    low, high = curve.flows[0], curve.flows[-1]
    if over(low) < 0 or over(high) > 0:
        raise CurveError("The ducts meet this curve outside its points: give points further out.")
    flow = float(brentq(over, low, high, xtol=1e-12))
    return flow, curve.pressure(flow)


def flow_at_pressure(curve: FanCurve, pressure: float) -> float:
    """The flow on the falling side of the curve at a measured static pressure, m3/s. Raises CurveError where the curve never has it."""
    flows = np.linspace(curve.flows[0], curve.flows[-1], 400)
    over = PchipInterpolator(np.array(curve.flows), np.array(curve.pressures))(flows) - pressure
    falling = np.nonzero((over[:-1] > 0) & (over[1:] <= 0))[0]
    if not falling.size:
        raise CurveError("The curve never has that pressure at this speed: read pressure and speed again, or look at the fan's inlet.")
    k = int(falling[-1])
    return float(brentq(lambda q: curve.pressure(q) - pressure, flows[k], flows[k + 1], xtol=1e-12))
