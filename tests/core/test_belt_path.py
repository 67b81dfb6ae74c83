"""A belt round many wheels: against an independent construction, equilibrium, gradients, take-up, refusals; and the tape net."""

import math
from collections.abc import Sequence

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.geometry import MultiPoint, Point

from tests.conftest import examples
from tuyere.core.mechanics.belt_path import (
    BeltPath,
    Pulley,
    about_pivot,
    along_line,
    belt_path,
    clashes,
    length_gradient,
    moved,
    pull,
    take_up_for,
)
from tuyere.core.mechanics.open_belt import GeometryError, belt_length
from tuyere.core.mechanics.tape_net import Tape, both_sides, settle, solve_net


def tangent_points(a: Pulley, b: Pulley) -> tuple[np.ndarray, np.ndarray]:
    """Independent construction, after Euclid: shrink one circle to a point, draw the tangent from it by Thales' circle, shift it back.

    Of the two tangents the one is taken whose travel turns each wheel the right way (cross product of radius and travel).
    """
    ca, cb = np.array([a.x_m, a.y_m]), np.array([b.x_m, b.y_m])
    inner = a.turns != b.turns
    reduced = a.radius_m + b.radius_m if inner else abs(b.radius_m - a.radius_m)
    base, tip = (ca, cb) if inner or a.radius_m >= b.radius_m else (cb, ca)
    gap = tip - base
    distance = math.hypot(*gap)
    if reduced < 1e-15:
        touch = [base + gap * 0.0]
        normals = [np.array([-gap[1], gap[0]]) / distance * k for k in (1, -1)]
    else:
        along, up = reduced**2 / distance, reduced * math.sqrt(max(0.0, 1 - (reduced / distance) ** 2))
        unit, side = gap / distance, np.array([-gap[1], gap[0]]) / distance
        touch = [base + along * unit + k * up * side for k in (1, -1)]
        normals = [(t - base) / reduced for t in touch]
    for normal in normals:
        pa = ca + normal * a.radius_m
        pb = cb + normal * b.radius_m * (-1 if inner else 1)
        travel = pb - pa
        cross_a = (pa - ca)[0] * travel[1] - (pa - ca)[1] * travel[0]
        cross_b = (pb - cb)[0] * travel[1] - (pb - cb)[1] * travel[0]
        if cross_a * a.turns > 0 and cross_b * b.turns > 0:
            return pa, pb
    raise AssertionError("no tangent")


def independent_length(wheels: Sequence[Pulley]) -> float:
    """Tangents by the construction above, arcs by the angle between the contact points, walked the way the wheel turns."""
    total, ends = 0.0, [tangent_points(a, b) for a, b in zip(wheels, [*wheels[1:], wheels[0]], strict=True)]
    for i, wheel in enumerate(wheels):
        arrive, leave = ends[i - 1][1], ends[i][0]
        centre = np.array([wheel.x_m, wheel.y_m])
        a0, a1 = (math.atan2(*(p - centre)[::-1]) for p in (arrive, leave))
        total += wheel.radius_m * ((wheel.turns * (a1 - a0)) % (2 * math.pi))
        total += float(np.linalg.norm(ends[i][1] - ends[i][0]))
    return total


@st.composite
def layouts(draw: st.DrawFn) -> list[Pulley]:
    """Inside wheels round a ring, with backside wheels pressed in between some of them: random, nearly always possible."""
    count = draw(st.integers(2, 7))
    ring = draw(st.floats(0.3, 1.5))
    turns = draw(st.sampled_from([1, -1]))
    wheels: list[Pulley] = []
    for k in range(count):
        angle = turns * (2 * math.pi * k / count + draw(st.floats(-0.2, 0.2)))
        reach = ring * draw(st.floats(0.8, 1.2))
        radius = draw(st.floats(0.02, 0.12))
        wheels.append(Pulley(reach * math.cos(angle), reach * math.sin(angle), radius, turns, f"wheel {k + 1}"))
    out: list[Pulley] = []
    for k, a in enumerate(wheels):
        out.append(a)
        b = wheels[(k + 1) % count]
        if count > 2 and draw(st.booleans()):
            share, radius, press = draw(st.floats(0.35, 0.65)), draw(st.floats(0.015, 0.05)), draw(st.floats(0.0, 0.06))
            px, py = a.x_m + share * (b.x_m - a.x_m), a.y_m + share * (b.y_m - a.y_m)
            away = math.hypot(px, py) or 1.0
            inwards = a.radius_m * (1 - share) + b.radius_m * share + radius - press - 0.01
            out.append(Pulley(px + px / away * inwards, py + py / away * inwards, radius, -turns, f"idler {k + 1}"))
    return out


