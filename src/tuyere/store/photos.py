"""Photographs of a drive: listed without their content, which is large."""

import uuid
from datetime import datetime
from typing import Any, NamedTuple

from sqlmodel import Session, col, select

from tuyere.store.inspect_tables import Photo
from tuyere.store.people import SiteId
from tuyere.store.people_tables import Person
from tuyere.store.tables import Drive, Machine

MOST_SHOWN = 200


class Listed(NamedTuple):
    """A photograph without its content."""

    id: uuid.UUID
    finding_id: uuid.UUID | None
    job_id: uuid.UUID | None
    step: str
    taken_at: datetime
    who: str
    note: str
    width: int
    height: int
    turned: int
    arrows: list[Any]
    row_version: int


def site_of_photo(photo_id: uuid.UUID) -> SiteId:
    """The site of a photograph's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Photo, col(Photo.drive_id) == col(Drive.id)).where(Photo.id == photo_id)


def photos(session: Session, drive_id: uuid.UUID) -> list[Listed]:
    """Those of a drive that are not put away, newest first."""
    columns = (
        Photo.id,
        Photo.finding_id,
        Photo.job_id,
        Photo.step,
        Photo.taken_at,
        Person.name,
        Photo.note,
        Photo.width,
        Photo.height,
        Photo.turned,
        Photo.arrows,
        Photo.row_version,
    )
    wanted = select(*columns).join(Person, col(Person.id) == col(Photo.taken_by))  # type: ignore[call-overload]
    kept = wanted.where(Photo.drive_id == drive_id, col(Photo.put_away_at).is_(None)).order_by(col(Photo.taken_at).desc())
    return [Listed(*row) for row in session.exec(kept.limit(MOST_SHOWN))]


def content_of(session: Session, photo_id: uuid.UUID, small: bool) -> bytes:
    """The picture itself, or the small one."""
    return session.exec(select(Photo.thumb if small else Photo.content).where(Photo.id == photo_id)).one()
