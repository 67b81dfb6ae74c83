"""What was done at a drive and starts a count: belts or wheels fitted, oil changed; its running hours; its machine's rest."""

import uuid
from datetime import datetime, timedelta
from typing import Literal

from flask import Response
from pydantic import AwareDatetime, BaseModel, Field
from sqlmodel import Session, col, select

from tuyere.core.stations.inspect.dues.hours import MeterReading
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import drives, dues
from tuyere.store.clock import now
from tuyere.store.dues_tables import Happened, HourReading, LaidUp
from tuyere.store.findings import How, change
from tuyere.store.people_tables import Role
from tuyere.store.tables import BeltLife, Drive, Finding, Machine
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.readings import ask_of_meter, hour_meter
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive, at_site_of_happened, at_site_of_machine
from tuyere.web.state import site_day, write

blueprint = routes("happened", "/api", "happened", "What was done at a drive, and its running hours")

Kind = Literal["new set", "new wheel", "re-tension", "first start", "oil change", "get-home off", "proposal fitted", "chain oiled"]


class HappenedPath(BaseModel):
    """Something done."""

    happened_id: uuid.UUID


class MachinePath(BaseModel):
    """A machine."""

    machine_id: uuid.UUID


class ClosesIn(Strict):
    """A finding that it puts right."""

    id: uuid.UUID
    row_version: int = Field(ge=1, le=MOST_VERSIONS)


class HappenedForm(Strict):
    """What was done: what went on, what came off and why; when (now where left out); what the meter showed; the findings it puts right.

    `life_h`: how many hours the old set ran, where that is known better than by the meter. `interval_h`: after how many hours the oil is
    changed again.
    """

    id: uuid.UUID
    kind: Kind
    at: AwareDatetime | None = None
    what: str = Field("", max_length=200)
    came_off: str = Field("", max_length=200)
    why_off: str = Field("", max_length=400)
    life_h: float | None = Field(None, gt=0, le=500_000)
    interval_h: float | None = Field(None, gt=0, le=100_000)
    hour_meter: str = Field("", max_length=60)
    closes: list[ClosesIn] = Field(default_factory=list, max_length=40)


class HappenedOut(BaseModel):
    """What was kept; how long the set before it lasted, where that could be told (h)."""

    id: uuid.UUID
    life_h: float | None


@blueprint.post("/drives/<uuid:drive_id>/happened", summary="Something was fitted or done", responses={"201": HappenedOut})
@at_site_of_drive(Role.MECHANIC)
def post_happened(path: DrivePath, body: HappenedForm) -> Response:
    hours, at = hour_meter(body.hour_meter), _not_ahead(body.at)

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        ask_of_meter(session, drive.id, body.hour_meter, hours, at)
        life = keep_happened(session, writer, drive, body, at, hours)
        return Outcome(201, {"id": str(body.id), "life_h": life})

    done = write(body.model_dump(mode="json"), work)
    return answer(HappenedOut(**done.body), done.status)


def keep_happened(session: Session, writer: Writer, drive: Drive, body: HappenedForm, at: datetime, hours: float | None) -> float | None:
    """Keep what was done, the hours that were read, the end of the set before it and the findings put right: how long that set ran (h)."""
    life = _life(session, drive, body, at, hours) if body.kind in ("new set", "proposal fitted") else None
    row = Happened(
        id=body.id,
        drive_id=drive.id,
        kind="new set" if body.kind == "proposal fitted" else body.kind,
        at=at,
        what=body.what.strip(),
        came_off=body.came_off.strip(),
        why_off=body.why_off.strip(),
        interval_h=body.interval_h,
        made_by=writer.person_id,
    )
    insert(session, writer, row, "did")
    if hours is not None:
        meter = HourReading(id=uuid.uuid5(row.id, "hours"), drive_id=drive.id, at=at, hours_h=hours, taken_by=writer.person_id)
        insert(session, writer, meter, "read the hour meter")
    if life is not None:
        ended = BeltLife(
            id=uuid.uuid5(row.id, "life"),
            drive_id=drive.id,
            ended_on=site_day(at),
            hours_h=life,
            why=body.why_off.strip(),
            made_by=writer.person_id,
            typed={"text": f"{life:g}", "unit": "h", "origin": None},
        )
        insert(session, writer, ended, "recorded the life of a set")
    close_findings(session, writer, drive, body.closes, body.what.strip() or "Fitted")
    return life


