"""The answer to "which belt is this", in words: verdict, candidates with every fit, look-alikes, next measurement."""

import math
from dataclasses import dataclass

from tuyere.core.families.v_belt import Belt, belt_of, lengths, number_from_outside, section, standard_belts
from tuyere.core.identify import alike, hub
from tuyere.core.identify.ask import Next, next_measurement, top_two
from tuyere.core.identify.evidence import Evidence
from tuyere.core.identify.label import made_numbers
from tuyere.core.identify.rank import Candidate, Ranking, rank
from tuyere.core.sheet.figure import shown
from tuyere.core.sheet.verdict import Tone, Verdict
from tuyere.core.uncertainty import Sureness, sureness

LABELS = {
    "top_width": "top width",
    "thickness": "thickness",
    "belt_angle": "angle",
    "groove_width": "groove top width",
    "groove_angle": "groove angle",
    "groove_depth": "groove depth",
    "groove_spacing": "groove to groove",
}


@dataclass(frozen=True)
class FitOut:
    """One measurement against a candidate, as shown: what was read, what was expected, and how well it fits."""

    label: str
    read_us: str
    read_si: str
    expected_us: str
    expected_si: str
    fit: str
    sigmas: float


@dataclass(frozen=True)
class Name:
    """A belt to ask for, with its outside length as shown and the probability of this length among its section's."""

    designation: str
    section: str
    outside_us: str
    outside_si: str
    listed: bool
    share: float


@dataclass(frozen=True)
class CandidateOut:
    """One candidate as shown, with its outline (m, rad). `same_as`: the same belt by other names, each with the name nearest in length."""

    section: str
    what: str
    construction: str
    top_width_m: float
    height_m: float
    angle_rad: float
    share: float
    fits: tuple[FitOut, ...]
    names: tuple[Name, ...]
    same_as: tuple[Name, ...]


@dataclass(frozen=True)
class Statement:
    """What two sections have to do with each other."""

    kind: str
    sections: str
    sentence: str
    confidence: str
    source: str


@dataclass(frozen=True)
class Answer:
    """Everything said of an unnamed belt."""

    verdict: Verdict
    candidates: tuple[CandidateOut, ...]
    none_of_them: float
    statements: tuple[Statement, ...]
    next: Next | None
    hub: tuple[str, ...]
    method: str


METHOD = (
    "Each section's share: how common it is, times how likely every reading is for it (normal errors of the tool, the make and the wear), "
    "made to add up to 100 %. A belt in no table is counted as one more candidate."
)
_SHOWN = 5
_LEAST_SHARE = 0.005


def identify(evidence: Evidence) -> Answer:
    """Rank, judge and say. With nothing measured it only says what to measure first."""
    hubs = hub.statements(evidence)
    if not evidence.known() - {"machine", "bore", "key_width", "hub_large_end"}:
        asked = next_measurement(evidence, Ranking((), 1.0))
        nothing = Verdict("identify", Tone.OPEN, "Measure the top width first", "Then the thickness: most sections part by these two.")
        return Answer(nothing, (), 0.0, (), asked, hubs, METHOD)
    ranking = rank(evidence)
    shown_ones = [c for c in ranking.candidates[:_SHOWN] if c.probability >= _LEAST_SHARE] or list(ranking.candidates[:1])
    return Answer(
        _verdict(evidence, ranking),
        tuple(_candidate(c, evidence) for c in shown_ones),
        ranking.none_of_them,
        _statements(shown_ones, evidence),
        next_measurement(evidence, ranking),
        hubs,
        METHOD,
    )


