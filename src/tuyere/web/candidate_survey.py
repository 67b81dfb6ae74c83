"""A candidate written into a survey, as a person would have typed it."""

from collections.abc import Mapping
from typing import Any

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import System, show
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.rating.duties import driven_classes
from tuyere.core.kinds.written import Length, Written
from tuyere.core.stations.size.candidate import Candidate
from tuyere.core.stations.size.judge import Judged
from tuyere.web.entry import Entry
from tuyere.web.forms import SurveyForm


def _entry(value: float, kind: str, digits: int) -> Entry:
    return Entry(text=show(value, kind, System.SI if kind == "length" else System.US, digits), unit="", origin=Origin.CHOSEN)


def survey_of(problem: Demands, one: Candidate, judged: Judged, standing: SurveyForm) -> SurveyForm:
    """The standing survey with the candidate's wheels, belts and centres on it; it must have measures."""
    assert judged.measures
    survey = standing.model_copy(deep=True)
    driver, machine = survey.driver, survey.machine
    driver.driver_power = _entry(problem.power_w, "power", 2) if not driver.driver_power.text else driver.driver_power
    driver.driver_speed = _entry(problem.driver_speed, "rotation", 0) if not driver.driver_speed.text else driver.driver_speed
    if not survey.design.design_speed.text:
        survey.design.design_speed = _entry(problem.driven_speed, "rotation", 0)
    if not machine.hours_per_day.text:
        machine.hours_per_day = Entry(text=f"{problem.hours_per_day:g} h", origin=Origin.CHOSEN)
    if problem.driven_class in {k.name for k in driven_classes()}:
        machine.driven_class = problem.driven_class
    machine.surroundings, machine.starts, survey.first.idler = problem.surroundings, problem.starts, problem.idler
    typed = one.kind.as_typed(one.driver, one.driven, one.length, one.count, judged.measures.centre_m)
    dumped = survey.model_dump(mode="json")
    stage, key = dumped["stages"][0], one.kind.drive.key
    before = stage["fitted"] if stage["fitted"]["family"] == key else {"family": key}
    stage["fitted"] = written_over(before, typed)
    return SurveyForm.model_validate(dumped)


def written_over(before: Mapping[str, Any], typed: Written) -> dict[str, Any]:
    """A form with what is typed over what stood there."""
    found = dict(before)
    for key, value in typed.items():
        if isinstance(value, Length):
            found[key] = _entry(value.metres, "length", 1).model_dump(mode="json")
        else:
            found[key] = written_over(found.get(key) or {}, value) if isinstance(value, dict) else value
    return found
