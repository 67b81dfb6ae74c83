"""The Inspect station of a drive: what its record knows enters a diagnosis by itself, and says so."""

import math
import uuid
from dataclasses import dataclass
from datetime import datetime

from flask import Response
from pydantic import BaseModel, Field, StrictBool
from sqlmodel import Session, col, select

from tuyere.core.diagnosis.diagnose import Diagnosis, diagnose
from tuyere.core.diagnosis.knowledge import NOTHING, Family, Knowledge, knowledge
from tuyere.core.diagnosis.triage import triage
from tuyere.core.drives import registry
from tuyere.core.drives.roller_chain.dogs import new_pitch
from tuyere.core.jobs.compose import fitting
from tuyere.core.jobs.read import library
from tuyere.core.layout.form import read_path
from tuyere.core.layout.routing import tight_on_back
from tuyere.core.sheet.solve import solve
from tuyere.core.uncertainty import probability_between, uncertain
from tuyere.core.wear.read import Part
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.dues import facts_of
from tuyere.store.findings import open_findings
from tuyere.store.tables import BeltLife, Configuration, Drive, Finding, Reading, Role, TemporaryFix
from tuyere.store.write import Answer, Writer, insert
from tuyere.web.answers import answer
from tuyere.web.diagnosis import DiagnosisOut, Key, Number, diagnosis_out, refuse_unknown
from tuyere.web.drives import DrivePath
from tuyere.web.entry import Strict, part_of
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.forms import SheetForm, SurveyForm, ToothedForm, read_sheet, typed_path
from tuyere.web.job_about import about
from tuyere.web.machine_is import FAMILY
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.seen import SaidOut
from tuyere.web.state import reading, site_day, write
from tuyere.web.surveyed import survey_form

blueprint = routes("inspect", "/api", "inspect")

MEASURED = {"chain": ("elongation", 100.0), "dogs": ("dog_elongation", 100.0), "groove": ("groove_wear", 1000.0)}  # by what was measured
SMALL_W = 746.0  # under it a drive in plain bushings is meant to run loose: trade fact, common practice


class SeenIn(Strict):
    """What somebody tapped, what is not there, and how checks came out."""

    seen: list[Key] = Field(default_factory=list, max_length=400)
    not_seen: list[Key] = Field(default_factory=list, max_length=400)
    checks: dict[Key, StrictBool | Number | str] = Field(default_factory=dict, max_length=400)
    ticks: list[Key] = Field(default_factory=list, max_length=40, description="steps of a triage that are done")
    left_out: list[Key] = Field(default_factory=list, max_length=40, description="facts of the record that do not hold any more")


class KnownOut(BaseModel):
    """A fact that entered by itself: what, its value in its unit, and where it is from."""

    key: str
    question: str
    value: str
    source: str
    used: bool


class InspectSignOut(BaseModel):
    """Something to tap, and where."""

    key: str
    question: str
    place: str
    look: str
    there: bool = Field(description="whether what it needs is on this drive, as far as anybody knows; else it is not offered by itself")


class AskedOut(BaseModel):
    """A check that was answered: its question."""

    key: str
    question: str
    unit: str


class TriageOut(BaseModel):
    """A step for a machine that stands: how it came out (null: it is the next), and what that means where it ends the matter."""

    key: str
    ask: str
    how: str
    state: str
    look: str
    check: str = Field(description="the check that it answers; empty: it is done and ticked")
    answer: bool | None
    ends: str


class InspectOut(BaseModel):
    """The station: what the drive's kind can show, what its record knows, and what it comes to."""

    family: str
    signs: list[InspectSignOut]
    known: list[KnownOut]
    checks: list[AskedOut]
    triage: list[TriageOut]
    diagnosis: DiagnosisOut


Known = dict[str, tuple[bool | float, str]]


@dataclass(frozen=True)
class _Asked:
    """A drive as it is asked about: its kind, the knowledge with its limits, what its record knows, what is on it."""

    family: Family
    known: Knowledge
    facts: Known
    on: frozenset[str] | None

    def diagnosed(self, body: SeenIn) -> Diagnosis:
        used = {k: value for k, (value, _) in self.facts.items() if k not in body.left_out}
        answers = {k: a if not isinstance(a, str) else "cannot" for k, a in body.checks.items()}
        return diagnose(self.family, body.seen, body.not_seen, answers, used, self.known, self.on)  # type: ignore[arg-type]


