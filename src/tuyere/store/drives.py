"""Machines, drives and what is fitted to them: the queries and the writes."""

import uuid
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select as columns
from sqlalchemy.dialects.postgresql import distinct_on
from sqlmodel import Session, col, select

from tuyere.store.clock import now
from tuyere.store.dues import Facts, facts_of
from tuyere.store.people import SiteId
from tuyere.store.people_tables import Person
from tuyere.store.tables import Configuration, Drive, Due, Finding, Machine, Reading, ReadingValue, Stage, Wheel
from tuyere.store.write import Writer, insert, update


def site_of_drive(drive_id: uuid.UUID) -> SiteId:
    """The site a drive stands at: the statement that finds it."""
    return select(Machine.site_id).join(Drive).where(Drive.id == drive_id)


def site_of_reading(reading_id: uuid.UUID) -> SiteId:
    """The site a reading was taken at: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Reading).where(Reading.id == reading_id)


@dataclass(frozen=True)
class Standing:
    """How a drive stands by its record: what is fitted now, the last reading, what is open. Only the columns that a list wants."""

    row: Any
    configuration_id: uuid.UUID | None
    rotation: str
    stages: list[tuple[Any, list[Any]]]
    last_reading: Any | None
    findings: list[Any]
    dues: list[Any]
    hours_per_day: float | None
    facts: Facts


def standing(session: Session, here: Sequence[uuid.UUID]) -> list[Standing]:
    """Those drives, by machine: one statement for each table, and columns in place of whole rows."""
    pairs = session.execute(
        columns(
            col(Drive.id),
            col(Drive.name),
            col(Drive.family),
            col(Drive.retired_at),
            col(Drive.row_version),
            col(Machine.id).label("machine_id"),
            col(Machine.name).label("machine"),
            col(Machine.kind),
            col(Machine.place),
        )
        .join(Machine, col(Drive.machine_id) == col(Machine.id))
        .where(col(Drive.id).in_(here))
        .order_by(col(Machine.name), col(Drive.name))
    ).all()
    fitted = session.execute(
        columns(col(Configuration.id), col(Configuration.drive_id), col(Configuration.rotation), col(Configuration.hours_per_day))
        .where(col(Configuration.drive_id).in_(here), col(Configuration.standing) != "proposed")
        .ext(distinct_on(col(Configuration.drive_id)))
        .order_by(col(Configuration.drive_id), col(Configuration.sequence).desc())
    ).all()
    ids = [c.id for c in fitted]
    wheels = _by(
        "stage_id",
        session.execute(
            columns(
                col(Wheel.stage_id),
                col(Wheel.role),
                col(Wheel.name),
                col(Wheel.diameter_m),
                col(Wheel.x_m),
                col(Wheel.y_m),
                col(Wheel.contact),
            )
            .join(Stage)
            .where(col(Stage.configuration_id).in_(ids))
            .order_by(col(Wheel.position))
        ),
    )
    stages = _by(
        "configuration_id",
        session.execute(
            columns(
                col(Stage.id),
                col(Stage.configuration_id),
                col(Stage.belt),
                col(Stage.section),
                col(Stage.belt_count),
                col(Stage.lay),
                col(Stage.centre_distance_m),
                col(Stage.centre_line_deg),
            )
            .where(col(Stage.configuration_id).in_(ids))
            .order_by(col(Stage.position))
        ),
    )
    by_stage = _by(
        "drive_id",
        session.execute(
            columns(col(Reading.drive_id), col(Reading.taken_at), col(Reading.summary))
            .where(col(Reading.drive_id).in_(here), col(Reading.struck_at).is_(None), col(Reading.kind) == "belt tension")
            .ext(distinct_on(col(Reading.drive_id), col(Reading.stage_position)))
            .order_by(col(Reading.drive_id), col(Reading.stage_position), col(Reading.taken_at).desc())
        ),
    )
    readings = {drive_id: weightiest(rows) for drive_id, rows in by_stage.items()}
    findings = _by(
        "drive_id",
        session.execute(
            columns(
                col(Finding.drive_id),
                col(Finding.id),
                col(Finding.what),
                col(Finding.weight),
                col(Finding.found_at),
                col(Finding.page),
                col(Finding.taken_up_at),
                col(Finding.words),
                col(Finding.subject),
            )
            .where(col(Finding.drive_id).in_(here), col(Finding.closed_at).is_(None))
            .order_by(col(Finding.found_at))
        ),
    )
    dues = _by(
        "drive_id",
        session.execute(
            columns(
                col(Due.drive_id),
                col(Due.id),
                col(Due.what),
                col(Due.kind),
                col(Due.due_on),
                col(Due.why),
                col(Due.page),
                col(Due.row_version),
            )
            .where(col(Due.drive_id).in_(here), col(Due.done_at).is_(None))
            .order_by(col(Due.due_on))
        ),
    )
    newest, facts = {c.drive_id: c for c in fitted}, facts_of(session, here)
    return [
        Standing(
            row,
            newest[row.id].id if row.id in newest else None,
            newest[row.id].rotation if row.id in newest else "",
            [(s, wheels[s.id]) for s in stages[newest[row.id].id]] if row.id in newest else [],
            readings.get(row.id),
            findings[row.id],
            dues[row.id],
            newest[row.id].hours_per_day if row.id in newest else None,
            facts[row.id],
        )
        for row in pairs
    ]


def _by(column: str, rows: Iterable[Any]) -> dict[uuid.UUID, list[Any]]:
    found: dict[uuid.UUID, list[Any]] = defaultdict(list)
    for row in rows:
        found[getattr(row, column)].append(row)
    return found


def current_configuration(session: Session, drive_id: uuid.UUID) -> Configuration | None:
    """What is fitted to a drive now."""
    wanted = select(Configuration).where(Configuration.drive_id == drive_id, Configuration.standing != "proposed")
    return session.exec(wanted.order_by(col(Configuration.sequence).desc()).limit(1)).first()


def proposed_configuration(session: Session, drive_id: uuid.UUID) -> Configuration | None:
    """The newest proposal, unless something has been fitted since."""
    newest = session.exec(
        select(Configuration).where(Configuration.drive_id == drive_id).order_by(col(Configuration.sequence).desc()).limit(1)
    ).first()
    return newest if newest and newest.standing == "proposed" else None


def last_speed(session: Session, drive_id: uuid.UUID) -> Reading | None:
    """The newest speed reading of a drive that is not struck out."""
    wanted = select(Reading).where(Reading.drive_id == drive_id, Reading.kind == "shaft speed", col(Reading.struck_at).is_(None))
    return session.exec(wanted.order_by(col(Reading.taken_at).desc()).limit(1)).first()


_WEIGHT = ("good", "open", "watch", "stop")


def weightiest(newest: Iterable[Any]) -> Any | None:
    """Of each stage's newest tension reading the one that wants the most; of equals, the newest."""

    def weight(row: Any) -> tuple[int, datetime]:
        tone = row.summary.get("tone", "")
        return (_WEIGHT.index(tone) if tone in _WEIGHT else -1, row.taken_at)

    return max(newest, key=weight, default=None)


