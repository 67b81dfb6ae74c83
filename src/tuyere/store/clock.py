"""The one clock: what is written down is dated by it, what falls due is counted by it. A test sets it, also for a server it starts."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

AHEAD = "TUYERE_CLOCK_AHEAD_S"  # in the environment: how far this clock is ahead of the machine's, in seconds; for tests alone
_ahead = timedelta()


def begin() -> None:
    """Take what the environment says."""
    global _ahead
    _ahead = timedelta(seconds=float(os.environ.get(AHEAD, "0")))


begin()


def now() -> datetime:
    """The current time, UTC."""
    return datetime.now(UTC) + _ahead


def today(zone: ZoneInfo) -> date:
    """The day it is in a zone."""
    return now().astimezone(zone).date()


@contextmanager
def set_to(moment: datetime) -> Iterator[None]:
    """The clock set to a moment, going on from there, while inside."""
    global _ahead
    before = _ahead
    _ahead = moment - datetime.now(UTC)
    try:
        yield
    finally:
        _ahead = before
