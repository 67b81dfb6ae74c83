"""Belts by name, grooves, standard lengths and allowances."""

from importlib import resources

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds import v_belt


def inches(value: float) -> float:
    return to_si(value, "length", "in")


@pytest.mark.parametrize(
    ("text", "expected", "name"),
    [
        ("B81", None, "B81"),
        ("b-81", None, "B81"),
        (" BX 81 ", None, "BX81"),
        ("81", "B", "B81"),
        ("ax42", None, "AX42"),
        ("BX85", "B", "BX85"),
        ("D660", None, "D660"),
        ("A43.5", None, "A43.5"),
        ("4l430", None, "4L430"),
        ("5vx-830", None, "5VX830"),
        ("spa1180", None, "SPA 1180"),
        ("A 1400", None, "A 1400"),
        ("13 x 1400 Li", None, "A 1430"),
        ("13x1430 Ld", None, "A 1430"),
        ("4/5V1000", None, "4/5V1000"),
        ("6pk1195", None, "6PK 1195"),
        ("430J6", None, "6PJ 1092"),
        ("AA90", None, "AA90"),
        ("1400", "ISO A", "A 1400"),
        ("link 13 1000", None, "link 13 1000"),
    ],
)
def test_names_as_people_write_them(text: str, expected: str | None, name: str) -> None:
    assert v_belt.parse_designation(text, v_belt.section(expected) if expected else None).designation == name


@pytest.mark.parametrize("text", ["", "B81B81", "Q12", "7V900", "14x1400", "B9", "81"])
def test_names_that_are_no_belts(text: str) -> None:
    with pytest.raises(v_belt.BeltError, match=r"belt name known here|too short"):
        v_belt.parse_designation(text)


@given(st.sampled_from(sorted(v_belt.sections())), st.data())
def test_names_come_back_as_they_went(name: str, data: st.DataObject) -> None:
    """Writing a belt's name and reading it again gives the same belt, for every section, listed or not, joined or single."""
    low, high = v_belt.trade_range(name) or (500, 3000)
    found = v_belt.section(name)
    ribs = data.draw(st.integers(1, 12)) if found.construction == "ribbed" else data.draw(st.none() | st.integers(2, 9))
    belt = v_belt.belt_of(found, float(data.draw(st.integers(int(low), int(high)))), ribs)
    assert v_belt.parse_designation(belt.designation) == belt


@given(st.sampled_from(sorted(v_belt.sections())), st.integers(1, 400))
def test_lengths_convert_both_ways(name: str, steps: int) -> None:
    """Number to datum and outside length, and back."""
    found = v_belt.section(name)
    number = round(steps * 0.0254 / found.step_m) if found.step_m < 0.02 else steps
    by = v_belt.lengths(found, number)
    if not (found.named_by == "inside" and 236 <= number < 240):  # where the adders drop two numbers share a length
        assert v_belt.number_from_datum(found, by.datum_m) == pytest.approx(number)
        assert v_belt.number_from_outside(found, by.outside_m) == pytest.approx(number)
    assert by.inside_m < by.outside_m


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
        ("3VX", 3.4, 36),
        ("5V", 12, 40),
        ("SPA", 4.5, 34),
        ("SPA", 5, 38),
    ],
)
def test_groove_angle_by_diameter(section: str, datum_in: float, angle: float) -> None:
    """IP-20, IP-22 and ISO 4183 groove tables: the angle opens with the diameter."""
    assert v_belt.groove(v_belt.section(section), inches(datum_in)).angle_deg == angle


@given(st.sampled_from(sorted(v_belt.sections())), st.floats(1.0, 80.0))
def test_datum_and_outside_are_inverses(section: str, datum_in: float) -> None:
    belt = v_belt.section(section)
    assert v_belt.datum_from_outside(belt, v_belt.outside_from_datum(belt, inches(datum_in))) == pytest.approx(inches(datum_in))


@given(st.sampled_from(sorted(v_belt.sections())), st.floats(10.0, 700.0))
def test_nearest_belts_bracket_the_length(section: str, length_in: float) -> None:
    below, above = v_belt.nearest_belts(v_belt.section(section), inches(length_in))
    made = [b.datum_length_m for b in v_belt.standard_belts(section)]
    assert below or above or not made or not min(made) / 2 < inches(length_in) < 2 * max(made)
    if below:
        assert below.datum_length_m <= inches(length_in)
    if above:
        assert above.datum_length_m > inches(length_in)
    between = [
        b for b in v_belt.standard_belts(section) if below and above and below.datum_length_m < b.datum_length_m < above.datum_length_m
    ]
    assert not between


def test_allowances_grow_with_length() -> None:
    """IP-20: B85 closes 1.3 in and takes up 2.0 in; B300 takes up 5.0 in."""
    b85 = v_belt.allowance(v_belt.parse_designation("B85"))
    assert b85 and (from_si(b85.installation_m, "length", "in"), from_si(b85.takeup_m, "length", "in")) == pytest.approx((1.3, 2.0))
    for name in ("C", "5V", "SPB", "4L"):
        takeups = [a.takeup_m for b in v_belt.standard_belts(name) if (a := v_belt.allowance(b))]
        assert len(takeups) > 10 and takeups == sorted(takeups), name
    long = v_belt.allowance(v_belt.parse_designation("C420"))
    assert long and from_si(long.takeup_m, "length", "in") == pytest.approx(0.015 * 420)
    assert v_belt.allowance(v_belt.parse_designation("E240")) is None


def test_cogged_belts_share_the_groove_and_bend_tighter() -> None:
    for name, belt in v_belt.sections().items():
        if belt.cogged:
            wrapped = v_belt.section(belt.groove)
            assert name in (wrapped.name + "X", wrapped.name.replace("SP", "XP"))
            assert v_belt.min_datum_diameter(belt) < v_belt.min_datum_diameter(wrapped)
            assert v_belt.centrifugal_mass(belt) == wrapped.mass_kg_per_m >= belt.mass_kg_per_m


def test_every_row_of_every_table_has_a_source_and_a_confidence() -> None:
    tables = sorted(
        path.name.removesuffix(".csv") for path in (resources.files("tuyere.core") / "tables").iterdir() if path.name.endswith(".csv")
    )
    assert len(tables) > 15
    for table in tables:
        assert rows(table), table
        assert all(len(r["source"]) > 3 and r["confidence"] in ("high", "medium", "low") for r in rows(table)), table


def test_length_factors_rise_with_length() -> None:
    for groove in "ABCD":
        column = [(float(r["number"]), float(r["K_L"])) for r in rows("ip20_length_factor") if r["groove"] == groove]
        assert column == sorted(column) and len({k for _, k in column}) > len(column) * 0.8
