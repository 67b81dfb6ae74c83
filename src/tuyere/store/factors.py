"""Second factors: a code that goes by the time (RFC 6238), passkeys (WebAuthn), and what a session still has to show."""

import base64
import hashlib
import uuid
from typing import Literal, NamedTuple

import pyotp
from cryptography.fernet import Fernet, InvalidToken
from sqlmodel import Session, col, select, update

from tuyere.store import brake
from tuyere.store.clock import now
from tuyere.store.factor_tables import Passkey
from tuyere.store.people_tables import Membership, Person, Role, SignIn, Site
from tuyere.store.tables import AuditEntry

Must = Literal["", "choose", "show", "add"]
"""What a session has to do before it is in: choose a passphrase, show a second factor, add one."""
STEP_S = 30


class Factors(NamedTuple):
    """What a person has."""

    code: bool
    passkeys: list[Passkey]


def _box(key: str) -> Fernet:
    """What secrets are kept in: by the key of the server, so that a copy of the database alone gives nobody a code."""
    return Fernet(base64.urlsafe_b64encode(hashlib.sha256(b"second factor " + key.encode()).digest()))


def of(session: Session, person_id: uuid.UUID) -> Factors:
    """The factors of a person."""
    keys = select(Passkey).where(Passkey.person_id == person_id, col(Passkey.removed_at).is_(None)).order_by(col(Passkey.added_at))
    return Factors(session.get_one(Person, person_id).code_secret is not None, list(session.exec(keys)))


def step_of(secret: str, code: str, last: int) -> int | None:
    """The step of the time that a code is of, this one or a neighbour's, and later than the last one used; None where it is of none."""
    code, present = "".join(code.split()), int(now().timestamp()) // STEP_S
    one = pyotp.TOTP(secret)
    return next((s for s in (present, present - 1, present + 1) if s > last and pyotp.utils.strings_equal(one.at(s * STEP_S), code)), None)


def keep_code(session: Session, person_id: uuid.UUID, secret: str, step: int, key: str) -> None:
    """A time-based code from now on, shown once already. Commits."""
    person = session.get_one(Person, person_id, with_for_update=True)
    person.code_secret, person.code_step = _box(key).encrypt(secret.encode()).decode(), step
    person.row_version += 1
    session.add(person)
    _note(session, person_id, "added a time-based code")
    session.commit()


def forget_code(session: Session, person_id: uuid.UUID) -> None:
    """No time-based code any more. Commits."""
    person = session.get_one(Person, person_id, with_for_update=True)
    person.code_secret = None
    person.row_version += 1
    session.add(person)
    _note(session, person_id, "removed the time-based code")
    session.commit()


def shows_code(session: Session, person_id: uuid.UUID, code: str, source: str, key: str) -> bool:
    """Whether that is the person's code now; each works once. Raises brake.WaitError. Commits."""
    person = session.get_one(Person, person_id, with_for_update=True)
    name = f"code of {person.name_key}"
    brake.check(session, name, source)
    try:
        secret = _box(key).decrypt((person.code_secret or "").encode()).decode()
        step = step_of(secret, code, person.code_step)
    except InvalidToken:  # the server has another key than when it was added
        step = None
    if step is None:
        brake.failed(session, name, source)
        return False
    person.code_step = step
    session.add(person)
    brake.succeeded(session, name, source)
    session.commit()
    return True


def shown(session: Session, sign_in_id: uuid.UUID, person_id: uuid.UUID, factor: str) -> None:
    """The session has shown its second factor. Commits."""
    session.exec(update(SignIn).where(col(SignIn.id) == sign_in_id).values(factor=factor))
    _note(session, person_id, f"showed a second factor: {factor}")
    session.commit()


def add_passkey(session: Session, passkey: Passkey) -> None:
    """Keep a passkey. Commits."""
    session.add(passkey)
    _note(session, passkey.person_id, "added a passkey")
    session.commit()


def remove_passkey(session: Session, person_id: uuid.UUID, passkey_id: uuid.UUID) -> bool:
    """It opens nothing any more; False where there is none. Commits."""
    found = session.get(Passkey, passkey_id, with_for_update=True)
    if found is None or found.person_id != person_id or found.removed_at:
        return False
    found.removed_at = now()
    session.add(found)
    _note(session, person_id, "removed a passkey")
    session.commit()
    return True


def used_passkey(session: Session, passkey: Passkey, count: int) -> None:
    """It was used: the count it told. Commits."""
    passkey.sign_count, passkey.used_at = count, now()
    session.add(passkey)
    session.commit()


def reset(session: Session, person: Person) -> None:
    """Take every second factor from a person who lost it, and end their sessions. Commits."""
    moment = now()
    person.code_secret = None
    session.add(person)
    session.exec(update(Passkey).where(col(Passkey.person_id) == person.id, col(Passkey.removed_at).is_(None)).values(removed_at=moment))
    mine = update(SignIn).where(col(SignIn.person_id) == person.id, col(SignIn.ended_at).is_(None))
    session.exec(mine.values(ended_at=moment, ended_why="second factor reset"))
    _note(session, person.id, "second factors taken off on the server")
    session.commit()


def needs_one(session: Session, person_id: uuid.UUID) -> bool:
    """Whether the person leads a site that wants a second factor of its leads."""
    wanted = select(Membership.person_id).join(Site, col(Site.id) == col(Membership.site_id))
    leads = wanted.where(Membership.person_id == person_id, Membership.role == Role.LEAD, col(Membership.ended_at).is_(None))
    return session.exec(leads.where(col(Site.leads_factor))).first() is not None


def _note(session: Session, person_id: uuid.UUID, action: str) -> None:
    session.add(AuditEntry(person_id=person_id, action=action, subject_table="person", subject_id=person_id, changes={}))
