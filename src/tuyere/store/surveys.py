"""Keeping a survey: a configuration with its stages, wheels and keepers."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from sqlmodel import Session, col, select

from tuyere.core.drive.layout.form import PathReading
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.survey import Record, RecordedWheel
from tuyere.core.mechanics.on_wheels.wheels import Keeper
from tuyere.store.clock import now
from tuyere.store.dues import day_at
from tuyere.store.findings import Cause, Raised, settle
from tuyere.store.tables import BeltKeeper, Configuration, Drive, Stage, Wheel
from tuyere.store.write import Writer, insert, update

DESIGN_COLUMNS = {
    "design_speed": "design_speed_rad_per_s",
    "design_airflow": "design_airflow_m3_per_s",
    "design_pressure": "design_pressure_pa",
    "design_amps": "design_amps_a",
    "design_turns": "design_turns",
}


@dataclass(frozen=True)
class KeptSurvey:
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


def keep_survey(session: Session, writer: Writer, drive: Drive, seen_version: int, survey: KeptSurvey) -> Configuration:
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
