"""Rated power of metric V-belts in the ISO 5292 form, fitted to the printed table of rated powers.

P = d n [C1 - C2/d - C3 (d n)² (1 + δ/d) - C4 log10(d n)] + C2 n (1 - 1/K), P in kW, d the small datum diameter in mm, n in 1/min.
The coefficients are least-squares fits to remembered cells of GB/T 13575.1 (and DIN 7753-2), not printed ones; see provenance.md.
"""

import itertools
from dataclasses import dataclass
from functools import cache

import numpy as np
from scipy.interpolate import RegularGridInterpolator

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.v_belt import Belt, Section
from tuyere.core.kinds.v_belt.ip20 import RatedPower, at_step

SOURCE = "GB/T 13575.1 and DIN 7753-2 in the ISO 5292 form, fitted (from memory)"


@dataclass(frozen=True)
class Fit:
    """The coefficients of a section, the ranges that were fitted (mm, 1/min), and the largest misfit to a printed cell (kW).

    `cells`: the printed table itself, where it is too uneven for the formula (section Z): then only C2, of the ratio, is the fit's.
    """

    c1: float
    c2: float
    c3: float
    c4: float
    delta_mm: float
    d_from_mm: float
    d_to_mm: float
    n_to: float
    misfit_kw: float
    confidence: Confidence
    cells: RegularGridInterpolator | None = None


@cache
def fits() -> dict[str, Fit]:
    """Every fit by section."""

    def read(r: dict[str, str]) -> Fit:
        c1, c2, c3, c4, delta = (float(r[k]) for k in ("C1", "C2", "C3", "C4", "delta"))
        return Fit(
            c1,
            c2,
            c3,
            c4,
            delta,
            float(r["d_from"]),
            float(r["d_to"]),
            float(r["n_to"]),
            float(r["largest_misfit_kw"]),
            Confidence(r["confidence"]),
            _cells() if r["section"] == "Z" else None,
        )

    return {r["section"]: read(r) for r in rows("metric_v_power")}


def _cells() -> RegularGridInterpolator:
    table = rows("metric_z_power")
    speeds = [int(c) for c in table[0] if c.isdigit()]
    powers = [[0.0, *(float(r[str(n)]) for n in speeds)] for r in table]
    return RegularGridInterpolator(([float(r["diameter"]) for r in table], [0, *speeds]), powers, bounds_error=False, fill_value=None)


def kilowatts(f: Fit, d_mm: Numbers, n: Numbers, k: Numbers) -> tuple[Numbers, Numbers]:
    """The equation in its own units, for one or many: basic kW and the kW that the ratio adds.

    >>> round(float(kilowatts(fits()["ISO A"], 100, 1450, 1.0)[0]), 2)
    1.32
    """
    if f.cells:
        # Past its last speed it counts as there: a motor of 2900 is its commonest use, and it still gains a little.
        return f.cells(np.stack(np.broadcast_arrays(d_mm, np.minimum(n, f.cells.grid[1][-1])), axis=-1)), f.c2 * n * (1 - 1 / k)
    x = d_mm * n
    basic = x * (f.c1 - f.c2 / d_mm - f.c3 * x**2 * (1 + f.delta_mm / d_mm) - f.c4 * np.log10(x))
    return basic, f.c2 * n * (1 - 1 / k)


@cache
def ratio_steps(series: str) -> tuple[tuple[float, float], ...]:
    """The ratio table of a series: each ratio from which K holds, and K."""
    return tuple((float(r["ratio_from"]), float(r["K"])) for r in rows("metric_v_speed_ratio_factor") if r["series"] == series)


def speed_ratio_factor(series: str, ratio: float) -> float:
    """K for a ratio of the larger to the smaller diameter, 1 or more (stepped table by series)."""
    return at_step(ratio_steps(series), ratio)


def rated_power(section: Section, small_datum_m: float, fast_shaft_rad_per_s: float, ratio: float) -> RatedPower:
    """Rated power of one belt, W. Raises OutOfRangeError over the section's belt speed, or above the speeds fitted.

    Diameters over the range fitted go on by the same formula, of section Z by the last two rows of its table.
    """
    f = fits()[section.name]
    d, n = from_si(small_datum_m, "length", "mm"), from_si(fast_shaft_rad_per_s, "rotation", "rpm")
    if n > f.n_to * 1.001 or small_datum_m * fast_shaft_rad_per_s / 2 > section.max_speed_m_per_s:
        raise OutOfRangeError(
            f"Section {section.name} is tabled to {f.n_to:g} rpm and {section.max_speed_m_per_s:.0f} m/s: the rating does not reach that "
            "far."
        )
    basic, added = (float(np.squeeze(kw)) for kw in kilowatts(f, d, n, speed_ratio_factor(section.series, ratio)))
    return RatedPower(basic * 1000, added * 1000, f.confidence)


def length_factor(belt: Belt, as_section: str) -> float:
    """K_L by datum length, linear between the tabled lengths; at the ends of the table its last value towards the safe side.

    Raises OutOfRangeError below the shortest tabled length.
    """
    # The older and the newer table share some lengths, with the same factor.
    points = sorted({(float(r["length"]), float(r["K_L"])) for r in rows("metric_v_length_factor") if r["section"] == as_section})
    length = belt.datum_length_m * 1000
    if not points or length < points[0][0] * 0.97:
        raise OutOfRangeError(f"{belt.designation} is shorter than the length-factor table of section {as_section}: no rating for it.")
    for (a, ka), (b, kb) in itertools.pairwise(points):
        if a <= length <= b:
            return ka + (kb - ka) * (length - a) / (b - a)
    return points[0][1] if length < points[0][0] else points[-1][1]
