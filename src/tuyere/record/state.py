"""How every drive stands, kept by the write that changes it: what the floor, its search and its dues ask, so that nothing is solved there.

Whoever writes to the record calls `settle` in the same transaction. What all drives of a site go by (its rules, its days, its own ratings)
and a new version of the software leave them stale; `rebuild` works them out again, some at a time, and `compare` says where what is kept
is not what would be worked out.
"""

import uuid
from collections import defaultdict
from collections.abc import Iterable, Sequence
from datetime import date, datetime
from typing import Any

from sqlalchemy import case, delete, exists, func, insert, literal, text, update
from sqlalchemy import select as columns
from sqlalchemy.sql.elements import ColumnElement
from sqlmodel import Session, col, select

from tuyere import __version__
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.stations.floor.attention import SOON_DAYS, Attention, Level, Promised, Said, with_due, without_dues
from tuyere.core.stations.floor.weighs import weighs
from tuyere.record.dues import Habits, open_dues
from tuyere.record.sketch import sketch_of
from tuyere.record.surveyed import answer_on, ratings_at
from tuyere.store import drives as store
from tuyere.store.clock import now
from tuyere.store.dues import place_of
from tuyere.store.findings import REMARKS
from tuyere.store.state_tables import DriveDue, DriveState
from tuyere.store.tables import Configuration, Drive, Machine
from tuyere.store.write import touched

LEVELS = tuple(Level)
AT_ONCE = 60  # of a whole site: as many are worked out by the write itself; the rest wait for a rebuild
_CHUNK = 100


def settle(session: Session, site_id: uuid.UUID) -> None:
    """Keep what the transaction so far has changed of how drives stand."""
    session.flush()
    found = touched(session)
    ids = set(found.drives)
    if found.machines:
        ids |= set(session.exec(select(Drive.id).where(col(Drive.machine_id).in_(found.machines))))
    if found.site:  # alone: nobody keeps meanwhile what the old rules said
        session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 0))"), {"key": f"drive states {site_id}"})
        session.execute(update(DriveState).where(col(DriveState.site_id) == site_id).values(stale=True))
    refresh(session, site_id, ids)
    if found.site:
        refresh(session, site_id, _stale(session, site_id, AT_ONCE))


def _stale(session: Session, site_id: uuid.UUID, most: int) -> Sequence[uuid.UUID]:
    return session.exec(select(DriveState.drive_id).where(DriveState.site_id == site_id, col(DriveState.stale)).limit(most)).all()


def refresh(session: Session, site_id: uuid.UUID, ids: Iterable[uuid.UUID]) -> None:
    """Work those drives of a site out again and keep it. One at a time for each drive: who comes second sees what the first has kept."""
    wanted = sorted(set(ids))
    if wanted:
        session.execute(text("SELECT pg_advisory_xact_lock_shared(hashtextextended(:key, 0))"), {"key": f"drive states {site_id}"})
    for one in wanted:
        session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 0))"), {"key": f"drive state {one}"})
    for start in range(0, len(wanted), _CHUNK):
        some = wanted[start : start + _CHUNK]
        rows = worked_out(session, site_id, some)
        for table, column in ((DriveDue, DriveDue.drive_id), (DriveState, DriveState.drive_id)):
            session.execute(delete(table).where(col(column).in_(some)))
        if rows:
            session.execute(insert(DriveState), [state.model_dump() for state, _ in rows])
        if dues := [due.model_dump() for _, open_ in rows for due in open_]:
            session.execute(insert(DriveDue), dues)


def worked_out(session: Session, site_id: uuid.UUID, ids: Sequence[uuid.UUID]) -> list[tuple[DriveState, list[DriveDue]]]:
    """How those drives stand by their record, with their open dues. Their stations are solved only where they would say something else."""
    place, at = place_of(session, site_id), now()
    list_id, own = ratings_at(session, site_id)
    kept = {s.drive_id: (s.solved_for, s.stations) for s in session.exec(select(DriveState).where(col(DriveState.drive_id).in_(ids)))}
    seen = _seen(session, ids)
    found = []
    for item in store.standing(session, ids):
        row, last = item.row, item.last_reading
        solved_for = f"{item.configuration_id or ''} {row.row_version} {list_id or ''} {__version__}"
        before, stations = kept.get(row.id, ("", []))
        if before != solved_for:
            stations = _stations(session, row.id, item.configuration_id, own)
        dues = open_dues((row.id, site_id), item.dues, item.facts, Habits(row.family, item.hours_per_day), place, at)
        tone, headline = (last.summary.get("tone", ""), last.summary.get("headline", "")) if last else ("", "")
        said = without_dues(
            [Verdict(topic, Tone(weight), what, "", standing=standing) for topic, weight, what, standing in stations],
            Said(Tone(tone), headline, "tension") if tone else None,
            [Said(Tone(f.weight), f.what, f.page or "survey", f.subject in REMARKS) for f in item.findings],
        )
        first = min((d for d in dues if d.due_on and not d.resting), key=lambda d: (d.due_on or date.max, d.what), default=None)
        named = (" × ".join(str(p) for p in (stage.belt_count, stage.belt or stage.section) if p) for stage, _ in item.stages)
        belts = ", ".join(n for n in named if n)
        words = (row.machine, row.name, row.place, row.kind, belts, row.family, *(w for f in item.findings for w in (f.what, f.words)))
        state = DriveState(
            drive_id=row.id,
            site_id=site_id,
            retired=row.retired_at is not None,
            said=LEVELS.index(said.level),
            why=said.reason,
            page=said.page,
            due_on=first.due_on if first else None,
            due_what=first.what if first else "",
            due_page=first.page if first else "",
            tension_at=last.taken_at if last else None,
            tension_tone=tone,
            tension_says=headline,
            seen_at=seen.get(row.id),
            area=area_of(row.place),
            belts=belts,
            words=" ".join([*words, *(d.what for d in dues)]).lower(),
            sketch=sketch_of(item),
            stations=stations,
            solved_for=solved_for,
        )
        found.append((state, dues))
    return found


