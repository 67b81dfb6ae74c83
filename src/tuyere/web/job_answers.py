"""A job as it is told of: in a list, and with every step."""

import uuid
from collections.abc import Collection, Mapping, Sequence
from dataclasses import asdict
from datetime import datetime
from functools import lru_cache
from typing import Any, Literal

from sqlmodel import Session, select

from tuyere.core.basis.caution import DEFERENCE
from tuyere.core.basis.number import Number
from tuyere.core.basis.table import rows
from tuyere.core.stations.jobs.compose import OwnStep, as_text, asked_facts, compose, next_step, open_safety
from tuyere.core.stations.jobs.library import RUNS, Ask, JobKind, Step, Trait, holds
from tuyere.core.stations.jobs.read import from_kept, library
from tuyere.store import drives
from tuyere.store import jobs as store
from tuyere.store.findings import open_findings
from tuyere.store.job_tables import Job, JobStep
from tuyere.store.people_tables import Person
from tuyere.store.tables import Drive, Machine
from tuyere.web.job_about import About, about
from tuyere.web.job_models import (
    JobAskOut,
    JobBriefOut,
    JobCautionOut,
    JobKindOut,
    JobNoteOut,
    JobNumberOut,
    JobOut,
    JobPreviewOut,
    JobStepOut,
    MachineAskOut,
    PlainStepOut,
    RaisedOut,
    UnreadOut,
)
from tuyere.web.opened import finding_out
from tuyere.web.rounds import KINDS


def about_job_drive(
    session: Session, drive: Drive, asked: Mapping[str, str], said: Mapping[str, bool] | None = None, kind: JobKind | None = None
) -> About:
    """A drive as its jobs see it now."""
    return about(session, drive, drives.current_configuration(session, drive.id), asked, said, kind)


def kind_out(kind: JobKind, told: About) -> JobKindOut:
    asks = [a for a in kind.asks if all(_of_asks(kind, t) or holds([t], told.facts) for t in a.when)]
    facts = (told.facts - {RUNS} if kind.stopped else told.facts) | first_answers(kind, told.facts)
    return JobKindOut(
        key=kind.key,
        title=kind.title,
        about=kind.about,
        minutes=kind.minutes,
        steps=_how_many(kind.key, frozenset(facts)),
        stopped=kind.stopped,
        asks=[_ask(a, told) for a in asks],
    )


@lru_cache(maxsize=8192)
def _how_many(kind: str, facts: frozenset[str]) -> int:
    """Steps of a kind where those facts hold: the library is one for the life of a process."""
    return len(compose(library(), library().kinds[kind], facts))


def first_answers(kind: JobKind, facts: Collection[str], asked: Mapping[str, str] | None = None) -> frozenset[str]:
    """The answers given, and the first option of every question that is not answered yet: about how long a job is."""
    found: set[str] = set()
    for ask in kind.asks:
        if ask.options and holds(ask.when, {*facts, *found}):
            found.add(f"{ask.key}={(asked or {}).get(ask.key) or ask.options[0]}")
    return frozenset(found)


def machine_out(told: About) -> list[MachineAskOut]:
    """What is asked of the machine, with what is ticked."""
    return [_machine_ask(t, told) for t in library().traits.values()]


def _machine_ask(trait: Trait, told: About) -> MachineAskOut:
    guess = told.guesses[trait.key]
    return MachineAskOut(
        key=trait.key,
        question=trait.question,
        short=trait.short,
        guess=guess.is_so,
        because=guess.because,
        kept=told.kept.get(trait.key),
        when=list(trait.when),
        today=trait.today,
    )


def preview_out(session: Session, drive: Drive, kind: JobKind, asked: Mapping[str, str], said: Mapping[str, bool]) -> JobPreviewOut:
    """A job composed with the answers so far."""
    told = about_job_drive(session, drive, asked, said, kind)
    lacking = [a.key for a in kind.asks if not a.optional and not asked.get(a.key) and holds(a.when, told.facts | asked_facts(kind, asked))]
    own = store.own_steps(session, drive.machine_id, kind.key)
    steps = compose(library(), kind, told.facts | first_answers(kind, told.facts, asked), [OwnStep(**s) for s in own.steps] if own else [])
    return JobPreviewOut(
        kind=kind.key,
        title=kind.title,
        minutes=kind.minutes,
        lacking=lacking,
        steps=[PlainStepOut(**_plain(s)) for s in steps],
        text=as_text(kind.title, steps),
    )


