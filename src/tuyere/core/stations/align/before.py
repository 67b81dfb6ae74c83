"""Quick checks that otherwise spoil an alignment: soft foot, run-out, shaft; looked at or measured, or skipped with a reason."""

from collections.abc import Sequence
from dataclasses import dataclass

from tuyere.core.basis.figure import fine
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Problem, Tone
from tuyere.core.stations.align.shims import Stock, pack

_IN = to_si(1, "length", "in")
SOFT_M = 0.002 * _IN  # common practice, no source: 0.002 to 0.003 in
SHAFT_M = 0.002 * _IN  # common practice, no source
ANSWERS = ("ok", "bad", "skip")


def rim_limit(outside_m: float) -> float:
    """Most run-out of a rim (m, whole dial swing): 0.010 in up to 10 in across, 0.0005 in more an inch above.

    Source: RMA/ARPM sheave standards, from memory (medium).

    >>> round(rim_limit(0.254) / 0.0254, 4), round(rim_limit(0.508) / 0.0254, 4)
    (0.01, 0.015)
    """
    across = outside_m / _IN
    return (0.010 + 0.0005 * max(0.0, across - 10)) * _IN


def face_limit(outside_m: float) -> float:
    """Most run-out of a face (m): 0.001 in an inch up to 20 in across, 0.0005 in an inch above. RMA/ARPM, from memory (low).

    >>> round(face_limit(0.254) / 0.0254, 4), round(face_limit(0.762) / 0.0254, 4)
    (0.01, 0.025)
    """
    across = outside_m / _IN
    return (0.001 * min(across, 20) + 0.0005 * max(0.0, across - 20)) * _IN


@dataclass(frozen=True)
class BeforeCheck:
    """One check as shown: what to look at, fields it asks, what was said of it, and what that means."""

    key: str
    title: str
    how: str
    asks: tuple[str, ...]
    said: str
    why: str
    tone: Tone
    means: str


def read_checks(reader: FieldReader, seat: str, outsides_m: tuple[float, float], stock: Stock) -> tuple[BeforeCheck, ...]:
    """The checks of a drive as typed; `outsides_m`: across the movable and the stationary wheel.

    What was measured goes before what was said.
    """
    found = []
    for r in rows("align_checks"):
        if r["seats"] and seat not in r["seats"].split():
            continue
        asks = tuple(r["asks"].split())
        said = reader.choice(r["key"], ANSWERS) or ""
        why = reader.words.get(f"{r['key']}_why", "").strip()
        values = {a: v for a in asks if (v := reader.value(a, "foot_gap" if a.startswith("soft") else "run_out")) is not None}
        tone, means = _measured(r["key"], values, outsides_m, stock) if values else _said(said, why)
        if said == "skip" and not values and not why:
            reader.problems.append(Problem(f"{r['key']}_why", "Say why it is skipped: the reason goes on the record."))
        found.append(BeforeCheck(r["key"], r["title"], r["how"], asks, "measured" if values else said, why, tone, means))
    return tuple(found)


def _said(said: str, why: str) -> tuple[Tone, str]:
    if said == "bad":
        return Tone.WATCH, "Put this right first: an alignment on it does not last."
    if said == "skip":
        return Tone.OPEN, f"Passed over: {why}" if why else "Passed over."
    return (Tone.GOOD, "") if said == "ok" else (Tone.OPEN, "")


def _measured(key: str, values: dict[str, float], outsides_m: tuple[float, float], stock: Stock) -> tuple[Tone, str]:
    if key == "soft_foot":
        return _soft(values, stock)
    if key == "shaft":
        runs = values["shaft_moving"]
        if runs <= SHAFT_M:
            return Tone.GOOD, f"{fine(runs)}, at most {fine(SHAFT_M)}."
        return Tone.WATCH, f"{fine(runs)}, at most {fine(SHAFT_M)}: the shaft is bent or the bearing loose. Mend that first."
    return _run_out(values, outsides_m)


def _soft(values: dict[str, float], stock: Stock) -> tuple[Tone, str]:
    worst = max(values, key=lambda k: values[k])
    foot, rises = worst[-1], values[worst]
    if rises <= SOFT_M:
        more = "" if len(values) == 4 else " Loosen the others too: four feet, one at a time."
        return Tone.GOOD if len(values) == 4 else Tone.OPEN, f"No foot rises more than {fine(SOFT_M)}.{more}"
    put = pack(rises, stock)
    shims = " + ".join(stock.name(p) for p in put.pieces) + f" {stock.unit}"
    return (
        Tone.WATCH,
        f"Foot {foot} is soft by {fine(rises)}: put {shims} under foot {foot} alone, then go round again. A gap on one side of it wants a "
        "tapered shim.",
    )


def _run_out(values: dict[str, float], outsides_m: tuple[float, float]) -> tuple[Tone, str]:
    beyond: list[str] = []
    for which, outside in zip(("moving", "still"), outsides_m, strict=True):
        name = "the wheel that moves" if which == "moving" else "the other wheel"
        for kind, limit in (("rim", rim_limit(outside)), ("face", face_limit(outside))):
            runs = values.get(f"{kind}_{which}")
            if runs is not None and runs > limit:
                fakes = f", and adds an apparent {runs / outside:.2g} rad ({runs / outside * 57.3:.2f}°) of angle" if kind == "face" else ""
                beyond.append(f"the {kind} of {name} swings {fine(runs)}, at most {fine(limit)}{fakes}")
    if not beyond:
        asked = "" if len(values) == 4 else " Read rim and face of both wheels."
        return Tone.GOOD if len(values) == 4 else Tone.OPEN, f"Within limits for their size.{asked}"
    said = "; ".join(beyond)
    return (
        Tone.WATCH,
        f"{said[0].upper()}{said[1:]}. Clean and draw up the bushing evenly; what is left, beat by reading again with both wheels turned "
        "half a turn: the two are averaged.",
    )


def open_checks(checks: Sequence[BeforeCheck]) -> list[BeforeCheck]:
    """Those that want something done first."""
    return [c for c in checks if c.tone in (Tone.WATCH, Tone.STOP)]
