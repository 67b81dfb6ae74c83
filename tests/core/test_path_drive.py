"""A drive on many wheels: routing, take-up, keepers, tensions and the wheel that slips first."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.geometry.belt_path import belt_path
from tuyere.core.path_drive import FRICTION, Keeper, PathWheel, pulleys_of, run_tensions, slip_margins, solve_path
from tuyere.core.sheet.verdict import Tone


def deck(**idler: object) -> list[PathWheel]:
    """An invented brush deck: engine, three rotors, and a tensioner on the belt's back on the run that leaves the engine."""
    sizes: dict[str, object] = {"contact": "back", "face": "flat", "takes_up": True, **idler}
    return [
        PathWheel("engine", "driver", 0.0, 0.0, 0.06, 0.065),
        PathWheel("tensioner", "idler", 0.26, -0.075, 0.03, 0.03, **sizes),  # type: ignore[arg-type]
        PathWheel("right rotor", "driven", 0.55, -0.1, 0.07, 0.075, power_w=1500),
        PathWheel("middle rotor", "driven", 0.5, 0.35, 0.07, 0.075, power_w=1500),
        PathWheel("left rotor", "driven", -0.2, 0.3, 0.07, 0.075, power_w=1500),
    ]


def test_inside_wheels_turn_with_the_engine_and_back_wheels_against_it() -> None:
    found = solve_path(deck(), rotation=1, driver_speed_rad_per_s=300, static_tension_n=400)
    assert [w.turns for w in found.wheels] == [1, -1, 1, 1, 1] and found.reverse_bends == 1
    assert (found.slack_run, found.tight_run) == (0, 4)
    assert {v.topic: v.tone for v in found.verdicts}["take-up"] is Tone.GOOD
    mirror = solve_path(
        [PathWheel(w.name, w.role, w.x_m, -w.y_m, w.line_radius_m, w.rim_radius_m, w.contact, w.face) for w in deck()], rotation=-1
    )
    assert mirror.length_m == pytest.approx(found.length_m) and [w.turns for w in mirror.wheels] == [-1, 1, -1, -1, -1]


def test_power_balances_and_the_runs_tighten_towards_the_engine() -> None:
    """Equilibrium: each driven wheel takes (T out - T in) v; the engine gives their sum; the mean over the runs stays the set tension."""
    wheels, velocity = deck(), 18.0
    path = belt_path(pulleys_of(wheels, 1))
    tensions = run_tensions(path, wheels, velocity, 400)
    assert tensions[0] == tensions[1] < tensions[2] < tensions[3] < tensions[4]
    for i, w in enumerate(wheels):
        if w.role != "driver":
            assert (tensions[i] - tensions[i - 1]) * velocity == pytest.approx(w.power_w)
    assert (tensions[-1] - tensions[0]) * velocity == pytest.approx(4500)
    lengths = [r.length_m for r in path.runs]
    assert sum(t * s for t, s in zip(tensions, lengths, strict=True)) / sum(lengths) == pytest.approx(400)


@given(st.floats(150, 2000), st.floats(5, 30))
def test_at_its_margin_a_wheel_is_just_at_the_capstan_limit(static: float, velocity: float) -> None:
    """Capstan equation: T1/T2 = exp(f theta) exactly at the load where a wheel is said to slip."""
    wheels = deck()
    path = belt_path(pulleys_of(wheels, 1))
    for i, margin in enumerate(slip_margins(path, wheels, velocity, static)):
        if not math.isfinite(margin):
            ratio = math.exp(FRICTION["grooved"] * path.wraps_rad[i])
            heavy = run_tensions(path, wheels, velocity, static, 50)
            assert wheels[i].role == "idler" or heavy[i] < ratio * heavy[i - 1], "both its sides tighten with the load"
            continue
        at = run_tensions(path, wheels, velocity, static, margin)
        tight, slack = (at[i - 1], at[i]) if wheels[i].role == "driver" else (at[i], at[i - 1])
        assert tight == pytest.approx(slack * math.exp(FRICTION["grooved"] * path.wraps_rad[i]), rel=1e-6)


