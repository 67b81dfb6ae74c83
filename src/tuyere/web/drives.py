"""One drive: its sheet, keeping a survey, keeping and striking readings, its log."""

import uuid
from datetime import datetime
from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field, ValidationError
from sqlmodel import Session, col, select

from tuyere.core.sheet.field import FIELDS
from tuyere.core.sheet.figure import plus_minus, shown
from tuyere.core.sheet.solve import Sheet, solve
from tuyere.core.sheet.spec import Given
from tuyere.core.sheet.typed import Reading as FormReading
from tuyere.core.sheet.typed import Typed, given
from tuyere.store import drives
from tuyere.store.tables import Configuration, Drive, Due, Finding, Machine, Reading, ReadingValue, Role, now
from tuyere.store.write import Answer, Writer
from tuyere.web.calc import answer
from tuyere.web.errors import FieldError, ProblemOut, Refusal
from tuyere.web.floor import DueOut, FindingOut, due_out
from tuyere.web.forms import Entry, GaugeForm, SheetForm, Strict, SurveyForm, TachometerForm, read_sheet
from tuyere.web.rules import at_site_of_drive, at_site_of_reading
from tuyere.web.state import reading, write

blueprint = APIBlueprint(
    "drives",
    __name__,
    url_prefix="/api",
    abp_tags=[Tag(name="drives")],
    abp_responses={"401": ProblemOut, "403": ProblemOut, "404": ProblemOut, "409": ProblemOut, "422": ProblemOut},
)

MachineState = Literal["isolated", "running, guard on"]


class DrivePath(BaseModel):
    """A drive."""

    drive_id: uuid.UUID


class ReadingPath(BaseModel):
    """A reading."""

    reading_id: uuid.UUID


class DriveOut(BaseModel):
    """A drive with what is fitted now, as typed; `row_version` goes back with the next survey."""

    id: uuid.UUID
    name: str
    family: str
    machine: str
    machine_kind: str
    place: str
    part_number: str
    note: str
    row_version: int
    configuration_id: uuid.UUID | None
    configuration_at: datetime | None
    survey: SurveyForm
    findings: list[FindingOut]
    dues: list[DueOut]


@blueprint.get("/drives/<uuid:drive_id>", summary="A drive and what is fitted", responses={"200": DriveOut})
@at_site_of_drive(Role.VIEWER)
def get_drive(path: DrivePath) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        machine = session.get_one(Machine, drive.machine_id)
        configuration = drives.current_configuration(session, drive.id)
        findings = session.exec(select(Finding).where(Finding.drive_id == drive.id, col(Finding.closed_at).is_(None)))
        dues = session.exec(select(Due).where(Due.drive_id == drive.id, col(Due.done_at).is_(None)).order_by(col(Due.due_on)))
        return answer(
            DriveOut(
                id=drive.id,
                name=drive.name,
                family=drive.family,
                machine=machine.name,
                machine_kind=machine.kind,
                place=machine.place,
                part_number=drive.part_number,
                note=drive.note,
                row_version=drive.row_version,
                configuration_id=configuration.id if configuration else None,
                configuration_at=configuration.made_at if configuration else None,
                survey=survey_form(drive, configuration),
                findings=[FindingOut(id=f.id, what=f.what, weight=f.weight, found_at=f.found_at) for f in findings],
                dues=[due_out(d) for d in dues],
            )
        )


def survey_form(drive: Drive, configuration: Configuration | None) -> SurveyForm:
    """The kept survey as it was typed."""
    typed = configuration.typed if configuration else {}
    try:
        return SurveyForm.model_validate({**typed, "design": drive.typed or {}})
    except ValidationError:
        return SurveyForm()


class KeepSurvey(Strict):
    """A survey to keep: client-made id, the row version it was based on, and how it stands."""

    id: uuid.UUID
    row_version: int = Field(ge=1)
    standing: Literal["as found", "as left", "corrected"] = "as found"
    reason: str = Field("", max_length=400)
    survey: SurveyForm


class KeptSurveyOut(BaseModel):
    """The configuration made and the drive's new row version."""

    id: uuid.UUID
    row_version: int
    sequence: int