def _verdict(evidence: Evidence, ranking: Ranking) -> Verdict:
    first, second = top_two(ranking)
    together = ranking.together() if first else 0.0
    if first is None or ranking.none_of_them > max(0.3, together):
        return Verdict(
            "identify", Tone.WATCH, "It fits no section in the tables",
            "An automotive or special belt, perhaps, or a misread measurement: measure again with callipers, and look for the machine's own part number.",
            sureness(ranking.none_of_them).value,
        )  # fmt: skip
    worst = max((abs(f.sigmas) for f in first.fits), default=0.0)
    also = sorted(ranking.alike_to(first.section.name) - {first.section.name}, key=lambda n: -section(n).common)
    same = f" {_listed(also)}: {'run in the same groove' if ranking.wheel_only else 'the same belt by another name'}." if also else ""
    how = sureness(together)
    if worst > 3:
        bad = max(first.fits, key=lambda f: abs(f.sigmas))
        return Verdict(
            "identify", Tone.WATCH, f"Nearest is {first.section.name}, but its {LABELS[bad.key]} does not fit",
            "Measure that again; if it stands, the belt is of no section in the tables.", Sureness.OPEN.value,
        )  # fmt: skip
    name = first.belts[0].belt.designation if first.belts and first.belts[0].probability > 0.5 else ""
    title = (
        f"{name}, section {first.section.name}"
        if name
        else f"{'A groove for section' if ranking.wheel_only else 'Section'} {first.section.name}"
    )
    if how is Sureness.OPEN and second:
        return Verdict(
            "identify",
            Tone.OPEN,
            f"{first.section.name} or {second.section.name}: cannot tell yet",
            f"{together:.0%} against {second.probability:.0%}.{same}",
            how.value,
        )
    rest = f" {second.section.name} is left with {second.probability:.0%}." if second else ""
    return Verdict("identify", Tone.GOOD, title, f"{_percent(together)}.{same}{rest}".strip(), how.value)


def _percent(share: float) -> str:
    return "over 99 % likely" if share > 0.99 else f"{share:.0%} likely"


def _listed(names: list[str]) -> str:
    return names[0] if len(names) == 1 else ", ".join(names[:-1]) + " and " + names[-1]


def _candidate(candidate: Candidate, evidence: Evidence) -> CandidateOut:
    found = candidate.section
    return CandidateOut(
        found.name,
        f"{found.series}, {found.construction}",
        found.construction,
        found.top_width_m,
        found.height_m,
        math.radians(found.angle_deg),
        candidate.probability,
        tuple(_fit(f.key, f.reading, f.expected, f.sigmas) for f in candidate.fits),
        tuple(_name(b.belt, b.probability) for b in candidate.belts[:4]),
        tuple(equivalents(candidate.belts[0].belt)) if candidate.belts else (),
    )


def _fit(key: str, reading: float, wanted: float, sigmas: float) -> FitOut:
    size = abs(sigmas)
    word = "fits" if size < 1.5 else "a little off" if size < 2.5 else "hardly fits" if size < 4 else "does not fit"
    read, expected = (_both(key, v) for v in (reading, wanted))
    return FitOut(LABELS[key], *read, *expected, word, round(sigmas, 1))


def _both(key: str, value: float) -> tuple[str, str]:
    if "angle" in key:
        return (f"{math.degrees(value):.0f}°",) * 2
    return shown(value, "length", to_set=True)


def _name(belt: Belt, share: float) -> Name:
    us, si = shown(lengths(belt.section, belt.number).outside_m, "length", decimals=(1, 0))
    return Name(belt.designation, belt.section.name, us, si, belt.listed, share)


def equivalents(belt: Belt) -> list[Name]:
    """The same belt by its other names: in each system the made length nearest round the outside, where within 1 %."""
    outside = lengths(belt.section, belt.number).outside_m
    found = []
    for name in sorted(alike.same_belt(belt.section.name) - {belt.section.name}, key=lambda n: -section(n).common):
        other = section(name)
        wanted = number_from_outside(other, outside)
        numbers = [b.number for b in standard_belts(name)] + list(made_numbers(name))
        if not numbers:
            continue
        near = min(numbers, key=lambda n: abs(n - wanted))
        made = belt_of(other, near, belt.ribs)
        if abs(lengths(other, near).outside_m / outside - 1) <= 0.01:
            found.append(_name(made, 1.0))
    return found


def _statements(candidates: list[Candidate], evidence: Evidence) -> tuple[Statement, ...]:
    """About the first candidate, and about the pairs among those shown."""
    names = [c.section.name for c in candidates]
    own = alike.same_belt(names[0])
    found = []
    for a in alike.alikes():
        pair = {a.section, a.other}
        about_first = (names[0] in pair and a.kind == "same") or (pair & own and a.kind == "alike")
        if about_first or len(pair & set(names)) == 2:
            found.append(Statement(a.kind, f"{a.section} and {a.other}", a.statement, a.confidence.value, a.source))
    order = ("same", "near", "alike", "groove")
    return tuple(sorted(found, key=lambda s: order.index(s.kind)))
