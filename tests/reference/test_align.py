"""Alignment against rigid bodies turned by SciPy's rotations: readings made from true points, moves made on true feet."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from tuyere.core.stations.align import readings as by
from tuyere.core.stations.align.frame import along, turns_of
from tuyere.core.stations.align.moves import Feet, in_steps, moves_for
from tuyere.core.stations.align.readings import Errors, WheelPair, solve
from tuyere.core.stations.align.shims import pack, stock_of
from tuyere.core.stations.align.tolerance import tolerance

FEET = Feet(0.15, 0.25, 0.22, 0.13)
SLOPES = (0.0, math.pi / 4, math.pi / 2, math.pi, -2.2)
_X = np.array([1.0, 0.0, 0.0])


class Machine:
    """The movable machine where it truly stands: its wheel's groove centre, and which way its body is turned."""

    def __init__(self, pair: WheelPair, offset: float, turned: Rotation) -> None:
        self.pair, self.turned = pair, turned
        u, _ = along(pair.slope_rad)
        self.centre = offset * _X - pair.centre_m * u

    @property
    def shaft(self) -> np.ndarray:
        return self.turned.apply(_X)

    def face(self, way: np.ndarray) -> np.ndarray:
        """The point of its face at the touching radius, as far that way as it goes."""
        flat = way - self.shaft * (way @ self.shaft)
        return self.centre + self.shaft * self.pair.movable_face_to_groove_m + flat / np.linalg.norm(flat) * self.pair.movable_radius_m

    def truth(self) -> tuple[float, float, float]:
        u, v = along(self.pair.slope_rad)
        return float(self.shaft @ u), float(-self.shaft @ v), float(self.centre[0])

    def readings(self) -> dict[str, by.Equations]:
        """Every method on this pose, each point measured where it is."""
        p, (u, v) = self.pair, along(self.pair.slope_rad)
        origin, still = -p.centre_m * u, p.stationary_face_to_groove_m
        near, far = self.face(u), self.face(-u)
        spots = [(p.centre_m + p.stationary_radius_m, still), (p.centre_m - p.stationary_radius_m, still)] + [
            (float((q - origin) @ u), float(q[0])) for q in (near, far)
        ]
        gaps = edge_on(spots)
        clock = [float(self.face(way)[0]) - still for way in (v, -v)]
        heads = [float(self.face(way)[0]) - still for way in (u, -u, v, -v)]
        at_movable = float(self.centre[0])
        at_stationary = float(-(self.centre @ self.shaft) / 1.0) * 1.0
        tilt = float(-(self.shaft @ v)) * 0.08
        sloping = [math.asin(float(s[2])) for s in (_X, self.shaft)]
        outer, inner = (float(np.linalg.norm((self.centre + self.shaft * x)[1:])) for x in (0.1, -0.3))
        return {
            "straightedge": by.by_edge(p, gaps, 1e-4),
            "clock": by.by_clock(p, clock[0], clock[1], 1e-4),
            "one_head": by.by_one_head(p, heads[0], heads[1], heads[2], heads[3], 1e-4),
            "two_heads": by.by_two_heads(p, at_movable, at_stationary, tilt, 0.08, "groove", 1e-4),
            "level": by.by_level(p, sloping[0], sloping[1], 1e-4),
            "tape": by.by_tape(outer, inner, 0.4, 1e-4),
        }

    def after(self, shims: Any, jack_front: float, jack_back: float, slide: float, slip: Any = None) -> "Machine":
        """The feet moved as told (and `slip`, m, beside it as the bolts are drawn down).

        The rigid motion that takes them there, by the feet alone.
        """
        at = np.array([[-FEET.a_m - b, y, -FEET.height_m] for b in (0.0, FEET.b_m) for y in (FEET.width_m / 2, -FEET.width_m / 2)])

        def off(m: np.ndarray) -> np.ndarray:
            moved = Rotation.from_rotvec(m[:3]).apply(at) + m[3:] - at
            front, back = moved[:2].mean(axis=0), moved[2:].mean(axis=0)
            gone = np.zeros(3) if slip is None else slip
            return np.array(
                [*(moved[:, 2] - shims), front[1] - jack_front - gone[0], back[1] - jack_back - gone[1], front[0] - slide - gone[2]]
            )

        # Newton's steps with the slopes of no motion: small turns end in a few.
        motion, still = np.zeros(6), off(np.zeros(6))
        slopes = np.linalg.pinv(np.array([(off(1e-6 * e) - still) / 1e-6 for e in np.eye(6)]).T)
        for _ in range(6):
            motion = motion - slopes @ off(motion)
        done = Machine(self.pair, 0.0, Rotation.from_rotvec(motion[:3]) * self.turned)
        done.centre = self.centre + motion[3:]
        return done


