"""What is open at a drive, findings and dues, as every page shows it; and whether it wants attention, by the core's one rule."""

import uuid
from collections.abc import Sequence
from datetime import date, datetime
from typing import Any

from pydantic import BaseModel

from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.stations.floor.attention import Attention, Promised, Said, attention
from tuyere.core.stations.inspect.dues.engine import DueOn
from tuyere.store.clock import now
from tuyere.store.dues import Facts, Place
from tuyere.store.findings import REMARKS
from tuyere.store.tables import Due, Finding

GET_HOME = "get-home fix"


class FindingOut(BaseModel):
    """An open finding: `who` saw it and when, in their own `words`; where on the drive, and the page that answers it.

    `row_version` goes back with its change.
    """

    id: uuid.UUID
    what: str
    weight: str
    found_at: datetime
    who: str = ""
    words: str = ""
    place: str = ""
    page: str = ""
    machine_state: str = ""
    by_core: bool = False
    being_done_by: str = ""
    row_version: int = 1


class DueOut(BaseModel):
    """A due. `key`: the id of a promise, or the rule that raises it. `days` from today, below zero when late, null while not to be told.

    `said`: the day with its doubt; `because`: why it falls due.
    """

    key: str
    promised: bool
    what: str
    kind: str
    due_on: date | None
    days: int | None
    said: str
    because: str
    page: str
    resting: bool
    row_version: int


def finding_out(f: Finding, names: dict[uuid.UUID, str]) -> FindingOut:
    """A finding with everything."""
    return FindingOut(
        id=f.id,
        what=f.what,
        weight=f.weight,
        found_at=f.found_at,
        who=names.get(f.found_by, ""),
        words=f.words,
        place=f.place,
        page=f.page or "survey",
        machine_state=f.machine_state,
        row_version=f.row_version,
        by_core=bool(f.subject) and f.subject not in REMARKS,
        being_done_by=names.get(f.taken_up_by, "") if f.taken_up_by else "",
    )


def dues_out(promises: Sequence[Due], facts: Facts, family: str, hours_per_day: float | None, place: Place) -> list[DueOut]:
    """Promises and what the rules ask for, the first to fall first."""
    at = now()
    today = at.astimezone(place.zone).date()
    found = [_promise(d, (d.due_on - today).days, facts.clock(hours_per_day).laid_up(at) is not None) for d in promises]
    found += [_ruled(d, at, place) for d in facts.dues(place.rules, hours_per_day, family, at, place.zone)]
    return sorted(found, key=lambda d: (d.resting, d.days is None, d.days or 0, d.what))


def _promise(d: Any, days: int, resting: bool) -> DueOut:
    get_home = d.kind == GET_HOME
    return DueOut(
        key=str(d.id),
        promised=True,
        what=d.what,
        kind=d.kind,
        due_on=d.due_on,
        days=days,
        said=f"{d.due_on:%a} {d.due_on.day} {d.due_on:%b}",
        because=f"Moved: {d.why}" if d.why else "Promised for that day.",
        page=d.page or ("survey/home" if get_home else "tension"),
        resting=resting and not get_home,
        row_version=d.row_version,
    )


def _ruled(d: DueOn, at: datetime, place: Place) -> DueOut:
    return DueOut(
        key=d.rule.key,
        promised=False,
        what=d.rule.what,
        kind=d.rule.event,
        due_on=d.likely.astimezone(place.zone).date() if d.likely else None,
        days=d.days(at, place.zone),
        said=d.said(at, place.zone),
        because=d.because,
        page=d.rule.page or "survey",
        resting=d.resting,
        row_version=0,
    )


def wants(stations: Sequence[Verdict], last: dict[str, Any], findings: Sequence[Any], dues: Sequence[DueOut]) -> Attention:
    """Whether a drive wants attention: the same for the list of drives and its own sheet."""
    return attention(
        stations,
        Said(Tone(last["tone"]), last.get("headline", ""), "tension") if last.get("tone") else None,
        [Said(Tone(f.weight), f.what, f.page or "survey", f.subject in REMARKS) for f in findings],
        [Promised(d.days, d.what, d.page, d.resting) for d in dues],
    )
