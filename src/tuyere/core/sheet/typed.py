"""From what people typed to a DriveSpec: each field read on its own, its problem kept beside it, nothing lost."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import TypeVar, get_args

from tuyere.core.drives import v_belt
from tuyere.core.entry.field import Note
from tuyere.core.entry.quantity import QuantityError, to_si, whole_number
from tuyere.core.entry.typed import Given, Typed, given
from tuyere.core.origin import Origin
from tuyere.core.rating import duties
from tuyere.core.rating.service import IDLERS, STARTS, SURROUNDINGS
from tuyere.core.sheet.power import BELTS_FITTED_LIMIT
from tuyere.core.sheet.spec import Adjustable, Basis, BeltState, DrivenBasis, DriverClass, DriveSpec, Gauge, GrooveKind, Role, Rotation
from tuyere.core.working.verdict import Problem

LONGEST_WORD = 60
T = TypeVar("T", bound=str)
SURVEY_QUANTITIES = (
    "driver_power", "driver_speed", "hours_per_day", "driver_diameter", "driven_diameter",
    "centre_distance", "travel_in", "travel_out", "design_speed", "tach_driver", "tach_driven",
)  # fmt: skip
# The rest of the design point is kept and shown; nothing is computed from it yet.
DESIGN_ONLY = ("design_airflow", "design_pressure", "design_amps", "design_turns")


@dataclass
class Reading:
    """The outcome of reading a form: the spec, a note per field, and the problems."""

    spec: DriveSpec
    design: dict[str, float] = field(default_factory=dict)
    notes: dict[str, Note] = field(default_factory=dict)
    problems: list[Problem] = field(default_factory=list)


def read_form(
    quantities: Mapping[str, Typed],
    choices: Mapping[str, str],
    forces: Sequence[Typed] = (),
    deflection: Typed | None = None,
) -> Reading:
    """Read a whole sheet form. Quantities by field key; choices are plain words (section, belt, belt_count, classes...)."""
    reading = Reading(DriveSpec())
    values: dict[str, Given | None] = {}
    for key in SURVEY_QUANTITIES:
        if key in quantities:
            values[key] = _one(reading, key, quantities[key])
    reading.spec = replace(reading.spec, **values)  # type: ignore[arg-type]
    design = {key: _one(reading, key, quantities[key]) for key in DESIGN_ONLY if key in quantities} | {
        "design_speed": values.get("design_speed")
    }
    reading.design = {key: found.value for key, found in design.items() if found}
    _words(reading, choices)
    _adjustable(reading, quantities, choices)
    _gauge(reading, choices, forces, deflection)
    return reading


# A light-duty sheave opens five turns and loses about 0.2 in of pitch diameter a turn: common practice, no source.
USUAL_MOST_TURNS = 5.0
USUAL_TURN_DROP_M = to_si(0.2, "length", "in")


def _adjustable(reading: Reading, quantities: Mapping[str, Typed], choices: Mapping[str, str]) -> None:
    """An adjustable sheave, where there is one: on which shaft, and how far it is open (half a turn each, the set screw wants a flat)."""
    found = {key: _one(reading, key, quantities[key]) for key in ("open_turns", "most_turns", "turn_drop") if key in quantities}
    role = next((r for r in get_args(Role) if r == choices.get("adjustable", "")), None)
    if role is None:
        return
    turns, most, drop = found.get("open_turns"), found.get("most_turns"), found.get("turn_drop")
    opens = most.value if most else USUAL_MOST_TURNS
    if turns and turns.value > opens + 1e-9:
        reading.problems.append(Problem("open_turns", f"It opens {opens:g} turns at most: count them again from closed."))
        return
    reading.spec = replace(
        reading.spec,
        adjustable=Adjustable(
            role, turns.value if turns else None, drop.value if drop else USUAL_TURN_DROP_M, opens,
            drop.origin if drop else Origin.RULE_OF_THUMB,
        ),
    )  # fmt: skip


def _one(reading: Reading, key: str, typed: Typed, as_field: str | None = None) -> Given | None:
    try:
        found, note = given(key, typed, as_field)
    except QuantityError as refusal:
        reading.problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
        return None
    if note:
        reading.notes[key] = note
    return found


def _words(reading: Reading, choices: Mapping[str, str]) -> None:
    section = _section(reading, choices.get("section", ""))
    belt, ribs = _band(reading, _belt(reading, choices.get("belt", ""), section), choices.get("ribs", ""))
    spec = replace(
        reading.spec,
        section=section,
        belt=belt,
        band_ribs=ribs,
        belt_count=_count(reading, choices.get("belt_count", "")),
        driver_class=_one_of(reading, "driver_class", choices, get_args(DriverClass)) or "normal",
        driver_basis=_one_of(reading, "driver_basis", choices, get_args(Basis)) or "outside",
        driven_basis=_one_of(reading, "driven_basis", choices, get_args(DrivenBasis)) or "outside",
        driver_groove=_groove(reading, "driver_groove", choices, section),
        driven_groove=_groove(reading, "driven_groove", choices, section),
        idler=_one_of(reading, "idler", choices, tuple(IDLERS)) or "none",
        surroundings=_one_of(reading, "surroundings", choices, tuple(SURROUNDINGS)) or "clean",
        starts=_one_of(reading, "starts", choices, tuple(STARTS)) or "seldom",
        rotation=_one_of(reading, "rotation", choices, get_args(Rotation)) or "clockwise",
        driven_class=_one_of(reading, "driven_class", choices, tuple(c.name for c in duties.driven_classes())),
        centre_line_deg=_angle(reading, choices.get("centre_line_deg", "")),
    )
    reading.spec = spec


def _groove(reading: Reading, key: str, choices: Mapping[str, str], section: v_belt.Section | None) -> GrooveKind:
    """The kind of groove, where the section is made with it; a standard one otherwise."""
    kind: GrooveKind = _one_of(reading, key, choices, get_args(GrooveKind)) or "standard"
    if section is None or kind == "standard" or kind in v_belt.groove_kinds(section):
        return kind
    reading.problems.append(Problem(key, f"Section {section.name} has no {kind} groove on the table: choose standard."))
    return "standard"


def _section(reading: Reading, text: str) -> v_belt.Section | None:
    if not text.strip():
        return None
    try:
        return v_belt.section(text)
    except v_belt.BeltError as refusal:
        reading.problems.append(Problem("section", str(refusal)))
        return None


def _belt(reading: Reading, text: str, section: v_belt.Section | None) -> v_belt.Belt | None:
    if text.strip() in ("", "-", "?"):
        return None
    try:
        if len(text) > LONGEST_WORD:
            raise v_belt.BeltError("That is too long to be a belt name: write the section and the number, such as B81.")
        return v_belt.parse_designation(text, section)
    except v_belt.BeltError as refusal:
        reading.problems.append(Problem("belt", str(refusal)))
        return None


MOST_RIBS = 40


def _band(reading: Reading, belt: v_belt.Belt | None, text: str) -> tuple[v_belt.Belt | None, int | None]:
    """A joined or ribbed belt's ribs, by its name or as counted; the belt then says them too."""
    cleaned = text.strip()
    counted = None
    if cleaned not in ("", "-", "?"):
        counted = whole_number(cleaned, 1, MOST_RIBS)
        if counted is None:
            reading.problems.append(Problem("ribs", f"Write how many ribs one band has: 1 for single belts, up to {MOST_RIBS}."))
            return belt, None
    if belt and belt.ribs and counted and belt.ribs != counted:
        reading.problems.append(
            Problem("ribs", f"{belt.designation} says {belt.ribs} ribs by its name, and here stand {counted}: count them again.")
        )
        return belt, None
    if belt and not belt.ribs and counted and counted > 1:
        belt = replace(belt, ribs=counted)
    return belt, counted or (belt.ribs if belt else None)


