"""People: passphrases, sign-in and sessions, roles, leavers, one-time codes, the first lead."""

import secrets
import uuid
from datetime import datetime, timedelta
from functools import cache
from typing import Any

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from sqlalchemy import func
from sqlmodel import Session, col, select
from sqlmodel.sql.expression import SelectOfScalar
from zxcvbn import zxcvbn

from tuyere.store import brake
from tuyere.store.clock import now
from tuyere.store.names import name_key
from tuyere.store.people_tables import FirstLeadCode, Membership, Person, Role, SignIn, Site
from tuyere.store.sessions import end_sessions_of, note_sign_in
from tuyere.store.tables import AuditEntry
from tuyere.store.write import Writer, audit, insert

SHORTEST_PASSPHRASE = 10
GUESSABLE = 2  # zxcvbn's scale of 0 to 4: up to this, guessed by a list or a rule in under 10^8 tries
RESET_HOLDS = timedelta(hours=24)

SiteId = SelectOfScalar[uuid.UUID]
"""A statement that finds the site of something."""

_hasher = PasswordHasher()


class LastLeadError(Exception):
    """The site would be left without a lead."""


class ElsewhereError(Exception):
    """The person also belongs to a site where the one who asks is no lead."""


@cache
def _nobody() -> str:
    """Checked when the name is unknown, so that an unknown name takes as long as a wrong passphrase."""
    return _hasher.hash(secrets.token_hex(16))


def hash_passphrase(passphrase: str) -> str:
    """argon2id hash of a passphrase."""
    return _hasher.hash(passphrase)


def passphrase_problem(passphrase: str, *known: str) -> str:
    """A sentence when a list of common passphrases, or a plain rule, would find it soon; `known`: what a guesser knows, as the name."""
    found = zxcvbn(passphrase[:72], user_inputs=[word for text in known for word in (text, *text.split())])
    if found["score"] > GUESSABLE:
        return ""
    return "This is easy to guess: it is on lists of common ones, or made by a simple rule. Take four words that do not belong together."


def new_person(person_id: uuid.UUID, name: str, passphrase: str, **more: Any) -> Person:
    """A person's row."""
    return Person(id=person_id, name=name.strip(), name_key=name_key(name), passphrase_hash=hash_passphrase(passphrase), **more)


def _matches(hashed: str | None, text: str) -> bool:
    try:
        return _hasher.verify(hashed or _nobody(), text) and hashed is not None
    except (VerificationError, InvalidHashError):
        return False


def find_person(session: Session, name: str) -> Person | None:
    """The person of a name, however it is written."""
    return session.exec(select(Person).where(Person.name_key == name_key(name))).first()


def sign_in(session: Session, name: str, passphrase: str, source: str) -> Person | None:
    """The person, or None when name and passphrase do not match. Raises brake.WaitError. Commits failures."""
    key = name_key(name)
    brake.check(session, key, source)
    person = find_person(session, name)
    if _matches(person.passphrase_hash if person else None, passphrase) and person:
        brake.succeeded(session, key, source)
        return person
    if person:
        note_sign_in(session, person.id, "failed to sign in", {"from": [None, source]})
    brake.failed(session, key, source)
    return None


def change_passphrase(session: Session, person_id: uuid.UUID, present: str, wanted: str, source: str) -> bool:
    """Change a person's passphrase when they know the present one; ends all their sessions. Raises brake.WaitError. Commits."""
    person = session.get_one(Person, person_id)
    brake.check(session, person.name_key, source)
    if not _matches(person.passphrase_hash, present):
        brake.failed(session, person.name_key, source)
        return False
    brake.succeeded(session, person.name_key, source)
    _set_passphrase(session, person, wanted, "changed passphrase")
    session.commit()
    return True


def use_reset_code(session: Session, name: str, code: str, wanted: str, source: str) -> Person | None:
    """Choose a new passphrase by a one-time code; ends all the person's sessions. Raises brake.WaitError. Commits."""
    key = name_key(name)
    brake.check(session, key, source)
    person = find_person(session, name)
    holds = person is not None and person.reset_until is not None and person.reset_until > now()
    if not _matches(person.reset_hash if person and holds else None, code.strip()) or not person:
        brake.failed(session, key, source)
        return None
    brake.succeeded(session, key, source)
    _set_passphrase(session, person, wanted, "chose a new passphrase by a one-time code")
    session.commit()
    session.refresh(person)
    return person


