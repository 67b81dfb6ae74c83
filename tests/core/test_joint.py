"""Joining flat belts: cut length against the geometry summed by hand, laps, holes and fasteners against the handbooks named."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point

from tests.conftest import examples
from tuyere.core.kinds.flat.joint import IN, JOINTS, cut, holes, lap_of, size_of, suits, take_off

MATERIALS = ("leather", "rubber-canvas", "polyamide core", "balata-canvas")


def test_the_middle_of_a_belt_is_half_a_thickness_out_of_the_tape() -> None:
    """Against shapes: the tape round two pulleys, and the line half a thickness outside it, by Shapely."""
    thickness = 0.006
    pulleys = Point(0, 0).buffer(0.1, 512).union(Point(1.2, 0).buffer(0.25, 512)).convex_hull
    middle = pulleys.buffer(thickness / 2, 512).exterior.length
    found = cut(pulleys.exterior.length, thickness, "rawhide", "leather", 0.05, take_up=True)
    assert found and found.length_m == pytest.approx(middle, rel=1e-4) and found.length_m == found.middle_m
    assert LineString(pulleys.exterior.coords).length < middle


@given(
    st.floats(0.5, 20),
    st.floats(0.0035, 0.0075),
    st.sampled_from(JOINTS),
    st.sampled_from(MATERIALS),
    st.floats(0.03, 0.3),
    st.booleans(),
    st.booleans(),
)
@examples(200)
def test_every_part_of_the_length_is_counted_once(
    tape: float, thick: float, joint: str, material: str, width: float, take_up: bool, stretched: bool
) -> None:
    found = cut(tape, thick, joint, material, width, 1, take_up, stretched)  # type: ignore[arg-type]
    if found is None:
        assert joint == "cemented lap" and lap_of(material, thick, width) is None
        return
    assert found.length_m == pytest.approx(found.middle_m - found.stretch_m - found.fastener_m + found.lap_m)
    assert (found.stretch_m > 0) == (not found.why_no_stretch) and (not (take_up or stretched) or found.stretch_m == 0)
    assert not (found.lap_m and found.fastener_m), "a belt is lapped or fastened"
    assert found.middle_m == pytest.approx(tape + math.pi * thick)


def test_figures_of_the_handbooks() -> None:
    assert take_off("leather", 0.004) == pytest.approx(1 / 8 / 12, rel=0.01), "1/8 in per foot: common practice (from memory)"
    assert holes(2.5 * IN) == (2, 2) and holes(6 * IN) == (4, 3) and holes(10 * IN) == (5, 4), "Kent (from memory)"
    assert [round(lap_of("leather", 0.005, w * IN) / IN) for w in (2, 6, 10)] == [4, 6, 8], "shop handbooks (from memory, low)"  # type: ignore[operator]
    assert lap_of("leather", 0.125 * IN, 1.5 * IN) == pytest.approx(0.25 * IN), "a light belt's lap: common practice, no source"
    assert lap_of("polyamide core", 0.002, 0.05) == pytest.approx(0.065) and lap_of("rubber-canvas", 0.005, 0.1) is None
    assert lap_of("polyamide core", 0.0015, 0.05) == pytest.approx(0.0515), "half way between two rows"


def test_a_light_leather_belt_is_short_by_its_lap_alone() -> None:
    found = cut(1.4, 0.125 * IN, "cemented lap", "leather", 1.25 * IN)
    assert found and found.length_m == found.middle_m and "lap alone" in found.why_no_stretch


def test_hooks_by_thickness_and_what_they_run_on() -> None:
    """A 1 1/2 x 1/4 in leather belt: hooks by thickness (trade fact, common practice)."""
    size = size_of("metal hooks", 0.25 * IN)
    assert size and size.size == "E" and size.holds == 0.88, "machine wire lacing 0.88: Faires (from memory)"
    assert suits("metal hooks", 0.25 * IN, 8 * IN, 5.0) == ""
    assert "6 in" in suits("metal hooks", 0.25 * IN, 4 * IN, 5.0) and "smoother" in suits("hinged plates", 0.25 * IN, 12 * IN, 20.0)
    assert "No size" in suits("metal hooks", 0.012, 1.0, 5.0)
