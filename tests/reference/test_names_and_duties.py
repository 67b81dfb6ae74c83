"""What is asked for at the counter and what it is rated to stand.

Names, lengths, stand-ins, service, metric tension; each rule by its source.
"""

import math

import pytest

from tests.core.test_found import spec
from tests.core.test_identify import seen
from tests.drives import get_home, wearing
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.kinds import synchronous, v_belt
from tuyere.core.kinds.rating.service import service_factor
from tuyere.core.kinds.registry import family, meshing
from tuyere.core.kinds.teeth import read_toothed_drive
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.mechanics import tension
from tuyere.core.stations.find import alike
from tuyere.core.stations.find.answer import Identified, identify
from tuyere.core.stations.find.counter_slip import counter_slip
from tuyere.core.stations.find.get_home import Fix, GetHome

INCH = 0.0254


def names(answer: Identified) -> list[str]:
    return [n.designation for n in answer.candidates[0].names]


# ---- which belt ------------------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("width", "height", "section"), [("20", "12.5", "DIN 20"), ("25", "16", "DIN 25"), ("22", "14", "C"), ("17", "11", "B")]
)
def test_the_sections_between_the_classical_ones_are_known(width: str, height: str, section: str) -> None:
    """DIN 2215: 20 x 12.5 and 25 x 16 stand between 17 x 11, 22 x 14 and 32 x 20 (from memory)."""
    answer = identify(seen(top_width=f"{float(width) / 25.4:.3f}", thickness=f"{float(height) / 25.4:.3f}"))
    assert answer.candidates[0].section in alike.same_belt(section) | {section}


@pytest.mark.parametrize(
    ("label", "section", "name"),
    [
        ("6PK1200", "PK", "6PK 1200"),
        ("10PJ1016", "PJ", "10PJ 1016"),
        ("4/5V1120", "5V", "4/5V1120"),
        ("3/B60", "B", "3/B60"),
        ("13x1250", "ISO A", "A 1280"),
        ("17x2000", "ISO B", "B 2040"),
        ("8PK 1500", "PK", "8PK 1500"),
    ],
)
def test_a_name_read_whole_is_that_belt(label: str, section: str, name: str) -> None:
    """What names a belt alone names it here too; a metric inside length is named by its datum one (ISO 4183)."""
    answer = identify(seen(label=label))
    assert (answer.candidates[0].section, names(answer)[0], answer.verdict.tone) == (section, name, Tone.GOOD)


def test_a_label_counts_more_than_one_odd_size() -> None:
    """A54 with 10 mm of height read.

    A slip of the tool, or a double-V that lost a letter; never just the double-V (judgement, no source).
    """
    answer = identify(seen(label="A54", thickness="0.4"))
    assert names(answer)[0] == "A54" and answer.verdict.tone is Tone.WATCH


def test_half_an_inch_of_width_alone_stays_open() -> None:
    """A, 4L, AX, HA, ISO A, AA, SPA are all about 1/2 in wide (groove tables)."""
    answer = identify(seen(top_width="0.5"))
    assert answer.verdict.tone is Tone.OPEN
    assert "same size, not the same duty" in answer.verdict.detail


def test_a_letter_alone_names_no_length() -> None:
    assert identify(seen(label="A")).verdict.tone is Tone.OPEN and not names(identify(seen(label="A")))


@pytest.mark.parametrize(("outside", "first"), [("46.1", "4L460"), ("48", "4L480"), ("46.75", None)])
def test_on_a_deck_a_quarter_of_an_inch_is_another_belt(outside: str, first: str | None) -> None:
    """Common practice, no source: beyond a quarter of an inch no counter belt is named and the machine's own number is asked for."""
    answer = identify(seen(machine="deck", outside_length=outside, top_width="0.5", thickness="0.31"))
    found = [n for c in answer.candidates if c.section in ("4L", "A") for n in c.names]
    assert (found[0].designation if found else None) == first
    assert first or "own part number" in answer.verdict.detail or "own number" in answer.verdict.detail


@pytest.mark.parametrize("inches", [53, 54, 56, 103])
def test_every_inch_the_trade_makes_is_a_name(inches: int) -> None:
    """Classical A belts come in every inch from the counter's shelf (common practice, no source); the standard's own lengths are marked."""
    belt = v_belt.parse_designation(f"A{inches}")
    assert belt.made and inches in v_belt.made_numbers("A")


