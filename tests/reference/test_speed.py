"""Speeds against textbooks, fan laws and common practice (figures from memory; each names its source)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import fsolve
from shapely import Point

from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.uncertainty import exact, uncertain
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.registry import family
from tuyere.core.mechanics import speed
from tuyere.core.stations.speed.adjustable import adjust, drop_per_turn, settings
from tuyere.core.stations.speed.air import CurveError, density, fan_curve, flow_at_pressure, similar, working_point
from tuyere.core.stations.speed.band import Band, exactly
from tuyere.core.stations.speed.cones import as_found, design, geometric, length
from tuyere.core.stations.speed.explain import explain, learn
from tuyere.core.stations.speed.machine import Limits, Motor, Now, amps_gap, feel
from tuyere.core.stations.speed.train import TrainStep, by_marks, solve
from tuyere.core.stations.speed.wheel import made_wheel, materials

RPM = math.pi / 30
INCH = 0.0254


def rpm(value: float, share: float = 0.002):  # type: ignore[no-untyped-def]
    return uncertain(value * RPM, share * value * RPM, "tachometer")


def test_the_pulley_rule() -> None:
    """Machinery's Handbook: driven speed = driver speed x driver diameter / driven diameter; the twice larger pulley halves 3500."""
    assert solve(exactly(3500), None, [TrainStep(exactly(4), exactly(8))]).speeds[-1].middle == pytest.approx(1750)
    # A countershaft: the products of the driving over the driven diameters.
    two = solve(exactly(1750), None, [TrainStep(exactly(5), exactly(12)), TrainStep(exactly(6), exactly(14))])
    assert two.speeds[-1].middle == pytest.approx(1750 * 5 * 6 / (12 * 14))


def test_an_engine_is_a_band_and_so_is_the_answer() -> None:
    """Common practice, no source: 3400 to 3600 rpm to a pump at 1450 wants about 2.4 to 1."""
    wanted = solve(Band(3400, 3600), exactly(1450), [TrainStep()])
    assert wanted.found == ("ratio", 0)
    ratio = wanted.steps[0].ratio
    assert ratio and (ratio.low, ratio.high) == pytest.approx((2.345, 2.483), abs=0.001) and ratio.middle == pytest.approx(2.4, abs=0.02)
    pump = solve(Band(3400, 3600), None, [TrainStep(ratio=exactly(2.4))]).speeds[-1]
    assert (pump.low, pump.high) == pytest.approx((1416.7, 1500), abs=0.1)


@given(st.floats(50, 4000), st.lists(st.tuples(st.floats(2, 30), st.floats(2, 30), st.floats(0, 0.05)), min_size=1, max_size=4), st.data())
def test_whatever_is_left_out_comes_back(first: float, sizes: list[tuple[float, float, float]], data: st.DataObject) -> None:
    """Inverse consistency: leave any one thing out of a consistent train and it is found again."""
    whole = [TrainStep(exactly(d), exactly(big), None, s) for d, big, s in sizes]
    last = solve(exactly(first), None, whole).speeds[-1]
    k = data.draw(st.integers(0, len(sizes) - 1))
    d, big, s = sizes[k]
    left_out = data.draw(st.sampled_from(["driving", "driven", "ratio", "first"]))
    if left_out == "first":
        assert solve(None, last, whole).speeds[0].middle == pytest.approx(first, rel=1e-9)
        return
    steps = list(whole)
    steps[k] = {
        "driving": TrainStep(None, exactly(big), None, s),
        "driven": TrainStep(exactly(d), None, None, s),
        "ratio": TrainStep(None, None, None, s),
    }[left_out]
    found = solve(exactly(first), last, steps)
    assert found.found == (left_out, k)
    value = getattr(found.steps[k], left_out).middle
    assert value == pytest.approx({"driving": d, "driven": big, "ratio": big / d}[left_out], rel=1e-9)


