"""Ratio, driven speed, belt and rim speed, slip. SI inside."""

from functools import cache

from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows


@cache
def rim_limit(material: str = "cast iron") -> float:
    """How fast the rim of a wheel of that material may run, m/s, when no other limit is cast on it: tables/wheel_materials.csv.

    >>> round(rim_limit(), 1)
    33.0
    """
    return next(to_si(float(r["rim_limit"]), "velocity", "ft/min") for r in rows("wheel_materials") if r["material"] == material)


CAST_IRON_RIM_LIMIT_M_PER_S = rim_limit()
CAST_IRON_RIM_LIMIT = f"{from_si(CAST_IRON_RIM_LIMIT_M_PER_S, 'velocity', 'ft/min'):.0f} ft/min"
CAST_IRON_RIM_LIMIT_BOTH = f"{CAST_IRON_RIM_LIMIT} ({CAST_IRON_RIM_LIMIT_M_PER_S:.0f} m/s)"


def ratio(driver_diameter_m: float, driven_diameter_m: float) -> float:
    """Speed ratio, driver revolutions per driven revolution: D/d.

    >>> ratio(0.1, 0.25)
    2.5
    """
    return driven_diameter_m / driver_diameter_m


def driven_speed(driver_rad_per_s: float, speed_ratio: float) -> float:
    """Driven speed without slip, rad/s.

    >>> driven_speed(180.0, 2.5)
    72.0
    """
    return driver_rad_per_s / speed_ratio


def belt_speed(diameter_m: float, rad_per_s: float) -> float:
    """Speed of the belt at the diameter it rides on, m/s.

    >>> round(belt_speed(0.254, to_si(1750, "rotation", "rpm")) / 0.00508)
    4581
    """
    return diameter_m * rad_per_s / 2


def slip(driver_rad_per_s: float, driven_rad_per_s: float, speed_ratio: float) -> float:
    """Slip from both measured speeds, as a share: 1 - (n2/n1)(D/d).

    >>> round(slip(180.0, 70.56, 2.5), 3)
    0.02
    """
    return 1 - driven_rad_per_s / driver_rad_per_s * speed_ratio


def speed_at_rim_limit(outside_diameter_m: float, limit_m_per_s: float = CAST_IRON_RIM_LIMIT_M_PER_S) -> float:
    """Speed at which the rim reaches its limit, rad/s.

    >>> round(speed_at_rim_limit(0.4))
    165
    """
    return 2 * limit_m_per_s / outside_diameter_m
