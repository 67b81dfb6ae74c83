"""The brake on guessing: each failed try makes the next one from the same place wait longer; nobody else has to wait for it.

A try is counted by what it is for (a name, a code) and by its source: the device, where one of this person's signed in before, else the
address. So a stranger's failures slow down the stranger, not the owner of the name, and not the plant behind the same address.
Source: the OWASP cheat sheet on authentication, "login throttling", and its device cookies (from memory).
"""

from datetime import timedelta

from sqlalchemy import func
from sqlmodel import Session, col, delete, select

from tuyere.store.clock import now
from tuyere.store.people_tables import SignInFailure

WINDOW = timedelta(hours=1)
FREE = 4  # tries without waiting
LONGEST = 60.0  # seconds between two tries, however many failed
UNDER_ATTACK = 30  # failures on one name, or from one address, that leave a new source one free try


class WaitError(Exception):
    """A try came too soon after the ones that failed; `seconds` says how long to wait."""

    def __init__(self, seconds: float) -> None:
        super().__init__(seconds)
        self.seconds = seconds


def check(session: Session, key: str, source: str) -> None:
    """Raises WaitError while the next try for `key` from `source` has to wait. Tries that come too soon are not counted."""
    recent = col(SignInFailure.at) > now() - WINDOW
    count, last = session.exec(
        select(func.count(), func.max(SignInFailure.at)).where(SignInFailure.name_key == key, SignInFailure.source == source, recent)
    ).one()
    if not count:
        return
    others = session.exec(
        select(func.count())
        .select_from(SignInFailure)
        .where((col(SignInFailure.name_key) == key) | (col(SignInFailure.source) == source), recent)
    ).one()
    free = 1 if others >= UNDER_ATTACK else FREE
    if count < free:
        return
    left = last + timedelta(seconds=min(LONGEST, 2.0 ** (count - free))) - now()
    if left > timedelta(0):
        raise WaitError(left.total_seconds())


def failed(session: Session, key: str, source: str) -> None:
    """Count a failed try. Commits."""
    session.add(SignInFailure(name_key=key, source=source, at=now()))
    session.commit()


def succeeded(session: Session, key: str, source: str) -> None:
    """Forget the failed tries of this source."""
    session.exec(delete(SignInFailure).where(col(SignInFailure.name_key) == key, col(SignInFailure.source) == source))
