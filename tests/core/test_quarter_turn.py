"""A belt between shafts at right angles, against three-dimensional vectors and the handbooks' approximation."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq

from tuyere.core.mechanics.on_wheels.one_belt import solve_belt
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Lay, PathWheel
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.quarter_turn import quarter_turn

radii = st.floats(0.03, 0.4)


@given(radii, radii, st.floats(1.2, 8))
def test_the_belt_lies_in_each_wheels_plane_where_it_arrives(a: float, b: float, ratio: float) -> None:
    """Law of belting, checked in space: wheel A in the plane y = 0, wheel B in x = 0 at its offset; tangents found by root search."""
    centre = ratio * (a + b)
    turn = quarter_turn(a, b, centre)
    on_a = lambda t: np.array([a + a * math.cos(t), 0.0, a * math.sin(t)])  # noqa: E731
    on_b = lambda t: np.array([0.0, b + b * math.cos(t), centre + b * math.sin(t)])  # noqa: E731
    leaves_a, leaves_b = on_a(math.pi), on_b(math.pi)
    assert leaves_a == pytest.approx(np.zeros(3), abs=1e-12), "A's leaving point lies in B's plane, on the line where the planes meet"

    def arrival(start: np.ndarray, wheel, low: float, high: float) -> np.ndarray:  # type: ignore[no-untyped-def]
        def off(t: float) -> float:
            along = (wheel(t + 1e-7) - wheel(t - 1e-7)) / 2e-7
            to = wheel(t) - start
            return float(np.linalg.norm(np.cross(along, to)) * np.sign(np.dot(np.cross(along, to), np.ones(3))))

        return wheel(brentq(off, low, high, xtol=1e-13))

    half_a, half_b = 2 * math.atan(a / centre), 2 * math.atan(b / centre)
    meets_b = arrival(leaves_a, on_b, -half_b - 0.2, -half_b + 0.2)
    meets_a = arrival(leaves_b, on_a, half_a - 0.2, half_a + 0.2)
    runs = np.linalg.norm(meets_b - leaves_a), np.linalg.norm(meets_a - leaves_b)
    assert runs == pytest.approx((turn.run_m, turn.run_m), rel=1e-6)
    assert turn.length_m == pytest.approx(sum(runs) + a * (math.pi + half_a) + b * (math.pi + half_b), rel=1e-6)
    assert (turn.driven_offset_m, turn.driver_offset_m) == (a, b)


@given(radii, radii, st.floats(6, 20))
def test_the_handbooks_length_agrees_to_second_order(a: float, b: float, ratio: float) -> None:
    """L = pi/2 (D + d) + sqrt(C^2 + D^2) + sqrt(C^2 + d^2) (handbooks, from memory)."""
    centre = ratio * (a + b)
    handbook = math.pi * (a + b) + math.hypot(centre, 2 * a) + math.hypot(centre, 2 * b)
    assert quarter_turn(a, b, centre).length_m == pytest.approx(handbook, abs=4 * (max(a, b) / centre) ** 3 * centre)


def test_wheels_that_touch_are_refused_and_the_offset_is_said() -> None:
    with pytest.raises(GeometryError, match="too near"):
        quarter_turn(0.2, 0.2, 0.4)
    pair = (PathWheel("line shaft", "driver", 0, 0, 0.15, 0.15, face="flat"), PathWheel("hoist", "driven", 1.0, 0, 0.1, 0.1, face="flat"))
    found = solve_belt(BeltOnWheels(pair, Lay.QUARTER))
    assert found.length_m == pytest.approx(quarter_turn(0.15, 0.1, 1.0).length_m)
    heads = [v.headline for v in found.verdicts if v.topic == "path"]
    assert heads[0].startswith("Set hoist off line shaft's shaft by 5 29/32 in") and "near each other" in heads[1]
    assert (found.path.pulleys[1].x_m, found.path.pulleys[1].y_m) == pytest.approx((1.0, -0.15)) if found.path else False
