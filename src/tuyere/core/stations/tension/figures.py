"""The station's figures with their workings: span and push, the window's edges, what a tool read and what it should show."""

import math

from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.figure import Figure, Line, figure, given_figure, shown
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import UFloat, exact
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.tension.hanging import chain_slack
from tuyere.core.stations.tension.grip import grip_of
from tuyere.core.stations.tension.limits import Holds
from tuyere.core.stations.tension.methods import SHOWS, Setting, TensionMethod
from tuyere.core.stations.tension.scale import Scale

MODEL = "elastic belt on its wheels; Euler's belt friction (Shigley); design ratio of the strands by kind"
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


def strand_figure(i: int, tension: UFloat, line: Line, formula: str, at: Setting, method: TensionMethod) -> Figure:
    """The tension of one strand as a figure with its working."""
    label = f"{at.stage.loop.family.runs} {i}" if method.each else "strand"
    us, si = shown(at.span.n, "length", to_set=True)
    span = Line("t", "span", us, si, Origin.MEASURED, Origin.MEASURED)
    return figure(f"strand_{i}", label, f"T_{i}", "force", tension, [line, span], formula, STATICS, Confidence.MEDIUM)


def window_figures(at: Setting, scale: Scale, holds: Holds, span: Given | None, where: str, fresh: bool, page: Page) -> None:
    """The span, how far to push, and the window's edges."""
    stage, u_span = at.stage, at.span
    if span:
        page.put(given_figure("span", "span, taped", "t", "length", span.value, span.std, span.origin, to_set=True), u_span)
    else:
        page.put(
            figure(
                "span",
                f"span, {where}",
                "t",
                "length",
                u_span,
                [Line("", "free run", where, where, Origin.MEASURED, Origin.MEASURED)],
                "from the wheels' places",
                "plane geometry",
                to_set=True,
            ),
            u_span,
        )
    if not stage.hangs:
        _deflection(at, holds, page)
    if not (scale.run_in and scale.new):
        return
    confidence = Confidence.MEDIUM if stage.loop.slips else Confidence.LOW
    assert scale.published or stage.hangs
    if scale.target_n is not None and not stage.hangs:
        page.put(
            figure(
                "tension_target",
                "tension to aim for, by the model",
                "T",
                "force",
                exact(scale.target_n),
                _target_lines(stage),
                _target_formula(stage),
                MODEL,
                confidence,
                note="The exact half-sum of the strands at design power. Published forms for V-belts ask for nine tenths of it (IP-20)."
                if stage.holds == "fixed"
                else "",
            ),
            exact(scale.target_n),
        )
    band = scale.new if fresh else scale.run_in
    edges = {
        "tension_low": ("lowest, run in", scale.run_in.low_n, scale.run_in.source),
        "tension_high": ("highest", band.high_n, scale.run_in.source),
        "tension_new_low": ("lowest, new", scale.new.low_n, scale.new.source),
    }
    if scale.published:
        book = scale.published[1 if fresh else 0]
        edges |= {
            "published_low": ("published, from", book.low_n, book.source),
            "published_high": ("published, to", book.high_n, book.source),
        }
    for key, (label, value, source) in edges.items():
        lines = page.lines("tension_target") if page.has("tension_target") else [_movement(stage)]
        page.put(
            figure(key, f"tension, {label}", "T", "force", exact(value), lines, "times the standing tension", source, confidence),
            exact(value),
        )
    if scale.published:
        why = {
            "": "as published",
            "start": "what its start needs, more than is published",
            "jolt": "what its jolts need, more than is published",
        }[scale.raised]
        lines = page.lines("published_low", "published_high", "tension_target")
        page.put(
            figure("tension_aim", "tension to aim for", "T", "force", exact(band.aim_n), lines, why, band.source, confidence),
            exact(band.aim_n),
        )
    if scale.slips:
        for key, label, value in (
            ("slip_running", "slips under it, running", scale.slips.running.likely_n),
            ("slip_starting", "slips under it, starting", scale.slips.starting.likely_n),
            ("slip_jolt", "slips under it, in a jolt", scale.slips.jolt.likely_n),
        ):
            page.put(
                figure(
                    key,
                    label,
                    "T",
                    "force",
                    exact(value),
                    _slip_lines(stage, scale, holds, key),
                    "(F_1 - m v²)/(F_2 - m v²) = R^(θ/180°)",
                    MODEL,
                    Confidence.LOW,
                    note=f"Likely: it {grip_of(stage, holds.surface, holds.lets_go).said}."
                    if stage.loop.slips
                    else "Teeth do not slip: under it the slack strand hangs free, and teeth can jump.",
                ),
                exact(value),
            )


