"""A drive on many wheels: routing, take-up, keepers, tensions and the wheel that slips first."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.layout.keepers import finding_of, judge
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.v_belt.tension import half_turn_ratio
from tuyere.core.mechanics.belt_path import belt_path
from tuyere.core.mechanics.on_wheels.one_belt import PathAnswer, pulleys_of, solve_belt
from tuyere.core.mechanics.on_wheels.strain import friction, run_tensions, slip_margins, tensions_needed
from tuyere.core.mechanics.on_wheels.train import solve_train
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Carriage, Keeper, KeeperState, Lay, PathWheel, TakeUp


def deck(**idler: object) -> list[PathWheel]:
    """An invented brush deck: engine, three rotors, and a tensioner on the belt's back on the run that leaves the engine."""
    sizes: dict[str, object] = {"contact": "back", "face": "flat", "take_up": TakeUp(), **idler}
    return [
        PathWheel("engine", "driver", 0.0, 0.0, 0.06, 0.065),
        PathWheel("tensioner", "idler", 0.26, -0.075, 0.03, 0.03, **sizes),  # type: ignore[arg-type]
        PathWheel("right rotor", "driven", 0.55, -0.1, 0.07, 0.075, power_w=1500),
        PathWheel("middle rotor", "driven", 0.5, 0.35, 0.07, 0.075, power_w=1500),
        PathWheel("left rotor", "driven", -0.2, 0.3, 0.07, 0.075, power_w=1500),
    ]


def solve_path(wheels: list[PathWheel], rotation: int = 1, speed: float | None = None, tension: float | None = None) -> PathAnswer:
    return solve_belt(BeltOnWheels(tuple(wheels), tension_n=tension), rotation, speed)


def test_inside_wheels_turn_with_the_engine_and_back_wheels_against_it() -> None:
    found = solve_path(deck(), 1, 300, 400)
    assert [w.turns for w in found.wheels] == [1, -1, 1, 1, 1] and found.reverse_bends == 1
    assert (found.slack_run, found.tight_run) == (0, 4)
    assert any(v.headline == "tensioner sits on the slack side" and v.tone is Tone.GOOD for v in found.verdicts)
    mirror = solve_path([PathWheel(w.name, w.role, w.x_m, -w.y_m, w.line_radius_m, w.rim_radius_m, w.contact, w.face) for w in deck()], -1)
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
            ratio = math.exp(friction("grooved") * path.wraps_rad[i])
            heavy = run_tensions(path, wheels, velocity, static, 50)
            assert wheels[i].role == "idler" or heavy[i] < ratio * heavy[i - 1], "both its sides tighten with the load"
            continue
        at = run_tensions(path, wheels, velocity, static, margin)
        tight, slack = (at[i - 1], at[i]) if wheels[i].role == "driver" else (at[i], at[i - 1])
        assert tight == pytest.approx(slack * math.exp(friction("grooved") * path.wraps_rad[i]), rel=1e-6)


def test_two_equal_wheels_slip_together_and_the_smaller_wrap_first() -> None:
    pair = [PathWheel("motor", "driver", 0, 0, 0.05, 0.055), PathWheel("fan", "driven", 0.5, 0, 0.05, 0.055, power_w=1000)]
    path = belt_path(pulleys_of(pair, 1))
    assert slip_margins(path, pair, 10, 300) == pytest.approx([slip_margins(path, pair, 10, 300)[0]] * 2)
    uneven = [pair[0], PathWheel("fan", "driven", 0.5, 0, 0.15, 0.155, power_w=1000)]
    small, big = slip_margins(belt_path(pulleys_of(uneven, 1)), uneven, 10, 300)
    assert small < big
    said = solve_path(uneven, 1, 200, 40)
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
    late = [wheels[0], *wheels[2:], PathWheel("tensioner", "idler", -0.16, 0.13, 0.03, 0.03, "back", "flat", take_up=TakeUp())]
    found = solve_path(late)
    assert not found.problems and any("sits on the tight side" in v.headline for v in found.verdicts)
    inside = [*wheels[:1], *wheels[2:], PathWheel("guide", "idler", -0.2, 0.1, 0.03, 0.03, "inside", "flat")]
    assert any("a flat idler on the groove side" in v.headline for v in solve_path(inside).verdicts)


