"""The machine to practise on: its survey, readings of its hidden pose, moves made in it. Nothing is stored: the page keeps the moves."""

from typing import Literal

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import FIELDS, Note
from tuyere.core.basis.quantity import from_si
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.verdict import Problem
from tuyere.core.stations.align.judge import said
from tuyere.core.stations.align.methods import METHODS
from tuyere.core.stations.align.moves import Feet
from tuyere.instruments.rig import Made, Rig
from tuyere.record.entry import Entry, Strict, none_typed
from tuyere.record.forms import KeptForm, SheetForm, SurveyForm
from tuyere.web.align import FeetIn, PairIn
from tuyere.web.answers import answer
from tuyere.web.routes import routes
from tuyere.web.rules import computes

blueprint = routes("rig", "/api/calc", "align", "A machine to practise on")

# How a display is read: its unit by system, and decimals. A tape between shafts reads coarser than a feeler.
_SHOWS = {("length", "us"): ("in", 3), ("length", "si"): ("mm", 2), ("slope", "us"): ("in/ft", 3), ("slope", "si"): ("mm/m", 1)}

_TRUTH = (("angle", "rad"), ("twist", "rad"), ("offset", "m"))


class MoveForm(Strict):
    """A move at the feet as typed: lifts of feet 1 to 4 (+ put in, - take out), the back feet to a side, the machine or wheel out or in."""

    lift_1: Entry = none_typed
    lift_2: Entry = none_typed
    lift_3: Entry = none_typed
    lift_4: Entry = none_typed
    swing: Entry = none_typed
    side: Literal["left", "right"] = "left"
    slide: Entry = none_typed
    way: Literal["out", "in"] = "out"


class RigIn(Strict):
    """The machine by its drive, which one (`seed`), the moves made so far, the one being typed, and what to read it by, for which time."""

    pair: PairIn
    feet: FeetIn
    seed: int = Field(ge=0, le=10**9)
    degrees: float = Field(1.2, ge=0, le=6, description="angle and twist together, as found")
    made: list[MoveForm] = Field(default_factory=list, max_length=30)
    typing: MoveForm = Field(default_factory=MoveForm)
    method: str = Field("", max_length=20)
    nth: int = Field(0, ge=0, le=1000)
    system: Literal["us", "si"] = "si"
    reveal: bool = False


class RigOut(BaseModel):
    """What the tool shows at each point, as a person would type it; what was understood of the move being typed; the truth, if asked."""

    points: dict[str, Entry]
    notes: dict[str, Note]
    problems: list[Problem]
    any: bool = Field(description="whether the move being typed moves anything")
    truth: list[str]


@blueprint.post("/align/rig", summary="Read the machine to practise on, after the moves made in it", responses={"200": RigOut})
@computes()
def calc_rig(body: RigIn) -> Response:
    rig = Rig.hidden(body.pair.pair(), Feet(**body.feet.model_dump()), body.seed, body.degrees)
    for form in body.made:
        rig.make(_read(form)[0])
    move, reader = _read(body.typing)
    shows = rig.read(body.method, body.nth) if body.method else {}
    truth = rig.truth
    return answer(
        RigOut(
            points={k: shown_by(body.method, k, v, body.system) for k, v in shows.items()},
            notes=reader.notes,
            problems=reader.problems,
            any=move != Made() and not reader.problems,
            truth=[f"{k} {said(k, getattr(truth, f'{k}_{unit}'))}" for k, unit in _TRUTH] if body.reveal else [],
        )
    )


def _read(form: MoveForm) -> tuple[Made, FieldReader]:
    lifts = [f"lift_{i}" for i in (1, 2, 3, 4)]
    reader = FieldReader({f"rig_{k}": getattr(form, k).typed() for k in (*lifts, "swing", "slide")}, {})
    one, two, three, four = (reader.value(f"rig_{k}", "face_place") or 0.0 for k in lifts)
    swing, slide = (reader.value(f"rig_{k}", "edge_gap") or 0.0 for k in ("swing", "slide"))
    return Made((one, two, three, four), swing if form.side == "left" else -swing, slide if form.way == "out" else -slide), reader


def shown_by(method: str, key: str, value: float, system: Literal["us", "si"]) -> Entry:
    """A value as a tool's display shows it."""
    field = next(p.field for m in METHODS if m.key == method for p in m.points if p.key == key)
    unit, digits = _SHOWS[FIELDS[field].kind, system]
    return Entry(text=f"{from_si(value, FIELDS[field].kind, unit):.{digits}f}", unit=unit)


class PracticeOut(BaseModel):
    """A drive to practise on, as typed."""

    sheet: SheetForm


@blueprint.get("/align/practice", summary="The survey of the machine to practise on", responses={"200": PracticeOut})
@computes()
def calc_practice() -> Response:
    return answer(PracticeOut(sheet=SheetForm(survey=practice())))


def practice() -> SurveyForm:
    """A small motor on four feet facing a fan: invented."""
    survey = SurveyForm.model_validate(
        {
            "family": "v-belt",
            "quantities": {
                "driver_power": {"text": "3 hp"},
                "driver_speed": {"text": "1740 rpm"},
                "hours_per_day": {"text": "8 h"},
                "driver_diameter": {"text": "5.2 in"},
                "driven_diameter": {"text": "9.4 in"},
                "centre_distance": {"text": "24 in"},
            },
            "choices": {"section": "B", "belt_count": "2", "driven_class": "light"},
        }
    )
    survey.first.held_by = "fixed centres"
    feet = {"front": "4 1/2 in", "span": "6 1/2 in", "width": "7 1/2 in", "height": "4 1/2 in"}
    survey.first.kept = KeptForm(
        quantities={f"align_1_{k}": Entry(text=v) for k, v in feet.items()},
        words={"align_1_base": "jack screws", "align_moves": "1"},
    )
    return survey