@given(st.floats(1, 40), st.floats(1, 40))
def test_marks_hold_the_true_ratio(driving: float, driven: float) -> None:
    band = by_marks(driving, driven)
    assert band.low < driving / driven < band.high


def test_the_pump_that_read_125_and_then_260() -> None:
    """Common practice, no source.

    170 by the diameters reads 125; a pulley cut for 220 reads 260; 240 wants 7.7 % less effective diameter.
    """
    ratio = uncertain(1425 / 170, 0.02 * 1425 / 170, "diameters")
    before = explain(rpm(1425), rpm(125), ratio, family("v-belt"), new_over_old=exact(220 / 170), small="driver", below_least=True)
    assert before.loss.n == pytest.approx(0.26, abs=0.006) and before.by_tachometer.n == pytest.approx(11.4)
    slip, diameter = before.explanations
    assert slip.predicted is not None and diameter.predicted is not None
    # Slip leaves with the tiny wheel (220 less usual slip); the tachometer's own ratio carried over gives 220 x 125/170.
    assert slip.predicted.n / RPM == pytest.approx(220 * 0.9875, rel=1e-3)
    assert diameter.predicted.n / RPM == pytest.approx(220 * 125 / 170, rel=1e-3)
    assert "217 rpm and 162 rpm" in before.verdicts[0].headline and "by hand" in before.verdicts[0].detail
    assert slip.by_hand / before.hand_turns == pytest.approx(170 / 1425) and diameter.by_hand / before.hand_turns == pytest.approx(
        125 / 1425
    )
    assert slip.by_hand - diameter.by_hand >= 0.5
    after = learn(rpm(1425), rpm(260), ratio * 170 / 220, 240 * RPM, before=before)
    assert after.effective_change is not None and after.effective_change.n == pytest.approx(240 / 260 - 1)
    assert "neither explanation" in after.verdicts[0].headline and "7.7% smaller" in after.verdicts[1].headline
    # Over the rim: the same share when the wheel is out by a share, 1 - k(1 - w) when the belt rides off its line.
    assert after.over_rim == pytest.approx((-(260 / 220) * (1 - 240 / 260), 240 / 260 - 1))


@given(st.floats(1.1, 8), st.floats(-0.2, 0.3), st.floats(0.5, 2), st.floats(0.7, 1.3))
def test_what_was_learned_hits_the_target(ratio: float, loss: float, new: float, aim: float) -> None:
    """Apply the effective change that the reading asks for, and the shaft turns at the target: algebra."""
    n1, n2 = 1500.0, 1500 / ratio * (1 - loss) * new
    found = learn(exact(n1), exact(n2), exact(ratio / new), n2 * aim)
    assert found.effective_change is not None
    assert n2 * (1 + found.effective_change.n) == pytest.approx(n2 * aim)
    driven = learn(exact(n1), exact(n2), exact(ratio / new), n2 * aim, "driven")
    assert driven.effective_change is not None and n2 / (1 + driven.effective_change.n) == pytest.approx(n2 * aim)


def test_a_loss_that_cannot_be_slip() -> None:
    faster = explain(rpm(1750), rpm(900), exact(2.0), family("v-belt"))
    assert faster.explanations[0].plausible == "cannot be"
    assert explain(rpm(1750), rpm(867), exact(2.0), family("v-belt")).verdicts[0].headline == "Diameters and tachometer agree"
    assert explain(rpm(1750), rpm(800), exact(2.0), family("roller chain")).explanations[0].plausible == "cannot be"


def test_rim_speed_of_cast_iron() -> None:
    """Machinery's Handbook: n = 24 828 / diameter in inches at 6500 ft/min."""
    assert speed.speed_at_rim_limit(10 * INCH) / RPM == pytest.approx(2482.8, abs=0.2)