def solved(wheels: Sequence[Pulley]) -> BeltPath:
    try:
        return belt_path(wheels)
    except GeometryError:
        assume(False)
        raise


@examples(150)
@given(layouts())
def test_length_agrees_with_the_construction(wheels: list[Pulley]) -> None:
    path = solved(wheels)
    assert path.length_m == pytest.approx(independent_length(wheels), abs=1e-6)
    assert path.turning_rad == pytest.approx(2 * math.pi * wheels[0].turns)


@examples(10)
@given(layouts())
def test_a_loop_of_inside_wheels_is_the_hull_of_their_discs(wheels: list[Pulley]) -> None:
    """Where the belt touches no back and every wheel lies on the outside, Shapely's convex hull of the discs has its length."""
    inside = [w for w in wheels if w.turns == wheels[0].turns]
    path = solved(inside)
    discs = [Point(w.x_m, w.y_m).buffer(w.radius_m, quad_segs=1024) for w in inside]
    hull = MultiPoint([c for d in discs for c in d.exterior.coords]).convex_hull
    assert path.length_m == pytest.approx(hull.length, abs=2e-6)


@given(layouts(), st.floats(10, 2000))
def test_equal_tension_balances_on_every_wheel(wheels: list[Pulley], tension: float) -> None:
    """Statics: equal strands pull with 2 T sin(wrap/2) along the bisector, turn nothing, and over the loop add up to nothing."""
    path = solved(wheels)
    total = np.zeros(2)
    for i, wheel in enumerate(wheels):
        fx, fy = pull(path, i, tension, tension)
        total += (fx, fy)
        assert math.hypot(fx, fy) == pytest.approx(abs(2 * tension * math.sin(path.wraps_rad[i] / 2)), abs=1e-6 * tension)
        arrive, leave = path.runs[i - 1], path.runs[i]
        arms = [
            (x - wheel.x_m) * math.sin(run.direction_rad) - (y - wheel.y_m) * math.cos(run.direction_rad)
            for run, x, y in ((arrive, arrive.x2_m, arrive.y2_m), (leave, leave.x1_m, leave.y1_m))
        ]
        assert arms == pytest.approx([wheel.turns * wheel.radius_m] * 2, abs=1e-9)
    assert total == pytest.approx([0, 0], abs=1e-9 * tension)


@given(layouts(), st.data())
def test_the_length_gradient_is_the_difference_quotient(wheels: list[Pulley], data: st.DataObject) -> None:
    path = solved(wheels)
    i, angle = data.draw(st.integers(0, len(wheels) - 1)), data.draw(st.floats(0, 6.28))
    step = 1e-6
    try:
        ahead, behind = (
            belt_path(moved(wheels, i, (wheels[i].x_m + k * step * math.cos(angle), wheels[i].y_m + k * step * math.sin(angle)))).length_m
            for k in (1, -1)
        )
    except GeometryError:
        assume(False)
        raise
    gx, gy = length_gradient(path, i)
    assert (ahead - behind) / (2 * step) == pytest.approx(gx * math.cos(angle) + gy * math.sin(angle), abs=1e-5)


