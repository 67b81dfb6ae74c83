"""Readings of a drive: keeping, striking out, and the kept rows."""

import uuid
from collections import Counter
from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any, Literal

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.figure import Figure
from tuyere.core.basis.quantity import whole_number
from tuyere.core.basis.typed import Given, Typed, given
from tuyere.core.basis.verdict import Verdict
from tuyere.core.stations.inspect.dues.hours import MeterReading, meter_doubt
from tuyere.core.stations.speed import design_point
from tuyere.core.stations.tension.methods import BY_KEY, TensionMethod
from tuyere.core.stations.tension.read import Tight
from tuyere.core.stations.tension.settling import beyond_settling
from tuyere.core.stations.tension.station import tension_of
from tuyere.record.entry import MOST_VERSIONS, Entry, Strict
from tuyere.record.forms import GaugeForm, TachometerForm
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.dues import answer_by_look, facts_of
from tuyere.store.dues_tables import Happened
from tuyere.store.findings import Cause, Raised, open_findings, settle
from tuyere.store.people_tables import Role
from tuyere.store.tables import Configuration, Drive, Reading, ReadingValue
from tuyere.store.write import Outcome, Writer, insert
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath, refuse_problems
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive, at_site_of_reading
from tuyere.web.state import site_day, write
from tuyere.web.surveyed import answer_of, survey_form

blueprint = routes("readings", "/api", "readings")

_WEIGHS = ("watch", "stop")
MachineState = Literal["isolated", "running, guard on"]


class ReadingPath(BaseModel):
    """A reading."""

    reading_id: uuid.UUID


class KeepReading(Strict):
    """A reading to keep, against the survey kept last."""

    id: uuid.UUID
    kind: Literal["belt tension", "shaft speed"]
    machine_state: MachineState
    gauge: GaugeForm = Field(default_factory=GaugeForm)
    tachometer: TachometerForm = Field(default_factory=TachometerForm)
    strand: Literal["upper", "lower", "left", "right"] = Field("upper", description="the strand gauged, as the drive stands")
    hour_meter: str = Field("", max_length=60, description="hours on the machine's meter")
    note: str = Field("", max_length=2000)
    was_set: bool = Field(False, description="the tension was set, and this is how it was left")


class SettlesOut(BaseModel):
    """A finding that a reading may have put right."""

    id: uuid.UUID
    what: str
    row_version: int


class KeptReadingOut(BaseModel):
    """The reading kept, the dues it did, and what it may have put right."""

    id: uuid.UUID
    headline: str
    tone: str
    done: list[str] = Field(default_factory=list)
    beyond: str = ""
    settles: list[SettlesOut] = Field(default_factory=list)


@blueprint.post("/drives/<uuid:drive_id>/readings", summary="Keep a reading", responses={"201": KeptReadingOut})
@at_site_of_drive(Role.MECHANIC)
def post_reading(path: DrivePath, body: KeepReading) -> Response:
    hours = hour_meter(body.hour_meter)

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        ask_of_meter(session, drive.id, body.hour_meter, hours, now())
        row, values = reading_of(body, drive, configuration, writer.person_id, hours)
        kept = keep_round(session, writer, drive, configuration, (row, values), body.was_set)
        return Outcome(201, {"id": str(row.id), **kept})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptReadingOut(**done.body), done.status)


Rows = tuple[Reading, list[ReadingValue]]


def keep_round(
    session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, rows: Rows, was_set: bool
) -> dict[str, Any]:
    """Keep a reading, with what it raises, closes and does: findings of the core, dues it answers, a new count where the tension was set.

    `settles`: what people saw that this reading may have put right; whether it has is theirs to say.
    """
    row, values = rows
    beyond = _beyond(session, drive, configuration, row) if row.kind == "belt tension" and not was_set else ""
    if beyond:
        row.summary = {**row.summary, "detail": f"{row.summary.get('detail', '')} {beyond}".strip()}
    earlier = drives.speeds_off_design(session, drive.id)
    drives.keep_reading(session, writer, row, values)
    summary, tension = row.summary, row.kind == "belt tension"
    tone, headline = summary.get("tone", ""), summary.get("headline", "")
    cause = Cause(row.id, "reading", f"Reading of {site_day(row.taken_at):%d %b %Y}: {headline}"[:400], row.taken_at)
    off = summary["figures"].get("off_design")
    if off and drive.design_speed_rad_per_s:
        said = design_point.finding(off["si"], drive.design_speed_rad_per_s, earlier)
        settle(session, writer, drive.id, cause, "design speed", [Raised(said, page="speed", place="driven")] if said else [])
    if tension and tone:
        subject = "tension" if row.stage_position == 1 else f"tension {row.stage_position}"
        settle(session, writer, drive.id, cause, subject, [Raised(headline, tone, "tension", "belt")] if tone in _WEIGHS else [])
    page = "tension" if tension else "speed"
    per_day = configuration.hours_per_day if configuration else None
    done = answer_by_look(session, writer, drive, cause, page, per_day)
    if was_set and tension:
        again_id = uuid.uuid5(row.id, "re-tension")
        again = Happened(id=again_id, drive_id=drive.id, kind="re-tension", at=row.taken_at, made_by=writer.person_id)
        insert(session, writer, again, "set the tension")
    open_now = [f for f in open_findings(session, drive.id) if not f.subject and f.page == page] if tone == "good" or was_set else []
    settles = [{"id": str(f.id), "what": f.what, "row_version": f.row_version} for f in open_now]
    return {"headline": headline, "tone": tone, "done": done, "settles": settles, "beyond": beyond}


