"""The strands of a toothed belt."""

import numpy as np

from tuyere.core.basis.numbers import Numbers
from tuyere.core.kinds.synchronous.profile import Profile

STRAIGHT, ROUND = 5.0, 8.0  # general practice, medium


def tension_ratio(of: Profile, wrap_rad: Numbers) -> tuple[Numbers, str]:
    """Tight over slack that a design supposes, whatever the wrap; scalars or arrays."""
    return np.zeros_like(wrap_rad) + (STRAIGHT if of.form == "straight" else ROUND), "general practice for toothed belts"
