"""Working a job: made of its drive, done step by step in order, signed off with what it closes and raises."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime, Field
from sqlmodel import Session

from tuyere.core.dues.rules import Rule
from tuyere.core.jobs.compose import OWN, OwnStep, asked_facts, compose, fitting, for_due, held_up_by, open_safety, waits_for
from tuyere.core.jobs.library import Ask, Kind, Step, as_kept, holds, library
from tuyere.store import jobs as store
from tuyere.store.columns import now
from tuyere.store.dues import place_of
from tuyere.store.dues_tables import DueAnswer
from tuyere.store.job_tables import Job, JobStep, MachineSteps
from tuyere.store.tables import Drive, Due, Machine
from tuyere.store.write import Writer, insert, update
from tuyere.web.entry import MOST_VERSIONS, Strict
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.happened import ClosesIn, HappenedForm, close_findings, keep_happened
from tuyere.web.job_about import About
from tuyere.web.job_answers import about_job_drive, done_of, settled_of, steps_of

PROMISED = "jobs?kind="  # the page of a promise that a job made: which kind is to be done again
LONGEST_OFFLINE = timedelta(days=3)  # a step done without signal is sent this late at most


class BeginJob(Strict):
    """A client-made id, which kind, what was answered before it, and the due that it comes from: it names the kind left out."""

    id: uuid.UUID
    kind: str = Field("", max_length=40)
    asked: dict[str, str] = Field(default_factory=dict, max_length=20)
    due: str = Field("", max_length=60)


def make_job(session: Session, drive: Drive, body: BeginJob, person_id: uuid.UUID, at: datetime) -> Job:
    """A job as it is composed for its drive now. Raises Refusal for a kind that does not fit it or an answer that is lacking."""
    kind = library().kinds.get(body.kind or _kind_of_due(session, drive, body.due))
    asked = {k: " ".join(v.split())[:60] for k, v in body.asked.items()}
    told = about_job_drive(session, drive, asked)
    if kind is None or not holds(kind.fits, told.facts):
        raise refused("kind", "That kind of job does not fit this drive: choose one of its list.")
    asked = _answered(kind, asked, told)
    facts = told.facts | asked_facts(kind, asked)
    own = store.own_steps(session, drive.machine_id, kind.key)
    steps = compose(library(), kind, facts, [OwnStep(**s) for s in own.steps] if own else [])
    return Job(
        id=body.id, drive_id=drive.id, kind=kind.key, title=kind.title, due=body.due, due_what=_due_what(session, drive, body.due),
        asked=asked,
        steps=[as_kept(s) for s in steps], own_version=own.version if own else 0, planned_by=person_id, planned_at=at,
    )  # fmt: skip


def _answered(kind: Kind, asked: Mapping[str, str], told: About) -> dict[str, str]:
    """The answers that count. Raises Refusal."""
    found: dict[str, str] = {}
    for ask in kind.asks:
        if not holds(ask.when, told.facts | {f"{k}={v}" for k, v in found.items()}):
            continue
        said = asked.get(ask.key, "")
        if said and ask.options and said not in ask.options:
            raise refused(f"asked.{ask.key}", f"{ask.question} Choose one of: {_listed(ask)}.")
        if not said and not ask.optional:
            raise refused(f"asked.{ask.key}", f"{ask.question} Choose one of: {_listed(ask)}.")
        if said:
            found[ask.key] = said
    return found


def _listed(ask: Ask) -> str:
    return ", ".join(ask.options[:8]) + (" …" if len(ask.options) > 8 else "")


def refused(field: str, sentence: str) -> Refusal:
    return Refusal(422, sentence, [FieldError(field=field, detail=sentence)])


def _due_what(session: Session, drive: Drive, key: str) -> str:
    if not key:
        return ""
    promise = _promise(session, drive, key)
    if promise:
        return promise.what
    return next((r.what for r in _rules(session, drive) if r.key == key), "")


def _kind_of_due(session: Session, drive: Drive, key: str) -> str:
    kinds = fitting(library(), about_job_drive(session, drive, {}).facts)
    if promise := _promise(session, drive, key):
        if promise.page.startswith(PROMISED):
            return promise.page.removeprefix(PROMISED)
        return for_due(kinds, promise.kind, promise.page or "tension", False)
    rule = next((r for r in _rules(session, drive) if r.key == key), None)
    return for_due(kinds, rule.event, rule.page, not rule.repeats) if rule else ""


def _rules(session: Session, drive: Drive) -> Sequence[Rule]:
    return place_of(session, session.get_one(Machine, drive.machine_id).site_id).rules


def _promise(session: Session, drive: Drive, key: str) -> Due | None:
    try:
        row = session.get(Due, uuid.UUID(key))
    except ValueError:
        return None
    return row if row and row.drive_id == drive.id else None


class SayStep(Strict):
    """How a step stands: done, passed over with a reason, or taken back (empty). `at`: when, by the device that had no signal."""

    step: str = Field(min_length=1, max_length=60)
    standing: Literal["", "done", "passed"]
    words: str = Field("", max_length=400)
    at: AwareDatetime | None = None
    row_version: int = Field(0, ge=0, le=MOST_VERSIONS, description="of what was said before; 0 while nothing was")


def done_at(at: datetime | None) -> datetime:
    return now() if at is None else max(min(at, now()), now() - LONGEST_OFFLINE)


def say_step(
    session: Session, writer: Writer, job: Job, key: str, standing: str, words: str, at: datetime, seen_version: int = 0
) -> int:  # fmt: skip
    """Keep how a step stands; its version. Raises Refusal out of order. The same said twice, by two devices, is kept once."""
    if job.finished_at or job.dropped_at:
        raise Refusal(422, "This job is ended: nothing of it changes any more.")
    steps, said = steps_of(job), store.steps(session, job.id)
    step = next((s for s in steps if s.key == key), None)
    if step is None:
        raise refused("step", "That step is not part of this job.")
    row = said[key][0] if key in said else None
    settled = settled_of(said)
    if row and row.state == standing and row.words == words:
        return row.row_version
    if standing == "passed" and not words:
        raise refused("words", "Say why it is passed over.")
    first = waits_for(steps, key, settled) if standing else ()
    if first:
        raise refused("step", f"First: {first[0].do}")
    over = held_up_by(steps, key, settled) if not standing else ()
    if over:
        raise refused("step", f"Take back first: {over[-1].do}")
    if job.began_at is None and standing:
        update(session, writer, job, job.row_version, {"began_at": at}, "began a job")
    if row:
        values = {"state": standing, "words": words, "at": at, "by": writer.person_id}
        update(session, writer, row, seen_version, values, "changed a step")
        return row.row_version
    insert(
        session, writer,
        JobStep(id=uuid.uuid5(job.id, key), job_id=job.id, step=key, state=standing, words=words, at=at, by=writer.person_id), "did a step",
    )  # fmt: skip
    return 1


class AddStep(Strict):
    """A step for this machine from now on, behind another one; or, with `take_out`, one of its own that it is to have no more."""

    after: str = Field("", max_length=60)
    do: str = Field("", max_length=200)
    take_out: str = Field("", max_length=60)
    why: str = Field("", max_length=200)
    own_version: int = Field(0, ge=0, le=MOST_VERSIONS, description="of the machine's own steps, as seen")


MOST_OWN = 40
LEAST_LETTERS = 3


def change_own_steps(session: Session, writer: Writer, job: Job, body: AddStep) -> None:
    """A new version of the machine's own steps, and the job in hand with it. Raises Refusal."""
    if job.finished_at or job.dropped_at:
        raise Refusal(422, "This job is ended: nothing of it changes any more.")
    do, why = " ".join(body.do.split()), " ".join(body.why.split())
    drive = session.get_one(Drive, job.drive_id)
    held = store.own_steps(session, drive.machine_id, job.kind)
    listed = list(held.steps) if held else []
    steps = steps_of(job)
    if body.take_out:
        listed = [s for s in listed if s["key"] != body.take_out]
        if body.take_out in settled_of(store.steps(session, job.id)):
            raise refused("take_out", "It is done already in this job: take that back first.")
        kept = [s for s in steps if s.key != body.take_out]
    else:
        if len(do) < LEAST_LETTERS:
            raise refused("do", "Say what to do.")
        if len(listed) >= MOST_OWN:
            raise refused("do", f"A kind of job takes {MOST_OWN} steps of a machine's own: take one out first.")
        added = OwnStep(f"own-{uuid.uuid4().hex[:12]}", body.after, do, why)
        listed.append(asdict(added))
        place = next((i + 1 for i, s in enumerate(steps) if s.key == body.after), len(steps))
        own = Step(added.key, do, why, OWN, after=(body.after,) if body.after else (), look="mark")
        kept = [*steps[:place], own, *steps[place:]]
    version = (held.version if held else 0) + 1
    row = MachineSteps(
        id=uuid.uuid4(), machine_id=drive.machine_id, kind=job.kind, version=version, steps=listed, made_by=writer.person_id
    )  # fmt: skip
    insert(session, writer, row, "changed a machine's own steps")
    values = {"steps": [as_kept(s) for s in kept], "own_version": version}
    update(session, writer, job, job.row_version, values, "changed the steps of a job")


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
    steps, said = steps_of(job), store.steps(session, job.id)
    note, safety = " ".join(body.note.split()), " ".join(body.safety_note.split())
    lacking = open_safety(steps, done_of(said))
    if lacking and not safety:
        raise refused("safety_note", f"Not done: {lacking[0].do} Do it, or write why it is open.")
    left = [s for s in steps if s.key not in settled_of(said)]
    if len(left) > len([s for s in lacking if s in left]) and not note:
        raise refused("note", f"{len(left)} of {len(steps)} steps are open, the next: {left[0].do} Do them, or write why they are left.")
    drive = session.get_one(Drive, job.drive_id)
    told = about_job_drive(session, drive, job.asked)
    kind = library().kinds.get(job.kind)
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
    if kind and kind.again_days:
        again = Due(
            id=uuid.uuid5(job.id, "again"), drive_id=drive.id, what=kind.title[:120], due_on=(at + timedelta(days=kind.again_days)).date(),
            page=f"{PROMISED}{kind.key}",
        )  # fmt: skip
        insert(session, writer, again, "raised a due")
    counted = f"{len(done_of(said))} of {len(steps)} steps done"
    if passed := len(settled_of(said)) - len(done_of(said)):
        counted += f", {passed} passed over"
    values = {
        "finished_at": at, "began_at": job.began_at or at, "ended_by": writer.person_id, "note": note, "safety_note": safety,
        "said": counted,
        "numbers": {s.number: asdict(told.numbers[s.number]) for s in steps if s.number in told.numbers},
    }  # fmt: skip
    update(session, writer, job, body.row_version, values, "signed a job off")
    return counted


def _do_due(session: Session, writer: Writer, drive: Drive, job: Job, at: datetime) -> None:
    """The due that the job came from is done."""
    if not job.due:
        return
    why = f"Job signed off {at:%d %b %Y}: {job.title}"
    if promise := _promise(session, drive, job.due):
        if promise.done_at is None:
            update(
                session,
                writer,
                promise,
                promise.row_version,
                {"answer": "done", "done_at": at, "done_by": writer.person_id, "why": why},
                "did a due",
            )
    elif any(r.key == job.due for r in _rules(session, drive)):
        row = DueAnswer(
            id=uuid.uuid5(job.id, "due"), drive_id=drive.id, rule=job.due, answer="done", at=at, why=why, made_by=writer.person_id
        )
        insert(session, writer, row, "did a due")


class DropJob(Strict):
    """Drop a job that is not going to be done, with why."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    why: str = Field(min_length=1, max_length=400)
