"""Sprockets, chain lengths and wear against ISO 606, ASME B29.1, Machinery's Handbook and Shigley (figures from memory)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq
from shapely import LineString, Point
from shapely.affinity import rotate

from tuyere.core.kinds.roller_chain import (
    ChainError,
    caliper_diameter,
    centre_distance,
    chain,
    chains,
    elongation,
    elongation_limit,
    length_in_pitches,
    outside_diameter,
    parse_mark,
    pitch_diameter,
    pitch_from_caliper,
    sprocket,
    tooth_outline,
)
from tuyere.core.mechanics.belt_path import Pulley, belt_path
from tuyere.core.mechanics.open_belt import GeometryError


def test_unit_pitch_diameters() -> None:
    """Machinery's Handbook / ASME B29.1 table, pitch 1."""
    wanted = {
        9: 2.9238,
        10: 3.2361,
        11: 3.5495,
        13: 4.1786,
        15: 4.8097,
        17: 5.4422,
        19: 6.0755,
        21: 6.7095,
        25: 7.9787,
        30: 9.5668,
        40: 12.7455,
        60: 19.1073,
    }
    assert {n: pitch_diameter(1, n) for n in wanted} == pytest.approx(wanted, rel=5e-5)
    assert [outside_diameter(1, n) for n in (9, 17, 25)] == pytest.approx([3.348, 5.949, 8.516], rel=5e-4)


def test_pitch_diameters_of_08b() -> None:
    """ISO 606 / DIN 8196 table for 1/2 in pitch, mm."""
    wanted = {17: 69.11, 19: 77.16, 21: 85.21, 23: 93.27, 25: 101.33, 38: 153.79, 57: 230.53, 76: 307.32, 95: 384.11, 114: 460.9}
    assert {n: pitch_diameter(12.7, n) for n in wanted} == pytest.approx(wanted, rel=2e-4)


def test_unit_caliper_factors_of_odd_sprockets() -> None:
    """Machinery's Handbook / ASME B29.1: caliper diameter plus roller, pitch 1."""
    wanted = {9: 2.8794, 11: 3.5133, 13: 4.1481, 15: 4.7834, 17: 5.419}
    assert {n: caliper_diameter(1, n, 0.0) for n in wanted} == pytest.approx(wanted, rel=5e-5)


@given(st.integers(9, 120), st.floats(0.006, 0.08), st.floats(0.4, 0.65))
def test_the_pitch_comes_back_from_the_callipers(teeth: int, pitch: float, roller: float) -> None:
    assert pitch_from_caliper(caliper_diameter(pitch, teeth, roller * pitch), teeth, roller * pitch) == pytest.approx(pitch)


def test_length_and_centres_of_the_textbook_drive() -> None:
    """Shigley, Example 17-5: 17/34 teeth at 25 pitches want 75.79 (approximate form); 76 pitches stand at 25.104, on No. 140 43.93 in."""
    assert length_in_pitches(17, 34, 25) == pytest.approx(75.79, abs=0.01)
    assert centre_distance(17, 34, 76) == pytest.approx(25.104, rel=2e-4)
    assert centre_distance(17, 34, 76) * 1.75 == pytest.approx(43.93, rel=5e-4)


def iso_centres(z1: int, z2: int, pitches: int) -> float:
    """ISO 606's exact form.

    Inv a = pi [(X - z1)/(z2 - z1) - 1], C = (z2 - z1) / (2 pi cos a), with 2 pi C cos a on pitch circles as arcs.
    """
    wanted = math.pi * ((pitches - z1) / (z2 - z1) - 1)
    a = brentq(lambda x: math.tan(x) - x - wanted, 1e-9, math.pi / 2 - 1e-9, xtol=1e-14)
    return (z2 - z1) / (2 * math.pi * math.cos(a))


@given(st.integers(11, 40), st.integers(1, 80), st.integers(10, 60))
def test_centres_agree_with_iso_606(z1: int, more: int, span: int) -> None:
    """ISO 606 takes the pitch circles' arcs as z pitches long, this one the circles themselves: under 0.3 % apart on usual drives."""
    z2 = z1 + more
    pitches = 2 * math.ceil((z2 / 2 + z1 / 2 + 2 * (z2 / 3 + span)) / 2)
    assert centre_distance(z1, z2, pitches) == pytest.approx(iso_centres(z1, z2, pitches), rel=3e-3)


