"""What was found out about a drive, kept: counter slips, get-home fixes, lives of sets; and a site's cross-reference."""

import uuid
from dataclasses import asdict
from datetime import date, datetime, timedelta

from flask import Response
from pydantic import BaseModel, Field, TypeAdapter
from sqlmodel import Session

from tuyere.core.basis.quantity import QuantityError
from tuyere.core.basis.rows_file import RowReport
from tuyere.core.basis.typed import Typed, given
from tuyere.core.kinds.counter import CounterSlip as Slip
from tuyere.core.stations.find.cross_reference import COLUMNS, read_csv
from tuyere.core.stations.find.get_home import GetHome
from tuyere.core.stations.find.grade import EARLY_FINDING, died_early
from tuyere.documents.slip_pdf import Heading, slip_pdf
from tuyere.record.entry import MOST_VERSIONS, Entry, Strict
from tuyere.record.forms import WithSurvey
from tuyere.store import drives
from tuyere.store import found as store
from tuyere.store.clock import now
from tuyere.store.people_tables import Person, Role
from tuyere.store.shop_tables import CounterSlip
from tuyere.store.tables import BeltLife, Drive, Due, Machine, TemporaryFix
from tuyere.store.write import Outcome, Writer, insert
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.find import GetHomeIn, SlipIn, judge_fix, slip_of, v_drive
from tuyere.web.find_form import FindForm
from tuyere.web.floor import SitePath
from tuyere.web.machine_is import machine_is
from tuyere.web.routes import routes
from tuyere.web.rules import at_site, at_site_of_drive, at_site_of_fix, at_site_of_slip
from tuyere.web.state import reading, site_day, write
from tuyere.web.surveyed import survey_form

blueprint = routes("found", "/api", "found")

LATEST_OFF_DAYS = 365


class SlipPath(BaseModel):
    """A counter slip."""

    slip_id: uuid.UUID


class FixPath(BaseModel):
    """A get-home fix."""

    fix_id: uuid.UUID


class KeptSlipOut(BaseModel):
    """A kept slip."""

    id: uuid.UUID
    designation: str
    made_at: datetime
    who: str
    find: FindForm
    asked: SlipIn
    slip: Slip


class FixOut(BaseModel):
    """A get-home fix that is on; `row_version` goes back when it comes off."""

    id: uuid.UUID
    what: str
    share_text: str
    run: str
    off_by: date
    made_at: datetime
    row_version: int


class LifeOut(BaseModel):
    """How long one set lasted."""

    id: uuid.UUID
    ended_on: date
    hours_h: float
    why: str


class CrossOut(BaseModel):
    """A row of the shop's cross-reference."""

    part_number: str
    designation: str
    machine: str
    note: str


class FoundOut(BaseModel):
    """Everything found out about a drive: the newest slip, fixes on, lives of sets, and the belt its part number means."""

    slip: KeptSlipOut | None
    fixes: list[FixOut]
    lives: list[LifeOut]
    cross_reference: CrossOut | None


@blueprint.get("/drives/<uuid:drive_id>/found", summary="What was found out about a drive's belts", responses={"200": FoundOut})
@at_site_of_drive(Role.VIEWER)
def get_found(path: DrivePath) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        site_id = session.get_one(Machine, drive.machine_id).site_id
        slip = store.latest_slip(session, drive.id)
        cross = store.look_up(session, site_id, drive.part_number)
        return answer(
            FoundOut(
                slip=_slip_out(session, slip) if slip else None,
                fixes=[_fix_out(session, f) for f in store.fixes_on(session, drive.id)],
                lives=[LifeOut(id=x.id, ended_on=x.ended_on, hours_h=x.hours_h, why=x.why) for x in store.lives(session, drive.id)],
                cross_reference=CrossOut(**cross.model_dump(include=set(COLUMNS))) if cross else None,
            )
        )


def _slip_out(session: Session, row: CounterSlip) -> KeptSlipOut:
    return KeptSlipOut(
        id=row.id,
        designation=row.designation,
        made_at=row.made_at,
        who=session.get_one(Person, row.made_by).name,
        find=FindForm.model_validate(row.typed["find"]),
        asked=SlipIn.model_validate(row.typed["asked"]),
        slip=TypeAdapter(Slip).validate_python(row.slip),
    )


