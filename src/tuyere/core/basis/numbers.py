"""One number, or an array of them: formulas take both alike."""

import numpy as np
from numpy.typing import NDArray

Numbers = float | NDArray[np.float64]
