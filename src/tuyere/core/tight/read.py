"""From what people typed about a stage's tension to everything that the station shows of it."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from tuyere.core.entry.field import FIELDS, Note
from tuyere.core.entry.reader import FieldReader
from tuyere.core.entry.typed import Given, Typed
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.origin import Confidence, Origin
from tuyere.core.tension import deflection, measured
from tuyere.core.tension.beam import SlackError
from tuyere.core.tension.statics import SteepError
from tuyere.core.tension.window import WindowError, strain
from tuyere.core.tight.judge import between, judge
from tuyere.core.tight.limits import Holds, read_holds
from tuyere.core.tight.methods import BY_KEY, SHOWS, TENSION, Method, Setting, lacks, methods_for, stem_for, steps
from tuyere.core.tight.scale import ASKS, Scale, scale_of
from tuyere.core.tight.spans import SpanNote, span_notes
from tuyere.core.tight.stage import TightStage
from tuyere.core.uncertainty import UFloat, exact, uncertain
from tuyere.core.working.figure import Figure, Line, both, figure, given_figure, shown
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Problem, Tone, Verdict

MODEL = "elastic belt on its wheels; Euler's belt friction (Shigley); design ratio of the strands by kind"
_USUAL = {"force": "force", "frequency": "frequency", "mark": "mark", "sag": "sag", "belt_tension": "force", "weight": "weight"}
_MORE = {"lever_arm": "arm", "wrap_angle": "angle", "lean_angle": "angle", "clip_offset": "offset", "clip_base": "base", "mark": "mark", "sag": "sag"}  # fmt: skip


@dataclass(frozen=True)
class TypedTension:
    """A reading as typed: `values` one for each belt (or one for all), beside them what the method asks more. `kept`: what stands with the stage."""

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
    """Everything of a stage's tension. `methods`: what can be used; `lacks`: why the chosen one says nothing yet; `stem`: which spring gauge; `why_not`: why there is no window."""

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
    where = "by the survey" if stated else spans[chosen].between
    _figures(stage, scale, u_span, span, where, typed.fresh, page)
    wants = lacks(method, at)
    values = _values(method, typed, reader)
    strands: tuple[UFloat, ...] = ()
    stretched = _stretch(stage, method, at, values, page) if not wants else []
    if not wants and not stretched:
        strands = _strands(method, at, values, typed, reader, page)
        _aims(method, at, scale, holds, typed.fresh, page)
    verdicts = [*stretched, *_verdicts(stage, method, scale, holds, typed, strands, page)]
    aim = _aim_words(page)
    now = page.values["strand_average"].n if strands else scale.target_n or 0.0
    return Tight(
        stage, at, method, methods, scale, holds, tuple(_uppers(stage, scale)), dict(page.figures), strands, (*(stage.loop.stated.steps if stage.loop.stated else ()), *steps(method, at, aim)),
        wants, stem_for(page.values["aim_high"].n) if method.key in ("gauge",) and page.has("aim_high") else "", _why_not(stage),
        spans[chosen].between, tuple(s.between for s in spans), span_notes(stage, now), now, tuple(_pulls(stage, now)), tuple(verdicts), reader.notes, tuple(reader.problems),
    )  # fmt: skip


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
    return [f for f in found if f]


