"""Speeds from what was typed: forms of every question, the stock search against a plain loop, trials, cones, the machine."""

import math
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.conftest import examples
from tests.drives import fit
from tuyere.core.basis.readings_file import read_file
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.sheet.solve import solve, solve_page
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.stations.speed import target as search
from tuyere.core.stations.speed.cones_form import read_cones
from tuyere.core.stations.speed.machine_form import read_machine
from tuyere.core.stations.speed.reading import read_speeds
from tuyere.core.stations.speed.trial import read_trial
from tuyere.core.stations.speed.unknown import read_unknown

RPM = math.pi / 30
INCH = 0.0254
PUMP = {
    "driver_power": "10 hp",
    "driver_speed": "1755 rpm",
    "hours_per_day": "16",
    "driver_diameter": "6.35 in",
    "driven_diameter": "8.35 in",
    "centre_distance": "35 in",
    "travel_in": "2 in",
    "travel_out": "2 5/8 in",
}
B_BELTS = {"section": "B", "belt": "B90", "belt_count": "2", "driven_class": "light"}


def typed(**texts: str) -> dict[str, Typed]:
    return {k: Typed(v, "") for k, v in texts.items()}


def sheet(words: dict[str, str] | None = None, **more: str) -> Any:
    return read_form(V_BELT, typed(**(PUMP | more)), B_BELTS | (words or {}))


def test_a_train_as_typed() -> None:
    found = read_unknown(typed(first_speed="3400 to 3600 rpm", last_speed="1450 rpm", driving_1="5 in"), {}, 1, False)
    assert found.wheels[1].found and found.wheels[1].us == "11.72 to 12.41 in" and found.shafts[0].us == "3400 to 3600 rpm"
    assert "1409 to 1491 rpm" in found.verdicts[0].detail
    teeth = read_unknown(typed(first_speed="1450 rpm", last_speed="520 rpm"), {"driving_1": "19"}, 1, True)
    driven = next(w for w in teeth.wheels if w.found)
    assert [(z.teeth, z.speed) for z in driven.whole] == [(52, "530 rpm"), (53, "520 rpm")]
    marks = read_unknown(typed(first_speed="1450 rpm"), {"marks_driving": "20", "marks_driven": "8"}, 1, False)
    assert marks.shafts[1].found and marks.shafts[1].us == "567 to 593 rpm"
    agree = read_unknown(typed(first_speed="1750 rpm", last_speed="850 rpm", driving_1="5 in", driven_1="10 in"), {"slip": "1"}, 1, False)
    assert agree.verdicts[0].tone is Tone.WATCH and "866 rpm" in agree.verdicts[0].headline and "-1.9%" in agree.verdicts[0].headline


@pytest.mark.parametrize(
    ("quantities", "words", "stages", "field"),
    [
        ({"first_speed": "fast"}, {}, 1, "first_speed"),
        ({"first_speed": "3400 to 3500 to 3600 rpm"}, {}, 1, "first_speed"),
        ({"first_speed": "1750 rpm", "driving_1": "5 in"}, {"ratio_1": "much"}, 1, "ratio_1"),
        ({"first_speed": "1750 rpm"}, {"slip": "90"}, 1, "slip"),
    ],
)
def test_a_train_that_cannot_be_read_says_so_beside_the_field(
    quantities: dict[str, str], words: dict[str, str], stages: int, field: str
) -> None:
    assert read_unknown(typed(**quantities), words, stages, False).problems[0].field == field


def test_more_than_one_unknown_is_asked_for_in_words() -> None:
    for quantities, stages, says in (
        ({"first_speed": "1750 rpm"}, 2, "One unknown at a time"),
        ({"driving_1": "5 in", "driven_1": "10 in"}, 1, "Give the speed of one shaft"),
        ({"first_speed": "1750 rpm", "driving_1": "5 in"}, 1, "one thing may be left out"),
    ):
        assert says in read_unknown(typed(**quantities), {}, stages, False).verdicts[0].headline
    three = read_unknown(typed(first_speed="1750 rpm", driving_1="5 in", driven_1="10 in"), {"ratio_1": "3"}, 1, False)
    assert "leave one of the three out" in three.verdicts[0].headline


