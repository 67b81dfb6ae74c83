"""Keeping an alignment: as found, between, or as left, against the survey kept last."""

import uuid
from collections import Counter
from datetime import datetime
from typing import Any, Literal

from flask import Response
from pydantic import Field
from sqlmodel import Session

from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.stations.align import station
from tuyere.core.stations.align.read import Aligned
from tuyere.record.entry import Entry, Strict
from tuyere.record.forms import AlignForm
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.dues import answer_by_look
from tuyere.store.findings import Cause, Raised, settle
from tuyere.store.people_tables import Role
from tuyere.store.tables import Configuration, Drive, Reading, ReadingValue
from tuyere.store.write import Outcome, Writer
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath, refuse_problems
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.readings import KeptReadingOut, ask_of_meter, entry_known, hour_meter, value_row
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.state import site_day, write
from tuyere.web.surveyed import answer_on

blueprint = routes("alignments", "/api", "readings")

Standing = Literal["as found", "between", "as left"]


class KeepAlignment(Strict):
    """An alignment to keep, against the survey kept last. As left is signed with it: out of tolerance the note says why."""

    id: uuid.UUID
    machine_state: Literal["isolated"] = "isolated"
    align: AlignForm
    standing: Standing
    hour_meter: str = Field("", max_length=60, description="hours on the machine's meter")
    note: str = Field("", max_length=2000)


@blueprint.post("/drives/<uuid:drive_id>/alignments", summary="Keep an alignment", responses={"201": KeptReadingOut})
@at_site_of_drive(Role.MECHANIC)
def post_alignment(path: DrivePath, body: KeepAlignment) -> Response:
    hours = hour_meter(body.hour_meter)

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        ask_of_meter(session, drive.id, body.hour_meter, hours, now())
        rows = alignment_of(body, drive, configuration, writer.person_id, hours)
        return Outcome(201, {"id": str(rows[0].id), **keep_alignment(session, writer, drive, configuration, rows)})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptReadingOut(**done.body), done.status)


def keep_alignment(
    session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, rows: tuple[Reading, list[ReadingValue]]
) -> dict[str, Any]:
    """Keep it, with what it raises or closes, and the dues that are answered at its station."""
    row, values = rows
    drives.keep_reading(session, writer, row, values)
    headline, tone = row.summary["headline"], row.summary["tone"]
    cause = Cause(row.id, "reading", f"Alignment of {site_day(row.taken_at):%d %b %Y}: {headline}"[:400], row.taken_at)
    raised = [Raised(f"{row.summary['pair']}: {headline}"[:120], tone, "align")] if tone == Tone.WATCH else []
    settle(session, writer, drive.id, cause, f"align {row.stage_position} {row.wheel}", raised)
    done = answer_by_look(session, writer, drive, cause, "align", configuration.hours_per_day if configuration else None)
    return {"headline": headline, "tone": tone, "done": done}


def alignment_of(
    body: KeepAlignment,
    drive: Drive,
    configuration: Configuration | None,
    person_id: uuid.UUID,
    hours: float | None,
    taken_at: datetime | None = None,
) -> tuple[Reading, list[ReadingValue]]:
    """The rows of an alignment: what was typed, SI, uncertainty, and what the core said of it. Raises Refusal."""
    on = answer_on(drive, configuration)
    refuse_problems(on.problems)
    found = station.alignment_of(on, body.align.stage, body.align.typed())
    if found is None:
        raise Refusal(422, "Survey the wheels and where they stand first.")
    refuse_problems(found.problems)
    verdict = next((v for v in found.verdicts if v.topic == "align"), None)
    if verdict is None:
        sentence = next((t.lacks for t in found.taken if t.lacks), "Read something before keeping.")
        raise Refusal(422, sentence, [FieldError(field="readings", detail=sentence)])
    if body.standing == "as left" and not body.note.strip() and (bad := _unsigned(found, verdict)):
        raise Refusal(422, bad, [FieldError(field="note", detail=bad)])
    moved, methods = found.stage.moving + 1, list(dict.fromkeys(t.method for t in found.taken if not t.lacks))
    row = Reading(
        id=body.id,
        drive_id=drive.id,
        configuration_id=configuration.id if configuration else None,
        stage_position=body.align.stage,
        kind="alignment",
        taken_at=taken_at or now(),
        taken_by=person_id,
        machine_state=body.machine_state,
        method=", ".join(m.label.lower() for m in methods),
        tool=", ".join(m.tool for m in methods),
        wheel=moved,
        standing=body.standing,
        hour_meter_h=hours,
        note=body.note.strip(),
        summary={
            "figures": {k: {"si": f.value_si, "std_si": f.std_si} for k, f in found.figures.items()},
            "allowed": {"angle": found.allowed.angle_rad, "offset": found.allowed.offset_m, "source": found.allowed.source},
            "headline": verdict.headline,
            "detail": verdict.detail,
            "tone": verdict.tone.value,
            "sureness": verdict.sureness,
            "pair": f"{found.names.moving} to {found.names.still}",
            "true": found.true,
            "words": list(found.words),
            "before": [f"{c.title}: {c.means or c.said}" for c in found.checks if c.said],
        },
    )
    return row, [value_row(row.id, quantity, position, entry, None) for quantity, position, entry in _entries(body.align, found)]


def _unsigned(found: Aligned, verdict: Verdict) -> str:
    """Why it cannot be signed as left without a word; empty where it can."""
    if verdict.tone is not Tone.GOOD:
        return "It is not all read and true: say in the note why it is left so."
    bad = [c.title.lower() for c in found.checks if c.tone is Tone.WATCH]
    return f"A check is open ({', '.join(bad)}): say in the note why it is left so." if bad else ""


def _entries(form: AlignForm, found: Aligned) -> list[tuple[str, int, Entry]]:
    """What was read, and what was measured before, counted on by kind."""
    rows: list[tuple[str, int, Entry]] = []
    count: Counter[str] = Counter()
    taken = [
        (p.field, r.quantities.get(p.key)) for r, t in zip(form.readings, found.taken, strict=True) if not t.lacks for p in t.method.points
    ]
    checked = [("foot_gap" if k.startswith("soft") else "run_out", e) for k, e in sorted(form.checks.quantities.items())]
    for field, entry in (*taken, *checked):
        count[field] += 1
        if entry is not None and field in FIELDS and entry_known(field, entry):
            rows.append((field, count[field], entry))
    return rows
