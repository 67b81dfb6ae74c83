"""Rated power of toothed belts, roller chain and flat belts against printed tables and examples (remembered; each names its source)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import minimize_scalar

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.flat import rating as flat
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.roller_chain import chain
from tuyere.core.kinds.roller_chain import rating as chain_rating
from tuyere.core.kinds.synchronous import profile
from tuyere.core.kinds.synchronous import rating as toothed

RPM = math.pi / 30


# One strand on 17 teeth, hp: Shigley, Table 17-20, as remembered. Each chain on both sides of the speed where its rollers begin to govern.
TABLE_17_20 = [
    ("25", 50, 0.05),
    ("25", 1000, 0.68),
    ("25", 3000, 1.84),
    ("35", 300, 0.78),
    ("35", 2500, 5.28),
    ("35", 3000, 5.64),
    ("40", 200, 1.29),
    ("40", 1600, 8.36),
    ("40", 1800, 8.96),
    ("40", 3000, 4.17),
    ("41", 900, 2.74),
    ("41", 1200, 3.29),
    ("41", 3000, 0.83),
    ("50", 100, 1.34),
    ("50", 1400, 14.4),
    ("50", 1600, 12.8),
    ("60", 300, 6.20),
    ("60", 1200, 21.6),
    ("60", 1400, 18.1),
    ("60", 3000, 5.76),
    ("80", 200, 10.0),
    ("80", 800, 35.0),
    ("80", 1000, 37.7),
    ("80", 2000, 13.3),
    ("100", 700, 59.4),
    ("100", 800, 63.0),
    ("100", 2000, 15.9),
    ("120", 600, 87.3),
    ("120", 700, 89.0),
    ("120", 1800, 21.6),
    ("140", 300, 72.4),
    ("140", 600, 127.0),
    ("160", 500, 166.0),
    ("160", 1200, 49.9),
    ("180", 400, 188.0),
    ("180", 500, 204.0),
    ("200", 400, 249.0),
    ("200", 600, 169.0),
    ("240", 300, 310.0),
    ("240", 400, 359.0),
]


@pytest.mark.parametrize(("name", "rpm", "printed"), TABLE_17_20)
def test_the_printed_chain_table(name: str, rpm: int, printed: float) -> None:
    found = chain_rating.rated_power(chain(name), 17, rpm * RPM)
    assert from_si(found.power_w, "power", "hp") == pytest.approx(printed, rel=0.012, abs=0.0051)
    assert not found.past_table and not found.estimate


def test_a_textbook_chain_drive() -> None:
    """Shigley, Example 17-5.

    90 hp at 300 rpm, service 1.3, design factor 1.5 asks 176, 104, 70.4, 53.3 hp of each strand: three of No. 140.
    """
    wanted = 90 * 1.3 * 1.5
    asked = [wanted / chain_rating.strand_factor(n) for n in (1, 2, 3, 4)]
    assert asked == pytest.approx([176, 104, 70.4, 53.3], rel=0.008)
    carried = [from_si(chain_rating.rated_power(chain("140"), 17, 300 * RPM, n).power_w, "power", "hp") for n in (2, 3)]
    assert carried[0] < wanted < carried[1]


def test_teeth_count_by_their_own_exponents() -> None:
    """Shigley, Table 17-22: 13 teeth carry 0.75 of 17 before the peak and 0.67 after it; 20 carry 1.19 and 1.28."""
    for teeth, slow, fast in ((13, 0.75, 0.67), (15, 0.87, 0.83), (20, 1.19, 1.28)):
        for rpm, factor in ((200, slow), (2500, fast)):
            one, base = (chain_rating.rated_power(chain("60"), z, rpm * RPM).power_w for z in (teeth, 17))
            assert one / base == pytest.approx(factor, abs=0.006)


def test_a_metric_chain_is_an_estimate_no_stronger_than_its_twin() -> None:
    for name, twin in (("08B", "40"), ("12B", "60"), ("16B", "80")):
        metric, inch = (chain_rating.rated_power(chain(n), 19, 400 * RPM) for n in (name, twin))
        assert 0.5 * inch.power_w < metric.power_w <= inch.power_w
        assert metric.confidence is Confidence.LOW and "Estimate" in metric.estimate
    with pytest.raises(OutOfRangeError, match="maker's table"):
        chain_rating.rated_power(chain("C2060H"), 17, 100 * RPM)
    with pytest.raises(OutOfRangeError, match="1 to 6 strands"):
        chain_rating.strand_factor(7)


# IP-24: HP = d r (A - B (d r)^2), d in inches and r in thousands of rpm, at the base width (Machinery's Handbook): profile, A, B, agreement of two memories.
IP24 = [
    ("XL", 0.0916, 7.07e-5, 0.03),
    ("L", 0.436, 3.01e-4, 0.006),
    ("H", 3.73, 1.41e-3, 0.006),
    ("XH", 7.21, 4.68e-3, 0.006),
    ("XXH", 11.4, 7.81e-3, 0.006),
]
BASE_MM = {"XL": 9.5, "L": 25.4, "H": 76.2, "XH": 101.6, "XXH": 127.0}


@pytest.mark.parametrize(("name", "a", "b", "within"), IP24)
def test_toothed_ratings_by_the_other_published_formula(name: str, a: float, b: float, within: float) -> None:
    of = profile(name)
    for teeth, rpm in ((20, 100), (24, 870), (30, 1450)):
        d_r = from_si(of.pitch_m * teeth / math.pi, "length", "in") * rpm / 1000
        found = toothed.rated_power(of, BASE_MM[name] / 1000, teeth, rpm * RPM, 10)
        assert from_si(found.power_w, "power", "hp") == pytest.approx(d_r * (a - b * d_r**2), rel=within)


def test_the_printed_toothed_table_and_factors() -> None:
    """GB/T 11362: H, 14 teeth, 100 rpm, 0.62 kW. IP-24's printed width factors against (b/b_0)^1.14, and its mesh factors."""
    h = profile("H")
    assert toothed.rated_power(h, 0.0762, 14, 100 * RPM, 7).power_w == pytest.approx(620, rel=0.01)
    printed = {
        (0.75, "H"): 0.21,
        (1, "H"): 0.29,
        (1.5, "H"): 0.45,
        (2, "H"): 0.63,
        (0.5, "L"): 0.45,
        (0.75, "L"): 0.72,
        (3, "XXH"): 0.56,
        (4, "XXH"): 0.78,
    }
    for (inches, name), factor in printed.items():
        found = toothed.rated_power(profile(name), to_si(inches, "length", "in"), 22, 200 * RPM, 9)
        assert found.width_factor == pytest.approx(factor, rel=0.03)
    assert [toothed.mesh_factor(z) for z in (9, 6, 5, 4, 3, 2)] == pytest.approx([1, 1, 0.8, 0.6, 0.4, 0.2])


