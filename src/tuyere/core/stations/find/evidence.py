"""What is known of an unnamed belt or its wheel: the input of the ranking."""

from collections.abc import Mapping
from dataclasses import dataclass, fields

from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import QuantityError, whole_number
from tuyere.core.basis.typed import Given, Typed, given
from tuyere.core.basis.verdict import Problem

CONSTRUCTIONS = ("wrapped", "cogged", "joined", "hexagonal", "ribbed", "link", "aramid")
MACHINES = ("plant", "light", "farm", "metric", "deck")
LONGEST_LABEL = 24


@dataclass(frozen=True)
class Evidence:
    """Measurements (SI, each with its doubt), what stands on the belt and the wheel, and what kind of machine it is off.

    `construction`: one of CONSTRUCTIONS or empty; `machine`: plant (inch), light (fractional horsepower), farm, metric,
    deck (a mower deck or another drive that clutches by slackening its belt).
    `label` may hold ? for a character that cannot be read.
    """

    top_width: Given | None = None
    thickness: Given | None = None
    belt_angle: Given | None = None
    outside_length: Given | None = None
    inside_length: Given | None = None
    laid_out_length: Given | None = None
    groove_width: Given | None = None
    groove_angle: Given | None = None
    groove_depth: Given | None = None
    groove_spacing: Given | None = None
    wheel_diameter: Given | None = None
    bore: Given | None = None
    key_width: Given | None = None
    hub_large_end: Given | None = None
    label: str = ""
    construction: str = ""
    ribs: int | None = None
    marks: str = ""
    machine: str = ""

    @property
    def clutching(self) -> bool:
        """Off a drive that clutches by slackening its belt: a quarter of an inch of length matters there."""
        return self.machine == "deck" or self.construction == "aramid"

    def known(self) -> set[str]:
        """The names of what is given."""
        return {f.name for f in fields(self) if getattr(self, f.name) not in (None, "")}


QUANTITIES = tuple(f.name for f in fields(Evidence) if f.type == Given | None)


@dataclass(frozen=True)
class MeasuredSize:
    """The evidence as read from a form, a note per field and the problems."""

    evidence: Evidence
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_evidence(quantities: Mapping[str, Typed], words: Mapping[str, str]) -> MeasuredSize:
    """Read what was typed; each field on its own, its problem kept beside it."""
    values: dict[str, Given] = {}
    notes: dict[str, Note] = {}
    problems: list[Problem] = []
    for key in QUANTITIES:
        if key not in quantities:
            continue
        try:
            found, note = given(key, quantities[key])
        except QuantityError as refusal:
            problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
            continue
        if found and note:
            values[key], notes[key] = found, note
    cleaned = {key: words.get(key, "").strip() for key in ("label", "marks", "construction", "machine", "ribs")}
    for key, known in (("construction", CONSTRUCTIONS), ("machine", MACHINES)):
        if cleaned[key] and cleaned[key] not in known:
            problems.append(Problem(key, f"“{cleaned[key][:20]}” is not on the list: choose {', '.join(known)}."))
            cleaned[key] = ""
    for key in ("label", "marks"):
        if len(cleaned[key]) > LONGEST_LABEL:
            problems.append(
                Problem(key, f"That is too long: write up to {LONGEST_LABEL} characters as they stand there, ? for one you cannot read.")
            )
            cleaned[key] = ""
        elif cleaned[key] in ("-", "?"):
            cleaned[key] = ""
    ribs = _ribs(cleaned["ribs"], problems)
    evidence = Evidence(
        **values,
        label=cleaned["label"],
        marks=cleaned["marks"],
        construction=cleaned["construction"],
        machine=cleaned["machine"],
        ribs=ribs,
    )
    return MeasuredSize(evidence, notes, tuple(problems))


def _ribs(text: str, problems: list[Problem]) -> int | None:
    if text in ("", "-", "?"):
        return None
    counted = whole_number(text, 1, 40)
    if counted is None:
        problems.append(Problem("ribs", "Count the ribs or belts joined: a whole number from 1 to 40."))
    return counted