@given(st.floats(300, 3400), st.floats(0.005, 0.08), st.sampled_from(["", "driver", "driven"]), st.booleans())
def test_the_stock_search_finds_what_a_plain_loop_finds(rpm: float, tolerance: float, keep: str, measured: bool) -> None:
    """Every pair within the tolerance, by two nested loops over the table; the pairs shown are among them, the best rank first."""
    more = {"tach_driver": "1762 rpm", "tach_driven": "1240 rpm"} if measured else {}
    spec = sheet(**more).spec
    page = solve_page(spec)
    found = search.targets(spec, page, rpm * RPM, tolerance, keep)  # type: ignore[arg-type]
    assert found
    pace = 1240 * page.values["ratio"].n if measured else 1755 * (1 - 0.0125)
    assert found.held is (measured and not -0.02 <= page.values["slip"].n <= 0.03)
    over = 0.35 * INCH  # from datum to pitch, section B: IP-20
    now = [page.values[f"{r}_datum"].n for r in ("driver", "driven")]
    loop = fit(spec).loop
    assert loop
    lines = [w.line_m for w in loop.stock()]
    sides = [
        [d] if keep == role else [d, *(x for x in lines if abs(x - d) > 0.0008)] for role, d in zip(("driver", "driven"), now, strict=True)
    ]
    plain = [(d, big) for d in sides[0] for big in sides[1] if abs(pace * (d + over) / (big + over) / rpm - 1) <= tolerance]
    assert found.hits == len(plain) and found.stock == len(sides[0]) * len(sides[1])
    for p in found.pairs:
        assert any(abs(p.driver.line_m - d) < 1e-9 and abs(p.driven.line_m - big) < 1e-9 for d, big in plain)
        assert p.speed == pytest.approx(pace * (p.driver.line_m + over) / (p.driven.line_m + over) * RPM)
        assert keep not in p.changes
        if p.on.stays:
            assert p.on.belt == "B90" and p.on.tight_at and (35 - 2) * INCH - 1e-3 <= p.on.tight_at <= (35 + 2.625) * INCH + 1e-3
    ranks = [(len(p.against), len(p.changes)) for p in found.pairs]
    assert ranks == sorted(ranks)
    # The exact wheels give the target: either one alone.
    assert pace * (found.exact_driver_m + over) / (now[1] + over) == pytest.approx(rpm)
    assert pace * (now[0] + over) / (found.exact_driven_m + over) == pytest.approx(rpm)


def test_a_pair_on_the_sheet_is_the_pair_of_the_list() -> None:
    spec = sheet().spec
    found = search.targets(spec, solve_page(spec), 1100 * RPM, 0.03)
    assert found and found.pairs[0].on.belt
    page = solve_page(search.with_pair(found.pairs[0], spec))
    assert page.values["driven_speed"].n * (1 - 0.0125) == pytest.approx(found.pairs[0].speed) and not page.has("slip")
    small = search.targets(spec, solve_page(spec), 3000 * RPM, 0.03)
    assert small and any("under the smallest" in a or "rim" in a for p in small.pairs for a in p.against)


def test_an_adjustable_sheave_takes_its_turns_off_the_sheet() -> None:
    """0.2 in of pitch diameter a turn (common practice, no source).

    6.0 in of datum closed is 5.5 at 2 1/2 turns, 0.35 in more on the pitch.
    """
    closed, opened = sheet({"adjustable": "driver"}), sheet({"adjustable": "driver"}, open_turns="2 1/2")
    assert solve_page(closed.spec).values["driver_datum"].n / INCH == pytest.approx(6.0)
    page = solve_page(opened.spec)
    assert page.values["driver_datum"].n / INCH == pytest.approx(5.5)
    assert page.values["driven_speed"].n / RPM == pytest.approx(1755 * 5.85 / 8.35)
    assert page.figures["driver_datum"].weakest.value == "rule of thumb" and "set screw" in page.figures["driver_datum"].working.limits  # type: ignore[union-attr]
    assert sheet({"adjustable": "driver"}, open_turns="7").problems[0].field == "open_turns"
    assert sheet({}, open_turns="7").problems == []


def test_what_a_reading_means_reads_the_change_and_the_target() -> None:
    form = sheet(tach_driver="1762 rpm", tach_driven="1215 rpm")
    page = solve_page(form.spec)
    found = read_speeds(form.spec, page, typed(new_diameter="7.15 in", target="1400 rpm"), {}, "driver")
    assert found.explained and found.explained.loss.n == pytest.approx(1 - 1215 / 1762 * 8.35 / 6.35)
    assert found.by_diameters and found.by_diameters / RPM == pytest.approx(1755 * 7.15 / 8.35)
    assert found.learned and found.learned.effective_change and found.learned.effective_change.n == pytest.approx(1400 / 1215 - 1)
    rows = {d.what: d for d in found.diameters}
    # In standard grooves the pitch diameter is the outside one; datum diameters, 6.0/8.0, give 1.4 % less speed.
    assert rows["datum (pitch in older books)"].off == pytest.approx((6 / 8) / (6.35 / 8.35) - 1) and rows["outside"].off == pytest.approx(
        0
    )
    assert read_speeds(form.spec, page, typed(new_diameter="wide"), {}, "driver").problems[0].field == "new_diameter"


