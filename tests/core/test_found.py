"""Length window, get-home share, grade, counter slip, cross-reference."""

from fractions import Fraction
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.drives import fit, get_home, wearing, window
from tuyere.core.basis.figure import shown
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.mechanics.open_belt import belt_length, centre_distance
from tuyere.core.stations.find.counter_slip import counter_slip
from tuyere.core.stations.find.cross_reference import key_of, read_csv
from tuyere.core.stations.find.get_home import Fix
from tuyere.core.stations.find.grade import EARLY_FINDING, grade

INCH = 0.0254


def spec(section: str = "B", **more: str) -> DriveSpec:
    sizes = {
        "driver_power": "5 hp",
        "driver_speed": "1750 rpm",
        "driver_diameter": "5.75",
        "driven_diameter": "12.75",
        "centre_distance": "24",
        "travel_in": "1 1/2",
        "travel_out": "2 1/2",
        "hours_per_day": "10 h",
        **{k: v for k, v in more.items() if k != "belt_count"},
    }
    words = {"section": section, "belt_count": more.get("belt_count", "2"), "driven_class": "moderate"}
    return read_form(V_BELT, {k: Typed(v, "in") for k, v in sizes.items() if v}, words).spec


def test_the_window_leaves_room_both_ways() -> None:
    """Allowances of IP-20 for B75: close 1.3 in to fit, open 2.0 in to take up (from memory); tight centres by exact geometry."""
    found = window(spec())
    assert found
    best = next(c for c in found.choices if c.best)
    belt = v_belt.parse_designation(best.designation)
    tight = centre_distance((5.75 - 0.35) * INCH, (12.75 - 0.35) * INCH, belt.datum_length_m)
    assert best.centres_m == pytest.approx(tight)
    assert tight - 1.3 * INCH >= 22.5 * INCH and tight + 2.0 * INCH <= 26.5 * INCH and best.room == "good"
    assert all(22.5 * INCH <= c.centres_m <= 26.5 * INCH for c in found.choices)


@given(st.sampled_from(["A", "B", "5VX", "SPA", "4L"]), st.floats(10, 60), st.floats(0, 4), st.floats(0, 4))
def test_a_best_belt_called_good_really_fits(section: str, centres: float, closer: float, away: float) -> None:
    wheels = {"driver_diameter": "6", "driven_diameter": "11", "centre_distance": f"{centres:.3f}"}
    found = window(spec(section, **wheels, travel_in=f"{closer:.3f}", travel_out=f"{away:.3f}"))
    for choice in found.choices if found else ():
        if choice.room == "good":
            allowed = v_belt.allowance(v_belt.parse_designation(choice.designation))
            assert allowed is None or (
                choice.fit_room_m >= allowed.installation_m - 1e-4 and choice.takeup_room_m >= allowed.takeup_m - 1e-4
            )


def test_a_quarter_inch_matters_on_a_slack_clutch() -> None:
    """A made belt within a quarter of an inch is named.

    Beyond it none is, and the machine's own number is asked for (common practice, no source).
    """
    for centres in ("35", "35 1/8", "35 1/4", "35 3/8"):
        found = window(spec(centre_distance=centres), slack_clutch=True)
        assert found
        middle = belt_length(5.4 * INCH, 12.4 * INCH, float(sum(Fraction(x) for x in centres.split())) * INCH)
        near = [n for n in v_belt.made_numbers("B") if abs(v_belt.lengths(v_belt.section("B"), n).datum_m - middle) <= INCH / 4]
        assert {c.designation for c in found.choices} == {f"B{n:g}" for n in near}
        assert ("a quarter" in found.verdicts[0].headline) and (near or "own part number" in found.verdicts[0].detail)
    unknown = window(spec(travel_in="", travel_out=""))
    assert unknown and unknown.verdicts[0].headline.startswith("By the tape alone") and "is not known" in unknown.verdicts[0].detail
    assert {c.room for c in unknown.choices} == {"slide not measured"} and not any(c.fit_room or c.takeup_room for c in unknown.choices)
    for choice in unknown.choices:  # the same belt needs the same slide, measured or not
        tight, allowed = choice.centres_m, v_belt.allowance(v_belt.parse_designation(choice.designation))
        assert allowed
        moves = (24 * INCH - tight + allowed.installation_m, "closer"), (tight - 24 * INCH + allowed.takeup_m, "away")
        assert choice.slide == " and ".join(
            f"{shown(by, 'length', to_set=True)[0]} ({shown(by, 'length', to_set=True)[1]}) {way}" for by, way in moves if by > 1e-4
        )
    assert window(spec(centre_distance="")) is None


def test_fewer_belts_carry_their_share() -> None:
    half = get_home(spec(), Fix(v_belt.section("B"), 1))
    whole = spec(belt_count="1")
    assert half.figures[0].value_si == 0.5 and half.share is not None
    from tuyere.core.drive.sheet.solve import solve

    sheet = solve(whole)
    assert half.share == pytest.approx(sheet.figures["power_per_belt"].value_si / sheet.figures["design_power"].value_si)
    assert half.days == 7 and "Temporary" in half.verdicts[0].detail


