"""Jobs being worked and done, their steps, and the steps that people added on a machine."""

import uuid
from datetime import datetime
from typing import Any

from sqlalchemy import CheckConstraint, Column, DateTime, Index, UniqueConstraint
from sqlalchemy.dialects.postgresql import JSONB
from sqlmodel import Field, SQLModel

from tuyere.store.columns import json, one_of, version, when


def _listed() -> Any:
    return Field(default_factory=list, sa_column=Column(JSONB, nullable=False, server_default="[]"))


class Job(SQLModel, table=True):
    """A procedure at a drive: waiting until its first step, then under way until it is signed off or dropped.

    `steps`: as composed when it was made, so that a newer library changes nothing under a hand; `numbers`: as they stood at the sign-off;
    `asked`: what was answered before it; `machine`: of the machine; `unread`: steps that ask for a reading and got none; `raised`: the dues
    of its sign-off; `due`: the rule or promise that it came from; `own_version`: of the machine's own steps.
    """

    __table_args__ = (
        Index("job_of_drive", "drive_id", "planned_at"),
        CheckConstraint("finished_at IS NULL OR dropped_at IS NULL", name="ended_once"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    kind: str
    title: str
    due: str = ""
    due_what: str = ""
    asked: dict[str, Any] = json()
    steps: list[Any] = _listed()
    numbers: dict[str, Any] = json()
    own_version: int = 0
    planned_at: datetime = when()
    planned_by: uuid.UUID = Field(foreign_key="person.id")
    began_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    finished_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    dropped_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    ended_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    note: str = ""
    safety_note: str = ""
    said: str = ""
    machine: dict[str, Any] = json()
    unread: list[Any] = _listed()
    raised: list[Any] = _listed()
    row_version: int = version()


class JobStep(SQLModel, table=True):
    """What was done of one step of a job, when by whoever held the device; `words`: a note, or why it was skipped."""

    __tablename__ = "job_step"
    __table_args__ = (UniqueConstraint("job_id", "step"), one_of("state", "", "done", "passed"))
    id: uuid.UUID = Field(primary_key=True)
    job_id: uuid.UUID = Field(foreign_key="job.id")
    step: str
    state: str
    words: str = ""
    at: datetime = when()
    by: uuid.UUID = Field(foreign_key="person.id")
    row_version: int = version()


class MachineSteps(SQLModel, table=True):
    """The steps that people added to a kind of job on a machine; each change is a version, the newest holds."""

    __tablename__ = "machine_steps"
    __table_args__ = (UniqueConstraint("machine_id", "kind", "version"),)
    id: uuid.UUID = Field(primary_key=True)
    machine_id: uuid.UUID = Field(foreign_key="machine.id")
    kind: str
    version: int
    steps: list[Any] = _listed()
    made_at: datetime = when()
    made_by: uuid.UUID = Field(foreign_key="person.id")
