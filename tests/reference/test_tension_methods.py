"""What the tools show against statics, vibration and elasticity worked out another way.

Beams by finite elements, arcs and catenaries integrated.
"""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad, solve_ivp
from scipy.linalg import eigh, solve
from scipy.optimize import brentq

from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.uncertainty import exact
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.belt_path import Pulley, belt_path, pull
from tuyere.core.mechanics.tension import beam, measured, statics
from tuyere.core.mechanics.tension.moved import move_for
from tuyere.core.mechanics.tension.window import WindowStage, WindowWheel, strain

LBF, INCH = to_si(1, "force", "lbf"), to_si(1, "length", "in")


def tensioned_beam(tension: float, span: float, bending: float, mass: float = 1.0, elements: int = 240) -> tuple[np.ndarray, np.ndarray]:
    """Stiffness and mass of a beam under tension in Hermite elements (any finite element text), ends free."""
    h, size = span / elements, 2 * elements + 2
    bent = (
        bending
        / h**3
        * np.array(
            [
                [12, 6 * h, -12, 6 * h],
                [6 * h, 4 * h * h, -6 * h, 2 * h * h],
                [-12, -6 * h, 12, -6 * h],
                [6 * h, 2 * h * h, -6 * h, 4 * h * h],
            ]
        )
    )
    taut = (
        tension
        / (30 * h)
        * np.array(
            [[36, 3 * h, -36, 3 * h], [3 * h, 4 * h * h, -3 * h, -h * h], [-36, -3 * h, 36, -3 * h], [3 * h, -h * h, -3 * h, 4 * h * h]]
        )
    )
    heavy = (
        mass
        * h
        / 420
        * np.array(
            [
                [156, 22 * h, 54, -13 * h],
                [22 * h, 4 * h * h, 13 * h, -3 * h * h],
                [54, 13 * h, 156, -22 * h],
                [-13 * h, -3 * h * h, -22 * h, 4 * h * h],
            ]
        )
    )
    k, m = np.zeros((size, size)), np.zeros((size, size))
    for e in range(elements):
        at = slice(2 * e, 2 * e + 4)
        k[at, at] += bent + taut
        m[at, at] += heavy
    return k, m