def _deflection(at: Setting, holds: Holds, page: Page) -> None:
    """How far to push: the depth that the force beside it belongs to."""
    q = exact(at.deflection_m)
    if at.pushed is None:
        how, source, note = "q = t / 64", "common practice, no source; IP-20", "1/64 in for each inch of span, 1.6 mm for each 100 mm."
    else:
        how, source, note = ("by the manual", "the machine's manual", "") if at.by_manual else ("as typed", "said at this reading", "")
    page.put(figure("deflection", "deflection to aim for", "q", "length", q, page.lines("span"), how, source, note=note, to_set=True), q)


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


def aims(method: TensionMethod, at: Setting, scale: Scale, holds: Holds, fresh: bool, page: Page) -> None:
    """What the tool should show at the band's edges."""
    band = scale.band(fresh, holds.by_manual)
    if band is None or (method.key == "marks" and not at.stage.strand.rigidity_n):
        return
    kind = FIELDS[method.reads].kind
    ends = sorted((SHOWS[method.key](at, t), t) for t in (band.low_n, band.high_n))
    for key, (value, tension) in zip(("aim_low", "aim_high"), ends, strict=True):
        end = Line("T", "tension at that end of the band", *shown(tension, "force"), Origin.COMPUTED, Origin.RULE_OF_THUMB)
        label = f"{method.value.lower()}, {'from' if key == 'aim_low' else 'to'}"
        page.put(
            figure(
                key,
                label,
                "P",
                kind,
                exact(value),
                [end, *page.lines("span")],
                f"{FORMULAS[method.key]}, the other way round",
                STATICS,
                Confidence.MEDIUM,
                to_set=kind == "length",
            ),
            exact(value),
        )


def aim_words(page: Page) -> tuple[str, str] | None:
    """What to aim for, in both systems; None where nothing is."""
    if not page.has("aim_low", "aim_high"):
        return None
    low, high = page.figures["aim_low"], page.figures["aim_high"]
    return tuple(f.us if f.us == f.si else f"{f.us} ({f.si})" for f in (low, high))  # type: ignore[return-value]


def _movement(stage: TightStage) -> Line:
    low, high, why = chain_slack(stage.steepest_rad, stage.driven_class)
    text = f"{low:.0%} to {high:.0%}, {why}"
    return Line("", "movement of the span, up and down", text, text, Origin.RULE_OF_THUMB, Origin.RULE_OF_THUMB)


def _slip_lines(stage: TightStage, scale: Scale, holds: Holds, key: str) -> list[Line]:
    """The pull of one strand, how many times it is to hold, and the wheel that slips first with its wrap."""
    assert scale.slips
    times = {"slip_starting": holds.start, "slip_jolt": holds.jolt}.get(key, 1.0)
    first = scale.slips.first_starting if key == "slip_starting" else scale.slips.first_running
    on = stage.at_rest
    found = [
        Line("T_e", f"pull of one {stage.strand.one} at work", *shown(on.effective_n, "force"), Origin.COMPUTED, Origin.NAMEPLATE),
        Line("k", "times the load", f"{times:.2f}", f"{times:.2f}", Origin.RULE_OF_THUMB, Origin.RULE_OF_THUMB),
    ]
    if first is not None:
        wrap = f"{math.degrees(on.path.wraps_rad[first]):.0f}°, {stage.wheels[first].name}"
        found.append(Line("θ", "wrap where it slips first", wrap, wrap, Origin.COMPUTED, Origin.MEASURED))
    return found