def _set_passphrase(session: Session, person: Person, wanted: str, action: str) -> None:
    session.refresh(person, with_for_update=True)
    person.passphrase_hash, person.reset_hash, person.reset_until = hash_passphrase(wanted), None, None
    person.handed_over = False
    person.row_version += 1
    session.add(person)
    end_sessions_of(session, person.id, "new passphrase")
    note_sign_in(session, person.id, action, {})


def role_at(session: Session, person_id: uuid.UUID, site: "uuid.UUID | SiteId") -> tuple[uuid.UUID, Role] | None:
    """The site, and the person's role there; None when there is no such site or they do not belong to it. One statement for both."""
    here = Membership.site_id == site if isinstance(site, uuid.UUID) else col(Membership.site_id) == site.scalar_subquery()
    wanted = select(Membership.site_id, Membership.role).where(here, Membership.person_id == person_id, col(Membership.ended_at).is_(None))
    found = session.exec(wanted).first()
    return (found[0], Role(found[1])) if found else None


def memberships(session: Session, person_id: uuid.UUID) -> list[tuple[Site, Role]]:
    """The sites a person belongs to, with the role at each."""
    found = session.exec(
        select(Site, Membership)
        .join(Membership, col(Membership.site_id) == col(Site.id))
        .where(Membership.person_id == person_id, col(Membership.ended_at).is_(None))
        .order_by(Site.name)
    )
    return [(site, Role(m.role)) for site, m in found]


def demo_people(session: Session) -> list[tuple[Person, str]]:
    """The one-click people of the demo plant, with their role."""
    found = session.exec(
        select(Person, Membership.role)
        .join(Membership, col(Membership.person_id) == col(Person.id))
        .where(Person.one_click, col(Membership.ended_at).is_(None))
        .order_by(Person.name)
    )
    return [(person, role) for person, role in found]


def people_at(session: Session, site_id: uuid.UUID) -> list[tuple[Person, Role]]:
    """Everybody at a site, with their role."""
    found = session.exec(
        select(Person, Membership.role)
        .join(Membership, col(Membership.person_id) == col(Person.id))
        .where(Membership.site_id == site_id, col(Membership.ended_at).is_(None))
        .order_by(Person.name)
    )
    return [(person, Role(role)) for person, role in found]


def add_person(session: Session, writer: Writer, person_id: uuid.UUID, name: str, passphrase: str, role: Role) -> None:
    """A new person at the writer's site, with a passphrase to hand over."""
    insert(session, writer, new_person(person_id, name, passphrase, handed_over=True), f"added {role}")
    session.add(Membership(person_id=person_id, site_id=writer.site_id, role=role))


def change_role(session: Session, writer: Writer, person_id: uuid.UUID, role: Role) -> bool:
    """Give a person of the writer's site another role; False when they are not there. Raises LastLeadError."""
    held = _membership(session, writer, person_id)
    if held is None:
        return False
    if role is not Role.LEAD:
        _another_lead(session, held)
    audit(session, writer, "membership", person_id, f"made {role}", {"role": [held.role, role]})
    held.role = role
    session.add(held)
    return True


def leave(session: Session, writer: Writer, person_id: uuid.UUID) -> bool:
    """End a person's membership of the writer's site, and their sessions; what they wrote keeps their name. Raises LastLeadError."""
    held = _membership(session, writer, person_id)
    if held is None:
        return False
    _another_lead(session, held)
    held.ended_at = now()
    session.add(held)
    end_sessions_of(session, person_id, "left")
    audit(session, writer, "membership", person_id, "left", {"role": [held.role, None]})
    return True


def issue_reset_code(session: Session, writer: Writer, person_id: uuid.UUID) -> str | None:
    """A one-time code by which a person chooses a new passphrase; None when they are not at the site. Raises ElsewhereError.

    It opens everything the person may do, so it is given only by a lead of every site the person belongs to.
    """
    if _membership(session, writer, person_id) is None:
        return None
    for site, _ in memberships(session, person_id):
        held = role_at(session, writer.person_id, site.id)
        if held is None or held[1] is not Role.LEAD:
            raise ElsewhereError
    person = session.get_one(Person, person_id, with_for_update=True)
    code = secrets.token_hex(6)
    person.reset_hash, person.reset_until = _hasher.hash(code), now() + RESET_HOLDS
    person.row_version += 1
    session.add(person)
    audit(session, writer, "person", person_id, "given a one-time code", {})
    return code


