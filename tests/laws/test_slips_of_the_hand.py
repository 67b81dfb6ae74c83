"""What is typed far from what can be meant is asked about, and nothing is worked out of it; what a name says whole is offered whole."""

from typing import Any

import pytest

from tuyere.core.entry.field import read_field
from tuyere.web.calc import SheetOut, sheet_answer
from tuyere.web.forms import SheetForm, SurveyForm


def drive(centres: str, **choices: str) -> SheetOut:
    quantities = {"driver_power": "20 hp", "driver_speed": "1750 rpm", "hours_per_day": "10 h", "driver_diameter": "8 in", "driven_diameter": "14 in",
                  "centre_distance": centres}  # fmt: skip
    told: dict[str, Any] = {
        "family": "v-belt",
        "quantities": {k: {"text": v} for k, v in quantities.items()},
        "choices": {"section": "B", "belt_count": "2", "driven_class": "moderate", **choices},
    }
    return sheet_answer(SheetForm(survey=SurveyForm.model_validate(told)))


@pytest.mark.parametrize(
    ("key", "text", "offered"),
    [("centre_distance", "13 m", "in"), ("centre_distance", "900", "mm"), ("driver_diameter", "8 m", "in"), ("centre_distance", "36 in", None),
     ("centre_distance", "160 in", None)],
)  # fmt: skip
def test_a_unit_that_cannot_be_meant_is_asked_about_though_it_was_written(key: str, text: str, offered: str | None) -> None:
    try:
        _, note = read_field(key, text, "in")
        offer = note.offer if note else None
    except Exception as refusal:  # beyond what can be at all it is refused, with the same offer
        offer = refusal.offer  # type: ignore[attr-defined]
    assert (offer.unit if offer else None) == offered


@pytest.mark.parametrize("centres", ["13 m", "540 in"])
def test_no_belt_is_named_and_nothing_rated_where_none_is_near(centres: str) -> None:
    far = drive(centres)
    length = next(v for v in far.verdicts if v.topic == "length")
    assert length.tone == "watch" and "B360" not in length.headline and "capacity" not in far.figures
    near = drive("36 in")
    assert next(v for v in near.verdicts if v.topic == "length").tone == "open" and "capacity" in near.figures


@pytest.mark.parametrize(
    ("name", "section", "ribs", "says"),
    [("3/BX97", "B", "", ("BX", "3", "3/BX97")), ("5VX1250", "B", "", ("5VX", "", "5VX1250")), ("3/BX97", "", "", ("BX", "3", "3/BX97")),
     ("6PK 1195", "B", "", ("PK", "6", "6PK 1195")), ("B97", "B", "", None), ("97", "B", "", None), ("3/BX97", "BX", "3", None), ("-", "B", "", None)],
)  # fmt: skip
def test_a_name_typed_whole_is_offered_whole(name: str, section: str, ribs: str, says: tuple[str, ...] | None) -> None:
    named = drive("36 in", belt=name, section=section, ribs=ribs).belt_named
    assert (named and (named.section, named.ribs, named.belt)) == says


def test_the_least_sheave_is_told_in_the_line_that_was_measured() -> None:
    outside = drive("36 in", section="5V", driver_basis="outside").flags
    assert not [f for f in outside if "smallest" in f.sentence]
    told: dict[str, Any] = {
        "family": "v-belt", "quantities": {"driver_diameter": {"text": "4.6 in"}, "driven_diameter": {"text": "14 in"}},
    }  # fmt: skip
    for basis, other in (("outside", "datum"), ("datum", "outside")):
        form = SurveyForm.model_validate({**told, "choices": {"section": "B", "driver_basis": basis}})
        flag = next(f for f in sheet_answer(SheetForm(survey=form)).flags if f.code == "small-sheave")
        assert flag.sentence.index(f" {basis}") < flag.sentence.index(f" {other}")