@pytest.mark.parametrize(
    ("tension", "span", "bending"), [(150, 0.3, 0.15), (400, 0.5, 0.1), (60, 0.2, 0.5), (900, 1.2, 2.0), (20, 0.4, 0.05)]
)
def test_a_push_at_mid_span_against_finite_elements(tension: float, span: float, bending: float) -> None:
    k, _ = tensioned_beam(tension, span, bending)
    held = [i for i in range(len(k)) if i not in (0, len(k) - 2)]
    load = np.zeros(len(k))
    load[len(k) // 2 - 1] = 30.0
    sunk = float(solve(k[np.ix_(held, held)], load[held])[held.index(len(k) // 2 - 1)])
    assert beam.deflection_of(30.0, span, tension, bending) == pytest.approx(sunk, rel=1e-4)
    assert beam.tension_under(30.0, span, sunk, bending) == pytest.approx(tension, rel=2e-3)
    assert beam.push_for(sunk, span, tension, bending) == pytest.approx(30.0, rel=1e-4)


@pytest.mark.parametrize("ends", ["pinned", "clamped"])
@pytest.mark.parametrize(("tension", "span", "bending"), [(190, 0.5, 0.02), (150, 0.3, 0.15), (60, 0.2, 0.5), (2, 0.4, 0.1)])
def test_a_plucked_note_against_finite_elements(ends: beam.Ends, tension: float, span: float, bending: float) -> None:
    k, m = tensioned_beam(tension, span, bending, 0.1)
    gone = {0, len(k) - 2} | ({1, len(k) - 1} if ends == "clamped" else set())
    held = np.ix_(*[[i for i in range(len(k)) if i not in gone]] * 2)
    sounds = math.sqrt(eigh(k[held], m[held], eigvals_only=True, subset_by_index=[0, 0])[0]) / math.tau
    assert beam.tension_sounding(sounds, span, 0.1, bending, ends) == pytest.approx(tension, rel=1e-4)
    assert beam.frequency_of(tension, span, 0.1, bending, ends) == pytest.approx(sounds, rel=1e-5)


def test_a_clamped_note_is_the_series_of_stiff_strings_where_it_is_hardly_stiff() -> None:
    """f = f0 (1 + 2e + (4 + pi^2/2) e^2), e = sqrt(EI/(T L^2)): stiff strings of musical acoustics (from memory, high)."""
    tension, span, mass, bending = 200.0, 0.8, 0.1, 0.02
    e = math.sqrt(bending / (tension * span**2))
    series = math.sqrt(tension / mass) / (2 * span) * (1 + 2 * e + (4 + math.pi**2 / 2) * e * e)
    assert beam.frequency_of(tension, span, mass, bending, "clamped") == pytest.approx(series, rel=1e-4)


def test_slack_is_said_and_not_computed() -> None:
    with pytest.raises(beam.SlackError, match="slack"):
        beam.tension_under(10, 0.3, 10 * 0.3**3 / (48 * 0.1), 0.1)
    with pytest.raises(beam.SlackError, match="slack"):
        beam.tension_sounding(1, 0.3, 0.1, 0.1, "clamped")
    with pytest.raises(beam.SlackError, match="stretch"):
        measured.by_gauge(exact(2.0), exact(0.02), exact(0.6), exact(80_000.0), 2.0)


@given(st.floats(50, 2000), st.floats(0.2, 2), st.floats(0.005, 0.03), st.floats(0, 1), st.booleans())
def test_a_gauge_gives_back_the_tension_before_the_push(tension: float, span: float, share: float, bending: float, held: bool) -> None:
    """Pushed: the strand is longer by 2 q^2/L, shared by the whole belt or borne by the span alone."""
    q, rigidity, length = share * span, 60_000.0, 3 * span
    pushed = tension + rigidity * 2 * q * q / span / (span if held else length)
    force = beam.push_for(q, span, pushed, bending)
    found = measured.by_gauge(exact(force), exact(q), exact(span), exact(rigidity), length, held, exact(bending))
    assert found.n == pytest.approx(tension, rel=1e-6)
    assert 0.04 * tension < found.s < 0.5 * pushed + 60


def test_the_gauge_relation_of_the_trade() -> None:
    """14 lbf for 3/8 in: 224 lbf over a 24 in span, 336 lbf over 36 (common practice, no source; string relation)."""
    for span, strand in ((24, 224), (36, 336)):
        found = measured.by_gauge(exact(14 * LBF), exact(INCH * 3 / 8), exact(span * INCH))
        assert found.n / LBF == pytest.approx(strand)


def test_a_positioning_belt_by_its_note() -> None:
    """0.038 kg/m, 97 N found where 190 are wanted: half; within 25 % is 142.5 to 237.5 N (common practice, no source)."""
    sounds = beam.frequency_of(97, 0.61, 0.038)
    found = measured.by_note(exact(sounds), exact(0.61), exact(0.038))
    assert found.n == pytest.approx(97)
    assert not 142.5 <= found.n <= 237.5


@pytest.mark.parametrize(("slope", "stretch"), [(0.0, 1.002), (0.0, 1.3), (0.6, 1.01), (-0.6, 1.01), (1.25, 1.05), (1.3, 1.001)])
def test_sag_against_a_chain_hung_link_by_link(slope: float, stretch: float) -> None:
    """The catenary's differential equation y'' = sqrt(1 + y'^2)/c shot from the lower end so that it meets the upper one."""
    chord, weight = 1.4, 2.6 * statics.GRAVITY
    dx, dy = chord * math.cos(slope), chord * math.sin(slope)
    horizontal = weight * dx / math.sqrt(24 * (stretch - 1)) if stretch < 1.1 else weight * dx / 2.4

    def shot(rise: float) -> object:
        return solve_ivp(
            lambda _, y: [y[1], math.hypot(1, y[1]) * weight / horizontal], (0, dx), [0, rise], rtol=1e-11, atol=1e-13, dense_output=True
        )

    rise = brentq(lambda r: shot(r).y[0][-1] - dy, dy / dx - 6, dy / dx, xtol=1e-13)
    curve = shot(rise).sol
    x = np.linspace(0, dx, 20_001)
    below = x * math.sin(slope) - curve(x)[0] * math.cos(slope)
    lowest = int(np.argmax(below))
    along = horizontal * math.hypot(1, curve(x[lowest])[1])
    assert statics.chain_tension(float(below[lowest]), chord, slope, 2.6) == pytest.approx(along, rel=5e-5)
    assert statics.chain_sag(along, chord, slope, 2.6) == pytest.approx(below[lowest], rel=5e-5)


def test_two_per_cent_of_sag_is_six_and_a_quarter_weights_of_the_strand() -> None:
    """Level, shallow: T = w L^2/(8 s), 6.25 w L at 2 %, 3.125 at 4 % (Machinery's Handbook, from memory)."""
    for share, times in ((0.02, 6.25), (0.04, 3.125)):
        found = statics.chain_tension(share * 2, 2, 0, 1) / (statics.GRAVITY * 2)
        assert found == pytest.approx(times, rel=3e-3)
    with pytest.raises(statics.SteepError):
        statics.chain_tension(0.01, 1, math.radians(76), 1)


@given(st.floats(0.3, 1.4), st.floats(-0.9, 0.9), st.integers(1, 4))
def test_an_idler_on_a_lever_against_moments_of_every_force(wrap: float, lean: float, belts: int) -> None:
    """Two strands of tension T leave the idler; their moments about the pivot and the handle's add up to nothing."""
    tension, handle, arm = 180.0, 0.35, 0.22
    strands = [np.array([math.sin(wrap / 2), s * math.cos(wrap / 2)]) for s in (1, -1)]  # away from the idler, symmetric about x
    resultant = belts * tension * (strands[0] + strands[1])
    idler = arm * np.array([math.sin(lean), math.cos(lean)])  # off the square to the resultant by `lean`
    turning = idler[0] * resultant[1] - idler[1] * resultant[0]
    pull_n = abs(turning) / handle
    assert statics.by_idler_lever(pull_n, handle, arm, wrap, lean, belts) == pytest.approx(tension)
    assert statics.pull_at_handle(tension, handle, arm, wrap, lean, belts) == pytest.approx(pull_n)


def test_a_pivoted_base_against_moments_of_the_strands_themselves() -> None:
    """Strands from tangent points of the path: the moment of both about the pivot, and of the weight, add up to nothing."""
    path = belt_path([Pulley(0, 0, 0.06, 1), Pulley(0.1, 0.8, 0.15, 1)])
    pivot, tension = np.array([-0.25, -0.05]), 140.0
    moment, arms = 0.0, []
    for run, sign in ((path.runs[0], 1), (path.runs[1], -1)):
        at = np.array([run.x1_m, run.y1_m]) if sign == 1 else np.array([run.x2_m, run.y2_m])
        way = sign * np.array([math.cos(run.direction_rad), math.sin(run.direction_rad)])
        arm = (at - pivot)[0] * way[1] - (at - pivot)[1] * way[0]
        arms.append(abs(arm))
        moment += tension * arm
    weight_arm = 0.3
    assert statics.by_weighted_base(abs(moment) / weight_arm, weight_arm, (arms[0], arms[1])) == pytest.approx(tension)
    assert math.hypot(*pull(path, 0, tension, tension)) == pytest.approx(2 * tension * math.sin(path.wraps_rad[0] / 2))


@given(st.floats(0.03, 0.3), st.floats(0.03, 0.3), st.floats(0.35, 2), st.floats(0, 800), st.floats(0, 800))
def test_a_move_stretches_the_belt_to_the_tension_wanted(r1: float, r2: float, gap: float, now: float, wanted: float) -> None:
    centre, rigidity = r1 + r2 + gap, 70_000.0
    move = move_for(now, wanted, rigidity, r1, r2, centre, 0.00175)
    slack = open_belt.belt_length(2 * r1, 2 * r2, centre) / (1 + now / rigidity)
    moved = open_belt.belt_length(2 * r1, 2 * r2, centre + move.centre_change_m)
    assert rigidity * (moved / slack - 1) == pytest.approx(wanted, abs=0.01)
    assert move.turns is not None and (move.turns >= 0) == (move.centre_change_m >= 0)
    lean = math.asin((r2 - r1) / centre)
    linear = (wanted - now) * slack / (2 * rigidity * math.cos(lean))
    assert move.centre_change_m == pytest.approx(linear, rel=0.02, abs=1e-7)


def test_friction_on_an_arc_integrated_element_by_element() -> None:
    """dT/dθ = f/sin(groove/2) (T - m v²): the capstan's exponent is the integral of it."""
    friction, groove, wrap = 0.3, math.radians(38), 2.7
    grown, _ = quad(lambda _: friction / math.sin(groove / 2), 0, wrap)
    r, c = 0.1, 0.6
    lean = (math.pi - wrap) / 2
    big = r + c * math.sin(lean)
    wheels = (
        WindowWheel(0, 0, r, "inside", friction, 900, 100, groove),
        WindowWheel(c, 0, big, "inside", friction, -900, 100 * r / big, groove),
    )
    on = strain(WindowStage(wheels, mass_kg_per_m=0.2))
    assert on.grip(0) == pytest.approx(math.exp(grown))
