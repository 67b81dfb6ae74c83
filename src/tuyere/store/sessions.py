"""Sessions, and the devices on which they last."""

import uuid
from datetime import datetime, timedelta
from typing import Any, NamedTuple

from sqlalchemy import and_, case, or_
from sqlmodel import Session, col, select, update

from tuyere.store import factors
from tuyere.store.clock import now
from tuyere.store.factor_tables import Device, Passkey
from tuyere.store.people_tables import Membership, Person, Role, SignIn, Site
from tuyere.store.tables import AuditEntry
from tuyere.store.write import Writer, audit

SEEN_WITHIN = timedelta(minutes=5)  # how exact "last seen" is


IDLE = timedelta(days=7)


LONGEST_SESSION = timedelta(days=30)


SHIFT = timedelta(hours=12)  # on a device that no lead allowed


def begin_session(session: Session, person: Person, address: str, device: str, device_id: str = "") -> SignIn:
    """A new session of a person. Commits."""
    began = SignIn(id=uuid.uuid4(), person_id=person.id, address=address[:64], device=device[:200], device_id=device_id[:64])
    session.add(began)
    note_sign_in(session, person.id, "signed in", {"address": [None, began.address]})
    session.commit()
    session.refresh(began)
    return began


class InSession(NamedTuple):
    """Whose session one is; `must`: what has to be done before it opens anything."""

    person_id: uuid.UUID
    name: str
    must: factors.Must


def person_of_session(session: Session, sign_in_id: uuid.UUID) -> InSession | None:
    """Whose session this is, while it holds; notes now and then that it was seen. Commits."""
    moment = now()
    allowed = select(Device.id).where(col(Device.id) == col(SignIn.device_id), col(Device.ended_at).is_(None)).exists()
    has_key = select(Passkey.id).where(col(Passkey.person_id) == col(Person.id), col(Passkey.removed_at).is_(None)).exists()
    has_factor = or_(col(Person.code_secret).is_not(None), has_key)
    leads = select(Membership.person_id).join(Site, col(Site.id) == col(Membership.site_id))
    leads = leads.where(col(Membership.person_id) == col(Person.id), Membership.role == Role.LEAD, col(Membership.ended_at).is_(None))
    must = case(
        (col(Person.handed_over), "choose"),
        (and_(has_factor, col(SignIn.factor) == ""), "show"),
        (and_(~has_factor, ~col(Person.one_click), leads.where(col(Site.leads_factor)).exists()), "add"),
        else_="",
    )
    found = session.exec(
        select(Person.id, Person.name, must, SignIn.seen_at)
        .join(SignIn, col(SignIn.person_id) == col(Person.id))
        .where(SignIn.id == sign_in_id, col(SignIn.ended_at).is_(None))
        .where(_holds(moment, allowed))
    ).first()
    if not found:
        return None
    person_id, name, to_do, seen_at = found
    if seen_at < moment - SEEN_WITHIN:
        session.exec(update(SignIn).where(col(SignIn.id) == sign_in_id).values(seen_at=moment))
        session.commit()
    return InSession(person_id, name, to_do)


def _holds(moment: datetime, allowed: Any) -> Any:
    """A session holds for days on a device that a lead allowed, for a shift on any other."""
    days = and_(allowed, col(SignIn.seen_at) > moment - IDLE, col(SignIn.began_at) > moment - LONGEST_SESSION)
    return or_(days, col(SignIn.began_at) > moment - SHIFT)


def allow_device(session: Session, writer: Writer, device_id: str, allowed: bool) -> bool:
    """Let sessions last for days on a device that somebody of the site signed in on, or no longer; False where there is none such."""
    used = select(SignIn).join(Membership, col(Membership.person_id) == col(SignIn.person_id))
    used = used.where(Membership.site_id == writer.site_id, SignIn.device_id == device_id).order_by(col(SignIn.began_at).desc())
    last = session.exec(used.limit(1)).first()
    if last is None or not device_id:
        return False
    held = session.get(Device, (device_id, writer.site_id), with_for_update=True)
    if held is None and allowed:
        session.add(Device(id=device_id, site_id=writer.site_id, label=last.device[:200], allowed_by=writer.person_id))
    elif held is not None:
        held.ended_at = None if allowed else now()
        if allowed:
            held.allowed_at, held.allowed_by, held.label = now(), writer.person_id, last.device[:200]
        session.add(held)
    audit(session, writer, "device", last.id, "allowed a device" if allowed else "took a device off", {"device": [None, device_id]})
    return True


def devices_at(session: Session, site_id: uuid.UUID) -> set[str]:
    """The devices that a lead of the site allowed."""
    return set(session.exec(select(Device.id).where(Device.site_id == site_id, col(Device.ended_at).is_(None))))


def end_session(session: Session, sign_in_id: uuid.UUID) -> None:
    """Sign out: every copy of the cookie stops working. Commits."""
    ended = session.get(SignIn, sign_in_id, with_for_update=True)
    if ended and not ended.ended_at:
        ended.ended_at, ended.ended_why = now(), "signed out"
        session.add(ended)
        note_sign_in(session, ended.person_id, "signed out", {})
    session.commit()


def end_sessions_of(session: Session, person_id: uuid.UUID, why: str) -> None:
    """End all of a person's sessions."""
    open_ones = update(SignIn).where(col(SignIn.person_id) == person_id, col(SignIn.ended_at).is_(None))
    session.exec(open_ones.values(ended_at=now(), ended_why=why))


def open_sessions(session: Session, site_id: uuid.UUID) -> list[SignIn]:
    """The sessions that hold of everybody at a site, the latest seen first."""
    moment = now()
    wanted = (
        select(SignIn)
        .join(Membership, col(Membership.person_id) == col(SignIn.person_id))
        .where(Membership.site_id == site_id, col(Membership.ended_at).is_(None), col(SignIn.ended_at).is_(None))
        .where(_holds(moment, select(Device.id).where(col(Device.id) == col(SignIn.device_id), col(Device.ended_at).is_(None)).exists()))
    )
    return list(session.exec(wanted.order_by(col(SignIn.seen_at).desc())))


def note_sign_in(session: Session, person_id: uuid.UUID, action: str, changes: dict[str, Any]) -> None:
    """An audit entry of what somebody did as themselves, at no site."""
    session.add(AuditEntry(person_id=person_id, action=action, subject_table="person", subject_id=person_id, changes=changes))