def _beyond(session: Session, drive: Drive, configuration: Configuration | None, row: Reading) -> str:
    """What the reading says beside the last one of the same stage, nothing set or fitted since; empty where nothing is odd."""
    last = next(
        (r for r in drives.tensions(session, drive.id) if r.stage_position == row.stage_position and r.taken_at < row.taken_at), None
    )
    kind = row.summary.get("settles_as")
    then, now_ = ((r.summary.get("figures", {}).get("strand_average") if r else None) for r in (last, row))
    if last is None or not kind or not then or not now_:
        return ""
    facts = facts_of(session, [drive.id])[drive.id]
    if any(h.at > last.taken_at and h.at <= row.taken_at for h in facts.happened if h.kind in ("new set", "re-tension")):
        return ""
    clock = facts.clock(configuration.hours_per_day if configuration else None)
    ran = clock.between(last.taken_at, row.taken_at)
    fitted = max((h.at for h in facts.happened if h.kind in ("new set", "re-tension") and h.at <= last.taken_at), default=None)
    since = clock.between(fitted, last.taken_at) if fitted else None
    if ran is None:
        return ""
    return beyond_settling(kind, then["si"], then["std_si"], now_["si"], now_["std_si"], ran[1], since[1] if since else 0.0)


def hour_meter(text: str) -> float | None:
    """Hours as written on a meter; None where nothing is. Raises Refusal."""
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


def ask_of_meter(session: Session, drive_id: uuid.UUID, text: str, hours: float | None, at: datetime) -> None:
    """A meter that can hardly show that is asked about; written with its unit, it is meant. Raises Refusal."""
    if hours is None or text.strip().endswith("h"):
        return
    if doubt := meter_doubt(facts_of(session, [drive_id])[drive_id].hours, MeterReading(at, hours)):
        sentence = f"{doubt} If it is so, write it with its unit: {hours:g} h."
        raise Refusal(422, sentence, [FieldError(field="hour_meter", detail=sentence)])


def reading_of(
    body: KeepReading,
    drive: Drive,
    configuration: Configuration | None,
    person_id: uuid.UUID,
    hours: float | None,
    taken_at: datetime | None = None,
) -> tuple[Reading, list[ReadingValue]]:
    """The rows of a reading: what was typed, SI, uncertainty, and what the core said of it. Raises Refusal."""
    on = answer_of(survey_form(drive, configuration), body.tachometer)
    refuse_problems(on.problems)
    tension = body.kind == "belt tension"
    tight = tension_of(on, body.gauge.stage, body.gauge.typed()) if tension else None
    said = tight or (on.train.page if on.train else on.sheet)
    refuse_problems(tight.problems if tight else ())
    method = tight.method if tight else BY_KEY["gauge"]
    entries = _tension_entries(body.gauge, method) if tension else _tachometer_entries(body.tachometer)
    if not entries or (tight and not tight.strands and "stretch" not in tight.figures):
        sentence = "Read the driven shaft before keeping."
        if tension:
            sentence = (tight.lacks if tight else "") or "Read at least one belt before keeping."
        raise Refusal(422, sentence, [FieldError(field="force_1" if tension else "tach_driven", detail=sentence)])
    wanted = "isolated" if tension else "running, guard on"
    if body.machine_state != wanted:
        sentence = f"This reading is taken with the machine {wanted}."
        raise Refusal(422, sentence, [FieldError(field="machine_state", detail=sentence)])
    engaged = body.gauge.words.get("engaged", "")
    row = Reading(
        id=body.id,
        drive_id=drive.id,
        configuration_id=configuration.id if configuration else None,
        stage_position=body.gauge.stage if tension else 1,
        kind=body.kind,
        taken_at=taken_at or now(),
        taken_by=person_id,
        machine_state=body.machine_state,
        method=METHOD_SAID.get(method.key, method.label.lower()) if tension else "tachometer",
        tool=(body.gauge.tool if method.tools else method.tool) if tension else "tachometer",
        strand=body.strand if tension else "",
        engaged=engaged if tension and engaged in ("yes", "no") else "",
        turned=_turned(body.gauge) if tension else None,
        belt_state=body.gauge.belt_state if tension else "",
        hour_meter_h=hours,
        note=body.note.strip(),
        summary=_summary(said.figures, said.verdicts, tension) | (_stage_said(tight) if tight else {}),
    )
    return row, [value_row(row.id, quantity, position, entry, tool) for quantity, position, entry, tool in entries]


