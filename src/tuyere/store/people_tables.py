"""Tables of people: who they are, where they belong, how they came in."""

import uuid
from datetime import datetime
from enum import StrEnum

from sqlalchemy import BigInteger, Column, DateTime, false
from sqlmodel import Field, SQLModel

from tuyere.store.columns import not_blank, one_of, version, when


class Role(StrEnum):
    """What a person may do at a site; each includes the ones before it."""

    VIEWER = "viewer"
    MECHANIC = "mechanic"
    LEAD = "lead"

    def covers(self, wanted: "Role") -> bool:
        """Whether it may do what the wanted role may."""
        order = list(Role)
        return order.index(self) >= order.index(wanted)


class Site(SQLModel, table=True):
    """A plant; `zone`: whose days count there, by its name in the tz database; `leads_factor`: its leads need a second factor."""

    __table_args__ = (not_blank("name"),)
    id: uuid.UUID = Field(primary_key=True)
    name: str = Field(unique=True)
    zone: str = Field(default="UTC", sa_column_kwargs={"server_default": "UTC"})
    leads_factor: bool = Field(default=False, sa_column_kwargs={"server_default": false()})
    row_version: int = version()


class Person(SQLModel, table=True):
    """Somebody who signs in. `name_key`: what no two names may share; `reset_hash`: a one-time code for a new passphrase, for a while;
    `handed_over`: the passphrase was chosen by somebody else, so the first thing is to choose one's own; `code_secret`: of a time-based
    code, kept in a box; `code_step`: the last step of the time whose code was used.
    """

    __table_args__ = (not_blank("name"),)
    id: uuid.UUID = Field(primary_key=True)
    name: str = Field(unique=True)
    name_key: str = Field(unique=True)
    passphrase_hash: str
    reset_hash: str | None = None
    reset_until: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    one_click: bool = False
    handed_over: bool = Field(default=False, sa_column_kwargs={"server_default": false()})
    code_secret: str | None = None
    code_step: int = Field(default=0, sa_column=Column(BigInteger, nullable=False, server_default="0"))
    row_version: int = version()


class Membership(SQLModel, table=True):
    """A person's role at a site, until it ended."""

    __table_args__ = (one_of("role", *Role),)
    person_id: uuid.UUID = Field(foreign_key="person.id", primary_key=True)
    site_id: uuid.UUID = Field(foreign_key="site.id", primary_key=True)
    role: str
    ended_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))


class SignIn(SQLModel, table=True):
    """A session of a person: the cookie names it, and it holds until it ended. `seen_at` is at most some minutes old; `factor`: the second
    one that was shown; `device_id`: by the cookie of the device.
    """

    __tablename__ = "sign_in"
    id: uuid.UUID = Field(primary_key=True)
    person_id: uuid.UUID = Field(foreign_key="person.id", index=True)
    began_at: datetime = when()
    seen_at: datetime = when()
    ended_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
    ended_why: str = ""
    address: str = ""
    device: str = ""
    factor: str = Field(default="", sa_column_kwargs={"server_default": ""})
    device_id: str = Field(default="", sa_column_kwargs={"server_default": ""})


class SignInFailure(SQLModel, table=True):
    """A failed try of a passphrase or code, by what it was for, from where; they slow down the next one."""

    __tablename__ = "sign_in_failure"
    id: int | None = Field(default=None, primary_key=True)
    name_key: str = Field(index=True)
    source: str = Field(default="", index=True)
    at: datetime = when()


class FirstLeadCode(SQLModel, table=True):
    """The one-time code that makes the first lead of a plant without people; kept hashed."""

    __tablename__ = "first_lead_code"
    id: int = Field(primary_key=True)
    code_hash: str
    used_at: datetime | None = Field(default=None, sa_type=DateTime(timezone=True))
