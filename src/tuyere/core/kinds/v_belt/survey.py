"""A V-belt drive as typed: each field read on its own, its problem kept beside it, nothing lost."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import get_args

from tuyere.core.basis.field import Note
from tuyere.core.basis.limit import limit
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import to_si, whole_number
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.fitted import Adjustable, Role
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.v_belt.v_set import Basis, DrivenBasis, GrooveKind, VSet

LONGEST_WORD = 60
MOST_RIBS = 40
_UNKNOWN = ("", "-", "?")


@dataclass(frozen=True)
class VReading:
    """What was understood of the set, a note for each field, and the problems."""

    on: VSet
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_set(part: Part) -> VReading:
    """Read sheaves, belt and centres: quantities by field, words for section, belt, counts and kinds of groove."""
    reader, words = FieldReader(part.quantities, part.words), part.words
    sizes = {key: reader.given(key) for key in ("driver_diameter", "driven_diameter", "centre_distance")}
    section = _section(reader, words.get("section", ""))
    belt, ribs = _band(reader, _belt(reader, words.get("belt", ""), section), words.get("ribs", ""))
    on = VSet(
        section=section,
        driver_diameter=sizes["driver_diameter"],
        driver_basis=reader.choice("driver_basis", get_args(Basis)) or "outside",
        driver_groove=_groove(reader, "driver_groove", section),
        driven_diameter=sizes["driven_diameter"],
        driven_basis=reader.choice("driven_basis", get_args(DrivenBasis)) or "outside",
        driven_groove=_groove(reader, "driven_groove", section),
        centre_distance=sizes["centre_distance"],
        belt=belt,
        belt_count=_count(reader, words.get("belt_count", "")),
        band_ribs=ribs,
        adjustable=_adjustable(reader, words),
    )
    return VReading(on, reader.notes, tuple(reader.problems))


def _adjustable(reader: FieldReader, words: Mapping[str, str]) -> Adjustable | None:
    """An adjustable sheave, where there is one: on which shaft, and how far it is open (half a turn each, the set screw wants a flat)."""
    turns, most, drop = (reader.given(key) for key in ("open_turns", "most_turns", "turn_drop"))
    role = next((r for r in get_args(Role) if r == words.get("adjustable", "")), None)
    if role is None:
        return None
    opens = most.value if most else most_turns(words.get("section", ""))
    if turns and turns.value > opens + 1e-9:
        reader.problems.append(Problem("open_turns", f"It opens {opens:g} turns at most: count them again from closed."))
        return None
    usual = to_si(limit("drop of an adjustable sheave").value, "length", "in")
    return Adjustable(
        role, turns.value if turns else None, drop.value if drop else usual, opens, drop.origin if drop else Origin.RULE_OF_THUMB
    )


def most_turns(section: str) -> float:
    """How many turns an adjustable sheave for a section opens at most. Source: tables/v_sheaves_adjustable.csv (low).

    >>> most_turns("A"), most_turns("BX"), most_turns("3V")
    (5.0, 6.0, 5.0)
    """
    of = section.removesuffix("X")
    found = [float(r["turns_open_max"]) for r in rows("v_sheaves_adjustable") if of in r["groove"].split("/")]
    return min(found, default=limit("turns of an adjustable sheave").value)


def _groove(reader: FieldReader, key: str, section: v_belt.Section | None) -> GrooveKind:
    """The kind of groove, where the section is made with it; a standard one otherwise."""
    kind: GrooveKind = reader.choice(key, get_args(GrooveKind)) or "standard"
    if section is None or kind == "standard" or kind in v_belt.groove_kinds(section):
        return kind
    reader.problems.append(Problem(key, f"Section {section.name} has no {kind} groove on the table: choose standard."))
    return "standard"


def _section(reader: FieldReader, text: str) -> v_belt.Section | None:
    if not text.strip():
        return None
    try:
        return v_belt.section(text)
    except v_belt.BeltError as refusal:
        reader.problems.append(Problem("section", str(refusal)))
        return None


def _belt(reader: FieldReader, text: str, section: v_belt.Section | None) -> v_belt.Belt | None:
    if text.strip() in _UNKNOWN:
        return None
    try:
        if len(text) > LONGEST_WORD:
            raise v_belt.BeltError("That is too long to be a belt name: write the section and the number, such as B81.")
        return v_belt.parse_designation(text, section)
    except v_belt.BeltError as refusal:
        reader.problems.append(Problem("belt", str(refusal)))
        return None


def _band(reader: FieldReader, belt: v_belt.Belt | None, text: str) -> tuple[v_belt.Belt | None, int | None]:
    """A joined or ribbed belt's ribs, by its name or as counted; the belt then says them too."""
    cleaned = text.strip()
    counted = None
    if cleaned not in _UNKNOWN:
        counted = whole_number(cleaned, 1, MOST_RIBS)
        if counted is None:
            reader.problems.append(Problem("ribs", f"Write how many ribs one band has: 1 for single belts, up to {MOST_RIBS}."))
            return belt, None
    if belt and belt.ribs and counted and belt.ribs != counted:
        reader.problems.append(
            Problem("ribs", f"{belt.designation} says {belt.ribs} ribs by its name, and here stand {counted}: count them again.")
        )
        return belt, None
    if belt and not belt.ribs and counted and counted > 1:
        belt = replace(belt, ribs=counted)
    return belt, counted or (belt.ribs if belt else None)


def _count(reader: FieldReader, text: str) -> int | None:
    cleaned = text.strip()
    if cleaned in _UNKNOWN:
        return None
    most = int(limit("belts side by side").value)
    counted = whole_number(cleaned, 1, most)
    if counted is None:
        reader.problems.append(Problem("belt_count", f"Write how many belts (or bands) run side by side: 1 to {most}."))
    return counted
