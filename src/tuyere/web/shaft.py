"""POST /api/calc/size/shaft: what the belt's pull does to one shaft, its bearings and the motor."""

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import Figure
from tuyere.core.basis.verdict import Problem as Refused
from tuyere.core.basis.verdict import Verdict
from tuyere.core.drive.layout.form import MOST_BELTS
from tuyere.core.drive.layout.pair import Pair
from tuyere.core.stations.size.shaft import read_shaft
from tuyere.record.entry import Entry, Strict
from tuyere.record.forms import SheetForm
from tuyere.web.answers import answer
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.size import Word
from tuyere.web.surveyed import answer_of

blueprint = routes("shaft", "/api/calc", "size", "Choosing a drive across all families, and what it does to its shafts")


class ShaftIn(Strict):
    """A sheet and one of its shafts; `stage`: of a train, whose wheels they carry, from 1."""

    sheet: SheetForm = Field(default_factory=SheetForm)
    stage: int = Field(1, ge=1, le=MOST_BELTS)
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    words: dict[str, Word] = Field(default_factory=dict, max_length=20)


class LifePoint(BaseModel):
    """The bearing's life over what it is, pulled `times` as hard."""

    times: float
    life: float


class ShaftOut(BaseModel):
    """What the pull does to a shaft: figures with workings, verdicts, and life against tension."""

    figures: dict[str, Figure]
    verdicts: list[Verdict]
    life: list[LifePoint]
    notes: dict[str, Note]
    problems: list[Refused]


@blueprint.post("/size/shaft", summary="What the pull does to a shaft, its bearings and the motor", responses={"200": ShaftOut})
@computes()
def calc_shaft(body: ShaftIn) -> Response:
    on = answer_of(body.sheet.survey, body.sheet.tachometer)
    found = read_shaft({k: e.typed() for k, e in body.quantities.items()}, body.words, on.pair(body.stage) or Pair(on.spec, on.page))
    return answer(
        ShaftOut(
            figures=found.figures,
            verdicts=list(found.verdicts),
            life=[LifePoint(times=t, life=x) for t, x in found.life],
            notes=found.notes,
            problems=list(found.problems),
        )
    )
