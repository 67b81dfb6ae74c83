"""What the lists of drives need, kept by the write that changes it: one row a drive, and one for each open due."""

import uuid
from datetime import date, datetime
from typing import Any

from sqlalchemy import CheckConstraint, Column, DateTime, Index, text
from sqlalchemy.dialects.postgresql import JSONB
from sqlmodel import Field, SQLModel


class DriveState(SQLModel, table=True):
    """How a drive stands: worked out from its record, and again by whoever rebuilds it; never the only place of anything.

    `said`, `why`, `page`: whether it wants attention, its dues apart (0 stop, 2 watch, 4 remark, 5 quiet: places in the order of levels).
    `due_on`, `due_what`, `due_page`: the first due to fall that is not resting. `stations`: what its stations say that weighs, as
    worked out for `solved_for`. `words`: what it is found by. `stale`: something that all drives go by has changed since.
    """

    __tablename__ = "drive_state"
    __table_args__ = (
        CheckConstraint("said IN (0, 2, 4, 5)", name="said_known"),
        Index("ix_drive_state_site", "site_id", "retired"),
        Index("ix_drive_state_words", "words", postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"}),
        Index("ix_drive_state_stale", "site_id", postgresql_where=text("stale")),
    )
    drive_id: uuid.UUID = Field(foreign_key="drive.id", primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id")
    retired: bool = False
    said: int = 5
    why: str = ""
    page: str = ""
    due_on: date | None = None
    due_what: str = ""
    due_page: str = ""
    tension_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    tension_tone: str = ""
    tension_says: str = ""
    seen_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    area: str = ""
    belts: str = ""
    words: str = ""
    sketch: dict[str, Any] | None = Field(default=None, sa_column=Column(JSONB(none_as_null=True), nullable=True))
    stations: list[Any] = Field(default_factory=list, sa_column=Column(JSONB, nullable=False, server_default="[]"))
    solved_for: str = ""
    stale: bool = False


class DriveDue(SQLModel, table=True):
    """An open due of a drive. `key`: the id of a promise, or the rule that raises it; `due_on`: null while it cannot be told."""

    __tablename__ = "drive_due"
    __table_args__ = (Index("ix_drive_due_site", "site_id", "due_on", postgresql_where=text("NOT resting")),)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", primary_key=True)
    key: str = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id")
    promised: bool
    what: str
    kind: str
    due_on: date | None = None
    said: str
    because: str
    page: str
    resting: bool
    row_version: int
