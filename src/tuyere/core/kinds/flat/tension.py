"""The strands of a flat belt."""

import numpy as np

from tuyere.core.basis.numbers import Numbers

MOST, SHARE = 3.0, 0.8  # 2.3 to 3 is designed for, within four fifths of the friction: handbooks, medium

FRICTION_DRY = 0.3  # of a belt whose kind nobody said, dry: common practice


def tension_ratio(friction: float, wrap_rad: Numbers) -> tuple[Numbers, str]:
    """Tight over slack that a sound design supposes at that wrap; scalars or arrays."""
    return np.minimum(np.exp(SHARE * friction * wrap_rad), MOST), "handbooks, flat belts"