def test_a_belt_on_the_wrong_side_of_the_tensioner_is_refused_with_the_reason() -> None:
    found = solve_path(deck(contact="inside", face="flat"))
    assert found.path is None and "does not reach tensioner" in found.problems[0].sentence


@pytest.mark.parametrize(
    ("offset", "gap", "state", "says", "tone"),
    [
        (0.006, 0.0025, KeeperState.IN_PLACE, "is right", Tone.GOOD),
        (0.006, 0.005, KeeperState.IN_PLACE, "right on a farm machine only", Tone.OPEN),
        (0.006, 0.001, KeeperState.IN_PLACE, "too near", Tone.WATCH),
        (0.006, 0.02, KeeperState.IN_PLACE, "too far", Tone.WATCH),
        (0.03, None, KeeperState.IN_PLACE, "too far", Tone.WATCH),
        (0.006, None, KeeperState.IN_PLACE, "measure its gap", Tone.OPEN),
        (-0.005, 0.005, KeeperState.IN_PLACE, "wrong side", Tone.STOP),
        (0.006, 0.005, KeeperState.MISSING, "missing", Tone.STOP),
        (0.006, 0.005, KeeperState.WORN, "worn off", Tone.STOP),
    ],
)
def test_keepers_are_judged_from_both_sides(offset: float, gap: float | None, state: KeeperState, says: str, tone: Tone) -> None:
    """A keeper off the run from right to middle rotor, outside the loop being the belt's back.

    1/8 to 1/4 in is common practice, no source.
    """
    path = solve_path(deck()).path
    assert path
    run = path.runs[2]
    mx, my = (run.x1_m + run.x2_m) / 2, (run.y1_m + run.y2_m) / 2
    right = run.direction_rad - math.pi / 2
    keeper = Keeper("keeper", "back", mx + offset * math.cos(right), my + offset * math.sin(right), gap, state=state)
    verdict = judge(path, keeper, 0.006, 0.003)
    assert says in verdict.headline and verdict.tone is tone
    assert (finding_of(keeper) is None) == (state is KeeperState.IN_PLACE)


def test_a_manuals_clearance_goes_before_the_default() -> None:
    path = solve_path(deck()).path
    assert path
    wide = Keeper("finger", "back", gap_m=0.009, least_m=0.008, most_m=0.012)
    assert judge(path, wide, 0, 0).tone is Tone.GOOD and judge(path, Keeper("finger", "back", gap_m=0.009), 0, 0).tone is Tone.WATCH


def test_one_driver_and_it_pulls_on_the_inside() -> None:
    wheels = deck()
    assert "mark one as the driver" in solve_path(wheels[1:]).problems[0].sentence
    turned = [*wheels[2:], wheels[0], wheels[1]]
    assert solve_path(turned).length_m == pytest.approx(solve_path(wheels).length_m)


def test_centrifugal_tension_comes_off_both_strands() -> None:
    """Capstan equation with belt mass: (T1 - m v^2) = exp(f theta) (T2 - m v^2) (Shigley, ch. 17; from memory)."""
    wheels, velocity, mass = deck(), 25.0, 0.35
    path = belt_path(pulleys_of(wheels, 1))
    light, heavy = tensions_needed(path, wheels, velocity), tensions_needed(path, wheels, velocity, mass)
    assert [h - n for h, n in zip(heavy, light, strict=True) if n] == pytest.approx([mass * velocity**2] * sum(n > 0 for n in light))


