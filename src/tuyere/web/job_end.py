"""Signing a job off: what was done, what it puts right, what falls due next."""

import uuid
from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime, timedelta
from typing import Any

from pydantic import Field
from sqlmodel import Session

from tuyere.core.stations.inspect.dues.rules import UpkeepRule
from tuyere.core.stations.jobs.compose import open_safety
from tuyere.core.stations.jobs.library import JobKind, Step
from tuyere.core.stations.jobs.read import as_kept, library
from tuyere.record.dues import Habits, open_dues
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import jobs as store
from tuyere.store.clock import now
from tuyere.store.drives import current_configuration
from tuyere.store.dues import facts_of, place_of
from tuyere.store.dues_tables import DueAnswer
from tuyere.store.job_tables import Job
from tuyere.store.tables import Drive, Due, Machine
from tuyere.store.write import Writer, insert, update
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.happened import ClosesIn, HappenedForm, close_findings, keep_happened
from tuyere.web.job_answers import about_job_drive, done_of, reading_kind, settled_of, steps_of, unread_of, unread_out
from tuyere.web.job_models import RaisedOut
from tuyere.web.opened import dues_out
from tuyere.web.rounds import KINDS
from tuyere.web.state import site_day

PROMISED = "jobs?kind="  # the page of a promise that a job made: which kind is to be done again


CLOCKS = timedelta(minutes=2)  # so far the clock of a device may be off from the server's


def refused(field: str, sentence: str) -> Refusal:
    return Refusal(422, sentence, [FieldError(field=field, detail=sentence)])


def rules_of(session: Session, drive: Drive) -> Sequence[UpkeepRule]:
    return place_of(session, session.get_one(Machine, drive.machine_id).site_id).rules


def promise_of(session: Session, drive: Drive, key: str) -> Due | None:
    try:
        row = session.get(Due, uuid.UUID(key))
    except ValueError:
        return None
    return row if row and row.drive_id == drive.id else None


def done_at(job: Job, at: datetime | None) -> datetime:
    """When a step was done, as the device says: never moved. Raises Refusal for a time before the job was there or still to come."""
    if at is None:
        return now()
    if at < job.planned_at - CLOCKS:
        raise refused("at", "This step is dated before the job was there: set the time at which it was done.")
    if at > now() + CLOCKS:
        raise refused("at", "This step is dated in the future: set this device's clock, and the time at which it was done.")
    return at


