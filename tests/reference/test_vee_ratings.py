"""Rated power of every V-belt section against printed tables and examples (remembered; each names its source)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.solve import solve, solve_page
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.kind import V_BELT

RPM = math.pi / 30
MM = 1e-3


def kilowatts(section: str, d_mm: float, rpm: float, ratio: float = 1.0) -> float:
    return vee.rated_power(v_belt.section(section), d_mm * MM, rpm * RPM, ratio).total_w / 1000


# Cells of GB/T 13575.1 and DIN 7753-2 as remembered (section, d mm, n 1/min, P0 kW); the fit holds them within its stated misfit.
PRINTED = [
    ("Z", 56, 1450, 0.19),
    ("Z", 63, 1450, 0.25),
    ("Z", 71, 400, 0.09),
    ("ISO A", 100, 950, 0.95),
    ("ISO A", 100, 1450, 1.32),
    ("ISO A", 125, 800, 1.19),
    ("ISO A", 140, 4000, 3.67),
    ("ISO A", 75, 6000, 0.80),
    ("ISO B", 180, 700, 2.53),
    ("ISO B", 180, 960, 3.25),
    ("ISO B", 224, 1200, 5.26),
    ("ISO B", 160, 1800, 4.15),
    ("ISO B", 125, 4000, 2.51),
    ("ISO C", 200, 500, 2.87),
    ("ISO C", 250, 500, 4.33),
    ("ISO C", 355, 950, 11.73),
    ("ISO C", 450, 200, 4.51),
    ("ISO D", 400, 600, 15.42),
    ("ISO D", 450, 700, 20.63),
    ("ISO E", 630, 600, 34.83),
    ("ISO E", 710, 600, 40.58),
    ("SPZ", 71, 950, 0.90),
    ("SPZ", 90, 2400, 2.93),
    ("SPZ", 125, 4000, 6.58),
    ("SPZ", 140, 4500, 7.64),
    ("SPA", 90, 400, 0.75),
    ("SPA", 140, 950, 3.49),
    ("SPA", 224, 1200, 8.05),
    ("SPA", 200, 1450, 8.10),
    ("SPB", 200, 200, 1.94),
    ("SPB", 224, 2000, 14.21),
    ("SPB", 315, 950, 13.40),
    ("SPB", 315, 1450, 17.79),
    ("SPC", 224, 700, 8.10),
    ("SPC", 280, 1450, 19.44),
    ("SPC", 315, 200, 4.97),
]
MISFIT = {
    "Z": 0.041,
    "ISO A": 0.029,
    "ISO B": 0.05,
    "ISO C": 0.038,
    "ISO D": 0.088,
    "ISO E": 0.118,
    "SPZ": 0.017,
    "SPA": 0.017,
    "SPB": 0.03,
    "SPC": 0.025,
}


@pytest.mark.parametrize(("section", "d", "n", "printed"), PRINTED)
def test_the_printed_metric_table(section: str, d: float, n: float, printed: float) -> None:
    assert kilowatts(section, d, n) == pytest.approx(printed, abs=MISFIT[section] + 0.006)


def test_a_textbook_metric_drive() -> None:
    """Pu Lianggui, Mechanical Design, exercise 8-4: B, 180 on 500 mm, 960 rpm, 7 kW: 3.25 + 0.303 kW a belt, three belts."""
    found = vee.rated_power(v_belt.section("ISO B"), 0.180, 960 * RPM, 500 / 180)
    assert (found.basic_w, found.added_for_ratio_w) == pytest.approx((3250, 303), rel=0.02)
    belt = v_belt.parse_designation("B 2240", v_belt.section("ISO B"))
    assert vee.length_factor(belt) == pytest.approx(1.0, abs=0.011)
    one = found.total_w * 0.914 * vee.length_factor(belt)
    assert ip20.belts_needed(1.2 * 7000, one) == 3


def test_the_printed_narrow_inch_example() -> None:
    """Mott, Machine Elements, Example 7-1: 5V, 12.4 in pitch diameter, 1160 rpm, ratio 1.72: 26.4 hp and 1.15 hp added."""
    found = vee.rated_power(v_belt.section("5V"), to_si(12.4, "length", "in"), 1160 * RPM, 1.72)
    assert from_si(found.basic_w, "power", "hp") == pytest.approx(26.4, abs=0.05)
    assert from_si(found.added_for_ratio_w, "power", "hp") == pytest.approx(1.15, abs=0.01)


def test_light_duty_is_in_the_size_of_the_old_a() -> None:
    """IP-23 form: 4L, 3 in, 1750 rpm: 0.81 hp, beside the older A rating of 0.79 (Machinery's Handbook, older editions)."""
    found = vee.rated_power(v_belt.section("4L"), to_si(3.0, "length", "in"), 1750 * RPM, 1.0)
    assert from_si(found.total_w, "power", "hp") == pytest.approx(0.81, abs=0.01)


def test_classical_inch_belts_are_still_rated_by_ip20() -> None:
    b = v_belt.section("B")
    args = (to_si(5.4, "length", "in"), 1750 * RPM, 1.5)
    assert vee.rated_power(b, *args).total_w == ip20.rated_power(b, *args).total_w and vee.method(b).standard == "IP-20"


def test_every_section_is_rated_estimated_or_says_that_it_is_not() -> None:
    unrated = set()
    for section in v_belt.sections().values():
        try:
            how = vee.method(section)
        except duties.OutOfRangeError as reason:
            assert "ask the belt's supplier" in str(reason)
            unrated.add(section.name)
            continue
        assert how.source and how.formula and how.limits and (how.share == 1 or how.estimate)
        if how.estimate and section.name not in ("15N", "25N"):
            assert how.confidence is Confidence.LOW
    assert unrated == {"2L", "Y"}


@given(
    st.sampled_from(["3V", "XPZ", "XPB", "BB", "HB", "link 13", "15N", "9N"]), st.floats(0.09, 0.3), st.floats(200, 1800), st.floats(1, 5)
)
def test_an_estimate_never_passes_the_neighbour_it_rests_on(name: str, d_m: float, rpm: float, ratio: float) -> None:
    section = v_belt.section(name)
    how = vee.method(section)
    try:
        own = vee.rated_power(section, d_m, rpm * RPM, ratio).total_w
    except duties.OutOfRangeError:
        return
    assert own <= vee.rated_power(how.rated_as, d_m, rpm * RPM, ratio).total_w * (1 + 1e-12) and own >= 0


@given(st.sampled_from(["5V", "3VX", "SPA", "SPB", "ISO B", "B"]), st.floats(1.0, 6.0))
def test_a_larger_ratio_never_carries_less(name: str, ratio: float) -> None:
    section = v_belt.section(name)
    d = 1.3 * v_belt.min_datum_diameter(section)
    one, more = (vee.rated_power(section, d, 900 * RPM, r).total_w for r in (1.0, ratio))
    assert more >= one > 0


def test_the_sheet_rates_a_metric_and_a_narrow_drive_with_its_working() -> None:
    def sheet(section: str, belt: str, **sizes: str):  # type: ignore[no-untyped-def]
        typed = {"driver_power": "5.5 kW", "driver_speed": "1450 rpm", "hours_per_day": "9"} | sizes
        return read_form(
            V_BELT, {k: Typed(v) for k, v in typed.items()}, {"section": section, "belt": belt, "belt_count": "2", "driven_class": "heavy"}
        ).spec

    spa = sheet("SPA", "SPA 1932", driver_diameter="130.5 mm", driven_diameter="285.5 mm", centre_distance="620 mm")
    page = solve_page(spa)
    # 125 mm of datum at 1450 rpm by the fit, ratio 2.24: (basic + added) K_θ K_L.
    own = vee.rated_power(v_belt.section("SPA"), page.values["driver_datum"].n, 1450 * RPM, page.values["ratio"].n).total_w
    assert page.values["rated_power"].n == pytest.approx(own) and "ISO 5292" in page.figures["rated_power"].working.source  # type: ignore[union-attr]
    assert next(v for v in solve(spa).verdicts if v.topic == "rating").headline.startswith("2 belts will")
    narrow = sheet("3V", "3V560", driver_diameter="4.75 in", driven_diameter="8.0 in", centre_distance="18 in")
    flagged = solve(narrow)
    assert any(f.code == "estimated-rating" and "3VX" in f.sentence for f in flagged.flags)
    assert flagged.figures["rated_power"].weakest.value == "assumed"


def test_every_listed_metric_belt_has_a_length_factor_or_a_sentence() -> None:
    """The older and the newer length table share some lengths; GB/T 13575.1 gives A 630 as 0.81 (from memory)."""
    assert vee.length_factor(v_belt.parse_designation("A 630")) == pytest.approx(0.81)
    for name in ("Z", "ISO A", "ISO B", "ISO C", "ISO D", "ISO E", "SPZ", "SPA", "SPB", "SPC"):
        for belt in v_belt.standard_belts(name):
            try:
                assert 0.5 < vee.length_factor(belt) < 1.6, belt.designation
            except duties.OutOfRangeError as reason:
                assert "length-factor table" in str(reason)
