"""Each free run's own note beside what shakes it: a belt that flops may be resonating, not slack."""

import math
from typing import Literal, NamedTuple

from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.tension.beam import frequency_of

_NEAR = 0.1  # closer than this in frequency it answers: common practice, no source
_CLEAR = 0.15
_ORDERS = 3


class SpanNote(NamedTuple):
    """A run, its note running and at rest (Hz), what shakes it nearest (Hz, in words), and the tension at rest (N) that moves it clear, lower
    and higher.

    `side`: of a loaded run, tight or slack, by its own tension while it runs.
    """

    between: str
    rest_hz: float
    running_hz: float
    source_hz: float | None
    source: str
    lower_n: float | None
    higher_n: float | None
    side: Literal["", "tight", "slack"] = ""


def span_notes(stage: TightStage, tension_n: float, holds_n: float = 0.0, ends_n: float = math.inf) -> tuple[SpanNote, ...]:
    """At a tension of one strand at rest, each run by its own tension at work. A moving string sounds lower: f (1 - v²/c²), c = √(T/m).

    A slack strand that is empty at work has no note: it flops because it is slack. Nothing is offered that slips (under `holds_n`) or
    overloads (from `ends_n`; N).
    """
    mass = stage.strand.mass_kg_per_m
    if not mass or tension_n <= 0 or stage.hangs:
        return ()
    on = stage.at_rest
    velocity = on.speed_m_per_s if stage.loaded else 0.0
    thrown = mass * velocity**2
    at_work = [t + thrown for t in on.strands(tension_n)] if stage.loaded else [tension_n] * len(stage.spans)
    shakes = _shakes(stage, velocity)
    found = []
    for span, works in zip(stage.spans, at_work, strict=True):
        side: Literal["", "tight", "slack"] = "" if not stage.loaded else "tight" if works > tension_n else "slack"
        rest = frequency_of(tension_n, span.length_m, mass, stage.strand.bending_n_m2 or 0.0)
        running = 0.0
        if works > thrown:
            running = frequency_of(works, span.length_m, mass, stage.strand.bending_n_m2 or 0.0) * (1 - thrown / works)
        near = min(shakes, key=lambda s: abs(s[0] - running), default=None)
        if near is None or not running or abs(running / near[0] - 1) >= _NEAR:
            found.append(SpanNote(span.between, rest, running, None, "", None, None, side))
            continue
        low, high = (tension_n + works * ((k * near[0] / running) ** 2 - 1) for k in (1 - _CLEAR, 1 + _CLEAR))
        lower, higher = low if low > holds_n else None, high if high < ends_n else None
        found.append(SpanNote(span.between, rest, running, near[0], near[1], lower, higher, side))
    return tuple(found)


def _shakes(stage: TightStage, velocity: float) -> list[tuple[float, str]]:
    """Turns of each shaft, the mesh of teeth, rounds of the belt, and their multiples."""
    if not velocity:
        return []
    found = []
    for w in stage.wheels:
        if w.speed and w.role != "idler":
            found += [(k * w.speed / math.tau, f"{'' if k == 1 else f'{k} times '}the turns of the {w.name}") for k in range(1, _ORDERS)]
    if stage.loop.pitch_m:
        found.append((velocity / stage.loop.pitch_m, "the mesh of its teeth"))
    found += [(k * velocity / stage.length_m, f"{'' if k == 1 else f'{k} times '}the belt's rounds") for k in range(1, _ORDERS + 1)]
    return found
