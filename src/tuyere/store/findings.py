"""Findings: raised by people and by the core, and their life."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from sqlmodel import Session, col, select

from tuyere.store.clock import now
from tuyere.store.people import SiteId
from tuyere.store.tables import Drive, Finding, Machine
from tuyere.store.write import Writer, insert, update

How = Literal["said", "reading", "survey", "fitted", "job"]
State = Literal["open", "being done", "closed"]


def site_of_finding(finding_id: uuid.UUID) -> SiteId:
    """The site of a finding's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Finding).where(Finding.id == finding_id)


REMARKS = frozenset({"wheel"})  # subjects of how a drive is built: a remark until somebody accepts it


@dataclass(frozen=True)
class Cause:
    """What raises and closes findings of a subject: a survey or a reading, by id, in words, and when."""

    id: uuid.UUID
    how: How
    why: str
    at: datetime


@dataclass(frozen=True)
class Raised:
    """What the core found: in words, how it weighs, the page that answers it and where on the drive it is."""

    what: str
    weight: str = "watch"
    page: str = ""
    place: str = ""


def open_findings(session: Session, drive_id: uuid.UUID) -> list[Finding]:
    """What is open at a drive, oldest first."""
    wanted = select(Finding).where(Finding.drive_id == drive_id, col(Finding.closed_at).is_(None))
    return list(session.exec(wanted.order_by(col(Finding.found_at), col(Finding.what))))


def settle(session: Session, writer: Writer, drive_id: uuid.UUID, cause: Cause, subject: str, said: Sequence[Raised]) -> None:
    """Raise what the core found of one subject; close what it found of it earlier and does not any more, saying which newer fact did.

    A remark that somebody closed with a reason stays accepted.
    """
    held = select(Finding).where(Finding.drive_id == drive_id, Finding.subject == subject, col(Finding.closed_at).is_(None))
    still = {r.what[:120]: r for r in said}
    for finding in session.exec(held):
        if finding.what in still:
            del still[finding.what]
        else:
            values = {"closed_at": cause.at, "closed_by": writer.person_id, "closed_how": cause.how, "closed_why": cause.why}
            update(session, writer, finding, finding.row_version, values, "closed a finding")
    accepted = select(Finding.what).where(Finding.drive_id == drive_id, Finding.subject == subject, Finding.closed_how == "said")
    if subject in REMARKS:
        still = {what: r for what, r in still.items() if what not in set(session.exec(accepted))}
    for what, r in sorted(still.items()):
        row = Finding(
            id=uuid.uuid5(cause.id, what),
            drive_id=drive_id,
            what=what,
            weight=r.weight,
            subject=subject,
            found_by=writer.person_id,
            found_at=cause.at,
            page=r.page,
            place=r.place,
        )
        insert(session, writer, row, "raised a finding")


def change(session: Session, writer: Writer, finding: Finding, seen: int, state: State, how: How, why: str) -> None:
    """Take a finding up, close it, or open it again. Raises StaleError."""
    at, who = now(), writer.person_id
    opened: dict[str, Any] = {"closed_at": None, "closed_by": None, "closed_how": "", "closed_why": ""}
    values: dict[State, dict[str, Any]] = {
        "being done": {**opened, "taken_up_at": at, "taken_up_by": who},
        "closed": {"closed_at": at, "closed_by": who, "closed_how": how, "closed_why": why},
        "open": {**opened, "taken_up_at": None, "taken_up_by": None},
    }
    actions = {"being done": "took a finding up", "closed": "closed a finding", "open": "opened a finding again"}
    update(session, writer, finding, seen, values[state], actions[state])