def _strands(
    method: Method, at: Setting, values: Sequence[Given], typed: TypedTension, reader: FieldReader, page: Page
) -> tuple[UFloat, ...]:
    found: list[UFloat] = []
    meter = reader.given("note_tension", "belt_tension") if method.key == "note" and not values else None
    if meter:
        found.append(uncertain(meter.value, 0.06 * meter.value, "the meter"))
        page.put(_strand(1, found[0], Line("", "meter, in force", *shown(meter.value, "force"), meter.origin, meter.origin), "as the meter says", at, method), found[0])  # fmt: skip
    for i, value in enumerate(values, 1):
        shows = uncertain(value.value, max(value.std, measured.usual(value.value, _USUAL[method.reads]).s if method.reads != "force" else 0.0), method.value.lower())  # fmt: skip
        try:
            tension = TENSION[method.key](at, shows)
        except (SlackError, SteepError) as reason:
            reader.problems.append(Problem(f"force_{i}", str(reason)))
            continue
        found.append(tension)
        line = Line(f"P_{i}", method.value, *shown(value.value, FIELDS[method.reads].kind), value.origin, value.origin)
        page.put(_strand(i, tension, line, FORMULAS[method.key], at, method), tension)
    if found:
        average = sum(found[1:], found[0]) / len(found)
        lines = [page.figures[k].line() for k in page.figures if k.startswith("strand_")]
        page.put(
            figure("strand_average", f"average of a {at.stage.strand.one}", "T_m", "force", average, lines, "mean of what was read", STATICS, Confidence.MEDIUM),
            average,
        )  # fmt: skip
        if len(found) > 1:
            spread = (max(found, key=lambda t: t.n) - min(found, key=lambda t: t.n)) / average
            page.put(figure("strand_spread", "spread over the set", "ΔT/T_m", "share", spread, lines, "(highest - lowest) / mean", "rule of thumb, no source", Confidence.LOW, limits="Up to 20 % is a matched set."), spread)  # fmt: skip
    return tuple(found)


def _stretch(stage: TightStage, method: Method, at: Setting, values: Sequence[Given], page: Page) -> list[Verdict]:
    """Two marks on a belt whose pull by stretch is not known: its stretch against what its material is set to."""
    usual = stage.loop.stretch
    if method.key != "marks" or stage.strand.rigidity_n or not usual or not values:
        return []
    slack = at.more["mark_slack"]
    share = (uncertain(values[0].value, 0.0002, "marks") - slack) / slack
    page.put(figure("stretch", "stretch", "ε", "share", share, [], "(fitted - slack)/slack", usual.source, Confidence.LOW), share)
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


STATICS = "statics; beam and string under tension (any mechanics text)"
FORMULAS = {
    "gauge": "T = P t/(4 q) less bending, less EA 2q²/(t L)",
    "scale": "T = P t/(4 q) less bending, less EA 2q²/(t L)",
    "note": "T = 4 m t² f² - π² EI/t²",
    "strand": "as the gauge's scale says",
    "clip": "T = P a/(2 h) less bending",
    "marks": "T = EA (marks fitted - slack)/slack",
    "sag": "T of the catenary with that sag",
    "moves": "T of the catenary that moves so far, sag = moves/2.31",
    "lever": "T = pull · handle/(2 arm cos ψ sin(θ/2) N)",
    "base": "T = W x_w/((y_1 + y_2) N)",
}


def _strand(i: int, tension: UFloat, line: Line, formula: str, at: Setting, method: Method) -> Figure:
    label = f"{at.stage.loop.family.runs} {i}" if method.each else "strand"
    us, si = shown(at.span.n, "length", to_set=True)
    span = Line("t", "span", us, si, Origin.MEASURED, Origin.MEASURED)
    return figure(f"strand_{i}", label, f"T_{i}", "force", tension, [line, span], formula, STATICS, Confidence.MEDIUM)