def test_toothed_estimates_say_so_and_stop_where_they_end() -> None:
    found = toothed.rated_power(profile("H8M"), 0.030, 30, 1000 * RPM, 12)
    v = 0.008 * 30 * 1000 / 60
    assert found.power_w == pytest.approx((20 * 30 - 0.0058 * 30 * v**2) * v)
    assert found.confidence is Confidence.LOW and "maker's table decides" in found.estimate
    assert toothed.rated_power(profile("T10"), 0.025, 60, 900 * RPM, 30).pull_n == pytest.approx(3.5 * 25 * 12)
    slower = toothed.rated_power(profile("T10"), 0.025, 30, 1450 * RPM, 12)
    assert slower.pull_n == pytest.approx(3.5 * 25 * 12 * math.sqrt(1000 / 1450)) and "83% of it" in slower.estimate
    with pytest.raises(OutOfRangeError, match="6000 rpm"):
        toothed.rated_power(profile("T10"), 0.025, 30, 6100 * RPM, 12)
    with pytest.raises(OutOfRangeError, match="two teeth in mesh"):
        toothed.rated_power(profile("H"), 0.0762, 14, 100 * RPM, 1.9)


@given(st.sampled_from(["XL", "L", "H", "XH", "H8M", "T5"]), st.floats(2, 14), st.floats(2, 14), st.floats(20, 900))
def test_more_teeth_in_mesh_never_carry_less(name: str, one: float, other: float, rpm: float) -> None:
    less, more = (toothed.rated_power(profile(name), 0.025, 24, rpm * RPM, z).power_w for z in sorted((one, other)))
    assert less <= more


