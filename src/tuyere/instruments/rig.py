"""A machine to practise on: a hidden pose, feet that slip a little as they are drawn down, and noisy readings of every method.

Exact rigid body (rotations, no small angles), so that what is worked out from its readings is put to the test.
"""

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import linprog
from scipy.spatial.transform import Rotation

from tuyere.core.stations.align.frame import Vector, along, turns_of
from tuyere.core.stations.align.moves import Feet
from tuyere.core.stations.align.readings import LEVEL_U_RAD, USUAL_U, WheelPair

_SHIMMED_OFF = 0.006  # what the string is held off by, m
_TALL = 0.08  # between the marks of a head's target: common practice, no source
_TAPED = 0.3  # between the two places of the tape, m
_SLIP = 0.00006  # how far a foot shifts as its bolt is drawn down, one standard deviation, m: an assumption


@dataclass(frozen=True)
class Made:
    """A move made at the feet: lifts [front-left, front-right, back-left, back-right], back feet toward +y, machine toward +x (m)."""

    lifts_m: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    swing_m: float = 0.0
    slide_m: float = 0.0


@dataclass(frozen=True)
class Truth:
    """Where it truly stands: angle and twist (rad), offset (m)."""

    angle_rad: float
    twist_rad: float
    offset_m: float


class Rig:
    """The movable machine in space: its wheel's groove centre (the stationary one is the origin) and which way its body is turned."""

    def __init__(self, pair: WheelPair, feet: Feet, truth: Truth, seed: int = 0, roll_rad: float = 0.0) -> None:
        self.pair, self.feet, self.seed = pair, feet, seed
        turn = turns_of(truth.angle_rad, truth.twist_rad, pair.slope_rad)
        u, _ = along(pair.slope_rad)
        self._turned = Rotation.from_rotvec([roll_rad, turn.about_y, turn.about_z])
        self._centre: Vector = np.array([truth.offset_m, 0.0, 0.0]) - pair.centre_m * u
        self._made = 0

    @classmethod
    def hidden(cls, pair: WheelPair, feet: Feet, seed: int, degrees: float) -> "Rig":
        """A pose by chance: angle and twist together that many degrees, an offset of one to four millimetres."""
        chance = random.Random(f"pose {seed}")
        part, whole = math.radians(chance.uniform(25, 65)), math.radians(degrees)
        one, two, three = (chance.choice((-1, 1)) for _ in range(3))
        stands = Truth(one * whole * math.cos(part), two * whole * math.sin(part), three * chance.uniform(0.001, 0.004))
        return cls(pair, feet, stands, seed, chance.uniform(-0.003, 0.003))

    def make(self, move: Made) -> None:
        """Move the feet and draw the bolts down: each shifts a little."""
        chance = random.Random(f"slip {self.seed} {self._made}")
        self._made += 1
        f = self.feet
        spots = [(-f.a_m, f.width_m / 2), (-f.a_m, -f.width_m / 2), (-f.a_m - f.b_m, f.width_m / 2), (-f.a_m - f.b_m, -f.width_m / 2)]
        # In turns about x, y, z and shifts along them: the feet's lifts, each pair's middle across, the front middle along the shaft.
        rows = [[y, -x, 0.0, 0.0, 0.0, 1.0] for x, y in spots]
        rows += [[f.height_m, 0.0, x, 0.0, 1.0, 0.0] for x in (-f.a_m, -f.a_m - f.b_m)]
        rows.append([0.0, -f.height_m, 0.0, 1.0, 0.0, 0.0])
        wanted = [*move.lifts_m, 0.0, move.swing_m, move.slide_m]
        went = np.array(wanted) + [chance.gauss(0, _SLIP / 6 if i < 4 else _SLIP) for i in range(7)]
        motion = np.linalg.lstsq(np.array(rows), went, rcond=None)[0]
        self._turned = Rotation.from_rotvec(motion[:3]) * self._turned
        self._centre = self._centre + motion[3:]

    @property
    def truth(self) -> Truth:
        """How the movable wheel stands now."""
        u, v = along(self.pair.slope_rad)
        n = self._shaft
        return Truth(math.asin(float(n @ u)), math.asin(float(-(n @ v))), float(self._centre[0]))

    def read(self, method: str, nth: int = 0) -> dict[str, float]:
        """What the tool shows at each point of a method, SI, empty where it cannot; `nth`: each time with noise of its own."""
        exact = self._exact(method)
        chance = random.Random(f"read {self.seed} {self._made} {nth} {method}")
        u = LEVEL_U_RAD if method == "level" else USUAL_U.get(method, 0.0)
        known = ("apart", "target_height")
        noisy = {k: v if k in known else v + chance.gauss(0, u) for k, v in exact.items()}
        return {k: max(0.0, v) if k.startswith("gap") else v for k, v in noisy.items()}

    @property
    def _shaft(self) -> Vector:
        return np.asarray(self._turned.apply([1.0, 0.0, 0.0]))

    def _face(self, way: Vector) -> Vector:
        """The point of the movable face at the radius touched, as far that way as it goes."""
        n = self._shaft
        flat = way - n * float(way @ n)
        return self._centre + n * self.pair.movable_face_to_groove_m + flat / np.linalg.norm(flat) * self.pair.movable_radius_m

    def _exact(self, method: str) -> dict[str, float]:
        p, (u, v), n = self.pair, along(self.pair.slope_rad), self._shaft
        still = p.stationary_face_to_groove_m
        if method in ("straightedge", "string"):
            near, far = self._face(u), self._face(-u)
            at = [p.centre_m + p.stationary_radius_m, p.centre_m - p.stationary_radius_m, *(float(q @ u) + p.centre_m for q in (near, far))]
            face = [still, still, float(near[0]), float(far[0])]
            gaps = _edge(at, face) if method == "straightedge" else _string(at, face)
            return {f"gap_{i}": g for i, g in enumerate(gaps, 1)}
        stands = {way: float(self._face(to)[0]) - still for way, to in (("toward", u), ("away", -u), ("top", v), ("bottom", -v))}
        if method == "clock":
            return {k: stands[k] for k in ("top", "bottom")}
        # What stands in has the line outside its target's mark.
        if method == "one_head":
            return {k: -x for k, x in stands.items()}
        if method == "two_heads":
            return {
                "at_movable": -float(self._centre[0]),
                "at_still": float(self._centre @ n),
                "tilt": float(n @ v) * _TALL,
                "target_height": _TALL,
            }
        if method == "level":
            return {"still": 0.0, "moving": math.asin(float(n[2]))}
        if method == "tape":
            outer, inner = (float(np.linalg.norm((self._centre + n * s)[1:])) for s in (0.0, -_TAPED))
            return {"outer": outer, "inner": inner, "apart": _TAPED}
        return {}


def _edge(at: Sequence[float], face: Sequence[float]) -> list[float]:
    """Gaps under a rigid edge laid on from outside: the lowest line over all four points."""
    lowest = linprog([4.0, sum(at)], A_ub=[[-1.0, -s] for s in at], b_ub=[-x for x in face], bounds=[(None, None)] * 2)
    start, slope = (float(found) for found in np.asarray(lowest.x))
    return [max(0.0, start + slope * s - x) for s, x in zip(at, face, strict=True)]


def _string(at: Sequence[float], face: Sequence[float]) -> list[float]:
    """To a string shimmed off the outer rims; 0 where an inner rim stands proud and bends it."""
    slope = (face[3] - face[0]) / (at[3] - at[0])
    return [max(0.0, face[0] + slope * (s - at[0]) + _SHIMMED_OFF - x) for s, x in zip(at, face, strict=True)]
