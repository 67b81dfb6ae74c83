"""The whole sheet: each gives the other, bad practice is kept and flagged, the impossible is refused."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis.origin import Origin, weakest
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.solve import Sheet, solve
from tuyere.core.drive.sheet.typed import FormReading, read_form
from tuyere.core.kinds.v_belt.kind import V_BELT

BASE = {
    "driver_power": "7.5 hp",
    "driver_speed": "1755 rpm",
    "hours_per_day": "10",
    "driver_diameter": "6.35 in",
    "driven_diameter": "12.35 in",
    "centre_distance": "31 5/8 in",
}
WORDS = {"section": "B", "belt_count": "2", "driven_class": "light"}


def sheet(quantities: dict[str, str] | None = None, words: dict[str, str] | None = None) -> tuple[FormReading, Sheet]:
    typed = {k: Typed(v) for k, v in {**BASE, **(quantities or {})}.items()}
    reading = read_form(V_BELT, typed, {**WORDS, **(words or {})})
    return reading, solve(reading.spec)


def problems(reading: FormReading, solved: Sheet) -> dict[str, str]:
    return {p.field: p.sentence for p in (*reading.problems, *solved.problems)}


def flags(solved: Sheet) -> set[str]:
    return {f.code for f in solved.flags}


def verdict(solved: Sheet, topic: str) -> Any:
    return next(v for v in solved.verdicts if v.topic == topic)


def test_centre_distance_and_belt_each_give_the_other() -> None:
    _, taped = sheet()
    length = taped.figures["length_by_tape"].value_si
    _, named = sheet({"centre_distance": "-"}, {"belt": "B90"})
    assert named.figures["centre_distance"].value_si == named.figures["centres_by_belt"].value_si
    _, back = sheet({"centre_distance": f"{named.figures['centre_distance'].value_si * 1000:.6f} mm"})
    assert back.figures["length_by_tape"].value_si == pytest.approx(to_si(91.8, "length", "in"), abs=1e-6)
    assert length == pytest.approx(to_si(91.8, "length", "in"), rel=0.003)


def test_outside_and_datum_entries_mean_the_same_sheave() -> None:
    _, outside = sheet()
    _, datum = sheet({"driver_diameter": "6.0 in"}, {"driver_basis": "datum"})
    assert datum.figures["driver_outside"].value_si == pytest.approx(outside.figures["driver_outside"].value_si)
    assert datum.figures["ratio"].value_si == pytest.approx(outside.figures["ratio"].value_si)


def test_the_right_belt_the_wrong_belt_and_no_belt() -> None:
    _, right = sheet({"centre_distance": "31 5/8 in"}, {"belt": "B90"})
    assert verdict(right, "length").tone == "good"
    _, wrong = sheet({"centre_distance": "31 5/8 in"}, {"belt": "B97"})
    assert verdict(wrong, "length").tone == "watch" and "B90" in verdict(wrong, "length").detail
    _, none = sheet({"centre_distance": "31 5/8 in"})
    assert "nearest B90" in verdict(none, "length").headline


@pytest.mark.parametrize(
    ("quantities", "words", "field", "says"),
    [
        ({"driver_diameter": "0"}, {}, "driver_diameter", "3/4 to 120 in"),
        ({"driver_speed": "50000 rpm"}, {}, "driver_speed", "between 0.1 and 20 000 rpm"),
        ({"driver_power": "-3 hp"}, {}, "driver_power", "never below zero"),
        ({"centre_distance": "9 in"}, {}, "centre_distance", "overlap"),
        ({}, {"belt": "B28"}, "belt", "too short to span"),
        ({}, {"section": "Q"}, "section", "usual ones are A, AX"),
        ({}, {"belt": "A50"}, "belt", "set to B"),
        ({}, {"belt": "7"}, "belt", "such as B81"),
        ({}, {"belt_count": "0"}, "belt_count", "1 to 20"),
        ({"hours_per_day": "25 h"}, {}, "hours_per_day", "24 hours"),
        ({}, {"driven_class": "spaceship"}, "driven_class", "not on the list"),
    ],
)
def test_the_impossible_is_refused_beside_its_field(quantities: dict[str, str], words: dict[str, str], field: str, says: str) -> None:
    found = problems(*sheet(quantities, words))
    assert set(found) == {field}
    assert says in found[field]


def test_bad_practice_is_kept_computed_and_flagged() -> None:
    _, small = sheet({"driver_diameter": "4 in", "driver_power": "15 hp"}, {"belt": "B85", "driven_class": "heavy"})
    assert {"small-sheave", "too-few-belts"} <= flags(small)
    assert small.figures["power_per_belt"].value_si > 0 and not small.problems
    _, long = sheet({"travel_out": "1/2 in"}, {"belt": "B97"})
    assert "long-belt" in flags(long)
    _, fast = sheet({"driver_diameter": "14 in", "driver_speed": "3500 rpm"})
    assert {"rim-speed", "belt-speed"} <= flags(fast)
    assert verdict(fast, "rating").tone == "stop"


def test_a_computed_number_wears_the_mark_of_its_weakest_input() -> None:
    typed = {k: Typed(v, origin=Origin.ASSUMED if k == "centre_distance" else None) for k, v in BASE.items()}
    solved = solve(read_form(V_BELT, typed, WORDS).spec)
    assert solved.figures["span"].weakest is Origin.ASSUMED
    assert solved.figures["ratio"].weakest is Origin.STANDARD
    assert weakest(Origin.NAMEPLATE, Origin.MEASURED) is Origin.NAMEPLATE
    assert all(f.working for f in solved.figures.values() if f.origin is Origin.COMPUTED)


def test_slip_needs_both_shafts_to_be_sure() -> None:
    _, plate = sheet({"tach_driven": "840 rpm"})
    assert "plate" in verdict(plate, "speed").detail
    _, both = sheet({"tach_driven": "800 rpm", "tach_driver": "1760 rpm", "design_speed": "870 rpm"})
    assert verdict(both, "speed").tone == "watch" and verdict(both, "design").tone == "watch"
    assert both.figures["slip"].std_si < plate.figures["slip"].std_si


def test_nothing_known_says_what_to_measure_first() -> None:
    solved = solve(read_form(V_BELT, {}, {}).spec)
    assert not solved.figures and solved.drawing is None
    assert solved.wanted[:3] == ("section", "driver_diameter", "driven_diameter")


@examples(60)
@given(
    st.sampled_from(["A", "B", "C", "D", "AX", "BX", "CX"]),
    st.floats(1, 40),
    st.floats(1, 40),
    st.floats(2, 200),
    st.integers(20, 5000),
    st.integers(1, 12),
    st.sampled_from(["", "B81", "C144", "A26", "D660"]),
)
def test_any_drive_gives_numbers_or_sentences(section: str, d: float, big: float, c: float, rpm: int, belts: int, belt: str) -> None:
    reading, solved = sheet(
        {
            "driver_diameter": f"{d:.3f} in",
            "driven_diameter": f"{big:.3f} in",
            "centre_distance": f"{c:.3f} in",
            "driver_speed": f"{rpm} rpm",
        },
        {"section": section, "belt_count": str(belts), "belt": belt},
    )
    assert all(math.isfinite(f.value_si) and math.isfinite(f.std_si) for f in solved.figures.values())
    assert solved.drawing or problems(reading, solved)
