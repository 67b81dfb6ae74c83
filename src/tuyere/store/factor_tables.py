"""Passkeys of people, and the devices on which sessions may last."""

import uuid
from datetime import datetime

from sqlalchemy import BigInteger, DateTime
from sqlmodel import Field, SQLModel

from tuyere.store.columns import when


class Passkey(SQLModel, table=True):
    """A key that a person's device keeps (WebAuthn): its public half, and how often it was used, as it says."""

    id: uuid.UUID = Field(primary_key=True)
    person_id: uuid.UUID = Field(foreign_key="person.id", index=True)
    credential_id: str = Field(unique=True)
    public_key: bytes
    sign_count: int = Field(default=0, sa_type=BigInteger)
    name: str
    added_at: datetime = when()
    used_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    removed_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))


class Device(SQLModel, table=True):
    """A device that a lead allowed at a site, by the cookie it has: sessions on it last for days."""

    id: str = Field(primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", primary_key=True)
    label: str
    allowed_at: datetime = when()
    allowed_by: uuid.UUID = Field(foreign_key="person.id")
    ended_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