def test_two_equal_wheels_slip_together_and_the_smaller_wrap_first() -> None:
    pair = [PathWheel("motor", "driver", 0, 0, 0.05, 0.055), PathWheel("fan", "driven", 0.5, 0, 0.05, 0.055, power_w=1000)]
    path = belt_path(pulleys_of(pair, 1))
    assert slip_margins(path, pair, 10, 300) == pytest.approx([slip_margins(path, pair, 10, 300)[0]] * 2)
    uneven = [pair[0], PathWheel("fan", "driven", 0.5, 0, 0.15, 0.155, power_w=1000)]
    small, big = slip_margins(belt_path(pulleys_of(uneven, 1)), uneven, 10, 300)
    assert small < big
    said = solve_path(uneven, 1, driver_speed_rad_per_s=200, static_tension_n=40)
    assert any(v.headline == "motor slips before full load" for v in said.verdicts)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"face": "grooved"}, "a grooved idler on the belt's back"),
        ({"turns_wanted": 1}, "tensioner would turn the wrong way"),
    ],
)
def test_wrong_routing_is_caught(change: dict[str, object], says: str) -> None:
    assert any(says in v.headline for v in solve_path(deck(**change)).verdicts)


def test_a_tensioner_on_the_tight_side_and_a_flat_idler_inside() -> None:
    wheels = deck()
    late = [wheels[0], *wheels[2:], PathWheel("tensioner", "idler", -0.16, 0.13, 0.03, 0.03, "back", "flat", takes_up=True)]
    found = solve_path(late)
    assert not found.problems and any("sits on the tight side" in v.headline for v in found.verdicts)
    inside = [*wheels[:1], *wheels[2:], PathWheel("guide", "idler", -0.2, 0.1, 0.03, 0.03, "inside", "flat")]
    assert any("a flat idler on the groove side" in v.headline for v in solve_path(inside).verdicts)


def test_a_belt_on_the_wrong_side_of_the_tensioner_is_refused_with_the_reason() -> None:
    found = solve_path(deck(contact="inside", face="flat"))
    assert found.path is None and "does not reach tensioner" in found.problems[0].sentence


@pytest.mark.parametrize(
    ("offset", "side", "present", "says", "tone"),
    [
        (0.005, "back", True, "is right", Tone.GOOD),
        (0.001, "back", True, "too near", Tone.WATCH),
        (0.02, "back", True, "too far", Tone.WATCH),
        (-0.005, "back", True, "wrong side", Tone.STOP),
        (0.005, "back", False, "missing", Tone.STOP),
    ],
)
def test_keepers_are_judged_from_both_sides(offset: float, side: str, present: bool, says: str, tone: Tone) -> None:
    """A keeper off the run from right to middle rotor, outside the loop being the belt's back; 1/8 to 1/4 in is common practice, no source."""
    path = solve_path(deck()).path
    assert path
    run = path.runs[2]
    mx, my = (run.x1_m + run.x2_m) / 2, (run.y1_m + run.y2_m) / 2
    right = run.direction_rad - math.pi / 2
    keeper = Keeper("keeper", mx + offset * math.cos(right), my + offset * math.sin(right), side, present=present)  # type: ignore[arg-type]
    verdict = next(v for v in solve_path(deck(), keepers=[keeper]).verdicts if v.topic == "keeper")
    assert says in verdict.headline and verdict.tone is tone


def test_one_driver_and_it_pulls_on_the_inside() -> None:
    wheels = deck()
    assert "mark one as the driver" in solve_path(wheels[1:]).problems[0].sentence
    turned = [*wheels[2:], wheels[0], wheels[1]]
    assert solve_path(turned).length_m == pytest.approx(solve_path(wheels).length_m)