def machine(new: str, curve: list[tuple[str, str]] | None = None, words: dict[str, str] | None = None, **more: str) -> Any:
    form = sheet(design_amps="12.8 A", design_airflow="4000 cfm", design_pressure="2 inH2O")
    points = [(Typed(q), Typed(p)) for q, p in curve or []]
    return read_machine(
        form.spec, solve_page(form.spec), form.design, typed(new_speed=new, **more), {"kind": "fan"} | (words or {}), points, None
    )


def test_amps_say_what_is_left_of_the_motor() -> None:
    """Load by amps.

    I² = I0² + (FLA² - I0²) p², the phasor sum of any text; I0 0.4 of full load where it was not read (common practice, no source).
    """
    found = machine("1400 rpm", amps_now="10 A")
    assert found.felt
    rows = {r.key: r for r in found.felt.rows}
    load = math.sqrt((10**2 - (0.4 * 12.8) ** 2) / (12.8**2 - (0.4 * 12.8) ** 2))
    assert rows["power"].now[0] == f"{load * 10:.2f} hp" and rows["power"].change == pytest.approx((1400 / (1755 * 6.35 / 8.35)) ** 3 - 1)
    assert not found.felt.overloaded and machine("1600 rpm", amps_now="10 A").felt.overloaded
    assert any("taken as fully loaded" in v.headline for v in machine("1400 rpm").verdicts)
    assert "kind of machine" in machine("1400 rpm", words={"kind": ""}).verdicts[0].headline
    assert machine("1400 rpm", words={"service_factor": "3"}).problems[0].field == "service_factor"


def test_a_fan_curve_finds_the_air_that_moves() -> None:
    curve = [("2000 cfm", "3 inH2O"), ("4000 cfm", "2.4 inH2O"), ("6000 cfm", "1 inH2O")]
    found = machine("1400 rpm", curve, curve_speed="1334.64 rpm", pressure_now="2.4 inH2O")
    assert found.at[0][0] / 0.000471947443 == pytest.approx(4000, rel=1e-3) and [c.what for c in found.curves] == [
        "fan now",
        "ducts",
        "fan then",
    ]
    assert found.at[1][0] / found.at[0][0] == pytest.approx(1400 / 1334.64, rel=1e-3)
    assert machine("1400 rpm", curve).problems[0].field == "curve_speed"
    assert any(
        "does not meet" in v.headline for v in machine("1400 rpm", curve, curve_speed="1334.64 rpm", pressure_now="9 inH2O").verdicts
    )
    hot = machine("1334.64 rpm", words={"temperature_now": "21 C", "temperature_new": "150 C"})
    assert {r.key: r.change for r in hot.felt.rows}["power"] == pytest.approx((21 + 273.15) / (150 + 273.15) - 1, rel=1e-3)


def cones(words: dict[str, str], count: int = 3, **quantities: str) -> Any:
    return read_cones(typed(**quantities), words, count)


def test_cones_under_a_v_belt_are_reckoned_on_its_lines() -> None:
    """A 2 and a 5 in A sheave turn as 2 to 5 in of pitch, while the belt's length goes by 1.75 and 4.75 in of datum (IP-20.

    0.25 in between them).
    """
    found = cones(
        {"mode": "found", "lay": "open", "section": "A"},
        1,
        centre_distance="18 in",
        driving_1="2 in",
        driven_1="5 in",
        cone_speed="1725 rpm",
    )
    assert found.steps[0].ratio == pytest.approx(5 / 2) and found.steps[0].driving[0] == "2.000 in"
    flat = cones({"mode": "found", "lay": "open"}, 1, centre_distance="18 in", driving_1="2 in", driven_1="5 in", cone_thickness="0.2 in")
    assert flat.steps[0].ratio == pytest.approx(5.2 / 2.2)


@given(st.floats(1.2, 4), st.floats(0.3, 0.9), st.integers(3, 6))
def test_steps_left_out_fall_in_even_percentages(slowest: float, fastest: float, count: int) -> None:
    words = {"mode": "design", "lay": "crossed", "ratio_1": f"{slowest:.4f}", f"ratio_{count}": f"{fastest:.4f}"}
    found = cones(words, count, centre_distance="1.5 m", first_driving="100 mm")
    assume(found.steps)
    ratios = [s.ratio for s in found.steps]
    shares = [b / a for a, b in pairwise(ratios)]
    assert max(shares) - min(shares) < 1e-3 and found.verdicts[0].tone is Tone.GOOD


