"""Measured wear of a drive: looked at against its limit, kept, and when the limit will come by this drive's own readings."""

import uuid
from collections.abc import Sequence
from datetime import date, datetime, timedelta
from typing import Annotated, Any, Literal

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session, col, select

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import fine
from tuyere.core.basis.verdict import Problem, Tone
from tuyere.core.kinds.wear_limits import limit_of
from tuyere.core.stations.inspect.dues.hours import RunningHours
from tuyere.core.stations.inspect.wear.forecast import Bend, forecast
from tuyere.core.stations.inspect.wear.of_drive import worn_part
from tuyere.core.stations.inspect.wear.places import places_of, whole_set
from tuyere.core.stations.inspect.wear.read import SPANS, WearRead, read_wear, tool_of, whats_of
from tuyere.record.entry import Entry, Strict
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.dues import facts_of
from tuyere.store.findings import Cause, Raised, settle
from tuyere.store.people_tables import Role
from tuyere.store.tables import Configuration, Drive, Due, Reading, ReadingValue
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.readings import KeptReadingOut, ask_of_meter, entry_known, hour_meter, value_row
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.state import reading, site_day, write
from tuyere.web.surveyed import answer_on
from tuyere.web.worn_places import WornPlaceOut, places_out

blueprint = routes("worn", "/api", "inspect")

FORECAST: dict[str, Bend] = {"chain": "chain", "dogs": "chain", "groove": "groove"}
SEEN = {"not there": 0.0, "it begins": 0.7, "there": 1.0}


class WearForm(Strict):
    """What was measured, where in words, and the reading: `value`, or `span` over so many pitches (`count`, `pitch`); `fixed`."""

    what: str = Field("", max_length=40, description="empty: the first that suits the drive")
    where: str = Field("", max_length=60, description="such as: driver sheave, groove 2")
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=6)
    words: dict[str, Annotated[str, Field(max_length=20)]] = Field(default_factory=dict, max_length=6)


class KeepWear(WearForm):
    """Wear to keep: client-made id, hours on the meter, a note. Taken with the machine isolated."""

    id: uuid.UUID
    hour_meter: str = Field("", max_length=60)
    note: str = Field("", max_length=2000)


class WearKeptOut(BaseModel):
    """One measured before: when, who, where, as a share of its limit, in words."""

    id: uuid.UUID
    at: datetime
    who: str
    where: str
    share: float
    text: str
    headline: str


class LookOut(BaseModel):
    """The question: what may be measured here, its limit, what was understood, the verdict, and when the limit will come.

    `runs_out`: days, low and high (null: open); `refused`: why it cannot be said.
    """

    what: str
    whats: dict[str, str]
    look: str = Field(description="which picture shows what to measure")
    unit: Literal["m", "share", "count", "look"]
    tool: str
    measured: str
    limit: str
    source: str
    spans: bool
    pitch_known: bool
    field: str
    value: str
    share: float | None
    tone: str
    headline: str
    detail: str
    lacks: str
    notes: dict[str, Note]
    problems: list[Problem]
    kept: list[WearKeptOut]
    places: list[WornPlaceOut] = Field(description="every wheel, groove or belt to go round, with its last reading")
    whole_set: list[str] = Field(description="what to renew together where a wheel is at its limit")
    hours_left: list[float | None] | None
    runs_out: list[date | None] | None
    refused: str


@blueprint.post("/drives/<uuid:drive_id>/wear/look", summary="Wear against its limit, and when it comes", responses={"200": LookOut})
@at_site_of_drive(Role.VIEWER)
def post_look(path: DrivePath, body: WearForm) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        found = _read(body, drive, configuration)
        rows = [(r, who) for r, who in drives.wears(session, drive.id) if r.summary["what"] == found.what]
        facts = facts_of(session, [drive.id])[drive.id]
        clock = facts.clock(configuration.hours_per_day if configuration else None)
        fitted = facts.fitted(found.limit.anew)  # new belts renew no grooves, and new wheels no chain
        on = answer_on(drive, configuration)
    wheres = {r.summary["where"] for r, _ in rows}  # one place's readings say nothing of another's
    same = [r for r, _ in rows if r.summary["where"] == body.where or (not body.where and len(wheres) == 1)]
    left, days, refused = _ahead(found, [_point(r) for r in same], clock, fitted)
    worn, limit = found.worn, found.limit
    last = _last(same, rows) if worn is None and not found.problems else None
    over = last is not None and last["share"] >= 1
    places, part = places_out(places_of(found.what, on.survey), [r for r, _ in rows], fitted), worn_part(on)
    at_limit = any(p.share is not None and p.share >= 1 for p in places)
    return answer(
        LookOut(
            what=found.what,
            whats=whats_of(part.family),
            look=limit.look,
            unit=limit.unit,
            tool=limit.tool,
            places=places,
            whole_set=whole_set(found.what, on.survey) if at_limit else [],
            measured=limit.measured,
            limit=f"{'at least ' if limit.least else ''}{_said(limit.limit, limit.unit)}",
            source=f"{limit.source} ({limit.confidence})",
            spans=found.what in SPANS,
            pitch_known=part.pitch_m is not None and found.what == "chain",
            field="wear_share" if limit.unit == "share" else "wear_depth",
            value=_said(found.value, limit.unit) if found.value is not None else "",
            share=worn.share if worn else None,
            tone=worn.tone.value if worn else last["tone"] if last else "",
            headline=worn.headline if worn else last["headline"] if last else "",
            detail=worn.detail if worn else last["detail"] if last else "",
            lacks=found.lacks,
            notes=found.notes,
            problems=list(found.problems),
            kept=[
                WearKeptOut(
                    id=r.id,
                    at=r.taken_at,
                    who=who,
                    where=r.summary["where"],
                    share=r.summary["share"],
                    text=r.summary["text"],
                    headline=r.summary["headline"],
                )
                for r, who in reversed(rows)
            ],
            hours_left=None if over or (worn and worn.share >= 1) else left,
            runs_out=None if over or (worn and worn.share >= 1) else days,
            refused=refused,
        )
    )


