"""The tables. What is fitted (configuration, stage, wheel) is never changed, only followed by a newer one.

Quantities are SI with the unit in the column's name; `typed` keeps what people wrote, per field.
"""

import uuid
from datetime import date, datetime
from typing import Any

from sqlalchemy import CheckConstraint, Column, DateTime, Index, SmallInteger, UniqueConstraint, text
from sqlmodel import Field, SQLModel

from tuyere.store.clock import now
from tuyere.store.columns import json, not_blank, one_of, version, when


class PulseRow(SQLModel, table=True):
    """One row, written anew whenever the server is asked whether it keeps what is written."""

    __tablename__ = "pulse"
    id: int = Field(sa_column=Column(SmallInteger, primary_key=True, autoincrement=False))
    at: datetime = when()


class Machine(SQLModel, table=True):
    """A machine at a site: where it stands and what it is. `traits`: what was answered of it before a job, by question."""

    __table_args__ = (not_blank("name"), UniqueConstraint("site_id", "name"))
    id: uuid.UUID = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", index=True)
    name: str
    kind: str = ""
    place: str = ""
    traits: dict[str, Any] = json()
    row_version: int = version()


class Drive(SQLModel, table=True):
    """A drive of a machine. The design point is what it is meant to have (SI; `typed` as written). Put away, not deleted."""

    __table_args__ = (
        not_blank("name"),
        UniqueConstraint("machine_id", "name"),
        not_blank("family"),  # which kinds there are, the registry says
        CheckConstraint("design_speed_rad_per_s > 0", name="design_speed_positive"),
        CheckConstraint("design_airflow_m3_per_s > 0", name="design_airflow_positive"),
        CheckConstraint("design_pressure_pa > 0", name="design_pressure_positive"),
        CheckConstraint("design_amps_a > 0", name="design_amps_positive"),
        CheckConstraint("design_turns >= 0", name="design_turns_not_negative"),
    )
    id: uuid.UUID = Field(primary_key=True)
    machine_id: uuid.UUID = Field(foreign_key="machine.id", index=True)
    name: str
    family: str
    part_number: str = ""
    note: str = ""
    design_speed_rad_per_s: float | None = None
    design_airflow_m3_per_s: float | None = None
    design_pressure_pa: float | None = None
    design_amps_a: float | None = None
    design_turns: float | None = None
    retired_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    typed: dict[str, Any] = json()
    row_version: int = version()


