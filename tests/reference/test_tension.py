"""Tension against statics, the published form, and the gauge's own scale."""

import math

import pytest
from scipy.optimize import brentq

from tuyere.core.basis.quantity import fraction_inches, from_si, to_si
from tuyere.core.kinds.v_belt.ip20 import arc_factor
from tuyere.core.mechanics import tension
from tuyere.core.mechanics.speed import slip

LBF = to_si(1, "force", "lbf")


def inches(value: float) -> float:
    return to_si(value, "length", "in")


@pytest.mark.parametrize(("span_in", "shown"), [(16, "1/4"), (32, "1/2"), (64, "1")])
def test_gauge_setting(span_in: float, shown: str) -> None:
    """1/64 in for each inch of span (common practice, no source)."""
    assert fraction_inches(tension.deflection(inches(span_in))) == shown


def test_three_eighths_of_deflection_implies_a_24_in_span() -> None:
    """Common practice, no source."""
    assert from_si(inches(3 / 8) * 64, "length", "in") == pytest.approx(24)
    assert tension.deflection(inches(24)) == pytest.approx(inches(3 / 8))


@pytest.mark.parametrize(("force", "strand"), [(35, 560), (66, 1056), (99, 1584), (14, 224)])
def test_gauge_ranges_by_the_string_relation(force: float, strand: float) -> None:
    """16 : 1 at 1/64 (common practice, no source; 14 lbf on a 24 in span is 224 lbf)."""
    found = tension.tension_from_force(force * LBF, inches(24), inches(24) / 64, 0.0)
    assert found / LBF == pytest.approx(strand)


def test_string_relation_against_exact_statics() -> None:
    """F = 2 T sin(beta), tan(beta) = 2q/t: the small-angle form is within 0.05 % at 1/64."""
    t, q, force = 0.64, 0.01, 50.0
    exact = brentq(lambda pull: 2 * pull * math.sin(math.atan(2 * q / t)) - force, 1, 1e5)
    assert tension.tension_from_force(force, t, q, 0.0) == pytest.approx(exact, rel=6e-4)


def test_stiffness_term_is_the_stretch_of_the_push_itself() -> None:
    """Deflecting by t/64 lengthens the strand by t/2048, so K_y = EA/2048; solved here without the small-angle form."""
    rigidity, pull, t = 2048 * 40.0, 150.0, 0.7
    q = t / 64
    half = math.hypot(t / 2, q)
    stretched = pull + rigidity * (2 * half - t) / t
    force = 2 * stretched * q / half
    assert tension.deflection_force(pull, t, q, 40.0) == pytest.approx(force, rel=1e-3)
    assert tension.deflection_force(pull, t, q, 40.0) == pytest.approx((pull + 40.0) / 16, rel=1e-9)


def test_static_tension_is_nine_tenths_of_the_half_sum() -> None:
    """IP-20; Machinery's Handbook: 15 (2.5 - K)/K 1000 Pd/(N V) + Tc, V-belts at T1/T2 = 5 on 180 deg."""
    pd_hp, v_fpm, belts, theta = 20.0, 3000.0, 3, math.radians(150)
    k = arc_factor(theta)
    published = 15 * (2.5 - k) / k * pd_hp * 1000 / (belts * v_fpm)
    speed = to_si(v_fpm, "velocity", "ft/min")
    mass = 0.1665
    found = tension.static_tension(to_si(pd_hp, "power", "hp"), speed, belts, k, mass)
    assert (found - mass * speed**2) / LBF == pytest.approx(published, rel=1e-5)
    # The same model from the strands themselves: T1 - T2 = 33000 hp / V = 220 lbf, T1/T2 = 5^(150/180) = 3.82.
    pull = 33_000 * pd_hp / v_fpm
    slack = pull / (5 ** (150 / 180) - 1)
    assert pull == 220
    assert published == pytest.approx(15 / 16.5 * (2 * slack + pull) / 2 / belts, rel=1e-6)


def test_centrifugal_tension_is_shigleys() -> None:
    """Shigley Table 17-16: K_c 0.965 for B, T_c = K_c (V/1000)^2 lbf; mass 0.1119 lb/ft."""
    mass = 0.1119 * 0.45359237 / 0.3048
    assert tension.centrifugal_tension(mass, to_si(3390, "velocity", "ft/min")) / LBF == pytest.approx(11.1, abs=0.05)


def test_moving_the_motor() -> None:
    """1 mm of centre on 2000 mm of belt of 82 kN rigidity is 82 N (elastic strain, both strands)."""
    assert tension.centre_change_for(82.0, 2.0, 82_000 / 2048, 0.0) == pytest.approx(0.001)


def test_slip_from_both_shafts() -> None:
    """170 rpm by its diameters, 125 by the tachometer: 26 % down (common practice, no source)."""
    assert slip(1425, 125, 1425 / 170) == pytest.approx(0.265, abs=0.001)
