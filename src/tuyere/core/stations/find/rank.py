"""Candidate sections ranked by their probability: how common they are times the likelihood of every measurement.

Each measurement counts as a normal density about what the candidate should measure, its spread being the tool's, the
maker's and the wear's together. One more candidate, "not in these tables", takes what fits none of them.
"""

import math
from dataclasses import dataclass

from tuyere.core.basis.typed import Given
from tuyere.core.kinds.v_belt import (
    Belt,
    Section,
    belt_of,
    lengths,
    made_numbers,
    number_from_datum,
    number_from_outside,
    sections,
    tape_inside,
)
from tuyere.core.kinds.v_belt.length import QUARTER_INCH
from tuyere.core.stations.find import alike
from tuyere.core.stations.find.evidence import Evidence
from tuyere.core.stations.find.expect import Expected, expected, other_groove_widths
from tuyere.core.stations.find.label import MISREAD, MISREAD_WHOLE, WHOLE, marked_sections, matches, named, plain

BELT_KEYS = ("top_width", "thickness", "belt_angle")
WHEEL_KEYS = ("groove_width", "groove_angle", "groove_depth", "groove_spacing")
LENGTH_KEYS = ("outside_length", "inside_length", "laid_out_length")

# Spread of a length as a share of it: the belt's make and stretch and the way the tape lies. Common practice, no source.
LENGTH_SPREAD = {"outside_length": 0.0035, "inside_length": 0.005, "laid_out_length": 0.005}
_LENGTH_STRETCH = 1.002  # a run-in belt is a little long
_FRAYED_M = 0.006  # the ends of a broken belt
_LISTED, _TRADE = 1.0, 0.45  # weight of a standard length against one made by trade habit only
_ODD_LENGTH = 0.04  # weight of a section that is not made near the measured length
_OUTSIDER_COMMON = 0.25
_NOT_TABLED = 3.0  # density, per SI unit, of a reading of which the tables say nothing for the section
_DEEP_GROOVE = 0.12  # share of deep and combination grooves among all


@dataclass(frozen=True)
class Fit:
    """How one measurement fits a candidate: the reading, what was expected (SI), and how many standard deviations apart."""

    key: str
    reading: float
    expected: float
    sigmas: float


@dataclass(frozen=True)
class BeltFit:
    """One named belt of a candidate section and its probability among the lengths of that section."""

    belt: Belt
    probability: float


@dataclass(frozen=True)
class Candidate:
    """A section, its probability among all, how each measurement fits it, and its likeliest names, best first."""

    section: Section
    probability: float
    fits: tuple[Fit, ...]
    belts: tuple[BeltFit, ...]


@dataclass(frozen=True)
class Ranking:
    """Candidates, likeliest first, and the probability that it is none of them."""

    candidates: tuple[Candidate, ...]
    none_of_them: float
    wheel_only: bool = False

    def alike_to(self, name: str) -> frozenset[str]:
        """Sections the evidence cannot tell from `name`: the same belt by other names, and by a wheel alone all that run in its groove."""
        return alike.shares_groove(name) if self.wheel_only else alike.same_belt(name)

    def together(self) -> float:
        """Probability that it is the first candidate or one that cannot be told from it."""
        names = self.alike_to(self.candidates[0].section.name)
        return sum(c.probability for c in self.candidates if c.section.name in names)


def rank(evidence: Evidence) -> Ranking:
    """Rank every section of the tables against the evidence; without any, by how common they are."""
    scored = []
    for belt in sections().values():
        fits = _fits(belt, evidence)
        belts, length_weight = _belts(belt, evidence)
        weight = belt.common * _density(fits, belt, evidence) * length_weight
        weight *= _construction(belt, evidence) * _machine(belt, evidence) * _marks(belt, evidence)
        scored.append((weight, belt, fits, belts))
    outsider = _outsider(evidence)
    total = sum(weight for weight, *_ in scored) + outsider
    if not total > 0:
        return Ranking((), 1.0)
    ordered = sorted(scored, key=lambda s: -s[0])
    candidates = tuple(Candidate(belt, weight / total, fits, belts) for weight, belt, fits, belts in ordered)
    return Ranking(candidates, outsider / total, not evidence.known() & {*BELT_KEYS, *LENGTH_KEYS, "label", "construction"})


