"""The lists a person chooses from: kinds of drive, fields and their units, cautions."""

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.caution import DEFERENCE, Caution, cautions
from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.units import KINDS
from tuyere.core.drive.wanted import Wanted, wanted_words
from tuyere.core.kinds import registry, v_belt
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.held import HELD_BY, LABELS
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS
from tuyere.core.kinds.starts import starts
from tuyere.core.kinds.survey import Part
from tuyere.core.stations.find.grade import DUTIES
from tuyere.core.stations.tension.grip import surfaces
from tuyere.record.forms import FORCE_TOOLS
from tuyere.web.answers import answer
from tuyere.web.routes import routes
from tuyere.web.rules import anyone

blueprint = routes("choices", "/api", "floor")


class Choice(BaseModel):
    """A word from a list and how it is shown."""

    value: str
    label: str


class UnitsOut(BaseModel):
    """The units one field takes, the usual one of each system, and what it is called."""

    label: str
    units: list[str]
    us: str
    si: str
    origin: str
    signed: bool = Field(False, description="whether it may lie below zero")


class CautionsOut(BaseModel):
    """Cautions by task, and whose word comes first."""

    survey: list[Caution]
    speed: list[Caution]
    tension: list[Caution]
    size: list[Caution]
    wheel: list[Caution]
    chain: list[Caution]
    align: list[Caution]
    deference: str


class ChoicesOut(BaseModel):
    """The lists a person chooses from, the fields and their units, and the cautions."""

    sections: list[Choice]
    driven_classes: list[Choice]
    driver_classes: list[Choice]
    held_by: list[Choice]
    idlers: list[Choice]
    surroundings: list[Choice]
    starts: list[Choice]
    grooves: dict[str, list[str]]
    directions: list[Choice]
    force_tools: list[Choice]
    start_by: list[Choice]
    surfaces: list[Choice]
    duties: list[Choice]
    fields: dict[str, UnitsOut]
    cautions: CautionsOut
    wanted: dict[str, Wanted] = Field(description="what a drive is still wanted to say, by field")


class FamilyOut(BaseModel):
    """A kind of drive: its key, how it is called, what goes round, whether it goes by teeth, what it runs on, and what is its own."""

    key: str
    label: str
    runs: str
    toothed: bool
    part: str
    on_many: bool
    turns_open: bool


def family_out(f: Family) -> FamilyOut:
    """A kind of drive as an answer."""
    return FamilyOut(
        key=f.key, label=f.label, runs=f.runs, toothed=f.toothed, part=f.part, on_many=f.loop(Part()) is not None, turns_open=f.turns_open
    )


class FamiliesOut(BaseModel):
    """The kinds of drive there are."""

    families: list[FamilyOut]


@blueprint.get("/families", summary="The kinds of drive there are", responses={"200": FamiliesOut})
@anyone()
def get_families() -> Response:
    return answer(FamiliesOut(families=[family_out(f) for f in registry.FAMILIES]))


DIRECTIONS = {
    "0": "right",
    "30": "right, above",
    "60": "right, steeply above",
    "90": "straight above",
    "150": "left, above",
    "180": "left",
    "210": "left, below",
    "270": "straight below",
    "330": "right, below",
}


@blueprint.get("/choices", summary="Lists to choose from", responses={"200": ChoicesOut})
@anyone()
def get_choices() -> Response:
    return answer(
        ChoicesOut(
            sections=[Choice(value=s.name, label=s.label) for s in v_belt.sections().values()],
            driven_classes=[Choice(value=c.name, label=c.title) for c in duties.driven_classes()],
            driver_classes=[
                Choice(value="normal", label="Normal torque: ordinary AC motor, engine of several cylinders"),
                Choice(value="high", label="High torque: single-phase series motor, one-cylinder engine, clutch"),
            ],
            held_by=[Choice(value=h, label=LABELS[h]) for h in HELD_BY],
            idlers=[Choice(value=i, label=i) for i in IDLERS],
            surroundings=[Choice(value=x, label=x) for x in SURROUNDINGS],
            grooves={s.name: list(v_belt.groove_kinds(s)) for s in v_belt.sections().values()},
            starts=[Choice(value=x, label=x) for x in STARTS],
            directions=[Choice(value=v, label=text) for v, text in DIRECTIONS.items()],
            force_tools=[Choice(value=t, label=t) for t in FORCE_TOOLS],
            start_by=[Choice(value=c.key, label=c.label) for c in starts()],
            surfaces=[Choice(value=c.key, label=c.label) for c in surfaces()],
            duties=[Choice(value=key, label=text) for key, text in DUTIES.items()],
            fields={
                key: UnitsOut(
                    label=f.label,
                    units=[u.symbol for u in KINDS[f.kind].units],
                    us=KINDS[f.kind].us_symbol,
                    si=KINDS[f.kind].si_symbol,
                    origin=f.origin.value,
                    signed=f.signed,
                )
                for key, f in FIELDS.items()
            },
            wanted=wanted_words(),
            cautions=CautionsOut(
                survey=list(cautions("survey")),
                speed=list(cautions("speed")),
                tension=list(cautions("tension")),
                size=list(cautions("size")),
                wheel=list(cautions("wheel")),
                chain=list(cautions("chain")),
                align=list(cautions("align")),
                deference=DEFERENCE,
            ),
        )
    )