ValueEntry = tuple[str, int, Entry, str | None]


def _turned(gauge: GaugeForm) -> int | None:
    """How many turns the belt had been run by hand; None where nobody said. Raises Refusal."""
    text = gauge.words.get("turned", "").strip()
    turned = whole_number(text, 0, 999) if text not in ("", "-") else None
    if turned is None and text not in ("", "-"):
        sentence = "Write how many turns it was run by hand before: a whole number, 0 for none."
        raise Refusal(422, sentence, [FieldError(field="turned", detail=sentence)])
    return turned


METHOD_SAID = {"gauge": "deflection at mid-span", "scale": "deflection by scale and rule"}


def _tension_entries(gauge: GaugeForm, method: TensionMethod) -> list[ValueEntry]:
    """What the tool showed, belt by belt, and what was measured beside it; several of one kind are counted on."""
    found: list[ValueEntry] = []
    count: Counter[str] = Counter()
    tool = gauge.tool if method.reads == "force" else None
    asked = [(a.field, gauge.deflection if a.key == "deflection" else gauge.quantities.get(a.key)) for a in method.asks]
    for field, entry, with_tool in (
        *((method.reads, e, tool) for e in gauge.forces),
        *((field, e, None) for field, e in asked),
        ("point_tape", gauge.quantities.get("span_measured"), None),
    ):
        count[field] += 1
        if entry is not None and entry_known(field, entry):
            found.append((field, count[field], entry, with_tool))
    return found


def _stage_said(tight: Tight) -> dict[str, Any]:
    """Of which stage, what is tensioned on it, what a gauge pushes at once, and how such a one settles."""
    pushed = tight.at.pushes if tight.at and tight.method.key in METHOD_SAID else ""
    return {"stage": tight.stage.title, "one": tight.stage.strand.one, "pushes": pushed, "settles_as": tight.stage.loop.traits}


def _tachometer_entries(form: TachometerForm) -> list[ValueEntry]:
    if not entry_known("tach_driven", form.tach_driven):
        return []
    return [(key, 1, getattr(form, key), "tachometer") for key in ("tach_driver", "tach_driven") if entry_known(key, getattr(form, key))]


def entry_known(key: str, entry: Entry) -> bool:
    return given(key, entry.typed())[0] is not None


def value_row(reading_id: uuid.UUID, quantity: str, position: int, entry: Entry, tool: str | None) -> ReadingValue:
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


TENSION_FIGURES = (
    "strand_average",
    "strand_spread",
    "tension_low",
    "tension_new_low",
    "tension_high",
    "tension_aim",
    "span",
    "deflection",
    "stretch",
)
SPEED_FIGURES = ("slip", "driven_speed", "tach_driven", "tach_driver", "off_design")


def _summary(said_figures: Mapping[str, Figure], verdicts: Sequence[Verdict], tension: bool) -> dict[str, Any]:
    """What the core said at the time: the log must not change when a formula does."""
    topic, keys = ("tension", TENSION_FIGURES) if tension else ("speed", SPEED_FIGURES)
    verdict = next((v for v in verdicts if v.topic == topic), None)
    figures = {k: {"si": f.value_si, "std_si": f.std_si} for k, f in said_figures.items() if k in keys or k.startswith("strand_")}
    said = (
        {"headline": verdict.headline, "detail": verdict.detail, "tone": verdict.tone.value, "sureness": verdict.sureness}
        if verdict
        else {}
    )
    return {"figures": figures, **said}


class StrikeForm(Strict):
    """Strike a reading out (it stays in the log, crossed through), or restore it."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    struck: bool


class StruckOut(BaseModel):
    """The reading's new row version."""

    id: uuid.UUID
    row_version: int


@blueprint.post("/readings/<uuid:reading_id>/strike", summary="Strike a reading out, or restore it", responses={"200": StruckOut})
@at_site_of_reading(Role.MECHANIC)
def post_strike(path: ReadingPath, body: StrikeForm) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Reading, path.reading_id)
        drives.strike_reading(session, writer, row, body.row_version, body.struck)
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(StruckOut(**done.body), done.status)