def test_a_step_that_runs_slack_and_a_conversion_are_said() -> None:
    quantities = {"centre_distance": "12 in"} | {
        f"{r}_{k}": v
        for k, (a, b) in enumerate((("3 in", "9 in"), ("6 in", "6 in"), ("9 in", "3 in")), 1)
        for r, v in (("driving", a), ("driven", b))
    }
    found = cones(
        {"mode": "found", "lay": "open"}, before_1="1019 rpm", after_1="1521 rpm", before_2="2329 rpm", after_2="3990 rpm", **quantities
    )
    assert "Step 2 runs slack" in found.verdicts[0].headline
    # Common practice, no source: a mill's ranges of 1019 and 2329 became 1521 and just under 4000.
    assert [round(c.speed_change, 2) for c in found.conversions] == [0.49, 0.71]
    assert [c.torque for c in found.conversions] == pytest.approx([1019 / 1521 - 1, 2329 / 3990 - 1])
    assert any("+71% in speed, -42% in torque" in v.headline for v in found.verdicts)
    assert cones({"mode": "design"}, centre_distance="2 in", first_driving="9 in", **{}).steps == ()


@pytest.mark.parametrize(
    ("change", "readings", "says"),
    [
        ("tightened", {"before_pressure": "1.50 inH2O", "after_pressure": "1.51 inH2O"}, "The same static pressure tight or not"),
        ("slackened", {"before_tach_driven": "1000 rpm", "after_tach_driven": "999 rpm"}, "The same speed slack or not"),
        ("tightened", {"before_tach_driven": "960 rpm", "after_tach_driven": "1000 rpm"}, "4.2% of the speed was slip"),
        ("tightened", {"before_pressure": "1.2 inH2O", "after_pressure": "1.5 inH2O"}, "about +12% in speed"),
        (
            "driver changed",
            {
                "before_tach_driven": "1000 rpm",
                "after_tach_driven": "1100 rpm",
                "before_pressure": "1 inH2O",
                "after_pressure": "1.21 inH2O",
            },
            "Pressure followed speed",
        ),
        (
            "driver changed",
            {
                "before_tach_driven": "1000 rpm",
                "after_tach_driven": "1100 rpm",
                "before_pressure": "1 inH2O",
                "after_pressure": "0.9 inH2O",
            },
            "Pressure did not follow",
        ),
        ("other", {"before_noise": "82", "after_noise": "88"}, "6 dB louder"),
        ("other", {}, "Read both columns"),
    ],
)
def test_what_a_trial_says(change: str, readings: dict[str, str], says: str) -> None:
    found = read_trial(typed(**readings), {"change": change})
    assert says in found.verdicts[0].headline


def test_a_trial_keeps_what_cannot_be_read_beside_its_field_and_sees_leaks() -> None:
    assert read_trial(typed(after_amps="many"), {}).problems[0].field == "after_amps"
    leak = read_trial({}, {"change": "driver changed", "before_leak": "none", "after_leak": "drips"})
    assert leak.verdicts[0].headline == "It leaks now: drips" and leak.verdicts[0].tone is Tone.WATCH


@given(st.text(max_size=200))
def test_no_file_breaks_the_reader(text: str) -> None:
    report = read_file(text)
    assert report.refused or all(r.sentence for r in report.rows)


def test_the_sheet_says_when_a_speed_is_by_the_wheels_alone() -> None:
    form = read_form(V_BELT, typed(**PUMP, design_speed="1310 rpm"), B_BELTS)
    said = next(v for v in solve(form.spec).verdicts if v.topic == "design")
    assert said.tone is Tone.OPEN and said.headline.startswith("By its wheels")
    assert v_belt.section("B").name == "B"


@examples(40)
@given(st.floats(3, 20), st.floats(3, 20), st.floats(1.02, 3), st.floats(0.3, 3), st.booleans())
def test_any_target_on_any_drive_is_answered(driver: float, driven: float, apart: float, ratio: float, slide: bool) -> None:
    """Pairs whose wheels would overlap where the shafts stand now move apart on their slide, or are not offered."""
    sizes = {
        "driver_speed": "1750 rpm",
        "driver_diameter": f"{driver:.3f}",
        "driven_diameter": f"{driven:.3f}",
        "centre_distance": f"{(driver + driven) / 2 * apart:.3f}",
    }
    spec = read_form(
        V_BELT, {k: Typed(v, "in") for k, v in (sizes | ({"travel_in": "1", "travel_out": "2"} if slide else {})).items()}, {"section": "B"}
    ).spec
    page = solve_page(spec)
    found = search.targets(spec, page, 1750 * math.tau / 60 * ratio, 0.05)
    for p in found.pairs if found else ():
        assert p.on.tight_at is None or p.on.tight_at > (p.driver.rim_m + p.driven.rim_m) / 2
        if not p.on.belt and p.on.tight_at:  # said with what it would need, and only where the slide was measured
            assert (
                slide
                and ("closer" if p.on.tight_at < page.values["centre_distance"].n else "away") in p.on.slide
                and p.on.slide in p.against[-1]
            )