@given(st.integers(9, 60), st.integers(9, 120), st.floats(1.1, 4))
def test_length_is_the_path_round_the_pitch_circles_with_arcs_in_pitches(n1: int, n2: int, ratio: float) -> None:
    """An independent path: the belt solver's runs and wraps, arcs counted as teeth in mesh (wrap N / 2 pi)."""
    r1, r2 = pitch_diameter(1, n1) / 2, pitch_diameter(1, n2) / 2
    centres = ratio * (r1 + r2) + 1
    path = belt_path([Pulley(0, 0, r1, 1), Pulley(centres, 0, r2, 1)])
    counted = sum(r.length_m for r in path.runs) + sum(w * n / (2 * math.pi) for w, n in zip(path.wraps_rad, (n1, n2), strict=True))
    assert length_in_pitches(n1, n2, centres) == pytest.approx(counted, abs=1e-9)


def test_a_chain_too_short_is_refused() -> None:
    with pytest.raises(GeometryError, match="too short"):
        centre_distance(30, 30, 40)


def test_wear_limits() -> None:
    """American Chain Association: 24 pitches of No. 40 at 3 % read 12.36 in (12 3/8 quoted); large sprockets 200/N %."""
    assert elongation(12.36 * 0.0254, 24, 0.0127) == pytest.approx(0.03, abs=5e-5)
    assert [100 * elongation_limit(n) for n in (40, 67, 100, 120)] == pytest.approx([3, 2.99, 2.0, 1.67], rel=3e-3)
    assert elongation_limit(40, fixed_centres=True) == 0.015 and elongation_limit(160, fixed_centres=True) == pytest.approx(0.0125)


def test_sizes_of_the_usual_chains() -> None:
    """ASME B29.1 and ISO 606 (mm): pitch, roller, width between inner plates."""
    for name, sizes in {
        "40": (12.7, 7.92, 7.94),
        "41": (12.7, 7.77, 6.35),
        "08B": (12.7, 8.51, 7.75),
        "12B": (19.05, 12.07, 11.68),
    }.items():
        c = chain(name)
        assert (c.pitch_m * 1e3, (c.roller_m or 0) * 1e3, (c.inner_width_m or 0) * 1e3) == pytest.approx(sizes, abs=0.02)
    assert sprocket(chain("60"), 17).tooth_width_m == pytest.approx((0.93 * 0.5 - 0.006) * 0.0254)
    assert len(chains()) >= 60


def test_marks_in_both_systems() -> None:
    assert [(parse_mark(m)[0].name, parse_mark(m)[1]) for m in ("60-2", "08b-1", "12A", "X348", "x-458")] == [
        ("60", 2),
        ("08B", 1),
        ("60", 1),
        ("X-348", 1),
        ("X-458", 1),
    ]
    with pytest.raises(ChainError, match="not a chain known here"):
        parse_mark("banana")


@given(st.integers(9, 60), st.sampled_from(["40", "60", "08B", "16B", "100"]))
def test_a_roller_seats_in_the_drawn_tooth(teeth: int, name: str) -> None:
    """Shapely.

    The roller on the pitch circle lies in the drawn space, touching its bottom, and never in the steel; tips stay under the tip circle.
    """
    c = chain(name)
    assert c.roller_m
    outline = tooth_outline(c.pitch_m, c.roller_m, teeth)
    space = LineString(outline)
    roller = Point(0, pitch_diameter(c.pitch_m, teeth) / 2).buffer(c.roller_m / 2, 64)
    assert space.distance(Point(0, 0)) == pytest.approx(sprocket(c, teeth).bottom_m / 2, rel=0.02)
    assert space.intersection(roller).length < 0.05 * c.roller_m
    assert max(math.hypot(x, y) for x, y in outline) <= outside_diameter(c.pitch_m, teeth) / 2 + 1e-9
    turned = rotate(space, -360 / teeth, origin=(0, 0))
    assert space.distance(turned) < 1e-6 * c.pitch_m + 1e-9, "one tooth ends where the next begins"
