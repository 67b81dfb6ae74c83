"""A job as it is told of: in a list, and with every step."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field
from sqlmodel import Session, select

from tuyere.core.caution import DEFERENCE
from tuyere.core.jobs.compose import compose, next_step, open_safety, waits_for
from tuyere.core.jobs.library import Ask, Kind, Step, from_kept, holds, library
from tuyere.core.jobs.numbers import Number
from tuyere.core.table import rows
from tuyere.store import drives
from tuyere.store import jobs as store
from tuyere.store.findings import open_findings
from tuyere.store.job_tables import Job, JobStep
from tuyere.store.rounds import measured_since
from tuyere.store.tables import Drive, Machine, Person, Reading
from tuyere.web.job_about import About, about
from tuyere.web.opened import FindingOut, finding_out
from tuyere.web.rounds import KINDS


class JobAskOut(BaseModel):
    """What is asked before a job begins: one of `options`, or a quantity as a person writes it."""

    key: str
    question: str
    options: list[str]
    field: str
    optional: bool
    when: list[str]
    notes: dict[str, str] = Field(default_factory=dict, description="what is to be said of an option on this drive")


class JobKindOut(BaseModel):
    """A kind of job that this drive can have."""

    key: str
    title: str
    about: str
    minutes: int
    steps: int
    asks: list[JobAskOut]


class JobBriefOut(BaseModel):
    """A job in a list: how far it is, and the step it stands at."""

    id: uuid.UUID
    kind: str
    title: str
    standing: Literal["waiting", "under way", "signed off", "dropped"]
    planned_at: datetime
    began_at: datetime | None
    finished_at: datetime | None
    who: str
    done: int
    of: int
    at_step: str
    due_what: str
    said: str


class JobsOut(BaseModel):
    """What may be done at a drive, what is waiting or under way, and what was signed off."""

    kinds: list[JobKindOut]
    open: list[JobBriefOut]
    before: list[JobBriefOut]


class JobNumberOut(BaseModel):
    """The drive's own number at a step, in both systems, and the page that it is from."""

    label: str
    us: str
    si: str
    detail: str
    page: str
    source: str


class JobCautionOut(BaseModel):
    """Where the harm is."""

    id: str
    text: str
    source: str


class JobStepOut(BaseModel):
    """A step: what, why, its number, where its reading is taken; how it stands, and what must come before it still."""

    key: str
    do: str
    why: str
    source: str
    look: str
    state: Literal["isolated", "running", "any"]
    safety: str
    photo: bool
    own: bool
    number: JobNumberOut | None
    lacks: str = Field(description="why there is no number, where one belongs")
    read: str
    was_read: str = Field(description="what was read there since the job was made")
    cautions: list[JobCautionOut]
    waits_for: list[str] = Field(description="what must be done first, in words")
    standing: Literal["", "done", "passed"]
    words: str
    who: str
    at: datetime | None
    row_version: int


class JobOut(BaseModel):
    """A job with every step. `next`: the step to do now; `lacking`: lock and guard steps that were not done."""

    id: uuid.UUID
    drive_id: uuid.UUID
    drive: str
    machine: str
    place: str
    kind: str
    title: str
    about: str
    standing: Literal["waiting", "under way", "signed off", "dropped"]
    planned_at: datetime
    planned_by: str
    began_at: datetime | None
    finished_at: datetime | None
    ended_by: str
    minutes: int | None = Field(description="from its first step to the sign-off")
    asked: dict[str, str]
    due_what: str
    steps: list[JobStepOut]
    next: str
    lacking: list[str]
    findings: list[FindingOut] = Field(description="open at the drive, which it may have put right")
    answers: list[uuid.UUID] = Field(description="those it is likely to have put right")
    event: str = Field(description="what it is on the record once signed off")
    note: str
    safety_note: str
    said: str
    deference: str
    own_version: int
    row_version: int


class SiteJobOut(JobBriefOut):
    """An open job of a site, with whose drive it is at."""

    drive_id: uuid.UUID
    machine: str
    place: str


class SiteJobsOut(BaseModel):
    """Every job of a site that is waiting or under way."""

    jobs: list[SiteJobOut]


def about_job_drive(session: Session, drive: Drive, asked: Mapping[str, str]) -> About:
    """A drive as its jobs see it now."""
    return about(session, drive, drives.current_configuration(session, drive.id), asked)


def kind_out(kind: Kind, told: About) -> JobKindOut:
    asks = [a for a in kind.asks if all(_of_asks(kind, t) or holds([t], told.facts) for t in a.when)]
    return JobKindOut(
        key=kind.key, title=kind.title, about=kind.about, minutes=kind.minutes, steps=len(compose(library(), kind, told.facts)),
        asks=[_ask(a, told) for a in asks],
    )  # fmt: skip


def _ask(ask: Ask, told: About) -> JobAskOut:
    return JobAskOut(
        key=ask.key, question=ask.question, options=list(ask.options), field=ask.field, optional=ask.optional, when=list(ask.when),
        notes=dict(told.notes.get(ask.key, {})),
    )  # fmt: skip


