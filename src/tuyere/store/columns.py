"""What the tables' columns are made of."""

from typing import Any

from sqlalchemy import CheckConstraint, Column, DateTime
from sqlalchemy.dialects.postgresql import JSONB
from sqlmodel import Field, SQLModel

from tuyere.store.clock import now

SQLModel.metadata.naming_convention = {
    "ix": "ix_%(table_name)s_%(column_0_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


def json() -> Any:
    """Typed words and the like."""
    return Field(default_factory=dict, sa_column=Column(JSONB, nullable=False, server_default="{}"))


def when() -> Any:
    """A time; now where none is given."""
    return Field(default_factory=now, sa_type=DateTime(timezone=True))


def version() -> Any:
    """How often the row was changed, from 1."""
    return Field(default=1, ge=1)


def one_of(column: str, *words: str) -> CheckConstraint:
    """Nothing but these words."""
    listed = ", ".join(f"'{w}'" for w in words)
    return CheckConstraint(f"{column} IN ({listed})", name=f"{column}_known")


def not_blank(column: str) -> CheckConstraint:
    """Something, and not too much of it."""
    return CheckConstraint(f"length(btrim({column})) BETWEEN 1 AND 120", name=f"{column}_not_blank")
