"""Ratings and factors against published figures, all from memory; each test names its source."""

import math

import pytest

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.v_belt import ip20


def inches(value: float) -> float:
    return to_si(value, "length", "in")


def test_equation_form_reproduces_a_printed_rating() -> None:
    """Mott Example 7-1 prints 26.4 hp basic and 1.15 hp added: 5V, 12.4 in, 1160 rpm, ratio 1.72 (K_SR 1.1089). Settles log10."""
    narrow_5v = ip20.Coefficients(3.314, 10.123, 5.8758e-4, 0.46527, Confidence.HIGH)
    basic, added = ip20.horsepower(narrow_5v, 12.4, 1.160, 1.1089)
    assert basic == pytest.approx(26.4, abs=0.05)
    assert added == pytest.approx(1.15, abs=0.01)


@pytest.mark.parametrize(
    ("section", "d_in", "rpm", "hp"),
    [
        ("A", 3.0, 1750, 1.554),
        ("B", 5.4, 1750, 5.434),
        ("C", 9.0, 1160, 12.725),
        ("D", 13.0, 870, 24.061),
        ("AX", 3.0, 1750, 2.123),
        ("BX", 5.4, 1750, 7.653),
        ("CX", 9.0, 1160, 16.651),
        ("B", 10.8, 690, 7.66),
    ],
)
def test_formula_values(section: str, d_in: float, rpm: float, hp: float) -> None:
    """Worked independently from the IP-20 coefficients; a regression value, no printed cell is remembered for it."""
    rated = ip20.rated_power(v_belt.section(section), inches(d_in), to_si(rpm, "rotation", "rpm"), 1.0)
    assert from_si(rated.total_w, "power", "hp") == pytest.approx(hp, rel=1e-3)


def test_about_twice_the_older_rating() -> None:
    """Shigley Table 17-12 (older rating), B at 5.4 in and 2000 ft/min: 2.62 hp; IP-20 is 1.8 to 2 times that."""
    rpm = 2000 * 12 / (math.pi * 5.4)
    rated = ip20.rated_power(v_belt.section("B"), inches(5.4), to_si(rpm, "rotation", "rpm"), 1.0)
    assert 1.7 < from_si(rated.total_w, "power", "hp") / 2.62 < 2.1


@pytest.mark.parametrize(
    ("theta", "printed"),
    [
        (180, 1.00),
        (174, 0.99),
        (169, 0.97),
        (163, 0.96),
        (157, 0.94),
        (151, 0.93),
        (145, 0.91),
        (139, 0.89),
        (133, 0.87),
        (127, 0.85),
        (120, 0.82),
        (113, 0.80),
        (106, 0.77),
        (99, 0.73),
        (91, 0.70),
        (83, 0.65),
    ],
)
def test_arc_factor_against_the_printed_table(theta: float, printed: float) -> None:
    """IP-20 / Shigley Table 17-13, V-V column."""
    assert ip20.arc_factor(math.radians(theta)) == pytest.approx(printed, abs=0.0052)


def test_factors_at_their_reference_points() -> None:
    """Length factor 1 at A68, B90, C144, D240; speed-ratio factor 1.0972 at 1.5, 1.1106 from 1.65 (IP-20; Machinery's Handbook)."""
    for name in ("A68", "BX90", "C144", "D240"):
        assert ip20.length_factor(v_belt.parse_designation(name)) == 1.0
    assert ip20.length_factor(v_belt.parse_designation("B83")) == pytest.approx(0.985)
    assert [ip20.speed_ratio_factor(r) for r in (1.0, 1.016, 1.02, 1.5, 1.64, 1.65, 9)] == [
        1.0,
        1.0,
        1.0112,
        1.0972,
        1.0972,
        1.1106,
        1.1106,
    ]
    with pytest.raises(duties.OutOfRangeError, match="outside the length-factor table"):
        ip20.length_factor(v_belt.parse_designation("B330"))


def test_service_factors() -> None:
    """IP-20 class table; hours bounds under 6, 6-15, over 15 as textbooks use it (Mott)."""
    assert duties.service_factor("light", "normal", 10) == 1.1
    assert duties.service_factor("moderate", "normal", 24) == 1.3
    assert duties.service_factor("heavy", "high", 4) == 1.4
    assert duties.service_factor("chokable", "normal", 4) == 2.0
    table = [float(r["service_factor"]) for r in rows("ip20_service_factor")]
    assert all(a <= b for a, b in zip(table[0::3], table[1::3], strict=True))


def test_datum_lengths() -> None:
    """IP-20; Shigley Tables 17-10, 17-11: A68 69.3, B112 113.8, B240 240.3, C180 182.9, D120 123.3, D240 240.8."""
    for name, length in {"A68": 69.3, "B112": 113.8, "B240": 240.3, "C180": 182.9, "D120": 123.3, "D240": 240.8}.items():
        belt = v_belt.parse_designation(name)
        assert belt.listed
        assert from_si(belt.datum_length_m, "length", "in") == pytest.approx(length)