def close_findings(session: Session, writer: Writer, drive: Drive, closes: list[ClosesIn], why: str, how: How = "fitted") -> None:
    """Close the findings that it puts right. Raises Refusal for one of another drive."""
    for closed in closes:
        finding = session.get(Finding, closed.id)
        if finding is None or finding.drive_id != drive.id:
            sentence = "That was not seen at this drive."
            raise Refusal(422, sentence, [FieldError(field="closes", detail=sentence)])
        if finding.closed_at is None:
            change(session, writer, finding, closed.row_version, "closed", how, why)


def _not_ahead(at: datetime | None) -> datetime:
    if at is not None and at > now() + timedelta(minutes=5):
        sentence = "That is yet to come: write when it was done."
        raise Refusal(422, sentence, [FieldError(field="at", detail=sentence)])
    return min(at or now(), now())


def _life(session: Session, drive: Drive, body: HappenedForm, at: datetime, hours: float | None) -> float | None:
    """How long the set before ran (h): as said, else by the clock since it went on; None where nothing tells."""
    if body.life_h is not None:
        return body.life_h
    facts = dues.facts_of(session, [drive.id])[drive.id]
    before = [h.at for h in facts.happened if h.kind == "new set" and h.at < at]
    configuration = drives.current_configuration(session, drive.id)
    if not before:
        return None
    if hours is not None:
        facts.hours.append(MeterReading(at, hours))
    ran = facts.clock(configuration.hours_per_day if configuration else None).between(max(before), at)
    # A set that went on within the same minutes has no life of its own to tell.
    return (round(ran[1], 1) or None) if ran and ran[1] > 0 else None


class StrikeHappened(Strict):
    """Strike out what was said to be done (it stays in the log, crossed through), or restore it."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    struck: bool


class StruckHappenedOut(BaseModel):
    """Its new row version."""

    id: uuid.UUID
    row_version: int


@blueprint.post(
    "/happened/<uuid:happened_id>/strike", summary="Strike out what was done, or restore it", responses={"200": StruckHappenedOut}
)
@at_site_of_happened(Role.MECHANIC)
def post_strike(path: HappenedPath, body: StrikeHappened) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Happened, path.happened_id)
        values = {"struck_at": now() if body.struck else None}
        update(session, writer, row, body.row_version, values, "struck out what was done" if body.struck else "restored what was done")
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(StruckHappenedOut(**done.body), done.status)


class HoursForm(Strict):
    """What the hour meter shows now."""

    id: uuid.UUID
    hour_meter: str = Field(max_length=60)


class HoursKeptOut(BaseModel):
    """The reading kept."""

    id: uuid.UUID
    hours_h: float


@blueprint.post("/drives/<uuid:drive_id>/hours", summary="Read the hour meter", responses={"201": HoursKeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_hours(path: DrivePath, body: HoursForm) -> Response:
    hours = hour_meter(body.hour_meter)
    if hours is None:
        sentence = "Write the hours on the meter as a number, such as 10482."
        raise Refusal(422, sentence, [FieldError(field="hour_meter", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        ask_of_meter(session, path.drive_id, body.hour_meter, hours, now())
        row = HourReading(id=body.id, drive_id=path.drive_id, hours_h=hours, taken_by=writer.person_id)
        insert(session, writer, row, "read the hour meter")
        return Outcome(201, {"id": str(row.id), "hours_h": hours})

    done = write(body.model_dump(mode="json"), work)
    return answer(HoursKeptOut(**done.body), done.status)


class RestForm(Strict):
    """Lay the machine up for the season, or start it again. `lay_up_id` and its version: of the rest that ends."""

    id: uuid.UUID
    resting: bool
    lay_up_id: uuid.UUID | None = None
    row_version: int = Field(0, ge=0, le=MOST_VERSIONS)


class RestOut(BaseModel):
    """The rest that began or ended."""

    id: uuid.UUID


@blueprint.post("/machines/<uuid:machine_id>/rest", summary="Lay a machine up, or start it again", responses={"200": RestOut})
@at_site_of_machine(Role.MECHANIC)
def post_rest(path: MachinePath, body: RestForm) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        machine = session.exec(select(Machine).where(col(Machine.id) == path.machine_id).with_for_update()).one()
        held = dues.laid_up(session, machine.id)
        if body.resting and held is None:
            held = LaidUp(id=body.id, machine_id=machine.id, made_by=writer.person_id)
            insert(session, writer, held, "laid up a machine")
        elif not body.resting and held is not None:
            update(
                session,
                writer,
                held,
                body.row_version,
                {"ended_at": max(now(), held.began_at + timedelta(seconds=1))},
                "started a machine again",
            )
        return Outcome(200, {"id": str(held.id if held else body.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(RestOut(**done.body), done.status)