@pytest.mark.parametrize("name", ["AA", "BB", "CC"])
def test_a_hexagonal_belt_is_taped_over_its_outer_half(name: str) -> None:
    """Geometry: its widest plane lies where a single belt's back does, and half of its height stands out beyond that."""
    double, single = (v_belt.lengths(v_belt.section(n), 90) for n in (name, name[0]))
    beyond = single.outside_m - single.datum_m + math.pi * v_belt.section(name).height_m
    assert double.outside_m - double.datum_m == pytest.approx(beyond, rel=0.02)


# ---- stand-ins -------------------------------------------------------------------------------------------------------------------------


def fix(section: str, by: str, wheels: tuple[str, str], count: int = 2, back: bool = False) -> GetHome:
    drive = spec(section, driver_diameter=wheels[0], driven_diameter=wheels[1], belt_count="3")
    return get_home(drive, Fix(v_belt.section(by), count, back_driven=back))


@pytest.mark.parametrize(
    ("section", "by", "wheels", "says"),
    [
        ("BX", "B", ("4.0", "8"), "5.4 in"),
        ("5VX", "5V", ("6", "12"), "7.0 in"),
        ("CX", "C", ("7", "14"), "too small for C"),
        ("AX", "A", ("2.6", "6"), "too small for A"),
    ],
)
def test_a_plain_belt_for_a_notched_one_wants_its_own_wheels(section: str, by: str, wheels: tuple[str, str], says: str) -> None:
    """IP-20, IP-22 least diameters (from memory)."""
    refused = fix(section, by, wheels)
    assert refused.share is None and says in refused.problems[0].sentence


def test_a_double_v_driven_from_its_back_has_no_single_in_its_place() -> None:
    """Geometry: a single V has no flanks at its back."""
    assert "stand still" in fix("AA", "A", ("6", "12"), back=True).problems[0].sentence
    assert fix("AA", "A", ("6", "12")).share


@pytest.mark.parametrize(("section", "by", "small", "large"), [("BX", "B", "6", "12"), ("BX", "B", "8", "16")])
def test_a_stand_in_carries_what_its_own_rating_says(section: str, by: str, small: str, large: str) -> None:
    """IP-20 rates each construction by its own equation: the share of the set is the ratio of the two ratings (wraps and lengths alike)."""
    got = fix(section, by, (small, large))
    d = float(small) * INCH
    own, other = (
        vee.rated_power(v_belt.section(s), d - v_belt.pitch_over_datum(v_belt.section(section)), 1750 * math.tau / 60, 2.0).total_w
        for s in (section, by)
    )
    share = next(f.value_si for f in got.figures if f.key == "share_of_set")
    assert share == pytest.approx(2 / 3 * other / own, rel=0.05)


def test_singles_stand_in_for_a_band() -> None:
    """Common practice, no source: three of one number as a matched set may stay; one or two run for a while, each with its share."""
    banded = wearing(spec(belt_count="1", centre_distance="27"), belt=v_belt.parse_designation("3/B81"))
    shares = [get_home(banded, Fix(v_belt.section("B"), n, v_belt.parse_designation("B81"), singles=True)) for n in (1, 2, 3)]
    assert [next(f.value_si for f in g.figures if f.key == "share_of_set") for g in shares] == pytest.approx([1 / 3, 2 / 3, 1], rel=0.02)
    assert all(g.days for g in shares) and "matched set" in " ".join(v.detail for v in shares[2].verdicts)


@pytest.mark.parametrize(("name", "refused"), [("5L860", "5L"), ("BX83", "BX"), ("HB83", "HB"), ("B83", "B"), ("AA85", "AA")])
def test_a_slip_never_refuses_what_it_asks_for(name: str, refused: str) -> None:
    slip = counter_slip(v_belt.parse_designation(name), 1, False, None, None, None, "")
    assert slip.headline == name and not any(line.startswith((f"{refused}:", f"{refused},", f"{name}:")) for line in slip.refuse)
    asked = {n.split(" ")[0] for n in slip.names} | {name}
    assert not asked & {line.split(":")[0] for line in slip.refuse}
    assert name != "HB83" or not slip.names  # nothing plain stands in for a farm belt


# ---- duty and ratings ------------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("up", "times"), [(1.0, 1.0), (1.24, 1.0), (1.25, 1.05), (1.75, 1.11), (2.5, 1.18), (3.5, 1.28), (6, 1.28)])
def test_a_drive_that_speeds_up_serves_harder(up: float, times: float) -> None:
    """GB/T 13575.1, note to the table of working-condition factors (from memory)."""
    assert service_factor(family("v-belt"), "moderate", "normal", 10, up)[0] == pytest.approx(1.2 * times)


