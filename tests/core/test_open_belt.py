"""Invariants of the open-belt path."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tuyere.core.mechanics.open_belt import GeometryError, belt_length, centre_distance, open_path, span_length, wraps

diameters = st.floats(0.03, 2.0)
centres = st.floats(0.05, 8.0)


@given(diameters, diameters, centres)
def test_centre_distance_inverts_belt_length(d: float, big: float, c: float) -> None:
    assume(c > (d + big) / 2)
    assert centre_distance(d, big, belt_length(d, big, c)) == pytest.approx(c, abs=1e-9)


@given(diameters, diameters, centres)
def test_wraps_make_a_whole_turn_and_swap_with_the_wheels(d: float, big: float, c: float) -> None:
    assume(c > (big + d) / 2 * 1.001)
    driver, driven = wraps(d, big, c)
    assert driver + driven == pytest.approx(2 * math.pi)
    assert wraps(big, d, c) == pytest.approx((driven, driver))


@given(diameters, diameters, centres, st.floats(0, 2 * math.pi))
def test_spans_touch_both_wheels_square_to_the_radius(d: float, big: float, c: float, turn: float) -> None:
    assume(c > (big + d) / 2 * 1.001)
    path = open_path(d, big, c, turn)
    for span in (path.upper, path.lower):
        along = (span.x2_m - span.x1_m, span.y2_m - span.y1_m)
        assert math.hypot(*along) == pytest.approx(span_length(d, big, c), rel=1e-6)
        for wheel, x, y in ((path.wheels[0], span.x1_m, span.y1_m), (path.wheels[1], span.x2_m, span.y2_m)):
            radius = (x - wheel.x_m, y - wheel.y_m)
            assert math.hypot(*radius) == pytest.approx(wheel.radius_m)
            assert radius[0] * along[0] + radius[1] * along[1] == pytest.approx(0, abs=1e-8)


def test_impossible_layouts_are_refused() -> None:
    with pytest.raises(GeometryError, match="too short"):
        centre_distance(0.2, 0.4, 0.5)
    with pytest.raises(GeometryError, match="would overlap"):
        span_length(0.1, 0.9, 0.5)
    with pytest.raises(GeometryError, match="above zero"):
        belt_length(0.0, 0.4, 1.0)
