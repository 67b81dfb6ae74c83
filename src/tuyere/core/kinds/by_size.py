"""Toothed belts and chains by their sizes: candidates ranked by how common they are times the likelihood of each measurement.

A pitch is taken over many teeth or links. A worn chain has grown: its pitch counts as the new one times one to about 1.04,
so that wear does not make it another chain, and what it has grown by comes out with it.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from tuyere.core.basis.typed import Given

_MOST_GROWN = 0.04
_NEW_SHARE = 0.35  # how many of the chains that somebody measures are as good as new: common practice, no source
_MOULDED = 0.0012  # how exactly pitch is made, share
_OUTSIDER = 0.12
_NEVER = 0.004  # a word that speaks against a candidate, seen wrongly or written wrongly


@dataclass(frozen=True)
class ExpectedSize:
    """What a candidate should measure (SI), and how far makers and wear spread it."""

    value: float
    spread: float


@dataclass(frozen=True)
class Sized:
    """A candidate: its name, how common it is, its pitch (m) and whether that grows, its sizes, and what is seen of it.

    `seen`: for each question, the answers that this kind gives with their likelihood. `lacks`: sizes of parts that it has not at all.
    """

    name: str
    common: float
    pitch_m: float
    grows: bool
    sizes: Mapping[str, ExpectedSize]
    seen: Mapping[str, Mapping[str, float]]
    lacks: tuple[str, ...] = ()


@dataclass(frozen=True)
class Seen:
    """What is known: the span over a count of pitches, other sizes, answers to questions, and how well a name on it fits each candidate."""

    span: Given | None = None
    count: int | None = None
    sizes: Mapping[str, Given] | None = None
    answers: Mapping[str, str] | None = None
    named: Callable[[Sized], float] | None = None


@dataclass(frozen=True)
class Match:
    """One candidate.

    Its probability, by how many standard deviations each reading is off, and what its pitch has grown by (share, and its doubt).
    """

    kind: Sized
    probability: float
    off: Mapping[str, float]
    grown: tuple[float, float] | None


@dataclass(frozen=True)
class Matches:
    """Candidates, likeliest first, and the probability that it is none of them."""

    found: tuple[Match, ...]
    none_of_them: float


def match(kinds: Sequence[Sized], seen: Seen) -> Matches:
    """Rank the kinds against what was seen; without anything, by how common they are."""
    weights = [k.common * _likelihood(k, seen) for k in kinds]
    total_common = sum(k.common for k in kinds)
    outsider = _OUTSIDER * total_common / len(kinds) * _outsider(seen)
    total = sum(weights) + outsider
    if not total > 0:
        return Matches((), 1.0)
    ranked = sorted(zip(weights, kinds, strict=True), key=lambda pair: -pair[0])
    return Matches(tuple(Match(k, w / total, _off(k, seen), _grown(k, seen)) for w, k in ranked), outsider / total)


def _likelihood(kind: Sized, seen: Seen) -> float:
    found = _pitch_density(kind, seen)
    for key, reading in (seen.sizes or {}).items():
        size = kind.sizes.get(key)
        found *= (
            _normal(reading.value - size.value, math.hypot(size.spread, reading.std))
            if size
            else (_NEVER if key in kind.lacks else 1) / _room(key)
        )
    for question, said in (seen.answers or {}).items():
        found *= kind.seen.get(question, {}).get(said, _NEVER)
    return found * (seen.named(kind) if seen.named else 1.0)


def _pitch_density(kind: Sized, seen: Seen) -> float:
    """Density of the measured pitch: as made, or for what grows, mixed with an even spread of growth. The mixture's integral is closed."""
    reading = measured_pitch(seen)
    if not reading:
        return 1.0
    value, std = reading
    spread = math.hypot(std, _MOULDED * kind.pitch_m)
    fresh = _normal(value - kind.pitch_m, spread)
    if not kind.grows:
        return fresh
    reach = _MOST_GROWN * kind.pitch_m
    worn = (_below((value - kind.pitch_m) / spread) - _below((value - kind.pitch_m - reach) / spread)) / reach
    return _NEW_SHARE * fresh + (1 - _NEW_SHARE) * worn


