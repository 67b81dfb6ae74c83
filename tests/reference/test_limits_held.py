"""Limits that keep people and machines whole, held alike by the sheet, the search and the target speed; each rule by its source."""

import math
from collections.abc import Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point

from tests.conftest import examples
from tests.drives import wearing
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Given, Typed
from tuyere.core.basis.uncertainty import exact
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.layout.pair import Pair
from tuyere.core.drive.sheet.solve import Sheet, solve, solve_page
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds import synchronous, v_belt
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.flat import rating as flat
from tuyere.core.kinds.flat.drive import FlatLine
from tuyere.core.kinds.flat.loop import FlatLoop
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.motor import MotorLimit, NotJudged, limit
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.roller_chain import chain
from tuyere.core.kinds.roller_chain import rating as chain_rating
from tuyere.core.kinds.roller_chain.drive import ChainLine
from tuyere.core.kinds.roller_chain.loop import ChainLoop
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.synchronous import profile
from tuyere.core.kinds.synchronous.drive import ToothedLine
from tuyere.core.kinds.synchronous.loop import ToothedLoop
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.belt_path import Pulley, along_line, belt_path, moved, take_up_for
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.stations.size.search import Found, search
from tuyere.core.stations.size.shaft import read_shaft
from tuyere.core.stations.size.stock import kinds
from tuyere.core.stations.speed.machine import Limits, Motor, Now, feel

INCH, HP, RPM, LBF = 0.0254, to_si(1, "power", "hp"), to_si(1, "rotation", "rpm"), to_si(1, "force", "lbf")
FT_MIN = to_si(1, "velocity", "ft/min")


def given_value(value: float) -> Given:
    return Given(value, 0.0, Origin.CHOSEN, "test")


def v_drive(section: str, **more: str) -> DriveSpec:
    typed = {
        "driver_power": "5 hp",
        "driver_speed": "1750 rpm",
        "driver_diameter": "5.75",
        "driven_diameter": "11.35",
        "centre_distance": "24",
        "hours_per_day": "10 h",
    }
    words = {"section": section, "driven_class": "moderate", "belt_count": more.pop("belt_count", "2"), "belt": more.pop("belt", "")}
    return read_form(V_BELT, {k: Typed(v, "in") for k, v in (typed | more).items()}, words).spec


def line_drive(line: LineDrive, power_hp: float, rpm: float, driven_class: str = "light") -> Sheet:
    return solve(
        DriveSpec(
            line.family,
            line,
            driver_power=given_value(power_hp * HP),
            driver_speed=given_value(rpm * RPM),
            driven_class=driven_class,
            hours_per_day=given_value(8 * 3600),
        )
    )


def wheel(line_m: float, rim_m: float, teeth: int | None = None) -> LineWheel:
    return LineWheel(line_m, rim_m, 0.0, Origin.CHOSEN, teeth)


def toothed(name: str, z1: int, z2: int, centre_m: float, width_m: float) -> LineDrive:
    of = profile(name)
    wheels = (wheel(synchronous.pitch_diameter(of, z), synchronous.outside_diameter(of, z), z) for z in (z1, z2))
    return ToothedLine(*wheels, centre_m, ToothedLoop(of, width_m))


def of_chain(name: str, z1: int, z2: int, pitches: int, centre_m: float) -> LineDrive:
    of = chain(name)
    wheels = (wheel(of.pitch_m / math.sin(math.pi / z), of.pitch_m * (0.6 + 1 / math.tan(math.pi / z)), z) for z in (z1, z2))
    return ChainLine(*wheels, centre_m, ChainLoop(of, 1, pitches))


def every(found: tuple[Found, ...]) -> Iterator[tuple[Found, int]]:
    return ((f, k) for f in found for k in range(f.size))


