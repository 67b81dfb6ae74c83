"""Each free run's own note beside what shakes it: a belt that flops may be resonating, not slack."""

import math
from typing import NamedTuple

from tuyere.core.tension.beam import frequency_of
from tuyere.core.tight.stage import TightStage

_NEAR = 0.1  # closer than this in frequency it answers: common practice, no source
_CLEAR = 0.15
_ORDERS = 3


class SpanNote(NamedTuple):
    """A run, its note running and at rest (Hz), what shakes it nearest (Hz, in words), and the tension (N) that moves it clear, lower and higher."""

    between: str
    rest_hz: float
    running_hz: float
    source_hz: float | None
    source: str
    lower_n: float | None
    higher_n: float | None


def span_notes(stage: TightStage, tension_n: float) -> tuple[SpanNote, ...]:
    """At a tension of one strand at rest. A moving string sounds lower: f (1 - v²/c²), c = √(T/m)."""
    mass = stage.strand.mass_kg_per_m
    if not mass or tension_n <= 0 or stage.hangs:
        return ()
    velocity = stage.at_rest.speed_m_per_s if stage.loaded else 0.0
    lower = max(0.0, 1 - mass * velocity**2 / tension_n)
    shakes = _shakes(stage, velocity)
    found = []
    for span in stage.spans:
        rest = frequency_of(tension_n, span.length_m, mass, stage.strand.bending_n_m2 or 0.0)
        running = rest * lower
        near = min(shakes, key=lambda s: abs(s[0] - running), default=None)
        if near is None or not running or abs(running / near[0] - 1) >= _NEAR:
            found.append(SpanNote(span.between, rest, running, None, "", None, None))
            continue
        low, high = (tension_n * (k * near[0] / running) ** 2 for k in (1 - _CLEAR, 1 + _CLEAR))
        found.append(SpanNote(span.between, rest, running, near[0], near[1], low, high))
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
