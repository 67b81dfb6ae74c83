"""Floor: machines and drives of a site, what is due and open; new machines and drives."""

import uuid
from datetime import date, datetime, timedelta

from flask import Response
from pydantic import BaseModel, Field
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session, col, select

from tuyere.core.mechanics.open_belt import RoundWheel, Span
from tuyere.core.stations.floor.attention import Level
from tuyere.record import listed
from tuyere.record.entry import USUAL_FAMILY, FamilyKey, Strict
from tuyere.record.listed import Asked
from tuyere.record.state import attention_of
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.dues import day_at
from tuyere.store.people_tables import Role
from tuyere.store.tables import Drive, Machine
from tuyere.store.write import Outcome, Writer
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.opened import DueOut, FindingOut, dues_out
from tuyere.web.routes import routes
from tuyere.web.rules import at_site
from tuyere.web.state import constraint_of, reading, write

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


class AreaOut(BaseModel):
    """A part of the site: how many drives stand there, and how many of them want attention now."""

    name: str
    drives: int
    attention: int


class FloorOut(BaseModel):
    """Drives of the site, what wants the most attention first: as many as a page holds, and what to ask for to have the next.

    `counts`: of all that match, by level. `here`, `put_away`: of the whole site.
    """

    drives: list[FloorDriveOut]
    next: str
    counts: dict[str, int]
    areas: list[AreaOut]
    here: int
    put_away: int


MOST_ON_A_PAGE = 200


class FloorQuery(BaseModel):
    """What is looked for. `after`: where the page before ended, as its `next`."""

    find: str = Field("", max_length=200)
    area: str = Field("", max_length=120)
    levels: str = Field("", max_length=80, description="levels, with commas between; empty: all")
    away: bool = Field(False, description="those that are put away")
    after: str = Field("", max_length=1200)
    limit: int = Field(MOST_ON_A_PAGE, ge=1, le=MOST_ON_A_PAGE)


@blueprint.get("/sites/<uuid:site_id>/floor", summary="Machines and drives of a site, page by page", responses={"200": FloorOut})
@at_site(Role.VIEWER)
def get_floor(path: SitePath, query: FloorQuery) -> Response:
    asked = Asked(query.find, query.area, [x for x in query.levels.split(",") if x], query.away, query.after, query.limit)
    with reading() as session:
        today = day_at(session, path.site_id, now())
        try:
            page = listed.page(session, path.site_id, asked, today)
        except listed.CursorError:
            sentence = "That page cannot be found: ask for the first one again."
            raise Refusal(422, sentence, [FieldError(field="after", detail=sentence)]) from None
        return answer(
            FloorOut(
                drives=[_floor_drive(row, today) for row in page.rows],
                next=page.next,
                counts=page.counts,
                areas=[AreaOut(name=a.name, drives=a.drives, attention=a.attention) for a in page.areas],
                here=page.here,
                put_away=page.away,
            )
        )


def _floor_drive(row: listed.Row, today: date) -> FloorDriveOut:
    s = row.state
    found = attention_of(s, today)
    return FloorDriveOut(
        id=s.drive_id,
        name=row.name,
        family=row.family,
        machine_id=row.machine_id,
        machine=row.machine,
        machine_kind=row.machine_kind,
        place=row.place,
        belts=s.belts,
        sketch=SketchOut.model_validate(s.sketch) if s.sketch else None,
        last_reading_at=s.tension_at,
        last_tone=s.tension_tone,
        last_headline=s.tension_says,
        level=found.level,
        why=found.reason,
        page=found.page,
        findings=[
            FindingOut(id=f.id, what=f.what, weight=f.weight, found_at=f.found_at, words=f.words, page=f.page or "survey")
            for f in row.findings
        ],
        dues=dues_out(row.dues, today),
        retired=s.retired,
    )


class SiteDueOut(BaseModel):
    """A due of one of the drives."""

    drive_id: uuid.UUID
    machine: str
    due: DueOut


class SiteDuesOut(BaseModel):
    """What falls due at a site, the first to fall first, and how many there are in all."""

    dues: list[SiteDueOut]
    many: int


class DuesQuery(BaseModel):
    """How many days ahead, and of which area or words."""

    days: int = Field(30, ge=0, le=400)
    area: str = Field("", max_length=120)
    find: str = Field("", max_length=200)


@blueprint.get("/sites/<uuid:site_id>/dues", summary="What falls due at a site", responses={"200": SiteDuesOut})
@at_site(Role.VIEWER)
def get_site_dues(path: SitePath, query: DuesQuery) -> Response:
    with reading() as session:
        today = day_at(session, path.site_id, now())
        rows, many = listed.dues(session, path.site_id, today + timedelta(days=query.days), query.area, query.find)
        told = [SiteDueOut(drive_id=d.drive_id, machine=machine, due=dues_out([d], today)[0]) for d, machine in rows]
        return answer(SiteDuesOut(dues=told, many=many))


class MachineName(BaseModel):
    """A machine by its name."""

    id: uuid.UUID
    name: str


class MachineNamesOut(BaseModel):
    """Machines whose names hold what was typed, a few of them."""

    machines: list[MachineName]


class FindQuery(BaseModel):
    """What is typed so far."""

    find: str = Field("", max_length=120)


@blueprint.get("/sites/<uuid:site_id>/machines", summary="Machines by name", responses={"200": MachineNamesOut})
@at_site(Role.VIEWER)
def get_machine_names(path: SitePath, query: FindQuery) -> Response:
    with reading() as session:
        found = listed.machines(session, path.site_id, query.find)
        return answer(MachineNamesOut(machines=[MachineName(id=i, name=n) for i, n in found]))


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
