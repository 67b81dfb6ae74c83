"""A candidate written into a survey, as a person would have typed it."""

from tuyere.core.entry.quantity import System, show
from tuyere.core.origin import Origin
from tuyere.core.rating.duties import driven_classes
from tuyere.core.selection.candidate import Candidate
from tuyere.core.selection.judge import Judged
from tuyere.core.selection.problem import Problem
from tuyere.core.selection.toothed_kind import ChainKind, ToothedKind
from tuyere.core.selection.v_kind import VKind
from tuyere.web.entry import Entry
from tuyere.web.forms import SurveyForm


def _entry(value: float, kind: str, digits: int) -> Entry:
    return Entry(text=show(value, kind, System.SI if kind == "length" else System.US, digits), unit="", origin=Origin.CHOSEN)


def survey_of(problem: Problem, one: Candidate, judged: Judged, standing: SurveyForm) -> SurveyForm:
    """The standing survey with the candidate's wheels, belts and centres on it; it must have measures."""
    assert judged.measures
    survey = standing.model_copy(deep=True)
    q, c, centre = survey.quantities, survey.choices, judged.measures.centre_m
    q.driver_power = _entry(problem.power_w, "power", 2) if not q.driver_power.text else q.driver_power
    q.driver_speed = _entry(problem.driver_speed, "rotation", 0) if not q.driver_speed.text else q.driver_speed
    if not survey.design.design_speed.text:
        survey.design.design_speed = _entry(problem.driven_speed, "rotation", 0)
    if not q.hours_per_day.text:
        q.hours_per_day = Entry(text=f"{problem.hours_per_day:g} h", origin=Origin.CHOSEN)
    if problem.driven_class in {k.name for k in driven_classes()}:
        c.driven_class = problem.driven_class
    c.idler, c.surroundings, c.starts = problem.idler, problem.surroundings, problem.starts
    kind = one.kind
    if isinstance(kind, VKind):
        assert one.length
        many, c.belt = kind.belts(one.length.name, one.count)
        c.section, c.belt_count = kind.of.name, f"{many:.0f}"
        c.ribs, c.driver_groove, c.driven_groove = "", "standard", "standard"
        c.driver_basis, c.driven_basis = "datum", "flat" if kind.flat else "datum"
        q.driver_diameter = _entry(one.driver.line_m, "length", 1)
        q.driven_diameter = _entry(one.driven.outside_m if kind.flat else one.driven.line_m, "length", 1)
        q.centre_distance = _entry(centre, "length", 1)
        return survey
    if isinstance(kind, ToothedKind | ChainKind):
        drive = survey.toothed.drive
        drive.name, drive.teeth_1, drive.teeth_2 = kind.name, str(one.driver.teeth), str(one.driven.teeth)
        pitches = round(one.length.line_m / kind.of.pitch_m) if one.length else 0
        drive.count, drive.centre_distance = str(pitches), Entry()
        if isinstance(kind, ChainKind):
            drive.strands = f"{one.count:.0f}"
        else:
            survey.toothed.quantities["belt_width"] = _entry(one.count, "length", 1)
        return survey
    flat = survey.flat
    flat.belt = kind.name
    for key, value in (
        ("driver_diameter", one.driver.outside_m),
        ("driven_diameter", one.driven.outside_m),
        ("flat_width", one.count),
        ("centre_distance", centre),
    ):
        flat.quantities[key] = _entry(value, "length", 1)
    return survey
