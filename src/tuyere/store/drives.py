"""Machines, drives and what is fitted to them: the queries and the writes."""

import uuid
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from sqlalchemy import select as columns
from sqlalchemy.dialects.postgresql import distinct_on
from sqlmodel import Session, col, select

from tuyere.core.drive.layout.form import PathReading
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.survey import Record, RecordedWheel
from tuyere.core.mechanics.on_wheels.wheels import Keeper
from tuyere.store.clock import now
from tuyere.store.dues import Facts, day_at, facts_of
from tuyere.store.findings import Cause, Raised, settle
from tuyere.store.people import SiteId
from tuyere.store.tables import (
    BeltKeeper,
    Configuration,
    Drive,
    Due,
    Finding,
    Machine,
    Person,
    Reading,
    ReadingValue,
    Stage,
    Wheel,
)
from tuyere.store.write import Writer, insert, update

DESIGN_COLUMNS = {
    "design_speed": "design_speed_rad_per_s",
    "design_airflow": "design_airflow_m3_per_s",
    "design_pressure": "design_pressure_pa",
    "design_amps": "design_amps_a",
    "design_turns": "design_turns",
}


def site_of_drive(drive_id: uuid.UUID) -> SiteId:
    """The site a drive stands at: the statement that finds it."""
    return select(Machine.site_id).join(Drive).where(Drive.id == drive_id)


