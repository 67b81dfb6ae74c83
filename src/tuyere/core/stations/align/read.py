"""From what people typed about an alignment to everything that the station shows of it."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import Figure, Line, figure, shown
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import QuantityError
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import uncertain
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.stage import TightStage
from tuyere.core.stations.align import readings as core
from tuyere.core.stations.align.base import Base, base_of
from tuyere.core.stations.align.before import BeforeCheck, open_checks, read_checks
from tuyere.core.stations.align.frame import along
from tuyere.core.stations.align.judge import judge
from tuyere.core.stations.align.methods import BY_KEY, AlignMethod, Point, methods_for, tracking_words
from tuyere.core.stations.align.moves import NOT_MOVED, Feet, Moves, moves_for
from tuyere.core.stations.align.readings import Errors, WheelPair
from tuyere.core.stations.align.shims import Stock, pack, stock_of
from tuyere.core.stations.align.stage import BODIES, AlignStage, pair_of
from tuyere.core.stations.align.tolerance import Tolerance, tolerance
from tuyere.core.stations.align.views import View, lie_of, side_of, views
from tuyere.core.stations.align.words import AtFeet, Correction, Names, corrections, seen, steps_of, toward, within

FEET = ("front", "span", "width", "height")


@dataclass(frozen=True)
class TypedReading:
    """One reading as typed: by which method, its points, and words where it has any."""

    method: str
    quantities: Mapping[str, Typed] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class TypedAlign:
    """An alignment as typed: which wheel (place from 1), the readings, the checks before, and what stands with the stage."""

    wheel: int = 0
    readings: Sequence[TypedReading] = ()
    checks: Mapping[str, Typed] = field(default_factory=dict)
    check_words: Mapping[str, str] = field(default_factory=dict)
    kept: Mapping[str, Typed] = field(default_factory=dict)
    kept_words: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Taken:
    """A reading as shown: its method, its points as called here, how to go about it, and what is still to read."""

    method: AlignMethod
    points: tuple[Point, ...]
    steps: tuple[str, ...]
    lacks: str


@dataclass(frozen=True)
class Aligned:
    """Everything of an alignment.

    `true`: all of it read and within tolerance. `feet`: None where they are not known; `wants`: what to say before anything can be moved.
    """

    stage: AlignStage
    pair: WheelPair
    names: Names
    base: Base | None
    stock: Stock
    feet: Feet | None
    errors: Errors
    allowed: Tolerance
    moves: Moves | None
    steps: tuple[Correction, ...]
    words: tuple[str, ...]
    seen: tuple[str, ...]
    methods: tuple[AlignMethod, ...]
    taken: tuple[Taken, ...]
    checks: tuple[BeforeCheck, ...]
    views: tuple[View, View]
    left: str
    costs: tuple[tuple[str, str, str], ...]
    grooves: tuple[float | None, float | None]
    true: bool
    wants: tuple[str, ...]
    figures: dict[str, Figure]
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_align(stage: TightStage, typed: TypedAlign) -> Aligned:
    """Read and reckon. What cannot be yet is said; each problem stands beside its field."""
    kept = FieldReader(typed.kept, typed.kept_words)
    moves_word = kept.one_of("align_moves", ("1", "2")) or ""
    on = pair_of(stage, typed.wheel, moves_word, False)
    body = kept.one_of(on.key("body"), BODIES) or BODIES[0]
    on = pair_of(stage, typed.wheel, moves_word, body == BODIES[1])
    names, pair, slope = on.names, on.pair(kept), on.slope_rad
    said_base = kept.words.get(on.key("base"), "").strip()
    base = base_of(said_base) if said_base else None
    stock = _stock(kept, on)
    feet = _feet(kept, on, base)
    allowed = _allowed(kept, on)
    taken, equations, spoken = _readings(typed, on, pair, kept, base)
    errors = core.solve(equations) if equations else Errors()
    page = Page()
    checks = read_checks(
        FieldReader(typed.checks, typed.check_words, kept.notes, kept.problems),
        stage.loop.seat,
        (2 * on.moves.rim_m, 2 * on.stays.rim_m),
        stock,
    )
    _figures(errors, allowed, pair, on, page)
    at = AtFeet(base or base_of(""), stock, _shims_now(kept, on))
    moves = moves_for(errors, feet, slope, lambda lift: pack(lift, stock).thick_m, at.shims_now_m) if feet else None
    judged = judge(errors, allowed) if equations else []
    true = any(v.tone is Tone.GOOD for v in judged)
    steps = tuple(steps_of(moves, slope, at, names)) if moves and not errors.disagree and not within(errors, allowed) else ()
    words = (*spoken, *(corrections(errors, moves or NOT_MOVED, allowed, slope, at, names) if equations else ()))
    verdicts = [*_before(checks), *judged]
    return Aligned(
        on,
        pair,
        names,
        base,
        stock,
        feet,
        errors,
        allowed,
        moves,
        steps,
        words,
        tuple(seen(errors, slope, names)),
        methods_for(stage.loop.seat),
        taken,
        checks,
        views(slope),
        toward(slope, names, "left"),
        _costs(stage.loop.seat, errors, allowed),
        (on.groove_m("moving", on.moves, kept), on.groove_m("still", on.stays, kept)),
        true,
        _wants(base, feet),
        dict(page.figures),
        tuple(verdicts),
        kept.notes,
        tuple(dict.fromkeys(kept.problems)),
    )


def _stock(kept: FieldReader, on: AlignStage) -> Stock:
    try:
        return stock_of(kept.words.get("align_stock", ""))
    except QuantityError as reason:
        kept.problems.append(Problem("align_stock", str(reason)))
        return stock_of("")


def _feet(kept: FieldReader, on: AlignStage, base: Base | None) -> Feet | None:
    """Where the feet are; a base without feet turns about its wheel, and is only slid."""
    found = {k: kept.value(on.key(k), "foot_arm") for k in FEET}
    if base and not base.has_feet:
        return Feet(0.0, 1.0, 1.0, 0.0)
    front, span, width, height = (found[k] for k in FEET)
    if base is None or front is None or not span or not width or height is None:
        return None
    return Feet(front, span, width, height)


def _shims_now(kept: FieldReader, on: AlignStage) -> tuple[float, ...]:
    found = [kept.value(on.key(f"shims_{i}"), "shims_now") for i in (1, 2, 3, 4)]
    return tuple(f or 0.0 for f in found) if any(f is not None for f in found) else ()


def _wants(base: Base | None, feet: Feet | None) -> tuple[str, ...]:
    if base is None:
        return ("what the machine stands on",)
    return () if feet else ("where its feet are",)


def _allowed(kept: FieldReader, on: AlignStage) -> Tolerance:
    """By the kind of drive, or the shop's own with its note."""
    usual = tolerance(on.kind, on.centre_m)
    angle, offset = kept.value("align_angle", "true_angle"), kept.value("align_offset", "true_offset")
    if angle is None and offset is None:
        return usual
    note = kept.words.get("align_note", "").strip() or "said at this drive"
    return Tolerance(
        angle if angle is not None else usual.angle_rad, offset if offset is not None else usual.offset_m, f"the shop's own: {note}"
    )


