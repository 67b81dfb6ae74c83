"""The Tension station of a sheet, as core/stations/tension has it."""

from collections.abc import Mapping

from pydantic import BaseModel, Field

from tuyere.core.basis.figure import FAR, MANY, Figure, shown
from tuyere.core.stations.tension.methods import TensionMethod
from tuyere.core.stations.tension.read import Tight
from tuyere.core.stations.tension.scale import Band
from tuyere.core.stations.tension.spans import SpanNote
from tuyere.web.answers import BothOut, both_out
from tuyere.web.stages import StageName, named


class AskOut(BaseModel):
    """Something more to measure for a method."""

    key: str
    field: str
    label: str
    needed: bool
    kept: bool = Field(False, description="it stands with the stage: asked once")


class MethodOut(BaseModel):
    """A way to measure: what its tool shows (`field`), whether of each belt, and what else it asks."""

    key: str
    label: str
    tool: str
    field: str
    value: str
    each: bool
    asks: list[AskOut]
    tools: list[str]


class MarkOut(BaseModel):
    """Something on the scale, N of one strand at rest: an edge, a band, a rule. `text`: as shown."""

    kind: str
    key: str
    label: str
    low: float
    high: float
    mid: float
    text: BothOut
    said: str = ""


class UpperOut(BaseModel):
    """An upper limit; not judged where it has no number, and then what to ask. `place`: of the wheel in the stage, from 1."""

    name: str
    wheel: str
    place: int | None
    limit: float | None
    text: BothOut | None
    ask: str


class SpanNoteOut(BaseModel):
    """A free run's own note, and what shakes it nearest."""

    between: str
    note: str
    source: str
    clear: BothOut | None
    clear_up: BothOut | None
    side: str = ""


class PullOut(BaseModel):
    """What a wheel pulls its shaft with at work."""

    wheel: str
    text: BothOut


class ReadOut(BaseModel):
    """One strand as read."""

    tension: float
    std: float


class TightOut(BaseModel):
    """Everything the station shows of one stage. `values`: how many readings there are to take; `one`: what one of them is of."""

    number: int
    title: str
    stages: list[StageName]
    runs: str
    one: str
    wheels: list[str]
    values: int
    held_by: str
    fixed: bool
    methods: list[MethodOut]
    method: str
    figures: dict[str, Figure]
    strands: list[ReadOut]
    steps: list[str]
    lacks: str
    stem: str
    why_not: str
    span: str
    spans: list[str]
    marks: list[MarkOut]
    uppers: list[UpperOut]
    span_notes: list[SpanNoteOut]
    pulls: list[PullOut]
    pulls_at: BothOut
    first: str = Field("", description="the wheel that slips first")
    empty: bool = False
    by_manual: bool = False
    grip: float = 1.0
    settles: bool = False
    pushes: str = Field("", description="what a gauge pushes at once")
    grips: str = Field("", description="where it lets go, likely and cautious, and why")
    start: float = Field(1.0, description="times the full-load torque at a start")
    start_by: str = ""


def tight_out(found: Tight, titles: Mapping[int, str]) -> TightOut:
    """A station as an answer. `titles`: of the stages of a train."""
    stage, scale = found.stage, found.scale
    slips = scale.slips if scale else None
    return TightOut(
        number=stage.number,
        title=stage.title,
        stages=named(titles),
        runs=stage.loop.family.runs,
        one=stage.strand.one,
        wheels=[w.name for w in stage.wheels],
        values=found.count,
        held_by=stage.held_by,
        fixed=stage.holds == "fixed",
        methods=[_method(m) for m in found.methods],
        method=found.method.key,
        figures=found.figures,
        strands=[ReadOut(tension=s.n, std=s.s) for s in found.strands],
        steps=list(found.steps),
        lacks=found.lacks,
        stem=found.stem,
        why_not=found.why_not,
        span=found.span,
        spans=list(found.spans),
        marks=_marks(found),
        uppers=[
            UpperOut(
                name=u.name,
                wheel=u.wheel,
                place=u.place + 1 if u.place is not None else None,
                limit=u.limit_n,
                text=_limit_text(u.limit_n, found) if u.limit_n is not None else None,
                ask=u.ask,
            )
            for u in found.uppers
        ],
        span_notes=[_span_note(n) for n in found.span_notes],
        pulls=[PullOut(wheel=name, text=both_out(n, "force")) for name, n in found.pulls],
        pulls_at=both_out(found.pulls_at_n, "force"),
        first=stage.wheels[slips.first_running].name if slips and slips.first_running is not None else "",
        empty=bool(scale and scale.empty),
        by_manual=bool(found.holds and found.holds.by_manual and scale and scale.manual),
        grip=found.holds.grip if found.holds else 1.0,
        settles=stage.loop.slips,
        pushes=found.pushes,
        grips=found.grips,
        start=found.holds.start if found.holds else 1.0,
        start_by=found.holds.start_by if found.holds else "",
    )


