"""What was found out about a drive's belts: counter slips, get-home fixes, lives of sets, and a site's cross-reference."""

import uuid
from dataclasses import asdict, dataclass
from datetime import date
from typing import Any

from sqlalchemy import text
from sqlmodel import Session, col, select

from tuyere.core.stations.find.cross_reference import Entry, key_of
from tuyere.store.clock import now
from tuyere.store.people import SiteId
from tuyere.store.shop_tables import CounterSlip, CrossReference
from tuyere.store.tables import BeltLife, Drive, Due, Finding, Machine, TemporaryFix
from tuyere.store.write import Writer, audit, insert, insert_all, update


def site_of_slip(slip_id: uuid.UUID) -> SiteId:
    """The site of a counter slip's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(CounterSlip).where(CounterSlip.id == slip_id)


def site_of_fix(fix_id: uuid.UUID) -> SiteId:
    """The site of a get-home fix's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(TemporaryFix).where(TemporaryFix.id == fix_id)


def latest_slip(session: Session, drive_id: uuid.UUID) -> CounterSlip | None:
    """The newest counter slip of a drive."""
    return session.exec(select(CounterSlip).where(CounterSlip.drive_id == drive_id).order_by(col(CounterSlip.made_at).desc())).first()


def fixes_on(session: Session, drive_id: uuid.UUID) -> list[TemporaryFix]:
    """Get-home fixes that are still on."""
    wanted = select(TemporaryFix).where(TemporaryFix.drive_id == drive_id, col(TemporaryFix.off_at).is_(None))
    return list(session.exec(wanted.order_by(col(TemporaryFix.made_at))))


def lives(session: Session, drive_id: uuid.UUID) -> list[BeltLife]:
    """How long the sets of a drive lasted, oldest first."""
    return list(session.exec(select(BeltLife).where(BeltLife.drive_id == drive_id).order_by(col(BeltLife.ended_on), col(BeltLife.made_at))))


def keep_fix(session: Session, writer: Writer, fix: TemporaryFix, off_by: date) -> None:
    """Record a get-home fix and raise the due by which it comes off."""
    due = Due(id=fix.due_id, drive_id=fix.drive_id, kind="get-home fix", what=f"Get-home fix off: {fix.what}"[:120], due_on=off_by)
    insert(session, writer, due, "raised a due")
    insert(session, writer, fix, "recorded a get-home fix")


def fix_off(session: Session, writer: Writer, fix: TemporaryFix, seen_version: int) -> None:
    """The right belts are on again: the fix ends and its due is done. Ending it twice changes nothing."""
    if fix.off_at is not None:
        return
    update(session, writer, fix, seen_version, {"off_at": now(), "off_by": writer.person_id}, "took a get-home fix off")
    due = session.get_one(Due, fix.due_id)
    if due.done_at is None:
        update(session, writer, due, due.row_version, {"done_at": now()}, "did a due")


def keep_life(session: Session, writer: Writer, life: BeltLife, finding: str | None) -> bool:
    """Record how long a set lasted; raise `finding` unless it is open already. True when it was raised."""
    insert(session, writer, life, "recorded the life of a set")
    if not finding:
        return False
    open_already = select(Finding).where(Finding.drive_id == life.drive_id, Finding.what == finding, col(Finding.closed_at).is_(None))
    if session.exec(open_already).first():
        return False
    raised = Finding(id=uuid.uuid5(life.id, "finding"), drive_id=life.drive_id, what=finding, weight="watch", found_by=writer.person_id)
    insert(session, writer, raised, "raised a finding")
    return True


@dataclass(frozen=True)
class Loaded:
    """How many rows of a cross-reference were new, changed, or as before."""

    added: int
    changed: int
    same: int


def load_cross_reference(session: Session, writer: Writer, entries: tuple[Entry, ...]) -> Loaded:
    """Add the rows to the site's cross-reference; a part number that is there already takes the new row. Many at once: few statements."""
    one_load_at_a_time = text("SELECT pg_advisory_xact_lock(hashtextextended(:site, 0))")
    session.execute(one_load_at_a_time, {"site": f"cross-reference {writer.site_id}"})
    held = {row.part_key: row for row in session.exec(select(CrossReference).where(CrossReference.site_id == writer.site_id))}
    fresh: list[CrossReference] = []
    changed: list[CrossReference] = []
    same = 0
    for entry in entries:
        key, values = key_of(entry.part_number), asdict(entry)
        row = held.get(key)
        if row is None:
            own: dict[str, Any] = {
                "id": uuid.uuid5(writer.key, key),
                "site_id": writer.site_id,
                "part_key": key,
                "loaded_by": writer.person_id,
            }
            fresh.append(CrossReference(**own, **values))
            continue
        changes = {name: [getattr(row, name), value] for name, value in values.items() if getattr(row, name) != value}
        if not changes:
            same += 1
            continue
        for name, value in (values | {"loaded_by": writer.person_id, "row_version": row.row_version + 1}).items():
            setattr(row, name, value)
        changed.append(row)
        audit(session, writer, "cross_reference", row.id, "loaded a cross-reference", changes, row.row_version)
    insert_all(session, writer, fresh, "loaded a cross-reference")
    session.add_all(changed)
    return Loaded(len(fresh), len(changed), same)


def look_up(session: Session, site_id: uuid.UUID, part_number: str) -> CrossReference | None:
    """The cross-reference row of a part number, whatever its case and punctuation."""
    key = key_of(part_number)
    if not key:
        return None
    return session.exec(select(CrossReference).where(CrossReference.site_id == site_id, CrossReference.part_key == key)).first()


def cross_reference(session: Session, site_id: uuid.UUID) -> list[CrossReference]:
    """A site's whole cross-reference, by part number."""
    return list(session.exec(select(CrossReference).where(CrossReference.site_id == site_id).order_by(CrossReference.part_number)))
