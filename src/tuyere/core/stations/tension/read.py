"""From what people typed about a stage's tension to everything that the station shows of it."""

import math
from dataclasses import dataclass, replace

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import Figure
from tuyere.core.basis.page import Page
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.uncertainty import UFloat, uncertain
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tension import measured
from tuyere.core.mechanics.tension.beam import SlackError
from tuyere.core.mechanics.tension.window import WindowError, strain
from tuyere.core.stations.tension.figures import aim_words, aims, window_figures
from tuyere.core.stations.tension.grip import grip_of
from tuyere.core.stations.tension.limits import Holds, read_holds
from tuyere.core.stations.tension.methods import BY_KEY, Setting, TensionMethod, lacks, methods_for, stem_for, steps
from tuyere.core.stations.tension.scale import ASKS, Scale, scale_of
from tuyere.core.stations.tension.spans import SpanNote, span_notes
from tuyere.core.stations.tension.strands import strands_of, stretch_of, values_of
from tuyere.core.stations.tension.typed import TypedTension
from tuyere.core.stations.tension.verdicts import verdicts_of

_MORE = {
    "lever_arm": "arm",
    "wrap_angle": "angle",
    "lean_angle": "angle",
    "clip_offset": "offset",
    "clip_base": "base",
    "mark": "mark",
    "sag": "sag",
}


@dataclass(frozen=True)
class Upper:
    """An upper limit as shown: of what, at which wheel, what (N; None: not judged), and what to ask."""

    name: str
    wheel: str
    place: int | None
    limit_n: float | None
    ask: str


@dataclass(frozen=True)
class Tight:
    """Everything of a stage's tension.

    `methods`: what can be used; `lacks`: why the chosen one says nothing yet; `stem`: which spring gauge; `why_not`: why there is no
    window.
    """

    stage: TightStage
    at: Setting | None
    method: TensionMethod
    methods: tuple[TensionMethod, ...]
    scale: Scale | None
    holds: Holds | None
    uppers: tuple[Upper, ...]
    figures: dict[str, Figure]
    strands: tuple[UFloat, ...]
    steps: tuple[str, ...]
    lacks: str
    stem: str
    why_not: str
    span: str
    spans: tuple[str, ...]
    span_notes: tuple[SpanNote, ...]
    pulls_at_n: float
    pulls: tuple[tuple[str, float], ...]
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    fresh: bool = False

    @property
    def grips(self) -> str:
        """Where it lets go, likely and cautious, and why."""
        return grip_of(self.stage, self.holds.surface, self.holds.lets_go).said if self.holds else ""

    @property
    def readings(self) -> dict[str, Figure]:
        """The figures of what was read alone."""
        return {key: f for key, f in self.figures.items() if key.startswith("strand_")}

    @property
    def count(self) -> int:
        """How many readings there are to take: one of each belt, or one of the whole."""
        return self.stage.loop.count if self.method.each and self.stage.loop.counted else 1

    @property
    def pushes(self) -> str:
        """What a gauge pushes at once."""
        return self.at.pushes if self.at else ""


