"""The log of a drive: everything that happened to it, newest first."""

import uuid
from dataclasses import replace
from datetime import datetime
from typing import Any, Literal, cast

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.figure import plus_minus, shown
from tuyere.core.stations.inspect.dues.rules import standard_rules
from tuyere.core.stations.inspect.rounds.checklist import TITLES, Depth
from tuyere.core.stations.tension.settling import left_after
from tuyere.store import drives
from tuyere.store import log as store
from tuyere.store.clock import now
from tuyere.store.dues import facts_of
from tuyere.store.people_tables import Role
from tuyere.store.tables import Reading, ReadingValue
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.state import reading, site_day

blueprint = routes("log", "/api", "log")


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


LogKind = Literal[
    "belt tension",
    "shaft speed",
    "alignment",
    "wear",
    "survey",
    "finding",
    "counter slip",
    "get-home fix",
    "set ended",
    "trial",
    "done",
    "due",
    "hours",
    "round",
    "job",
]


class LogEntryOut(BaseModel):
    """One line of the log."""

    id: uuid.UUID
    kind: LogKind
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
    strand: str = ""
    state: str = Field("", description="how the belt stood: tensioner engaged or not, turned round how often")
    hour_meter_h: float | None = None
    note: str = ""
    struck: bool = False
    open: bool = False
    row_version: int = 1
    stage: int = 1
    wheel: int = Field(0, description="of an alignment, the place of the wheel that moves")
    standing: str = Field("", description="of an alignment: as found, between, as left")
    allowed: dict[str, float] = Field(default_factory=dict, description="of an alignment: the most angle (rad) and offset (m)")
    words: list[str] = Field(default_factory=list, description="of an alignment: the corrections as they were said; checks before it")
    values: list[LoggedValue] = Field(default_factory=list)
    figures: dict[str, LoggedFigure] = Field(default_factory=dict)
    unread: list[str] = Field(default_factory=list, description="of a job: its steps that ask for a reading and got none")


class ExpectedAt(BaseModel):
    """What should be left of a tension at a time, N."""

    at: datetime
    low: float
    high: float


class ExpectedOut(BaseModel):
    """How a tension that was set should settle until it is read again, on one stage."""

    stage: int
    points: list[ExpectedAt]


class LogOut(BaseModel):
    """A drive's log, newest first, and what to ask for to have what was before."""

    entries: list[LogEntryOut]
    next: str


MOST_LINES = 200


class LogQuery(BaseModel):
    """Which lines. `before`: where the page before ended, as its `next`."""

    kinds: str = Field("", max_length=200, description="kinds, with commas between; empty: all")
    before: str = Field("", max_length=120)
    limit: int = Field(MOST_LINES, ge=1, le=MOST_LINES)


@blueprint.get("/drives/<uuid:drive_id>/log", summary="What happened to a drive, page by page", responses={"200": LogOut})
@at_site_of_drive(Role.VIEWER)
def get_log(path: DrivePath, query: LogQuery) -> Response:
    wanted = store.Wanted(frozenset(filter(None, query.kinds.split(","))), _place(query.before), query.limit + 1)
    with reading() as session:
        found = store.log(session, path.drive_id, wanted)
        shown = found[: query.limit]
        more = f"{shown[-1].at.isoformat()}~{shown[-1].id}" if len(found) > query.limit else ""
        return answer(LogOut(entries=[_log_entry(e) for e in shown], next=more))


def _place(before: str) -> tuple[datetime, str] | None:
    """Where a page ended. Raises Refusal for a place that no page has told."""
    if not before:
        return None
    at, _, line = before.partition("~")
    try:
        when, line = datetime.fromisoformat(at.replace(" ", "+")), str(uuid.UUID(line))
        if when.tzinfo is None:
            raise ValueError
    except ValueError:
        sentence = "That page cannot be found: ask for the newest again."
        raise Refusal(422, sentence, [FieldError(field="before", detail=sentence)]) from None
    return when, line


class TrendOut(BaseModel):
    """What the curves of a drive are drawn of, newest first, without what was typed; and how its tensions should have settled."""

    entries: list[LogEntryOut]
    expected: list[ExpectedOut]


_DRAWN = frozenset({"belt tension", "alignment", "survey", "set ended", "done"})
_MOST_DRAWN = 400


