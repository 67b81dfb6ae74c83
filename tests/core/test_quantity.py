"""What people write at a machine is read, shown back, or refused in a sentence."""

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.field import FIELDS, OutOfRangeError, read_field
from tuyere.core.basis.quantity import QuantityError, System, fraction_inches, parse, show
from tuyere.core.basis.units import KINDS

IN = 0.0254


@pytest.mark.parametrize(
    ("text", "kind", "unit", "expected_si"),
    [
        ("16 1/4", "length", "in", 16.25 * IN),
        ('16-1/4"', "length", "mm", 16.25 * IN),
        ("3/8", "length", "in", 0.375 * IN),
        ("16½", "length", "in", 16.5 * IN),
        ("3' 4 1/2\"", "length", "in", 40.5 * IN),
        ("3 ft 4-1/2 in", "length", "mm", 40.5 * IN),
        ("410mm", "length", "in", 0.410),
        ("1.2 m", "length", "in", 1.2),
        ("0,5", "length", "in", 0.5 * IN),
        ("5 hp", "power", "kW", 5 * 745.6998716),
        ("3.7kW", "power", "hp", 3700.0),
        ("1,750 rpm", "rotation", "rpm", 1750 * math.pi / 30),
        ("10 lbf", "force", "N", 44.48221615),
        ("2 kgf", "force", "lbf", 19.6133),
        ("14.5 psi", "pressure", "Pa", 14.5 * 6894.757293),
        (".25 in wc", "pressure", "Pa", 62.2722275),
        ("100 cfm", "airflow", "m³/s", 0.0471947443),
    ],
)
def test_reads_what_people_write(text: str, kind: str, unit: str, expected_si: float) -> None:
    # Conversion factors: NIST SP 811 (inH2O, conventional: 249.0889 Pa).
    parsed = parse(text, kind, unit)
    assert parsed is not None
    assert parsed.value_si == pytest.approx(expected_si, rel=1e-6)


@pytest.mark.parametrize("text", ["-", "", "  ", "?"])
def test_dash_and_blank_mean_not_known(text: str) -> None:
    assert parse(text, "length", "in") is None


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("1/0", "divides by zero"),
        ("12 parsecs", "not a unit for a length here: use in, ft, mm"),
        ("-5", "never below zero"),
        ("abc", "write a number and a unit"),
        ("1e400", "too large"),
        ("5 10", "Two numbers"),
        ("nan", "not a length"),
        ("x" * 10_000_000, "too long"),
        ("9" * 50, "120 in across"),
    ],
)
def test_refuses_in_a_sentence(text: str, says: str) -> None:
    with pytest.raises(QuantityError, match=says):
        read_field("driver_diameter", text, "in")


def test_a_bare_number_out_of_range_offers_the_other_unit() -> None:
    _, note = read_field("centre_distance", "410", "in")
    assert note and note.offer and (note.offer.unit, note.offer.sentence) == ("mm", "410 mm?")
    with pytest.raises(OutOfRangeError) as refused:
        read_field("driver_diameter", "161", "in")
    assert refused.value.offer and refused.value.offer.unit == "mm"


@given(st.integers(0, 40 * 64))
def test_a_fraction_shown_reads_back_the_same(sixty_fourths: int) -> None:
    value = sixty_fourths / 64 * IN
    parsed = parse(fraction_inches(value), "length", "in")
    assert parsed and parsed.value_si == pytest.approx(value, abs=1e-12)


@given(st.text(max_size=40), st.sampled_from(sorted(KINDS)))
def test_any_text_is_read_or_refused_never_broken(text: str, kind: str) -> None:
    try:
        parsed = parse(text, kind, KINDS[kind].us_symbol)
    except QuantityError as refusal:
        assert str(refusal).strip()
    else:
        assert parsed is None or (math.isfinite(parsed.value_si) and parsed.value_si >= 0)


@given(st.floats(0.01, 1e5), st.sampled_from(["length", "power", "force", "rotation", "velocity"]))
def test_shown_values_stay_within_their_rounding(value: float, kind: str) -> None:
    for system in System:
        symbol = KINDS[kind].us_symbol if system is System.US else KINDS[kind].si_symbol
        parsed = parse(show(value, kind, system).replace(",", ""), kind, symbol)
        step = float(Fraction(1, 2)) * (10 ** -(KINDS[kind].us_decimals if system is System.US else KINDS[kind].si_decimals))
        assert parsed is not None
        assert abs(parsed.value_si - value) <= (step * 10.01) * abs(parse(f"1 {symbol}", kind, symbol).value_si)  # type: ignore[union-attr]


def test_every_field_has_a_refusal_and_a_plausible_range_inside_the_possible_one() -> None:
    for field in FIELDS.values():
        assert field.refusal.endswith(".")
        assert field.possible[0] <= field.plausible[0] < field.plausible[1] <= field.possible[1]
