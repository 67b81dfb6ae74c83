"""The log of a drive: everything that happened to it."""

import uuid
from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session, col, select

from tuyere.store.dues_tables import DueAnswer, Happened, HourReading
from tuyere.store.inspect_tables import Round
from tuyere.store.job_tables import Job, JobStep
from tuyere.store.people_tables import Person
from tuyere.store.shop_tables import CounterSlip
from tuyere.store.tables import BeltLife, Configuration, Due, Finding, Reading, ReadingValue, Stage, TemporaryFix, Trial


@dataclass(frozen=True)
class LogEntry:
    """One line of a drive's log: a reading with its values, a configuration, and so on. `by`: who closed or took up a finding;
    `noted`: with the steps of a job.
    """

    at: datetime
    who: str
    reading: Reading | None = None
    values: tuple[ReadingValue, ...] = ()
    configuration: Configuration | None = None
    stage: Stage | None = None
    finding: Finding | None = None
    slip: CounterSlip | None = None
    fix: TemporaryFix | None = None
    life: BeltLife | None = None
    trial: Trial | None = None
    happened: Happened | None = None
    answer: DueAnswer | None = None
    promise: Due | None = None
    hours: HourReading | None = None
    round: Round | None = None
    job: Job | None = None
    noted: tuple[str, ...] = ()
    by: str = ""


def log(session: Session, drive_id: uuid.UUID) -> list[LogEntry]:
    """Everything that happened to a drive, newest first."""
    values: dict[uuid.UUID, list[ReadingValue]] = {}
    for value in session.exec(
        select(ReadingValue).join(Reading).where(Reading.drive_id == drive_id).order_by(ReadingValue.quantity, col(ReadingValue.position))
    ):
        values.setdefault(value.reading_id, []).append(value)
    entries = [
        LogEntry(reading.taken_at, name, reading=reading, values=tuple(values.get(reading.id, ())))
        for reading, name in session.exec(
            select(Reading, Person.name).join(Person, col(Person.id) == col(Reading.taken_by)).where(Reading.drive_id == drive_id)
        )
    ]
    for configuration, stage, name in session.exec(
        select(Configuration, Stage, Person.name)
        .join(Stage, (col(Stage.configuration_id) == col(Configuration.id)) & (col(Stage.position) == 1))
        .join(Person, col(Person.id) == col(Configuration.made_by))
        .where(Configuration.drive_id == drive_id)
    ):
        entries.append(LogEntry(configuration.made_at, name, configuration=configuration, stage=stage))
    names = dict(session.exec(select(Person.id, Person.name)).all())
    for finding in session.exec(select(Finding).where(Finding.drive_id == drive_id)):
        by = finding.closed_by or finding.taken_up_by
        entries.append(LogEntry(finding.found_at, names[finding.found_by], finding=finding, by=names[by] if by else ""))
    entries += _found_out(session, drive_id, names)
    entries += _done(session, drive_id, names)
    return sorted(entries, key=lambda e: e.at, reverse=True)


def _found_out(session: Session, drive_id: uuid.UUID, names: dict[uuid.UUID, str]) -> list[LogEntry]:
    """Counter slips, get-home fixes and lives of sets."""
    found: list[LogEntry] = []
    for slip in session.exec(select(CounterSlip).where(CounterSlip.drive_id == drive_id)):
        found.append(LogEntry(slip.made_at, names[slip.made_by], slip=slip))
    for fix in session.exec(select(TemporaryFix).where(TemporaryFix.drive_id == drive_id)):
        found.append(LogEntry(fix.made_at, names[fix.made_by], fix=fix))
    for life in session.exec(select(BeltLife).where(BeltLife.drive_id == drive_id)):
        found.append(LogEntry(life.made_at, names[life.made_by], life=life))
    for trial in session.exec(select(Trial).where(Trial.drive_id == drive_id)):
        found.append(LogEntry(trial.made_at, names[trial.made_by], trial=trial))
    return found


def _done(session: Session, drive_id: uuid.UUID, names: dict[uuid.UUID, str]) -> list[LogEntry]:
    """What was fitted or done, what was said of dues, and the hour meter."""
    found = [LogEntry(h.at, names[h.made_by], happened=h) for h in session.exec(select(Happened).where(Happened.drive_id == drive_id))]
    found += [LogEntry(a.at, names[a.made_by], answer=a) for a in session.exec(select(DueAnswer).where(DueAnswer.drive_id == drive_id))]
    found += [LogEntry(h.at, names[h.taken_by], hours=h) for h in session.exec(select(HourReading).where(HourReading.drive_id == drive_id))]
    ended = select(Due).where(Due.drive_id == drive_id, col(Due.done_at).is_not(None), col(Due.done_by).is_not(None))
    found += [LogEntry(d.done_at, names[d.done_by], promise=d) for d in session.exec(ended) if d.done_at and d.done_by]
    rounds = select(Round).where(Round.drive_id == drive_id, col(Round.finished_at).is_not(None))
    found += [LogEntry(r.finished_at, names[r.finished_by], round=r) for r in session.exec(rounds) if r.finished_at and r.finished_by]
    ended_jobs = select(Job).where(Job.drive_id == drive_id, col(Job.ended_by).is_not(None))
    jobs = list(session.exec(ended_jobs))
    wanted = select(JobStep.job_id, JobStep.words).where(
        col(JobStep.job_id).in_([j.id for j in jobs]), JobStep.words != "", JobStep.state != ""
    )
    noted = list(session.exec(wanted.order_by(col(JobStep.at)))) if jobs else []
    for j in jobs:
        if j.ended_by:
            words = tuple(w for job_id, w in noted if job_id == j.id)
            found.append(LogEntry(j.finished_at or j.dropped_at or j.planned_at, names[j.ended_by], job=j, noted=words))
    return found