@given(st.floats(-0.04, 0.06), st.booleans())
def test_the_position_for_a_belt_is_the_belt_for_a_position(travel: float, arm: bool) -> None:
    take_up = TakeUp(pivot=(0.4, -0.12), tighten_m=0.07, slacken_m=0.05) if arm else TakeUp(tighten_m=0.07, slacken_m=0.05)
    wheels = deck(take_up=take_up)
    reach = solve_path(wheels).reaches[0]
    x, y = reach.mover(travel)
    there = solve_path([PathWheel(**{**w.__dict__, "x_m": x, "y_m": y}) if w.take_up else w for w in wheels])
    path = solve_path(wheels).path
    assert there.length_m and path
    assert reach.travel_for(path, there.length_m) == pytest.approx(travel, abs=1e-7)
    assert reach.least_belt_m and reach.most_belt_m and reach.least_belt_m < there.length_m < reach.most_belt_m
    if arm:
        assert math.dist((x, y), (0.4, -0.12)) == pytest.approx(math.dist((0.26, -0.075), (0.4, -0.12)))


def test_an_arm_that_swings_past_its_dead_point_is_said() -> None:
    found = solve_path(deck(take_up=TakeUp(pivot=(0.2, -0.3), tighten_m=0.07, slacken_m=0.05)))
    assert any(v.headline == "tensioner passes its dead point" for v in found.verdicts)


def test_a_belt_outside_the_take_up_is_refused_with_the_reason() -> None:
    wheels = deck(take_up=TakeUp(tighten_m=0.02, slacken_m=0.02))
    length = solve_path(wheels).length_m
    assert length
    for over, says in ((0.2, "too long"), (-0.2, "too short")):
        found = solve_belt(BeltOnWheels(tuple(wheels), length_m=length + over))
        assert any(v.headline == "tensioner cannot tighten this belt" and says in v.detail for v in found.verdicts)


def jackshaft(power_w: float = 3000.0) -> tuple[BeltOnWheels, BeltOnWheels]:
    """An invented engine, jackshaft and mill: wheels 1 and 2 share the jackshaft."""
    first = (
        PathWheel("engine", "driver", 0, 0, 0.05, 0.055, shaft=0),
        PathWheel("jackshaft", "driven", 0.6, 0.1, 0.15, 0.155, shaft=1),
    )
    second = (
        PathWheel("jackshaft small", "driver", 0.6, 0.1, 0.06, 0.065, shaft=1),
        PathWheel("mill", "driven", 1.3, -0.2, 0.12, 0.125, power_w=power_w, shaft=3),
    )
    return BeltOnWheels(first), BeltOnWheels(second)


def test_a_jackshaft_multiplies_the_ratios_and_passes_the_power_on() -> None:
    found = solve_train(jackshaft(), -1, 360.0)
    engine, jack = found.belts[0].wheels
    small, mill = found.belts[1].wheels
    assert (jack.speed_rad_per_s, small.speed_rad_per_s) == pytest.approx((120, 120))
    assert mill.speed_rad_per_s == pytest.approx(60) and {w.turns for w in (engine, jack, small, mill)} == {-1}
    assert engine.power_w == jack.power_w == small.power_w == 3000
    # Each belt carries the power at its own speed: T1 - T2 = P / v.
    for wheel, radius in ((jack, 0.15), (mill, 0.12)):
        assert wheel.tension_in_n is not None and wheel.tension_out_n is not None and wheel.speed_rad_per_s
        assert (wheel.tension_out_n - wheel.tension_in_n) * wheel.speed_rad_per_s * radius == pytest.approx(3000)


def test_the_pulls_on_a_shaft_add_as_arrows() -> None:
    """Free body of the jackshaft: the sum of both belts' strand tensions along their runs."""
    first, second = jackshaft()
    found = solve_train((first, second), 1, 360.0)
    (shaft,) = found.shafts
    assert shaft.wheels == ((0, 1), (1, 0)) and shaft.pull_n and shaft.force_n
    total = [0.0, 0.0]
    for answer, k in ((found.belts[0], 1), (found.belts[1], 0)):
        path, w = answer.path, answer.wheels[k]
        assert path and w.tension_in_n is not None and w.tension_out_n is not None
        arrive, leave = path.runs[k - 1], path.runs[k]
        for run, tension, way in ((arrive, w.tension_in_n, -1), (leave, w.tension_out_n, 1)):
            total[0] += way * tension * (run.x2_m - run.x1_m) / run.length_m
            total[1] += way * tension * (run.y2_m - run.y1_m) / run.length_m
    assert shaft.pull_n == pytest.approx(tuple(total))


