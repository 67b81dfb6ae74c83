"""Belt length against an independent numerical path and published examples."""

import numpy as np
import pytest
from shapely import LineString, MultiPoint, Point

from tuyere.core.mechanics.open_belt import approximate_belt_length, belt_length, centre_distance, open_path, wraps

IN = 0.0254


@pytest.mark.parametrize(("d", "big", "c"), [(0.1, 0.1, 0.5), (0.137, 0.315, 0.711), (0.3, 0.08, 0.4), (0.05, 1.2, 0.9)])
def test_against_the_hull_of_two_circles(d: float, big: float, c: float) -> None:
    """The taut belt is the convex hull of both wheels: Shapely's hull of 64 000 points on each, no formula of ours."""
    wheels = [Point(0, 0).buffer(d / 2, quad_segs=16_000), Point(c, 0).buffer(big / 2, quad_segs=16_000)]
    hull = MultiPoint([p for w in wheels for p in w.exterior.coords]).convex_hull
    assert belt_length(d, big, c) == pytest.approx(hull.exterior.length, abs=1e-7)


def test_against_a_summed_polyline_of_the_drawn_path() -> None:
    path = open_path(0.15, 0.35, 0.8, 0.4)
    points: list[tuple[float, float]] = [(path.upper.x2_m, path.upper.y2_m), (path.upper.x1_m, path.upper.y1_m)]
    for wheel, start, end in (
        (path.wheels[0], path.upper_normal_rad, path.lower_normal_rad),
        (path.wheels[1], path.lower_normal_rad, path.upper_normal_rad),
    ):
        sweep = (end - start) % (2 * np.pi)
        points += [
            (wheel.x_m + wheel.radius_m * np.cos(a), wheel.y_m + wheel.radius_m * np.sin(a)) for a in start + np.linspace(0, sweep, 40_000)
        ]
    assert LineString([*points, points[0]]).length == pytest.approx(belt_length(0.15, 0.35, 0.8), abs=1e-7)


def test_shigley_example_17_4() -> None:
    """Shigley, Mechanical Engineering Design, Example 17-4 (from memory): B112 (L_p 113.8 in) on 7.4 and 11 in, C = 42.4 in, phi = 3.057."""
    c = centre_distance(7.4 * IN, 11 * IN, 113.8 * IN)
    assert c / IN == pytest.approx(42.4, abs=0.05)
    assert wraps(7.4 * IN, 11 * IN, c)[0] == pytest.approx(3.057, abs=0.0005)


def test_mott_example_7_1() -> None:
    """Mott, Machine Elements in Mechanical Design, Example 7-1 (from memory).

    12.4 and 21.1 in, C 24.0 in wants 101.4 in; 100 in gives C 23.30, wrap 158 deg.
    """
    assert belt_length(12.4 * IN, 21.1 * IN, 24.0 * IN) / IN == pytest.approx(101.4, abs=0.06)
    c = centre_distance(12.4 * IN, 21.1 * IN, 100.0 * IN)
    assert c / IN == pytest.approx(23.30, abs=0.02)
    assert np.degrees(wraps(12.4 * IN, 21.1 * IN, c)[0]) == pytest.approx(158, abs=0.6)


def test_the_textbook_series_is_close_where_it_should_be() -> None:
    """Machinery's Handbook and others: 2C + pi(D+d)/2 + (D-d)^2/4C; its error grows with ((D-d)/C)^4."""
    for ratio, bound in ((0.2, 1e-5), (0.6, 3e-4), (1.0, 3e-3)):
        exact, series = belt_length(0.2, 0.2 + ratio, 1.0), approximate_belt_length(0.2, 0.2 + ratio, 1.0)
        assert abs(series - exact) / exact < bound