def _span_note(n: SpanNote) -> SpanNoteOut:
    note = shown(n.running_hz, "frequency")[0] if n.running_hz else "slack at work, no note"
    return SpanNoteOut(between=n.between, note=note, source=n.source, clear=_force(n.lower_n), clear_up=_force(n.higher_n), side=n.side)


def _force(value: float | None) -> BothOut | None:
    return both_out(value, "force") if value else None


def _method(m: TensionMethod) -> MethodOut:
    asks = [AskOut(key=a.key, field=a.field, label=a.label, needed=a.needed, kept=a.kept) for a in m.asks]
    return MethodOut(key=m.key, label=m.label, tool=m.tool, field=m.reads, value=m.value, each=m.each, asks=asks, tools=list(m.tools))


def _marks(found: Tight) -> list[MarkOut]:
    scale = found.scale
    if scale is None:
        return []
    marks = []
    if s := scale.slips:
        slips = (
            ("running", "slips running", s.running),
            ("starting", "slips starting", s.starting),
            ("jolt", "slips in a jolt", s.jolt),
        )
        marks += [_mark("slip", key, label, m.likely_n, m.cautious_n, m.likely_n) for key, label, m in slips]
        marks.append(
            _mark("margin", "margin", f"{found.holds.grip:g} times its load" if found.holds else "", s.margin_n, s.margin_n, s.margin_n)
        )
    if book := scale.published:
        marks += [
            _band(key, label, band, "published")
            for key, label, band in (("published", "published", book[0]), ("published new", "published, new", book[1]))
        ]
    bands = (("run in", "run in", scale.run_in), ("new", "new", scale.new), ("manual", "the manual’s figure", scale.manual))
    marks += [_band(key, label, band) for key, label, band in bands if band]
    wanted = scale.band(found.fresh, bool(found.holds and found.holds.by_manual))
    if (aim := wanted.aim_n if wanted else None) is not None:
        marks.append(_mark("target", "target", "to aim for", aim, aim, aim))
    for u in found.uppers:
        if (n := u.limit_n) is not None:
            label = f"{u.name}, {u.wheel}" if u.wheel else u.name
            marks.append(_mark("upper", f"{u.name} {u.place}", label, n, n, n).model_copy(update={"text": _limit_text(n, found)}))
    marks += [_mark("rule", r.key, r.label, r.low_n, r.high_n, r.mid_n, r.said) for r in scale.rules]
    return marks


def _limit_text(limit_n: float, found: Tight) -> BothOut:
    """A limit as shown; in words where it is never met."""
    on = found.scale.band(found.fresh, bool(found.holds and found.holds.by_manual)) if found.scale else None
    return BothOut(us=FAR, si=FAR) if on and limit_n > MANY * on.high_n else both_out(limit_n, "force")


def _band(key: str, label: str, band: Band, kind: str = "") -> MarkOut:
    kind = kind or ("manual" if key == "manual" else "band")
    return _mark(kind, key, label, band.low_n, band.high_n, band.aim_n, band.source)


def _mark(kind: str, key: str, label: str, low: float, high: float, mid: float, said: str = "") -> MarkOut:
    (low_us, low_si), (high_us, high_si) = shown(low, "force"), shown(high, "force")
    text = both_out(low, "force")
    if low != high:
        text = BothOut(us=f"{low_us.split(' ')[0]} to {high_us}", si=f"{low_si.split(' ')[0]} to {high_si}")
    return MarkOut(kind=kind, key=key, label=label, low=low, high=high, mid=mid, text=text, said=said)