def last_tension(session: Session, drive_id: uuid.UUID) -> Reading | None:
    """The tension reading of a drive that stands for it: the weightiest of its stages' newest."""
    newest: dict[int, Reading] = {}
    for row in tensions(session, drive_id):
        newest.setdefault(row.stage_position, row)
    return weightiest(newest.values())


def tensions(session: Session, drive_id: uuid.UUID, most: int = 24) -> list[Reading]:
    """The tension readings of a drive that are not struck out, newest first."""
    wanted = select(Reading).where(Reading.drive_id == drive_id, Reading.kind == "belt tension", col(Reading.struck_at).is_(None))
    return list(session.exec(wanted.order_by(col(Reading.taken_at).desc()).limit(most)))


def alignments(session: Session, drive_id: uuid.UUID, most: int = 24) -> list[tuple[Reading, str]]:
    """The alignments of a drive that are not struck out, newest first, and who read each."""
    wanted = select(Reading, Person.name).join(Person, col(Person.id) == col(Reading.taken_by))
    kept = wanted.where(Reading.drive_id == drive_id, Reading.kind == "alignment", col(Reading.struck_at).is_(None))
    return list(session.exec(kept.order_by(col(Reading.taken_at).desc()).limit(most)))


def wears(session: Session, drive_id: uuid.UUID, most: int = 200) -> list[tuple[Reading, str]]:
    """The wear measured on a drive that is not struck out, oldest first, and who measured each."""
    wanted = select(Reading, Person.name).join(Person, col(Person.id) == col(Reading.taken_by))
    kept = wanted.where(Reading.drive_id == drive_id, Reading.kind == "wear", col(Reading.struck_at).is_(None))
    return list(reversed(session.exec(kept.order_by(col(Reading.taken_at).desc()).limit(most)).all()))