@blueprint.post("/drives/<uuid:drive_id>/surveys", summary="Keep a survey as a new configuration", responses={"201": KeptSurveyOut})
@at_site_of_drive(Role.MECHANIC)
def post_survey(path: DrivePath, body: KeepSurvey) -> Response:
    form = read_sheet(SheetForm(survey=body.survey))
    _refuse_problems(form, solve(form.spec))

    def work(session: Session, writer: Writer) -> Answer:
        drive = session.get_one(Drive, path.drive_id)
        survey = survey_of(body.id, body.standing, body.reason, body.survey, form)
        kept = drives.keep_survey(session, writer, drive, body.row_version, survey)
        return Answer(201, {"id": str(kept.id), "row_version": drive.row_version, "sequence": kept.sequence})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptSurveyOut(**done.body), done.status)


def survey_of(
    survey_id: uuid.UUID, standing: str, reason: str, typed: SurveyForm, form: FormReading, made_at: datetime | None = None
) -> drives.Survey:
    """A survey as the store keeps it: typed words beside SI values."""
    dumped = typed.model_dump(mode="json")
    return drives.Survey(
        survey_id,
        standing,
        reason,
        {k: dumped[k] for k in ("quantities", "choices")},
        dumped["design"],
        dict(form.design),
        form.spec,
        made_at,
    )


def _refuse_problems(form: FormReading, sheet: Sheet) -> None:
    """Impossible input is refused; bad practice (flags) is kept."""
    problems = [*form.problems, *sheet.problems]
    if problems:
        raise Refusal(422, problems[0].sentence, [FieldError(field=p.field, detail=p.sentence) for p in problems])


class KeepReading(Strict):
    """A reading to keep, against the survey kept last."""

    id: uuid.UUID
    kind: Literal["belt tension", "shaft speed"]
    machine_state: MachineState
    gauge: GaugeForm = Field(default_factory=GaugeForm)
    tachometer: TachometerForm = Field(default_factory=TachometerForm)
    hour_meter: str = Field("", max_length=60, description="hours on the machine's meter")
    note: str = Field("", max_length=2000)


class KeptReadingOut(BaseModel):
    """The reading kept."""

    id: uuid.UUID
    headline: str
    tone: str


@blueprint.post("/drives/<uuid:drive_id>/readings", summary="Keep a reading", responses={"201": KeptReadingOut})
@at_site_of_drive(Role.MECHANIC)
def post_reading(path: DrivePath, body: KeepReading) -> Response:
    hours = _hour_meter(body.hour_meter)

    def work(session: Session, writer: Writer) -> Answer:
        drive = session.get_one(Drive, path.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        row, values = reading_of(body, drive, configuration, writer.person_id, hours)
        drives.keep_reading(session, writer, row, values)
        return Answer(201, {"id": str(row.id), "headline": row.summary.get("headline", ""), "tone": row.summary.get("tone", "")})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptReadingOut(**done.body), done.status)


def _hour_meter(text: str) -> float | None:
    cleaned = text.replace(",", "").strip()
    if cleaned in ("", "-"):
        return None
    try:
        hours = float(cleaned.removesuffix("h").strip())
    except ValueError:
        hours = -1
    if not 0 <= hours < 1e7:
        sentence = "Write the hours on the meter as a number, such as 10482."
        raise Refusal(422, sentence, [FieldError(field="hour_meter", detail=sentence)])
    return hours


def reading_of(
    body: KeepReading,
    drive: Drive,
    configuration: Configuration | None,
    person_id: uuid.UUID,
    hours: float | None,
    taken_at: datetime | None = None,
) -> tuple[Reading, list[ReadingValue]]:
    """The rows of a reading: what was typed, SI, uncertainty, and what the core said of it. Raises Refusal."""
    sheet_form = SheetForm(survey=survey_form(drive, configuration), gauge=body.gauge, tachometer=body.tachometer)
    form = read_sheet(sheet_form)
    sheet = solve(form.spec)
    _refuse_problems(form, sheet)
    tension = body.kind == "belt tension"
    entries = _gauge_entries(body.gauge) if tension else _tachometer_entries(body.tachometer)
    if not entries:
        field, sentence = (
            ("force_1", "Read at least one belt before keeping.") if tension else ("tach_driven", "Read the driven shaft before keeping.")
        )
        raise Refusal(422, sentence, [FieldError(field=field, detail=sentence)])
    wanted = "isolated" if tension else "running, guard on"
    if body.machine_state != wanted:
        sentence = f"This reading is taken with the machine {wanted}."
        raise Refusal(422, sentence, [FieldError(field="machine_state", detail=sentence)])
    row = Reading(
        id=body.id,
        drive_id=drive.id,
        configuration_id=configuration.id if configuration else None,
        kind=body.kind,
        taken_at=taken_at or now(),
        taken_by=person_id,
        machine_state=body.machine_state,
        method="deflection at mid-span" if tension else "tachometer",
        tool=body.gauge.tool if tension else "tachometer",
        strand="upper or outer, each belt" if tension else "",
        belt_state=body.gauge.belt_state if tension else "",
        hour_meter_h=hours,
        note=body.note.strip(),
        summary=_summary(sheet, tension),
    )
    return row, [_value_row(row.id, quantity, position, entry, tool) for quantity, position, entry, tool in entries]


