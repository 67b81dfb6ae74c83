"""What a toothed belt carries: ISO 5295 for the inch profiles, plainly marked engineering estimates for the others.

P = (K_Z K_W T_a - (b/b_0) m v²) v, with K_W = (b/b_0)^1.14 and K_Z = 1 - 0.2 (6 - z_m) under six teeth in mesh: ISO 5295; GB/T 11362
(from memory). Estimates: curvilinear by width (T_a per mm, a sixth of it a tooth), T and AT by tooth.
"""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnTable
from tuyere.core.kinds.synchronous import Profile

_FULL_MESH, _MOST_TEETH, _TOOTH_RPM, _TOOTH_FASTEST = 6, 12, 1000.0, 6000.0
_LEAST_MESH = 2
WIDTH_POWER = 1.14  # of K_W: ISO 5295; IP-24 (high)


@dataclass(frozen=True)
class ToothedRating:
    """Power that the belt carries (W) at its width and mesh, the factors used, and where it comes from.

    `estimate` is empty for a standard.
    """

    power_w: float
    mesh_factor: float
    width_factor: float
    pull_n: float
    centrifugal_n: float
    estimate: str
    confidence: Confidence
    source: str


@cache
def row(profile: str) -> dict[str, str] | None:
    """The figures of a profile; None where none are known."""
    return next((r for r in rows("toothed_rating") if r["profile"] == profile), None)


def mass_per_width(of: Profile) -> float:
    """Mass of a belt, kg/m per m of width; zero where no figures are known."""
    r = row(of.name)
    if r is None:
        return 0.0
    per_mm = float(r["mass_per_mm"]) if r["mass_per_mm"] else float(r["mass_kg_m"]) / float(r["base_width_mm"])
    return per_mm * 1000


def mesh_factor(teeth_in_mesh: int) -> float:
    """K_Z: one from six teeth on, a fifth less for each missing. ISO 5295; IP-24.

    >>> [round(mesh_factor(z), 1) for z in (6, 5, 2)]
    [1.0, 0.8, 0.2]
    """
    return 1.0 if teeth_in_mesh >= _FULL_MESH else max(0.0, 1 - 0.2 * (_FULL_MESH - teeth_in_mesh))


def tooth_speed_share(fast_shaft_rad_per_s: Numbers) -> Numbers:
    """What a tooth's load is of that to 1000 rpm, by the speed of the small pulley: (1000/n)^0.5 above it.

    An estimate, on the low side: teeth are sheared in fatigue, and belts of the tables' other kinds lose less. NaN past 6000 rpm, where
    nothing is estimated.

    >>> round(float(tooth_speed_share(2000 * 0.10471976)), 3), float(tooth_speed_share(90.0))
    (0.707, 1.0)
    """
    rpm = np.asarray(from_si(1.0, "rotation", "rpm") * fast_shaft_rad_per_s)
    share = np.sqrt(_TOOTH_RPM / np.maximum(rpm, _TOOTH_RPM))
    return np.where(rpm > _TOOTH_FASTEST * 1.001, np.nan, share)


def own_width_factor(own: OwnTable, width_m: Numbers) -> Numbers:
    """How much of a table's power a belt of another width carries: K_W of ISO 5295, taken for every profile."""
    assert own.width_m
    return (width_m / own.width_m) ** WIDTH_POWER


def rated_power(
    of: Profile,
    width_m: float,
    small_teeth: int,
    fast_shaft_rad_per_s: float,
    teeth_in_mesh: float,
    own: OwnTable | None = None,
    ratio: float = 1.0,
) -> ToothedRating:
    """Rated power of a belt of the given width. teeth_in_mesh: on the small pulley; whole teeth count. own: the shop's table, with `ratio`.

    Raises OutOfRangeError for a profile without figures, under two teeth in mesh, or past what an estimate reaches.
    """
    r = row(of.name)
    if r is None and own is None:
        raise OutOfRangeError(f"No rating for {of.name} is known here: ask its maker's table.")
    mesh = math.floor(teeth_in_mesh + 1e-9)
    if mesh < _LEAST_MESH:
        raise OutOfRangeError("Under two teeth in mesh no belt is rated: move the shafts apart, or use a smaller ratio.")
    k_z = mesh_factor(mesh)
    if own:
        k_w = float(own_width_factor(own, width_m))
        return ToothedRating(
            own.rated(small_teeth, fast_shaft_rad_per_s, ratio) * k_z * k_w, k_z, k_w, 0.0, 0.0, "", Confidence.MEDIUM, own.says
        )
    assert r
    width = from_si(width_m, "length", "mm")
    v = of.pitch_m * small_teeth * fast_shaft_rad_per_s / math.tau
    if r["method"] == "standard":
        base, pull = float(r["base_width_mm"]), float(r["pull_n"])
        k_w = (width / base) ** WIDTH_POWER
        lost = width / base * float(r["mass_kg_m"]) * v**2
        return ToothedRating(
            max(0.0, (k_z * k_w * pull - lost) * v),
            k_z,
            k_w,
            k_z * k_w * pull,
            lost,
            "",
            Confidence(r["confidence"]),
            f"{r['source']} (from memory)",
        )
    lost = float(r["mass_per_mm"]) * width * v**2
    if r["method"] == "width":
        pull = float(r["pull_n"]) * width * min(1.0, mesh / _FULL_MESH)
        said = f"Estimate: {r['pull_n']} N per mm of width, a sixth of it a tooth in mesh."
    else:
        share = float(tooth_speed_share(fast_shaft_rad_per_s))
        if math.isnan(share):
            raise OutOfRangeError(f"The estimate for {of.name} reaches {_TOOTH_FASTEST:.0f} rpm: past that ask its maker's table.")
        pull = float(r["pull_n"]) * width * min(mesh, _MOST_TEETH) * share
        slower = f", {share:.0%} of it at this speed" if share < 1 else ""
        said = f"Estimate: {r['pull_n']} N per mm of width and tooth in mesh{slower}, at most {_MOST_TEETH} teeth."
    return ToothedRating(
        max(0.0, (pull - lost) * v),
        min(1.0, mesh / _FULL_MESH),
        width,
        pull,
        lost,
        f"{said} Real belts are usually rated 1.2 to 2 times higher; their maker's table decides.",
        Confidence.LOW,
        r["source"],
    )
