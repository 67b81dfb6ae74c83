"""One drive: its sheet, and keeping a survey."""

import uuid
from collections.abc import Sequence
from datetime import datetime
from typing import Literal

from flask import Response
from pydantic import BaseModel, Field
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session, select

from tuyere.core.basis.verdict import Problem, Tone
from tuyere.core.drive.answer import Answer
from tuyere.core.drive.layout.form import PathReading
from tuyere.core.kinds import registry
from tuyere.core.kinds.fitted import SMALL
from tuyere.core.kinds.survey import Part, Record
from tuyere.core.stations.floor.attention import Level
from tuyere.core.stations.inspect.dues.hours import SETTLES_H
from tuyere.core.stations.speed.station import felt
from tuyere.record.entry import MOST_VERSIONS, Entry, Strict
from tuyere.record.forms import SurveyForm, WithSurvey
from tuyere.record.state import attention_of, of_drive
from tuyere.store import drives, surveys
from tuyere.store.clock import now
from tuyere.store.dues import Facts, day_at, facts_of, laid_up
from tuyere.store.dues_tables import LaidUp
from tuyere.store.findings import Raised, open_findings
from tuyere.store.people_tables import Person, Role
from tuyere.store.tables import Configuration, Drive, Machine, Reading
from tuyere.store.write import Outcome, Writer
from tuyere.web.alignments_kept import AlignmentKept, alignments_kept
from tuyere.web.answers import answer
from tuyere.web.choices import FamilyOut, family_out
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.floor import explain_clash
from tuyere.web.machine_is import machine_is
from tuyere.web.opened import DueOut, FindingOut, dues_out, finding_out
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.state import reading, write
from tuyere.web.surveyed import answer_of, answer_on, survey_form

blueprint = routes("drives", "/api", "drives")


class DrivePath(BaseModel):
    """A drive."""

    drive_id: uuid.UUID


class ProposedOut(BaseModel):
    """A proposal that is not fitted yet, as typed."""

    id: uuid.UUID
    reason: str
    made_at: datetime
    family: str
    survey: SurveyForm


class LastSpeedOut(BaseModel):
    """The speeds read last of what is fitted now, as typed."""

    taken_at: datetime
    tach_driver: Entry | None
    tach_driven: Entry


class TensionKept(BaseModel):
    """A tension reading on the record: of which stage, when, how, the average of a strand (N) and its doubt (k = 1), and what was said."""

    id: uuid.UUID
    stage: int
    at: datetime
    method: str
    belt_state: str
    tension: float
    std: float
    headline: str
    tone: str


class HoursOut(BaseModel):
    """How a drive's running hours are known: hours a day and from where, what its meter showed last, since when its machine is laid up.

    `set_at`, `set_hours`: when the set that is on was fitted, and about how many hours it ran since; `settling`: in its first hours.
    """

    machine_id: uuid.UUID
    per_day: float | None
    source: str
    last: float | None
    last_at: datetime | None
    laid_up_since: datetime | None
    lay_up_id: uuid.UUID | None
    lay_up_version: int
    set_at: datetime | None
    set_hours: float | None
    settling: bool


class DriveOut(BaseModel):
    """A drive with what is fitted now, as typed; `row_version` goes back with the next survey.

    `level`, `why` and `page`: whether it wants attention, as the list of drives has it.
    """

    id: uuid.UUID
    name: str
    family: str
    kind: FamilyOut
    machine: str
    machine_kind: str
    place: str
    part_number: str
    note: str
    row_version: int
    machine_row_version: int
    retired_at: datetime | None
    configuration_id: uuid.UUID | None
    configuration_at: datetime | None
    survey: SurveyForm
    machine_is: list[str] = Field(description="what is so of its machine, as answered before a job, else as guessed")
    proposed: ProposedOut | None
    last_speed: LastSpeedOut | None
    tensions: list[TensionKept]
    alignments: list[AlignmentKept]
    level: Level
    why: str
    page: str
    findings: list[FindingOut]
    dues: list[DueOut]
    hours: HoursOut