def _figures(stage: TightStage, scale: Scale, u_span: UFloat, span: Given | None, where: str, fresh: bool, page: Page) -> None:
    """The span, how far to push, and the window's edges."""
    if span:
        page.put(given_figure("span", "span, taped", "t", "length", span.value, span.std, span.origin, to_set=True), u_span)
    else:
        page.put(figure("span", f"span, {where}", "t", "length", u_span, [], "from the wheels' places", "plane geometry", to_set=True), u_span)  # fmt: skip
    if not stage.hangs:
        aim = exact(deflection(u_span.n))
        page.put(figure("deflection", "deflection to aim for", "q", "length", aim, page.lines("span"), "q = t / 64", "common practice, no source; IP-20", note="1/64 in for each inch of span, 1.6 mm for each 100 mm.", to_set=True), aim)  # fmt: skip
    if not (scale.run_in and scale.new):
        return
    confidence = Confidence.MEDIUM if stage.loop.slips else Confidence.LOW
    if scale.target_n is not None and not stage.hangs:
        page.put(figure("tension_target", "tension to aim for, by the model", "T", "force", exact(scale.target_n), _target_lines(stage), _target_formula(stage), MODEL, confidence,
                        note="The exact half-sum of the strands at design power. Published forms for V-belts ask for nine tenths of it (IP-20)." if stage.holds == "fixed" else ""), exact(scale.target_n))  # fmt: skip
    edges = {
        "tension_low": ("lowest, run in", scale.run_in.low_n, scale.run_in.source),
        "tension_high": ("highest", (scale.new if fresh else scale.run_in).high_n, scale.run_in.source),
        "tension_new_low": ("lowest, new", scale.new.low_n, scale.new.source),
    }
    for key, (label, value, source) in edges.items():
        lines = page.lines("tension_target") if page.has("tension_target") else []
        page.put(
            figure(key, f"tension, {label}", "T", "force", exact(value), lines, "share of the target", source, confidence), exact(value)
        )
    if scale.slips:
        for key, label, value in (
            ("slip_running", "slips under it, running", scale.slips.running_n),
            ("slip_starting", "slips under it, starting", scale.slips.starting_n),
            ("slip_jolt", "slips under it, in a jolt", scale.slips.jolt_n),
        ):
            page.put(figure(key, label, "T", "force", exact(value), [], "(F_1 - m v²)/(F_2 - m v²) = e^(fθ/sin(groove/2))", MODEL, Confidence.LOW, note=f"With dry textbook friction {stage.strand.friction:g}: wet or oily it slips sooner." if stage.loop.slips else "Teeth do not slip: under it the slack strand hangs free, and teeth can jump."), exact(value))  # fmt: skip


def _target_lines(stage: TightStage) -> list[Line]:
    """What the target is reckoned from: pull of one strand at design power, the strands' design ratio, the centrifugal part."""
    on = stage.at_rest
    wrap = min(w for w, wheel in zip(on.path.wraps_rad, on.stage.wheels, strict=True) if wheel.power_w)
    pull = on.effective_n * on.stage.design_factor
    ratio = f"{stage.loop.design_ratio(wrap):.2f}"
    found = [
        Line("T_e", f"pull of one {stage.strand.one} at design power", *shown(pull, "force"), Origin.COMPUTED, Origin.STANDARD),
        Line("R", f"tight over slack strand at {math.degrees(wrap):.0f}° of wrap", ratio, ratio, Origin.STANDARD, Origin.STANDARD),
    ]
    if stage.holds == "fixed":
        found.append(Line("m v²", "centrifugal part", *shown(on.centrifugal_n, "force"), Origin.COMPUTED, Origin.STANDARD))
    return found


def _target_formula(stage: TightStage) -> str:
    return {
        "fixed": "T = T_e/2 (R + 1)/(R - 1) + m v²",
        "slack_side": "T = T_e/(R - 1), held by the spring on the slack side",
        "tight_side": "T = T_e R/(R - 1), held on the tight side",
    }[stage.holds]


def _aims(method: Method, at: Setting, scale: Scale, holds: Holds, fresh: bool, page: Page) -> None:
    """What the tool should show at the band's edges."""
    band = scale.band(fresh, holds.by_manual)
    if band is None or (method.key == "marks" and not at.stage.strand.rigidity_n):
        return
    kind = FIELDS[method.reads].kind
    ends = sorted(SHOWS[method.key](at, t) for t in (band.low_n, band.high_n))
    for key, value in zip(("aim_low", "aim_high"), ends, strict=True):
        label = f"{method.value.lower()}, {'from' if key == 'aim_low' else 'to'}"
        page.put(figure(key, label, "P", kind, exact(value), [], f"{FORMULAS[method.key]}, the other way round", STATICS, Confidence.MEDIUM, to_set=kind == "length"), exact(value))  # fmt: skip