# ---- rims, teeth, wraps in the search -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("hp", "driver", "driven", "low", "high"), [(40, 1750, 3250, 30, 50), (10, 3500, 3500, 15, 30), (15, 1750, 300, 12, 60)]
)
def test_no_drive_is_offered_past_its_limits(hp: float, driver: float, driven: float, low: float, high: float) -> None:
    """Cast iron's rim 6500 ft/min (IP-20), sprockets' steel 10 000; 120° on the small wheel (ISO 606, handbooks); IP-24's least teeth."""
    problem = Demands(hp * HP, driver * RPM, driven * RPM, 0.05, "moderate", centre_low_m=low * INCH, centre_high_m=high * INCH)
    found = search(problem, kinds())
    assert found.feasible > 50
    for f, k in every(found.found):
        d, big = f.driver_wheels[f.driver[k]], f.driven_wheels[f.driven[k]]
        turns = driver * RPM * d.rolls_m / big.rolls_m
        most = (10_000 if f.kind.family == "roller chain" else 6500) * FT_MIN
        assert max(d.outside_m * driver * RPM, big.outside_m * turns) / 2 <= most * (1 + 1e-9), (d.name, big.name)
        if f.kind.family != "synchronous":
            assert math.degrees(f.wrap_rad[k]) >= 120 - 1e-6
        else:
            small, fast = min(d.teeth or 0, big.teeth or 0), max(driver * RPM, turns)
            assert small >= synchronous.least_teeth_at(profile(f.kind.name), fast)


@pytest.mark.parametrize(
    ("name", "rpm", "teeth"),
    [
        *(("H", n, z) for n, z in ((1160, 16), (1750, 18), (3500, 20))),
        *(("XL", n, z) for n, z in ((1160, 10), (1750, 12), (3500, 12))),
        *(("L", n, z) for n, z in ((1160, 12), (1750, 14), (3500, 16))),
        *(("XH", n, z) for n, z in ((870, 22), (1160, 24), (1750, 26))),
        ("H8M", 1750, 32),
        ("H14M", 870, 28),
    ],
)
def test_the_least_toothed_pulley_grows_with_speed(name: str, rpm: float, teeth: int) -> None:
    """IP-24; GB/T 11362; JB/T 7512 (from memory). The sheet says so, and calls no smaller one good."""
    assert synchronous.least_teeth_at(profile(name), rpm * RPM) == teeth
    small, right = (
        line_drive(toothed(name, z, 2 * z, 0.9 if name != "H14M" else 2.0, profile(name).widths_m[-1]), 0.01, rpm)
        for z in (teeth - 1, teeth)
    )
    said = [next(v.tone for v in s.verdicts if v.topic == "rating") for s in (small, right)]
    assert said == [Tone.WATCH, Tone.GOOD]
    assert [any(f.code == "small-sheave" for f in s.flags) for s in (small, right)] == [True, False]


# ---- chain ----------------------------------------------------------------------------------------------------------------------------


def test_the_roller_limit_counts_the_chains_length_and_hours() -> None:
    """Shigley, eq. 17-33: (L_p/100)^0.4 (15 000/h)^0.4. 80, 17 teeth at 1750 rpm on 56 pitches: 12.9 hp, and 16.3 on 100."""
    short, usual = (chain_rating.rated_power(chain("80"), 17, 1750 * RPM, pitches=n) for n in (56, 100))
    assert (short.power_w / HP, usual.power_w / HP) == (pytest.approx(12.9, abs=0.05), pytest.approx(16.3, abs=0.05))
    assert chain_rating.rated_power(chain("80"), 17, 1750 * RPM, life_h=30_000).power_w == pytest.approx(usual.power_w * 0.5**0.4)
    slow = [chain_rating.rated_power(chain("80"), 17, 300 * RPM, pitches=n).power_w for n in (56, 100)]
    assert slow[0] == slow[1]  # link plates are a matter of fatigue: their branch has no such factor
    sheet = line_drive(of_chain("80", 17, 42, 56, 0.4), 15, 1750)
    assert next(v for v in sheet.verdicts if v.topic == "rating").tone is not Tone.GOOD