@blueprint.get("/drives/<uuid:drive_id>", summary="A drive and what is fitted", responses={"200": DriveOut})
@at_site_of_drive(Role.VIEWER)
def get_drive(path: DrivePath) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        machine = session.get_one(Machine, drive.machine_id)
        configuration = drives.current_configuration(session, drive.id)
        survey = survey_form(drive, configuration)
        findings = open_findings(session, drive.id)
        facts, (state, open_) = facts_of(session, [drive.id])[drive.id], of_drive(session, machine.site_id, drive.id)
        names, hours = dict(session.exec(select(Person.id, Person.name)).all()), configuration.hours_per_day if configuration else None
        today = day_at(session, machine.site_id, now())
        wanted = attention_of(state, today)
        return answer(
            DriveOut(
                id=drive.id,
                name=drive.name,
                family=drive.family,
                kind=family_out(registry.family(drive.family)),
                machine=machine.name,
                machine_kind=machine.kind,
                place=machine.place,
                part_number=drive.part_number,
                note=drive.note,
                row_version=drive.row_version,
                machine_row_version=machine.row_version,
                retired_at=drive.retired_at,
                configuration_id=configuration.id if configuration else None,
                configuration_at=configuration.made_at if configuration else None,
                survey=survey,
                machine_is=sorted(machine_is(machine, drive, survey.typed()).facts),
                proposed=_proposed(session, drive),
                last_speed=_last_speed(session, drive, configuration),
                tensions=[t for r in drives.tensions(session, drive.id) if (t := _tension(r))],
                alignments=alignments_kept(session, drive.id),
                findings=[finding_out(f, names) for f in findings],
                dues=dues_out(open_, today),
                level=wanted.level,
                why=wanted.reason,
                page=wanted.page,
                hours=_hours(machine.id, facts, hours, laid_up(session, machine.id)),
            )
        )


def _tension(row: Reading) -> TensionKept | None:
    found = row.summary.get("figures", {}).get("strand_average")
    if not found:
        return None
    return TensionKept(
        id=row.id,
        stage=row.stage_position,
        at=row.taken_at,
        method=row.method,
        belt_state=row.belt_state,
        tension=found["si"],
        std=found["std_si"],
        headline=row.summary.get("headline", ""),
        tone=row.summary.get("tone", ""),
    )


def _hours(machine_id: uuid.UUID, facts: Facts, per_day: float | None, rest: LaidUp | None) -> HoursOut:
    clock = facts.clock(per_day)
    last = max(facts.hours, key=lambda m: m.at, default=None)
    fitted = facts.fitted("new set")
    ran = clock.between(fitted, now()) if fitted else None
    return HoursOut(
        machine_id=machine_id,
        per_day=clock.pace.hours_per_day if clock.pace else None,
        source=clock.pace.source if clock.pace else "",
        last=last.hours if last else None,
        last_at=last.at if last else None,
        laid_up_since=rest.began_at if rest else None,
        lay_up_id=rest.id if rest else None,
        lay_up_version=rest.row_version if rest else 0,
        set_at=fitted,
        set_hours=ran[1] if ran else None,
        settling=ran is not None and ran[1] < SETTLES_H,
    )


def _proposed(session: Session, drive: Drive) -> ProposedOut | None:
    found = drives.proposed_configuration(session, drive.id)
    if found is None:
        return None
    survey = survey_form(drive, found)
    return ProposedOut(id=found.id, reason=found.reason, made_at=found.made_at, family=survey.family, survey=survey)


def _last_speed(session: Session, drive: Drive, configuration: Configuration | None) -> LastSpeedOut | None:
    """Only of what is fitted now: another pair of wheels was another ratio."""
    kept = drives.last_speed(session, drive.id)
    if kept is None or configuration is None or kept.configuration_id != configuration.id:
        return None
    typed = {v.quantity: Entry(text=v.typed_text, unit=v.typed_unit) for v in drives.values_of(session, kept.id)}
    return LastSpeedOut(taken_at=kept.taken_at, tach_driver=typed.get("tach_driver"), tach_driven=typed["tach_driven"])


class DetailsForm(Strict):
    """What a drive and its machine are called; `retired` puts the drive away or brings it back."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    machine_row_version: int = Field(ge=1, le=MOST_VERSIONS)
    name: str = Field(min_length=1, max_length=120)
    part_number: str = Field("", max_length=120)
    note: str = Field("", max_length=2000)
    machine: str = Field(min_length=1, max_length=120)
    machine_kind: str = Field("", max_length=120)
    place: str = Field("", max_length=120)
    retired: bool = False


class ChangedOut(BaseModel):
    """The drive's new row version."""

    id: uuid.UUID
    row_version: int


@blueprint.post("/drives/<uuid:drive_id>/details", summary="Rename, annotate or put away", responses={"200": ChangedOut})
@at_site_of_drive(Role.MECHANIC)
def post_details(path: DrivePath, body: DetailsForm) -> Response:
    for field in ("name", "machine"):
        if not getattr(body, field).strip():
            raise Refusal(422, "Give it a name.", [FieldError(field=field, detail="Give it a name, such as what is painted on it.")])

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        details = drives.Details(**body.model_dump(exclude={"row_version", "machine_row_version"}))
        drives.change_details(session, writer, drive, (body.row_version, body.machine_row_version), details)
        return Outcome(200, {"id": str(drive.id), "row_version": drive.row_version})

    try:
        done = write(body.model_dump(mode="json"), work)
    except IntegrityError as error:
        explain_clash(error, "machine")
        raise
    return answer(ChangedOut(**done.body), done.status)