def measured_pitch(seen: Seen) -> tuple[float, float] | None:
    """The pitch measured and its standard deviation (m)."""
    if not (seen.span and seen.count):
        return None
    return seen.span.value / seen.count, seen.span.std / seen.count


def _grown(kind: Sized, seen: Seen) -> tuple[float, float] | None:
    reading = measured_pitch(seen)
    return (reading[0] / kind.pitch_m - 1, reading[1] / kind.pitch_m) if reading and kind.grows else None


def _off(kind: Sized, seen: Seen) -> dict[str, float]:
    found = {}
    if reading := measured_pitch(seen):
        over = reading[0] - kind.pitch_m
        if kind.grows:
            over = over if over < 0 else max(0.0, over - _MOST_GROWN * kind.pitch_m)
        found["pitch_span"] = over / math.hypot(reading[1], _MOULDED * kind.pitch_m)
    for key, given in (seen.sizes or {}).items():
        if size := kind.sizes.get(key):
            found[key] = (given.value - size.value) / math.hypot(size.spread, given.std)
    return found


def _outsider(seen: Seen) -> float:
    """Density of something that is in no table: any size within the room such sizes take."""
    found = 1.0
    if measured_pitch(seen):
        found /= _room("pitch")
    for key in seen.sizes or {}:
        found /= _room(key)
    for _ in seen.answers or {}:
        found *= 0.5
    return found * (_NEVER if seen.named else 1.0)


def _room(key: str) -> float:
    """The breadth (m) over which such a size may lie at all."""
    return {"pitch": 0.04, "belt_width": 0.1, "roller_diameter": 0.02, "inner_width": 0.02, "wheel_outside": 0.3, "wheel_caliper": 0.3}.get(
        key, 0.01
    )


def _normal(off: float, spread: float) -> float:
    return math.exp(-0.5 * (off / spread) ** 2) / (spread * math.sqrt(2 * math.pi))


def _below(sigmas: float) -> float:
    return 0.5 * (1 + math.erf(sigmas / math.sqrt(2)))


@dataclass(frozen=True)
class NextSize:
    """What to measure or look at next, and what the two likeliest candidates would show."""

    key: str
    says: tuple[tuple[str, float | str], ...]


def next_ask(matches: Matches, seen: Seen, tools: Mapping[str, float], questions: Sequence[str]) -> NextSize | None:
    """The reading that tells the two likeliest apart best. `tools`: for each size the doubt of the tool it is taken with (m)."""
    if not measured_pitch(seen) and not seen.named and not seen.sizes:
        return NextSize("pitch_span", ())
    likely = [m for m in matches.found if m.probability > 0.02][:2]
    if len(likely) < 2 or likely[0].probability > 0.985:
        return None
    a, b = (m.kind for m in likely)
    best: tuple[float, str] | None = None
    if not measured_pitch(seen):
        best = abs(a.pitch_m - b.pitch_m) / (0.002 * a.pitch_m + (0.02 * a.pitch_m if a.grows else 0)), "pitch_span"
    for key, doubt in tools.items():
        x, y = a.sizes.get(key), b.sizes.get(key)
        if x and y and key not in (seen.sizes or {}):
            apart = abs(x.value - y.value) / math.sqrt(x.spread**2 + y.spread**2 + 2 * doubt**2)
            if best is None or apart > best[0]:
                best = apart, key
    for question in questions:
        if question in (seen.answers or {}):
            continue
        said = [max(k.seen.get(question, {"": 0.0}).items(), key=lambda pair: pair[1])[0] for k in (a, b)]
        if said[0] != said[1] and all(said) and (best is None or best[0] < 6):
            return NextSize(question, ((a.name, said[0]), (b.name, said[1])))
    if best is None or best[0] < 1:
        return None if seen.named else NextSize("label", ())
    if best[1] == "pitch_span":
        return NextSize("pitch_span", ((a.name, a.pitch_m), (b.name, b.pitch_m)))
    return NextSize(best[1], ((a.name, a.sizes[best[1]].value), (b.name, b.sizes[best[1]].value)))
