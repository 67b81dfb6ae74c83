"""Drives of a site as they are listed: found, filtered, counted and told page by page, out of what is kept of each."""

import base64
import json
import uuid
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from sqlalchemy import ColumnElement, func, tuple_
from sqlalchemy import select as columns
from sqlalchemy.orm import defer
from sqlmodel import Session, col, select

from tuyere.core.stations.floor.attention import Level
from tuyere.record.state import LEVELS, level_on
from tuyere.store.state_tables import DriveDue, DriveState
from tuyere.store.tables import Drive, Finding, Machine

MOST_NAMES, MOST_DUES, MOST_WORDS = 30, 60, 12
NOWHERE = "-"  # the area of machines whose place nobody gave
NOW = (Level.STOP, Level.OVERDUE, Level.WATCH)  # what a hand mends first


class CursorError(ValueError):
    """Where a page ended, as nobody has told it."""


@dataclass(frozen=True)
class Asked:
    """What is looked for: words, an area, levels by name, those put away; from where on, and how many."""

    find: str = ""
    area: str = ""
    levels: Sequence[str] = ()
    away: bool = False
    after: str = ""
    limit: int = 100


@dataclass(frozen=True)
class Row:
    """A drive of the list."""

    state: DriveState
    name: str
    family: str
    machine_id: uuid.UUID
    machine: str
    machine_kind: str
    place: str
    findings: Sequence[Finding] = ()
    dues: Sequence[DriveDue] = ()


@dataclass(frozen=True)
class Area:
    """A part of the site, its drives, and how many of them want attention now."""

    name: str
    drives: int
    attention: int


@dataclass(frozen=True)
class Page:
    """As many drives as were asked for; `next`: what to ask for to have those after them. `here`, `away`: of the whole site."""

    rows: list[Row]
    next: str
    counts: dict[str, int]
    areas: list[Area]
    here: int
    away: int


def page(session: Session, site_id: uuid.UUID, asked: Asked, today: date) -> Page:
    """What wants the most attention first, then by machine. Raises CursorError."""
    level, state = level_on(today), DriveState
    found = [col(state.site_id) == site_id, col(state.retired).is_(asked.away), *_found(asked.find)]
    counts, areas = _counted(session, found, level, asked.area)
    if asked.area:
        found.append(col(state.area) == _area(asked.area))
    if asked.levels:
        found.append(level.in_([LEVELS.index(Level(x)) for x in asked.levels if x in set(Level)]))
    order = (level, col(Machine.name), col(Drive.name), col(state.drive_id))
    if asked.after:
        found.append(tuple_(*order) > tuple_(*_read(asked.after)))
    wanted = (
        columns(
            state,
            col(Drive.name),
            col(Drive.family),
            col(Machine.id),
            col(Machine.name),
            col(Machine.kind),
            col(Machine.place),
            level,
        )
        .join(Drive, col(Drive.id) == col(state.drive_id))
        .join(Machine, col(Machine.id) == col(Drive.machine_id))
        .where(*found)
        .order_by(*order)
        .limit(asked.limit + 1)
        .options(*(defer(col(c)) for c in (state.words, state.stations, state.solved_for)))  # type: ignore[arg-type]
    )
    rows: Sequence[Any] = session.execute(wanted).all()
    some = rows[: asked.limit]
    ids = [r[0].drive_id for r in some]
    findings, dues_of = _open_findings(session, ids), _dues(session, ids)
    last = some[-1] if len(rows) > asked.limit else None
    many = columns(col(state.retired), func.count()).where(col(state.site_id) == site_id).group_by(col(state.retired))
    whole = dict(session.execute(many).all())
    return Page(
        [Row(r[0], r[1], r[2], r[3], r[4], r[5], r[6], findings[r[0].drive_id], dues_of[r[0].drive_id]) for r in some],
        _told([last[7], last[4], last[1], str(last[0].drive_id)]) if last else "",
        counts,
        areas,
        whole.get(False, 0),
        whole.get(True, 0),
    )