def test_belts_side_by_side_on_the_engine_add_their_powers() -> None:
    first, _ = jackshaft()
    loaded = BeltOnWheels((first.wheels[0], PathWheel(**{**first.wheels[1].__dict__, "power_w": 1000.0})))
    beside = BeltOnWheels(
        (
            PathWheel("engine outer", "driver", 0, 0, 0.04, 0.045, shaft=0),
            PathWheel("pump", "driven", 0, -0.5, 0.08, 0.085, power_w=500.0, shaft=5),
        )
    )
    found = solve_train((loaded, beside), 1, 300.0)
    assert [s.wheels for s in found.shafts] == [((0, 0), (1, 0))] and found.belts[1].wheels[1].speed_rad_per_s == pytest.approx(150)
    assert solve_train((beside, loaded), 1, 300.0).shafts[0].force_n == pytest.approx(found.shafts[0].force_n)


def test_a_belt_that_hangs_on_nothing_is_refused() -> None:
    first, second = jackshaft()
    loose = BeltOnWheels((PathWheel("layshaft", "driver", 0, 0, 0.06, 0.065, shaft=9), second.wheels[1]))
    assert "on which shaft" in solve_train((first, loose)).belts[1].problems[0].sentence
    assert solve_train((first, loose)).belts[0].path


def test_a_carriage_splits_its_run_and_stays_on_it() -> None:
    pair = (PathWheel("motor", "driver", 0, 0, 0.03, 0.032), PathWheel("tail", "idler", 2, 0, 0.03, 0.032))
    found = solve_belt(BeltOnWheels(pair, carriage=Carriage(1, 0.5, 0.2)))
    assert found.path and found.carriage
    assert found.carriage.near_span_m + found.carriage.far_span_m + 0.2 == pytest.approx(2.0)
    assert found.carriage.belt_m == pytest.approx(found.path.length_m - 0.2)
    assert "beyond its run" in solve_belt(BeltOnWheels(pair, carriage=Carriage(1, 1.9, 0.2))).problems[0].sentence


def test_crossed_turns_the_other_way_and_a_third_wheel_is_refused() -> None:
    pair = (PathWheel("motor", "driver", 0, 0, 0.05, 0.05, face="flat"), PathWheel("saw", "driven", 1, 0, 0.1, 0.1, face="flat"))
    found = solve_belt(BeltOnWheels(pair, Lay.CROSSED, top_width_m=0.04))
    assert [w.turns for w in found.wheels] == [1, -1]
    assert any(v.headline.startswith("The belt is crossed") and v.tone is Tone.WATCH for v in found.verdicts)
    third = PathWheel("third", "driven", 0.5, 1, 0.1, 0.1)
    assert "two wheels" in solve_belt(BeltOnWheels((*pair, third), Lay.CROSSED)).problems[0].sentence


def test_small_wheels_and_tight_back_bends_are_named_once() -> None:
    found = solve_belt(BeltOnWheels(tuple(deck()), least_line_diameter_m=0.13)).verdicts
    assert [v.headline for v in found if v.topic == "bend"] == [
        "engine: small for this section",
        "tensioner: small for a wheel on the belt's back",
    ]


@pytest.mark.parametrize(("section", "ratio"), [("B", 5.0), ("SPA", 5.0), ("PK", 4.0), ("PJ", 4.0)])
def test_ribs_hold_four_to_one_and_v_belts_five(section: str, ratio: float) -> None:
    """IP-26 against IP-20 (from memory): equal wheels at half a turn just hold where T1/T2 is that ratio, so T = Te (R + 1)/(R - 1)/2."""
    held = half_turn_ratio(v_belt.section(section))
    wheels = (PathWheel("engine", "driver", 0, 0, 0.07, 0.07), PathWheel("rotor", "driven", 0.6, 0, 0.07, 0.07, power_w=700))
    found = solve_belt(BeltOnWheels(wheels, half_turn_ratio=held), 1, 100)
    assert held == ratio and found.needed_n == pytest.approx(700 / (100 * 0.07) * (ratio + 1) / (ratio - 1) / 2)
