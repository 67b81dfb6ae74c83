"""A candidate written into a survey, as a person would have typed it."""

from collections.abc import Mapping
from typing import Any, NamedTuple

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import System, show
from tuyere.core.drive.layout.duties import TrainDuty
from tuyere.core.drive.layout.form import PathReading
from tuyere.core.drive.layout.pair import Pair, moved_to
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.rating.duties import driven_classes
from tuyere.core.kinds.written import Length, Written
from tuyere.core.stations.size.candidate import Candidate
from tuyere.core.stations.size.judge import Judged
from tuyere.record.entry import Entry
from tuyere.record.forms import SurveyForm
from tuyere.record.path_form import LayoutForm


def _entry(value: float, kind: str, digits: int) -> Entry:
    return Entry(text=show(value, kind, System.SI if kind == "length" else System.US, digits), unit="", origin=Origin.CHOSEN)


class Where(NamedTuple):
    """Which stage of a survey a candidate is for, from 1, the pair that stands there, and the train that it is in, if it is in one."""

    number: int
    pair: Pair
    train: TrainDuty | None


def survey_of(problem: Demands, one: Candidate, judged: Judged, standing: SurveyForm, at: Where) -> SurveyForm:
    """The standing survey with the candidate's wheels, belts and centres on it; it must have measures."""
    assert judged.measures
    survey, centre_m = standing.model_copy(deep=True), judged.measures.centre_m
    machine, stage = survey.machine, survey.stages[at.number - 1]
    if not machine.hours_per_day.text:
        machine.hours_per_day = Entry(text=f"{problem.hours_per_day:g} h", origin=Origin.CHOSEN)
    if problem.driven_class in {k.name for k in driven_classes()}:
        machine.driven_class = problem.driven_class
    machine.surroundings, machine.starts = problem.surroundings, problem.starts
    typed = one.kind.loop_typed(one.length, one.count)
    if at.train:
        _on_layout(survey.layout, one, at.pair, at.train.read, centre_m)
    else:
        driver = survey.driver
        driver.driver_power = _entry(problem.power_w, "power", 2) if not driver.driver_power.text else driver.driver_power
        driver.driver_speed = _entry(problem.driver_speed, "rotation", 0) if not driver.driver_speed.text else driver.driver_speed
        if not survey.design.design_speed.text:
            survey.design.design_speed = _entry(problem.driven_speed, "rotation", 0)
        stage.idler = problem.idler
        typed = one.kind.as_typed(one.driver, one.driven, one.length, one.count, centre_m)
    before, key = stage.fitted.model_dump(mode="json"), one.kind.drive.key
    dumped = survey.model_dump(mode="json")
    dumped["stages"][at.number - 1]["fitted"] = written_over(before if before["family"] == key else {"family": key}, typed)
    return SurveyForm.model_validate(dumped)


def _on_layout(layout: LayoutForm, one: Candidate, pair: Pair, read: PathReading, centre_m: float) -> None:
    """Both wheels and their centres in the plane: by the tape between them, where there is one, or else one shaft stands elsewhere."""
    for place, wheel, face in zip(pair.wheels, (one.driver, one.driven), ("grooved", one.kind.driven_face), strict=True):
        at = layout.wheels[place]
        at.teeth, at.face = str(wheel.teeth or ""), face
        at.diameter = Entry() if wheel.teeth else _entry(wheel.outside_m, "length", 1)
    shafts = {read.wheels[place].shaft for place in pair.wheels}
    if layout.placed_by != "coordinates":
        for tape in layout.tapes:
            ends = [read.wheels[n - 1].shaft for n in (tape.a, tape.b) if n <= len(read.wheels)]
            if tape.held and tape.distance.text and set(ends) == shafts:
                tape.distance = _entry(centre_m, "length", 1)
    if layout.placed_by != "tape":
        shaft, x, y = moved_to(read, pair, centre_m)
        layout.wheels[shaft].x, layout.wheels[shaft].y = _entry(x, "length", 1), _entry(y, "length", 1)


def written_over(before: Mapping[str, Any], typed: Written) -> dict[str, Any]:
    """A form with what is typed over what stood there."""
    found = dict(before)
    for key, value in typed.items():
        if isinstance(value, Length):
            found[key] = _entry(value.metres, "length", 1).model_dump(mode="json")
        else:
            found[key] = written_over(found.get(key) or {}, value) if isinstance(value, dict) else value
    return found
