"""The log of a drive: everything that happened to it."""

import uuid
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from sqlalchemy import func
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

    @property
    def id(self) -> uuid.UUID:
        """Of what it tells."""
        rows = (self.reading, self.configuration, self.finding, self.slip, self.fix, self.life, self.trial, self.happened)
        row = next(r for r in (*rows, self.answer, self.promise, self.hours, self.round, self.job) if r is not None)
        return row.id

    @property
    def place(self) -> tuple[datetime, str]:
        """Where it stands among all: by its time, and of one time by its id."""
        return self.at, str(self.id)


READINGS = ("belt tension", "shaft speed", "alignment", "wear")
_SPARE = 40  # lines of one moment that a page may end among


@dataclass(frozen=True)
class Wanted:
    """Which lines: of those kinds (none: all), before a place, the newest so many (None: all)."""

    kinds: frozenset[str] = frozenset()
    before: tuple[datetime, str] | None = None
    most: int | None = None

    def of(self, *kinds: str) -> bool:
        """Whether any of those kinds is wanted."""
        return not self.kinds or bool(self.kinds & set(kinds))

    def newest(self, session: Session, found: Any, at: Any) -> Any:
        """The rows of a statement that may be on the page; `at`: its column of time."""
        if self.before:
            found = found.where(at <= self.before[0])
        found = found.order_by(at.desc())
        return session.exec(found.limit(self.most + _SPARE) if self.most else found)


EVERYTHING = Wanted()


def log(session: Session, drive_id: uuid.UUID, wanted: Wanted = EVERYTHING) -> list[LogEntry]:
    """What happened to a drive, newest first."""
    names = dict(session.exec(select(Person.id, Person.name)).all())
    entries: list[LogEntry] = []
    if wanted.of(*READINGS):
        read = select(Reading).where(Reading.drive_id == drive_id)
        if wanted.kinds:
            read = read.where(col(Reading.kind).in_(wanted.kinds))
        entries += [LogEntry(r.taken_at, names[r.taken_by], reading=r) for r in wanted.newest(session, read, col(Reading.taken_at))]
    if wanted.of("survey"):
        fitted = select(Configuration, Stage).join(
            Stage, (col(Stage.configuration_id) == col(Configuration.id)) & (col(Stage.position) == 1)
        )
        for c, stage in wanted.newest(session, fitted.where(Configuration.drive_id == drive_id), col(Configuration.made_at)):
            entries.append(LogEntry(c.made_at, names[c.made_by], configuration=c, stage=stage))
    if wanted.of("finding"):
        for f in wanted.newest(session, select(Finding).where(Finding.drive_id == drive_id), col(Finding.found_at)):
            by = f.closed_by or f.taken_up_by
            entries.append(LogEntry(f.found_at, names[f.found_by], finding=f, by=names[by] if by else ""))
    entries += _found_out(session, drive_id, names, wanted)
    entries += _done(session, drive_id, names, wanted)
    ordered = sorted((e for e in entries if not wanted.before or e.place < wanted.before), key=lambda e: e.place, reverse=True)
    return _with_more(session, ordered[: wanted.most] if wanted.most else ordered)


def _with_more(session: Session, entries: Sequence[LogEntry]) -> list[LogEntry]:
    """The values of readings, and what was noted at the steps of jobs."""
    values: dict[uuid.UUID, list[ReadingValue]] = defaultdict(list)
    read = [e.reading.id for e in entries if e.reading]
    kept = select(ReadingValue).where(col(ReadingValue.reading_id).in_(read))
    for value in session.exec(kept.order_by(col(ReadingValue.quantity), col(ReadingValue.position))) if read else ():
        values[value.reading_id].append(value)
    noted: dict[uuid.UUID, list[str]] = defaultdict(list)
    jobs = [e.job.id for e in entries if e.job]
    said = select(JobStep.job_id, JobStep.words).where(col(JobStep.job_id).in_(jobs), JobStep.words != "", JobStep.state != "")
    for job_id, words in session.exec(said.order_by(col(JobStep.at))) if jobs else ():
        noted[job_id].append(words)
    return [
        replace(e, values=tuple(values[e.reading.id])) if e.reading else replace(e, noted=tuple(noted[e.job.id])) if e.job else e
        for e in entries
    ]


def _found_out(session: Session, drive_id: uuid.UUID, names: dict[uuid.UUID, str], wanted: Wanted) -> list[LogEntry]:
    """Counter slips, get-home fixes, lives of sets, trials."""
    found: list[LogEntry] = []
    for kind, table, place in (
        ("counter slip", CounterSlip, "slip"),
        ("get-home fix", TemporaryFix, "fix"),
        ("set ended", BeltLife, "life"),
        ("trial", Trial, "trial"),
    ):
        if wanted.of(kind):
            rows = wanted.newest(session, select(table).where(table.drive_id == drive_id), table.made_at)
            found += [LogEntry(r.made_at, names[r.made_by], **{place: r}) for r in rows]
    return found


def _done(session: Session, drive_id: uuid.UUID, names: dict[uuid.UUID, str], wanted: Wanted) -> list[LogEntry]:
    """What was fitted or done, what was said of dues, the hour meter, rounds and jobs."""
    found: list[LogEntry] = []

    def newest(statement: Any, at: Any) -> Any:
        return wanted.newest(session, statement, at)

    if wanted.of("done"):
        rows = newest(select(Happened).where(Happened.drive_id == drive_id), col(Happened.at))
        found += [LogEntry(h.at, names[h.made_by], happened=h) for h in rows]
    if wanted.of("due"):
        rows = newest(select(DueAnswer).where(DueAnswer.drive_id == drive_id), col(DueAnswer.at))
        found += [LogEntry(a.at, names[a.made_by], answer=a) for a in rows]
        ended = select(Due).where(Due.drive_id == drive_id, col(Due.done_at).is_not(None), col(Due.done_by).is_not(None))
        found += [LogEntry(d.done_at, names[d.done_by], promise=d) for d in newest(ended, col(Due.done_at))]
    if wanted.of("hours"):
        rows = newest(select(HourReading).where(HourReading.drive_id == drive_id), col(HourReading.at))
        found += [LogEntry(h.at, names[h.taken_by], hours=h) for h in rows]
    if wanted.of("round"):
        over = select(Round).where(Round.drive_id == drive_id, col(Round.finished_at).is_not(None), col(Round.finished_by).is_not(None))
        found += [LogEntry(r.finished_at, names[r.finished_by], round=r) for r in newest(over, col(Round.finished_at))]
    if wanted.of("job"):
        at = func.coalesce(col(Job.finished_at), col(Job.dropped_at), col(Job.planned_at))
        over_jobs = select(Job).where(Job.drive_id == drive_id, col(Job.ended_by).is_not(None))
        found += [LogEntry(j.finished_at or j.dropped_at or j.planned_at, names[j.ended_by], job=j) for j in newest(over_jobs, at)]
    return found
