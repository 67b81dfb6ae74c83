"""The answer to "which belt is this", in words: verdict, candidates with every fit, look-alikes, next measurement."""

import math
from dataclasses import dataclass

from tuyere.core.basis.figure import shown
from tuyere.core.basis.uncertainty import Sureness, sureness
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.v_belt import Belt, belt_of, lengths, made_numbers, number_from_outside, section, standard_belts
from tuyere.core.kinds.v_belt.broad import broad_like, broad_named
from tuyere.core.kinds.v_belt.length import QUARTER_INCH
from tuyere.core.stations.find import alike, hub
from tuyere.core.stations.find.ask import Next, next_measurement, top_two
from tuyere.core.stations.find.evidence import Evidence
from tuyere.core.stations.find.label import named
from tuyere.core.stations.find.rank import Candidate, Ranking, rank

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
class Identified:
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


def identify(evidence: Evidence) -> Identified:
    """Rank, judge and say. With nothing measured it only says what to measure first."""
    hubs = hub.statements(evidence)
    if not evidence.known() - {"machine", "bore", "key_width", "hub_large_end"}:
        asked = next_measurement(evidence, Ranking((), 1.0))
        nothing = Verdict("identify", Tone.OPEN, "Measure the top width first", "Then the thickness: most sections part by these two.")
        return Identified(nothing, (), 0.0, (), asked, hubs, METHOD)
    if broad := broad_named(evidence.label):
        return Identified(
            Verdict("identify", Tone.WATCH, f"{broad.name}, an adjustable-speed belt", broad.sentence), (), 1.0, (), None, hubs, METHOD
        )
    ranking = rank(evidence)
    shown_ones = [c for c in ranking.candidates[:_SHOWN] if c.probability >= _LEAST_SHARE] or list(ranking.candidates[:1])
    return Identified(
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
            "identify",
            Tone.WATCH,
            "It fits no section in the tables",
            f"{_what_else(evidence)}, or a misread measurement: measure again with callipers, and look for the machine's own part number.",
            sureness(ranking.none_of_them).value,
        )
    worst = max((abs(f.sigmas) for f in first.fits), default=0.0)
    also = sorted(ranking.alike_to(first.section.name) - {first.section.name}, key=lambda n: -section(n).common)
    same = _other_names(first.section.name, also, ranking.wheel_only)
    how = sureness(together)
    if worst > 3:
        bad = max(first.fits, key=lambda f: abs(f.sigmas))
        return Verdict(
            "identify",
            Tone.WATCH,
            f"Nearest is {first.section.name}, but its {LABELS[bad.key]} does not fit",
            "Measure that again: the label counts for more than one odd size."
            if named(evidence.label)
            else "Measure that again; if it stands, the belt is of no section in the tables.",
            Sureness.OPEN.value,
        )
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
            f"{together:.0%} against {second.probability:.0%}.{same}{_off_a_vehicle(first.section.name, evidence)}",
            how.value,
        )
    rest = _no_counter_belt(first, evidence)
    rest += f" {second.section.name} is left with {second.probability:.0%}." if second else ""
    share = _percent(first.probability) + (
        f"; {together:.0%} with its other names" if also and together - first.probability >= 0.005 else ""
    )
    if len(evidence.known() & _TELLING) < 2 and not named(evidence.label):
        return Verdict(
            "identify",
            Tone.OPEN,
            f"{title}, perhaps",
            f"{share}, by one thing alone: measure a second before you ask for it.{same}{rest}",
            Sureness.OPEN.value,
        )
    return Verdict("identify", Tone.GOOD, title, f"{share}.{same}{rest}{_off_a_vehicle(first.section.name, evidence)}".strip(), how.value)


def _no_counter_belt(first: Candidate, evidence: Evidence) -> str:
    """On a slack-belt clutch, where no made belt is near enough."""
    if not (evidence.clutching and evidence.outside_length) or first.belts:
        return ""
    return " No counter belt is within a quarter of an inch of it, and on a clutching or deck belt that much decides: ask for the machine's own part number."


def _off_a_vehicle(name: str, evidence: Evidence) -> str:
    """A notched belt of an automotive width looks like an industrial one, and is not."""
    like = any(a.kind == "alike" and {a.section, a.other} == {name, "automotive"} for a in alike.alikes())
    if not like or evidence.label or evidence.construction != "cogged":
        return ""
    return " Off a vehicle it is an automotive belt (AV, ISO 2790), made for another duty: only the vehicle's own part number is sure."


# What tells one section from another; one of them alone settles nothing.
_TELLING = {
    "top_width",
    "thickness",
    "belt_angle",
    "groove_width",
    "groove_angle",
    "groove_depth",
    "groove_spacing",
    "construction",
    "label",
    "marks",
}


def _other_names(name: str, also: list[str], wheel_only: bool) -> str:
    """The other names of a belt: one belt in two systems, and those of one size that are made for another duty."""
    if not also:
        return ""
    if wheel_only:
        return f" {_listed(also)}: run in the same groove."
    true_ones = [n for n in also if alike.same_duty(name, n)]
    others = [n for n in also if n not in true_ones]
    said = f" {_listed(true_ones)}: the same belt by another name." if true_ones else ""
    return said + (
        f" {_listed(others)}: same size, not the same duty{' (the light ones carry about half)' if {*others, name} & alike.LIGHT else ''}."
        if others
        else ""
    )


_BROAD = 2.2  # variable-speed belts are two and a half to three and a half times as wide as thick; no V-belt of the tables is over 2.2


def _what_else(evidence: Evidence) -> str:
    """What a belt that is in no table may be, by its proportions."""
    width, thickness = evidence.top_width, evidence.thickness
    if width and thickness and evidence.construction != "ribbed":
        if like := broad_like(width.value, thickness.value):
            return f"An adjustable-speed farm belt, {like.name} by its size (ASABE S211): it runs between sliding flanges"
        if width.value > _BROAD * thickness.value and width.value > 0.015:
            return "A variable-speed belt, by its proportions: so broad for its depth they run between sliding flanges (ISO 1604)"
    return "An automotive, variable-speed or other special belt, perhaps"


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
        tuple(equivalents(candidate.belts[0].belt, evidence.clutching)) if candidate.belts else (),
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


def equivalents(belt: Belt, clutching: bool = False) -> list[Name]:
    """The same belt by its other names.

    In each system the made length nearest round the outside, where within 1 %, or a quarter of an inch.
    """
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
        if abs(lengths(other, near).outside_m - outside) <= (QUARTER_INCH if clutching else 0.01 * outside):
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