class FinishJob(Strict):
    """Sign it off over the version seen: a note, why a lock or guard step is open, what it put right, the hours, what came off and why."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    note: str = Field("", max_length=1000)
    safety_note: str = Field("", max_length=400)
    closes: list[ClosesIn] = Field(default_factory=list, max_length=40)
    hour_meter: str = Field("", max_length=60)
    what: str = Field("", max_length=200)
    came_off: str = Field("", max_length=200)
    why_off: str = Field("", max_length=400)


def sign_off(session: Session, writer: Writer, job: Job, body: FinishJob, hours: float | None, at: datetime) -> str:
    """End a job: its event on the record, its due done, its findings closed; how it ended. Raises Refusal for what is open without why."""
    if job.finished_at or job.dropped_at:
        raise Refusal(422, "This job is ended already.")
    steps, said = steps_of(session, job), store.steps(session, job.id)
    note, safety = " ".join(body.note.split()), " ".join(body.safety_note.split())
    lacking = open_safety(steps, done_of(said))
    if lacking and not safety:
        raise refused("safety_note", f"Not done: {lacking[0].do} Do it, or write why it is open.")
    left = [s for s in steps if s.key not in settled_of(said)]
    if len(left) > len([s for s in lacking if s in left]) and not note:
        raise refused("note", f"{len(left)} of {len(steps)} steps are open, the next: {left[0].do} Do them, or write why they are left.")
    drive = session.get_one(Drive, job.drive_id)
    kind = library().kinds.get(job.kind)
    told = about_job_drive(session, drive, job.asked, job.machine, kind)
    event = kind.event if kind else ""
    if event:
        what = " ".join(body.what.split()) or (told.belts if event == "new set" else job.title)
        happened = HappenedForm(
            id=uuid.uuid5(job.id, "happened"),
            kind=event,
            what=what[:200],
            came_off=body.came_off,
            why_off=body.why_off,
            closes=body.closes,
        )
        keep_happened(session, writer, drive, happened, at, hours)
    else:
        close_findings(session, writer, drive, body.closes, job.title, "job")
    _do_due(session, writer, drive, job, at)
    readings = store.taken_since(session, drive.id, job.planned_at, at)
    unread = [s for s in unread_of(steps, said, readings) if s.key in done_of(said)]
    if any(s.base in FIRST_LOOK for s in steps if s.key in done_of(said)):
        _answer_rule(session, writer, drive, job, "v first look", at)
    raised = _raise(session, writer, drive, job, kind, unread, readings, at)
    counted = f"{len(done_of(said))} of {len(steps)} steps done"
    if passed := len(settled_of(said)) - len(done_of(said)):
        counted += f", {passed} skipped"
    if unread:
        pages = dict.fromkeys(WORDS[reading_kind(s.read) or ""] for s in unread)
        counted += f"; not measured: {', '.join(pages)}"
    values = {
        "finished_at": at,
        "began_at": job.began_at or at,
        "ended_by": writer.person_id,
        "note": note,
        "safety_note": safety,
        "said": counted,
        "unread": [unread_out(s).model_dump() for s in unread],
        "raised": raised,
        "steps": [as_kept(s) for s in steps],
        "numbers": {s.number: asdict(told.numbers[s.number]) for s in steps if s.number in told.numbers},
    }
    update(session, writer, job, body.row_version, values, "signed a job off")
    return counted


WORDS = {"belt tension": "tension", "shaft speed": "speed", "alignment": "alignment", "wear": "wear"}


FIRST_LOOK = ("look_bolts", "look_tension", "look_light", "look_sag", "look_links", "look_pluck")


NOBODY = {  # by what a job is on the record: what is due where its tension was not read
    "new set": "Read the tension of the new set: nobody did",
    "new wheel": "Read the tension of the new set: nobody did",
    "re-tension": "Read the tension that was set: nobody did",
}


AS_FOUND = ("read_as_found", "sag_found")


def _raise(
    session: Session,
    writer: Writer,
    drive: Drive,
    job: Job,
    kind: JobKind | None,
    unread: Sequence[Step],
    readings: Sequence[store.Taken],
    at: datetime,
) -> list[dict[str, Any]]:
    """What falls due of a sign-off: the same job by the calendar, a tension that nobody read, what the rules count from it."""
    rows: list[Due] = []
    if kind and kind.again_days:
        on = site_day(at) + timedelta(days=kind.again_days)
        rows.append(Due(id=uuid.uuid5(job.id, "again"), drive_id=drive.id, what=kind.title[:120], due_on=on, page=f"{PROMISED}{kind.key}"))
    asked = [s for s in steps_of(session, job) if s.read == "tension" and s.base not in AS_FOUND]
    lack = {s.key for s in unread}
    nobody = all(s.key in lack for s in asked) if asked else not any(r.kind == KINDS["tension"] for r in readings)
    if kind and kind.event in NOBODY and nobody and (asked or drive.family != "roller chain"):
        what = NOBODY[kind.event]
        rows.append(Due(id=uuid.uuid5(job.id, "unread"), drive_id=drive.id, what=what, due_on=site_day(at), page="tension"))
    for due in rows:
        insert(session, writer, due, "raised a due")
    configuration = current_configuration(session, drive.id)
    place = place_of(session, session.get_one(Machine, drive.machine_id).site_id)
    facts = facts_of(session, [drive.id])[drive.id]
    habits = Habits(drive.family, configuration.hours_per_day if configuration else None)
    every = dues_out(open_dues((drive.id, writer.site_id), rows, facts, habits, place, now()), now().astimezone(place.zone).date())
    ruled = [d for d in every if d.promised or (kind and kind.event and d.kind == kind.event)]
    return [RaisedOut(key=d.key, what=d.what, due_on=d.due_on, said=d.said, page=d.page).model_dump(mode="json") for d in ruled]


def _answer_rule(session: Session, writer: Writer, drive: Drive, job: Job, rule: str, at: datetime) -> None:
    if any(r.key == rule for r in rules_of(session, drive)):
        why = f"Job signed off {site_day(at):%d %b %Y}: {job.title}"
        row = DueAnswer(id=uuid.uuid5(job.id, rule), drive_id=drive.id, rule=rule, answer="done", at=at, why=why, made_by=writer.person_id)
        insert(session, writer, row, "did a due")


def _do_due(session: Session, writer: Writer, drive: Drive, job: Job, at: datetime) -> None:
    """The due that the job came from is done."""
    if not job.due:
        return
    why = f"Job signed off {site_day(at):%d %b %Y}: {job.title}"
    if promise := promise_of(session, drive, job.due):
        if promise.done_at is None:
            update(
                session,
                writer,
                promise,
                promise.row_version,
                {"answer": "done", "done_at": at, "done_by": writer.person_id, "why": why},
                "did a due",
            )
    else:
        _answer_rule(session, writer, drive, job, job.due, at)