def _asked(session: Session, drive: Drive) -> _Asked:
    configuration = drives.current_configuration(session, drive.id)
    family, known = family_of(drive, configuration), limits_of(drive, configuration)
    facts = {k: v for k, v in known_of(session, drive, configuration).items() if family in known.facts[k].families}
    if configuration is None:
        return _Asked(family, known, facts, None)
    return _Asked(family, known, facts, about(session, drive, configuration, {}).facts)


@blueprint.post("/drives/<uuid:drive_id>/diagnosis", summary="What is wrong with a drive", responses={"200": InspectOut})
@at_site_of_drive(Role.VIEWER)
def post_diagnosis(path: DrivePath, body: SeenIn) -> Response:
    refuse_unknown(seen=body.seen, not_seen=body.not_seen, checks=body.checks, facts=body.left_out)
    with reading() as session:
        asked = _asked(session, session.get_one(Drive, path.drive_id))
    family, known, on = asked.family, asked.known, asked.on
    told = diagnosis_out(asked.diagnosed(body), known)
    fits = {k.key for k in fitting(library(), on or ())}
    for cause in told.causes:
        cause.jobs = [j for j in cause.jobs if j.key in fits]
    return answer(
        InspectOut(
            family=family,
            signs=[
                InspectSignOut(key=s.key, question=s.question, place=s.place, look=s.look, there=known.there(s.needs, on))
                for s in known.signs.values()
                if family in s.families
            ],
            known=[
                KnownOut(
                    key=k,
                    question=known.facts[k].question,
                    value=_shown(value, known.facts[k].unit),
                    source=source,
                    used=k not in body.left_out,
                )
                for k, (value, source) in asked.facts.items()
            ],
            checks=[AskedOut(key=k, question=known.checks[k].question, unit=known.checks[k].unit) for k in body.checks],
            triage=[
                TriageOut(
                    key=t.step.key,
                    ask=t.step.ask,
                    how=t.step.how,
                    state=t.step.state,
                    look=t.step.look,
                    check=t.step.check,
                    answer=t.answer,
                    ends=t.ends,
                )
                for t in triage(family, body.seen, body.checks, body.ticks)
            ],
            diagnosis=told,
        )
    )


class DiagnosedForm(SeenIn):
    """A diagnosis to keep: what was told and found, and the cause that it is taken to be."""

    id: uuid.UUID
    cause: Key


MOST_WORDS = 400