class KeepSurvey(WithSurvey):
    """A survey to keep: client-made id, the row version it was based on, and how it stands.

    Kept as left or found, the drive is of its kind from then on.
    """

    id: uuid.UUID
    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    standing: Literal["as found", "as left", "corrected", "proposed"] = "as found"
    reason: str = Field("", max_length=400)


class KeptSurveyOut(BaseModel):
    """The configuration made and the drive's new row version."""

    id: uuid.UUID
    row_version: int
    sequence: int


@blueprint.post("/drives/<uuid:drive_id>/surveys", summary="Keep a survey as a new configuration", responses={"201": KeptSurveyOut})
@at_site_of_drive(Role.MECHANIC)
def post_survey(path: DrivePath, body: KeepSurvey) -> Response:
    on = answer_of(body.survey)
    refuse_problems(on.problems)
    _refuse_layout(on.path, body.standing)

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        if body.standing == "proposed":
            _refuse_overload(answer_on(drive, drives.current_configuration(session, drive.id)), on)
        survey = survey_of(body.id, body.standing, body.reason, body.survey, on)
        kept = surveys.keep_survey(session, writer, drive, body.row_version, survey)
        return Outcome(201, {"id": str(kept.id), "row_version": drive.row_version, "sequence": kept.sequence})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptSurveyOut(**done.body), done.status)


def _refuse_overload(now: Answer, then: Answer) -> None:
    """A speed that would overload the motor, or run machine or rim too fast, is not proposed."""
    if not then.page.has("driven_speed"):
        return
    found = felt(now, then.page.values["driven_speed"].n, then.survey.machine)
    stop = next((v for v in found.felt.verdicts if v.tone is Tone.STOP), None) if found.felt else None
    if stop:
        raise Refusal(422, f"{stop.headline}. {stop.detail}")


def _refuse_layout(found: PathReading | None, standing: str) -> None:
    """A layout that cannot be read is refused; one that runs wrongly is bad practice, kept as found but not left so."""
    if found is None:
        return
    unread = [p for p in found.problems if "_" in p.field]
    if unread:
        raise Refusal(422, unread[0].sentence, [FieldError(field=p.field, detail=p.sentence) for p in unread])
    wrong = [v for v in found.verdicts if v.tone is Tone.STOP and v.topic in ("path", "keeper")]
    if standing == "as left" and wrong:
        raise Refusal(422, f"A drive is not left so. {wrong[0].headline}: put it right, or keep it as found.")


def survey_of(
    survey_id: uuid.UUID,
    standing: str,
    reason: str,
    typed: SurveyForm,
    on: Answer,
    made_at: datetime | None = None,
) -> surveys.KeptSurvey:
    """A survey as the store keeps it: typed words beside SI values. Raises Refusal for one that cannot be read."""
    dumped = typed.model_dump(mode="json")
    family = on.survey.first.family
    path = on.path if family.loop(Part()) else None
    return surveys.KeptSurvey(
        survey_id,
        standing,
        reason,
        {k: v for k, v in dumped.items() if k != "design"},
        dumped["design"],
        dict(on.reading.design),
        on.spec,
        made_at,
        path,
        _record(on),
        family.key,
        _said(on, path),
    )


def _said(on: Answer, path: PathReading | None) -> dict[str, tuple[Raised, ...]]:
    """What a survey itself shows that wants mending: a wheel under the smallest for its belt, a keeper that no longer keeps."""
    small = [f for f in on.sheet.flags if f.code == SMALL]
    roles = [f.field.removesuffix("_diameter") for f in small]
    said = {"wheel": tuple(Raised(f"The {role} wheel is under the smallest for what runs on it", "watch", "size", role) for role in roles)}
    if path and path.wheels:
        said["keeper"] = tuple(Raised(what, "stop", "survey/wheels", "belt") for what in path.findings)
    return said


def _record(on: Answer) -> Record | None:
    """What the record keeps of what is fitted. Raises Refusal for what cannot be read."""
    first = on.survey.first
    refuse_problems((*on.reading.surveyed.problems, *first.family.beside(first.part).problems))
    return on.reading.surveyed.record


def refuse_problems(problems: Sequence[Problem]) -> None:
    """Impossible input is refused; bad practice (flags) is kept."""
    if problems:
        raise Refusal(422, problems[0].sentence, [FieldError(field=p.field, detail=p.sentence) for p in problems])