def _readings(
    typed: TypedAlign, on: AlignStage, pair: WheelPair, reader: FieldReader, base: Base | None
) -> tuple[tuple[Taken, ...], list[core.Equations], list[str]]:
    taken, equations, spoken = [], [], []
    _, v = along(on.slope_rad)
    called = {
        "still": on.names.still,
        "moving": on.names.moving,
        "v": side_of(v),
        "w": side_of(-v),
        "level_says": {
            "level": "on a level line of centres that is the twist",
            "upright": "on an upright line of centres that is the angle",
        }.get(lie_of(on.slope_rad), "on a slope it is part of each, so read one of the others too"),
    }
    for i, one in enumerate(typed.readings, 1):
        method = BY_KEY.get(one.method, methods_for(on.stage.loop.seat)[0])
        inner = FieldReader({f"r{i}_{k}": t for k, t in one.quantities.items()}, one.words, reader.notes, reader.problems)
        points = tuple(p._replace(label=_cap(p.label.format(**called))) for p in method.points)
        of = {p.key: value for p in method.points if (value := inner.value(f"r{i}_{p.key}", p.field)) is not None}
        short = [p.label for p in points if p.needed and p.key not in of]
        lacks = (
            ""
            if not short
            else "Nothing read yet."
            if len(short) == sum(p.needed for p in points)
            else f"Still to read: {'; '.join(short)}."
        )
        if method.words:
            runs = one.words.get("track", "")
            lacks = "" if runs in method.words else "Say where it runs."
            if not lacks:
                left = math.cos(on.slope_rad) > 0
                spoken.append(tracking_words(runs, f"to the {'right' if left else 'left'}, away from the {on.names.still}"))
        elif not short:
            equations.append(method.equations(pair, of))
            if len([k for k in method.together if k in of]) == 1:
                other = next(p.label for p in points if p.key in method.together and p.key not in of)
                lacks = f"Still to read: {other}. Without it the twist is not known."
        taken.append(Taken(method, points, tuple(s.format(**called) for s in method.steps), lacks))
    return tuple(taken), equations, spoken