def read_tension(stage: TightStage, typed: TypedTension) -> Tight:
    """Read and reckon. What cannot be yet is said; each problem stands beside its field."""
    reader, page = FieldReader(typed.quantities, typed.words), Page()
    methods = methods_for(stage)
    method = next((m for m in methods if m.key == typed.method), methods[0] if methods else BY_KEY["gauge"])
    try:
        spans = stage.spans
    except (GeometryError, WindowError) as reason:
        return _nothing(stage, method, methods, str(reason), reader)
    which = reader.whole("span_of", 1, len(spans))
    chosen = (which - 1) if which else stage.longest
    span = reader.given("span_measured", "point_tape")
    stated = stage.loop.stated.span_m if stage.loop.stated and not which else None
    u_span = span.u if span else measured.usual(stated or spans[chosen].length_m, "span")
    holds = read_holds(stage, typed.kept, typed.kept_words, reader)
    stage = replace(stage, arms=holds.arms)
    try:
        scale = scale_of(stage, holds, u_span.n)
    except (GeometryError, WindowError, SlackError) as reason:
        return _nothing(stage, method, methods, str(reason), reader)
    pushed = reader.given("deflection") if any(a.key == "deflection" for a in method.asks) else None
    standing = FieldReader(typed.kept, typed.kept_words, reader.notes, reader.problems)
    asked = [a for a in method.asks if a.key not in ("deflection", "note_tension")]
    more = {a.key: v for a in asked if (v := (a.kept and _asked(standing, a.key, a.field)) or _asked(reader, a.key, a.field))}
    at = Setting(stage, u_span, pushed.u if pushed else None, more)
    if pushed is None and holds.by_manual and scale.manual and holds.manual_force_n and holds.manual_deflection_m:
        at = replace(at, pushed=measured.usual(holds.manual_deflection_m, "deflection"), by_manual=True)
    where = "by the survey" if stated else spans[chosen].between
    window_figures(at, scale, holds, span, where, typed.fresh, page)
    wants = lacks(method, at)
    values = values_of(method, typed, reader)
    strands: tuple[UFloat, ...] = ()
    stretched = stretch_of(stage, method, at, values, page) if not wants else []
    if not wants and not stretched:
        strands = strands_of(method, at, values, typed, reader, page)
        aims(method, at, scale, holds, typed.fresh, page)
    verdicts = [*stretched, *verdicts_of(stage, method, scale, holds, typed, strands, page)]
    aim = aim_words(page)
    wanted = scale.band(typed.fresh, holds.by_manual)
    now = page.values["strand_average"].n if strands else wanted.aim_n if wanted else scale.target_n or 0.0
    notes = span_notes(
        stage,
        now,
        scale.slips.running.likely_n if scale.slips else 0.0,
        scale.lowest.limit_n if scale.lowest and scale.lowest.limit_n else math.inf,
    )
    return Tight(
        stage,
        at,
        method,
        methods,
        scale,
        holds,
        tuple(_uppers(stage, scale)),
        dict(page.figures),
        strands,
        (*(stage.loop.stated.steps if stage.loop.stated else ()), *steps(method, at, aim)),
        wants,
        stem_for(page.values["aim_high"].n) if method.key in ("gauge",) and page.has("aim_high") else "",
        _why_not(stage),
        spans[chosen].between,
        tuple(s.between for s in spans),
        notes,
        now,
        tuple(_pulls(stage, now)),
        tuple(verdicts),
        reader.notes,
        tuple(reader.problems),
        typed.fresh,
    )


def _nothing(stage: TightStage, method: TensionMethod, methods: tuple[TensionMethod, ...], why: str, reader: FieldReader) -> Tight:
    said = Verdict("tension", Tone.OPEN, "No window yet", why)
    return Tight(
        stage,
        None,
        method,
        methods,
        None,
        None,
        (),
        {},
        (),
        (),
        "",
        "",
        why,
        "",
        (),
        (),
        0.0,
        (),
        (said,),
        reader.notes,
        tuple(reader.problems),
    )


def _pulls(stage: TightStage, tension_n: float) -> list[tuple[str, float]]:
    """What each wheel pulls its shaft with at work (N), at a tension of one strand at rest; a chain's slack strand hangs free."""
    if not stage.loaded or not tension_n:
        return []
    at_work = stage.as_window()
    on = strain(replace(at_work, held_by="slack_side") if stage.hangs else at_work)
    return [(w.name, math.hypot(*on.pull_on(i, tension_n))) for i, w in enumerate(stage.wheels)]


def _why_not(stage: TightStage) -> str:
    if stage.loaded or stage.hangs or stage.loop.stated:
        return ""
    return "Say the driver's power and speed and what each wheel takes at Survey: then the window stands here."


def _asked(reader: FieldReader, key: str, as_field: str) -> UFloat | None:
    given = reader.given(key, as_field)
    return (
        uncertain(given.value, max(given.std, measured.usual(abs(given.value), _MORE[as_field]).s), key.replace("_", " "))
        if given
        else None
    )


def _uppers(stage: TightStage, scale: Scale) -> list[Upper]:
    """Upper limits, the known ones first; of those not judged the ones that a person would ask for, wheel by wheel."""
    known = sorted((u for u in scale.upper if u.limit_n is not None), key=lambda u: u.limit_n or 0.0)
    unknown = [u for u in scale.upper if u.limit_n is None and not u.name.startswith("bushing")]
    return [
        Upper(
            u.name,
            stage.wheels[u.wheel].name if u.wheel is not None else "",
            u.wheel,
            u.limit_n,
            "" if u.limit_n is not None else ASKS[u.name],
        )
        for u in (*known, *unknown)
    ]
