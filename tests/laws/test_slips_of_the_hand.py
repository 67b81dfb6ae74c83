"""What is typed far from what can be meant is asked about, and nothing is worked out of it; what a name says whole is offered whole."""

from typing import Any

import pytest

from tuyere.core.basis.field import read_field
from tuyere.record.forms import SheetForm, SurveyForm
from tuyere.web.sheet import SheetOut, sheet_answer


def drive(centres: str, **choices: str) -> SheetOut:
    quantities = {
        "driver_power": "20 hp",
        "driver_speed": "1750 rpm",
        "hours_per_day": "10 h",
        "driver_diameter": "8 in",
        "driven_diameter": "14 in",
        "centre_distance": centres,
    }
    told: dict[str, Any] = {
        "family": "v-belt",
        "quantities": {k: {"text": v} for k, v in quantities.items()},
        "choices": {"section": "B", "belt_count": "2", "driven_class": "moderate", **choices},
    }
    return sheet_answer(SheetForm(survey=SurveyForm.model_validate(told)))


@pytest.mark.parametrize(
    ("key", "text", "offered"),
    [
        ("centre_distance", "13 m", "in"),
        ("centre_distance", "900", "mm"),
        ("driver_diameter", "8 m", "in"),
        ("centre_distance", "36 in", None),
        ("centre_distance", "160 in", None),
    ],
)
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
    [
        ("3/BX97", "B", "", ("BX", "3", "3/BX97")),
        ("5VX1250", "B", "", ("5VX", "", "5VX1250")),
        ("3/BX97", "", "", ("BX", "3", "3/BX97")),
        ("6PK 1195", "B", "", ("PK", "6", "6PK 1195")),
        ("B97", "B", "", None),
        ("97", "B", "", None),
        ("3/BX97", "BX", "3", None),
        ("-", "B", "", None),
    ],
)
def test_a_name_typed_whole_is_offered_whole(name: str, section: str, ribs: str, says: tuple[str, ...] | None) -> None:
    named = drive("36 in", belt=name, section=section, ribs=ribs).belt_named
    assert (named and (named.section, named.ribs, named.belt)) == says


def test_the_least_sheave_is_told_in_the_line_that_was_measured() -> None:
    outside = drive("36 in", section="5V", driver_basis="outside").flags
    assert not [f for f in outside if "smallest" in f.sentence]
    told: dict[str, Any] = {
        "family": "v-belt",
        "quantities": {"driver_diameter": {"text": "4.6 in"}, "driven_diameter": {"text": "14 in"}},
    }
    for basis, other in (("outside", "datum"), ("datum", "outside")):
        form = SurveyForm.model_validate({**told, "choices": {"section": "B", "driver_basis": basis}})
        flag = next(f for f in sheet_answer(SheetForm(survey=form)).flags if f.code == "small-sheave")
        assert flag.sentence.index(f" {basis}") < flag.sentence.index(f" {other}")


MACHINE = {"driver_speed": ("1750", "rpm"), "hours_per_day": ("10", "h")}
PLAIN: dict[str, tuple[dict[str, tuple[str, str]], dict[str, Any]]] = {
    "v-belt": (
        {
            "driver_power": ("7.5", "hp"),
            "driver_diameter": ("6.4", "in"),
            "driven_diameter": ("14.2", "in"),
            "centre_distance": ("31", "in"),
        },
        {"choices": {"section": "B", "belt_count": "2"}},
    ),
    "roller chain": (
        {"driver_power": ("2", "hp"), "driver_speed": ("120", "rpm")},
        {"toothed": {"drive": {"name": "60", "teeth_1": "17", "teeth_2": "40", "strands": "1", "centre_distance": ("30", "in")}}},
    ),
    "synchronous": (
        {"driver_power": ("3", "hp")},
        {
            "toothed": {
                "quantities": {"belt_width": ("50", "mm")},
                "drive": {"name": "H8M", "teeth_1": "40", "teeth_2": "80", "centre_distance": ("20", "in")},
            }
        },
    ),
    "flat belt": (
        {"driver_power": ("1.5", "hp"), "driver_speed": ("900", "rpm")},
        {
            "flat": {
                "belt": "leather 1ply heavy",
                "quantities": {
                    "flat_width": ("4", "in"),
                    "driver_diameter": ("8", "in"),
                    "driven_diameter": ("20", "in"),
                    "centre_distance": ("80", "in"),
                },
            }
        },
    ),
}
# What may be meant: an hour a day, a slower or a lighter drive by one point, a narrow belt that its own rating then speaks of.
MAY_BE = {
    ("hours_per_day", 0.1),
    ("driver_speed", 0.1),
    ("driver_power", 0.1),
    ("flat_width", 0.1),
    ("belt_width", 0.1),
    ("driver_speed", 10.0),
}


@pytest.mark.parametrize("family", PLAIN)
def test_a_point_that_slipped_is_asked_about(family: str) -> None:
    """Every size of a drive that is in order, ten times and a tenth.

    Refused, offered otherwise, or spoken of beside the field or in a verdict.
    """
    quantities, rest = PLAIN[family]

    def asked(slipped: str = "", by: float = 1.0) -> set[str]:
        def typed(of: Any, key: str = "") -> Any:
            if isinstance(of, dict):
                return {k: typed(v, k) for k, v in of.items()}
            return {"text": f"{float(of[0]) * (by if key == slipped else 1):g}", "unit": of[1]} if isinstance(of, tuple) else of

        form = {"family": family, "quantities": typed(MACHINE | quantities), **typed(rest)}
        form["choices"] = {"driven_class": "moderate", **form.get("choices", {})}
        found = sheet_answer(SheetForm(survey=SurveyForm.model_validate(form)))
        asks = (
            {f"offer {k}" for k, note in found.notes.items() if note.offer}
            | {f.code for f in found.flags}
            | {p.field for p in found.problems}
        )
        return asks | {f"{v.topic} {v.tone}" for v in found.verdicts if v.tone in ("watch", "stop")}

    sizes = set(MACHINE | quantities)
    for part in rest.values():
        sizes |= {k for of in (part, *(v for v in part.values() if isinstance(v, dict))) for k, v in of.items() if isinstance(v, tuple)}
    plain = asked()
    assert len(sizes) >= 4
    missed = {(key, by) for key in sizes for by in (10.0, 0.1) if not asked(key, by) - plain}
    assert missed <= MAY_BE
