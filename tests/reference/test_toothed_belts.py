"""Toothed pulleys, names and tooth shapes against ISO 5294, ISO 5296, ISO 13050, DIN 7721 (figures from memory)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from tuyere.core.basis.table import rows
from tuyere.core.kinds.synchronous import (
    ToothedError,
    belt_outline,
    forms_of,
    outside_diameter,
    parse_name,
    pitch_diameter,
    profile,
    profiles,
    pulley_teeth,
    standard_teeth,
    teeth_from_outside,
)


def test_pulley_diameters_of_iso_5294() -> None:
    """ISO 5294 (mm): pitch and outside diameters of inch pulleys."""
    for name, teeth, pitch, outside in (
        ("L", 10, 30.32, 29.56),
        ("L", 24, 72.77, 72.00),
        ("H", 20, 80.85, 79.48),
        ("XL", 20, 32.34, 31.83),
        ("XH", 24, 169.79, 166.99),
        ("MXL", 20, 12.94, 12.43),
    ):
        p = profile(name)
        assert (pitch_diameter(p, teeth) * 1e3, outside_diameter(p, teeth) * 1e3) == pytest.approx((pitch, outside), abs=0.011)


def test_every_printed_inch_and_round_pulley_obeys_the_rule() -> None:
    """d_o = z p / pi - 2 a within the printing, but for small 14M and the T and AT rows, whose figures DIN 7721-2 sets apart."""
    for r in rows("toothed_pulleys"):
        name = r["pitch_name"] if r["pitch_name"] in profiles() else f"H{r['pitch_name']}"
        p = profile(name)
        if p.named_by == "metric T" or (name == "H14M" and int(r["teeth"]) <= 36):
            continue
        rule = pitch_diameter(p, int(r["teeth"])) - 2 * p.line_under_tip_m
        assert float(r["outside_diameter"]) == pytest.approx(rule * 1e3, abs=0.02), (name, r["teeth"])


@pytest.mark.parametrize(
    ("text", "name", "teeth", "width"),
    [
        ("270L100", "L", 72, 25.4),
        ("540 H 200", "H", 108, 50.8),
        ("36mxl025", "MXL", 45, 6.35),
        ("124L050", "L", 33, 12.7),
        ("8M-1200-30", "H8M", 150, 30),
        ("1200-8M-30", "H8M", 150, 30),
        ("S8M-1200-25", "S8M", 150, 25),
        ("10 T5 x 480", "T5", 96, 10),
        ("25 AT10 x 960", "AT10", 96, 25),
        ("14M-1400", "H14M", 100, None),
    ],
)
def test_names_in_three_systems(text: str, name: str, teeth: int, width: float | None) -> None:
    """ISO 5296, IP-27 and DIN 7721 ways of writing; 124L is 12.375 in, 33 teeth, its code cut short."""
    found = parse_name(text)
    assert (found.profile.name, found.teeth) == (name, teeth)
    assert found.width_m == (pytest.approx(width / 1000) if width else None)
    assert found.form_open == (name == "H8M" or text.startswith("14M"))
    again = parse_name(found.designation)
    assert (again.profile, again.teeth, again.width_m) == (
        found.profile,
        found.teeth,
        pytest.approx(found.width_m) if found.width_m else None,
    )


@pytest.mark.parametrize("text", ["8M-1201-30", "banana", "270Q100", "T5", ""])
def test_what_is_no_name_is_refused_with_a_sentence(text: str) -> None:
    with pytest.raises(ToothedError, match=r"\.$"):
        parse_name(text)


@given(st.sampled_from(list(profiles().values())), st.integers(12, 140))
def test_teeth_come_back_from_the_outside_diameter(p, teeth: int) -> None:  # type: ignore[no-untyped-def]
    by_rule = pitch_diameter(p, teeth) - 2 * p.line_under_tip_m
    assert teeth_from_outside(p, by_rule) == pytest.approx(teeth)
    assert pulley_teeth(p) and standard_teeth(p)


@given(st.sampled_from(list(profiles().values())), st.integers(3, 12))
def test_the_template_is_true_to_pitch_and_height(p, teeth: int) -> None:  # type: ignore[no-untyped-def]
    """Shapely.

    The drawn belt is one sound shape, as long and as thick as the standard says, with straight flanks at the standard's angle.
    """
    outline = belt_outline(p, teeth)
    shape = Polygon(outline)
    assert shape.is_valid
    x0, y0, x1, y1 = shape.bounds
    assert (x1 - x0, y1 - y0) == pytest.approx((teeth * p.pitch_m, p.belt_height_m))
    solid = teeth * p.pitch_m * (p.belt_height_m - p.tooth_height_m)
    assert solid < shape.area < solid + teeth * p.pitch_m * p.tooth_height_m
    if p.form == "straight" and p.flank_angle_deg:
        (ax, ay), (bx, by) = outline[1], outline[2]
        assert 2 * math.degrees(math.atan2(bx - ax, ay - by)) == pytest.approx(p.flank_angle_deg)


def test_forms_that_look_alike() -> None:
    assert [f.name for f in forms_of(profile("H8M"))] == ["H8M", "S8M", "R8M"]
    assert [f.name for f in forms_of(profile("L"))] == ["L"]
