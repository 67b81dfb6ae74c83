"""Readings of an alignment, each as equations in angle, twist and offset, solved together by weighted least squares.

A face at +x of a groove by `face_to_groove` (+ from the +x face inward): so a reading of faces differs from one of grooves by the
difference of the two.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

import numpy as np
from scipy.special import chdtrc  # scipy.stats takes a second to import

# One standard deviation of a reading where none is stated, m: common practice, no source.
USUAL_U = {
    "straightedge": 0.00025,
    "string": 0.0004,
    "clock": 0.0001,
    "one_head": 0.0003,
    "two_heads": 0.0002,
    "level": 0.0,
    "tape": 0.0005,
}
LEVEL_U_RAD = 0.0005  # a digital level, about 0.03°: common practice, no source
Reference = Literal["groove", "face"]
BENDS = "The thread may bend over a rim that it touches: read the gaps with a rigid straightedge there, or hold the thread off by shims of one thickness at points 1 and 4."


@dataclass(frozen=True)
class WheelPair:
    """The two wheels.

    Slope (rad), centre distance (m), radii where the edge or head touches the faces, groove centres from the +x faces inward (m).
    """

    slope_rad: float
    centre_m: float
    stationary_radius_m: float
    movable_radius_m: float
    stationary_face_to_groove_m: float = 0.0
    movable_face_to_groove_m: float = 0.0

    @property
    def face_over_groove_m(self) -> float:
        """How much farther the movable face stands off its groove than the stationary one."""
        return self.movable_face_to_groove_m - self.stationary_face_to_groove_m


@dataclass(frozen=True)
class Equations:
    """Rows in (angle, twist, offset), then unknowns of the reading's own.

    Right sides, their standard deviations; what to say instead of an answer.
    """

    rows: tuple[tuple[float, ...], ...]
    right: tuple[float, ...]
    u: tuple[float, ...]
    own: int = 0
    instead: str = ""


NOTHING = Equations((), (), ())


def by_edge(pair: WheelPair, gaps_m: Sequence[float], u_m: float) -> Equations:
    """A rigid edge on the +x faces: gaps at [stationary far rim, stationary near, movable near, movable far], 0 where it touches.

    The edge is a line p + q η, η along u from the movable wheel; gap = edge less face.
    """
    c, rs, rm = pair.centre_m, pair.stationary_radius_m, pair.movable_radius_m
    face = pair.face_over_groove_m
    # The stationary face is nought; the movable one at η stands at offset + face - angle η.
    rows = ((0, 0, 0, 1, c + rs), (0, 0, 0, 1, c - rs), (rm, 0, -1, 1, rm), (-rm, 0, -1, 1, -rm))
    right = (gaps_m[0], gaps_m[1], gaps_m[2] + face, gaps_m[3] + face)
    return Equations(tuple(tuple(float(x) for x in r) for r in rows), right, (u_m,) * 4, 2)


def by_string(pair: WheelPair, gaps_m: Sequence[float], u_m: float) -> Equations:
    """A taut thread held on the outer rims: straight only where it stands clear of both inner ones."""
    if min(gaps_m[1], gaps_m[2]) <= 0:
        return Equations((), (), (), instead=BENDS)
    return by_edge(pair, gaps_m, u_m)


def by_clock(pair: WheelPair, top_m: float, bottom_m: float, u_m: float) -> Equations:
    """The movable face at v and -v from the plane of the stationary face."""
    r, face = pair.movable_radius_m, pair.face_over_groove_m
    return Equations(((0.0, r, 1.0), (0.0, -r, 1.0)), (top_m - face, bottom_m - face), (u_m, u_m))


def by_one_head(pair: WheelPair, toward_m: float, away_m: float, top_m: float, bottom_m: float, u_m: float) -> Equations:
    """The movable face at u, -u, v and -v from the plane of the stationary face."""
    r, face = pair.movable_radius_m, pair.face_over_groove_m
    rows = ((-r, 0.0, 1.0), (r, 0.0, 1.0), (0.0, r, 1.0), (0.0, -r, 1.0))
    return Equations(rows, tuple(x - face for x in (toward_m, away_m, top_m, bottom_m)), (u_m,) * 4)


def by_two_heads(
    pair: WheelPair,
    at_movable_m: float,
    at_stationary_m: float,
    tilt_m: float | None,
    target_height_m: float,
    reference: Reference,
    u_m: float,
) -> Equations:
    """Each wheel's reference from the other's plane, both + toward +x; the tilt of the line on the movable target, v side minus other."""
    face = pair.face_over_groove_m if reference == "face" else 0.0
    rows: list[tuple[float, ...]] = [(0.0, 0.0, 1.0), (pair.centre_m, 0.0, -1.0)]
    right, u = [at_movable_m - face, at_stationary_m + face], [u_m, u_m]
    if tilt_m is not None:
        rows.append((0.0, target_height_m, 0.0))
        right.append(tilt_m)
        u.append(u_m * math.sqrt(2))
    return Equations(tuple(rows), tuple(right), tuple(u))


def by_level(pair: WheelPair, stationary_rad: float, movable_rad: float, u_rad: float) -> Equations:
    """Both shafts by a level, + when the +x end is high: the turn about y, which is angle and twist by the slope."""
    c, s = math.cos(pair.slope_rad), math.sin(pair.slope_rad)
    return Equations(((-s, c, 0.0),), (stationary_rad - movable_rad,), (u_rad * math.sqrt(2),))


def by_tape(outer_m: float, inner_m: float, apart_m: float, u_m: float) -> Equations:
    """From shaft to shaft at two places, the outer farther toward +x: nearer there means that the shafts close."""
    return Equations(((apart_m, 0.0, 0.0),), (inner_m - outer_m,), (u_m * math.sqrt(2),))


@dataclass(frozen=True)
class Errors:
    """Angle, twist (rad) and offset (m) with standard uncertainties; None where the readings do not settle it.

    `instead`: what to read instead.

    `disagree`: the errors on which two readings say different things beyond their doubts: not settled then, never averaged.
    """

    angle_rad: float | None = None
    twist_rad: float | None = None
    offset_m: float | None = None
    angle_u_rad: float | None = None
    twist_u_rad: float | None = None
    offset_u_m: float | None = None
    instead: tuple[str, ...] = field(default=())
    disagree: tuple[str, ...] = field(default=())

    def of(self, key: str) -> tuple[float | None, float]:
        """An error and its standard uncertainty."""
        unit = "m" if key == "offset" else "rad"
        value, u = getattr(self, f"{key}_{unit}"), getattr(self, f"{key}_u_{unit}")
        return value, u or 0.0


_TINY = 1e-9
ERRORS = ("angle", "twist", "offset")
_SMALL_ANGLES = 0.03  # of an error: so far the equations for small angles may be off at six degrees
_CHANCE = 1e-4  # so seldom readings that are right fit one another as badly: common practice, no source


def solve(readings: Sequence[Equations]) -> Errors:
    """All readings together; what they disagree on beyond their doubts (three standard uncertainties) is left open, and named."""
    found, fits = _solve(readings)
    alone = [_solve([r])[0] for r in readings] if len(readings) > 1 else []
    apart = {k for k in ERRORS for i, one in enumerate(alone) for other in alone[i + 1 :] if _apart(one.of(k), other.of(k))}
    if not apart and not fits:
        apart = {k for k in ERRORS if found.of(k)[0] is not None}
    if not apart:
        return found
    left = {f"{k}_{part}{'m' if k == 'offset' else 'rad'}": None for k in apart for part in ("", "u_")}
    return replace(found, disagree=tuple(k for k in ERRORS if k in apart), **left)  # type: ignore[arg-type]


def _apart(one: tuple[float | None, float], other: tuple[float | None, float]) -> bool:
    if one[0] is None or other[0] is None:
        return False
    return abs(one[0] - other[0]) > 3 * math.hypot(one[1], other[1]) + _SMALL_ANGLES * max(abs(one[0]), abs(other[0]))


def _solve(readings: Sequence[Equations]) -> tuple[Errors, bool]:
    """By least squares, and whether the readings fit one another. An error is settled where its own unit lies in the rows' space."""
    instead = tuple(dict.fromkeys(r.instead for r in readings if r.instead))
    wide = 3 + sum(r.own for r in readings)
    rows, right = [], []
    at = 3
    for r in readings:
        for row, value, u in zip(r.rows, r.right, r.u, strict=True):
            line = np.zeros(wide)
            line[:3] = row[:3]
            line[at : at + r.own] = row[3:]
            line[np.abs(line) < 1e-12 * np.abs(line).max()] = 0.0  # what rounding leaves of an upright line's cosine
            rows.append(line / u)
            right.append(value / u)
        at += r.own
    if not rows:
        return Errors(instead=instead), True
    a, b = np.array(rows), np.array(right)
    # Columns to one size: a rank is then told apart from a small lever.
    size = np.linalg.norm(a, axis=0)
    size[size == 0] = 1.0
    scaled = a / size
    inverse = np.linalg.pinv(scaled, rcond=1e-10)
    found = inverse @ b / size
    seen = inverse @ scaled
    spread = np.sqrt(np.sum(inverse**2, axis=1)) / size
    settled = [bool(abs(seen[j, j] - 1) < _TINY and np.all(np.abs(np.delete(seen[j], j)) < 1e-7)) for j in range(3)]
    values = [float(found[j]) if settled[j] else None for j in range(3)]
    doubts = [float(spread[j]) if settled[j] else None for j in range(3)]
    over = len(rows) - int(np.linalg.matrix_rank(scaled, tol=1e-10))
    off = float(np.sum((scaled @ (inverse @ b) - b) ** 2 / (1 + (_SMALL_ANGLES * b) ** 2)))
    fits = over == 0 or bool(chdtrc(over, off) > _CHANCE)
    return Errors(values[0], values[1], values[2], doubts[0], doubts[1], doubts[2], instead), fits