def shaken(machine: Machine, chance: np.random.Generator) -> list[by.Equations]:
    """A straightedge and a head on this pose, each figure off by a quarter and a tenth of a millimetre (k = 1)."""

    def off(e: by.Equations, u: float) -> by.Equations:
        return replace(e, right=tuple(r + chance.normal(0, u) for r in e.right), u=(u,) * len(e.u))

    found = machine.readings()
    return [off(found["straightedge"], 2.5e-4), off(found["one_head"], 1e-4)]


@pytest.mark.parametrize("slope", [0.0, math.pi / 4, math.pi / 2])
@pytest.mark.parametrize(("degrees", "passes"), [(1.5, 1), (6.0, 3)])
def test_noise_unequal_rims_and_slipping_feet_still_end_within_tolerance(slope: float, degrees: float, passes: int) -> None:
    """Small errors in one pass, large ones in three at most, of 350 poses each.

    At least 95 % end true, by the exact pose and not by a reading.
    """
    chance, allowed, true = np.random.default_rng(20261127), tolerance("v-belt", 0.7), 0
    for _ in range(350):
        part = chance.uniform(0, 2 * math.pi)
        turn = turns_of(math.radians(degrees) * math.cos(part), math.radians(degrees) * math.sin(part), slope)
        machine = Machine(pair(slope, chance.uniform(-0.008, 0.008)), chance.uniform(-0.008, 0.008), Rotation.from_rotvec([0.0, *turn]))
        for _ in range(passes):
            errors = solve(shaken(machine, chance))
            while errors.disagree:  # a person reads again
                errors = solve(shaken(machine, chance))
            moves = moves_for(errors, FEET, slope, lambda lift: pack(lift, stock_of("metric")).thick_m)
            assert moves.shims_m and moves.jack_back_m is not None and moves.slide_m is not None
            slip = chance.normal(0, 1e-4, 3)
            machine = machine.after(np.array(moves.shims_m), 0.0, moves.jack_back_m, moves.slide_m, slip)
        angle, twist, offset = machine.truth()
        true += abs(angle) <= allowed.angle_rad and abs(twist) <= allowed.angle_rad and abs(offset) <= allowed.offset_m
    assert true >= 0.95 * 350


small = st.floats(-0.02, 0.02)


@given(st.sampled_from(SLOPES), small, small, st.floats(-0.01, 0.01))
def test_seen_from_the_other_machine_angle_and_twist_are_the_same(slope: float, angle: float, twist: float, offset: float) -> None:
    """Swap which one moves: the shafts close as before, the same sides lean apart, and the offset is what is left at the other wheel."""
    here = pair(slope)
    there = WheelPair(
        math.remainder(slope + math.pi, 2 * math.pi),
        here.centre_m,
        here.movable_radius_m,
        here.stationary_radius_m,
        here.movable_face_to_groove_m,
        here.stationary_face_to_groove_m,
    )
    other = angle * here.centre_m - offset
    one = solve([by.by_two_heads(here, offset, other, twist * 0.08, 0.08, "groove", 1e-4)])
    two = solve([by.by_two_heads(there, other, offset, twist * 0.08, 0.08, "groove", 1e-4)])
    assert (one.angle_rad, one.twist_rad) == pytest.approx((two.angle_rad, two.twist_rad), abs=1e-12)
    assert (one.offset_m, two.offset_m) == pytest.approx((offset, other), abs=1e-12)
    spots = [0.84, 0.56, 0.08, -0.08]
    faces = [0.0, 0.0, *(offset - angle * s for s in spots[2:])]
    gaps = edge_on(list(zip(spots, faces, strict=True)))
    edge, back = (solve([by.by_edge(p, g, 1e-4)]) for p, g in ((here, gaps), (there, gaps[::-1])))
    assert (edge.angle_rad, edge.offset_m) == pytest.approx((angle, offset), abs=1e-9)
    assert (back.angle_rad, back.offset_m) == pytest.approx((angle, other), abs=1e-9)