def test_a_joined_belt_goes_or_stays_as_one_and_singles_stand_in_a_groove_each() -> None:
    """Two bands of three ribs: one of them carries half; six A belts may stand in the six B grooves."""
    banded = wearing(spec(belt_count="2"), belt=v_belt.parse_designation("3/B81"))
    half = get_home(banded, Fix(v_belt.section("B"), 1))
    assert half.what == "1 of 2 belts" and {f.key: f.value_si for f in half.figures}["share_of_set"] == pytest.approx(0.5)
    assert get_home(banded, Fix(v_belt.section("B"), 2)).problems[0].sentence.startswith("That is the full set")
    singles, one = (get_home(banded, Fix(v_belt.section("A"), n)) for n in (6, 1))
    assert singles.share and one.share and singles.share == pytest.approx(6 * one.share)
    assert "6 grooves" in get_home(banded, Fix(v_belt.section("A"), 7)).problems[0].sentence


def test_a_narrower_belt_carries_less_and_the_wrong_one_is_refused() -> None:
    narrow = get_home(spec(), Fix(v_belt.section("A"), 2))
    assert 0.3 < narrow.figures[0].value_si < 0.8 and narrow.days <= 3
    assert any("driven speed changes by -" in v.detail for v in narrow.verdicts)
    for section, count, field in (("C", 2, "fix_section"), ("SPB", 2, "fix_section"), ("B", 2, "fix_count"), ("B", 3, "fix_count")):
        assert get_home(spec(), Fix(v_belt.section(section), count)).problems[0].field == field


@pytest.mark.parametrize(
    ("section", "duties", "says"),
    [
        ("A", ("deck",), "clutching grade"),
        ("A", ("back idler",), "bends both ways"),
        ("AA", ("back idler",), "both faces"),
        ("4L", ("shock",), "heavy cord"),
        ("B", ("oily", "hot"), "oil-resisting"),
    ],
)
def test_the_duty_asks_for_a_grade(section: str, duties: tuple[str, ...], says: str) -> None:
    """Common practice, no source."""
    assert any(says in word for word in grade(v_belt.section(section), duties).ask)


def test_small_wheels_want_notched() -> None:
    small = grade(v_belt.section("B"), (), fit(spec(driver_diameter="4")))
    assert "notched (cogged)" in small.ask and "small wheel" in small.verdicts[0].headline
    assert not grade(v_belt.section("BX"), (), fit(spec("BX", driver_diameter="5"))).ask


@pytest.mark.parametrize(("lives", "early"), [((), False), ((900.0,), False), ((900.0, 22000.0), False), ((22000.0, 900.0, 1200.0), True)])
def test_sets_that_die_early_raise_it(lives: tuple[float, ...], early: bool) -> None:
    found = grade(v_belt.section("B"), (), None, lives)
    assert found.early is early and (EARLY_FINDING in [v.headline for v in found.verdicts]) is early


def test_the_counter_slip_says_it_all() -> None:
    drive = spec()
    slip = counter_slip(
        v_belt.parse_designation("B75"),
        2,
        False,
        fit(drive),
        window(drive),
        grade(v_belt.section("B"), ("back idler",), fit(drive)),
        "FX-1",
    )
    assert slip.headline == "B75" and "matched set of 2" in slip.count and slip.machine_part == "FX-1"
    # What is not to be accepted is never offered: a 5L has the size of a B, and half its power.
    assert not any("5L" in n for n in slip.names) and any("these centres take" in line for line in slip.length)
    assert (
        any("5V" in r for r in slip.refuse)
        and any("light duty" in r for r in slip.refuse)
        and any("driver wheel first" in c for c in slip.check_first)
    )
    joined = counter_slip(v_belt.parse_designation("3/5V1000"), None, True, None, None, None, "")
    assert joined.count == "one joined belt of 3 ribs" and any("singles" in r for r in joined.refuse)


def test_a_cross_reference_is_reported_row_by_row() -> None:
    report = read_csv("\ufeffPart_Number;Designation;Machine\n12-345;b 81;Mill\n;A20;\nX9;gibberish;\n12345;B82;\n77; spa1180 ;\n")
    assert [(e.part_number, e.designation) for e in report.entries] == [("12-345", "B81"), ("77", "SPA 1180")]
    assert [(r.line, r.taken) for r in report.rows] == [(2, True), (3, False), (4, False), (5, False), (6, True)]
    assert "first row counts" in report.rows[3].sentence and key_of("12-345 a") == key_of("12345A")
    assert "designation is missing" in read_csv("part_number,belt\n1,B81\n").refused
    assert read_csv("").refused and read_csv("a\x00b").refused


@given(st.text(max_size=200))
def test_any_text_is_reported_not_broken(text: str) -> None:
    report: Any = read_csv("part_number,designation\n" + text)
    assert report.refused or all(r.sentence for r in report.rows)