def values_of(session: Session, reading_id: uuid.UUID) -> list[ReadingValue]:
    """The values of a reading, as typed and in SI."""
    return list(session.exec(select(ReadingValue).where(ReadingValue.reading_id == reading_id)))


def last_slip(session: Session, drive_id: uuid.UUID) -> float | None:
    """The slip that was read last, a share."""
    kept = last_speed(session, drive_id)
    found = kept.summary.get("figures", {}).get("slip") if kept else None
    return float(found["si"]) if found else None


def speeds_off_design(session: Session, drive_id: uuid.UUID) -> list[float]:
    """How far each kept speed lay from the design speed at the time (a share), oldest first."""
    kept = session.exec(
        select(Reading)
        .where(Reading.drive_id == drive_id, Reading.kind == "shaft speed", col(Reading.struck_at).is_(None))
        .order_by(col(Reading.taken_at))
    )
    return [r.summary["figures"]["off_design"]["si"] for r in kept if "off_design" in r.summary.get("figures", {})]


def add_drive(session: Session, writer: Writer, machine: Machine, drive: Drive) -> None:
    """A new drive, with its machine when that is new too."""
    if session.get(Machine, machine.id) is None:
        insert(session, writer, machine, "added machine")
    insert(session, writer, drive, "added drive")


@dataclass(frozen=True)
class Details:
    """What a drive and its machine are called, and whether the drive is put away."""

    name: str
    part_number: str
    note: str
    machine: str
    machine_kind: str
    place: str
    retired: bool


def change_details(session: Session, writer: Writer, drive: Drive, seen_versions: tuple[int, int], details: Details) -> None:
    """Change the details of a drive (seen at the first version) and its machine (the second). Raises StaleError."""
    machine = session.get_one(Machine, drive.machine_id)
    names = {"name": details.machine.strip(), "kind": details.machine_kind.strip(), "place": details.place.strip()}
    if any(getattr(machine, column) != value for column, value in names.items()):
        update(session, writer, machine, seen_versions[1], names, "renamed machine")
    retired_at = (drive.retired_at or now()) if details.retired else None
    own = {"name": details.name.strip(), "part_number": details.part_number.strip(), "note": details.note.strip(), "retired_at": retired_at}
    if any(getattr(drive, column) != value for column, value in own.items()):
        action = "changed details" if bool(drive.retired_at) == details.retired else "put away" if details.retired else "brought back"
        update(session, writer, drive, seen_versions[0], own, action)


def keep_reading(session: Session, writer: Writer, reading: Reading, values: list[ReadingValue]) -> None:
    """Keep a reading and its values."""
    insert(session, writer, reading, "kept reading")
    for value in values:
        insert(session, writer, value, "kept reading value")


def strike_reading(session: Session, writer: Writer, reading: Reading, seen_version: int, struck: bool) -> None:
    """Strike a reading out, or restore it. Raises StaleError."""
    values: dict[str, Any] = {"struck_at": now() if struck else None, "struck_by": writer.person_id if struck else None}
    update(session, writer, reading, seen_version, values, "struck out reading" if struck else "restored reading")