def end_session_at(session: Session, writer: Writer, sign_in_id: uuid.UUID) -> bool:
    """End one session of somebody at the writer's site; False when there is none."""
    ended = session.get(SignIn, sign_in_id, with_for_update=True)
    if ended is None or _membership(session, writer, ended.person_id) is None:
        return False
    if not ended.ended_at:
        ended.ended_at, ended.ended_why = now(), "ended by a lead"
        session.add(ended)
        audit(session, writer, "person", ended.person_id, "session ended", {"address": [ended.address, None]})
    return True


def _membership(session: Session, writer: Writer, person_id: uuid.UUID) -> Membership | None:
    """A membership of the writer's site, with all of the site's held still: two leads cannot remove each other at once."""
    session.exec(select(Membership).where(Membership.site_id == writer.site_id).with_for_update()).all()
    found = session.get(Membership, (person_id, writer.site_id))
    return found if found and not found.ended_at else None


def _another_lead(session: Session, held: Membership) -> None:
    if held.role != Role.LEAD:
        return
    leads = select(func.count()).select_from(Membership)
    leads = leads.where(Membership.site_id == held.site_id, Membership.role == Role.LEAD, col(Membership.ended_at).is_(None))
    if session.exec(leads).one() < 2:
        raise LastLeadError


def renamed(session: Session) -> list[tuple[str, str]]:
    """Who was renamed because their name looked like another's, and has not signed in since: the name of before, and the one of now."""
    since = select(SignIn.id).where(col(SignIn.person_id) == col(Person.id), col(SignIn.began_at) > col(AuditEntry.at)).exists()
    wanted = select(AuditEntry.changes, Person.name).join(Person, col(Person.id) == col(AuditEntry.subject_id))
    told = wanted.where(col(AuditEntry.action).startswith("renamed: "), ~since).order_by(Person.name)
    return [(changes["name"][0], name) for changes, name in session.exec(told)]


def plant_is_empty(session: Session) -> bool:
    """Nobody can sign in yet."""
    return session.exec(select(func.count()).select_from(Person)).one() == 0


def issue_first_lead_code(session: Session) -> str | None:
    """A fresh one-time code for an empty plant (an older unused one stops working); None once there are people."""
    if not plant_is_empty(session):
        return None
    code = secrets.token_hex(6)
    session.merge(FirstLeadCode(id=1, code_hash=_hasher.hash(code), used_at=None))
    session.commit()
    return code


def make_first_lead(session: Session, code: str, name: str, passphrase: str, site_name: str, source: str) -> Person | None:
    """Use the one-time code: makes the site and its lead. None when the code is wrong or used. Raises brake.WaitError. Commits."""
    brake.check(session, "", source)
    kept = session.get(FirstLeadCode, 1, with_for_update=True)
    if not kept or kept.used_at or not plant_is_empty(session) or not _matches(kept.code_hash, code.strip()):
        session.rollback()
        brake.failed(session, "", source)
        return None
    site = Site(id=uuid.uuid4(), name=site_name.strip())
    person = new_person(uuid.uuid4(), name, passphrase)
    session.add_all([site, person])
    session.flush()
    session.add(Membership(person_id=person.id, site_id=site.id, role=Role.LEAD))
    session.add(
        AuditEntry(person_id=person.id, site_id=site.id, action="made the first lead", subject_table="person", subject_id=person.id)
    )
    kept.used_at = now()
    session.add(kept)
    session.commit()
    session.refresh(person)
    return person


def last_seen(session: Session, site_id: uuid.UUID) -> dict[uuid.UUID, datetime]:
    """When each person at a site was last seen."""
    found = session.exec(
        select(SignIn.person_id, func.max(SignIn.seen_at))
        .join(Membership, col(Membership.person_id) == col(SignIn.person_id))
        .where(Membership.site_id == site_id)
        .group_by(col(SignIn.person_id))
    )
    return dict(found.all())