def _last(same: Sequence[Reading], rows: Sequence[tuple[Reading, str]]) -> dict[str, Any] | None:
    """What was kept last of this place; of several places the most worn."""
    if same:
        return same[-1].summary
    each = {r.summary["where"]: r.summary for r, _ in rows}
    return max(each.values(), key=lambda s: float(s["share"]), default=None)


def _said(value: float, unit: str) -> str:
    if unit == "look":
        return next(said for said, v in SEEN.items() if v == value)
    return f"{100 * value:.2f} %" if unit == "share" else f"{value:.0f}" if unit == "count" else fine(value)


def _read(form: WearForm, drive: Drive, configuration: Configuration | None) -> WearRead:
    """Raises Refusal for what is not measured on this kind of drive."""
    part = worn_part(answer_on(drive, configuration))
    known = whats_of(part.family)
    what = form.what or next(iter(known))
    if what not in known:
        sentence = "Choose what was measured."
        raise Refusal(422, sentence, [FieldError(field="what", detail=sentence)])
    return read_wear(what, part, {k: e.typed() for k, e in form.quantities.items()}, form.words)


def _point(row: Reading) -> tuple[datetime, float]:
    return row.taken_at, row.summary["share"]


def _ahead(
    found: WearRead, same: Sequence[tuple[datetime, float]], clock: RunningHours, fitted: datetime | None
) -> tuple[list[float | None] | None, list[date | None] | None, str]:
    """Hours and days from today at which the limit comes, by the readings kept and the one being typed."""
    if found.limit.unit == "look":
        return None, None, ""
    points = [p for p in same if fitted is None or p[0] > fitted]
    if found.worn:
        points.append((now(), found.worn.share))
    if not points:
        return None, None, ""
    # Of a part that was fitted new on the record the hours count from then; of any other from its first reading.
    begin, start = (fitted, 0.0) if fitted else points[0]
    rest = points if fitted else points[1:]
    if not rest:
        return None, None, "One reading says nothing of how fast: measure it again after some hundred hours."
    hours = [ran[1] if (ran := clock.between(begin, at)) else None for at, _ in rest]
    if None in hours or (today := clock.between(begin, now())) is None:
        return None, None, "Say the hours a day at Survey, or note the hour meter: without hours there is no day to tell."
    said = forecast([h for h in hours if h is not None], [s for _, s in rest], 1.0, FORECAST.get(found.what, ""), 0.0, start)
    if said.refused or said.low is None or said.middle is None:
        return None, None, said.refused
    left = [None if h is None else max(0.0, h - today[1]) for h in (said.low, said.middle, said.high)]
    when = [None if h is None else clock.when(now(), h) for h in left]
    days = [site_day(w.likely) if w and w.likely else None for w in when]
    return left, days, ""


@blueprint.post("/drives/<uuid:drive_id>/wear", summary="Keep measured wear", responses={"201": KeptReadingOut})
@at_site_of_drive(Role.MECHANIC)
def post_wear(path: DrivePath, body: KeepWear) -> Response:
    hours = hour_meter(body.hour_meter)

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        ask_of_meter(session, drive.id, body.hour_meter, hours, now())
        rows = wear_of(body, drive, configuration, writer.person_id, hours)
        _ask_of_twice(session, rows[0])
        return Outcome(201, {"id": str(rows[0].id), **keep_wear(session, writer, drive, configuration, rows)})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptReadingOut(**done.body), done.status)


_TWICE = timedelta(minutes=10)  # a part does not wear between: a judgement


