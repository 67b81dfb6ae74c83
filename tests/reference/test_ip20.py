"""Ratings and factors against published figures, all from memory; each test names its source."""

import math

import pytest

from tuyere.core.families import v_belt
from tuyere.core.origin import Confidence
from tuyere.core.quantity import from_si, to_si
from tuyere.core.rating import ip20
from tuyere.core.table import rows


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
        ("A", 3.0, 1750, 1.554), ("B", 5.4, 1750, 5.434), ("C", 9.0, 1160, 12.725), ("D", 13.0, 870, 24.061),
        ("AX", 3.0, 1750, 2.123), ("BX", 5.4, 1750, 7.653), ("CX", 9.0, 1160, 16.651), ("B", 10.8, 690, 7.66),
    ],
)  # fmt: skip
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
    [(180, 1.00), (174, 0.99), (169, 0.97), (163, 0.96), (157, 0.94), (151, 0.93), (145, 0.91), (139, 0.89), (133, 0.87), (127, 0.85),
     (120, 0.82), (113, 0.80), (106, 0.77), (99, 0.73), (91, 0.70), (83, 0.65)],
)  # fmt: skip
def test_arc_factor_against_the_printed_table(theta: float, printed: float) -> None:
    """IP-20 / Shigley Table 17-13, V-V column."""
    assert ip20.arc_factor(math.radians(theta)) == pytest.approx(printed, abs=0.0052)


def test_factors_at_their_reference_points() -> None:
    """Length factor 1 at A68, B90, C144, D240; speed-ratio factor 1.0972 at 1.5, 1.1106 from 1.65 (IP-20; Machinery's Handbook)."""
    for name in ("A68", "BX90", "C144", "D240"):
        assert ip20.length_factor(v_belt.parse_designation(name)) == 1.0
    assert ip20.length_factor(v_belt.parse_designation("B83")) == pytest.approx(0.985)
    assert [ip20.speed_ratio_factor(r) for r in (1.0, 1.016, 1.5, 1.64, 1.65, 9)] == [1.0, 1.0112, 1.0972, 1.0972, 1.1106, 1.1106]
    with pytest.raises(ip20.OutOfRangeError, match="outside the length-factor table"):
        ip20.length_factor(v_belt.parse_designation("B330"))


def test_service_factors() -> None:
    """IP-20 class table; hours bounds under 6, 6-15, over 15 as textbooks use it (Mott)."""
    assert ip20.service_factor("light", "normal", 10) == 1.1
    assert ip20.service_factor("moderate", "normal", 24) == 1.3
    assert ip20.service_factor("heavy", "high", 4) == 1.4
    assert ip20.service_factor("chokable", "normal", 4) == 2.0
    table = [float(r["service_factor"]) for r in rows("ip20_service_factor")]
    assert all(a <= b for a, b in zip(table[0::3], table[1::3], strict=True))


def test_datum_lengths() -> None:
    """IP-20; Shigley Tables 17-10, 17-11: A68 69.3, B112 113.8, B240 240.3, C180 182.9, D120 123.3, D240 240.8."""
    for name, length in {"A68": 69.3, "B112": 113.8, "B240": 240.3, "C180": 182.9, "D120": 123.3, "D240": 240.8}.items():
        belt = v_belt.parse_designation(name)
        assert belt.listed
        assert from_si(belt.datum_length_m, "length", "in") == pytest.approx(length)
    for belt in (b for name in v_belt.sections() for b in v_belt.standard_belts(name)):
        assert belt.datum_length_m == pytest.approx(v_belt.datum_length(belt.section, belt.number), abs=inches(0.011)), belt.designation


def test_groove_table_is_consistent() -> None:
    """Geometry of the groove: top width - 2h_d tan(angle/2) = datum width, within a thousandth (IP-20 groove table)."""
    for row in rows("v_groove_standard"):
        top, two_hd, datum, angle = (float(row[k]) for k in ("top_width_in", "two_hd_in", "datum_width_in", "angle_deg"))
        assert top - two_hd * math.tan(math.radians(angle / 2)) == pytest.approx(datum, abs=0.001)


def test_no_rating_beyond_the_standard() -> None:
    with pytest.raises(ip20.OutOfRangeError, match="6500 ft/min"):
        ip20.rated_power(v_belt.section("B"), inches(14), to_si(3450, "rotation", "rpm"), 1.0)
    assert ip20.rated_power(v_belt.section("A"), inches(1.5), to_si(1750, "rotation", "rpm"), 1.0).total_w == 0
    assert ip20.belts_needed(1000, 0) is None