def _fits(belt: Section, evidence: Evidence) -> tuple[Fit, ...]:
    found = []
    for key in (*BELT_KEYS, *WHEEL_KEYS):
        reading: Given | None = getattr(evidence, key)
        wanted = expected(belt, key, evidence) if reading else None
        if reading and wanted:
            found.append(Fit(key, reading.value, wanted.value, wanted.off(reading)))
    return tuple(found)


# Beside a label that is read whole one odd size is a slip of the tool, not another belt: it counts no worse than this many deviations.
_SLIP_OF_TOOL = 3.0


def _normal(reading: Given, wanted: Expected, at_most: float = math.inf) -> float:
    spread = math.hypot(wanted.spread, reading.std)
    off = min(abs(reading.value - wanted.value) / spread, at_most)
    return math.exp(-0.5 * off * off) / spread


def _density(fits: tuple[Fit, ...], belt: Section, evidence: Evidence) -> float:
    """The product of the normal densities. A wheel without a tabled groove for the section says next to nothing of it."""
    product = 1.0
    at_most = _SLIP_OF_TOOL if evidence.label and named(evidence.label) else math.inf
    for key in (*BELT_KEYS, *WHEEL_KEYS):
        reading: Given | None = getattr(evidence, key)
        if not reading:
            continue
        wanted = expected(belt, key, evidence)
        if wanted is None:
            product *= _NOT_TABLED
        elif key == "groove_width":
            others = [_normal(reading, o, at_most) for o in other_groove_widths(belt, evidence)]
            rare = sum(others) / len(others) if others else 0.0
            product *= (1 - _DEEP_GROOVE) * _normal(reading, wanted, at_most) + _DEEP_GROOVE * rare
        else:
            product *= _normal(reading, wanted, at_most)
    return product


def _belts(belt: Section, evidence: Evidence) -> tuple[tuple[BeltFit, ...], float]:
    """Names of this section ranked by length and label, and the weight that both lend the section."""
    labelled = dict(matches(belt, evidence.label)) if evidence.label else {}
    weight = _label_weight(belt, evidence.label, labelled)
    taped = [key for key in LENGTH_KEYS if getattr(evidence, key)]
    if not taped:
        total = sum(labelled.values())
        ranked = sorted(labelled.items(), key=lambda item: (-item[1], not item[0].listed, item[0].number))
        return tuple(BeltFit(b, w / total) for b, w in ranked[:6]), weight
    scores: dict[Belt, float] = {}
    for made in labelled or _near(belt, evidence, taped[0]):
        likelihood = math.prod(math.exp(-0.5 * _length_off(made, key, getattr(evidence, key)) ** 2) for key in taped)
        scores[made] = likelihood * labelled.get(made, 1.0) * (_LISTED if made.listed else _TRADE)
    best = max(scores.values(), default=0.0)
    if labelled:
        weight = max(best, weight * 1e-3)
    else:
        weight *= max(best, _ODD_LENGTH)
    if evidence.clutching and evidence.outside_length:
        # On a slack-belt clutch another length is another belt: beyond a quarter of an inch none is named.
        round_it = evidence.outside_length.value
        scores = {b: s for b, s in scores.items() if abs(lengths(b.section, b.number).outside_m - round_it) <= QUARTER_INCH}
    total = sum(scores.values())
    if not total > 0:
        return (), weight
    ranked = sorted(scores.items(), key=lambda item: -item[1])
    return tuple(BeltFit(b, w / total) for b, w in ranked[:6] if w > 0.01 * best), weight


def _label_weight(belt: Section, label: str, labelled: dict[Belt, float]) -> float:
    """Likelihood of reading the label on a belt of the section, lengths aside."""
    if not label:
        return 1.0
    if labelled:
        return max(labelled.values())
    if plain(label) == plain(belt.stamp):
        return WHOLE
    return MISREAD_WHOLE if named(label) else MISREAD


