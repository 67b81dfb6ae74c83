"""Arc factors and tension ratios by the wrap: printed columns, the algebra behind them, and the sheet that uses them."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.drives import v_spec, wearing
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.typed import Given
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.kinds.v_belt import line_on_flat, parse_designation, section, sections
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.tension import arc_factor, tension_ratio
from tuyere.core.mechanics import tension
from tuyere.core.mechanics.loads import strands_at_ratio

RPM = math.pi / 30
RIBBED = ("PH", "PJ", "PK", "PL", "PM")


@pytest.mark.parametrize(
    ("theta", "grooved", "on_flat"),
    [(180, 1.0, 0.75), (163, 0.96, 0.79), (145, 0.91, 0.83), (127, 0.85, 0.85), (120, 0.82, 0.82), (99, 0.73, 0.73)],
)
def test_the_printed_columns(theta: float, grooved: float, on_flat: float) -> None:
    """ARPM/RMA-MPTA IP-20, V-V and V-flat (from memory, high)."""
    of = section("B")
    assert float(arc_factor(of, math.radians(theta))) == pytest.approx(grooved, abs=0.0055)
    assert float(arc_factor(of, math.radians(theta), True)) == pytest.approx(on_flat, abs=0.0055)


@given(st.sampled_from(["A", "C", "SPB", *RIBBED]), st.floats(1.5, math.pi))
def test_the_factor_and_the_ratio_are_one_algebra(name: str, wrap: float) -> None:
    """T1 + T2 over T1 - T2 by the ratio equals (2c - K)/K, c = R/(R - 1): the half-sum that the static tension sets (statics)."""
    of = section(name)
    for flat in (False, True):
        if flat and name in RIBBED:
            continue
        ratio, factor = float(tension_ratio(of, wrap, flat)[0]), float(arc_factor(of, wrap, flat))
        half_turn = 4.0 if name in RIBBED else 5.0
        twice = 2 * half_turn / (half_turn - 1)
        assert (ratio + 1) / (ratio - 1) == pytest.approx((twice - factor) / factor)
        exact = sum(strands_at_ratio(1000 / 10, ratio, 0.0).__dict__[k] for k in ("tight_n", "slack_n")) / 2
        assert tension.static_tension(1000, 10, 1, factor, 0.0, half_turn) == pytest.approx(exact * 15 / 16.5)
    assert float(tension_ratio(section("PK"), math.pi)[0]) == pytest.approx(4), "IP-26 (medium)"


@pytest.mark.parametrize("name", RIBBED)
def test_a_rib_is_a_small_likeness_of_a_v_belt(name: str) -> None:
    """Bent alike and run alike, the pull for each area of belt is the same: the estimate's own reasoning, by its own dimensions."""
    rib, how = section(name), vee.method(section(name))
    like, d, n = how.rated_as, 3 * section(name).min_diameter_m, 1000 * RPM
    times = like.height_m / rib.height_m
    ours, theirs = vee.rated_power(rib, d, n, 1.0).total_w, vee.rated_power(like, d * times, n / times, 1.0).total_w
    area = rib.top_width_m * rib.height_m / (like.top_width_m * like.height_m)
    assert ours / theirs == pytest.approx(area, rel=1e-9) and how.estimate.startswith("Estimate")


def test_line_on_a_flat_rim() -> None:
    """A section B belt is 0.41 in high with its line 0.175 in under its back: 0.235 in over the rim it stands on (IP-20 figures)."""
    over = from_si(line_on_flat(section("B"), to_si(20, "length", "in")), "length", "in") - 20
    assert over == pytest.approx(2 * (0.41 - 0.175))
    assert all(line_on_flat(s, 1.0) > 1 for s in sections().values() if "classical" in s.series)


def _given(value: float) -> Given:
    return Given(value, 0.0, Origin.MEASURED, "")


SPEC = v_spec(
    {"driver_power": _given(5000), "driver_speed": _given(1450 * RPM), "driven_class": "moderate", "hours_per_day": _given(8 * 3600)},
    section=section("B"),
    driver_diameter=_given(0.15),
    driver_basis="datum",
    driven_diameter=_given(0.6),
    centre_distance=_given(0.7),
    belt_count=4,
)


def test_a_flat_driven_wheel_on_the_sheet() -> None:
    grooved, flat = solve(SPEC).figures, solve(wearing(SPEC, driven_basis="flat")).figures
    assert flat["driven_datum"].value_si == pytest.approx(line_on_flat(section("B"), 0.6))
    assert flat["arc_factor"].value_si == pytest.approx(float(arc_factor(section("B"), flat["wrap_driver"].value_si, True)))
    assert flat["capacity"].value_si <= grooved["capacity"].value_si and flat["shaft_pull"].value_si >= grooved["shaft_pull"].value_si
    upside = solve(wearing(SPEC, driven_basis="flat", driven_diameter=_given(0.1)))
    assert [p.field for p in upside.problems] == ["driven_diameter"]
    assert any(f.code == "narrow-on-flat" for f in solve(wearing(SPEC, section=section("SPB"), driven_basis="flat")).flags)


def test_ribs_of_a_band_count_as_so_many_belts() -> None:
    """One band of four, two bands of two, four singles: the same capacity and strand tension; the gauge presses the whole band."""
    four = solve(SPEC)
    for belt, count in (("4/B105", 1), ("2/B105", 2), ("B105", 4)):
        banded = solve(wearing(SPEC, belt=parse_designation(belt), belt_count=count, centre_distance=None))
        singles = solve(wearing(SPEC, belt=parse_designation("B105"), centre_distance=None))
        for key in ("capacity", "static_tension", "shaft_pull"):
            assert banded.figures[key].value_si == pytest.approx(singles.figures[key].value_si), (belt, key)
        times = {"4": 4, "2": 2}.get(belt[0], 1)
        assert banded.figures["force_low"].value_si == pytest.approx(times * singles.figures["force_low"].value_si)
    ribbed = solve(
        replace(wearing(SPEC, section=section("PK"), belt=parse_designation("6PK 2500"), belt_count=1), driver_power=_given(800))
    )
    assert ribbed.figures["capacity"].value_si == pytest.approx(6 * ribbed.figures["power_per_belt"].value_si)
    assert "ribs" in " ".join(v.headline for v in ribbed.verdicts if v.topic == "rating") and four.figures
    assert np.isclose(ribbed.figures["arc_factor"].value_si, float(arc_factor(section("PK"), ribbed.figures["wrap_driver"].value_si)))
