"""What an inspection leaves: photographs, and rounds with their answers."""

import uuid
from datetime import datetime
from typing import Any

from sqlalchemy import CheckConstraint, Column, DateTime, Index, LargeBinary, UniqueConstraint
from sqlalchemy.dialects.postgresql import JSONB
from sqlmodel import Field, SQLModel

from tuyere.store.columns import one_of, version, when

LARGEST_PHOTO = 2 * 1024 * 1024  # bytes as kept, some times what a kept picture takes


class Photo(SQLModel, table=True):
    """A photograph of a drive, of a finding or of a step of a job where it has one. Put away, never deleted.

    `turned`: clockwise by so many degrees to stand right; `arrows`: as shares of the picture before it is turned.
    """

    __table_args__ = (
        CheckConstraint("turned IN (0, 90, 180, 270)", name="turned_by_quarters"),
        CheckConstraint(f"octet_length(content) <= {LARGEST_PHOTO}", name="not_too_large"),
        Index("photo_of_drive", "drive_id", "taken_at"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    finding_id: uuid.UUID | None = Field(default=None, foreign_key="finding.id", index=True)
    job_id: uuid.UUID | None = Field(default=None, foreign_key="job.id", index=True)
    step: str = Field(default="", sa_column_kwargs={"server_default": ""})
    taken_at: datetime = when()
    taken_by: uuid.UUID = Field(foreign_key="person.id")
    note: str = ""
    width: int
    height: int
    turned: int = 0
    arrows: list[Any] = Field(default_factory=list, sa_column=Column(JSONB, nullable=False, server_default="[]"))
    content: bytes = Field(sa_column=Column(LargeBinary, nullable=False))
    thumb: bytes = Field(sa_column=Column(LargeBinary, nullable=False))
    put_away_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    row_version: int = version()


class Round(SQLModel, table=True):
    """A walk round a drive with a checklist: open until it is finished, resumed on any device.

    `items`: the keys of what it asks, as it began; `said`: how it ended, counted.
    """

    __tablename__ = "inspection_round"
    __table_args__ = (one_of("depth", "quick", "usual", "whole"), Index("round_of_drive", "drive_id", "began_at"))
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    depth: str
    items: list[Any] = Field(default_factory=list, sa_column=Column(JSONB, nullable=False, server_default="[]"))
    began_at: datetime = when()
    began_by: uuid.UUID = Field(foreign_key="person.id")
    finished_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    finished_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    note: str = ""
    said: str = Field(default="", sa_column_kwargs={"server_default": ""})
    row_version: int = version()


class RoundAnswer(SQLModel, table=True):
    """What was found at one item of a round. `finding_id`: what it raised where it is not OK."""

    __tablename__ = "round_answer"
    __table_args__ = (
        UniqueConstraint("round_id", "item"),
        one_of("found", "ok", "not ok", "cannot"),
    )
    id: uuid.UUID = Field(primary_key=True)
    round_id: uuid.UUID = Field(foreign_key="inspection_round.id")
    item: str
    found: str
    words: str = ""
    finding_id: uuid.UUID | None = Field(default=None, foreign_key="finding.id")
    at: datetime = when()
    by: uuid.UUID = Field(foreign_key="person.id")
    row_version: int = version()