def test_an_odd_count_wants_an_offset_link_and_carries_less() -> None:
    """American Chain Association: an offset link leaves about 65 %; ISO/DIN 0.8 of the strength (from memory): the lower is taken."""
    odd, even = (chain_rating.rated_power(chain("60"), 19, 600 * RPM, pitches=n).power_w for n in (81, 80))
    assert odd == pytest.approx(0.65 * even)
    assert any(f.code == "offset-link" and "65%" in f.sentence for f in line_drive(of_chain("60", 19, 38, 81, 0.5), 5, 600).flags)


def test_a_slow_chain_is_held_by_its_strength_too() -> None:
    """Textbooks (GB/T 18150).

    Under 0.6 m/s breaking load over working pull 4 to 8; 7 here. 25 strands of fatigue never ask it, one jolt does.
    """
    of, v = chain("60"), 0.3
    n = v / (17 * of.pitch_m) * math.tau
    assert chain_rating.strength_power(of, 1, v) == pytest.approx(of.strength_n / 7 * v)  # type: ignore[operator]
    assert math.isinf(chain_rating.strength_power(of, 1, 0.61))
    sheet = line_drive(of_chain("60", 17, 34, 80, 0.6), 2.5, from_si(n, "rotation", "rpm"), "heavy")
    assert sheet.figures["breaking_safety"].value_si == pytest.approx(of.strength_n * v / (2.5 * HP * 1.5), rel=1e-3)  # type: ignore[operator]
    assert any(f.code == "weak-chain" for f in sheet.flags)


def test_few_teeth_ripple() -> None:
    """Shigley, eq. 17-31, by the polygon itself: the chain's speed between a corner and a flat, over its mean."""
    for teeth in (9, 11, 17, 25):
        half = math.pi / teeth
        corner, across = 1 / math.sin(half), 1 / math.tan(half)
        assert chain_rating.polygon_ripple(teeth) == pytest.approx((corner - across) / 2 / (teeth / math.tau), rel=1e-9)


# ---- motors and shafts ----------------------------------------------------------------------------------------------------------------


def test_the_motor_table_by_power_never_undercuts_the_frames() -> None:
    """NEMA MG 1 by frame against the table by power and speed, row by row, classical and narrow (from memory)."""
    nominal = {3600: 3500, 1800: 1750, 1200: 1160, 900: 870}
    held = 0
    for r in rows("nema_motor_sheaves"):
        found = limit(float(r["hp"]) * HP, nominal[int(r["rpm"])] * RPM)
        if isinstance(found, NotJudged):
            continue
        held += 1
        for has, printed in ((found.classical_m, r["classical_min"]), (found.narrow_m, r["narrow_min"])):
            assert not printed or has >= float(printed) * INCH - 1e-9, r
    assert held > 60


@pytest.mark.parametrize(
    ("hp", "rpm", "classical", "narrow"),
    [
        (20, 1750, 4.6, 4.4),
        (25, 1750, 5.0, 4.4),
        (30, 1750, 5.4, 5.2),
        (15, 1160, 4.6, 4.4),
        (20, 1160, 5.4, 5.2),
        (10, 870, 4.6, 4.4),
        (15, 870, 5.4, 5.2),
        (50, 870, 9.0, 8.4),
        (5, 3450, 2.6, 2.4),
    ],
)
def test_classical_and_narrow_belts_have_their_own_least_sheave(hp: float, rpm: float, classical: float, narrow: float) -> None:
    """NEMA MG 1; IP-20, IP-22 motor table (from memory)."""
    found = limit(hp * HP, rpm * RPM)
    assert isinstance(found, MotorLimit)
    assert (found.classical_m / INCH, found.narrow_m / INCH) == (pytest.approx(classical), pytest.approx(narrow))


@pytest.mark.parametrize(
    ("frame", "stop"), [("286TS", True), ("444TS", True), ("56", False), ("215T", False), ("IEC 132M", False), ("999X", False)]
)
def test_a_frame_without_a_row_is_not_judged_and_a_short_shaft_stops(frame: str, stop: bool) -> None:
    """NEMA MG 1: TS shafts are for couplings. A 25 hp motor has no frame 56 or 215T: nothing falls back to power and speed."""
    found = limit(25 * HP, 1760 * RPM, frame)
    assert isinstance(found, NotJudged) and found.stop is stop
    spec = v_drive("B", driver_power="25 hp", belt_count="4")
    said = [v for v in read_shaft({}, {"motor": "yes", "frame": frame}, Pair(spec, solve_page(spec))).verdicts if v.topic == "motor"]
    assert [v.tone for v in said] == [Tone.STOP if stop else Tone.OPEN]