class Configuration(SQLModel, table=True):
    """What is (or was, or is proposed to be) fitted to a drive. Never overwritten."""

    __table_args__ = (
        UniqueConstraint("drive_id", "sequence"),
        one_of("standing", "as found", "as left", "corrected", "proposed"),
        CheckConstraint("sequence >= 1", name="sequence_from_one"),
        CheckConstraint("driver_power_w > 0", name="driver_power_positive"),
        CheckConstraint("driver_speed_rad_per_s > 0", name="driver_speed_positive"),
        CheckConstraint("hours_per_day > 0 AND hours_per_day <= 24", name="hours_in_a_day"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", index=True)
    sequence: int
    standing: str
    reason: str = ""
    driver_power_w: float | None = None
    driver_speed_rad_per_s: float | None = None
    driver_class: str = "normal"
    driven_class: str | None = None
    hours_per_day: float | None = None
    rotation: str = "clockwise"
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    typed: dict[str, Any] = json()


class Stage(SQLModel, table=True):
    """One belt set (or chain) of a configuration, with the wheels it runs on; a jackshaft makes two stages.

    A belt whose ends are clamped to a carriage has the carriage's place on its run: from the centre of the wheel at position
    `carriage_from` to the near clamp, and from clamp to clamp.
    """

    __table_args__ = (
        UniqueConstraint("configuration_id", "position"),
        CheckConstraint("position >= 1", name="position_from_one"),
        CheckConstraint("belt_count BETWEEN 1 AND 20", name="belt_count_sensible"),
        CheckConstraint("centre_distance_m > 0", name="centre_distance_positive"),
        CheckConstraint("travel_in_m >= 0 AND travel_out_m >= 0", name="travel_not_negative"),
        CheckConstraint("centre_line_deg >= 0 AND centre_line_deg < 360", name="centre_line_turn"),
        one_of("lay", "open", "crossed", "quarter-turn"),
        CheckConstraint("carriage_m >= 0 AND carriage_length_m >= 0", name="carriage_not_negative"),
    )
    id: uuid.UUID = Field(primary_key=True)
    configuration_id: uuid.UUID = Field(foreign_key="configuration.id", index=True)
    position: int
    section: str | None = None
    belt: str | None = None
    belt_count: int | None = None
    centre_distance_m: float | None = None
    travel_in_m: float | None = None
    travel_out_m: float | None = None
    centre_line_deg: float = 0
    lay: str = Field(default="open", sa_column_kwargs={"server_default": "open"})
    carriage_from: int | None = None
    carriage_m: float | None = None
    carriage_length_m: float | None = None


class Wheel(SQLModel, table=True):
    """A wheel of a stage, in the order the belt meets them; its centre (m, y up) where the drive has more than two.

    Wheels of one configuration with the same `shaft` sit on one shaft. `teeth`: of a toothed pulley or a sprocket.
    """

    __table_args__ = (
        UniqueConstraint("stage_id", "position"),
        one_of("role", "driver", "driven", "idler"),
        one_of("basis", "outside", "datum"),
        one_of("contact", "inside", "back"),
        one_of("face", "grooved", "flat"),
        CheckConstraint("diameter_m > 0", name="diameter_positive"),
        CheckConstraint("(x_m IS NULL) = (y_m IS NULL)", name="place_whole"),
        CheckConstraint("teeth >= 5", name="teeth_enough"),
    )
    id: uuid.UUID = Field(primary_key=True)
    stage_id: uuid.UUID = Field(foreign_key="stage.id", index=True)
    position: int
    role: str
    diameter_m: float | None = None
    basis: str = "outside"
    name: str = Field(default="", sa_column_kwargs={"server_default": ""})
    x_m: float | None = None
    y_m: float | None = None
    contact: str = Field(default="inside", sa_column_kwargs={"server_default": "inside"})
    face: str = Field(default="grooved", sa_column_kwargs={"server_default": "grooved"})
    shaft: int | None = None
    teeth: int | None = None
    power_w: float | None = None
    takes_up: bool = Field(default=False, sa_column_kwargs={"server_default": "false"})


class BeltKeeper(SQLModel, table=True):
    """A keeper or guide of a stage: where it stands (m, y up), the face the belt shows it, its gap and the manual's figures (m)."""

    __tablename__ = "belt_keeper"
    __table_args__ = (
        UniqueConstraint("stage_id", "position"),
        not_blank("name"),
        one_of("side", "inside", "back"),
        one_of("state", "in place", "worn off", "missing"),
        CheckConstraint("(x_m IS NULL) = (y_m IS NULL)", name="place_whole"),
        CheckConstraint("gap_m >= 0", name="gap_not_negative"),
    )
    id: uuid.UUID = Field(primary_key=True)
    stage_id: uuid.UUID = Field(foreign_key="stage.id", index=True)
    position: int
    name: str
    side: str
    state: str
    x_m: float | None = None
    y_m: float | None = None
    gap_m: float | None = None
    least_m: float | None = None
    most_m: float | None = None


class Reading(SQLModel, table=True):
    """Something somebody measured, at one time, in one state of the machine. Struck out, never deleted.

    `wheel`: of an alignment, the place in its stage of the one that moves, from 1; `standing`: before or after it was moved.
    """

    __table_args__ = (
        one_of("kind", "belt tension", "shaft speed", "alignment", "wear"),
        one_of("standing", "", "as found", "between", "as left"),
        one_of("machine_state", "isolated", "running, guard on"),
        one_of("engaged", "", "yes", "no"),
        CheckConstraint("hour_meter_h >= 0", name="hour_meter_not_negative"),
        Index("reading_of_drive", "drive_id", "taken_at"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    configuration_id: uuid.UUID | None = Field(default=None, foreign_key="configuration.id")
    stage_position: int = 1
    kind: str
    taken_at: datetime = when()
    taken_by: uuid.UUID = Field(foreign_key="person.id")
    machine_state: str
    method: str
    tool: str
    strand: str = ""
    wheel: int = Field(default=0, sa_column_kwargs={"server_default": "0"})
    standing: str = Field(default="", sa_column_kwargs={"server_default": ""})
    engaged: str = Field(default="", sa_column_kwargs={"server_default": ""})
    turned: int | None = None
    belt_state: str = ""
    hour_meter_h: float | None = None
    note: str = ""
    summary: dict[str, Any] = json()
    struck_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    struck_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    row_version: int = version()


class ReadingValue(SQLModel, table=True):
    """One value of a reading: what was typed, the SI value and its standard uncertainty."""

    __tablename__ = "reading_value"
    __table_args__ = (
        UniqueConstraint("reading_id", "quantity", "position"),
        CheckConstraint("std_si >= 0", name="std_not_negative"),
    )
    id: uuid.UUID = Field(primary_key=True)
    reading_id: uuid.UUID = Field(foreign_key="reading.id", index=True)
    quantity: str
    position: int = 1
    kind: str
    typed_text: str
    typed_unit: str
    origin: str
    value_si: float
    std_si: float


class Finding(SQLModel, table=True):
    """What somebody saw, or the core found; open, being done (`taken_up_at`), or closed, and may be opened again. Nothing is deleted.

    `subject`: the part of the survey or reading that raises and closes it; empty for a person's own, which has its `sign` and `words`.
    `told`: of a kept diagnosis its cause, the signs seen and not seen, and how checks came out; empty for any other.
    `closed_how`: by what; `closed_why`: in words.
    """

    __table_args__ = (
        not_blank("what"),
        one_of("weight", "watch", "stop"),
        one_of("closed_how", "", "said", "reading", "survey", "fitted", "job"),
        CheckConstraint("(closed_at IS NULL) = (closed_how = '')", name="closed_somehow"),
    )
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", index=True)
    what: str
    weight: str = "watch"
    subject: str = Field(default="", sa_column_kwargs={"server_default": ""})
    found_at: datetime = when()
    found_by: uuid.UUID = Field(foreign_key="person.id")
    sign: str = Field(default="", sa_column_kwargs={"server_default": ""})
    words: str = Field(default="", sa_column_kwargs={"server_default": ""})
    place: str = Field(default="", sa_column_kwargs={"server_default": ""})
    page: str = Field(default="", sa_column_kwargs={"server_default": ""})
    machine_state: str = Field(default="", sa_column_kwargs={"server_default": ""})
    told: dict[str, Any] = json()
    taken_up_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    taken_up_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    closed_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    closed_how: str = Field(default="", sa_column_kwargs={"server_default": ""})
    closed_why: str = Field(default="", sa_column_kwargs={"server_default": ""})
    closed_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    row_version: int = version()


class Due(SQLModel, table=True):
    """A promise to look again on a day; open until it is done or not needed. `page`: where it is done, else the kind says.

    `why`: it was moved, or is not needed.
    """

    __table_args__ = (not_blank("what"), one_of("kind", "look again", "get-home fix"), one_of("answer", "", "done", "moved", "not needed"))
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", index=True)
    what: str
    kind: str = Field(default="look again", sa_column_kwargs={"server_default": "look again"})
    due_on: date
    page: str = Field(default="", sa_column_kwargs={"server_default": ""})
    answer: str = Field(default="", sa_column_kwargs={"server_default": ""})
    why: str = Field(default="", sa_column_kwargs={"server_default": ""})
    done_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    done_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    row_version: int = version()


class TemporaryFix(SQLModel, table=True):
    """A get-home fix: what is on, what share of the load it carries, and the due by which it comes off."""

    __tablename__ = "temporary_fix"
    __table_args__ = (not_blank("what"), CheckConstraint("share > 0", name="share_positive"))
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", index=True)
    due_id: uuid.UUID = Field(foreign_key="due.id", unique=True)
    what: str
    share: float
    share_text: str
    run: str
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    off_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    off_by: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    typed: dict[str, Any] = json()
    row_version: int = version()


class BeltLife(SQLModel, table=True):
    """How long a set of belts lasted, and what ended it."""

    __tablename__ = "belt_life"
    __table_args__ = (CheckConstraint("hours_h > 0", name="hours_positive"),)
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", index=True)
    ended_on: date
    hours_h: float
    why: str = ""
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    typed: dict[str, Any] = json()


class Trial(SQLModel, table=True):
    """Readings before and after one change, as typed and in SI, and what the core said of them at the time."""

    __table_args__ = (not_blank("change"),)
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id", index=True)
    change: str
    note: str = ""
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    typed: dict[str, Any] = json()
    values_si: dict[str, Any] = json()
    summary: dict[str, Any] = json()


class AuditEntry(SQLModel, table=True):
    """Who changed what and when. Append-only: the database refuses to change or delete a row."""

    __tablename__ = "audit_entry"
    __table_args__ = (Index("audit_of_subject", "subject_table", "subject_id", "id"),)
    id: int | None = Field(default=None, primary_key=True)
    at: datetime = when()
    person_id: uuid.UUID | None = Field(default=None, foreign_key="person.id")
    site_id: uuid.UUID | None = Field(default=None, foreign_key="site.id")
    action: str
    subject_table: str
    subject_id: uuid.UUID
    row_version: int | None = None
    idempotency_key: uuid.UUID | None = None
    changes: dict[str, Any] = json()


class KeptAnswer(SQLModel, table=True):
    """The answer to a write, by its idempotency key: a repeated request gets it again and stores nothing."""

    __tablename__ = "kept_answer"
    key: uuid.UUID = Field(primary_key=True)
    person_id: uuid.UUID = Field(foreign_key="person.id")
    request_hash: str
    status: int = 0
    body: dict[str, Any] = json()
    at: datetime = Field(default_factory=now, sa_column=Column(DateTime(timezone=True), nullable=False, server_default=text("now()")))