def _counted(
    session: Session, found: Sequence[ColumnElement[bool]], level: ColumnElement[int], area: str
) -> tuple[dict[str, int], list[Area]]:
    """How many match, by level and by area; by level only of the area that is asked for."""
    wanted = columns(col(DriveState.area), level, func.count()).where(*found).group_by(col(DriveState.area), level)
    counts, areas = {x.value: 0 for x in LEVELS}, defaultdict[str, list[int]](lambda: [0, 0])
    for name, rank, many in session.execute(wanted):
        areas[name][0] += many
        areas[name][1] += many if LEVELS[rank] in NOW else 0
        if not area or name == _area(area):
            counts[LEVELS[rank].value] += many
    return counts, [Area(name, *areas[name]) for name in sorted(areas)]


def _area(asked: str) -> str:
    """As it is kept."""
    return "" if asked == NOWHERE else asked


def _found(find: str) -> list[ColumnElement[bool]]:
    """Every word of it somewhere in what a drive is found by."""
    return [col(DriveState.words).contains(word, autoescape=True) for word in find.lower().split()[:MOST_WORDS]]


def _told(at: list[Any]) -> str:
    return base64.urlsafe_b64encode(json.dumps(at).encode()).decode()


def _read(after: str) -> tuple[int, str, str, uuid.UUID]:
    try:
        rank, machine, name, drive_id = json.loads(base64.urlsafe_b64decode(after.encode()))
        return int(rank), str(machine), str(name), uuid.UUID(drive_id)
    except (ValueError, TypeError, AttributeError) as error:
        raise CursorError from error


def _open_findings(session: Session, ids: Sequence[uuid.UUID]) -> dict[uuid.UUID, list[Finding]]:
    found: dict[uuid.UUID, list[Finding]] = defaultdict(list)
    wanted = select(Finding).where(col(Finding.drive_id).in_(ids), col(Finding.closed_at).is_(None)).order_by(col(Finding.found_at))
    for f in session.exec(wanted.options(defer(col(Finding.told)))):  # type: ignore[arg-type]
        found[f.drive_id].append(f)
    return found


def _dues(session: Session, ids: Sequence[uuid.UUID]) -> dict[uuid.UUID, list[DriveDue]]:
    found: dict[uuid.UUID, list[DriveDue]] = defaultdict(list)
    for d in session.exec(select(DriveDue).where(col(DriveDue.drive_id).in_(ids))):
        found[d.drive_id].append(d)
    return found


def dues(session: Session, site_id: uuid.UUID, until: date, area: str = "", find: str = "") -> tuple[list[tuple[DriveDue, str]], int]:
    """What falls due until a day at drives that are not put away, the first to fall first, with the machine's name; how many in all."""
    here = [col(DriveDue.site_id) == site_id, ~col(DriveDue.resting), col(DriveDue.due_on) <= until, ~col(DriveState.retired)]
    here += _found(find)
    if area:
        here.append(col(DriveState.area) == _area(area))
    told = col(DriveState.drive_id) == col(DriveDue.drive_id)
    wanted = (
        select(DriveDue, Machine.name)
        .join(DriveState, told)
        .join(Drive, col(Drive.id) == col(DriveDue.drive_id))
        .join(Machine, col(Machine.id) == col(Drive.machine_id))
        .where(*here)
        .order_by(col(DriveDue.due_on), col(Machine.name), col(DriveDue.what), col(DriveDue.drive_id))
        .limit(MOST_DUES)
    )
    many = session.execute(columns(func.count()).select_from(DriveDue).join(DriveState, told).where(*here)).scalar_one()
    return list(session.exec(wanted).all()), many


def machines(session: Session, site_id: uuid.UUID, find: str) -> list[tuple[uuid.UUID, str]]:
    """Machines whose names hold what is typed, those that begin so first."""
    name, typed = func.lower(col(Machine.name)), find.strip().lower()
    wanted = columns(col(Machine.id), col(Machine.name)).where(col(Machine.site_id) == site_id, name.contains(typed, autoescape=True))
    return list(session.execute(wanted.order_by(~name.startswith(typed, autoescape=True), col(Machine.name)).limit(MOST_NAMES)))
