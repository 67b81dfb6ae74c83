"""The one next measurement: what would separate the two likeliest candidates best, and what each reading would say."""

import math
from dataclasses import dataclass

from tuyere.core.basis.figure import both
from tuyere.core.stations.find.evidence import Evidence
from tuyere.core.stations.find.expect import expected, tool_doubt
from tuyere.core.stations.find.rank import LENGTH_KEYS, Candidate, Ranking

# How each measurement is called and taken, belt first, then wheel.
HOW = {
    "construction": "Look at how the belt is made.",
    "top_width": "Measure the top width with callipers, across the widest part of the back.",
    "thickness": "Measure the thickness with callipers, from the back to the narrow face.",
    "groove_width": "Measure across the groove at the rim with callipers.",
    "groove_spacing": "Measure from one groove to the next, edge to same edge.",
    "groove_depth": "Measure how deep the groove is below the rim.",
    "label": "Clean the back of the belt and look for its name; a part of it will do.",
    "outside_length": "Tape over the back of the belt, once round.",
    "wheel_diameter": "Measure a wheel over the outside of its rim.",
}
MADE = {
    "wrapped": "Wrapped in cloth",
    "cogged": "Raw edges, notched underneath",
    "hexagonal": "Six-sided",
    "ribbed": "Thin, with small ribs",
    "link": "Made of links",
}
_SEPARATES = 1.5  # standard deviations between the two expected readings that make a measurement worth while
_LIKELY_ENOUGH = 0.01
_TELLS = 0.99  # beyond this the section needs no more measuring
_BETTER_TOOL = 2.0


@dataclass(frozen=True)
class Next:
    """The measurement to take next: its field, how to take it, and what each of the two candidates would read."""

    field: str
    how: str
    says: tuple[str, ...]


def next_measurement(evidence: Evidence, ranking: Ranking) -> Next | None:
    """The measurement that separates the top two best; None when nothing is left to separate them or to find the length."""
    first, second = top_two(ranking)
    known = evidence.known()
    if first is None:
        return Next("top_width", HOW["top_width"], ())
    if not known & {"top_width", "groove_width", "label", "marks"}:
        return Next("top_width", HOW["top_width"], ("Most sections part by their top width alone.",))
    if second and ranking.together() < _TELLS:
        best = _separating(first, second, evidence, ranking.wheel_only)
        if best:
            return best
    belt_seen = known & {"top_width", "thickness", "label", "construction"}
    if belt_seen and not known & {*LENGTH_KEYS} and not _named(first):
        return Next(
            "outside_length",
            HOW["outside_length"],
            ("It gives the number in the name. Mark a point on the back and roll the belt once along the tape.",),
        )
    if _two_lengths(first) and "label" not in known:
        return Next("label", HOW["label"], (_between_lengths(first),))
    return None


def top_two(ranking: Ranking) -> tuple[Candidate | None, Candidate | None]:
    """The likeliest candidate and the next one that is not the same belt under another name."""
    if not ranking.candidates:
        return None, None
    first = ranking.candidates[0]
    own = ranking.alike_to(first.section.name)
    others = [c for c in ranking.candidates[1:] if c.section.name not in own and c.probability > _LIKELY_ENOUGH]
    return first, (others[0] if others else None)


def _separating(first: Candidate, second: Candidate, evidence: Evidence, wheel_only: bool) -> Next | None:
    if not wheel_only and not evidence.construction and first.section.construction != second.section.construction:
        return Next(
            "construction", HOW["construction"], tuple(f"{MADE[c.section.construction]}: {c.section.name}." for c in (first, second))
        )
    best: tuple[float, str, tuple[str, str]] | None = None
    on_belt, on_wheel = ("thickness", "top_width"), ("groove_spacing", "groove_depth", "groove_width")
    for key in on_wheel if wheel_only else on_belt + on_wheel:
        a, b = expected(first.section, key, evidence), expected(second.section, key, evidence)
        if not (a and b):
            continue
        doubt = tool_doubt(key, a.value)
        taken = getattr(evidence, key)
        if taken and taken.std < _BETTER_TOOL * doubt:
            continue
        apart = abs(a.value - b.value) / math.sqrt(a.spread**2 + b.spread**2 + 2 * doubt**2)
        if apart >= _SEPARATES and (best is None or apart > best[0] * 1.2):
            best = apart, key, tuple(f"About {both(x.value)}: {c.section.name}." for x, c in ((a, first), (b, second)))  # type: ignore[assignment]
    if best:
        return Next(best[1], HOW[best[1]], best[2])
    if not evidence.label and not wheel_only:
        return Next("label", HOW["label"], (f"No measurement tells {first.section.name} from {second.section.name} well.",))
    return None


def _named(candidate: Candidate) -> bool:
    return bool(candidate.belts) and candidate.belts[0].probability > 0.9


def _two_lengths(candidate: Candidate) -> bool:
    return len(candidate.belts) > 1 and candidate.belts[0].probability < 0.8


def _between_lengths(candidate: Candidate) -> str:
    names = " or ".join(b.belt.designation for b in candidate.belts[:2])
    return f"The tape cannot tell {names}: the name does. Or tape the outside twice more and take the middle one."