def _of_asks(kind: Kind, term: str) -> bool:
    """Whether a term reads another answer of the same kind."""
    return any(part.lstrip("!").partition("=")[0] in {a.key for a in kind.asks} for part in term.split("|"))


def standing_of(job: Job) -> Literal["waiting", "under way", "signed off", "dropped"]:
    if job.finished_at:
        return "signed off"
    if job.dropped_at:
        return "dropped"
    return "under way" if job.began_at else "waiting"


def steps_of(job: Job) -> tuple[Step, ...]:
    """The steps of a job as it was made."""
    return tuple(from_kept(told) for told in job.steps)


def settled_of(said: Mapping[str, tuple[JobStep, str]]) -> set[str]:
    return {k for k, (row, _) in said.items() if row.state}


def done_of(said: Mapping[str, tuple[JobStep, str]]) -> set[str]:
    return {k for k, (row, _) in said.items() if row.state == "done"}


def brief_out(session: Session, job: Job, who: str = "") -> JobBriefOut:
    steps, said = steps_of(job), store.steps(session, job.id)
    settled = settled_of(said) & {s.key for s in steps}
    at = next_step(steps, settled)
    return JobBriefOut(
        id=job.id, kind=job.kind, title=job.title, standing=standing_of(job), planned_at=job.planned_at, began_at=job.began_at,
        finished_at=job.finished_at, who=who or session.get_one(Person, job.planned_by).name, done=len(settled), of=len(steps),
        at_step=at.do if at and not job.finished_at else "", due_what=job.due_what, said=job.said,
    )  # fmt: skip


def job_out(session: Session, job: Job) -> JobOut:
    """Everything of a job: while it is open with the drive's numbers as they are now, once signed off as they were."""
    drive = session.get_one(Drive, job.drive_id)
    machine = session.get_one(Machine, drive.machine_id)
    steps, said = steps_of(job), store.steps(session, job.id)
    numbers = (
        {k: Number(**n) for k, n in job.numbers.items()} if job.finished_at else dict(about_job_drive(session, drive, job.asked).numbers)
    )
    readings = measured_since(session, drive.id, job.planned_at, job.finished_at or job.dropped_at)
    settled = settled_of(said)
    at = next_step(steps, settled) if not job.finished_at else None
    kind = library().kinds.get(job.kind)
    people = dict(session.exec(select(Person.id, Person.name)).all())
    open_now = [] if job.finished_at else [finding_out(f, people) for f in open_findings(session, drive.id)]
    return JobOut(
        id=job.id, drive_id=drive.id, drive=drive.name, machine=machine.name, place=machine.place or "", kind=job.kind, title=job.title,
        about=kind.about if kind else "", standing=standing_of(job), planned_at=job.planned_at, planned_by=people[job.planned_by],
        began_at=job.began_at, finished_at=job.finished_at, ended_by=people[job.ended_by] if job.ended_by else "",
        minutes=round((job.finished_at - job.began_at).total_seconds() / 60) if job.finished_at and job.began_at else None,
        asked=job.asked, due_what=job.due_what,
        steps=[_step_out(s, steps, said, settled, numbers, readings) for s in steps], next=at.key if at else "",
        lacking=[s.do for s in open_safety(steps, done_of(said))], findings=open_now,
        answers=[f.id for f in open_now if kind and f.page.split("/")[0] in kind.closes],
        event=kind.event if kind else "",
        note=job.note, safety_note=job.safety_note, said=job.said, deference=DEFERENCE, own_version=job.own_version,
        row_version=job.row_version,
    )  # fmt: skip


def _caution(key: str) -> JobCautionOut:
    row = next(r for r in rows("cautions") if r["id"] == key)
    return JobCautionOut(id=row["id"], text=row["text"], source=row["source"])


def _step_out(
    step: Step, steps: Sequence[Step], said: Mapping[str, tuple[JobStep, str]], settled: set[str], numbers: Mapping[str, Number],
    readings: Sequence[Reading],
) -> JobStepOut:  # fmt: skip
    row, who = said.get(step.key, (None, ""))
    number = numbers.get(step.number)
    taken = next((r for r in reversed(readings) if step.read and r.kind == KINDS.get(step.read.partition("?")[0])), None)
    return JobStepOut(
        key=step.key, do=step.do, why=step.why, source=step.source, look=step.look, state=step.state, safety=step.safety, photo=step.photo,
        own=step.key.startswith("own-"), number=JobNumberOut(**asdict(number)) if number else None,
        lacks="Not known yet: see Survey." if step.number and number is None else "",
        read=step.read, was_read=taken.summary.get("headline", "") if taken else "",
        cautions=[_caution(c) for c in step.cautions],
        waits_for=[s.do for s in waits_for(steps, step.key, settled)],
        standing=row.state if row else "", words=row.words if row else "", who=who if row and row.state else "",
        at=row.at if row and row.state else None, row_version=row.row_version if row else 0,
    )  # fmt: skip