@given(small, small, st.floats(-0.01, 0.01))
def test_mirrored_machines_are_moved_the_mirrored_way(angle: float, twist: float, offset: float) -> None:
    """The other machine on the right in place of the left, the same errors: the same shims and slide, the feet pushed to the other hand."""
    mine, mirrored = (moves_for(Errors(angle, t, offset), FEET, s) for s, t in ((0.0, twist), (math.pi, -twist)))
    assert mine.shims_m == pytest.approx(mirrored.shims_m, abs=1e-12) and mine.slide_m == pytest.approx(mirrored.slide_m, abs=1e-12)
    assert mine.jack_back_m == pytest.approx(-(mirrored.jack_back_m or 0.0), abs=1e-12)
    assert mine.centre_change_m == pytest.approx(mirrored.centre_change_m, abs=1e-12)


def test_equal_offsets_on_one_half_of_each_target_leave_only_offset() -> None:
    """Two heads: a = -b, the same distance on the same half as each target is seen face-on, is pure offset; a = b is pure angle."""
    p = pair(0.0)
    level = solve([by.by_two_heads(p, 0.003, -0.003, 0.0, 0.08, "groove", 1e-4)])
    assert (level.angle_rad, level.twist_rad, level.offset_m) == pytest.approx((0.0, 0.0, 0.003))
    toed = solve([by.by_two_heads(p, 0.003, 0.003, 0.0, 0.08, "groove", 1e-4)])
    assert toed.angle_rad == pytest.approx(0.006 / 0.7)


def edge_on(spots: list[tuple[float, float]]) -> list[float]:
    """Gaps under a rigid edge laid on from +x: it rests on two of the four points, over all of them."""
    best: list[float] | None = None
    for i in range(4):
        for j in range(i + 1, 4):
            (x1, y1), (x2, y2) = spots[i], spots[j]
            gaps = [y1 + (y2 - y1) * (x - x1) / (x2 - x1) - y for x, y in spots]
            if min(gaps) > -1e-12 and (best is None or sum(gaps) < sum(best)):
                best = [max(0.0, g) for g in gaps]
    assert best is not None
    return best


def pair(slope: float, rim: float = 0.0) -> WheelPair:
    return WheelPair(slope, 0.7, 0.14, 0.08, 0.03, 0.03 + rim)


poses = st.tuples(
    st.sampled_from(SLOPES), st.floats(-0.012, 0.012), st.floats(-0.012, 0.012), st.floats(-0.008, 0.008), st.floats(-0.006, 0.006)
)


def placed(pose: tuple[float, float, float, float, float]) -> Machine:
    slope, about_y, about_z, offset, rim = pose
    return Machine(pair(slope, rim), offset, Rotation.from_rotvec([0.0, about_y, about_z]))


@given(poses)
@settings(max_examples=150)
def test_every_method_finds_the_errors_of_the_pose_it_can_see(pose: tuple[float, float, float, float, float]) -> None:
    machine = placed(pose)
    angle, twist, offset = machine.truth()
    for name, equations in machine.readings().items():
        found = solve([equations])
        seen = {"straightedge": (1, 0, 1), "clock": (0, 1, 1), "one_head": (1, 1, 1), "two_heads": (1, 1, 1), "tape": (1, 0, 0)}.get(name)
        for value, truth, sees, near in zip(
            (found.angle_rad, found.twist_rad, found.offset_m),
            (angle, twist, offset),
            seen or (None,) * 3,
            (3e-4, 3e-4, 1.5e-4),
            strict=True,
        ):
            if sees:
                assert value is not None and value == pytest.approx(truth, abs=near), name
            elif sees == 0:
                assert value is None, name
    level = solve([machine.readings()["level"]])
    known = {0.0: level.twist_rad, math.pi / 2: level.angle_rad, math.pi: level.twist_rad}.get(pose[0])
    if known is not None:
        assert known == pytest.approx(twist if pose[0] != math.pi / 2 else angle, abs=2e-4)
    else:
        assert level.angle_rad is None and level.twist_rad is None
        together = solve([machine.readings()["level"], machine.readings()["straightedge"]])
        assert together.twist_rad == pytest.approx(twist, abs=4e-4), "with the angle known, the level says the twist"