def test_groove_tables_are_consistent() -> None:
    """Geometry of the groove.

    Top width - 2h_d tan(angle/2) = datum width (IP-20, ISO 4183); narrow grooves: the effective width is at the rim.

    Within 0.001 in; the older national tables print a rounded top width (0.4 mm).
    """
    for name in ("A", "B", "C", "D", "Y", "Z", "ISO A", "ISO B", "ISO C", "ISO D", "ISO E", "SPZ", "SPA", "SPB", "SPC"):
        for kind, slack in (("standard", inches(0.001)), ("deep", inches(0.001)), ("DIN 2211", 0.0004), ("DIN 2217", 0.0013)):
            for g in v_belt.grooves_of(name, kind):
                assert g.datum_width_m
                found = g.top_width_m - g.two_hd_m * math.tan(math.radians(g.angle_deg / 2))
                assert found == pytest.approx(g.datum_width_m, abs=slack), (name, kind)
    for name in ("3V", "5V", "8V"):
        for g in v_belt.grooves_of(name, "standard"):
            assert g.top_width_m == g.datum_width_m
        for g in v_belt.grooves_of(name, "deep"):
            raised = (g.top_width_m - (g.datum_width_m or 0)) / math.tan(math.radians(g.angle_deg / 2))
            assert raised == pytest.approx(g.two_hd_m - v_belt.grooves_of(name, "standard")[0].two_hd_m, abs=inches(0.004)), name


def test_joined_belts_fit_their_sheaves() -> None:
    """The rib spacing of a joined belt (ISO 5290, 5291) is the groove spacing of its sheave (IP-20, IP-22, ISO 4183), within 0.002 in."""
    for row in rows("v_joined"):
        spacing = float(row["spacing"]) * (0.0254 if row["unit"] == "in" else 0.001)
        groove = v_belt.grooves_of(row["section"], "standard")[0]
        assert groove.spacing_m == pytest.approx(spacing, abs=inches(0.002)), row["section"]


def test_published_lengths_agree_with_the_conventions() -> None:
    """Each tabled measuring length is the name's number by the section's convention (IP-20 to IP-23, ISO 4184)."""
    for row in rows("v_belt_lengths"):
        found = v_belt.section(row["section"])
        by = v_belt.lengths(found, float(row["number"]))
        wanted = float(row["length"]) * (0.0254 if row["unit"] == "in" else 0.001)
        measuring = by.outside_m if found.series in ("narrow inch", "light-duty inch") else by.datum_m
        if found.construction == "hexagonal":  # the effective length lies at the groove's rim, half the belt under a tape over its outer V
            measuring = by.outside_m - math.pi * found.height_m
        assert measuring == pytest.approx(wanted, abs=inches(0.06)), row


def test_double_v_and_single_lengths_are_one_loop() -> None:
    """IP-21: effective length of AA51 53.1, BB51 53.9, CC75 79.2, DD120 125.2, BB240 241.4; datum length is pi * 2h_d less (from memory).

    A tape over the outside counts both Vs: pi times the height more, by geometry.
    """
    for name, effective in (("AA51", 53.1), ("BB51", 53.9), ("CC75", 79.2), ("DD120", 125.2), ("BB240", 241.4)):
        belt = v_belt.parse_designation(name)
        by = v_belt.lengths(belt.section, belt.number)
        assert by.outside_m - math.pi * belt.section.height_m == pytest.approx(inches(effective), abs=inches(0.06))
        single = v_belt.lengths(v_belt.section(name[0]), belt.number)
        assert by.datum_m == pytest.approx(single.datum_m, abs=inches(0.06))


def test_a_belt_laid_in_a_circle() -> None:
    """Geometry.

    The outside of a classical belt lies 2 pi times its height outside its inside, within the tables' rounding (0.6 in on C, 0.1 in on A).
    """
    for name, slack in (("A68", 0.2), ("B81", 0.4), ("C112", 0.9), ("D180", 0.5), ("SPA 1250", 0.6), ("SPC 3550", 1.4)):
        belt = v_belt.parse_designation(name)
        by = v_belt.lengths(belt.section, belt.number)
        assert by.outside_m - by.inside_m == pytest.approx(2 * math.pi * belt.section.height_m, abs=inches(slack)), name


def test_no_rating_beyond_the_standard() -> None:
    with pytest.raises(duties.OutOfRangeError, match="6500 ft/min"):
        ip20.rated_power(v_belt.section("B"), inches(14), to_si(3450, "rotation", "rpm"), 1.0)
    assert ip20.rated_power(v_belt.section("A"), inches(1.5), to_si(1750, "rotation", "rpm"), 1.0).total_w == 0
    assert ip20.belts_needed(1000, 0) is None
