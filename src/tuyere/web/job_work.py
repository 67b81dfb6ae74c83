"""Working a job: made of its drive, done step by step in order, signed off with what it closes and raises."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from datetime import datetime
from typing import Literal

from pydantic import AwareDatetime, Field
from sqlmodel import Session

from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.stations.jobs.compose import OwnStep, asked_facts, compose, fitting, for_due, held_up_by, waiting, waits_for, with_own
from tuyere.core.stations.jobs.library import JobKind, State, holds
from tuyere.core.stations.jobs.read import as_kept, library
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import jobs as store
from tuyere.store.job_tables import Job, JobStep, MachineSteps
from tuyere.store.people_tables import Person
from tuyere.store.tables import Drive, Machine
from tuyere.store.write import Writer, insert, update
from tuyere.web.errors import Refusal
from tuyere.web.job_about import About
from tuyere.web.job_answers import about_job_drive, settled_of, steps_of
from tuyere.web.job_end import PROMISED, promise_of, refused, rules_of


class BeginJob(Strict):
    """A client-made id, which kind, the answers before it and of its machine, and the due it comes from: it names the kind left out."""

    id: uuid.UUID
    kind: str = Field("", max_length=40)
    asked: dict[str, str] = Field(default_factory=dict, max_length=20)
    machine: dict[str, bool] = Field(
        default_factory=dict, max_length=60, description="answers about the machine; those left out are as guessed"
    )
    due: str = Field("", max_length=60)


class PreviewJob(Strict):
    """Which kind, and the answers so far."""

    kind: str = Field(min_length=1, max_length=40)
    asked: dict[str, str] = Field(default_factory=dict, max_length=20)
    machine: dict[str, bool] = Field(default_factory=dict, max_length=60)


def refuse_unknown_traits(machine: Mapping[str, bool]) -> None:
    """Raises Refusal for a question that is not asked of any machine."""
    unknown = next((k for k in machine if k not in library().traits), None)
    if unknown:
        raise refused(f"machine.{unknown}", "That is not asked of a machine: leave it out.")


def make_job(session: Session, drive: Drive, body: BeginJob, person_id: uuid.UUID, at: datetime) -> Job:
    """A job as it is composed for its drive now. Raises Refusal for a kind that does not fit it or an answer that is lacking."""
    kind = library().kinds.get(body.kind or _kind_of_due(session, drive, body.due))
    asked = {k: " ".join(v.split())[:60] for k, v in body.asked.items()}
    refuse_unknown_traits(body.machine)
    told = about_job_drive(session, drive, asked, body.machine, kind)
    if kind is None or not holds(kind.fits, told.facts):
        raise refused("kind", "That kind of job does not fit this drive: choose one of its list.")
    asked = _answered(kind, asked, told)
    facts = told.facts | asked_facts(kind, asked)
    own = store.own_steps(session, drive.machine_id, kind.key)
    steps = compose(library(), kind, facts, [OwnStep(**s) for s in own.steps] if own else [])
    return Job(
        id=body.id,
        drive_id=drive.id,
        kind=kind.key,
        title=kind.title,
        due=body.due,
        due_what=_due_what(session, drive, body.due),
        asked=asked,
        machine=dict(told.machine),
        steps=[as_kept(s) for s in steps],
        own_version=own.version if own else 0,
        planned_by=person_id,
        planned_at=at,
    )


def _answered(kind: JobKind, asked: Mapping[str, str], told: About) -> dict[str, str]:
    """The answers that count. Raises Refusal."""
    found: dict[str, str] = {}
    for ask in kind.asks:
        if not holds(ask.when, told.facts | {f"{k}={v}" for k, v in found.items()}):
            continue
        said = asked.get(ask.key, "")
        options = ask.narrowed.get(found.get(ask.by, ""), ask.options)
        if said and options and said not in options:
            raise refused(f"asked.{ask.key}", f"{ask.question} Choose one of: {_listed(options)}.")
        if not said and not ask.optional:
            raise refused(f"asked.{ask.key}", f"{ask.question} Choose one of: {_listed(options)}.")
        if said and ask.field:
            reader = FieldReader({ask.key: Typed(said, "")}, {})
            reader.value(ask.key, ask.field)
            if reader.problems:
                raise refused(f"asked.{ask.key}", reader.problems[0].sentence)
        if said:
            found[ask.key] = said
    return found


def _listed(options: Sequence[str]) -> str:
    return ", ".join(options[:8]) + (" …" if len(options) > 8 else "")


def keep_machine(session: Session, writer: Writer, drive: Drive, said: Mapping[str, bool]) -> None:
    """Keep with the machine what was answered of it: the next job's questions are ticked so."""
    machine = session.get_one(Machine, drive.machine_id, with_for_update=True)
    kept = machine.traits | {k: v for k, v in said.items() if not library().traits[k].today}
    if kept != machine.traits:
        update(session, writer, machine, machine.row_version, {"traits": kept}, "said what a machine is")