def _near(belt: Section, evidence: Evidence, key: str) -> list[Belt]:
    """Belts of the section near the taped length; ribbed and link belting comes in any length."""
    length = getattr(evidence, key).value / _LENGTH_STRETCH
    if key == "laid_out_length":
        middle = number_from_datum(belt, length)
    else:
        middle = number_from_outside(belt, length if key == "outside_length" else length + 2 * math.pi * belt.height_m)
    if belt.construction in ("ribbed", "link"):
        return [belt_of(belt, float(round(middle)), evidence.ribs)] if middle > 0 else []
    reach = 0.02 * middle + 0.02 / belt.step_m
    ribs = evidence.ribs if evidence.construction == "joined" else None
    return [belt_of(belt, n, ribs) for n in made_numbers(belt.name) if abs(n - middle) <= reach]


def _length_off(made: Belt, key: str, reading: Given) -> float:
    named = lengths(made.section, made.number)
    value = {"outside_length": named.outside_m, "inside_length": tape_inside(made.section, made.number), "laid_out_length": named.datum_m}[
        key
    ]
    spread = math.hypot(LENGTH_SPREAD[key] * value, _FRAYED_M if key == "laid_out_length" else 0.0)
    return Expected(value * _LENGTH_STRETCH, spread).off(reading)


_JOINED_SERIES = ("classical inch", "narrow inch", "narrow metric", "effective metric", "classical metric")


def _construction(belt: Section, evidence: Evidence) -> float:
    """Likelihood of seeing this construction on a belt of the section."""
    seen = evidence.construction
    if not seen:
        return 1.0
    if seen == "joined":
        return (0.5 if belt.cogged else 1.0) if belt.series in _JOINED_SERIES else 0.002
    if seen == "aramid":
        return {"light-duty inch": 1.0, "agricultural inch": 1.0, "classical inch": 0.7}.get(belt.series, 0.2)
    return 1.0 if belt.construction == seen else 0.004


def _machine(belt: Section, evidence: Evidence) -> float:
    """How the kind of machine shifts what is common: common practice, no source."""
    inch = belt.unit == "in"
    if evidence.machine == "light":
        return 4.0 if belt.series == "light-duty inch" else 0.5
    if evidence.machine == "deck":
        return 2.0 if belt.series in ("light-duty inch", "agricultural inch") else 0.5 if belt.unit == "mm" else 1.0
    if evidence.machine == "farm":
        return 6.0 if belt.series == "agricultural inch" else 1.0
    if evidence.machine == "metric":
        return 0.2 if inch else 5.0
    if evidence.machine == "plant":
        return 0.3 if belt.series in ("light-duty inch", "agricultural inch") else 1.0
    return 1.0


def _marks(belt: Section, evidence: Evidence) -> float:
    marked = marked_sections(evidence.marks)
    if not marked:
        return 1.0
    own = {belt.groove.removeprefix("ISO ")} | ({"A"} if belt.name == "4L" else set()) | ({"B"} if belt.name == "5L" else set())
    return 1.0 if own & marked else 0.01


def _outsider(evidence: Evidence) -> float:
    """Weight of a belt that is in none of the tables: any width from 5 to 40 mm, half to as deep as wide, any angle near 40."""
    weight = _OUTSIDER_COMMON
    for key, density in (
        ("top_width", 1 / 0.035),
        ("belt_angle", 1 / math.radians(20)),
        ("groove_width", 1 / 0.035),
        ("groove_depth", 1 / 0.03),
    ):
        weight *= density if getattr(evidence, key) else 1.0
    weight *= 1 / math.radians(10) if evidence.groove_angle else 1.0
    weight *= 1 / 0.04 if evidence.groove_spacing else 1.0
    if evidence.thickness:
        weight *= 1 / (0.5 * (evidence.top_width.value if evidence.top_width else 0.02))
    weight *= {"aramid": 4.0, "hexagonal": 0.02, "link": 0.02, "joined": 0.1}.get(evidence.construction, 1.0)
    weight *= 0.05 if evidence.label else 1.0
    return weight * (0.05 if marked_sections(evidence.marks) else 1.0)