@blueprint.get("/drives/<uuid:drive_id>/trend", summary="Tension and alignment over time", responses={"200": TrendOut})
@at_site_of_drive(Role.VIEWER)
def get_trend(path: DrivePath) -> Response:
    with reading() as session:
        found = store.log(session, path.drive_id, store.Wanted(_DRAWN, most=_MOST_DRAWN))
        return answer(TrendOut(entries=[_log_entry(replace(e, values=())) for e in found], expected=_expected(session, path.drive_id)))


_SHARES = (0.0, 0.001, 0.01, 0.05, 0.2, 0.5, 1.0)  # of the way to the next reading: it falls fast at first


def _expected(session: Session, drive_id: uuid.UUID) -> list[ExpectedOut]:
    """From each tension that was set (a new set, or set again) to the next reading of its stage, or to today."""
    rows = sorted(drives.tensions(session, drive_id, 200), key=lambda r: r.taken_at)
    facts, configuration = facts_of(session, [drive_id])[drive_id], drives.current_configuration(session, drive_id)
    clock = facts.clock(configuration.hours_per_day if configuration else None)
    set_at = {h.at for h in facts.happened if h.kind == "re-tension"}
    found = []
    for i, row in enumerate(rows):
        mean, kind = row.summary.get("figures", {}).get("strand_average"), row.summary.get("settles_as", "")
        if not mean or not (row.belt_state == "new" or row.taken_at in set_at):
            continue
        until = next((r.taken_at for r in rows[i + 1 :] if r.stage_position == row.stage_position), now())
        ran = clock.between(row.taken_at, until)
        if ran is None or until <= row.taken_at:
            continue
        left = [(share, left_after(kind, share * ran[1])) for share in _SHARES]
        points = [
            ExpectedAt(at=row.taken_at + share * (until - row.taken_at), low=x.low * mean["si"], high=x.high * mean["si"])
            for share, x in left
            if x
        ]
        if points:
            found.append(ExpectedOut(stage=row.stage_position, points=points))
    return found


def _log_entry(entry: store.LogEntry) -> LogEntryOut:
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
            title="Proposal, not fitted" if c.standing == "proposed" else f"Survey {c.sequence}, {c.standing}",
            detail=fitted,
            tone="",
            note=c.reason,
        )
    if done := _done(entry):
        return done
    if not entry.finding:
        return _found_out(entry)
    f = entry.finding
    return LogEntryOut(
        id=f.id,
        kind="finding",
        at=entry.at,
        who=f"worked out from what {entry.who} kept" if f.subject else entry.who,
        title=f.what,
        detail=_life_of(entry),
        tone=f.weight if not f.closed_at else "",
        note=f.words if f.words != f.what else "",
        row_version=f.row_version,
        machine_state=f.machine_state,
        open=f.closed_at is None,
    )


def _life_of(entry: store.LogEntry) -> str:
    """What became of a finding."""
    f = entry.finding
    assert f
    if f.closed_at:
        by, why = f" by {entry.by}" if entry.by else "", f": {f.closed_why}" if f.closed_why else ""
        return f"closed {site_day(f.closed_at):%d %b %Y}{by}{why}"
    return f"being done by {entry.by}" if f.taken_up_at else "open"


_DONE = {
    "new set": "New belts or chain on",
    "new wheel": "Another wheel on",
    "re-tension": "Tension set",
    "first start": "First start",
    "oil change": "Oil changed",
    "chain oiled": "Chain oiled",
    "get-home fix": "Get-home fix on",
    "get-home off": "Get-home fix off",
}


def _done(entry: store.LogEntry) -> LogEntryOut | None:
    """What was fitted, answered or metered; None for any other line."""

    def line(row_id: uuid.UUID, kind: Any, title: str, detail: str, **more: Any) -> LogEntryOut:
        return LogEntryOut(id=row_id, kind=kind, at=entry.at, who=entry.who, title=title, detail=detail, tone="", **more)

    if h := entry.happened:
        off = f"off came {h.came_off}" if h.came_off else ""
        said = "; ".join(s for s in (h.what, off, h.why_off) if s)
        return line(h.id, "done", _DONE.get(h.kind, h.kind), said, struck=h.struck_at is not None, row_version=h.row_version)
    if a := entry.answer:
        rule = next((r.what for r in standard_rules() if r.key == a.rule), a.rule)
        to = f" to {a.to_on:%d %b %Y}" if a.to_on else ""
        return line(a.id, "due", f"{rule}: {a.answer}{to}", "", note=a.why)
    if d := entry.promise:
        return line(d.id, "due", f"{d.what}: {d.answer or 'done'}", "", note=d.why)
    if r := entry.round:
        return line(r.id, "round", TITLES[cast(Depth, r.depth)], r.said, note=r.note)
    if j := entry.job:
        how = j.said if j.finished_at else "dropped"
        return line(
            j.id,
            "job",
            j.title,
            how,
            note="; ".join(s for s in (j.note, j.safety_note, *entry.noted) if s),
            unread=[u["key"] for u in j.unread],
        )
    if m := entry.hours:
        return line(m.id, "hours", f"Hour meter: {m.hours_h:g} h", "", struck=m.struck_at is not None, row_version=m.row_version)
    return None


