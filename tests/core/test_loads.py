"""Shaft loads against free-body equilibrium, the capstan's own equation, beam theory by quadrature, and printed relations (from memory)."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import cumulative_trapezoid, quad, solve_ivp

from tuyere.core.basis.quantity import to_si
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.mechanics import loads

WRAPS = st.floats(math.radians(60), math.radians(300))


@given(st.floats(0.05, 0.8), WRAPS, st.floats(50, 2000), st.floats(0, 200))
def test_a_slipping_belt_obeys_the_capstan_equation(friction: float, wrap: float, slack: float, centrifugal: float) -> None:
    """dT/dθ = f (T - Tc), integrated by SciPy over the wrap."""
    grown = solve_ivp(lambda _, t: friction * (t - centrifugal), (0, wrap), [slack + centrifugal], rtol=1e-9, atol=1e-9).y[0, -1]
    effective = grown - slack - centrifugal
    found = loads.strands_at_ratio(effective, loads.slipping_ratio(friction, wrap), centrifugal)
    assert (found.tight_n, found.slack_n) == pytest.approx((grown, slack + centrifugal), rel=1e-6)
    assert found.effective_n == pytest.approx(effective)


@given(st.floats(10, 5000), st.floats(1.01, 8), st.floats(0, 300), WRAPS)
def test_the_shaft_holds_the_belt_in_equilibrium(effective: float, ratio: float, centrifugal: float, wrap: float) -> None:
    """Pressure and friction of the belt on the rim, summed round the wrap, are the pull on the shaft."""
    found = loads.strands_at_ratio(effective, ratio, centrifugal)
    friction = math.log(ratio) / wrap
    # From the slack strand (θ = -wrap/2 about the far point of the rim) to the tight one: what each element presses in and drags along.
    pressed = lambda t: (found.slack_n - centrifugal) * math.exp(friction * (t + wrap / 2))  # noqa: E731
    along = quad(lambda t: pressed(t) * (math.cos(t) + friction * math.sin(t)), -wrap / 2, wrap / 2)[0]
    across = quad(lambda t: pressed(t) * (-math.sin(t) + friction * math.cos(t)), -wrap / 2, wrap / 2)[0]
    pull = loads.pull_on_shaft(found, wrap)
    assert (pull.along_n, abs(pull.across_n)) == pytest.approx((along, abs(across)), rel=1e-6, abs=1e-6)
    t1, t2 = found.tight_n - centrifugal, found.slack_n - centrifugal
    assert pull.total_n == pytest.approx(math.sqrt(t1**2 + t2**2 - 2 * t1 * t2 * math.cos(wrap)), rel=1e-9)  # Machinery's Handbook


@given(st.floats(0, math.tau), st.sampled_from([-1, 1]), st.floats(math.radians(100), math.pi))
def test_the_pull_leans_to_the_tight_strand_wherever_the_other_wheel_lies(turned: float, side: int, wrap: float) -> None:
    strands = loads.Strands(500, 120)
    pull = loads.pull_on_shaft(strands, wrap)
    lean = (math.pi - wrap) / 2  # each strand leans in towards the larger wheel, whose line starts on its own side
    ends = [(strands.tight_n, side), (strands.slack_n, -side)]
    by_strand = np.sum([t * np.array([math.cos(turned + s * lean), math.sin(turned + s * lean)]) for t, s in ends], axis=0)
    assert pull.in_plane(turned, side) == pytest.approx(tuple(by_strand), abs=1e-9)


def test_the_half_sum_behind_the_printed_static_tension() -> None:
    """At 5 : 1 in a groove, (T1 + T2)/Te = (2.5 - K)/K with K the arc factor: IP-20's own algebra."""
    for degrees in (180, 160, 140, 120, 100):
        wrap = math.radians(degrees)
        found = loads.strands_at_ratio(1000, math.exp(math.log(5) / math.pi * wrap))
        k = ip20.arc_factor(wrap)
        assert (found.tight_n + found.slack_n) / 1000 == pytest.approx((2.5 - k) / k, rel=1e-9)


