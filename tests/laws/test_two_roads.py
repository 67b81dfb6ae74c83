"""A pair surveyed as two wheels and the same pair surveyed as a train: one answer in pulls, strands, marks of slip, aim, gauge.

And inches as millimetres.
"""

import math
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.record.forms import SheetForm, SurveyForm
from tuyere.web.sheet import sheet_answer

MM = 25.4
SECTIONS = {"A": 3.2, "B": 5.6, "5V": 7.2, "BX": 5.0, "SPB": 6.6}


def pair(section: str, small: float, ratio: float, centre: float, power: float, rpm: float, count: int, unit: str = "in") -> SurveyForm:
    """Two sheaves, sizes in inches, typed in either unit."""
    times = 1.0 if unit == "in" else MM
    length = {
        k: {"text": f"{v * times:.6f} {unit}"}
        for k, v in (("driver_diameter", small), ("driven_diameter", small * ratio), ("centre_distance", centre))
    }
    power_text = f"{power:.6f} hp" if unit == "in" else f"{power * 0.7456998715822702:.6f} kW"
    survey = SurveyForm.model_validate(
        {
            "family": "v-belt",
            "quantities": {
                "driver_power": {"text": power_text},
                "driver_speed": {"text": f"{rpm:.0f} rpm"},
                "hours_per_day": {"text": "10 h"},
                **length,
            },
            "choices": {"section": section, "belt_count": str(count), "driven_class": "moderate"},
        }
    )
    survey.first.held_by = "fixed centres"
    return survey


def train(section: str, small: float, ratio: float, centre: float, power: float, rpm: float, count: int) -> SurveyForm:
    """The same two wheels as a layout with one belt."""
    survey = pair(section, small, ratio, centre, power, rpm, count)
    dumped = survey.model_dump()
    for key in ("driver_diameter", "driven_diameter", "centre_distance"):
        dumped["stages"][0]["fitted"]["quantities"][key] = {"text": ""}
    dumped["layout"] = {
        "placed_by": "coordinates",
        "wheels": [
            {"name": "motor", "role": "driver", "diameter": {"text": f"{small:.6f} in"}},
            {
                "name": "machine",
                "role": "driven",
                "diameter": {"text": f"{small * ratio:.6f} in"},
                "x": {"text": f"{centre:.6f} in"},
                "y": {"text": "0 in"},
            },
        ],
    }
    return SurveyForm.model_validate(dumped)


DRIVE = (
    st.sampled_from(sorted(SECTIONS)),
    st.floats(1.0, 1.6),
    st.floats(1.0, 3.0),
    st.floats(1.2, 3.0),
    st.floats(1.0, 20.0),
    st.sampled_from([870.0, 1160.0, 1750.0]),
    st.integers(1, 4),
)


def sized(section: str, size: float, ratio: float, apart: float) -> tuple[float, float]:
    small = SECTIONS[section] * size
    return small, small * (1 + ratio) / 2 * 1.2 * apart


@examples(50)
@given(*DRIVE)
def test_a_pair_is_the_plain_case_of_a_train(
    section: str, size: float, ratio: float, apart: float, power: float, rpm: float, count: int
) -> None:
    small, centre = sized(section, size, ratio, apart)
    two = sheet_answer(SheetForm(survey=pair(section, small, ratio, centre, power, rpm, count)))
    many = sheet_answer(SheetForm(survey=train(section, small, ratio, centre, power, rpm, count)))
    assert many.train and not many.problems, many.problems
    assume(two.tight is not None and "tension_aim" in two.tight.figures and "capacity" in two.figures)
    assert two.tight and many.tight
    for key in (
        "tension_target",
        "tension_aim",
        "tension_low",
        "tension_high",
        "published_low",
        "slip_running",
        "slip_starting",
        "slip_jolt",
        "aim_low",
        "aim_high",
        "deflection",
    ):
        assert many.tight.figures[key].value_si == pytest.approx(two.tight.figures[key].value_si, rel=2e-3), key
    ends = [next((u.limit for u in t.uppers if u.name == "belt strength"), None) for t in (two.tight, many.tight)]
    assert ends[0] and ends[1] == pytest.approx(ends[0], rel=5e-3)
    assert [p.text.si for p in many.tight.pulls] == [p.text.si for p in two.tight.pulls]
    assert many.figures["driven_speed"].value_si == pytest.approx(two.figures["driven_speed"].value_si, rel=1e-6)
    assert many.figures["belt_speed"].value_si == pytest.approx(two.figures["belt_speed"].value_si, rel=1e-6)


@examples(40)
@given(*DRIVE)
def test_inches_and_millimetres_answer_alike(
    section: str, size: float, ratio: float, apart: float, power: float, rpm: float, count: int
) -> None:
    """The same drive typed in the other system: the same figures, and no verdict changes."""
    small, centre = sized(section, size, ratio, apart)
    inch = sheet_answer(SheetForm(survey=pair(section, small, ratio, centre, power, rpm, count)))
    metric = sheet_answer(SheetForm(survey=pair(section, small, ratio, centre, power, rpm, count, "mm")))
    assert set(inch.figures) == set(metric.figures)
    for key, figure in inch.figures.items():
        assert metric.figures[key].value_si == pytest.approx(figure.value_si, rel=1e-4, abs=1e-9), key
    assert [(v.topic, v.tone) for v in inch.verdicts] == [(v.topic, v.tone) for v in metric.verdicts]
    assert [f.code for f in inch.flags] == [f.code for f in metric.flags]


def test_down_then_up_reads_at_its_end() -> None:
    """6 to 18 and 12 to 6 in, 1750: the fan turns 1167; read at 1150 it slips a little, and is not called impossible."""
    survey = train("B", 6.0, 3.0, 40.0, 5.0, 1750, 2).model_dump()
    survey["stages"].append({**survey["stages"][0], "held_by": ""})
    survey["layout"]["wheels"] += [
        {
            "name": "second",
            "role": "driver",
            "belt": 2,
            "shaft_of": 2,
            "diameter": {"text": "12 in"},
            "x": {"text": "40 in"},
            "y": {"text": "0 in"},
        },
        {"name": "fan", "role": "driven", "belt": 2, "diameter": {"text": "6 in"}, "x": {"text": "75 in"}, "y": {"text": "0 in"}},
    ]
    form: dict[str, Any] = {"survey": survey, "tachometer": {"tach_driven": {"text": "1150 rpm"}}}
    found = sheet_answer(SheetForm.model_validate(form))
    assert not found.problems, found.problems
    assert found.figures["driven_speed"].value_si / (math.pi / 30) == pytest.approx(1750 * 6 / 18 * 12 / 6, rel=0.02)
    assert 0 < found.figures["slip"].value_si < 0.05
