"""People: passphrases, sign-in with a brake on guessing, roles, the first lead."""

import secrets
import uuid
from datetime import timedelta

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from sqlalchemy import func
from sqlmodel import Session, col, delete, select

from tuyere.store.tables import AuditEntry, FirstLeadCode, Membership, Person, Role, SignInFailure, Site, now
from tuyere.store.write import Writer, insert

FAILURES_ALLOWED = 8
FAILURE_WINDOW = timedelta(minutes=10)
SHORTEST_PASSPHRASE = 10

_hasher = PasswordHasher()
# Checked when the name is unknown, so that an unknown name takes as long as a wrong passphrase.
_NOBODY = _hasher.hash(secrets.token_hex(16))


class TooManyTriesError(Exception):
    """Too many failed sign-ins for this name in a while."""


def hash_passphrase(passphrase: str) -> str:
    """argon2id hash of a passphrase."""
    return _hasher.hash(passphrase)


def _matches(hashed: str, passphrase: str) -> bool:
    try:
        return _hasher.verify(hashed, passphrase)
    except (VerificationError, InvalidHashError):
        return False


def sign_in(session: Session, name: str, passphrase: str) -> Person | None:
    """The person, or None when name and passphrase do not match. Raises TooManyTriesError. Commits failures."""
    wanted = name.strip()
    recent = session.exec(
        select(func.count()).select_from(SignInFailure).where(SignInFailure.name == wanted, col(SignInFailure.at) > now() - FAILURE_WINDOW)
    ).one()
    if recent >= FAILURES_ALLOWED:
        raise TooManyTriesError
    person = session.exec(select(Person).where(Person.name == wanted)).first()
    if _matches(person.passphrase_hash if person else _NOBODY, passphrase) and person:
        session.exec(delete(SignInFailure).where(col(SignInFailure.name) == wanted))
        session.commit()
        return person
    session.add(SignInFailure(name=wanted))
    session.commit()
    return None


def change_passphrase(session: Session, person_id: uuid.UUID, present: str, wanted: str) -> bool:
    """Change a person's passphrase when they know the present one. Commits."""
    person = session.get_one(Person, person_id, with_for_update=True)
    if not _matches(person.passphrase_hash, present):
        return False
    person.passphrase_hash = hash_passphrase(wanted)
    person.row_version += 1
    session.add(person)
    session.add(AuditEntry(person_id=person_id, action="changed passphrase", subject_table="person", subject_id=person_id))
    session.commit()
    return True


def role_at(session: Session, person_id: uuid.UUID, site_id: uuid.UUID) -> Role | None:
    """The person's role at a site, or None."""
    found = session.get(Membership, (person_id, site_id))
    return Role(found.role) if found else None


def memberships(session: Session, person_id: uuid.UUID) -> list[tuple[Site, Role]]:
    """The sites a person belongs to, with the role at each."""
    found = session.exec(
        select(Site, Membership)
        .join(Membership, col(Membership.site_id) == col(Site.id))
        .where(Membership.person_id == person_id)
        .order_by(Site.name)
    )
    return [(site, Role(m.role)) for site, m in found]


def demo_people(session: Session) -> list[tuple[Person, str]]:
    """The one-click people of the demo plant, with their role."""
    found = session.exec(
        select(Person, Membership.role)
        .join(Membership, col(Membership.person_id) == col(Person.id))
        .where(Person.one_click)
        .order_by(Person.name)
    )
    return [(person, role) for person, role in found]


def people_at(session: Session, site_id: uuid.UUID) -> list[tuple[Person, Role]]:
    """Everybody at a site, with their role."""
    found = session.exec(
        select(Person, Membership.role)
        .join(Membership, col(Membership.person_id) == col(Person.id))
        .where(Membership.site_id == site_id)
        .order_by(Person.name)
    )
    return [(person, Role(role)) for person, role in found]


def add_person(session: Session, writer: Writer, person_id: uuid.UUID, name: str, passphrase: str, role: Role) -> None:
    """A new person at the writer's site."""
    insert(session, writer, Person(id=person_id, name=name.strip(), passphrase_hash=hash_passphrase(passphrase)), f"added {role}")
    session.add(Membership(person_id=person_id, site_id=writer.site_id, role=role))


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


def make_first_lead(session: Session, code: str, name: str, passphrase: str, site_name: str) -> Person | None:
    """Use the one-time code: makes the site and its lead. None when the code is wrong or used. Commits."""
    kept = session.get(FirstLeadCode, 1, with_for_update=True)
    if not kept or kept.used_at or not plant_is_empty(session) or not _matches(kept.code_hash, code.strip()):
        session.rollback()
        return None
    site = Site(id=uuid.uuid4(), name=site_name.strip())
    person = Person(id=uuid.uuid4(), name=name.strip(), passphrase_hash=hash_passphrase(passphrase))
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
