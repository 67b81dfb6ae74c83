"""Size: a candidate on the sheet, loads in balance, motors, duties, changes of kind, what is read of the form."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_selection import FAN
from tests.drives import fit, wearing
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.layout.pair import Pair
from tuyere.core.drive.sheet.solve import solve, solve_page
from tuyere.core.kinds import registry, v_belt
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.flat.tension import tension_ratio as flat_ratio
from tuyere.core.kinds.motor import MotorLimit, NotJudged, limit
from tuyere.core.kinds.problem import Demands, Kept
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.service import service_factor
from tuyere.core.kinds.registry import family
from tuyere.core.kinds.roller_chain import chain
from tuyere.core.kinds.roller_chain.lubrication import lubrication
from tuyere.core.kinds.roller_chain.tension import tension_ratio as chain_ratio
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.synchronous import profile
from tuyere.core.kinds.synchronous.tension import tension_ratio as toothed_ratio
from tuyere.core.kinds.traits import traits
from tuyere.core.kinds.v_belt import ip20, parse_designation, section
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.kinds.v_belt.short_set import short_sets
from tuyere.core.kinds.v_belt.tension import tension_ratio
from tuyere.core.mechanics.loads import Strands, strands_at_ratio
from tuyere.core.stations.size.as_sheet import spec_of
from tuyere.core.stations.size.candidate import CandidateError, at_places, by_key, nearest, relaxed
from tuyere.core.stations.size.conversion import changes, saving
from tuyere.core.stations.size.form import read_size
from tuyere.core.stations.size.rank import Wishes, listed, pareto, rank
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.shaft import read_shaft
from tuyere.core.stations.size.stock import choices, kinds

RPM = math.pi / 30
WIDE = replace(FAN, tolerance=0.05, centre_low_m=0.4, centre_high_m=0.9)
BASE = DriveSpec(V_BELT, centre_line_deg=30)


@pytest.mark.parametrize("family", choices())
@pytest.mark.parametrize("rotation", ["clockwise", "counter-clockwise"])
def test_a_candidate_on_the_sheet_is_what_the_search_said(family: str, rotation: str) -> None:
    """The sheet's own steps give the search's capacity, centres, pull and speed; and the two shafts pull at each other alike (statics)."""
    lies = {"centre_line_deg": BASE.centre_line_deg, "rotation": rotation}
    problem = replace(WIDE, families=frozenset({family}), idler="slack side, outside", surroundings="dusty or wet", tolerance=0.1, **lies)
    ranked = rank(problem, search(problem, kinds()), Wishes())
    assert ranked
    for n in listed(ranked, 8, 1):
        one = by_key(problem, ranked.key(n), kinds())
        judged = one.judged(problem)
        assert judged.failures == () and judged.measures
        sheet = solve(spec_of(problem, one, judged, replace(BASE, rotation=rotation)))
        figures, m = sheet.figures, judged.measures
        found = [figures[k].value_si for k in ("capacity", "design_power", "shaft_pull", "centre_distance", "driven_speed")]
        assert found == pytest.approx([m.capacity_w, m.design_w, m.pull_n, m.centre_m, m.driven_speed], rel=1e-6)
        assert not any(v.tone is Tone.STOP for v in sheet.verdicts)
        assert sheet.drawing
        a, b = sheet.drawing.wheels
        assert a.pull_x_n is not None and b.pull_x_n is not None and a.pull_y_n is not None and b.pull_y_n is not None
        assert (a.pull_x_n + b.pull_x_n, a.pull_y_n + b.pull_y_n) == pytest.approx((0, 0), abs=1e-6 * m.pull_n)
        assert math.hypot(a.pull_x_n, a.pull_y_n) == pytest.approx(m.pull_n)
        # A small driver's pull leans from the line of centres to the strand that pulls.
        tight, slack = sorted(sheet.drawing.spans, key=lambda s: not s.tight)
        lean = [math.cos(s.normal_rad) * a.pull_x_n + math.sin(s.normal_rad) * a.pull_y_n for s in (tight, slack)]
        assert lean[0] >= lean[1] - 1e-9 or a.outside_radius_m > b.outside_radius_m


@given(st.floats(math.radians(80), math.pi), st.floats(10, 5000))
def test_v_belt_strands_follow_the_arc_factor(wrap: float, effective: float) -> None:
    """T1 = 1.25 Te/K and T2 = (1.25 - K) Te/K: the algebra of the printed arc factor at 5 to 1 (IP-20, from memory)."""
    found = strands_at_ratio(effective, float(tension_ratio(section("B"), wrap)[0]))
    k = ip20.arc_factor(wrap)
    assert found == Strands(pytest.approx(1.25 * effective / k), pytest.approx((1.25 - k) * effective / k), 0.0)


def test_pull_over_effective_pull_is_the_handbooks_overhung_factor() -> None:
    """At half a turn: chain 1, toothed about 1.3 to 1.5, V 1.5, flat 2 to 3 (Machinery's Handbook, from memory)."""
    ratios = {
        "chain": chain_ratio(math.pi),
        "round": toothed_ratio(profile("H8M"), math.pi),
        "straight": toothed_ratio(profile("H"), math.pi),
        "v": tension_ratio(section("5V"), math.pi),
        "flat": flat_ratio(flat_belts()["polyamide 0.11in"].friction, math.pi),
    }
    over = {}
    for name, found in ratios.items():
        ratio = float(found[0])
        over[name] = 1.0 if math.isinf(ratio) else (ratio + 1) / (ratio - 1)
    assert over == {
        "chain": 1.0,
        "round": pytest.approx(1.29, abs=0.01),
        "straight": pytest.approx(1.5),
        "v": pytest.approx(1.5),
        "flat": pytest.approx(2.0),
    }


def test_widths_of_nema_shafts_obey_their_own_rule() -> None:
    """Narrow drives to the usable shaft, classical to twice that less 1/4 in.

    The rule of NEMA MG 1, against its frame table (from memory).
    """
    shaft = {r["frame"]: float(r["length"]) for r in rows("motor_frames") if r["standard"] == "NEMA"}
    held = 0
    for r in rows("nema_motor_sheaves"):
        frame = r["frame"] if r["frame"] in shaft else f"{r['frame']}T"
        if frame in shaft:
            held += 1
            assert float(r["narrow_max_width"]) == pytest.approx(shaft[frame], abs=0.13), frame
        if r["classical_max_width"]:
            assert float(r["classical_max_width"]) == pytest.approx(2 * float(r["narrow_max_width"]) - 0.25, abs=0.01), r["frame"]
    assert held > 40


def test_motor_limits() -> None:
    ten = limit(to_si(10, "power", "hp"), 1760 * RPM, "215T")
    assert isinstance(ten, MotorLimit) and from_si(ten.classical_m, "length", "in") == pytest.approx(
        3.8
    )  # NEMA MG 1, as printed (from memory)
    plain = limit(to_si(40, "power", "hp"), 1775 * RPM)
    assert (
        isinstance(plain, MotorLimit)
        and from_si(plain.classical_m, "length", "in") == pytest.approx(6.0)
        and plain.classical_width_m is None
    )
    assert isinstance(limit(to_si(40, "power", "hp"), 300 * RPM), NotJudged)
    by_power = limit(FAN.power_w, FAN.driver_speed)
    assert isinstance(by_power, MotorLimit)
    tight = replace(FAN, motor=by_power)
    small = search(tight, kinds())
    assert small.killed["motor"] > 0 and small.feasible < search(FAN, kinds()).feasible


def test_duties_by_family() -> None:
    """ACA.

    Smooth electric 1.0, heavy shock engine 1.7; IP-24 hammer mills 1.7, 1.9, 2.1 and 0.3 more speeding up 2.5 times (from memory).
    """
    assert (
        service_factor(family("roller chain"), "light", "normal", 8)[0] == 1.0
        and service_factor(family("roller chain"), "heavy", "high", 8)[0] == 1.7
    )
    assert [service_factor(family("synchronous"), "heavy", "normal", h)[0] for h in (4, 8, 20)] == [1.7, 1.9, 2.1]
    assert service_factor(family("synchronous"), "heavy", "normal", 8, 2.6)[0] == pytest.approx(2.2)
    assert service_factor(family("v-belt"), "heavy", "normal", 8, 1, "slack side, outside")[0] == pytest.approx(1.4)
    with pytest.raises(duties.OutOfRangeError):
        service_factor(family("roller chain"), "gentle", "normal", 8)


@given(st.lists(st.tuples(st.integers(0, 8), st.integers(0, 8)), min_size=1, max_size=40), st.booleans(), st.booleans())
def test_the_unbeaten_are_those_that_nothing_beats(points: list[tuple[int, int]], more_x: bool, more_y: bool) -> None:
    x, y = (np.array(c, dtype=float) for c in zip(*points, strict=True))
    sx, sy = (-1 if more_x else 1), (-1 if more_y else 1)

    def beaten(i: int) -> bool:
        return any(sx * x[j] <= sx * x[i] and sy * y[j] <= sy * y[i] and (x[j], y[j]) != (x[i], y[i]) for j in range(len(x)))

    assert pareto(x, y, more_x, more_y).tolist() == [not beaten(i) for i in range(len(x))]


def test_weighing_one_thing_alone_puts_its_best_first() -> None:
    searched = search(WIDE, kinds())
    for wish, measure, best in (
        ("pull", "pull", np.min),
        ("width", "width", np.min),
        ("wheels", "wheels", np.min),
        ("pieces", "pieces", np.min),
    ):
        ranked = rank(WIDE, searched, Wishes({wish: 1.0}))
        assert ranked and ranked.measures[measure][listed(ranked, 1, 1)[0]] == pytest.approx(best(ranked.measures[measure]))


def test_heat_and_dirt_count() -> None:
    assert {f.kind.family for f in search(replace(WIDE, ambient_c=75), kinds()).found} == {"synchronous", "roller chain", "flat belt"}
    b = next(k for k in kinds() if k.name == "B")
    hot = at_places(WIDE, b, 0, 0, 0, 0).judged(replace(WIDE, ambient_c=75)).failures[0]
    assert hot.constraint == "heat" and "167 °F (75 °C)" in hot.says and hot.share == pytest.approx(0.25)
    dusty = replace(WIDE, surroundings="abrasive dust or oil")
    for of in registry.FAMILIES:
        assert dusty.service_factor(of)[0] - WIDE.service_factor(of)[0] == pytest.approx(0.2)


def test_a_flat_wheel_that_stays_gets_v_belts_on_it() -> None:
    """An old flywheel of 24 in stays: only V-flat and flat belts run on it, and never with the grooved sheave the larger."""
    wheel = Kept("flat", outside_m=0.61)
    problem = replace(
        WIDE, driven_speed=WIDE.driver_speed / 5, centre_high_m=1.2, tolerance=0.06, keep_driven=wheel, families=frozenset(choices())
    )
    found = search(problem, kinds())
    assert {f.kind.family for f in found.found} == {"V-flat", "flat belt"}
    on_flat = next(f for f in found.found if f.kind.family == "V-flat")
    kept = on_flat.driven_wheels[0]
    assert kept.outside_m == 0.61 and kept.line_m == pytest.approx(v_belt.line_on_flat(on_flat.kind.of, 0.61))
    assert (
        search(replace(problem, driven_speed=WIDE.driver_speed * 5, keep_driven=Kept("flat", outside_m=0.1)), [on_flat.kind]).feasible == 0
    )


def test_gears_and_couplings_stand_only_before() -> None:
    assert not {k.traits for k in kinds()} & {"gears, worm", "direct coupling"}
    said = [h for h, _ in changes("gears, worm", "V-belt, joined", False, 1.0)]
    assert {"A shaft that was turned is now pulled", "It can slip now", "It pulls its shafts harder"} <= set(said)
    assert saving(1000, 1, 1000, None, "gears, worm", "synchronous", False).energy_j > 0


def test_when_nothing_holds_it_says_what_giving_way_lets_in() -> None:
    wide = replace(FAN, power_w=to_si(300, "power", "hp"), width_most_m=0.03)
    assert search(wide, kinds()).feasible == 0
    eased = relaxed(replace(FAN, centre_low_m=0.05, centre_high_m=0.06), kinds())
    assert all(r.lets_in > 0 for r in eased)
    kept = replace(FAN, keep_driver=Kept("40", teeth=18), families=frozenset({"v-belt"}))
    assert {r.constraint for r in relaxed(kept, kinds())} >= {"family", "kept"}


def test_a_question_starts_from_what_comes_nearest_and_names_the_amount() -> None:
    problem = replace(FAN, power_w=to_si(60, "power", "hp"))
    kind = next(k for k in kinds() if k.name == "A")
    i, j, m, k = nearest(problem, kind)
    one = at_places(problem, kind, i, j, m, k)
    judged = one.judged(problem)
    assert by_key(problem, one.key, kinds()) == one
    assert [f.constraint for f in judged.failures] == ["power"]
    assert 0 < judged.failures[0].share < 1 and f"{judged.failures[0].share:.0%} short" in judged.failures[0].says
    for key in ("A|1|2|3", one.key + "9", one.key.replace("A", "Q", 1)):
        with pytest.raises(CandidateError):
            by_key(problem, key, kinds())
    with pytest.raises(CandidateError):
        at_places(problem, kind, 999, j, m, k)


def test_changing_kinds_saves_and_risks() -> None:
    """90 % to 98 % of 10 kW used for 1000 h is 907 kWh: plain arithmetic; shaft power stays."""
    found = saving(10_000, 1.0, 1000, 0.2, "V-belt, wrapped", "synchronous", True)
    assert found.energy_j / 3.6e6 == pytest.approx(10 / 0.90 * 1000 - 10 / 0.98 * 1000) and found.money == pytest.approx(
        0.2 * 907.03, rel=1e-3
    )
    assert saving(10_000, 1.0, 1000, None, "synchronous", "V-belt, wrapped", False).energy_j < 0
    said = [h for h, _ in changes("V-belt, wrapped", "synchronous", True, 1.3)]
    assert {"Slip is no longer a fuse", "It stands shock less well", "It wants truer alignment", "It will be louder"} <= set(said)
    assert any("torque falls" in h for h in said)
    back = [h for h, _ in changes("roller chain", "V-belt, cogged", False, 1.0)]
    assert {"It can slip now", "No more oil", "It pulls its shafts harder"} <= set(back) and not any("torque" in h for h in back)
    assert set(traits()) >= {k.traits for k in kinds()}


def test_oiling_by_speed() -> None:
    """Type A, B and C by chain speed: ASME B29.1 and the American Chain Association (from memory, medium)."""
    ways = [lubrication(chain("80"), to_si(v, "velocity", "ft/min")) for v in (150, 500, 1600)]
    assert [w.way for w in ways if w] == ["by hand or drip", "oil bath or slinger disc", "pumped oil stream"]
    assert lubrication(chain("16B"), 1.0) and lubrication(chain("CA550"), 1.0) is None


ASKED = {"power": "30 hp", "driver_speed": "1765", "driven_speed": "2600", "centre_low": "26", "centre_high": "30"}


def read(words: dict[str, str] | None = None, **typed: str):  # type: ignore[no-untyped-def]
    quantities = {k: Typed(v) for k, v in {**ASKED, **typed}.items()}
    return read_size(quantities, {"driven_class": "heavy", **(words or {})}, [], [], DriveSpec(V_BELT), Page())


def test_the_form_of_what_is_asked() -> None:
    found = read().problem
    assert isinstance(found, Demands) and found.tolerance == pytest.approx(0.03) and found.driven_class == "heavy"
    assert read({"tolerance": "5 %"}).problem.tolerance == pytest.approx(0.05)
    assert [p.field for p in read({"tolerance": "a lot"}).problems] == ["tolerance"]
    assert [p.field for p in read(centre_high="20").problems] == ["centre_high"]
    assert [p.field for p in read({"keep_driver_fits": "B"}).problems] == ["keep_driver_fits"]
    assert read({"keep_driver_fits": "B"}, keep_driver_outside="5.75").problem.keep_driver.fits == "B"
    assert read({"driven_class": "odd"}).missing == ("what kind of machine it drives",)
    assert "the driver's power" in read(power="-").missing
    assert [p.field for p in read(driver_shaft="two").problems] == ["driver_shaft"]


def test_what_the_pull_does_to_a_shaft() -> None:
    one = by_key(FAN, rank_key(FAN, "v-belt"), kinds())
    spec = spec_of(FAN, one, one.judged(FAN), DriveSpec(V_BELT))
    page = solve_page(spec)
    typed = {k: Typed(v) for k, v in {"overhang": "3", "bearing_span": "12", "shaft": "1 1/8", "bearing_rating": "3000 lbf"}.items()}
    found = read_shaft(typed, {"side": "driven", "bearing": "ball"}, Pair(spec, page))
    pull = page.values["shaft_pull"].n
    near, far = (found.figures[k].value_si for k in ("near_bearing", "far_bearing"))
    assert near + far == pytest.approx(pull) and far == pytest.approx(-pull * 3 / 12), "forces and moments balance"
    # ISO 281: C = P runs a million turns.
    hours = 1e6 * (to_si(3000, "force", "lbf") / near) ** 3 / (page.values["driven_speed"].n / math.tau) / 3600
    assert found.figures["bearing_life"].value_si / 3600 == pytest.approx(hours)
    assert dict(found.life)[1.5] == pytest.approx(0.296, abs=0.001)
    crank = read_shaft({}, {"side": "driver", "crank": "yes"}, Pair(spec, page))
    assert "Not judged" in " ".join(v.headline for v in crank.verdicts)
    held = read_shaft({"limit": Typed("20 lbf")}, {"side": "driver"}, Pair(spec, page))
    assert any(v.topic == "limit" and v.tone is Tone.WATCH for v in held.verdicts)
    # The factor's own formula the other way round (NEMA practice, 126 000 K hp/(d n), lbf and in): a wheel that size pulls just the limit.
    least = from_si(held.figures["least_wheel"].value_si, "length", "in")
    hp, rpm = from_si(FAN.power_w, "power", "hp"), from_si(FAN.driver_speed, "rotation", "rpm")
    assert 126_050 * hp * 1.5 / (least * rpm) == pytest.approx(20, rel=1e-3)
    assert read_shaft({}, {}, Pair(DriveSpec(V_BELT), Page())).verdicts[0].headline == "The pull is not known yet"


def rank_key(problem: Demands, family: str) -> str:
    ranked = rank(problem, search(replace(problem, families=frozenset({family})), kinds()), Wishes())
    assert ranked
    return ranked.key(listed(ranked, 1, 1)[0])


def test_a_short_set_carries_what_so_many_belts_would() -> None:
    problem = replace(WIDE, power_w=to_si(15, "power", "hp"), kinds=frozenset({"A", "AX", "B"}))
    ranked = rank(problem, search(problem, kinds()), Wishes())
    assert ranked
    n = next(n for n in range(ranked.size) if float(ranked.key(n).rsplit("|", 1)[1]) == 4)
    one = by_key(problem, ranked.key(n), kinds())
    judged = one.judged(problem)
    assert judged.measures
    spec = spec_of(problem, one, judged, BASE)
    short = solve(spec).short
    assert [s.left for s in short] == [3, 2, 1] and [s.days for s in short] == sorted((s.days for s in short), reverse=True)
    for s in short:
        would = one.kind.rate(one.driver, one.driven, one.length, s.left, judged.measures.wrap_rad, problem)
        assert s.of_load == pytest.approx(would / judged.measures.design_w) and s.of_set == s.left / 4
    assert short_sets(fit(wearing(spec, belt=parse_designation(f"4/{one.key.split('|')[3]}"), belt_count=1)), solve_page(spec)) == (), (
        "a band is one belt"
    )