def _count(reading: Reading, text: str) -> int | None:
    cleaned = text.strip()
    if cleaned in ("", "-", "?"):
        return None
    counted = whole_number(cleaned, 1, BELTS_FITTED_LIMIT)
    if counted is None:
        reading.problems.append(Problem("belt_count", f"Write how many belts (or bands) run side by side: 1 to {BELTS_FITTED_LIMIT}."))
    return counted


def _one_of(reading: Reading, key: str, choices: Mapping[str, str], known: tuple[T, ...]) -> T | None:
    text = choices.get(key, "").strip()
    if not text:
        return None
    for word in known:
        if word == text:
            return word
    reading.problems.append(Problem(key, f"“{text[:20]}” is not on the list: choose {', '.join(known)}."))
    return None


def _angle(reading: Reading, text: str) -> float:
    cleaned = text.strip() or "0"
    degrees = whole_number(cleaned, 0, 359)
    if degrees is None:
        reading.problems.append(Problem("centre_line_deg", "Choose where the driven sheave lies, 0 to 359 degrees from the right."))
    return float(degrees or 0)


def _gauge(reading: Reading, choices: Mapping[str, str], forces: Sequence[Typed], deflection: Typed | None) -> None:
    state = _one_of(reading, "belt_state", choices, get_args(BeltState))
    if len(forces) > BELTS_FITTED_LIMIT:
        reading.problems.append(Problem("forces", f"At most {BELTS_FITTED_LIMIT} belts can be gauged."))
        return
    found = [_one(reading, f"force_{i}", f, "force") for i, f in enumerate(forces, 1)]
    pushed = _one(reading, "deflection", deflection) if deflection else None
    kept = tuple(f for f in found if f)
    if kept or pushed:
        reading.spec = replace(reading.spec, gauge=Gauge(kept, pushed, "new" if state == "new" else "run in"))
