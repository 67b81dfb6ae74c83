"""The one way to write: one transaction, once per idempotency key, versioned, audited.

Every write to the record goes through `write_once`. Inside it, `insert` and `update` keep the audit entry
beside the row, in the same transaction.
"""

import hashlib
import json
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any

from sqlalchemy import Engine, text
from sqlmodel import Session, SQLModel, col, select

from tuyere.store.people_tables import Person
from tuyere.store.tables import AuditEntry, KeptAnswer


class StaleError(Exception):
    """Somebody else changed the row first; `since` tells what they changed."""

    def __init__(self, current_version: int, since: list[dict[str, Any]]) -> None:
        super().__init__("the row has changed since it was read")
        self.current_version = current_version
        self.since = since


class KeyReusedError(Exception):
    """The idempotency key came before with another request."""


@dataclass(frozen=True)
class Writer:
    """Who writes, where, and under which idempotency key."""

    person_id: uuid.UUID
    site_id: uuid.UUID
    key: uuid.UUID


@dataclass(frozen=True)
class Outcome:
    """What a write answers: an HTTP-like status and a JSON body. `repeated` tells an answer kept from before."""

    status: int
    body: dict[str, Any]
    repeated: bool = False


def write_once(engine: Engine, writer: Writer, request: Any, work: Callable[[Session], Outcome]) -> Outcome:
    """Run `work` in one transaction, once for the writer's key; a repeated request gets the kept answer.

    Two of the same at once: the second waits on the key's row for the first to commit. Raises KeyReusedError
    when the key was used for another request or by somebody else.
    """
    digest = hashlib.sha256(json.dumps(request, sort_keys=True, default=str).encode()).hexdigest()
    with Session(engine) as session, session.begin():
        claimed = session.execute(
            text(
                "INSERT INTO kept_answer (key, person_id, request_hash, status, body, at)"
                " VALUES (:key, :person, :hash, 0, '{}', now()) ON CONFLICT (key) DO NOTHING RETURNING key"
            ),
            {"key": writer.key, "person": writer.person_id, "hash": digest},
        ).first()
        kept = session.get_one(KeptAnswer, writer.key)
        if claimed is None:
            if kept.request_hash != digest or kept.person_id != writer.person_id:
                raise KeyReusedError
            return Outcome(kept.status, kept.body, repeated=True)
        answer = work(session)
        kept.status, kept.body = answer.status, answer.body
        session.add(kept)
        return answer


def insert(session: Session, writer: Writer, row: SQLModel, action: str) -> None:
    """Add a row and its audit entry. The parent must be in the database before its children: flushes."""
    session.add(row)
    session.flush()
    _audit(session, writer, row, action, {name: [None, value] for name, value in _plain(row).items()})


def insert_all(session: Session, writer: Writer, rows: Sequence[SQLModel], action: str) -> None:
    """Add many rows and their audit entries, in few statements."""
    session.add_all(rows)
    session.flush()
    for row in rows:
        _audit(session, writer, row, action, {name: [None, value] for name, value in _plain(row).items()})
    session.flush()


def update(session: Session, writer: Writer, row: Any, seen_version: int, values: dict[str, Any], action: str) -> None:
    """Change a row that the writer saw at `seen_version`. Raises StaleError when it has moved on since."""
    session.refresh(row, with_for_update=True)
    if row.row_version != seen_version:
        raise StaleError(row.row_version, changes_since(session, row.__tablename__, row.id, seen_version))
    before = _plain(row)
    for name, value in values.items():
        setattr(row, name, value)
    row.row_version += 1
    session.add(row)
    session.flush()
    after = _plain(row)
    _audit(session, writer, row, action, {n: [before[n], after[n]] for n in after if before[n] != after[n]})


def changes_since(session: Session, table: str, row_id: uuid.UUID, version: int) -> list[dict[str, Any]]:
    """What happened to a row after `version`: who, when, what."""
    entries = session.exec(
        select(AuditEntry, Person.name)
        .join(Person, col(Person.id) == col(AuditEntry.person_id), isouter=True)
        .where(AuditEntry.subject_table == table, AuditEntry.subject_id == row_id, col(AuditEntry.row_version) > version)
        .order_by(col(AuditEntry.id))
    )
    return [
        {
            "at": e.at.isoformat(),
            "who": name or "",
            "action": e.action,
            "changes": {k: v for k, v in e.changes.items() if k != "row_version"},
        }
        for e, name in entries
    ]


@dataclass
class Touched:
    """What a transaction changed: drives and machines by id, and whether something that a whole site goes by."""

    drives: set[uuid.UUID] = field(default_factory=set)
    machines: set[uuid.UUID] = field(default_factory=set)
    site: bool = False


def touched(session: Session) -> Touched:
    """What was changed so far."""
    found: Touched = session.info.setdefault("touched", Touched())
    return found


def _touch(session: Session, row: Any, changes: dict[str, Any]) -> None:
    found, table = touched(session), row.__tablename__
    if table == "drive":
        found.drives.add(row.id)
    elif table == "machine":
        found.machines.add(row.id)
    elif (drive_id := getattr(row, "drive_id", None)) is not None:
        found.drives.add(drive_id)
    elif (machine_id := getattr(row, "machine_id", None)) is not None:
        found.machines.add(machine_id)
    # Every drive of a site goes by its days, its rules and its own ratings.
    ratings = table == "shop_list" and row.what == "ratings"
    found.site = found.site or table == "due_rule" or ratings or (table == "site" and "zone" in changes)


def _audit(session: Session, writer: Writer, row: Any, action: str, changes: dict[str, Any]) -> None:
    _touch(session, row, changes)
    audit(session, writer, row.__tablename__, row.id, action, changes, getattr(row, "row_version", None))


def audit(
    session: Session, writer: Writer, table: str, row_id: uuid.UUID, action: str, changes: dict[str, Any], version: int | None = None
) -> None:
    """Note what the writer did to a row; for what is no plain insert or update."""
    session.add(
        AuditEntry(
            person_id=writer.person_id,
            site_id=writer.site_id,
            action=action,
            subject_table=table,
            subject_id=row_id,
            row_version=version,
            idempotency_key=writer.key,
            changes=changes,
        )
    )


def _plain(row: SQLModel) -> dict[str, Any]:
    secret = {"passphrase_hash", "code_hash", "reset_hash"}
    return {k: _json_value(v) for k, v in row.model_dump().items() if k not in secret and not isinstance(v, bytes)}


def _json_value(value: Any) -> Any:
    return value.isoformat() if isinstance(value, (datetime, date)) else str(value) if isinstance(value, uuid.UUID) else value