def test_fan_laws() -> None:
    """AMCA 201: ten per cent faster is a third more power; half the speed an eighth of it.

    ASHRAE: 0.075 lb/ft3 at 70 °F, as 530/(460 + T).
    """
    assert similar(1.1).power == pytest.approx(1.331) and similar(0.5).power == pytest.approx(0.125)
    assert similar(1.0, 0.8).pressure == pytest.approx(0.8) and similar(1.0, 0.8).flow == 1
    hot = density((200 - 32) / 1.8, 0) / density((70 - 32) / 1.8, 0)
    assert hot == pytest.approx(530 / 660, rel=2e-3)
    # U.S. standard atmosphere: 24.90 inHg at 5000 ft against 29.92 (ASHRAE altitude table), air at the same temperature.
    assert density(20, to_si(5000, "length", "ft")) / density(20, 0) == pytest.approx(24.90 / 29.92, rel=6e-3)


CURVE = [(0.0, 800.0), (2.0, 820.0), (4.0, 700.0), (6.0, 420.0), (7.0, 200.0)]


@given(st.floats(15, 120), st.floats(0.6, 1.5), st.floats(0.7, 1.2))
def test_a_fan_on_its_ducts_follows_the_laws(resistance: float, pace: float, air: float) -> None:
    """On p = kQ² the working point of the scaled curve is the scaled working point: similarity; and the point lies on both curves."""
    fan = fan_curve(80.0, CURVE)
    flow, pressure = working_point(fan, resistance)
    assert pressure == pytest.approx(resistance * flow**2, rel=1e-6) and fan.pressure(flow) == pytest.approx(pressure, rel=1e-9)
    then = working_point(fan.at(80.0 * pace, 1.204 * air), resistance * air)
    assert then == pytest.approx((flow * pace, pressure * pace**2 * air), rel=1e-6)
    if pressure < 800:
        assert flow_at_pressure(fan, pressure) == pytest.approx(flow, rel=1e-3)


def test_a_curve_that_does_not_serve_says_why() -> None:
    with pytest.raises(CurveError, match="three points"):
        fan_curve(80, CURVE[:2])
    with pytest.raises(CurveError, match="same flow"):
        fan_curve(80, [(1, 2), (1, 3), (2, 1)])
    with pytest.raises(CurveError, match="never has"):
        flow_at_pressure(fan_curve(80, CURVE), 2000)
    with pytest.raises(CurveError, match="outside its points"):
        working_point(fan_curve(80, CURVE), 1e-3)


def test_an_overload_stops_and_the_law_of_each_machine() -> None:
    """Cube, square and first power by kind (AMCA 201; pump texts); a 5 % faster fan wants 16 % more power."""
    motor, full = Motor(7457.0, 1.0, 20.0), exact(7000.0)
    stop = feel("fan", Now(exact(90.0), full, "read"), 90 * 1.05, motor, Limits())
    assert stop.overloaded and "Stop" in stop.verdicts[0].headline
    fine = feel("constant torque", Now(exact(90.0), full, "read"), 90 * 1.05, motor, Limits())
    assert not fine.overloaded and {r.key: r.change for r in fine.rows}["torque"] == pytest.approx(0)
    factor = feel("fan", Now(exact(90.0), full, "read"), 90 * 1.05, Motor(7457.0, 1.15, 20.0), Limits())
    assert not factor.overloaded and "service factor" in factor.verdicts[0].headline
    past = feel("constant torque", Now(exact(90.0), full, "read"), 100, motor, Limits(most_speed=95))
    assert past.overloaded and "may turn" in past.verdicts[0].headline
    rim = feel("fan", Now(exact(90.0), exact(100.0), "read"), 120, motor, Limits(driven_rim_m=0.3, rim_limit_m_per_s=33))
    assert rim.overloaded and "rim" in rim.verdicts[0].headline


def test_the_same_flow_at_half_the_speed_wants_twice_the_pump() -> None:
    """Positive displacement: flow is displacement x speed (any pump text)."""
    slow = feel("positive displacement", Now(exact(100.0), exact(1000.0), "read", displacement_m3=2e-4), 50, Motor(), Limits())
    rows = {r.key: r.change for r in slow.rows}
    assert rows["flow"] == pytest.approx(-0.5) and rows["power"] == pytest.approx(-0.5) and "2.00 times" in slow.verdicts[-1].headline