def _fix_out(session: Session, fix: TemporaryFix) -> FixOut:
    due = session.get_one(Due, fix.due_id)
    return FixOut(
        id=fix.id,
        what=fix.what,
        share_text=fix.share_text,
        run=fix.run,
        off_by=due.due_on,
        made_at=fix.made_at,
        row_version=fix.row_version,
    )


class KeepSlip(Strict):
    """A slip to keep: client-made id, what it is made from, and what was typed to find the belt."""

    id: uuid.UUID
    asked: SlipIn
    find: FindForm = Field(default_factory=FindForm)


class KeptOut(BaseModel):
    """What was kept."""

    id: uuid.UUID


@blueprint.post("/drives/<uuid:drive_id>/slips", summary="Keep a counter slip", responses={"201": KeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_slip(path: DrivePath, body: KeepSlip) -> Response:
    designation, slip = slip_of(body.asked)

    def work(session: Session, writer: Writer) -> Outcome:
        typed = {"asked": body.asked.model_dump(mode="json"), "find": body.find.model_dump(mode="json")}
        row = CounterSlip(
            id=body.id, drive_id=path.drive_id, designation=designation, made_by=writer.person_id, typed=typed, slip=asdict(slip)
        )
        insert(session, writer, row, "kept a counter slip")
        return Outcome(201, {"id": str(row.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptOut(**done.body), done.status)


@blueprint.get("/slips/<uuid:slip_id>/pdf", summary="A counter slip as PDF")
@at_site_of_slip(Role.VIEWER)
def get_slip_pdf(path: SlipPath) -> Response:
    with reading() as session:
        row = session.get_one(CounterSlip, path.slip_id)
        drive = session.get_one(Drive, row.drive_id)
        machine = session.get_one(Machine, drive.machine_id)
        heading = Heading(
            f"{machine.name}, {drive.name}" + (f" ({machine.place})" if machine.place else ""),
            f"{site_day(row.made_at):%d %b %Y}, {session.get_one(Person, row.made_by).name}",
        )
        pdf = slip_pdf(row.slip, heading)
    name = "".join(c if c.isalnum() else "-" for c in row.designation)
    return Response(pdf, content_type="application/pdf", headers={"Content-Disposition": f'inline; filename="counter-slip-{name}.pdf"'})


class KeepFix(Strict):
    """A get-home fix to record, and by which day it comes off."""

    id: uuid.UUID
    fix: GetHomeIn
    off_by: date


@blueprint.post("/drives/<uuid:drive_id>/get-home", summary="Record a get-home fix and raise its due", responses={"201": KeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_get_home(path: DrivePath, body: KeepFix) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        survey = survey_form(drive, drives.current_configuration(session, drive.id))
        is_so = machine_is(session.get_one(Machine, drive.machine_id), drive, survey.typed()).facts
    judged, problems = judge_fix(body.fix.model_copy(update={"machine_is": sorted(is_so)}))
    if judged is None:
        raise Refusal(422, problems[0].sentence, [FieldError(field=p.field, detail=p.sentence) for p in problems])
    here = site_day(now())
    if not here - timedelta(days=1) <= body.off_by <= here + timedelta(days=LATEST_OFF_DAYS):
        sentence = "Choose a day from today to a year ahead: by then the right belts are on."
        raise Refusal(422, sentence, [FieldError(field="off_by", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        row = fix_row(body.fix, judged, body.id, path.drive_id, writer.person_id)
        store.keep_fix(session, writer, row, body.off_by)
        return Outcome(201, {"id": str(row.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptOut(**done.body), done.status)


def fix_row(asked: GetHomeIn, judged: GetHome, fix_id: uuid.UUID, drive_id: uuid.UUID, person_id: uuid.UUID) -> TemporaryFix:
    """A get-home fix as the store keeps it; its due gets an id of its own."""
    return TemporaryFix(
        id=fix_id,
        drive_id=drive_id,
        due_id=uuid.uuid5(fix_id, "due"),
        what=judged.what,
        share=judged.share if judged.share is not None else judged.figures[0].value_si,
        share_text=judged.share_text,
        run=judged.run,
        made_by=person_id,
        typed=asked.model_dump(mode="json", include={"fix_section", "fix_count"}),
    )


class FixOffForm(Strict):
    """The right belts are on again."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)


@blueprint.post("/get-home/<uuid:fix_id>/off", summary="The fix is off: its due is done", responses={"200": KeptOut})
@at_site_of_fix(Role.MECHANIC)
def post_fix_off(path: FixPath, body: FixOffForm) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        store.fix_off(session, writer, session.get_one(TemporaryFix, path.fix_id), body.row_version)
        return Outcome(200, {"id": str(path.fix_id)})

    done = write({"fix": str(path.fix_id), **body.model_dump(mode="json")}, work)
    return answer(KeptOut(**done.body), done.status)


class KeepLife(WithSurvey):
    """How long a set lasted, as typed; when it ended and what ended it. The survey says what section it was."""

    id: uuid.UUID
    hours: Entry
    ended_on: date
    why: str = Field("", max_length=400)
    duties: list[str] = Field(default_factory=list, max_length=20)


class LifeKeptOut(BaseModel):
    """The life kept, and whether it raised a finding."""

    id: uuid.UUID
    raised: bool


@blueprint.post("/drives/<uuid:drive_id>/lives", summary="Record how long a set lasted", responses={"201": LifeKeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_life(path: DrivePath, body: KeepLife) -> Response:
    hours = _hours(body.hours)
    if body.ended_on > site_day(now()) + timedelta(days=1):
        sentence = "That day is yet to come: write the day the set came off."
        raise Refusal(422, sentence, [FieldError(field="ended_on", detail=sentence)])
    section = v_drive(body.survey)[0].section

    def work(session: Session, writer: Writer) -> Outcome:
        before = [(x.ended_on, x.hours_h) for x in store.lives(session, path.drive_id)]
        lasted = tuple(h for _, h in sorted([*before, (body.ended_on, hours)]))
        clutching = bool({"slack clutch", "deck"} & set(body.duties))
        early = section is not None and died_early(section, clutching, lasted)
        row = BeltLife(
            id=body.id,
            drive_id=path.drive_id,
            ended_on=body.ended_on,
            hours_h=hours,
            why=body.why.strip(),
            made_by=writer.person_id,
            typed=body.hours.model_dump(mode="json"),
        )
        raised = store.keep_life(session, writer, row, EARLY_FINDING if early else None)
        return Outcome(201, {"id": str(row.id), "raised": raised})

    done = write(body.model_dump(mode="json"), work)
    return answer(LifeKeptOut(**done.body), done.status)


def _hours(entry: Entry) -> float:
    try:
        found, _ = given("set_hours", Typed(entry.text, entry.unit))
    except QuantityError as reason:
        raise Refusal(422, str(reason), [FieldError(field="set_hours", detail=str(reason))]) from None
    if found is None:
        sentence = "Write how many running hours the set lasted; a guess is better than nothing."
        raise Refusal(422, sentence, [FieldError(field="set_hours", detail=sentence)])
    return found.value / 3600


class CrossIn(Strict):
    """A cross-reference as CSV text: columns part_number, designation, machine, note."""

    csv: str = Field(max_length=240_000)


class CrossReportOut(BaseModel):
    """What became of each row."""

    added: int
    changed: int
    same: int
    refused_rows: int
    rows: list[RowReport]


@blueprint.post("/sites/<uuid:site_id>/cross-reference", summary="Load a shop's cross-reference", responses={"200": CrossReportOut})
@at_site(Role.MECHANIC)
def post_cross_reference(path: SitePath, body: CrossIn) -> Response:
    report = read_csv(body.csv)
    if report.refused:
        raise Refusal(422, report.refused, [FieldError(field="csv", detail=report.refused)])

    def work(session: Session, writer: Writer) -> Outcome:
        return Outcome(200, asdict(store.load_cross_reference(session, writer, report.entries)))

    done = write(body.model_dump(mode="json"), work)
    refused = sum(not r.taken for r in report.rows)
    return answer(CrossReportOut(**done.body, refused_rows=refused, rows=list(report.rows)), done.status)


class CrossListOut(BaseModel):
    """A site's cross-reference."""

    rows: list[CrossOut]


@blueprint.get("/sites/<uuid:site_id>/cross-reference", summary="The shop's cross-reference", responses={"200": CrossListOut})
@at_site(Role.VIEWER)
def get_cross_reference(path: SitePath) -> Response:
    with reading() as session:
        found = store.cross_reference(session, path.site_id)
        return answer(CrossListOut(rows=[CrossOut(**row.model_dump(include=set(COLUMNS))) for row in found]))