def area_of(place: str) -> str:
    """The area that a place lies in: what stands before its first comma.

    >>> area_of("Intake, head floor"), area_of("Yard")
    ('Intake', 'Yard')
    """
    return place.partition(",")[0].strip()


def _stations(session: Session, drive_id: uuid.UUID, configuration_id: uuid.UUID | None, own: OwnRatings) -> list[Any]:
    if configuration_id is None:
        return []
    on = answer_on(session.get_one(Drive, drive_id), session.get_one(Configuration, configuration_id), own)
    return [[v.topic, v.tone.value, v.headline, v.standing] for v in weighs(on)]


def _seen(session: Session, ids: Sequence[uuid.UUID]) -> dict[uuid.UUID, datetime]:
    """When somebody last read something at each."""
    wanted = text(
        "SELECT d.id, r.taken_at FROM unnest(CAST(:ids AS uuid[])) AS d (id), LATERAL (SELECT taken_at FROM reading"
        " WHERE reading.drive_id = d.id AND struck_at IS NULL ORDER BY taken_at DESC LIMIT 1) AS r"
    )
    return dict(session.execute(wanted, {"ids": list(ids)}).all())


def attention_of(state: Any, today: date) -> Attention:
    """Whether a drive wants attention today, by what is kept of it."""
    due = Promised((state.due_on - today).days, state.due_what, state.due_page) if state.due_on else None
    return with_due(Attention(LEVELS[state.said], state.why, state.page), due)


def level_on(today: date) -> ColumnElement[int]:
    """The same as a column, as the place in the order of levels."""
    said, due_on = col(DriveState.said), col(DriveState.due_on)
    days = due_on - today
    return case(
        (said == LEVELS.index(Level.STOP), said),
        (days <= 0, LEVELS.index(Level.OVERDUE)),
        (said == LEVELS.index(Level.WATCH), said),
        (days <= SOON_DAYS, LEVELS.index(Level.SOON)),
        else_=said,
    )


def of_drive(session: Session, site_id: uuid.UUID, drive_id: uuid.UUID) -> tuple[DriveState, list[DriveDue]]:
    """How one drive stands, as it is kept; worked out anew where that is stale."""
    state = session.get(DriveState, drive_id)
    if state is None or state.stale:
        return worked_out(session, site_id, [drive_id])[0]
    return state, list(session.exec(select(DriveDue).where(DriveDue.drive_id == drive_id)))


def mark(session: Session) -> int:
    """Leave stale what another version of the software worked out, or nobody; gives how many drives are stale now."""
    session.execute(update(DriveState).where(~col(DriveState.solved_for).endswith(f" {__version__}")).values(stale=True))
    unknown = columns(col(Drive.id), col(Machine.site_id), literal(True)).join(Machine, col(Machine.id) == col(Drive.machine_id))
    missing = unknown.where(~exists().where(col(DriveState.drive_id) == col(Drive.id)))
    session.execute(insert(DriveState).from_select(["drive_id", "site_id", "stale"], missing, include_defaults=False))
    session.commit()
    return session.exec(select(func.count()).select_from(DriveState).where(col(DriveState.stale))).one()


def rebuild(session: Session, site_id: uuid.UUID, stale_only: bool = True) -> int:
    """Work out again what is stale, or everything; gives how many drives. Commits as it goes, and may be stopped anywhere."""
    here = select(DriveState.drive_id).where(DriveState.site_id == site_id)
    ids = session.exec((here.where(col(DriveState.stale)) if stale_only else here).order_by(col(DriveState.drive_id))).all()
    for start in range(0, len(ids), _CHUNK):
        refresh(session, site_id, ids[start : start + _CHUNK])
        session.commit()
    return len(ids)


def compare(session: Session, site_id: uuid.UUID) -> list[str]:
    """Where what is kept is not what would be worked out: the drive, the column and both values."""
    ids = session.exec(select(Drive.id).join(Machine).where(Machine.site_id == site_id).order_by(col(Drive.id))).all()
    wrong: list[str] = []
    for start in range(0, len(ids), _CHUNK):
        some = ids[start : start + _CHUNK]
        kept = {s.drive_id: s.model_dump() for s in session.exec(select(DriveState).where(col(DriveState.drive_id).in_(some)))}
        dues: dict[uuid.UUID, dict[str, Any]] = defaultdict(dict)
        for d in session.exec(select(DriveDue).where(col(DriveDue.drive_id).in_(some))):
            dues[d.drive_id][d.key] = d.model_dump()
        for state, open_ in worked_out(session, site_id, some):
            wrong += _differs(f"{state.drive_id}", kept.get(state.drive_id, {}), state.model_dump())
            wrong += _differs(f"{state.drive_id} dues", dues[state.drive_id], {d.key: d.model_dump() for d in open_})
    return wrong


def _differs(of: str, kept: dict[str, Any], found: dict[str, Any]) -> list[str]:
    return [f"{of}: {k}: kept {kept.get(k)!r}, worked out {found.get(k)!r}" for k in sorted({*kept, *found}) if kept.get(k) != found.get(k)]
