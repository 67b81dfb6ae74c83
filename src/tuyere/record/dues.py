"""What is open of a drive's dues: what was promised, and what the rules ask for, as rows that say nothing of today."""

import uuid
from collections.abc import Sequence
from datetime import datetime
from typing import Any, NamedTuple

from tuyere.core.stations.inspect.dues.engine import DueOn
from tuyere.store.dues import Facts, Place
from tuyere.store.state_tables import DriveDue

GET_HOME = "get-home fix"


class Habits(NamedTuple):
    """Which kind of drive it is, and how many hours a day it runs as surveyed."""

    family: str
    hours_per_day: float | None


def open_dues(
    of: tuple[uuid.UUID, uuid.UUID], promises: Sequence[Any], facts: Facts, habits: Habits, place: Place, at: datetime
) -> list[DriveDue]:
    """Promises and what the rules ask for, of a drive and its site. `at`: what is laid up then rests."""
    (drive_id, site_id), (family, hours_per_day) = of, habits
    resting = facts.clock(hours_per_day).laid_up(at) is not None
    found = [_promise(drive_id, site_id, d, resting) for d in promises]
    return found + [_ruled(drive_id, site_id, d, at, place) for d in facts.dues(place.rules, hours_per_day, family, at, place.zone)]


def _promise(drive_id: uuid.UUID, site_id: uuid.UUID, d: Any, resting: bool) -> DriveDue:
    get_home = d.kind == GET_HOME
    return DriveDue(
        drive_id=drive_id,
        key=str(d.id),
        site_id=site_id,
        promised=True,
        what=d.what,
        kind=d.kind,
        due_on=d.due_on,
        said=f"{d.due_on:%a} {d.due_on.day} {d.due_on:%b}",
        because=f"Moved: {d.why}" if d.why else "Promised for that day.",
        page=d.page or ("survey/home" if get_home else "tension"),
        resting=resting and not get_home,
        row_version=d.row_version,
    )


def _ruled(drive_id: uuid.UUID, site_id: uuid.UUID, d: DueOn, at: datetime, place: Place) -> DriveDue:
    return DriveDue(
        drive_id=drive_id,
        key=d.rule.key,
        site_id=site_id,
        promised=False,
        what=d.rule.what,
        kind=d.rule.event,
        due_on=d.likely.astimezone(place.zone).date() if d.likely else None,
        said=d.said(at, place.zone),
        because=d.because,
        page=d.rule.page or "survey",
        resting=d.resting,
        row_version=0,
    )
