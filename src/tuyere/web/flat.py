"""POST /api/calc/flat: a flat belt on two pulleys, its lengths, crown, face and tracking, drawn as a layout."""

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.verdict import Problem, Verdict
from tuyere.core.drive.layout.form import PathReading
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.flat.survey import FlatDrive, FlatReading, read_flat
from tuyere.core.mechanics.on_wheels.train import TrainAnswer
from tuyere.record.entry import Strict, part_of
from tuyere.record.fitted_forms import FlatForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.path import LayoutOut, layout_out
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, computes

blueprint = routes("flat", "/api/calc", "flat", "Flat belts")


class FlatIn(Strict):
    """A flat-belt drive as typed, and the way its driver turns."""

    flat: FlatForm = Field(default_factory=FlatForm)


class FlatOut(BaseModel):
    """The layout to draw, lengths, the driven speed with thickness, the crowns of ISO 100; verdicts, notes and problems."""

    layout: LayoutOut | None
    inside: BothOut | None
    middle: BothOut | None
    driven_speed: BothOut | None
    crowns: list[BothOut | None]
    verdicts: list[Verdict]
    notes: dict[str, Note]
    problems: list[Problem]


class FlatKind(BaseModel):
    """One kind of flat belt to choose."""

    name: str
    made: str
    thickness: BothOut


class FlatListOut(BaseModel):
    """The kinds of flat belt."""

    belts: list[FlatKind]


@blueprint.post("/flat", summary="A flat belt on two pulleys", responses={"200": FlatOut})
@computes()
def calc_flat(body: FlatIn) -> Response:
    part = part_of(body.flat)
    return answer(_out(read_flat(part.quantities, part.words)))


def _out(reading: FlatReading) -> FlatOut:
    d = reading.drive
    speed = d.answer.wheels[1].speed_rad_per_s if d else None
    return FlatOut(
        layout=_layout(d) if d else None,
        inside=both_out(d.inside_m, "length", decimals=(2, 0)) if d else None,
        middle=both_out(d.middle_m, "length", decimals=(2, 0)) if d else None,
        driven_speed=both_out(speed, "rotation") if speed else None,
        crowns=[both_out(c, "length", decimals=(3, 1)) if c else None for c in d.crowns_m] if d else [],
        verdicts=list(reading.verdicts),
        notes=reading.notes,
        problems=list(reading.problems),
    )


def _layout(d: FlatDrive) -> LayoutOut:
    train = TrainAnswer((d.answer,))
    return layout_out(PathReading(train, d.wheels, ((0, 1),), (), (), (), None, {}, (), (), ()))


@blueprint.get("/flat-lists", summary="Kinds of flat belt", responses={"200": FlatListOut})
@anyone()
def flat_lists() -> Response:
    kinds = [
        FlatKind(name=b.name, made=b.made, thickness=both_out(b.thickness_m, "length", decimals=(3, 1))) for b in flat_belts().values()
    ]
    return answer(FlatListOut(belts=kinds))