ValueEntry = tuple[str, int, Entry, str | None]


def _gauge_entries(gauge: GaugeForm) -> list[ValueEntry]:
    forces: list[ValueEntry] = [("force", i, e, gauge.tool) for i, e in enumerate(gauge.forces, 1) if _known("force", e)]
    return forces and forces + ([("deflection", 1, gauge.deflection, None)] if _known("deflection", gauge.deflection) else [])


def _tachometer_entries(form: TachometerForm) -> list[ValueEntry]:
    if not _known("tach_driven", form.tach_driven):
        return []
    return [(key, 1, getattr(form, key), "tachometer") for key in ("tach_driver", "tach_driven") if _known(key, getattr(form, key))]


def _known(key: str, entry: Entry) -> bool:
    return given(key, entry.typed())[0] is not None


def _value_row(reading_id: uuid.UUID, quantity: str, position: int, entry: Entry, tool: str | None) -> ReadingValue:
    found, note = given(quantity, Typed(entry.text, entry.unit, entry.origin, tool))
    assert isinstance(found, Given) and note
    return ReadingValue(
        id=uuid.uuid5(reading_id, f"{quantity} {position}"),
        reading_id=reading_id,
        quantity=quantity,
        position=position,
        kind=FIELDS[quantity].kind,
        typed_text=entry.text.strip(),
        typed_unit=note.unit,
        origin=found.origin,
        value_si=found.value,
        std_si=found.std,
    )


TENSION_FIGURES = ("strand_average", "strand_spread", "tension_low", "tension_new_low", "tension_high", "span", "deflection")
SPEED_FIGURES = ("slip", "driven_speed", "tach_driven", "tach_driver", "off_design")


def _summary(sheet: Sheet, tension: bool) -> dict[str, Any]:
    """What the core said at the time: the log must not change when a formula does."""
    topic, keys = ("tension", TENSION_FIGURES) if tension else ("speed", SPEED_FIGURES)
    verdict = next((v for v in sheet.verdicts if v.topic == topic), None)
    figures = {k: {"si": f.value_si, "std_si": f.std_si} for k, f in sheet.figures.items() if k in keys or k.startswith("strand_")}
    said = (
        {"headline": verdict.headline, "detail": verdict.detail, "tone": verdict.tone.value, "sureness": verdict.sureness}
        if verdict
        else {}
    )
    return {"figures": figures, **said}


class StrikeForm(Strict):
    """Strike a reading out (it stays in the log, crossed through), or restore it."""

    row_version: int = Field(ge=1)
    struck: bool


class StruckOut(BaseModel):
    """The reading's new row version."""

    id: uuid.UUID
    row_version: int