@given(st.sampled_from(["XL", "L", "H"]), st.floats(0.01, 0.04), st.floats(20, 900))
def test_one_wide_toothed_belt_beats_two_of_half_its_width(name: str, width: float, rpm: float) -> None:
    whole, half = (toothed.rated_power(profile(name), b, 24, rpm * RPM, 9).power_w for b in (width, width / 2))
    assert whole > 2 * half


LBF = to_si(1.0, "force", "lbf")


@pytest.mark.parametrize(
    ("belt", "d_in", "driven_in", "centre_in", "f1a", "fc"),
    [
        ("polyamide 0.13in", 6, 18, 96, 420, 25.6),  # Shigley, Example 17-1
        ("polyamide 0.05in", 2, 4, 108, 147, 0.913),  # Shigley, Problem 17-1
    ],
)
def test_the_printed_flat_examples(belt: str, d_in: float, driven_in: float, centre_in: float, f1a: float, fc: float) -> None:
    """Both 6 in wide at 1750 rpm: allowed and centrifugal tension (lbf).

    What of it turns the wheel is by the design ratio, 3 at most (handbooks).
    """
    wrap = math.pi - 2 * math.asin((driven_in - d_in) / 2 / centre_in)
    v = math.pi * d_in * 0.0254 * 1750 / 60
    found = flat.rated_power(flat_belts()[belt], 6 * 0.0254, d_in * 0.0254, v, wrap)
    assert (found.tight_n / LBF, found.centrifugal_n / LBF) == pytest.approx((f1a, fc), rel=0.006)
    assert found.power_w == pytest.approx((f1a - fc) * LBF * (1 - 1 / 3) * v, rel=0.01)


def test_the_printed_rubber_ply_figure() -> None:
    """Ply tables of IS 1370 type: 0.0118 kW a millimetre and ply at 5.08 m/s and 180°, light duck."""
    found = flat.rated_power(flat_belts()["rubber canvas 3ply light"], 0.1, 0.3, 5.08, math.pi)
    assert found.power_w == pytest.approx(0.0118e3 * 100 * 3, rel=0.006)


@given(st.sampled_from(["polyamide 0.05in", "polyamide 0.13in", "polyamide 0.20in"]), st.floats(0.02, 0.3))
def test_power_peaks_where_centrifugal_is_a_third_of_the_tight_side(belt: str, width: float) -> None:
    """A capstan limit of every textbook: v* = sqrt(F_1a / 3 m'); found here by SciPy."""
    kind = flat_belts()[belt]
    slow = flat.rated_power(kind, width, 0.5, 1.0, 2.8)
    thrown_off = math.sqrt(slow.tight_n / slow.centrifugal_n)
    peak = minimize_scalar(lambda v: -flat.rated_power(kind, width, 0.5, v, 2.8).power_w, bounds=(1, thrown_off), method="bounded")
    at_peak = flat.rated_power(kind, width, 0.5, peak.x, 2.8)
    assert at_peak.centrifugal_n / at_peak.tight_n == pytest.approx(1 / 3, rel=1e-3)


def test_a_flat_belt_on_too_small_a_pulley_is_refused() -> None:
    with pytest.raises(OutOfRangeError, match="too small"):
        flat.rated_power(flat_belts()["polyamide 0.25in"], 0.1, 0.2, 10, 3.0)
    with pytest.raises(OutOfRangeError, match="5500 ft/min"):
        flat.rated_power(flat_belts()["leather 1ply medium"], 0.1, 0.2, 40, 3.0)