def _ask_of_twice(session: Session, new: Reading) -> None:
    """The same part measured again at once is asked about; with a note, it is meant. Raises Refusal."""
    if new.note:
        return
    for row, _ in drives.wears(session, new.drive_id):
        said = row.summary
        same = all(said[k] == new.summary[k] for k in ("what", "where"))
        if same and row.id != new.id and new.taken_at - row.taken_at < _TWICE:
            sentence = f"It was measured just now: {said['text']}. Strike that one out in the Log, or write a note why both stand."
            raise Refusal(422, sentence, [FieldError(field="note", detail=sentence)])


def keep_wear(
    session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, rows: tuple[Reading, list[ReadingValue]]
) -> dict[str, Any]:
    """Keep it, with the finding it raises or closes, and the promise to measure again."""
    row, values = rows
    drives.keep_reading(session, writer, row, values)
    said = row.summary
    cause = Cause(row.id, "reading", f"Measured {site_day(row.taken_at):%d %b %Y}: {said['headline']}"[:400], row.taken_at)
    what = f"{said['where']}: {said['headline']}" if said["where"] else said["headline"]
    raised = [Raised(what[:120], said["tone"], "inspect/wear")] if said["tone"] in (Tone.WATCH, Tone.STOP) else []
    settle(session, writer, drive.id, cause, f"wear {said['what']} {said['where']}"[:80], raised)
    promise = _promise(session, writer, drive, configuration, row)
    return {"headline": f"{said['headline']}{f'. {promise}' if promise else ''}", "tone": said["tone"]}


EARLY = 0.8  # of the running hours to the earliest day: time to order the part. A judgement


def _promise(session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, row: Reading) -> str:
    """Before the earliest day on which the limit may come it is measured again: that promise is made, and the one before it done."""
    said = row.summary
    what = f"Measure again: {said['where'] + ', ' if said['where'] else ''}{limit_of(said['what']).label.lower()}"[:120]
    page = f"inspect/wear?what={said['what']}"
    held = select(Due).where(Due.drive_id == drive.id, Due.what == what, Due.page == page, col(Due.done_at).is_(None))
    for due in session.exec(held):
        update(session, writer, due, due.row_version, {"answer": "done", "done_by": writer.person_id, "done_at": row.taken_at}, "did a due")
    facts = facts_of(session, [drive.id])[drive.id]
    clock = facts.clock(configuration.hours_per_day if configuration else None)
    rows = [r for r, _ in drives.wears(session, drive.id) if (r.summary["what"], r.summary["where"]) == (said["what"], said["where"])]
    nothing_typed = read_wear(said["what"], worn_part(answer_on(drive, configuration)), {}, {})
    fitted = facts.fitted(nothing_typed.limit.anew)
    left, _, _ = _ahead(nothing_typed, [_point(r) for r in rows], clock, fitted)
    when = clock.when(now(), EARLY * left[0]) if left and left[0] is not None and said["share"] < 1 else None
    if when is None or when.likely is None:
        return ""
    on = max(site_day(when.likely), site_day(now()) + timedelta(days=1))
    insert(
        session, writer, Due(id=uuid.uuid5(row.id, "measure again"), drive_id=drive.id, what=what, due_on=on, page=page), "promised a look"
    )
    return f"To be measured again by {on:%d %b %Y}"


def wear_of(
    body: KeepWear, drive: Drive, configuration: Configuration | None, person_id: uuid.UUID, hours: float | None, at: datetime | None = None
) -> tuple[Reading, list[ReadingValue]]:
    """The rows of measured wear. Raises Refusal."""
    found = _read(body, drive, configuration)
    if found.problems or found.worn is None or found.value is None:
        sentence = found.problems[0].sentence if found.problems else found.lacks or "Measure it before keeping."
        field = found.problems[0].field if found.problems else ("span" if found.what in SPANS else "value")
        raise Refusal(422, sentence, [FieldError(field=field, detail=sentence)])
    worn, limit = found.worn, found.limit
    row = Reading(
        id=body.id,
        drive_id=drive.id,
        configuration_id=configuration.id if configuration else None,
        kind="wear",
        taken_at=at or now(),
        taken_by=person_id,
        machine_state="isolated",
        method=limit.label.lower(),
        tool="",
        hour_meter_h=hours,
        note=body.note.strip(),
        summary={
            "what": found.what,
            "where": " ".join(body.where.split()),
            "value": found.value,
            "share": worn.share,
            "limit": limit.limit,
            "text": _said(found.value, limit.unit),
            "headline": worn.headline,
            "detail": worn.detail,
            "tone": worn.tone.value,
            "figures": {},
        },
    )
    share = "wear_share" if limit.unit == "share" else "wear_depth"
    fields = {"span": "pitch_span", "pitch": "pitch_span"} if found.what in SPANS else {"value": share}
    typed = [(f, body.quantities.get(k)) for k, f in fields.items()]
    tool = tool_of(limit) if limit.unit == "m" else None
    values = [value_row(row.id, f, i, e, tool) for i, (f, e) in enumerate(typed, 1) if e is not None and entry_known(f, e)]
    return row, values