def _aim_words(page: Page) -> tuple[str, str] | None:
    if not page.has("aim_low", "aim_high"):
        return None
    low, high = page.figures["aim_low"], page.figures["aim_high"]
    return tuple(f.us if f.us == f.si else f"{f.us} ({f.si})" for f in (low, high))  # type: ignore[return-value]


def _uppers(stage: TightStage, scale: Scale) -> list[Upper]:
    """Upper limits, the known ones first; of those not judged the ones that a person would ask for, wheel by wheel."""
    known = sorted((u for u in scale.upper if u.limit_n is not None), key=lambda u: u.limit_n or 0.0)
    unknown = [u for u in scale.upper if u.limit_n is None and not u.name.startswith("bushing")]
    return [
        Upper(u.name, stage.wheels[u.wheel].name if u.wheel is not None else "", u.wheel, u.limit_n, "" if u.limit_n is not None else ASKS[u.name])
        for u in (*known, *unknown)
    ]  # fmt: skip


def _verdicts(
    stage: TightStage, method: Method, scale: Scale, holds: Holds, typed: TypedTension, strands: tuple[UFloat, ...], page: Page
) -> list[Verdict]:  # fmt: skip
    found: list[Verdict] = []
    if strands:
        found += judge(stage, method, scale, holds, typed.fresh, strands, page.values["strand_average"])
    if scale.empty and scale.lowest and scale.slips and scale.lowest.limit_n is not None:
        where = f" at the {stage.wheels[scale.lowest.wheel].name}" if scale.lowest.wheel is not None else ""
        found.append(Verdict("window", Tone.WATCH, "The window is empty: nothing is both tight enough and slack enough", f"It slips under {both(max(scale.slips.running_n, scale.slips.starting_n), 'force')}, and {scale.lowest.name}{where} ends at {both(scale.lowest.limit_n, 'force')}. Larger wheels pull less for the same power; more belts share it; an outboard bearing or a wheel nearer to its bearing stands more."))  # fmt: skip
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
    found += _of_manual(stage, scale, holds)
    q = page.values["span"].n / 64 if page.has("span") else 0.0
    pushed = next((v for k, v in typed.quantities.items() if k == "deflection" and v.text.strip()), None)
    if pushed and method.key in ("gauge", "scale") and strands and page.has("deflection"):
        found.append(
            Verdict("push", Tone.OPEN, "Pushed otherwise than 1/64 of the span", f"1/64 would be {both(q)}; it is reckoned with as typed.")
        )
    return found


def _of_manual(stage: TightStage, scale: Scale, holds: Holds) -> list[Verdict]:
    """The manual's figure against the window: neither trusted silently nor overruled."""
    if holds.manual_force_n and holds.manual_deflection_m and scale.manual is None:
        return [
            Verdict("manual", Tone.OPEN, "What does the manual's force push?", "One belt, one rib or the whole band: say it below, for the tension differs by as much.")
        ]  # fmt: skip
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
    low = max(scale.slips.running_n, scale.run_in.low_n)
    if scale.lowest and scale.lowest.limit_n is not None and aim > scale.lowest.limit_n:
        found.append(
            Verdict("manual", Tone.WATCH, f"The manual’s figure is over the {scale.lowest.name}", f"{said} Ask the machine's maker, and go by the lower.")
        )  # fmt: skip
    elif aim < low:
        found.append(Verdict("manual", Tone.WATCH, "The manual’s figure is slacker than this drive needs", f"{said} {between(scale.run_in)} carries its design power; it slips under {both(scale.slips.running_n, 'force')}. Check the span and what is pushed; then decide which to go by."))  # fmt: skip
    elif aim > (scale.new.high_n if scale.new else scale.run_in.high_n) * 1.05:
        found.append(Verdict("manual", Tone.WATCH, "The manual’s figure is tighter than this drive needs", f"{said} {between(scale.run_in)} is enough for its design power. Check the span and what is pushed; bearings pay for the rest."))  # fmt: skip
    else:
        found.append(Verdict("manual", Tone.GOOD, "The manual’s figure lies in the window", said))
    return found