def test_torsion_is_judged() -> None:
    """Old transmission-shafting code (ASME, from memory): 6000 psi with a keyway, 8000 without. 25 hp at 1750 on 3/4 in: 10 900 psi."""
    spec = v_drive("B", driver_power="25 hp", belt_count="4")

    def read(size: str, keyway: str = "") -> tuple[float, Tone]:
        found = read_shaft({"shaft": Typed(size, "in")}, {"keyway": keyway}, Pair(spec, solve_page(spec)))
        return found.figures["shaft_torsion"].value_si / 6894.757, next(v.tone for v in found.verdicts if v.topic == "torsion")

    shear, tone = read("3/4")
    assert shear == pytest.approx(10_900, rel=0.005) and tone is Tone.WATCH
    # Moderate jolts count 1.25 times: 25 hp at 1750 rpm needs (16·1.25·900/π/6000)^(1/3) = 0.98 in with a keyway, 0.89 in without.
    assert [read(s)[1] for s in ("0.95", "1")] == [Tone.WATCH, Tone.OPEN] and read("0.95", "no")[1] is Tone.OPEN


def test_motor_load_by_amps_is_a_phasor_sum() -> None:
    """Any text on induction motors: I² = I0² + (I_FL² - I0²) p².

    Half load on a motor of 20 A and 8 A idle draws 12.17 A; linear read 35 %.
    """
    motor = Motor(10_000, 1.0, 20.0, 8.0)
    for load in (0.0, 0.25, 0.5, 0.8, 1.1):
        amps = abs(complex(load * math.sqrt(20**2 - 8**2), 8))  # working current at right angles to the magnetizing one
        assert motor.amps_at(exact(load * 10_000)).n == pytest.approx(amps)  # type: ignore[union-attr]
        assert motor.power_at(exact(amps)).n == pytest.approx(load * 10_000, abs=1e-3)  # type: ignore[union-attr]


@pytest.mark.parametrize("kind", ["fan", "centrifugal pump", "positive displacement", "constant torque"])
def test_a_rise_of_speed_is_never_just_good(kind: str) -> None:
    """A wheel past its class limit bursts: where the highest speed is not known it is asked for, and said to be not judged."""
    motor, now = Motor(10_000, 1.0), Now(exact(100.0), exact(1000.0), "as typed")
    unknown, known = (feel(kind, now, 115.0, motor, Limits(most)) for most in (None, 130.0))  # type: ignore[arg-type]
    assert not any(v.tone is Tone.GOOD for v in unknown.verdicts if v.topic == "machine") and any(
        "not judged" in v.headline for v in unknown.verdicts
    )
    assert any(v.tone is Tone.GOOD for v in known.verdicts)


# ---- wheels under the least, overlapping wheels, take-ups -------------------------------------------------------------------------------


@pytest.mark.parametrize(("section", "size", "least"), [("5V", 4.9, 7.1), ("B", 4.5, 5.75), ("3VX", 2.0, 2.2), ("C", 7.0, 9.4)])
def test_no_good_verdict_stands_beside_a_wheel_under_the_least(section: str, size: float, least: float) -> None:
    """IP-20, IP-22 least diameters (from memory): flag and verdict agree."""
    for diameter, small in ((size, True), (least + 0.1, False)):
        sheet = solve(v_drive(section, driver_diameter=f"{diameter}", driven_diameter="12", driver_power="0.2 hp", belt_count="4"))
        rating = next(v for v in sheet.verdicts if v.topic == "rating")
        assert any(f.code == "small-sheave" for f in sheet.flags) is small and (rating.tone is Tone.GOOD) is not small, rating


