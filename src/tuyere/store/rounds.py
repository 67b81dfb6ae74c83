"""Rounds of a drive and their answers."""

import uuid
from datetime import datetime

from sqlmodel import Session, col, select

from tuyere.store.inspect_tables import Round, RoundAnswer
from tuyere.store.people import SiteId
from tuyere.store.people_tables import Person
from tuyere.store.tables import Drive, Machine, Reading


def site_of_round(round_id: uuid.UUID) -> SiteId:
    """The site of a round's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Round, col(Round.drive_id) == col(Drive.id)).where(Round.id == round_id)


def open_round(session: Session, drive_id: uuid.UUID) -> Round | None:
    """The round that is under way at a drive, the newest where two began at once."""
    wanted = select(Round).where(Round.drive_id == drive_id, col(Round.finished_at).is_(None))
    return session.exec(wanted.order_by(col(Round.began_at).desc()).limit(1)).first()


def finished(session: Session, drive_id: uuid.UUID, most: int = 60) -> list[tuple[Round, str]]:
    """Rounds that were finished, newest first, and who finished each."""
    wanted = select(Round, Person.name).join(Person, col(Person.id) == col(Round.finished_by))
    return list(session.exec(wanted.where(Round.drive_id == drive_id).order_by(col(Round.finished_at).desc()).limit(most)).all())


def answers(session: Session, round_id: uuid.UUID) -> dict[str, tuple[RoundAnswer, str]]:
    """What was found at each item of a round, and by whom."""
    wanted = select(RoundAnswer, Person.name).join(Person, col(Person.id) == col(RoundAnswer.by))
    return {a.item: (a, name) for a, name in session.exec(wanted.where(RoundAnswer.round_id == round_id))}


def measured_since(session: Session, drive_id: uuid.UUID, since: datetime, until: datetime | None) -> list[Reading]:
    """The readings kept at a drive while a round was under way, oldest first."""
    wanted = select(Reading).where(Reading.drive_id == drive_id, Reading.taken_at >= since, col(Reading.struck_at).is_(None))
    if until is not None:
        wanted = wanted.where(Reading.taken_at <= until)
    return list(session.exec(wanted.order_by(col(Reading.taken_at))))