def _found_out(entry: store.LogEntry) -> LogEntryOut:
    def line(row_id: uuid.UUID, kind: Any, title: str, detail: str, tone: str = "", note: str = "") -> LogEntryOut:
        return LogEntryOut(id=row_id, kind=kind, at=entry.at, who=entry.who, title=title, detail=detail, tone=tone, note=note)

    if entry.slip:
        return line(entry.slip.id, "counter slip", f"Counter slip: {entry.slip.designation}", str(entry.slip.slip.get("count", "")))
    if entry.fix:
        f = entry.fix
        state = f"taken off {site_day(f.off_at):%d %b %Y}" if f.off_at else "still on"
        return line(f.id, "get-home fix", f"Get-home fix: {f.what}", f"{f.share_text}; {state}", "" if f.off_at else "watch", f.run)
    if entry.trial:
        t, said = entry.trial, entry.trial.summary
        return line(t.id, "trial", f"Trial: {said.get('change', t.change)}", said.get("headline", ""), said.get("tone", ""), t.note)
    assert entry.life
    return line(
        entry.life.id, "set ended", f"A set came off after {entry.life.hours_h:g} h", f"{entry.life.ended_on:%d %b %Y}", note=entry.life.why
    )


def _logged_reading(entry: store.LogEntry, row: Reading) -> LogEntryOut:
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
        strand=row.strand,
        stage=row.stage_position,
        wheel=row.wheel,
        standing=row.standing,
        allowed={k: v for k, v in row.summary.get("allowed", {}).items() if k != "source"},
        words=[*row.summary.get("before", []), *(row.summary.get("words", []) if row.standing != "as left" else [])],
        state=_state(row),
        hour_meter_h=row.hour_meter_h,
        note=row.note,
        struck=row.struck_at is not None,
        row_version=row.row_version,
        values=[_logged_value(v) for v in entry.values],
        figures=figures,
    )


def _state(row: Reading) -> str:
    said = {"yes": "tensioner engaged", "no": "tensioner off"}.get(row.engaged, "")
    turned = "" if row.turned is None else f"turned round {row.turned} times by hand" if row.turned else "not turned before"
    pushed = row.summary.get("pushes", "")
    place = row.summary.get("stage", "") if row.stage_position > 1 else ""
    return ", ".join(s for s in (place, f"pushed {pushed}" if pushed else "", said, turned) if s)


FIGURE_KINDS = {
    "slip": "share",
    "off_design": "share",
    "strand_spread": "share",
    "stretch": "share",
    "angle": "slope",
    "twist": "slope",
    "entry": "slope",
    "offset": "length",
    "driven_speed": "rotation",
    "tach_driven": "rotation",
    "tach_driver": "rotation",
    "span": "length",
    "deflection": "length",
}


def logged_figure(key: str, value_si: float, std_si: float) -> LoggedFigure:
    """A kept figure in both systems."""
    kind = FIGURE_KINDS.get(key, "force")
    us, si = shown(value_si, kind, decimals=(3, 2)) if key == "offset" else shown(value_si, kind, to_set=kind == "length")
    plus_us, plus_si = plus_minus(std_si, kind)
    return LoggedFigure(value_si=value_si, std_si=std_si, us=us, si=si, plus_minus_us=plus_us, plus_minus_si=plus_si)


def _logged_value(value: ReadingValue) -> LoggedValue:
    small = value.quantity in ("edge_gap", "face_place", "run_out", "foot_gap")
    us, si = (
        shown(value.value_si, value.kind, decimals=(3, 2)) if small else shown(value.value_si, value.kind, to_set=value.kind == "length")
    )
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
