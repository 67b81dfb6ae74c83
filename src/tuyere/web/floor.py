"""Floor: machines and drives of a site, what is due and open; new machines and drives; the lists to choose from."""

import math
import uuid
from dataclasses import replace
from datetime import datetime

from flask import Response
from pydantic import BaseModel, Field
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session, col, select

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
from tuyere.core.mechanics.belt_path import Pulley, belt_path
from tuyere.core.mechanics.open_belt import GeometryError, RoundWheel, Span, open_path
from tuyere.core.stations.find.grade import DUTIES
from tuyere.core.stations.floor.attention import Level
from tuyere.core.stations.tension.grip import surfaces
from tuyere.store import drives
from tuyere.store.dues import Place, place_of
from tuyere.store.people_tables import Role
from tuyere.store.tables import Drive, Machine
from tuyere.store.write import Outcome, Writer
from tuyere.web.answers import answer
from tuyere.web.entry import USUAL_FAMILY, FamilyKey, Strict
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.forms import FORCE_TOOLS
from tuyere.web.opened import DueOut, FindingOut, dues_out, wants
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, at_site
from tuyere.web.state import constraint_of, reading, write
from tuyere.web.surveyed import station_verdicts

blueprint = routes("floor", "/api", "floor")


class SitePath(BaseModel):
    """A site."""

    site_id: uuid.UUID


class SketchOut(BaseModel):
    """A drive in small, to scale (m, y up, driver first): wheels and strands."""

    wheels: list[RoundWheel]
    strands: list[Span]


class FloorDriveOut(BaseModel):
    """A drive as Floor lists it. `why` it wants attention, and the one `page` that answers that."""

    id: uuid.UUID
    name: str
    family: str
    machine_id: uuid.UUID
    machine: str
    machine_kind: str
    place: str
    belts: str
    sketch: SketchOut | None
    last_reading_at: datetime | None
    last_tone: str
    last_headline: str
    level: Level
    why: str
    page: str
    findings: list[FindingOut]
    dues: list[DueOut]
    retired: bool


class FloorOut(BaseModel):
    """Every drive of the site."""

    drives: list[FloorDriveOut]


def _floor_drive(item: drives.FloorDrive, place: Place) -> FloorDriveOut:
    last = item.last_reading
    dues = dues_out(item.dues, item.facts, item.row.family, item.hours_per_day, place)
    stations = station_verdicts(item.configuration_id, item.row.row_version) if item.configuration_id else ()
    found = wants(stations, last.summary if last else {}, item.findings, dues)
    named = (" × ".join(str(p) for p in (stage.belt_count, stage.belt or stage.section) if p) for stage, _ in item.stages)
    belts = ", ".join(n for n in named if n)
    return FloorDriveOut(
        id=item.row.id,
        name=item.row.name,
        family=item.row.family,
        machine_id=item.row.machine_id,
        machine=item.row.machine,
        machine_kind=item.row.kind,
        place=item.row.place,
        belts=belts,
        sketch=_sketch(item),
        last_reading_at=last.taken_at if last else None,
        last_tone=last.summary.get("tone", "") if last else "",
        last_headline=last.summary.get("headline", "") if last else "",
        level=found.level,
        why=found.reason,
        page=found.page,
        findings=[
            FindingOut(id=f.id, what=f.what, weight=f.weight, found_at=f.found_at, words=f.words, page=f.page or "survey")
            for f in item.findings
        ],
        dues=dues,
        retired=item.row.retired_at is not None,
    )


def _sketch(item: drives.FloorDrive) -> SketchOut | None:
    """The drive in small, once both wheels and the centres are on the record and can be drawn."""
    if not item.stages:
        return None
    stage, wheels = item.stages[0]
    if wheels and all(w.x_m is not None for w in wheels):
        return _sketch_of_many(item)
    diameters = {w.role: w.diameter_m for w in wheels if w.diameter_m}
    centres = stage.centre_distance_m
    if not centres or set(diameters) != {"driver", "driven"}:
        return None
    try:
        path = open_path(diameters["driver"], diameters["driven"], centres, math.radians(stage.centre_line_deg))
    except GeometryError:
        return None
    return SketchOut(wheels=list(path.wheels), strands=[path.upper, path.lower])


