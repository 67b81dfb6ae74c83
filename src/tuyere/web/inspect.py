"""The Inspect station of a drive: what its record knows enters a diagnosis by itself, and says so."""

import math
import uuid
from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime

from flask import Response
from pydantic import BaseModel, Field, StrictBool
from sqlmodel import Session, col, select

from tuyere.core.basis.uncertainty import probability_between, uncertain
from tuyere.core.drive.answer import Answer
from tuyere.core.kinds.wear_limits import limit_of
from tuyere.core.stations.inspect.diagnosis.diagnose import Diagnosis, diagnose
from tuyere.core.stations.inspect.diagnosis.knowledge import NOTHING, Family, Knowledge
from tuyere.core.stations.inspect.diagnosis.of_drive import Known, family_of, knowledge_of, known_of_survey
from tuyere.core.stations.inspect.diagnosis.triage import triage
from tuyere.core.stations.inspect.tells import told_by_finding, told_by_wear
from tuyere.core.stations.jobs.compose import fitting
from tuyere.core.stations.jobs.read import library
from tuyere.record.entry import Strict
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.dues import Facts, facts_of
from tuyere.store.findings import open_findings
from tuyere.store.inspect_tables import RoundAnswer
from tuyere.store.people_tables import Role
from tuyere.store.tables import BeltLife, Configuration, Drive, Finding, Reading, TemporaryFix
from tuyere.store.write import Outcome, Writer, insert
from tuyere.web.answers import answer
from tuyere.web.diagnosis import DiagnosisOut, Key, Number, diagnosis_out, refuse_unknown
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.job_about import about
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.seen import SaidOut
from tuyere.web.state import reading, site_day, write
from tuyere.web.surveyed import answer_on

blueprint = routes("inspect", "/api", "inspect")

MEASURED = {"chain": ("elongation", 100.0), "dogs": ("dog_elongation", 100.0), "groove": ("groove_wear", 1000.0)}  # by what was measured


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
    on = answer_on(drive, configuration)
    family, known = family_of(on), knowledge_of(on)
    facts = {k: v for k, v in known_of(session, drive, configuration, on).items() if family in known.facts[k].families}
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

    def work(session: Session, writer: Writer) -> Outcome:
        row = Finding(
            id=body.id,
            drive_id=path.drive_id,
            what=cause.name,
            weight="watch",
            found_by=writer.person_id,
            page=cause.page or "inspect",
            words=words if len(words) <= MOST_WORDS else f"{words[: MOST_WORDS - 1]}…",
            told={"cause": cause.key, "seen": body.seen, "not_seen": body.not_seen, "checks": body.checks},
        )
        insert(session, writer, row, "raised a finding")
        return Outcome(201, {"id": str(row.id), "what": row.what, "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(SaidOut(**done.body), done.status)


def _answered(a: bool | float | str, unit: str) -> str:
    return ("Yes." if a else "No.") if isinstance(a, bool) else "Could not be looked at." if isinstance(a, str) else f"{a:g} {unit}."


def _shown(value: bool | float, unit: str) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:.3g} {unit}" if value < 1000 else f"{value:.0f} {unit}"


def known_of(session: Session, drive: Drive, configuration: Configuration | None, on: Answer) -> Known:
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
    facts = facts_of(session, [drive.id])[drive.id]
    found |= known_of_survey(on) | _of_life(session, drive, configuration, facts)
    found |= _told(session, drive.id, facts)
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


def _told(session: Session, drive_id: uuid.UUID, facts: Facts) -> Known:
    """The signs that people told of it and nobody closed, those that measured wear says, and dressing as long as the set is on."""
    found: Known = {}
    opened = open_findings(session, drive_id)
    asked = select(RoundAnswer.finding_id, RoundAnswer.item).where(col(RoundAnswer.finding_id).in_([f.id for f in opened]))
    walked: dict[uuid.UUID, list[str]] = defaultdict(list)
    for finding_id, item in session.exec(asked):
        if finding_id:
            walked[finding_id].append(item)
    for f in opened:
        found |= {f"seen {key}": (True, f"seen {_day(f.found_at)}") for key in told_by_finding(f.sign, f.words, walked[f.id])}
    dressed = select(Finding).where(Finding.drive_id == drive_id, Finding.sign == "dressing").order_by(col(Finding.found_at).desc())
    since = facts.fitted("new set")
    if (seen := session.exec(dressed.limit(1)).first()) and (since is None or seen.found_at > since):
        found["seen dressing"] = (True, f"seen {_day(seen.found_at)}")
    last = {}
    for row, _ in drives.wears(session, drive_id):  # oldest first: the newest of each place stands, of the part that is on
        what, since = row.summary["what"], facts.fitted(limit_of(row.summary["what"]).anew)
        if since is None or row.taken_at > since:
            last[what, row.summary["where"]] = row
    for (what, _), row in last.items():
        source = f"measured {_day(row.taken_at)}"
        found |= {f"seen {key}": (True, source) for key in told_by_wear(what, row.summary["share"])}
        if what in MEASURED:
            key, times = MEASURED[what]
            worst = max(times * row.summary["value"], found[key][0] if key in found else 0.0)
            found[key] = (worst, source)
    return found


def _of_life(session: Session, drive: Drive, configuration: Configuration | None, facts: Facts) -> Known:
    """Hours, the last set's life, fixes and whether the tension was set again."""
    found: Known = {}
    fitted = facts.fitted("new set")
    if fitted:
        ran = facts.clock(configuration.hours_per_day if configuration else None).between(fitted, now())
        if ran:
            found["hours_on"] = (ran[1], f"fitted {_day(fitted)}")
            if ran[1] > 48:
                again = any(h.kind == "re-tension" and h.at > fitted for h in facts.happened)
                found["run_in_done"] = (again, "by the record")
    wanted = select(BeltLife).where(BeltLife.drive_id == drive.id).order_by(col(BeltLife.ended_on).desc()).limit(1)
    if life := session.exec(wanted).first():
        found["last_life"] = (life.hours_h, f"came off {life.ended_on:%d %b %Y}")
    fix = session.exec(select(TemporaryFix).where(TemporaryFix.drive_id == drive.id, col(TemporaryFix.off_at).is_(None))).first()
    if fix:
        found["temporary_fix"] = (True, fix.what)
    return found


def _day(at: datetime) -> str:
    return f"{site_day(at):%d %b %Y}"