@given(st.floats(0.03, 0.3), st.floats(0.03, 0.3), st.floats(0.65, 3))
def test_two_wheels_are_the_open_belt_and_crossed_the_textbook_one(d: float, big: float, centres: float) -> None:
    """Crossed belt: L = sqrt(4C^2 - (D+d)^2) + theta (D+d)/2 with theta = pi + 2 asin((D+d)/2C) (Machinery's Handbook, from memory)."""
    open_one = belt_path([Pulley(0, 0, d / 2, 1), Pulley(centres, 0, big / 2, 1)])
    assert open_one.length_m == pytest.approx(belt_length(d, big, centres), abs=1e-12)
    crossed = belt_path([Pulley(0, 0, d / 2, 1), Pulley(centres, 0, big / 2, -1)], crossed=True)
    theta = math.pi + 2 * math.asin((big + d) / (2 * centres))
    assert crossed.length_m == pytest.approx(math.sqrt(4 * centres**2 - (big + d) ** 2) + theta * (big + d) / 2)


ENGINE, SPINDLE = Pulley(0, 0, 0.1, 1, "engine"), Pulley(1, 0, 0.15, 1, "spindle")


@pytest.mark.parametrize(
    ("wheels", "says"),
    [
        ([ENGINE], "two wheels"),
        ([ENGINE, Pulley(0.02, 0, 0.3, 1, "spindle")], "one inside the other"),
        ([ENGINE, SPINDLE, Pulley(0.5, 0.25, 0.05, -1, "idler")], "does not reach idler"),
        ([ENGINE, SPINDLE, Pulley(0.5, 0.05, 0.05, 1, "idler")], "does not reach idler"),
        ([ENGINE, SPINDLE, Pulley(0.95, 0.1, 0.05, -1, "idler")], "overlap"),
        ([ENGINE, Pulley(1, 0, 0, 1)], "above zero"),
    ],
)
def test_impossible_layouts_are_refused_with_the_reason(wheels: list[Pulley], says: str) -> None:
    with pytest.raises(GeometryError, match=says):
        belt_path(wheels)


def test_wrong_orders_are_seen() -> None:
    square = [Pulley(0, 0, 0.05, 1, "a"), Pulley(1, 0, 0.05, 1, "b"), Pulley(1, 1, 0.05, 1, "c"), Pulley(0, 1, 0.05, 1, "d")]
    assert clashes(belt_path(square), [0.05] * 4) == ()
    through = [
        Pulley(0, 0, 0.1, 1, "a"),
        Pulley(1, 0, 0.1, 1, "b"),
        Pulley(0.5, 0.2, 0.04, -1, "idler"),
        Pulley(0.5, -0.05, 0.02, 1, "keeper wheel"),
    ]
    with pytest.raises(GeometryError):
        belt_path([square[0], square[2], square[1], square[3]])
    assert {c.kind for c in clashes(belt_path(through), [w.radius_m for w in through])} >= {"crossing"}
    low = [Pulley(0, 0, 0.1, 1, "a"), Pulley(1, 0, 0.1, 1, "b"), Pulley(0.5, 0.05, 0.09, -1, "idler")]
    found = clashes(belt_path(low), [0.1, 0.1, 0.2])
    assert [c.kind for c in found] == ["through a wheel"] and found[0].wheel == 2


@given(st.floats(0.02, 0.2))
def test_take_up_finds_its_place_again(travel: float) -> None:
    wheels = [ENGINE, SPINDLE, Pulley(0.5, 0.16, 0.05, -1, "idler")]
    slide = along_line(0.5, 0.16, -math.pi / 2)
    length = belt_path(moved(wheels, 2, slide(travel))).length_m
    assert take_up_for(wheels, 2, slide, length, 0.0, 0.25) == pytest.approx(travel, abs=1e-9)
    arm = about_pivot(0.5, 0.16, 0.8, 0.3)
    swing = travel / 2
    length = belt_path(moved(wheels, 2, arm(swing))).length_m
    assert take_up_for(wheels, 2, arm, length, 0.0, 0.3) == pytest.approx(swing, abs=1e-9)
    for wrong, says in ((length + 1, "too long"), (length - 1, "too short")):
        with pytest.raises(GeometryError, match=says):
            take_up_for(wheels, 2, slide, wrong, 0.0, 0.25)


