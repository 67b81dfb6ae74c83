"""Tables of a shop's own: slips, references, lists, what-ifs."""

import uuid
from datetime import datetime
from typing import Any

from sqlalchemy import CheckConstraint, DateTime, Index, UniqueConstraint
from sqlmodel import Field, SQLModel

from tuyere.store.columns import json, not_blank, version, when


class CounterSlip(SQLModel, table=True):
    """The answer taken to the shop: what was typed to find it, and the slip as it was given. Never changed, only followed by another."""

    __tablename__ = "counter_slip"
    __table_args__ = (not_blank("designation"), Index("slip_of_drive", "drive_id", "made_at"))
    id: uuid.UUID = Field(primary_key=True)
    drive_id: uuid.UUID = Field(foreign_key="drive.id")
    designation: str
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    typed: dict[str, Any] = json()
    slip: dict[str, Any] = json()


class CrossReference(SQLModel, table=True):
    """A shop's own list: a machine's part number and the belt it means. `part_key` is the number without case and punctuation."""

    __tablename__ = "cross_reference"
    __table_args__ = (not_blank("part_number"), not_blank("designation"), UniqueConstraint("site_id", "part_key"))
    id: uuid.UUID = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", index=True)
    part_key: str
    part_number: str
    designation: str
    machine: str = ""
    note: str = ""
    loaded_by: uuid.UUID = Field(foreign_key="person.id")
    row_version: int = version()


class WhatIf(SQLModel, table=True):
    """A drive thought through on the bench, kept by name at a site; nothing of it is fitted. `typed`: what was asked and picked."""

    __tablename__ = "what_if"
    __table_args__ = (not_blank("name"),)
    id: uuid.UUID = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", index=True)
    name: str
    made_by: uuid.UUID = Field(foreign_key="person.id")
    made_at: datetime = when()
    put_away_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    typed: dict[str, Any] = json()
    row_version: int = version()


class ShopList(SQLModel, table=True):
    """A shop's own list, as the file that was brought: its parts, or ratings of its own. The newest that is not put away holds."""

    __tablename__ = "shop_list"
    __table_args__ = (CheckConstraint("what IN ('parts', 'ratings')", name="known_what"),)
    id: uuid.UUID = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", index=True)
    what: str
    file_name: str
    content: str
    rows_taken: int
    loaded_by: uuid.UUID = Field(foreign_key="person.id")
    loaded_at: datetime = when()
    put_away_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    row_version: int = version()
