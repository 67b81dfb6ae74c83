"""The strands of a chain."""

import math

import numpy as np

from tuyere.core.basis.numbers import Numbers


def tension_ratio(wrap_rad: Numbers) -> tuple[Numbers, str]:
    """Tight over slack: infinite, for the slack side hangs free. Scalars or arrays."""
    return np.zeros_like(wrap_rad) + math.inf, "the slack side hangs free"