@given(st.floats(0.2, 1.3), st.floats(0.2, 0.6))
def test_amps_and_power_are_inverse(load: float, idle: float) -> None:
    motor = Motor(7457.0, 1.0, 20.0, idle * 20)
    amps = motor.amps_at(exact(load * 7457))
    assert amps is not None
    back = motor.power_at(amps)
    assert back is not None and back.n == pytest.approx(load * 7457, rel=1e-9)


def test_the_gap_between_clamp_meter_and_prediction_has_a_meaning() -> None:
    expected = uncertain(15.0, 0.3, "amps")
    assert "agrees" in amps_gap(15.5, expected, "fan").headline
    assert "door" in amps_gap(19, expected, "fan").detail and "slip" in amps_gap(11, expected, "fan").detail


def test_an_adjustable_sheave_of_20_threads_an_inch() -> None:
    """Geometry: 1/20 in a turn in a 28° groove is 0.2 in of pitch diameter, 0.1 in a half turn (common practice, no source)."""
    assert drop_per_turn(0.05, math.radians(28)) == pytest.approx(0.2005, abs=0.0005)


@given(st.sampled_from(["driver", "driven"]), st.integers(1, 9), st.floats(0.6, 1.5))
def test_closing_the_driver_raises_the_speed_and_only_half_turns_are_offered(role: str, now: int, aim: float) -> None:
    table = settings(role, 4.0 * INCH, 0.2 * INCH, 5, now / 2, 90.0)  # type: ignore[arg-type]
    assert [s.turns for s in table] == [k / 2 for k in range(11)]
    speeds = [s.driven_speed for s in table]
    assert speeds == sorted(speeds, reverse=role == "driver")
    assert [s.driven_speed for s in table if s.now] == [pytest.approx(90.0)]
    found = adjust(role, 4.0 * INCH, 0.2 * INCH, 5, now / 2, 90.0, 90.0 * aim, None)  # type: ignore[arg-type]
    assert found.nearest and found.nearest.usable and 0 < found.nearest.turns < 5
    assert all(abs(found.nearest.driven_speed - 90 * aim) <= abs(s.driven_speed - 90 * aim) + 1e-9 for s in table if s.usable)


def test_a_sheave_that_crept_is_set_back_and_never_used_as_a_tensioner() -> None:
    found = adjust("driver", 4.0 * INCH, 0.2 * INCH, 5, 3.5, 90.0, None, 2.0, grooves=2)
    assert "Close it 1 1/2 turns" in found.verdicts[0].detail
    moved = adjust("driver", 4.0 * INCH, 0.2 * INCH, 5, 2.0, 90.0, 84.0, None, grooves=2)
    assert (
        "Open it" in moved.verdicts[0].headline
        and "grooves the same" in moved.verdicts[-1].detail
        and "never with the sheave" in moved.verdicts[-1].detail
    )
    assert moved.shift_m == pytest.approx((moved.nearest.turns - 2) * 0.05 * INCH / 2, rel=0.01)  # type: ignore[union-attr]
    assert "fully closed" in adjust("driver", 4.0 * INCH, 0.2 * INCH, 5, 0, 90.0, None, None).verdicts[0].headline
    assert "fully open" in adjust("driver", 4.0 * INCH, 0.2 * INCH, 5, 5, 90.0, None, None).verdicts[0].headline


def test_crossed_cones_of_the_textbook() -> None:
    """Khurmi, Theory of Machines, stepped pulleys.

    160 rpm to 60, 80 and 100, 720 mm apart, smallest radius 40 mm: 106.7; 48.9, 97.8; 56.4, 90.2 mm.
    """
    steps = design([160 / 60, 2.0, 1.6], 0.080, 0.720, True)
    radii = [r * 500 for s in steps for r in (s.driving_m, s.driven_m)]
    assert radii == pytest.approx([40, 106.7, 48.9, 97.8, 56.4, 90.2], abs=0.1)