def test_starts_count_and_flat_belts_go_by_their_driver() -> None:
    """GB/T 13575.1: frequent or reversing starts 1.2 times (from memory); IP-20's classes of driver."""
    assert service_factor(family("v-belt"), "moderate", "normal", 10, starts="frequent or reversing")[0] == pytest.approx(1.2 * 1.2)
    assert service_factor(family("flat belt"), "moderate", "high", 10)[0] > service_factor(family("flat belt"), "moderate", "normal", 10)[0]


def test_metric_static_tension_is_the_half_sum() -> None:
    """Pu Lianggui, Mechanical Design, exercise 8-4 (GB/T 13575.1): 8.4 kW design, 9.05 m/s, 3 belts, K 0.914, 0.18 kg/m: 283 N."""
    assert tension.static_tension(8400, 9.05, 3, 0.914, 0.18, inch=False) == pytest.approx(283, abs=0.5)
    # And by the algebra of a tension ratio of 5: T1 + T2 = Te (2.5 - K)/K, halved.
    effective = 8400 / 9.05 / 3
    tight = effective * 1.25 / 0.914
    assert (2 * tight - effective) / 2 + 0.18 * 9.05**2 == pytest.approx(283, abs=0.5)


@pytest.mark.parametrize("section", ["SPA", "ISO B", "B", "5V"])
def test_loads_and_tension_agree(section: str) -> None:
    """Strand tensions at work add up to twice the static one, in each system's own form: fixed centres keep the sum."""
    figures = solve(spec(section, driver_diameter="8", driven_diameter="16", centre_distance="30")).figures
    half = (figures["tight_strand"].value_si + figures["slack_strand"].value_si) / 2
    assert half / figures["static_tension"].value_si == pytest.approx(round(half / figures["static_tension"].value_si), rel=1e-3)


@pytest.mark.parametrize(("d", "n", "kw"), [(50, 400, 0.06), (56, 400, 0.06), (90, 1450, 0.36), (71, 960, 0.23), (80, 1450, 0.35)])
def test_z_is_rated_by_the_printed_cells(d: int, n: int, kw: float) -> None:
    """GB/T 13575.1, table of basic rated power, section Z (from memory): to half of the last printed figure."""
    got = vee.rated_power(v_belt.section("Z"), d / 1000, n * math.tau / 60, 1.0).basic_w / 1000
    assert got == pytest.approx(kw, abs=0.006)


@pytest.mark.parametrize(("section", "number"), [("A", 150), ("A", 180)])
def test_long_a_belts_are_rated(section: str, number: int) -> None:
    """IP-20's length factors go on past A128 (extended, an estimate): longer carries no less."""
    of = v_belt.section(section)
    assert vee.length_factor(v_belt.belt_of(of, number)) >= vee.length_factor(v_belt.belt_of(of, 112))


def test_iso_e_is_as_high_as_its_outside_length_says() -> None:
    """ISO 4184: 25 mm of height, datum line near 8 mm under the back: 2 π times that between datum and outside length, not 77 mm."""
    found = v_belt.lengths(v_belt.section("ISO E"), 5000)
    under_back = (found.outside_m - found.datum_m) / (2 * math.pi)
    assert 0.006 < under_back < 0.5 * v_belt.section("ISO E").height_m


def test_round_the_clock_is_24_hours() -> None:
    """24/7 is no fraction of a day."""
    assert (hours := spec(hours_per_day="24/7").hours_per_day) and hours.value == 24 * 3600


def test_toothed_drives_say_which_pulley_has_flanges() -> None:
    """IP-24 and handbooks (from memory): on the small pulley; on both where the centres pass 8 small diameters."""

    def headline(centre: str) -> str:
        sizes = {"centre_distance": Typed(centre, "mm")}
        found = read_toothed_drive(meshing("synchronous").lay_out, sizes, {"name": "H", "teeth_1": "20", "teeth_2": "40"}).drive
        assert found
        return next(v.headline for v in found.verdicts if v.topic == "flanges")

    d = synchronous.pitch_diameter(synchronous.profile("H"), 20) * 1000
    assert "small pulley" in headline(f"{d * 6:.0f}") and "Both" in headline(f"{d * 9:.0f}")
