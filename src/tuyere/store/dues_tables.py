"""The tables of what happened at a drive, its running hours, and what was said of its dues; and a site's own rules."""

import uuid
from datetime import date, datetime

from sqlalchemy import CheckConstraint, DateTime, Index, UniqueConstraint
from sqlmodel import Field, SQLModel

from tuyere.store.columns import not_blank, one_of, version, when

EVENTS = (
    "new set",
    "new wheel",
    "re-tension",
    "first start",
    "oil change",
    "get-home fix",
    "get-home off",
    "proposal fitted",
    "chain oiled",
)
ANSWERS = ("done", "moved", "not needed", "taken back")


class Happened(SQLModel, table=True):
    """Something done at a drive that starts a count: what went on, what came off and why. Struck out, never deleted.

    `interval_h`: of the oil, where it was said.
    """

    __table_args__ = (
        one_of("kind", *EVENTS),
        CheckConstraint("interval_h > 0", name="interval_positive"),
        Index("happened_at_drive", "drive_id", "at"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    kind: str
    at: datetime = when()
    what: str = ""
    came_off: str = ""
    why_off: str = ""
    interval_h: float | None = None
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    struck_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    row_version: int = version()


class HourReading(SQLModel, table=True):
    """What a drive's hour meter showed. Struck out, never deleted."""

    __tablename__ = "hour_reading"
    __table_args__ = (CheckConstraint("hours_h >= 0", name="hours_not_negative"), Index("hours_of_drive", "drive_id", "at"))
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    at: datetime = when()
    hours_h: float
    taken_by: uuid.UUID = Field(foreign_key="person.id")
    struck_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    row_version: int = version()


class LaidUp(SQLModel, table=True):
    """A machine at rest for the season; without an end it still is."""

    __tablename__ = "laid_up"
    __table_args__ = (CheckConstraint("ended_at > began_at", name="ends_after"),)
    id: uuid.UUID = Field(primary_key=True)
    machine_id: uuid.UUID = Field(foreign_key="machine.id", index=True)
    began_at: datetime = when()
    ended_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    made_by: uuid.UUID = Field(foreign_key="person.id")
    row_version: int = version()


class DueAnswer(SQLModel, table=True):
    """What was said of a due that a rule raised: done, moved to another day, not needed, or the last word taken back. Never changed."""

    __tablename__ = "due_answer"
    __table_args__ = (
        one_of("answer", *ANSWERS),
        not_blank("rule"),
        CheckConstraint("(to_on IS NOT NULL) = (answer = 'moved')", name="moved_to"),
        Index("answers_of_drive", "drive_id", "at"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    rule: str
    answer: str
    at: datetime = when()
    to_on: date | None = None
    why: str = ""
    made_by: uuid.UUID = Field(foreign_key="person.id")


class DueRule(SQLModel, table=True):
    """A site's own rule, in place of the standard one of that key or beside them; one that is not `used` raises nothing."""

    __tablename__ = "due_rule"
    __table_args__ = (
        UniqueConstraint("site_id", "key"),
        not_blank("key"),
        not_blank("event"),
        not_blank("what"),
        CheckConstraint("after_hours > 0 AND after_days >= 0 AND after_months > 0", name="intervals_positive"),
    )
    id: uuid.UUID = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", index=True)
    key: str
    event: str
    what: str
    after_hours: float | None = None
    after_days: float | None = None
    after_months: int | None = None
    repeats: bool = False
    kinds: str = ""
    page: str = "tension"
    used: bool = True
    row_version: int = version()