def _cap(text: str) -> str:
    return text[:1].upper() + text[1:]


FORMULAS = {
    "angle": ("θ", "n · u: how far the shaft’s wheel end swings toward the other shaft"),
    "twist": ("ψ", "−n · v: how far the wheel leans over the line of centres"),
    "offset": ("e", "groove’s middle against the other’s groove plane"),
}
_SOURCE = "rigid-body geometry, all readings together by weighted least squares (derived, checked by rotations)"


def _figures(errors: Errors, allowed: Tolerance, pair: WheelPair, on: AlignStage, page: Page) -> None:
    lines = [
        _line("C", "centre distance", pair.centre_m),
        _line("R", "radius touched, the one that moves", pair.movable_radius_m),
        _line("R₂", "radius touched, the other", pair.stationary_radius_m),
    ]
    if pair.face_over_groove_m:
        lines.append(_line("t − t₂", "face to groove, one less the other", pair.face_over_groove_m))
    for key, (symbol, formula) in FORMULAS.items():
        unit = "m" if key == "offset" else "rad"
        value, u = getattr(errors, f"{key}_{unit}"), getattr(errors, f"{key}_u_{unit}")
        if value is None:
            continue
        kind, most = ("length", allowed.offset_m) if key == "offset" else ("slope", allowed.angle_rad)
        decimals = (3, 2) if key == "offset" else None
        page.put(
            figure(
                key,
                key,
                symbol,
                kind,
                uncertain(value, u or 0.0, "the readings"),
                lines,
                formula,
                _SOURCE,
                decimals=decimals,
                limit_si=most,
                origin=Origin.MEASURED,
            )
        )
    if errors.angle_rad is not None and errors.offset_m is not None:
        skew = errors.offset_m / pair.centre_m
        entry = max(abs(skew), abs(errors.angle_rad - skew))
        page.put(
            figure(
                "entry",
                "belt entry angle, worse wheel",
                "δ",
                "slope",
                entry,
                lines,
                "max(|e / C|, |θ − e / C|)",
                "geometry",
                Confidence.HIGH,
                limit_si=allowed.angle_rad,
                origin=Origin.MEASURED,
            )
        )


def _line(symbol: str, label: str, value_m: float) -> Line:
    us, si = shown(value_m, "length", decimals=(3, 1))
    return Line(symbol, label, us, si, Origin.MEASURED, Origin.MEASURED)


def _before(checks: Sequence[BeforeCheck]) -> list[Verdict]:
    first = open_checks(checks)
    if not first:
        return []
    return [
        Verdict("before", Tone.WATCH, f"First put right: {', '.join(c.title.lower() for c in first)}", " ".join(c.means for c in first))
    ]


def _costs(seat: str, errors: Errors, allowed: Tolerance) -> tuple[tuple[str, str, str], ...]:
    """What each error costs where it is left, those out of tolerance first: error, cost, how strong the evidence is."""

    def beyond(key: str) -> float:
        value: float | None = errors.offset_m if key == "offset" else getattr(errors, f"{key}_rad")
        return abs(value or 0.0) / (allowed.offset_m if key == "offset" else allowed.angle_rad)

    found = [(r["error"], r["cost"], r["evidence"]) for r in rows("align_costs") if r["seats"] == seat]
    return tuple(sorted(found, key=lambda r: -min(beyond(r[0]), 1.0)))