@given(st.floats(0.4, 3.0), st.floats(0.06, 0.2), st.lists(st.floats(0.3, 3.5), min_size=2, max_size=5), st.booleans())
def test_exact_cones_against_a_numerical_solution(centre: float, first: float, ratios: list[float], crossed: bool) -> None:
    """Every step takes the same belt.

    SciPy's fsolve on the tangent points, started elsewhere, finds the same wheels; Shapely's hull the length.
    """
    if first * (1 + max(ratios)) > 1.2 * centre:
        return
    steps = design(ratios, first, centre, crossed)
    belt = steps[0].length_m
    for s, ratio in zip(steps, ratios, strict=True):
        assert length(s.driving_m, s.driven_m, centre, crossed) == pytest.approx(belt, abs=1e-9)

        def gap(x: list[float], ratio: float = ratio) -> list[float]:
            r, big = abs(x[0]), abs(x[1])
            lean = math.asin(max(-1.0, min(1.0, ((big + r) if crossed else (big - r)) / centre)))
            arcs = (math.pi + 2 * lean) * (r + big) if crossed else (math.pi - 2 * lean) * r + (math.pi + 2 * lean) * big
            return [2 * centre * math.cos(lean) + arcs - belt, big - ratio * r]

        found, _, ok, _ = fsolve(gap, [first * 0.4, first * 0.4 * ratio], full_output=True, xtol=1e-13)
        if ok == 1:
            assert (2 * abs(found[0]), 2 * abs(found[1])) == pytest.approx((s.driving_m, s.driven_m), abs=1e-7)
        if not crossed:
            hull = Point(0, 0).buffer(s.driving_m / 2, 2000).union(Point(centre, 0).buffer(s.driven_m / 2, 2000)).convex_hull
            assert hull.exterior.length == pytest.approx(belt, rel=2e-6)


def test_equal_sums_run_slack_in_the_middle_on_an_open_belt() -> None:
    found = as_found([(0.1, 0.3), (0.2, 0.2), (0.3, 0.1)], 0.5, False)
    assert found[1].length_m < found[0].length_m == pytest.approx(found[2].length_m)
    assert geometric(4, 1, 3) == pytest.approx([4, 2, 1])


def test_a_wheel_to_make_has_its_groove_where_the_table_puts_it() -> None:
    """IP-20, B groove: 34° to 7.0 in datum, 0.75 in apart, 0.5 in to the edge; 0.010 in radial run-out to 10 in (from memory)."""
    made = made_wheel(v_belt.section("B"), 6.0 * INCH, 3, 1.0 * INCH, materials()["cast iron"])
    assert made.outside_m / INCH == pytest.approx(6.35) and made.face_m / INCH == pytest.approx(2.5)
    assert made.radial_run_out_m / INCH == pytest.approx(0.010) and made.axial_run_out_m / INCH == pytest.approx(0.00635)
    assert made.most_speed / RPM == pytest.approx(24828 / 6.35, rel=1e-4)
    # ρ v² of a ring of cast iron at 33 m/s: 7200 x 33² = 7.8 MPa (any machine design text).
    assert made.rim_stress_pa == pytest.approx(7.85e6, rel=0.01)
    xs = [x for x, y in made.profile if y > made.outside_m / 2 - 1e-9]
    assert xs == sorted(xs) and max(xs) == pytest.approx(made.face_m)
    (x1, y1), (x2, y2) = made.profile[2], made.profile[3]
    assert 2 * math.degrees(math.atan2(x2 - x1, y1 - y2)) == pytest.approx(34, abs=1e-6)
    with pytest.raises(v_belt.BeltError, match="reach the bore"):
        made_wheel(v_belt.section("B"), 3.0 * INCH, 1, 2.5 * INCH, materials()["cast iron"])