def test_on_fixed_centres_the_sum_stays() -> None:
    found = loads.strands_at_rest_tension(400, 300, 20)
    assert (found.tight_n, found.slack_n) == (500, 100)
    assert loads.pull_on_shaft(found, math.pi).along_n == loads.pull_at_rest(300, math.pi) - 2 * 20
    with pytest.raises(loads.LoadError, match="slips"):
        loads.strands_at_rest_tension(700, 300)


@given(st.floats(-5000, 5000), st.floats(0.01, 0.5), st.floats(0.05, 2))
def test_bearings_balance_force_and_moment(force: float, overhang: float, span: float) -> None:
    near, far = loads.reactions(force, overhang, span)
    solved = np.linalg.solve([[1, 1], [span, 0]], [force, force * (span + overhang)])
    assert (near, far) == pytest.approx(tuple(solved), abs=1e-6)


def test_an_overhung_shaft_bends_as_beam_theory_says() -> None:
    """M/EI integrated twice by SciPy, against the closed forms; stresses against M c/I and T c/J."""
    force, d, a, b, e = 2000.0, 0.03, 0.12, 0.25, 206e9
    found = loads.shaft_strain(force, 80.0, d, a, b, e)
    inertia = math.pi * d**4 / 64
    x = np.linspace(0, a + b, 200_001)
    moment = np.where(x < b, force * a / b * x, force * (a + b - x))
    slope = cumulative_trapezoid(moment, x, initial=0) / (e * inertia)
    sag = cumulative_trapezoid(slope, x, initial=0)
    tilt = np.interp(b, x, sag) / b  # both bearings hold
    assert sag[-1] - tilt * x[-1] == pytest.approx(found.deflection_m, rel=1e-4)
    assert slope[-1] - tilt == pytest.approx(found.slope_wheel_rad, rel=1e-4)
    assert np.interp(b, x, slope) - tilt == pytest.approx(found.slope_bearing_rad, rel=1e-4)
    assert found.bending_pa == pytest.approx(force * a * (d / 2) / inertia)
    assert found.shear_pa == pytest.approx(80.0 * (d / 2) / (2 * inertia))


def test_life_falls_with_the_cube_and_a_bushing_by_its_product() -> None:
    """ISO 281; porous bronze: 30 lbf on 3/4 by 1 in at 1100 rpm is 40 psi, 216 ft/min, 8640 (Machinery's Handbook relations)."""
    assert loads.life_ratio(1, 2) == pytest.approx(1 / 8)
    assert loads.life_ratio(0.4, 1.5) == pytest.approx(1.2**-3)
    assert loads.life_ratio(1, 2, loads.ROLLER) == pytest.approx(0.0992, abs=1e-4)
    one, other = (loads.life_hours(30_000, p, 150) for p in (2000, 3000))
    assert other / one == pytest.approx(loads.life_ratio(1, 1.5))
    assert one == pytest.approx(1e6 / (60 * 150 * 30 / math.pi) * 15**3)
    psi, fpm = 6894.757, to_si(1.0, "velocity", "ft/min")
    found = loads.bushing_duty(to_si(30, "force", "lbf"), 0.75 * 0.0254, 0.0254, 1100 * math.pi / 30)
    assert (found.pressure_pa / psi, found.speed_m_per_s / fpm, found.pv / psi / fpm) == pytest.approx((40, 216, 8640), rel=1e-3)
    assert found.governs == "speed" and found.shares["pressure times speed"] == pytest.approx(8640 / 50_000, rel=2e-3)
    assert loads.bushing_duty(to_si(300, "force", "lbf"), 0.75 * 0.0254, 0.0254, 1100 * math.pi / 30).governs == "pressure times speed"


def test_the_overhung_load_of_a_catalogue_formula() -> None:
    """126 050 hp K/(d n), lbf: 10 hp on a 6 in sheave at 1750 rpm, V-belts."""
    found = loads.overhung_load(to_si(10, "power", "hp"), 1750 * math.pi / 30, 6 * 0.0254, V_BELT.overhung_factor)
    assert found / to_si(1, "force", "lbf") == pytest.approx(126_050 * 10 * 1.5 / (6 * 1750), rel=1e-4)
