"""From what people typed about a stage's tension to everything that the station shows of it."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from tuyere.core.basis.field import FIELDS, Note
from tuyere.core.basis.figure import Figure, Line, both, figure, shown
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Given, Typed
from tuyere.core.basis.uncertainty import UFloat, exact, uncertain
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tension import measured
from tuyere.core.mechanics.tension.beam import SlackError
from tuyere.core.mechanics.tension.statics import SteepError
from tuyere.core.mechanics.tension.window import WindowError, strain
from tuyere.core.stations.tension.figures import FORMULAS, STATICS, aim_words, aims, strand_figure, window_figures
from tuyere.core.stations.tension.grip import grip_of
from tuyere.core.stations.tension.judge import between, judge
from tuyere.core.stations.tension.limits import Holds, read_holds
from tuyere.core.stations.tension.methods import BY_KEY, TENSION, Method, Setting, lacks, methods_for, stem_for, steps
from tuyere.core.stations.tension.scale import ASKS, Scale, scale_of
from tuyere.core.stations.tension.spans import SpanNote, span_notes

_METER = 0.06  # a tension meter's own word, one standard deviation: common practice, no source
_USUAL = {"force": "force", "frequency": "frequency", "mark": "mark", "sag": "sag", "belt_tension": "force", "weight": "weight"}
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
class TypedTension:
    """A reading as typed: `values` one for each belt (or one for all), beside them what the method asks more.

    `kept`: what stands with the stage.
    """

    method: str = ""
    fresh: bool = False
    values: Sequence[Typed] = ()
    quantities: Mapping[str, Typed] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)
    kept: Mapping[str, Typed] = field(default_factory=dict)
    kept_words: Mapping[str, str] = field(default_factory=dict)


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
    method: Method
    methods: tuple[Method, ...]
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
    values = _values(method, typed, reader)
    strands: tuple[UFloat, ...] = ()
    stretched = _stretch(stage, method, at, values, page) if not wants else []
    if not wants and not stretched:
        strands = _strands(method, at, values, typed, reader, page)
        aims(method, at, scale, holds, typed.fresh, page)
    verdicts = [*stretched, *_verdicts(stage, method, scale, holds, typed, strands, page)]
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


def _nothing(stage: TightStage, method: Method, methods: tuple[Method, ...], why: str, reader: FieldReader) -> Tight:
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


def _values(method: Method, typed: TypedTension, reader: FieldReader) -> list[Given]:
    """What the tool showed; a meter that says force instead of its note is read as force."""
    inner = FieldReader({f"force_{i}": v for i, v in enumerate(typed.values, 1)}, {}, reader.notes, reader.problems)
    tool = typed.words.get("tool") or (method.tools[0] if method.tools else None)
    found = [inner.given(f"force_{i}", method.reads, tool if method.reads == "force" else None) for i in range(1, len(typed.values) + 1)]
    _ask_of_tenfold(found, typed.values, reader)
    return [f for f in found if f]


_TENFOLD = (8.0, 12.5)  # a point left out, or slipped: common practice, no source


def _ask_of_tenfold(found: Sequence[Given | None], typed: Sequence[Typed], reader: FieldReader) -> None:
    """A reading that is ten times its neighbours is asked about before it is used; typed with its unit, it is meant."""
    known = [f.value for f in found if f]
    if len(known) < 2:
        return
    for i, (one, text) in enumerate(zip(found, typed, strict=True), 1):
        others = sorted(f.value for k, f in enumerate(found, 1) if f and k != i)
        if one is None or not others or any(c.isalpha() or c == '"' for c in text.text):
            continue
        usual = others[len(others) // 2]
        if usual > 0 and _TENFOLD[0] <= one.value / usual <= _TENFOLD[1]:
            unit = reader.notes[f"force_{i}"].unit if f"force_{i}" in reader.notes else ""
            reader.problems.append(
                Problem(
                    f"force_{i}",
                    f"That is ten times its neighbours: is the point missing? If it is so, write it with its unit: {text.text.strip()} "
                    f"{unit}.",
                )
            )


def _strands(
    method: Method, at: Setting, values: Sequence[Given], typed: TypedTension, reader: FieldReader, page: Page
) -> tuple[UFloat, ...]:
    found: list[UFloat] = []
    meter = reader.given("note_tension", "belt_tension") if method.key == "note" and not values else None
    if meter:
        found.append(uncertain(meter.value, _METER * meter.value, "the meter"))
        page.put(
            strand_figure(
                1,
                found[0],
                Line("", "meter, in force", *shown(meter.value, "force"), meter.origin, meter.origin),
                "as the meter says",
                at,
                method,
            ),
            found[0],
        )
    for i, value in enumerate(values, 1):
        shows = uncertain(
            value.value,
            max(value.std, measured.usual(value.value, _USUAL[method.reads]).s if method.reads != "force" else 0.0),
            method.value.lower(),
        )
        slack = False
        try:
            tension = TENSION[method.key](at, shows)
        except SlackError as reason:
            if method.key not in SLACK:
                reader.problems.append(Problem(f"force_{i}", str(reason)))
                continue
            tension, slack = _slack(method, at, shows), True
        except SteepError as reason:
            reader.problems.append(Problem(f"force_{i}", str(reason)))
            continue
        found.append(tension)
        line = Line(f"P_{i}", method.value, *shown(value.value, FIELDS[method.reads].kind), value.origin, value.origin)
        told = strand_figure(i, tension, line, FORMULAS[method.key], at, method)
        page.put(told if not slack else _said_slack(told, 2 * tension.n), tension)
    if found:
        average = sum(found[1:], found[0]) / len(found)
        lines = [page.figures[k].line() for k in page.figures if k.startswith("strand_")]
        page.put(
            figure(
                "strand_average",
                f"average of a {at.stage.strand.one}",
                "T_m",
                "force",
                average,
                lines,
                "mean of what was read",
                STATICS,
                Confidence.MEDIUM,
            ),
            average,
        )
        if len(found) > 1:
            spread = (max(found, key=lambda t: t.n) - min(found, key=lambda t: t.n)) / average
            page.put(
                figure(
                    "strand_spread",
                    "spread over the set",
                    "ΔT/T_m",
                    "share",
                    spread,
                    lines,
                    "(highest - lowest) / mean",
                    "rule of thumb, no source",
                    Confidence.LOW,
                    limits="Up to 20 % is a matched set.",
                ),
                spread,
            )
    return tuple(found)


SLACK = ("gauge", "scale", "note", "clip")  # what a tool shows of a strand without tension is its stiffness alone


def _slack(method: Method, at: Setting, shows: UFloat) -> UFloat:
    """A strand too slack for its tension to be reckoned: somewhere from nought to what the tool would show the least more of."""
    most = next((t.n for k in (1, 2, 3, 4, 6, 8, 12) if (t := _or_none(method, at, shows.n + k * max(shows.s, 0.02 * shows.n)))), 0.0)
    return uncertain(most / 2, max(most / 4, 1e-6), "a strand that is slack")


def _said_slack(told: Figure, below_n: float) -> Figure:
    us, si = shown(below_n, "force")
    return replace(told, us=f"slack, below {us}", si=f"slack, below {si}")


def _or_none(method: Method, at: Setting, value: float) -> UFloat | None:
    try:
        found = TENSION[method.key](at, exact(value))
    except SlackError:
        return None
    return found if found.n > 0 else None


def _stretch(stage: TightStage, method: Method, at: Setting, values: Sequence[Given], page: Page) -> list[Verdict]:
    """Two marks on a belt whose pull by stretch is not known: its stretch against what its material is set to."""
    usual = stage.loop.stretch
    if method.key != "marks" or stage.strand.rigidity_n or not usual or not values:
        return []
    slack = at.more["mark_slack"]
    share = (measured.usual(values[0].value, "mark") - slack) / slack
    marks = [
        Line("", name, *shown(v, "length", decimals=(3, 1)), Origin.MEASURED, Origin.MEASURED)
        for name, v in (("marks, slack", slack.n), ("marks, fitted", values[0].value))
    ]
    page.put(figure("stretch", "stretch", "ε", "share", share, marks, "(fitted - slack)/slack", usual.source, Confidence.LOW), share)
    wants = f"{page.figures['stretch'].us} of stretch, and {usual.low:.1%} to {usual.high:.1%} is set for its material ({usual.source})."
    if share.n < usual.low:
        return [
            Verdict(
                "tension",
                Tone.WATCH,
                "Slack by its stretch",
                f"{wants} Take it up, turn it round a few times, measure the same marks again.",
            )
        ]
    if share.n > usual.high:
        return [Verdict("tension", Tone.WATCH, "Stretched too far", f"{wants} Slacken it, or join it longer.")]
    return [
        Verdict(
            "tension", Tone.GOOD, "Right by its stretch", f"{wants} Keep this reading; fabric and leather are taken up again after a day."
        )
    ]


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


def _verdicts(
    stage: TightStage, method: Method, scale: Scale, holds: Holds, typed: TypedTension, strands: tuple[UFloat, ...], page: Page
) -> list[Verdict]:
    found: list[Verdict] = []
    pushed = next((v for k, v in typed.quantities.items() if k == "deflection" and v.text.strip()), None)
    if strands:
        found += judge(stage, method, scale, holds, typed.fresh, strands, page.values["strand_average"])
    if scale.empty and scale.lowest and scale.slips and scale.lowest.limit_n is not None:
        where = f" at the {stage.wheels[scale.lowest.wheel].name}" if scale.lowest.wheel is not None else ""
        found.append(
            Verdict(
                "window",
                Tone.WATCH,
                "The window is empty: nothing is both tight enough and slack enough",
                f"Running it slips under {both(scale.slips.running.likely_n, 'force')}, and {scale.lowest.name}{where} ends at "
                f"{both(scale.lowest.limit_n, 'force')}. Larger wheels pull less for the same power; more belts share it; an outboard "
                "bearing or a wheel nearer to its bearing stands more.",
            )
        )
    elif scale.capped and scale.lowest and scale.lowest.limit_n is not None:
        where = f" at the {stage.wheels[scale.lowest.wheel].name}" if scale.lowest.wheel is not None else ""
        found.append(
            Verdict(
                "window",
                Tone.OPEN,
                f"Mind the {scale.lowest.name}{where}",
                f"It ends at {both(scale.lowest.limit_n, 'force')} a {stage.strand.one}, under the usual range: stay below it.",
            )
        )
    found += _of_start(stage, scale)
    if stage.share is not None and stage.share < 1:
        found.append(
            Verdict(
                "window",
                Tone.WATCH,
                f"The {stage.loop.family.runs} will not do: {stage.share:.0%} of what this drive wants",
                "By its rating, at Size. No tension mends that: a stronger set, or larger wheels.",
            )
        )
    found += _of_manual(stage, scale, holds)
    q = page.values["span"].n / 64 if page.has("span") else 0.0
    if pushed and method.key in ("gauge", "scale") and strands and page.has("deflection"):
        found.append(
            Verdict("push", Tone.OPEN, "Pushed otherwise than 1/64 of the span", f"1/64 would be {both(q)}; it is reckoned with as typed.")
        )
    return found


def _of_start(stage: TightStage, scale: Scale) -> list[Verdict]:
    """What the start and the jolts ask, where they ask more than the published figure gives."""
    if scale.slips is None or scale.run_in is None or scale.published is None or scale.empty or not stage.loop.slips:
        return []
    aim, slips = scale.run_in.aim_n, scale.slips
    book = f"Published: {between(scale.published[0])}."
    if aim < slips.starting.likely_n * (1 - 1e-9) and scale.lowest:
        return [
            Verdict(
                "window",
                Tone.WATCH,
                "It slips at its start",
                f"It would take {both(slips.starting.likely_n, 'force')} to hold it, and {scale.lowest.name} ends before. A softer start, "
                f"larger wheels or a stronger set. {book}",
            )
        ]
    chirp = " It may chirp for a moment at start." if scale.chirps else ""
    if scale.raised:
        why = "its start" if scale.raised == "start" else "its jolts"
        return [
            Verdict(
                "window",
                Tone.OPEN,
                f"Aim above the published figure, for {why}",
                f"A belt that has run in lets go under {both(aim, 'force')} there.{chirp} {book} Say below how it starts, if it is "
                "otherwise.",
            )
        ]
    if scale.chirps:
        return [
            Verdict(
                "window",
                Tone.OPEN,
                "May chirp for a moment at start",
                f"A cautious grip holds it from {both(slips.starting.cautious_n, 'force')} on; the least tension that does not slip is "
                "enough.",
            )
        ]
    return []


def _of_manual(stage: TightStage, scale: Scale, holds: Holds) -> list[Verdict]:
    """The manual's figure against the window: neither trusted silently nor overruled."""
    if holds.manual_force_n and holds.manual_deflection_m and scale.manual is None:
        return [
            Verdict(
                "manual",
                Tone.OPEN,
                "What does the manual's force push?",
                "One belt, one rib or the whole band: say it below, for the tension differs by as much.",
            )
        ]
    if scale.manual is None:
        return []
    aim, said = scale.manual.aim_n, f"The manual's figure comes to {both(scale.manual.aim_n, 'force')} a {stage.strand.one} here."
    found = []
    if holds.manual_deflection_m and holds.manual_force_n:
        share = holds.manual_deflection_m / stage.spans[stage.longest].length_m
        if abs(share * 64 - 1) > 0.1:
            meant = holds.manual_deflection_m * 64
            said += f" {both(holds.manual_deflection_m)} is not 1/64 of this span but of one of {both(meant)}: the manual may mean another drive or another strand."
    if scale.run_in is None or scale.slips is None:
        if stage.loop.stated:
            return []  # it is the aim itself
        return [Verdict("manual", Tone.OPEN, f"By the manual: {both(aim, 'force')}", said)]
    low = max(scale.slips.running.likely_n, scale.run_in.low_n)
    # A shaft or bearing described here is weighed against the manual; the belt's own rating is not: its maker knew the belt.
    over = [u for u in scale.upper if u.wheel is not None and u.limit_n is not None and aim > u.limit_n]
    if over:
        found.append(
            Verdict(
                "manual",
                Tone.WATCH,
                f"The manual’s figure is over the {over[0].name}",
                f"{said} Ask the machine's maker, and go by the lower.",
            )
        )
    elif aim < low:
        found.append(
            Verdict(
                "manual",
                Tone.OPEN,
                "The manual’s figure is slacker than worked out",
                f"{said} {between(scale.run_in)} carries its design power; it slips under {both(scale.slips.running.likely_n, 'force')}. "
                "Check the span and what is pushed; then decide which to go by.",
            )
        )
    elif aim > (scale.new.high_n if scale.new else scale.run_in.high_n) * 1.05:
        found.append(
            Verdict(
                "manual",
                Tone.OPEN,
                "The manual’s figure is tighter than worked out",
                f"{said} {between(scale.run_in)} comes of the power, the start and the wheels; the manual comes first. Check the span and "
                "what is pushed.",
            )
        )
    else:
        found.append(Verdict("manual", Tone.GOOD, "The manual’s figure lies in the window", said))
    return found