@blueprint.post("/drives/<uuid:drive_id>/findings/diagnosed", summary="Keep a diagnosis as a finding", responses={"201": SaidOut})
@at_site_of_drive(Role.MECHANIC)
def post_diagnosed(path: DrivePath, body: DiagnosedForm) -> Response:
    refuse_unknown(seen=body.seen, not_seen=body.not_seen, checks=body.checks, facts=body.left_out)
    with reading() as session:
        asked = _asked(session, session.get_one(Drive, path.drive_id))
    known = asked.known
    cause = known.causes.get(body.cause)
    if cause is None or body.cause == NOTHING or not cause.prior.get(asked.family):
        sentence = "Take one of the causes on the list."
        raise Refusal(422, sentence, [FieldError(field="cause", detail=sentence)])
    said = [known.signs[k].question for k in body.seen]
    said += [f"{known.checks[k].question} {_answered(a, known.checks[k].unit)}" for k, a in body.checks.items()]
    words = "; ".join(said)

    def work(session: Session, writer: Writer) -> Answer:
        row = Finding(
            id=body.id, drive_id=path.drive_id, what=cause.name, weight="watch", found_by=writer.person_id, page=cause.page or "inspect",
            words=words if len(words) <= MOST_WORDS else f"{words[: MOST_WORDS - 1]}…",
            told={"cause": cause.key, "seen": body.seen, "not_seen": body.not_seen, "checks": body.checks},
        )  # fmt: skip
        insert(session, writer, row, "raised a finding")
        return Answer(201, {"id": str(row.id), "what": row.what, "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(SaidOut(**done.body), done.status)


def _answered(a: bool | float | str, unit: str) -> str:
    return ("Yes." if a else "No.") if isinstance(a, bool) else "Could not be looked at." if isinstance(a, str) else f"{a:g} {unit}."


def _shown(value: bool | float, unit: str) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:.3g} {unit}" if value < 1000 else f"{value:.0f} {unit}"


def part_worn(drive: Drive, configuration: Configuration | None) -> Part:
    """What the drive's survey says of the part."""
    survey = survey_form(drive, configuration)
    read = registry.family(drive.family).loop(part_of(survey.first.fitted))
    loop = read.loop if read else None
    family = family_of(drive, configuration)
    narrow = bool(loop and (loop.ribs > 1 or loop.traits == "ribbed" or loop.of.endswith(("V", "VX"))))
    figures = solve(read_sheet(SheetForm(survey=survey)).spec).figures
    teeth = [f.value_si for k, f in figures.items() if k in ("driver_teeth", "driven_teeth")]
    fitted, dogs = survey.first.fitted, None
    if isinstance(fitted, ToothedForm) and fitted.dogs.fitted:
        read_dogs = fitted.dogs.read().dogs
        dogs, _ = new_pitch(fitted.dogs.conveyor, read_dogs.roller_pitch_m if read_dogs else 0.0)
    return Part(family, loop.link_m if loop else None, round(max(teeth)) if teeth else None, narrow=narrow, dog_pitch_m=dogs)


def limits_of(drive: Drive, configuration: Configuration | None) -> Knowledge:
    """The knowledge with the limits that Wear judges this drive by."""
    survey = survey_form(drive, configuration)
    part = part_worn(drive, configuration)
    return knowledge(part.narrow, survey.first.held_by == "fixed centres", part.large_teeth, part.family)


def family_of(drive: Drive, configuration: Configuration | None) -> Family:
    """Which knowledge holds: a chain with dogs drives a conveyor, joined ribs are ribbed."""
    first = survey_form(drive, configuration).first.fitted
    if drive.family == "roller chain" and isinstance(first, ToothedForm) and first.dogs.fitted:
        return "conveyor"
    read = registry.family(drive.family).loop(part_of(first))
    if read and read.loop and read.loop.traits == "ribbed":
        return "ribbed"
    return FAMILY.get(drive.family, "v")


def known_of(session: Session, drive: Drive, configuration: Configuration | None) -> Known:
    """What the record knows of a drive, by fact: its value in the fact's unit, and where that is from."""
    found: Known = {}
    if kept := drives.last_tension(session, drive.id):
        found |= {key: (chance, f"read {_day(kept.taken_at)}") for key, chance in _tension(kept).items()}
    if rows := drives.alignments(session, drive.id, 1):
        row = rows[0][0]
        allowed, figures = row.summary["allowed"], row.summary["figures"]
        of = {"angle": allowed["angle"], "twist": allowed["angle"], "offset": allowed["offset"]}
        for key, most in of.items():  # three facts: a twist is no angle, and another move mends it
            if key in figures:
                found[f"align_{key}"] = (100 * abs(figures[key]["si"]) / most, f"{row.standing}, {_day(row.taken_at)}")
    if (slip := drives.last_slip(session, drive.id)) is not None:
        found["slip"] = (100 * slip, "by the tachometer")
    found |= _of_sheet(drive, configuration) | _of_life(session, drive, configuration) | _said(session, drive.id)
    for row, _ in drives.wears(session, drive.id):  # oldest first: the newest stands
        if (fact := MEASURED.get(row.summary["what"])) is not None:
            key, times = fact
            found[key] = (times * row.summary["value"], f"measured {_day(row.taken_at)}")
    return found


def _tension(row: Reading) -> dict[str, float]:
    """How likely the last reading lay under its own window, and over it (%), by the reading's doubt."""
    figures = row.summary.get("figures", {})
    low = figures.get("tension_new_low" if row.belt_state == "new" else "tension_low")
    mean, high = figures.get("strand_average"), figures.get("tension_high")
    if not (mean and low and high):
        return {}
    read = uncertain(mean["si"], mean["std_si"], "the reading")
    return {
        "tension_under": 100 * probability_between(read, -math.inf, low["si"]),
        "tension_over": 100 * probability_between(read, high["si"], math.inf),
    }


def _of_sheet(drive: Drive, configuration: Configuration | None) -> Known:
    """What its survey says: load, smallest wheel, and whether it is a small plain-bushed drive, which is meant to run loose."""
    found: Known = {}
    survey = survey_form(drive, configuration)
    figures = solve(read_sheet(SheetForm(survey=survey)).spec).figures
    design, carries = figures.get("design_power"), figures.get("capacity")
    if design and carries and carries.value_si:
        found["load_share"] = (100 * design.value_si / carries.value_si, "by the sheet")
    read = registry.family(drive.family).loop(part_of(survey.first.fitted))
    found |= _of_path(survey)
    least = read.loop.least_m if read and read.loop else 0.0
    across = [f.value_si for k, f in figures.items() if k in ("driver_datum", "driven_datum")]
    if least and across:
        found["wheel_share"] = (round(100 * min(across) / least, 1), "by the survey")
    power, bearings = figures.get("driver_power"), survey.first.kept.words
    if power and power.value_si < SMALL_W and "bushing" in (bearings.get("wheel_1_bearing"), bearings.get("wheel_2_bearing")):
        found["meant_loose"] = (True, "under 1 hp in plain bushings")
    return found


def _of_path(survey: SurveyForm) -> Known:
    """What its wheels in the plane say: whether one bends the belt backward more tightly than it is made for."""
    if not survey.layout.wheels:
        return {}
    tight = [w for on in read_path(typed_path(survey)).on_wheels for w in tight_on_back(on)]
    return {"back_idler": (True, f"{tight[0].name}, by the survey")} if tight else {}


def _dressed(session: Session, drive_id: uuid.UUID, since: datetime | None) -> Known:
    """Whether somebody saw dressing on the set that is on."""
    wanted = select(Finding).where(Finding.drive_id == drive_id, Finding.sign == "dressing").order_by(col(Finding.found_at).desc())
    seen = session.exec(wanted.limit(1)).first()
    return {"dressing_used": (True, f"seen {_day(seen.found_at)}")} if seen and (since is None or seen.found_at > since) else {}


def _said(session: Session, drive_id: uuid.UUID) -> Known:
    """What people saw at it and nobody closed."""
    rows = [f for f in open_findings(session, drive_id) if f.sign and f"said {f.sign}" in knowledge().facts]
    return {f"said {f.sign}": (True, f"{_day(f.found_at)}") for f in rows}


def _of_life(session: Session, drive: Drive, configuration: Configuration | None) -> Known:
    """Hours, the last set's life, fixes and whether the tension was set again."""
    found: Known = {}
    facts = facts_of(session, [drive.id])[drive.id]
    fitted = max((h.at for h in facts.happened if h.kind == "new set"), default=None)
    if fitted:
        ran = facts.clock(configuration.hours_per_day if configuration else None).between(fitted, now())
        if ran:
            found["hours_on"] = (ran[1], f"fitted {_day(fitted)}")
            if ran[1] > 48:
                again = any(h.kind == "re-tension" and h.at > fitted for h in facts.happened)
                found["run_in_done"] = (again, "by the record")
    wanted = select(BeltLife).where(BeltLife.drive_id == drive.id).order_by(col(BeltLife.ended_on).desc()).limit(1)
    found |= _dressed(session, drive.id, fitted)
    if life := session.exec(wanted).first():
        found["last_life"] = (life.hours_h, f"came off {life.ended_on:%d %b %Y}")
    fix = session.exec(select(TemporaryFix).where(TemporaryFix.drive_id == drive.id, col(TemporaryFix.off_at).is_(None))).first()
    if fix:
        found["temporary_fix"] = (True, fix.what)
    return found


def _day(at: datetime) -> str:
    return f"{site_day(at):%d %b %Y}"