@blueprint.post("/readings/<uuid:reading_id>/strike", summary="Strike a reading out, or restore it", responses={"200": StruckOut})
@at_site_of_reading(Role.MECHANIC)
def post_strike(path: ReadingPath, body: StrikeForm) -> Response:
    def work(session: Session, writer: Writer) -> Answer:
        row = session.get_one(Reading, path.reading_id)
        drives.strike_reading(session, writer, row, body.row_version, body.struck)
        return Answer(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(StruckOut(**done.body), done.status)


class LoggedValue(BaseModel):
    """One value of a logged reading: as typed, and in both systems with its uncertainty (k = 2)."""

    quantity: str
    label: str
    position: int
    typed: str
    us: str
    si: str
    plus_minus_us: str
    plus_minus_si: str
    origin: str


class LoggedFigure(BaseModel):
    """A figure the core worked out when the reading was kept."""

    value_si: float
    std_si: float
    us: str
    si: str
    plus_minus_us: str
    plus_minus_si: str


class LogEntryOut(BaseModel):
    """One line of the log."""

    id: uuid.UUID
    kind: Literal["belt tension", "shaft speed", "survey", "finding"]
    at: datetime
    who: str
    title: str
    detail: str
    tone: str
    sureness: str = ""
    machine_state: str = ""
    method: str = ""
    tool: str = ""
    belt_state: str = ""
    hour_meter_h: float | None = None
    note: str = ""
    struck: bool = False
    row_version: int = 1
    values: list[LoggedValue] = Field(default_factory=list)
    figures: dict[str, LoggedFigure] = Field(default_factory=dict)


class LogOut(BaseModel):
    """A drive's log, newest first."""

    entries: list[LogEntryOut]


@blueprint.get("/drives/<uuid:drive_id>/log", summary="Everything that happened to a drive", responses={"200": LogOut})
@at_site_of_drive(Role.VIEWER)
def get_log(path: DrivePath) -> Response:
    with reading() as session:
        return answer(LogOut(entries=[_log_entry(e) for e in drives.log(session, path.drive_id)]))


def _log_entry(entry: drives.LogEntry) -> LogEntryOut:
    if entry.reading:
        return _logged_reading(entry, entry.reading)
    if entry.configuration:
        c, s = entry.configuration, entry.stage
        fitted = " × ".join(str(p) for p in (s.belt_count, s.belt or s.section) if p) if s else ""
        return LogEntryOut(
            id=c.id,
            kind="survey",
            at=entry.at,
            who=entry.who,
            title=f"Survey {c.sequence}, {c.standing}",
            detail=fitted,
            tone="",
            note=c.reason,
        )
    assert entry.finding
    f = entry.finding
    return LogEntryOut(
        id=f.id,
        kind="finding",
        at=entry.at,
        who=entry.who,
        title=f.what,
        detail="closed" if f.closed_at else "open",
        tone=f.weight if not f.closed_at else "",
    )


def _logged_reading(entry: drives.LogEntry, row: Reading) -> LogEntryOut:
    figures = {k: logged_figure(k, f["si"], f["std_si"]) for k, f in row.summary.get("figures", {}).items()}
    return LogEntryOut(
        id=row.id,
        kind=row.kind,
        at=entry.at,
        who=entry.who,
        title=row.summary.get("headline", row.kind.capitalize()),
        detail=row.summary.get("detail", ""),
        tone=row.summary.get("tone", ""),
        sureness=row.summary.get("sureness", ""),
        machine_state=row.machine_state,
        method=row.method,
        tool=row.tool,
        belt_state=row.belt_state,
        hour_meter_h=row.hour_meter_h,
        note=row.note,
        struck=row.struck_at is not None,
        row_version=row.row_version,
        values=[_logged_value(v) for v in entry.values],
        figures=figures,
    )


FIGURE_KINDS = {
    "slip": "share",
    "off_design": "share",
    "strand_spread": "share",
    "driven_speed": "rotation",
    "tach_driven": "rotation",
    "tach_driver": "rotation",
    "span": "length",
    "deflection": "length",
}


def logged_figure(key: str, value_si: float, std_si: float) -> LoggedFigure:
    """A kept figure in both systems."""
    kind = FIGURE_KINDS.get(key, "force")
    us, si = shown(value_si, kind, to_set=kind == "length")
    plus_us, plus_si = plus_minus(std_si, kind)
    return LoggedFigure(value_si=value_si, std_si=std_si, us=us, si=si, plus_minus_us=plus_us, plus_minus_si=plus_si)


def _logged_value(value: ReadingValue) -> LoggedValue:
    us, si = shown(value.value_si, value.kind, to_set=value.kind == "length")
    plus_us, plus_si = plus_minus(value.std_si, value.kind)
    typed = value.typed_text if any(c.isalpha() or c == '"' for c in value.typed_text) else f"{value.typed_text} {value.typed_unit}"
    return LoggedValue(
        quantity=value.quantity,
        label=FIELDS[value.quantity].label,
        position=value.position,
        typed=typed,
        us=us,
        si=si,
        plus_minus_us=plus_us,
        plus_minus_si=plus_si,
        origin=value.origin,
    )
