"""Belts by name, grooves, standard lengths and allowances."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.families import v_belt
from tuyere.core.quantity import from_si, to_si
from tuyere.core.table import rows


def inches(value: float) -> float:
    return to_si(value, "length", "in")


@pytest.mark.parametrize(
    ("text", "expected", "name"),
    [
        ("B81", None, "B81"), ("b-81", None, "B81"), (" BX 81 ", None, "BX81"), ("81", "B", "B81"), ("ax42", None, "AX42"),
        ("BX85", "B", "BX85"), ("D660", None, "D660"), ("A43.5", None, "A43.5"),
    ],
)  # fmt: skip
def test_names_as_people_write_them(text: str, expected: str | None, name: str) -> None:
    assert v_belt.parse_designation(text, v_belt.section(expected) if expected else None).designation == name


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("4L430", "classical belt name"),
        ("E240", "not a section"),
        ("B9", "classical belt name"),
        ("", "classical"),
        ("B81B81", "classical"),
    ],
)
def test_names_that_are_not_classical_belts(text: str, says: str) -> None:
    with pytest.raises(v_belt.BeltError, match=says):
        v_belt.parse_designation(text)


def test_an_odd_length_is_worked_out_from_its_name_and_said_to_be_odd() -> None:
    odd = v_belt.parse_designation("B82")
    assert not odd.listed and from_si(odd.datum_length_m, "length", "in") == pytest.approx(83.8)
    long = v_belt.parse_designation("B250")
    assert from_si(long.datum_length_m, "length", "in") == pytest.approx(250.3)


@pytest.mark.parametrize(
    ("section", "datum_in", "angle"),
    [
        ("A", 5.4, 34),
        ("A", 5.41, 38),
        ("B", 7.0, 34),
        ("B", 7.1, 38),
        ("CX", 7.99, 34),
        ("C", 8.0, 36),
        ("C", 12.1, 38),
        ("D", 17.0, 36),
        ("D", 40, 38),
    ],
)
def test_groove_angle_by_diameter(section: str, datum_in: float, angle: float) -> None:
    """IP-20 groove table: the angle opens with the diameter."""
    assert v_belt.groove(v_belt.section(section), inches(datum_in)).angle_deg == angle


@given(st.sampled_from(sorted(v_belt.sections())), st.floats(1.0, 80.0))
def test_datum_and_outside_are_inverses(section: str, datum_in: float) -> None:
    belt = v_belt.section(section)
    assert v_belt.datum_from_outside(belt, v_belt.outside_from_datum(belt, inches(datum_in))) == pytest.approx(inches(datum_in))


@given(st.sampled_from(sorted(v_belt.sections())), st.floats(10.0, 700.0))
def test_nearest_belts_bracket_the_length(section: str, length_in: float) -> None:
    below, above = v_belt.nearest_belts(v_belt.section(section), inches(length_in))
    assert below or above
    if below:
        assert below.datum_length_m <= inches(length_in)
    if above:
        assert above.datum_length_m > inches(length_in)
    between = [
        b for b in v_belt.standard_belts(section) if below and above and below.datum_length_m < b.datum_length_m < above.datum_length_m
    ]
    assert not between


def test_allowances_grow_with_length_and_end_with_the_table() -> None:
    """IP-20: B85 closes 1.3 in and takes up 2.0 in; B300 takes up 5.0 in."""
    b85 = v_belt.allowance(v_belt.parse_designation("B85"))
    assert b85 and (from_si(b85.installation_m, "length", "in"), from_si(b85.takeup_m, "length", "in")) == pytest.approx((1.3, 2.0))
    takeups = [a.takeup_m for b in v_belt.standard_belts("C") if (a := v_belt.allowance(b))]
    assert takeups == sorted(takeups)
    assert v_belt.allowance(v_belt.parse_designation("C420")) is None


def test_cogged_belts_share_the_groove_and_bend_tighter() -> None:
    for name, belt in v_belt.sections().items():
        if belt.cogged:
            wrapped = v_belt.section(belt.groove)
            assert name == wrapped.name + "X" and belt.min_datum_diameter_m < wrapped.min_datum_diameter_m
            assert v_belt.centrifugal_mass(belt) == wrapped.mass_kg_per_m >= belt.mass_kg_per_m


@pytest.mark.parametrize(
    "table",
    ["v_belt_sections", "v_groove_standard", "v_belt_lengths", "v_belt_allowance", "ip20_power", "ip20_speed_ratio_factor", "ip20_length_factor",
     "ip20_service_factor", "cautions"],
)  # fmt: skip
def test_every_row_of_every_table_has_a_source_and_a_confidence(table: str) -> None:
    assert rows(table)
    assert all(len(r["source"]) > 3 and r["confidence"] in ("high", "medium", "low") for r in rows(table))


def test_length_factors_rise_with_length() -> None:
    for groove in "ABCD":
        column = [(float(r["number"]), float(r["K_L"])) for r in rows("ip20_length_factor") if r["groove"] == groove]
        assert column == sorted(column) and len({k for _, k in column}) > len(column) * 0.8