def test_overlapping_wheels_are_refused() -> None:
    """Plane geometry: two discs in one plane are farther apart than their radii together."""
    sheet = line_drive(toothed("XL", 20, 20, 0.0127, 0.0095), 0.1, 1000)
    assert [p.field for p in sheet.problems] == ["centre_distance"] and "capacity" not in sheet.figures
    with pytest.raises(GeometryError, match="overlap"):
        open_belt.centre_distance(0.3, 0.3, open_belt.belt_length(0.3, 0.3, 0.31) - 0.025)
    with pytest.raises(GeometryError, match="overlap"):
        open_belt.wraps(0.2, 0.6, 0.39)


def test_a_crossed_belt_may_wrap_more_than_300_degrees() -> None:
    """200 and 200 mm at 220 mm: 180° + 2 asin(400/440) = 310.8°, and the length is the textbook's."""
    path = belt_path([Pulley(0, 0, 0.1, 1), Pulley(0.22, 0, 0.1, -1)], crossed=True)
    lean = math.asin(0.2 / 0.22)
    assert path.wraps_rad == pytest.approx((math.pi + 2 * lean,) * 2) and math.degrees(path.wraps_rad[0]) > 310
    assert path.length_m == pytest.approx(2 * math.sqrt(0.22**2 - 0.2**2) + 0.2 * (math.pi + 2 * lean))


@examples(60)
@given(st.floats(0.1, 0.5), st.floats(-0.25, 0.25), st.floats(0.04, 0.12), st.floats(-0.15, 0.3))
def test_every_place_offered_for_a_take_up_is_one_where_the_belt_runs(x: float, y: float, radius: float, more: float) -> None:
    """Against Shapely: no disc overlaps another, and no run passes through a disc that it does not touch."""
    wheels = [Pulley(0, 0, 0.08, 1, "a"), Pulley(0.6, 0, 0.12, 1, "b"), Pulley(x, y, radius, 1 if y > 0 else -1, "take-up")]
    order = [wheels[0], wheels[2], wheels[1]] if y <= 0 else [wheels[0], wheels[1], wheels[2]]
    at, slide = order.index(wheels[2]), along_line(x, y, math.pi / 2)
    try:
        length = belt_path(order).length_m + more
        travel = take_up_for(order, at, slide, length, -0.4, 0.4)
    except GeometryError:
        return
    there = moved(order, at, slide(travel))
    path = belt_path(there)
    assert path.length_m == pytest.approx(length, abs=1e-6)
    discs = [Point(p.x_m, p.y_m).buffer(p.radius_m, 256) for p in there]
    assert not any(a.buffer(-1e-4).intersects(b.buffer(-1e-4)) for i, a in enumerate(discs) for b in discs[:i])
    for k, run in enumerate(path.runs):
        line = LineString([(run.x1_m, run.y1_m), (run.x2_m, run.y2_m)])
        assert not any(line.intersects(d.buffer(-1e-3)) for i, d in enumerate(discs) if i not in (k, (k + 1) % len(discs)))


# ---- flat belts -----------------------------------------------------------------------------------------------------------------------


@given(
    st.sampled_from(["leather 1ply medium", "polyamide 0.05in", "polyamide 0.13in"]),
    st.floats(0.05, 0.3),
    st.floats(3, 25),
    st.floats(2.2, 3.14),
)
def test_at_its_rating_a_flat_belt_is_at_its_allowable_tension(name: str, width: float, v: float, wrap: float) -> None:
    """Handbooks: the strands' ratio that a design supposes (four fifths of the friction, 3 at most) sets loads and rating alike."""
    of = flat_belts()[name]
    rated = flat.rated_power(of, width, 0.4, v, wrap)
    if rated.power_w <= 0:
        return
    ratio = min(math.exp(0.8 * of.friction * wrap), 3.0)
    effective = rated.power_w / v
    assert effective / (1 - 1 / ratio) + rated.centrifugal_n == pytest.approx(rated.tight_n)