def site_of_reading(reading_id: uuid.UUID) -> SiteId:
    """The site a reading was taken at: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Reading).where(Reading.id == reading_id)


@dataclass(frozen=True)
class FloorDrive:
    """A drive as Floor lists it: what is fitted now, the last reading, what is open. Rows of the columns that it shows, no more."""

    row: Any
    configuration_id: uuid.UUID | None
    rotation: str
    stages: list[tuple[Any, list[Any]]]
    last_reading: Any | None
    findings: list[Any]
    dues: list[Any]
    hours_per_day: float | None
    facts: Facts


def floor(session: Session, site_id: uuid.UUID) -> list[FloorDrive]:
    """Every drive of a site, by machine: a plant has hundreds, so one statement for each table and columns in place of whole rows."""
    here = select(Drive.id).join(Machine).where(Machine.site_id == site_id)
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
        .where(col(Machine.site_id) == site_id)
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
        FloorDrive(
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


@dataclass(frozen=True)
class Survey:
    """A survey to keep: the typed form, what it means in SI, and what the core finds in it, by subject."""

    configuration_id: uuid.UUID
    standing: str
    reason: str
    typed: dict[str, Any]
    design_typed: dict[str, Any]
    design_si: dict[str, float | None]
    spec: DriveSpec
    made_at: datetime | None = None
    path: PathReading | None = None
    record: Record | None = None
    family: str = ""
    said: Mapping[str, Sequence[Raised]] = field(default_factory=dict)


def keep_survey(session: Session, writer: Writer, drive: Drive, seen_version: int, survey: Survey) -> Configuration:
    """Keep what is fitted as a new configuration, and the design point; on the drive its family, if that has changed. Raises StaleError."""
    columns: dict[str, Any] = {column: survey.design_si.get(key) for key, column in DESIGN_COLUMNS.items()}
    if survey.family and survey.standing != "proposed":
        columns["family"] = survey.family
    update(session, writer, drive, seen_version, {**columns, "typed": survey.design_typed}, "kept survey")
    last = session.exec(
        select(Configuration).where(Configuration.drive_id == drive.id).order_by(col(Configuration.sequence).desc())
    ).first()
    spec = survey.spec
    configuration = Configuration(
        id=survey.configuration_id,
        drive_id=drive.id,
        sequence=(last.sequence if last else 0) + 1,
        standing=survey.standing,
        reason=survey.reason,
        driver_power_w=_value(spec.driver_power),
        driver_speed_rad_per_s=_value(spec.driver_speed),
        driver_class=spec.driver_class,
        driven_class=spec.driven_class,
        hours_per_day=spec.hours_per_day.value / 3600 if spec.hours_per_day else None,
        rotation=spec.rotation,
        made_by=writer.person_id,
        made_at=survey.made_at or now(),
        typed=survey.typed,
    )
    insert(session, writer, configuration, "kept configuration")
    stage = Stage(
        id=uuid.uuid5(configuration.id, "stage 1"),
        configuration_id=configuration.id,
        position=1,
        travel_in_m=_value(spec.slide.closer),
        travel_out_m=_value(spec.slide.away),
        centre_line_deg=spec.centre_line_deg,
    )
    if survey.record:
        _on_stage(stage, survey.record)
    if survey.path and survey.path.wheels:
        _keep_layout(session, writer, drive, stage, survey.path)
    else:
        _keep_two(session, writer, stage, survey.record.wheels if survey.record else ())
    if survey.standing != "proposed":
        made_on = day_at(session, writer.site_id, configuration.made_at)
        cause = Cause(configuration.id, "survey", f"Survey of {made_on:%d %b %Y}, {survey.standing}", configuration.made_at)
        for subject, said in survey.said.items():
            settle(session, writer, drive.id, cause, subject, said)
    return configuration


def _on_stage(stage: Stage, record: Record) -> None:
    """A stage as its kind of drive says it: its name, how many, exact centres."""
    stage.section, stage.belt, stage.belt_count, stage.centre_distance_m = record.section, record.belt, record.count, record.centre_m
    stage.lay = record.lay or stage.lay


def _keep_two(session: Session, writer: Writer, stage: Stage, wheels: Sequence[RecordedWheel]) -> None:
    insert(session, writer, stage, "kept stage")
    for position, w in enumerate(wheels, 1):
        wheel = Wheel(
            id=uuid.uuid5(stage.id, w.role),
            stage_id=stage.id,
            position=position,
            role=w.role,
            diameter_m=w.diameter_m,
            basis=w.basis,
            teeth=w.teeth,
            face=w.face,
        )
        insert(session, writer, wheel, "kept wheel")


def _keep_layout(session: Session, writer: Writer, drive: Drive, first: Stage, path: PathReading) -> None:
    """A stage for each belt with its wheels and keepers."""
    for number, (loop, places) in enumerate(zip(path.belts, path.places, strict=True), 1):
        stage = first
        if number > 1:
            stage = Stage(
                id=uuid.uuid5(first.configuration_id, f"stage {number}"),
                configuration_id=first.configuration_id,
                position=number,
                section=loop.of,
                belt=loop.made.name if loop.made else None,
                belt_count=loop.count,
            )
        on_wheels = path.on_wheels[number - 1]
        stage.lay = on_wheels.lay
        if on_wheels.carriage:
            stage.carriage_from = on_wheels.carriage.run + 1
            stage.carriage_m, stage.carriage_length_m = on_wheels.carriage.position_m, on_wheels.carriage.length_m
        insert(session, writer, stage, "kept stage")
        for position, i in enumerate(places, 1):
            w = path.wheels[i]
            wheel = Wheel(
                id=uuid.uuid5(stage.id, f"wheel {position}"),
                stage_id=stage.id,
                position=position,
                role=w.role,
                diameter_m=2 * w.rim_radius_m,
                basis="outside",
                name=w.name,
                x_m=w.x_m,
                y_m=w.y_m,
                contact=w.contact,
                face=w.face,
                shaft=w.shaft + 1,
                power_w=w.power_w or None,
                takes_up=w.take_up is not None,
            )
            insert(session, writer, wheel, "kept wheel")
        _keep_keepers(session, writer, stage, [k for b, k, _ in path.keepers if b == number - 1])


def _keep_keepers(session: Session, writer: Writer, stage: Stage, keepers: list[Keeper]) -> None:
    for position, k in enumerate(keepers, 1):
        row = BeltKeeper(
            id=uuid.uuid5(stage.id, f"keeper {position}"),
            stage_id=stage.id,
            position=position,
            name=k.name,
            side=k.side,
            state=k.state,
            x_m=k.x_m,
            y_m=k.y_m,
            gap_m=k.gap_m,
            least_m=k.least_m,
            most_m=k.most_m,
        )
        insert(session, writer, row, "kept keeper")


def _value(given: Any) -> float | None:
    return given.value if given else None


def keep_reading(session: Session, writer: Writer, reading: Reading, values: list[ReadingValue]) -> None:
    """Keep a reading and its values."""
    insert(session, writer, reading, "kept reading")
    for value in values:
        insert(session, writer, value, "kept reading value")


def strike_reading(session: Session, writer: Writer, reading: Reading, seen_version: int, struck: bool) -> None:
    """Strike a reading out, or restore it. Raises StaleError."""
    values: dict[str, Any] = {"struck_at": now() if struck else None, "struck_by": writer.person_id if struck else None}
    update(session, writer, reading, seen_version, values, "struck out reading" if struck else "restored reading")
