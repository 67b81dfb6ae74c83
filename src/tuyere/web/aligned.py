"""The Align station of a sheet, as core/stations/align has it."""

from collections.abc import Mapping

from pydantic import BaseModel, Field

from tuyere.core.basis.figure import Figure
from tuyere.core.stations.align.base import bases
from tuyere.core.stations.align.judge import said
from tuyere.core.stations.align.read import Aligned, Taken
from tuyere.core.stations.align.shims import stocks
from tuyere.core.stations.align.views import View, lie_of
from tuyere.web.answers import BothOut, both_out
from tuyere.web.stages import StageName, named


class AlignPointOut(BaseModel):
    """One thing to read: its key, its field, how it is called here."""

    key: str
    field: str
    label: str
    needed: bool


class AlignMethodOut(BaseModel):
    """A way to read it, and which errors it sees by itself."""

    key: str
    label: str
    sees: list[str]


class AlignTakenOut(BaseModel):
    """A reading of the form: its points, how to go about it, what is still to read."""

    method: str
    tool: str
    points: list[AlignPointOut]
    words: list[str]
    steps: list[str]
    lacks: str


class AlignBaseOut(BaseModel):
    """A kind of base to choose."""

    value: str
    label: str
    has_feet: bool


class AlignCheckOut(BaseModel):
    """A quick check: what to look at, what was said, what it means."""

    key: str
    title: str
    how: str
    asks: list[str]
    said: str
    why: str
    tone: str
    means: str


class AlignStepOut(BaseModel):
    """One correction: words, the feet it is made at (1 front-left, 2 front-right, 3 back-left, 4 back-right), which way and how far."""

    kind: str
    text: str
    feet: list[int]
    way: str
    by: BothOut | None
    effect: str


class AlignViewOut(BaseModel):
    """From where it is looked at, and where the shaft (x, out), the line of centres (u) and v point on the page (right, up)."""

    key: str
    title: str
    x: list[float]
    u: list[float]
    v: list[float]


class AlignErrorOut(BaseModel):
    """An error and the most that is allowed; null where it is not read. rad or m."""

    key: str
    value: float | None
    std: float | None
    allowed: float
    text: str
    allowed_text: str
    allowed_both: BothOut


class AlignCostOut(BaseModel):
    """What an error costs where it is left, and how strong the evidence is."""

    error: str
    cost: str
    evidence: str


class AlignPairOut(BaseModel):
    """The two wheels for a drawing, m and rad: radii touched, centres, slope of the line of centres from the one that moves."""

    slope_rad: float
    centre_m: float
    moving_radius_m: float
    still_radius_m: float
    moving_face_m: float
    still_face_m: float
    lie: str


class AlignFeetOut(BaseModel):
    """Where the feet are, m."""

    a_m: float
    b_m: float
    width_m: float
    height_m: float


class AlignedOut(BaseModel):
    """Everything the station shows of one pair. `wheel`: place of the one that moves, from 1; `wants`: what to say before a move."""

    number: int
    title: str
    stages: list[StageName]
    wheels: list[str]
    wheel: int
    still: int
    moving_name: str
    still_name: str
    wheel_word: str
    seat: str
    kind: str
    pair: AlignPairOut
    base: str
    bases: list[AlignBaseOut]
    stocks: dict[str, str]
    feet: AlignFeetOut | None
    wants: list[str]
    errors: list[AlignErrorOut]
    source: str
    steps: list[AlignStepOut]
    words: list[str]
    seen: list[str]
    true: bool
    methods: list[AlignMethodOut]
    taken: list[AlignTakenOut]
    checks: list[AlignCheckOut]
    views: list[AlignViewOut]
    left: str
    costs: list[AlignCostOut]
    grooves: list[BothOut | None] = Field(description="face to groove by the groove table: of the one that moves, of the other")
    figures: dict[str, Figure]


def aligned_out(found: Aligned, titles: Mapping[int, str]) -> AlignedOut:
    """A station as an answer."""
    on, pair = found.stage, found.pair
    return AlignedOut(
        number=on.stage.number,
        title=on.stage.title,
        stages=named(titles),
        wheels=[w.name for w in on.stage.wheels],
        wheel=on.moving + 1,
        still=on.still + 1,
        moving_name=found.names.moving,
        still_name=found.names.still,
        wheel_word=found.names.wheel,
        seat=on.stage.loop.seat,
        kind=on.kind,
        pair=AlignPairOut(
            slope_rad=pair.slope_rad,
            centre_m=pair.centre_m,
            moving_radius_m=pair.movable_radius_m,
            still_radius_m=pair.stationary_radius_m,
            moving_face_m=pair.movable_face_to_groove_m,
            still_face_m=pair.stationary_face_to_groove_m,
            lie=lie_of(pair.slope_rad),
        ),
        base=found.base.key if found.base else "",
        bases=[AlignBaseOut(value=b.key, label=b.label, has_feet=b.has_feet) for b in bases()],
        stocks=stocks(),
        feet=AlignFeetOut(a_m=found.feet.a_m, b_m=found.feet.b_m, width_m=found.feet.width_m, height_m=found.feet.height_m)
        if found.feet
        else None,
        wants=list(found.wants),
        errors=_errors(found),
        source=found.allowed.source,
        steps=[
            AlignStepOut(
                kind=s.kind,
                text=s.text,
                feet=list(s.feet),
                way=s.way,
                by=both_out(s.by_m, "length", decimals=(3, 2)) if s.by_m else None,
                effect=s.effect,
            )
            for s in found.steps
        ],
        words=list(found.words),
        seen=list(found.seen),
        true=found.true,
        methods=[AlignMethodOut(key=m.key, label=m.label, sees=list(m.sees)) for m in found.methods],
        taken=[_taken(t) for t in found.taken],
        checks=[
            AlignCheckOut(key=c.key, title=c.title, how=c.how, asks=list(c.asks), said=c.said, why=c.why, tone=c.tone.value, means=c.means)
            for c in found.checks
        ],
        views=[_view(v) for v in found.views],
        left=found.left,
        costs=[AlignCostOut(error=e, cost=c, evidence=x) for e, c, x in found.costs],
        grooves=[both_out(g, "length", decimals=(3, 1)) if g is not None else None for g in found.grooves],
        figures=found.figures,
    )


def _view(v: View) -> AlignViewOut:
    return AlignViewOut(key=v.key, title=v.title, x=list(v.x), u=list(v.u), v=list(v.v))


def _taken(t: Taken) -> AlignTakenOut:
    points = [AlignPointOut(key=p.key, field=p.field, label=p.label, needed=p.needed) for p in t.points]
    return AlignTakenOut(
        method=t.method.key, tool=t.method.tool, points=points, words=list(t.method.words), steps=list(t.steps), lacks=t.lacks
    )


def _errors(found: Aligned) -> list[AlignErrorOut]:
    e, allowed = found.errors, found.allowed
    rows = (
        ("angle", e.angle_rad, e.angle_u_rad, allowed.angle_rad),
        ("twist", e.twist_rad, e.twist_u_rad, allowed.angle_rad),
        ("offset", e.offset_m, e.offset_u_m, allowed.offset_m),
    )
    return [
        AlignErrorOut(
            key=key,
            value=value,
            std=std,
            allowed=most,
            text=said(key, value) if value is not None else "",
            allowed_text=said(key, most),
            allowed_both=both_out(most, "length", decimals=(3, 2)) if key == "offset" else both_out(most, "slope"),
        )
        for key, value, std, most in rows
    ]