def test_a_polyamide_belt_past_its_tension_is_not_good() -> None:
    """Polyamide 0.13 in, 16 to 36 in, 10 in wide, 60 hp at 860 rpm.

    By the loads its tight strand passes 94 lbf an inch, so it does not carry it.
    """
    of = flat_belts()["polyamide 0.13in"]
    small, large = (wheel(rim * INCH + of.thickness_m, rim * INCH) for rim in (16, 36))
    line = FlatLine(small, large, 8 * 12 * INCH, FlatLoop(of.thickness_m, of, 10 * INCH))
    sheet = line_drive(line, 60, 860, "moderate")
    rated = flat.rated_power(of, 10 * INCH, 16 * INCH, sheet.figures["belt_speed"].value_si, sheet.figures["wrap_driver"].value_si)
    over = sheet.figures["tight_strand"].value_si > rated.tight_n
    rating = next(v for v in sheet.verdicts if v.topic == "rating")
    assert over and rating.tone is Tone.WATCH


@pytest.mark.parametrize(("speed", "lost"), [(20, 0.12), (33, 0.32)])
def test_rubber_canvas_loses_the_centrifugal_part_too(speed: float, lost: float) -> None:
    """Four-ply heavy rubber canvas, by m v² over the tight strand at full friction: 12 % at 20 m/s, 32 % at 33 m/s (derived)."""
    of = flat_belts()["rubber canvas 4ply heavy"]
    still = flat.rated_power(of, 0.1, 0.4, 0.1, math.pi).power_w / 0.1
    assert 1 - flat.rated_power(of, 0.1, 0.4, speed, math.pi).power_w / speed / still == pytest.approx(lost, abs=0.01)


def test_crossed_and_quarter_turn_belts_carry_less() -> None:
    """Arrangement factor of design handbooks: crossed 0.7 to 0.9, quarter-turn 0.6 to 0.8 (from memory): 0.8 and 0.7."""
    of = flat_belts()["leather 1ply medium"]
    one = flat.rated_power(of, 0.1, 0.3, 10, 3.2).power_w
    assert [flat.rated_power(of, 0.1, 0.3, 10, 3.2, lay=lay).power_w / one for lay in ("crossed", "quarter-turn")] == pytest.approx(
        [0.8, 0.7]
    )
    line = FlatLine(wheel(0.3, 0.296), wheel(0.4, 0.396), 2.5, FlatLoop(0.004, of, 0.1), "crossed")
    figures = line_drive(line, 1, 600).figures
    assert figures["capacity"].value_si > 0 and figures["wrap_driver"].value_si == pytest.approx(math.pi + 2 * math.asin(0.7 / 5))


def test_leather_has_one_speed_limit() -> None:
    """Handbooks: 5500 to 6000 ft/min; the lower, on the sheet, in the search and in the rating."""
    of = flat_belts()["leather 1ply medium"]
    line = FlatLine(wheel(0.3, 0.296), wheel(0.4, 0.396), 2.5, FlatLoop(0.004, of, 0.1))
    in_search = next(k for k in kinds() if k.name == of.name).loop.fastest[0]
    assert line.of.fastest[0] == in_search == flat.leather_limit() == pytest.approx(5500 * FT_MIN)


# ---- joined belts, get home -----------------------------------------------------------------------------------------------------------


def test_bands_and_ribs_are_two_numbers() -> None:
    """Two bands of 2/B81 are four ribs, as four singles; IP-22 wants about 2.1 in (5V) and 3.4 in (8V) to fit a band (from memory)."""
    two, four = (solve(v_drive("B", belt=name, belt_count=n)) for name, n in (("2/B81", "2"), ("B81", "4")))
    for key in ("capacity", "static_tension", "shaft_pull"):
        assert two.figures[key].value_si == pytest.approx(four.figures[key].value_si), key
    counted = wearing(v_drive("B", belt="B81", belt_count="2"), band_ribs=2)
    assert solve(counted).figures["static_tension"].value_si == pytest.approx(four.figures["static_tension"].value_si)
    for name, wanted in (("3/5V1000", 2.1), ("3/8V1000", 3.4)):
        room = v_belt.allowance(v_belt.parse_designation(name))
        assert room and room.installation_m / INCH == pytest.approx(wanted, abs=0.05)