@given(poses, st.booleans())
@settings(max_examples=150)
def test_readings_to_moves_to_true_in_one_pass(pose: tuple[float, float, float, float, float], shimmed: bool) -> None:
    machine = placed(pose)
    moves = moves_for(solve([machine.readings()["one_head"]]), FEET, pose[0], shims_now_m=(0.004,) * 4 if shimmed else ())
    assert moves.shims_m is not None and moves.jack_back_m is not None and moves.slide_m is not None and moves.centre_change_m is not None
    moved_ends = {i // 2 for i, s in enumerate(moves.shims_m) if s}
    assert len(moved_ends) <= 1, "shims at one end only"
    assert all(0.004 * shimmed + s >= 0 for s in moves.shims_m), "no shim is taken out that is not there"
    done = machine.after(np.array(moves.shims_m), moves.jack_front_m or 0.0, moves.jack_back_m, moves.slide_m)
    angle, twist, offset = done.truth()
    assert abs(angle) < 3e-4 and abs(twist) < 3e-4 and abs(offset) < 3e-4
    u, _ = along(pose[0])
    assert float((machine.centre - done.centre) @ u) == pytest.approx(moves.centre_change_m, abs=3e-4)


def test_signs_mirror_and_stock() -> None:
    """Mirrored in the plane of x and z, what swung left swings right; what was high stays high."""
    errors = Errors(0.01, 0.006, 0.002)
    plain, mirrored = moves_for(errors, FEET, 0.0), moves_for(replace(errors, angle_rad=0.01), FEET, math.pi)
    assert plain.jack_back_m == pytest.approx(-(mirrored.jack_back_m or 0.0))
    assert turns_of(0.01, 0.006, 0.0) == pytest.approx((0.006, 0.01)) and turns_of(0.01, 0.006, math.pi / 2) == pytest.approx(
        (-0.01, 0.006)
    )
    upright = moves_for(errors, FEET, math.pi / 2)
    assert upright.shims_m and upright.shims_m[2] == pytest.approx(0.01 * FEET.b_m), "upright, the angle is cured by shims"
    stock = moves_for(errors, FEET, 0.0, build=in_steps(0.0005))
    assert stock.shims_m and stock.shims_m[0] == pytest.approx(0.0015)
    assert moves_for(Errors(angle_rad=0.01), FEET, 0.0).shims_m is None and moves_for(Errors(angle_rad=0.01), FEET, 0.0).jack_back_m
    assert moves_for(Errors(angle_rad=0.01), FEET, 0.7).jack_back_m is None, "askew, both are wanted before anything moves"


def test_a_thread_that_may_bend_gives_no_angle_and_says_what_to_read() -> None:
    p = pair(0.0)
    bent = solve([by.by_string(p, [0, 0.002, 0, 0], 1e-4)])
    assert bent.angle_rad is None and bent.offset_m is None and "straightedge" in bent.instead[0]
    straight = solve([by.by_string(p, [0, 0.001, 0.0012, 0], 1e-4)])
    assert straight.angle_rad == pytest.approx(0.0012 / 0.16 + 0.001 / 0.28)


def test_doubt_is_propagated_from_the_readings_alone() -> None:
    """Two points a rim apart: sqrt(2) u / 2R; the same read twice halves the variance."""
    p = pair(0.0)
    once = by.by_clock(p, 0.001, -0.001, 2e-4)
    assert solve([once]).twist_u_rad == pytest.approx(math.sqrt(2) * 2e-4 / 0.16)
    assert solve([once, once]).twist_u_rad == pytest.approx(2e-4 / 0.16)
    both = solve([once, by.by_tape(0.7, 0.7006, 0.4, 5e-4)])
    assert both.angle_rad == pytest.approx(0.0015) and both.offset_m == pytest.approx(0.0)