def _due_what(session: Session, drive: Drive, key: str) -> str:
    if not key:
        return ""
    promise = promise_of(session, drive, key)
    if promise:
        return promise.what
    return next((r.what for r in rules_of(session, drive) if r.key == key), "")


def _kind_of_due(session: Session, drive: Drive, key: str) -> str:
    kinds = fitting(library(), about_job_drive(session, drive, {}).facts)
    if promise := promise_of(session, drive, key):
        if promise.page.startswith(PROMISED):
            return promise.page.removeprefix(PROMISED)
        return for_due(kinds, promise.kind, promise.page or "tension", False)
    rule = next((r for r in rules_of(session, drive) if r.key == key), None)
    return for_due(kinds, rule.event, rule.page, not rule.repeats) if rule else ""


class SayStep(Strict):
    """How a step stands: done, skipped with a reason, or taken back (empty); `later`: with all that stand behind it. `at`: when, by the
    device that had no signal.
    """

    step: str = Field(min_length=1, max_length=60)
    standing: Literal["", "done", "passed"]
    words: str = Field("", max_length=400)
    at: AwareDatetime | None = None
    later: bool = False
    row_version: int = Field(0, ge=0, le=MOST_VERSIONS, description="of what was said before; 0 while nothing was")


def say_step(
    session: Session,
    writer: Writer,
    job: Job,
    key: str,
    standing: str,
    words: str,
    at: datetime,
    seen_version: int = 0,
    later: bool = False,
) -> int:
    """Keep how a step stands; its version. Raises Refusal out of order. The same said twice, by two devices, is kept once."""
    if job.finished_at or job.dropped_at:
        raise Refusal(422, "This job is ended: nothing of it changes any more.")
    steps, said = steps_of(session, job), store.steps(session, job.id)
    step = next((s for s in steps if s.key == key), None)
    if step is None:
        raise refused("step", "That step is not part of this job.")
    row = said[key][0] if key in said else None
    settled = settled_of(said)
    if row and row.state == standing and row.words == words:
        return row.row_version
    if standing == "passed" and not words:
        raise refused("words", "Say why it is skipped.")
    first = waits_for(steps, key, settled) if standing else ()
    if first:
        raise refused("step", f"First: {first[0].do}")
    over = held_up_by(steps, key, settled) if not standing else ()
    if over and not later:
        raise refused("step", f"{len(over)} later {'step goes' if len(over) == 1 else 'steps go'} back with it, the last: {over[-1].do}")
    for behind in reversed(over):
        row_behind = said[behind.key][0]
        values = {"state": "", "words": "", "at": at, "by": writer.person_id}
        update(session, writer, row_behind, row_behind.row_version, values, "took a step back")
    if job.began_at is None and standing:
        update(session, writer, job, job.row_version, {"began_at": at}, "began a job")
    if row:
        values = {"state": standing, "words": words, "at": at, "by": writer.person_id}
        update(session, writer, row, seen_version, values, "changed a step")
        return row.row_version
    insert(
        session,
        writer,
        JobStep(id=uuid.uuid5(job.id, key), job_id=job.id, step=key, state=standing, words=words, at=at, by=writer.person_id),
        "did a step",
    )
    return 1


class AddStep(Strict):
    """A step for this machine from now on, behind another one; or, with `take_out`, one of its own that it is to have no more."""

    after: str = Field("", max_length=60)
    do: str = Field("", max_length=200)
    take_out: str = Field("", max_length=60)
    state: State = Field("isolated", description="how the machine is for it: it gets the waits of that state")
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
    session.get_one(Machine, drive.machine_id, with_for_update=True)  # one at a time over all jobs of the machine
    held = store.own_steps(session, drive.machine_id, job.kind)
    if body.own_version != (held.version if held else 0):
        raise _changed_before(session, held)
    listed = list(held.steps) if held else []
    steps = steps_of(session, job)
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
        added = OwnStep(f"own-{uuid.uuid4().hex[:12]}", body.after, do, why, body.state)
        listed.append(asdict(added))
        kept = list(waiting(with_own(steps, [added])))
    version = (held.version if held else 0) + 1
    row = MachineSteps(id=uuid.uuid4(), machine_id=drive.machine_id, kind=job.kind, version=version, steps=listed, made_by=writer.person_id)
    insert(session, writer, row, "changed a machine's own steps")
    values = {"steps": [as_kept(s) for s in kept], "own_version": version}
    update(session, writer, job, job.row_version, values, "changed the steps of a job")


def _changed_before(session: Session, held: MachineSteps | None) -> Refusal:
    who = session.get_one(Person, held.made_by).name if held else "Somebody"
    sentence = f"{who} changed this machine's own steps meanwhile: look at them, then add or take out yours."
    return Refusal(409, sentence, current_version=held.version if held else 0)


class DropJob(Strict):
    """Drop a job that is not going to be done, with why."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    why: str = Field(min_length=1, max_length=400)
