"""The tight strand's pull over the slack one's that a design supposes, by family; centrifugal part left out. Scalars or arrays."""

import math

import numpy as np

from tuyere.core.families.flat import FlatBelt
from tuyere.core.families.roller_chain import Chain
from tuyere.core.families.synchronous import Profile
from tuyere.core.families.v_belt import Section
from tuyere.core.rating.ip20 import Numbers

V_PER_RAD = math.log(5) / math.pi  # 5:1 at 180°: IP-20 (high)
STRAIGHT, ROUND = 5.0, 8.0  # toothed belts: general practice, medium
FLAT_MOST, FLAT_SHARE = 3.0, 0.8  # 2.3 to 3 is designed for, within four fifths of the friction: handbooks, medium


def tension_ratio(of: Section | Profile | Chain | FlatBelt, wrap_rad: Numbers) -> tuple[Numbers, str]:
    """The ratio at a wrap on the small wheel, and how to say where it is from; inf for a chain, whose slack side hangs free.

    >>> from tuyere.core.families.v_belt import section
    >>> round(float(tension_ratio(section("B"), math.pi)[0]), 6)
    5.0
    """
    same = np.zeros_like(wrap_rad)
    if isinstance(of, Section):
        return np.exp(V_PER_RAD * wrap_rad), "5 at half a turn (IP-20)"
    if isinstance(of, Profile):
        return same + (STRAIGHT if of.form == "straight" else ROUND), "general practice for toothed belts"
    if isinstance(of, Chain):
        return same + math.inf, "the slack side hangs free"
    return np.minimum(np.exp(FLAT_SHARE * of.friction * wrap_rad), FLAT_MOST), "handbooks, flat belts"
