"""Jobs of a drive and of a site, what was done of them, and the steps that people added on a machine."""

import uuid
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import func
from sqlalchemy.orm import defer
from sqlmodel import Session, col, select

from tuyere.store.job_tables import Job, JobStep, MachineSteps
from tuyere.store.people import SiteId
from tuyere.store.people_tables import Person
from tuyere.store.rounds import measured_since
from tuyere.store.tables import Drive, Machine, Trial

MOST_BEFORE = 20


@dataclass(frozen=True)
class Taken:
    """Something measured at a drive: its kind, when, and what it came to in words."""

    kind: str
    at: datetime
    headline: str


def taken_since(session: Session, drive_id: uuid.UUID, since: datetime, until: datetime | None) -> list[Taken]:
    """What was measured at a drive while a job was under way, oldest first; a trial before and after one change is a reading of speed."""
    found = [Taken(r.kind, r.taken_at, r.summary.get("headline", "")) for r in measured_since(session, drive_id, since, until)]
    trials = session.exec(select(Trial).where(Trial.drive_id == drive_id, Trial.made_at >= since))
    found += [Taken("shaft speed", t.made_at, t.summary.get("headline", "")) for t in trials if not until or t.made_at <= until]
    return sorted(found, key=lambda t: t.at)


def site_of_job(job_id: uuid.UUID) -> SiteId:
    """The site of a job's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Job, col(Job.drive_id) == col(Drive.id)).where(Job.id == job_id)


def open_at_drive(session: Session, drive_id: uuid.UUID) -> list[Job]:
    """Waiting or under way, the newest first."""
    wanted = select(Job).where(Job.drive_id == drive_id, col(Job.finished_at).is_(None), col(Job.dropped_at).is_(None))
    return list(session.exec(wanted.order_by(col(Job.planned_at).desc())))


def open_at_site(session: Session, site_id: uuid.UUID, most: int) -> tuple[list[tuple[Job, uuid.UUID, str, str]], int]:
    """Jobs of a site that are waiting or under way, each with its drive, machine and place; what is under way first, then the oldest.

    And how many there are in all.
    """
    here = (Machine.site_id == site_id, col(Job.finished_at).is_(None), col(Job.dropped_at).is_(None))
    wanted = select(Job, Drive.id, Machine.name, Machine.place).join(Drive, col(Drive.id) == col(Job.drive_id)).join(Machine).where(*here)
    wanted = wanted.options(defer(col(Job.numbers)))  # type: ignore[arg-type]
    found = list(session.exec(wanted.order_by(col(Job.began_at).is_(None), col(Job.planned_at)).limit(most)).all())
    many = select(func.count()).select_from(Job).join(Drive, col(Drive.id) == col(Job.drive_id)).join(Machine).where(*here)
    return found, session.exec(many).one()


def ended(session: Session, drive_id: uuid.UUID) -> list[tuple[Job, str]]:
    """Signed off, the newest first, and by whom."""
    wanted = select(Job, Person.name).join(Person, col(Person.id) == col(Job.ended_by))
    done = wanted.where(Job.drive_id == drive_id, col(Job.finished_at).is_not(None))
    return list(session.exec(done.order_by(col(Job.finished_at).desc()).limit(MOST_BEFORE)).all())


def before_at_machine(session: Session, machine_id: uuid.UUID, kind: str, before: datetime, most: int = 5) -> list[tuple[Job, str]]:
    """The jobs of a kind signed off on a machine before a time, the newest first, and by whom."""
    wanted = select(Job, Person.name).join(Person, col(Person.id) == col(Job.ended_by)).join(Drive, col(Drive.id) == col(Job.drive_id))
    done = wanted.where(Drive.machine_id == machine_id, Job.kind == kind, col(Job.finished_at) < before)
    return list(session.exec(done.order_by(col(Job.finished_at).desc()).limit(most)).all())


def steps(session: Session, job_id: uuid.UUID) -> dict[str, tuple[JobStep, str]]:
    """What was said of each step of a job, and by whom."""
    wanted = select(JobStep, Person.name).join(Person, col(Person.id) == col(JobStep.by))
    return {s.step: (s, name) for s, name in session.exec(wanted.where(JobStep.job_id == job_id))}


def steps_of_many(session: Session, jobs: Sequence[uuid.UUID]) -> dict[uuid.UUID, dict[str, tuple[JobStep, str]]]:
    """What was said of each step of those jobs, and by whom."""
    found: dict[uuid.UUID, dict[str, tuple[JobStep, str]]] = defaultdict(dict)
    wanted = select(JobStep, Person.name).join(Person, col(Person.id) == col(JobStep.by)).where(col(JobStep.job_id).in_(jobs))
    for s, name in session.exec(wanted):
        found[s.job_id][s.step] = (s, name)
    return found


def own_steps(session: Session, machine_id: uuid.UUID, kind: str) -> MachineSteps | None:
    """The newest version of what people added to a kind of job on a machine."""
    wanted = select(MachineSteps).where(MachineSteps.machine_id == machine_id, MachineSteps.kind == kind)
    return session.exec(wanted.order_by(col(MachineSteps.version).desc()).limit(1)).first()