def _sketch_of_many(item: drives.FloorDrive) -> SketchOut:
    """Many wheels in small, the belts drawn on their rims; one that cannot run so shows its wheels alone."""
    way = -1 if item.rotation == "clockwise" else 1
    drawn: list[RoundWheel] = []
    strands: list[Span] = []
    for stage, wheels in item.stages:
        pulleys = [
            Pulley(w.x_m or 0.0, w.y_m or 0.0, (w.diameter_m or 0.1) / 2, way if w.contact == "inside" else -way, w.name) for w in wheels
        ]
        first = sorted(zip(wheels, pulleys, strict=True), key=lambda pair: pair[0].role != "driver")
        drawn += [RoundWheel(p.x_m, p.y_m, p.radius_m) for _, p in first]
        if stage.lay == "crossed" and len(pulleys) == 2:
            pulleys[1] = replace(pulleys[1], turns=-pulleys[0].turns)
        try:
            runs = belt_path(pulleys, crossed=stage.lay == "crossed").runs
        except GeometryError:
            continue
        strands += [Span(r.x1_m, r.y1_m, r.x2_m, r.y2_m) for r in runs]
    return SketchOut(wheels=drawn, strands=strands)


@blueprint.get("/sites/<uuid:site_id>/floor", summary="Machines and drives of a site", responses={"200": FloorOut})
@at_site(Role.VIEWER)
def get_floor(path: SitePath) -> Response:
    with reading() as session:
        place = place_of(session, path.site_id)
        return answer(FloorOut(drives=[_floor_drive(item, place) for item in drives.floor(session, path.site_id)]))


class NewDrive(Strict):
    """A new drive, on a machine of the site or on a new one (then its name is needed)."""

    id: uuid.UUID
    name: str = Field(min_length=1, max_length=120)
    family: FamilyKey = USUAL_FAMILY
    machine_id: uuid.UUID
    machine_name: str = Field("", max_length=120)
    machine_kind: str = Field("", max_length=120)
    place: str = Field("", max_length=120)
    part_number: str = Field("", max_length=120)


class CreatedOut(BaseModel):
    """What was made."""

    id: uuid.UUID


@blueprint.post("/sites/<uuid:site_id>/drives", summary="Add a drive, with its machine if new", responses={"201": CreatedOut})
@at_site(Role.MECHANIC)
def post_drive(path: SitePath, body: NewDrive) -> Response:
    for field, text in (("name", body.name), ("machine_name", body.machine_name)):
        if not text.strip() and (field == "name" or not _machine_here(path.site_id, body.machine_id)):
            raise Refusal(422, "Give it a name.", [FieldError(field=field, detail="Give it a name, such as what is painted on it.")])

    def work(session: Session, writer: Writer) -> Outcome:
        machine = session.get(Machine, body.machine_id)
        if machine and machine.site_id != path.site_id:
            raise Refusal(404)
        machine = machine or Machine(
            id=body.machine_id,
            site_id=path.site_id,
            name=body.machine_name.strip(),
            kind=body.machine_kind.strip(),
            place=body.place.strip(),
        )
        drive = Drive(id=body.id, machine_id=machine.id, name=body.name.strip(), family=body.family, part_number=body.part_number.strip())
        drives.add_drive(session, writer, machine, drive)
        return Outcome(201, {"id": str(drive.id)})

    try:
        done = write(body.model_dump(mode="json"), work)
    except IntegrityError as error:
        explain_clash(error, "machine_name")
        raise
    return answer(CreatedOut(**done.body), done.status)


def _machine_here(site_id: uuid.UUID, machine_id: uuid.UUID) -> bool:
    with reading() as session:
        return session.exec(select(Machine.id).where(Machine.id == machine_id, col(Machine.site_id) == site_id)).first() is not None


def explain_clash(error: IntegrityError, machine_field: str) -> None:
    """Say which name is taken. Raises Refusal for the constraints known here."""
    for constraint, field, sentence in (
        (
            "uq_machine_site_id_name",
            machine_field,
            "There is a machine of that name here already: choose it from the list, or give this one another name.",
        ),
        ("uq_drive_machine_id_name", "name", "This machine has a drive of that name already: give this one another."),
    ):
        if constraint == constraint_of(error):
            raise Refusal(422, sentence, [FieldError(field=field, detail=sentence)]) from None


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