def _plain(step: Step) -> dict[str, Any]:
    return {
        "key": step.key,
        "do": step.do,
        "why": step.why,
        "source": step.source,
        "look": step.look,
        "sort": step.sort,
        "state": step.state,
        "safety": step.safety,
        "leaves": step.leaves,
        "undoes": list(step.undoes),
        "lasting": step.lasting,
        "turns": step.turns,
        "waits_for": list(step.after),
        "read": step.read,
        "photo": step.photo,
        "own": step.key.startswith("own-"),
    }


def _ask(ask: Ask, told: About) -> JobAskOut:
    return JobAskOut(
        key=ask.key,
        question=ask.question,
        options=list(ask.options),
        field=ask.field,
        optional=ask.optional,
        when=list(ask.when),
        notes=dict(told.notes.get(ask.key, {})),
        by=ask.by,
        narrowed={k: list(v) for k, v in ask.narrowed.items()},
    )


def _of_asks(kind: JobKind, term: str) -> bool:
    """Whether a term reads another answer of the same kind."""
    return any(part.lstrip("!").partition("=")[0] in {a.key for a in kind.asks} for part in term.split("|"))


def standing_of(job: Job) -> Literal["waiting", "under way", "signed off", "dropped"]:
    if job.finished_at:
        return "signed off"
    if job.dropped_at:
        return "dropped"
    return "under way" if job.began_at else "waiting"


def steps_of(session: Session, job: Job, said: Mapping[str, tuple[JobStep, str]] | None = None) -> tuple[Step, ...]:
    """The steps of a job as it was made; of a kind that is composed anew, as it is composed now, with what is settled kept."""
    steps = tuple(from_kept(told) for told in job.steps)
    kind = library().kinds.get(job.kind)
    if not (kind and kind.anew) or job.finished_at or job.dropped_at:
        return steps
    drive = session.get_one(Drive, job.drive_id)
    told = about_job_drive(session, drive, job.asked, job.machine, kind)
    own = store.own_steps(session, drive.machine_id, kind.key)
    now = compose(library(), kind, told.facts | asked_facts(kind, job.asked), [OwnStep(**s) for s in own.steps] if own else [])
    settled = settled_of(store.steps(session, job.id) if said is None else said) - {s.key for s in now}
    return (*(s for s in steps if s.key in settled), *now)


def reading_kind(page: str) -> str | None:
    """The kind of reading that a page takes."""
    path = page.partition("?")[0]
    return KINDS.get(path) or KINDS.get(path.split("/")[0])


def _asks_reading(step: Step) -> bool:
    """A look at the wheels opens the page of wear, and asks for no number unless it names one."""
    return bool(step.read) and (not step.read.startswith("inspect") or bool(step.number))


def unread_of(steps: Sequence[Step], said: Mapping[str, tuple[JobStep, str]], readings: Sequence[store.Taken]) -> list[Step]:
    """The steps that ask for a reading and have none: nothing of its kind was kept since the step before it that changed the drive."""
    found: list[Step] = []
    changed: datetime | None = None
    for step in steps:
        row = said[step.key][0] if step.key in said else None
        if _asks_reading(step) and not (row and row.state == "passed"):
            kind = reading_kind(step.read)
            if not any(r.kind == kind and (changed is None or r.at >= changed) for r in readings):
                found.append(step)
        if row and row.state == "done" and (step.leaves or step.undoes):
            changed = row.at
    return found


def settled_of(said: Mapping[str, tuple[JobStep, str]]) -> set[str]:
    return {k for k, (row, _) in said.items() if row.state}


def done_of(said: Mapping[str, tuple[JobStep, str]]) -> set[str]:
    return {k for k, (row, _) in said.items() if row.state == "done"}


def brief_out(session: Session, job: Job, who: str = "", said: Mapping[str, tuple[JobStep, str]] | None = None) -> JobBriefOut:
    said = store.steps(session, job.id) if said is None else said
    steps = steps_of(session, job, said)
    settled = settled_of(said) & {s.key for s in steps}
    at = next_step(steps, settled)
    return JobBriefOut(
        id=job.id,
        kind=job.kind,
        title=job.title,
        standing=standing_of(job),
        planned_at=job.planned_at,
        began_at=job.began_at,
        finished_at=job.finished_at,
        who=who or session.get_one(Person, job.planned_by).name,
        done=len(settled),
        of=len(steps),
        at_step=at.do if at and not job.finished_at else "",
        due_what=job.due_what,
        said=job.said,
    )