@st.composite
def places(draw: st.DrawFn) -> list[tuple[float, float]]:
    points = [(0.0, 0.0), (draw(st.floats(0.5, 2)), 0.0)]
    for _ in range(draw(st.integers(1, 5))):
        points.append((draw(st.floats(-1, 2)), draw(st.floats(0.2, 2))))
    assume(min(math.dist(p, q) for i, p in enumerate(points) for q in points[:i]) > 0.1)
    return points


@given(places(), st.booleans())
def test_a_net_of_exact_tapes_finds_the_centres(points: list[tuple[float, float]], mirrored: bool) -> None:
    """All distances from the first two wheels and one between the others: the places come back, or their mirror image."""
    tapes = [Tape(i, j, math.dist(points[i], points[j])) for j in range(1, len(points)) for i in range(min(j, 3))]
    net = solve_net(len(points), tapes, mirrored)
    flip = -1 if mirrored else 1
    assert np.array(net.centres) == pytest.approx(np.array([(x, flip * y) for x, y in points]), abs=1e-6)
    assert net.worst_sigmas < 0.01


def test_too_many_tapes_leave_a_residual_and_too_few_are_named() -> None:
    tapes = [Tape(0, 1, 1.0), Tape(0, 2, 1.0), Tape(1, 2, 1.0), Tape(0, 3, 1.732), Tape(1, 3, 1.0), Tape(2, 3, 1.012)]
    net = solve_net(4, tapes)
    assert net.over_determined and 1 < net.worst_sigmas < 12 and max(map(abs, net.residuals_m)) < 0.012
    with pytest.raises(GeometryError, match="Wheel 4 hangs loose"):
        solve_net(4, tapes[:4])
    with pytest.raises(GeometryError, match="cannot close"):
        solve_net(3, [Tape(0, 1, 1.0), Tape(0, 2, 0.2), Tape(1, 2, 0.3)])
    with pytest.raises(GeometryError, match="wheel 1 to wheel 2"):
        solve_net(3, tapes[1:3])


@given(st.floats(0.3, 0.9), st.floats(-0.5, 0.5), st.floats(0.4, 0.8))
def test_a_wheel_that_is_dragged_keeps_its_taped_distance(x: float, y: float, reach: float) -> None:
    """Three wheels, one tape between the first and the dragged one: it stays on its circle, nearest to the hand; the others stay put."""
    sketch = [(0.0, 0.0), (1.0, 0.0), (x, y)]
    net = settle(sketch, [Tape(0, 1, 1.0), Tape(0, 2, reach)])
    assert math.dist(net.centres[0], net.centres[2]) == pytest.approx(reach, abs=1e-7)
    assert math.dist(net.centres[0], net.centres[1]) == pytest.approx(1.0, abs=1e-7)
    assert not net.over_determined
    turned = math.atan2(net.centres[2][1] - net.centres[0][1], net.centres[2][0] - net.centres[0][0])
    assert abs(turned - math.atan2(y, x)) < 0.75 * math.atan2(0.5, 0.3)
    left, right = both_sides(net.centres[0], reach, net.centres[1], math.dist(net.centres[1], net.centres[2]))
    assert min(math.dist(left, net.centres[2]), math.dist(right, net.centres[2])) < 1e-6


def test_the_sketch_says_which_mirror_image_and_a_spare_tape_is_checked() -> None:
    tapes = [Tape(0, 1, 1.0), Tape(0, 2, 0.8), Tape(1, 2, 0.7)]
    above, below = (settle([(0, 0), (1, 0), (0.5, side)], tapes).centres[2][1] for side in (0.2, -0.2))
    assert above == pytest.approx(-below, abs=1e-6) and above > 0.4
    square = settle(
        [(0, 0), (1, 0), (1, 1), (0, 1)], [Tape(0, 1, 1), Tape(1, 2, 1), Tape(2, 3, 1), Tape(3, 0, 1), Tape(0, 2, 1.5), Tape(1, 3, 1.5)]
    )
    assert square.over_determined and square.worst_sigmas > 3
