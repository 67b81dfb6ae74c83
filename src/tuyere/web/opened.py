"""What is open at a drive, findings and dues, as every page shows it; and whether it wants attention, by the core's one rule."""

import uuid
from collections.abc import Sequence
from datetime import date, datetime

from pydantic import BaseModel

from tuyere.store.findings import REMARKS
from tuyere.store.state_tables import DriveDue
from tuyere.store.tables import Finding


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


def dues_out(found: Sequence[DriveDue], today: date) -> list[DueOut]:
    """Open dues as they are told on a day, the first to fall first."""
    rows = [DueOut(days=(d.due_on - today).days if d.due_on else None, **d.model_dump(exclude={"drive_id", "site_id"})) for d in found]
    return sorted(rows, key=lambda d: (d.resting, d.days is None, d.days or 0, d.what))