def job_out(session: Session, job: Job) -> JobOut:
    """Everything of a job: while it is open with the drive's numbers as they are now, once signed off as they were."""
    drive = session.get_one(Drive, job.drive_id)
    machine = session.get_one(Machine, drive.machine_id)
    kind = library().kinds.get(job.kind)
    steps, said = steps_of(session, job), store.steps(session, job.id)
    numbers = (
        {k: Number(**n) for k, n in job.numbers.items()}
        if job.finished_at
        else dict(about_job_drive(session, drive, job.asked, job.machine, kind).numbers)
    )
    readings = store.taken_since(session, drive.id, job.planned_at, job.finished_at or job.dropped_at)
    settled = settled_of(said)
    at = next_step(steps, settled) if not job.finished_at else None
    own = store.own_steps(session, machine.id, job.kind)
    people = dict(session.exec(select(Person.id, Person.name)).all())
    open_now = [] if job.finished_at else [finding_out(f, people) for f in open_findings(session, drive.id)]
    lack = {s.key for s in unread_of(steps, said, readings)} if not job.finished_at else {u["key"] for u in job.unread}
    unread = job.unread if job.finished_at else [unread_out(s).model_dump() for s in steps if s.key in lack & done_of(said)]
    return JobOut(
        id=job.id,
        drive_id=drive.id,
        drive=drive.name,
        machine=machine.name,
        place=machine.place or "",
        kind=job.kind,
        title=job.title,
        about=kind.about if kind else "",
        standing=standing_of(job),
        planned_at=job.planned_at,
        planned_by=people[job.planned_by],
        began_at=job.began_at,
        finished_at=job.finished_at,
        ended_by=people[job.ended_by] if job.ended_by else "",
        minutes=round((job.finished_at - job.began_at).total_seconds() / 60) if job.finished_at and job.began_at else None,
        asked=job.asked,
        machine_is=job.machine,
        due_what=job.due_what,
        steps=[_step_out(s, said, numbers, readings, lack) for s in steps],
        next=at.key if at else "",
        lacking=[s.do for s in open_safety(steps, done_of(said))],
        unread=[UnreadOut(**u) for u in unread],
        notes=notes_of(steps, said),
        earlier=_earlier(session, job, machine.id),
        raised=[RaisedOut(**d) for d in job.raised],
        findings=open_now,
        answers=[f.id for f in open_now if kind and f.page.split("/")[0] in kind.closes],
        event=kind.event if kind else "",
        note=job.note,
        safety_note=job.safety_note,
        said=job.said,
        deference=DEFERENCE,
        own_version=own.version if own else 0,
        row_version=job.row_version,
    )


def unread_out(step: Step) -> UnreadOut:
    return UnreadOut(key=step.key, do=step.do, page=step.read)


def notes_of(steps: Sequence[Step], said: Mapping[str, tuple[JobStep, str]]) -> list[JobNoteOut]:
    """What was noted with the steps of a job, in their order."""
    return [
        JobNoteOut(words=row.words, do=s.do, who=who, at=row.at, passed=row.state == "passed")
        for s in steps
        if (row := said[s.key][0] if s.key in said else None) and (who := said[s.key][1]) and row.words and row.state
    ]


def _earlier(session: Session, job: Job, machine_id: uuid.UUID) -> list[JobNoteOut]:
    found: list[JobNoteOut] = []
    for before, who in store.before_at_machine(session, machine_id, job.kind, job.planned_at):
        if before.note and before.finished_at:
            found.append(JobNoteOut(words=before.note, do="", who=who, at=before.finished_at, passed=False))
        found += notes_of(tuple(from_kept(told) for told in before.steps), store.steps(session, before.id))
    return found


def _caution(key: str) -> JobCautionOut:
    row = next(r for r in rows("cautions") if r["id"] == key)
    return JobCautionOut(id=row["id"], text=row["text"], source=row["source"])


def _step_out(
    step: Step,
    said: Mapping[str, tuple[JobStep, str]],
    numbers: Mapping[str, Number],
    readings: Sequence[store.Taken],
    lack: Collection[str],
) -> JobStepOut:
    row, who = said.get(step.key, (None, ""))
    number = numbers.get(step.number)
    taken = next((r for r in reversed(readings) if step.read and r.kind == reading_kind(step.read)), None)
    return JobStepOut(
        **_plain(step),
        number=JobNumberOut(**asdict(number)) if number else None,
        lacks="Not known yet: see Survey." if step.number and number is None else "",
        was_read=taken.headline if taken else "",
        not_measured=step.key in lack,
        cautions=[_caution(c) for c in step.cautions],
        standing=row.state if row else "",
        words=row.words if row else "",
        who=who if row and row.state else "",
        at=row.at if row and row.state else None,
        row_version=row.row_version if row else 0,
    )
