"""From what people typed about many wheels to a solved path: each entry read on its own, its problem kept beside it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import get_args

from tuyere.core.families.v_belt import BeltError, Section, datum_from_outside, grooves_of, section
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.geometry.tape_net import Net, Tape, solve_net
from tuyere.core.path_drive import Contact, Face, PathAnswer, PathWheel, Role, solve_path
from tuyere.core.quantity import QuantityError
from tuyere.core.sheet.field import Note
from tuyere.core.sheet.figure import shown
from tuyere.core.sheet.spec import Given
from tuyere.core.sheet.typed import Typed, given
from tuyere.core.sheet.verdict import Problem, Tone, Verdict

MOST_WHEELS = 24


@dataclass(frozen=True)
class TypedWheel:
    """One wheel as typed. `diameter` over the rim; `x`, `y` from the first wheel's centre, y up (unused when placed by tape)."""

    name: str
    role: str
    contact: str
    face: str
    diameter: Typed
    x: Typed
    y: Typed
    power: Typed
    takes_up: bool = False


@dataclass(frozen=True)
class TypedTape:
    """One tape measurement between two wheels, counted from 1."""

    a: int
    b: int
    distance: Typed


@dataclass(frozen=True)
class TypedPath:
    """A whole layout as typed. `placed_by`: tape or coordinates."""

    wheels: Sequence[TypedWheel]
    tapes: Sequence[TypedTape] = ()
    placed_by: str = "tape"
    mirrored: bool = False
    rotation: str = "clockwise"
    crossed: bool = False
    section: str = ""


@dataclass(frozen=True)
class PathReading:
    """The solved path, the tape net when there is one, what each field understood, and the problems."""

    answer: PathAnswer | None
    wheels: tuple[PathWheel, ...]
    net: Net | None
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    verdicts: tuple[Verdict, ...]


@dataclass
class _Reader:
    notes: dict[str, Note]
    problems: list[Problem]

    def one(self, key: str, typed: Typed, as_field: str) -> Given | None:
        text = typed.text.strip()
        minus = as_field == "coordinate" and len(text) > 1 and text[0] in "-−"
        try:
            found, note = given(key, Typed(text[1:] if minus else text, typed.unit, typed.origin, typed.tool), as_field)
        except QuantityError as refusal:
            self.problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
            return None
        if found and note:
            self.notes[key] = Note(f"-{note.us}", f"-{note.si}", note.unit, note.offer) if minus else note
            return Given(-found.value, found.std, found.origin, found.name) if minus else found
        return None


def read_path(typed: TypedPath) -> PathReading:
    """Read and solve. Nothing is solved until every wheel has a diameter and a place; what is missing is said beside it."""
    reader = _Reader({}, [])
    belt = _section(typed.section, reader)
    if len(typed.wheels) > MOST_WHEELS:
        reader.problems.append(Problem("wheels", f"At most {MOST_WHEELS} wheels: split the drive into stages."))
        return PathReading(None, (), None, reader.notes, tuple(reader.problems), ())
    radii = [
        r.value / 2 if (r := reader.one(f"wheel_{k}_diameter", w.diameter, "driven_diameter")) else None
        for k, w in enumerate(typed.wheels, 1)
    ]
    powers = [p.value if (p := reader.one(f"wheel_{k}_power", w.power, "wheel_power")) else 0.0 for k, w in enumerate(typed.wheels, 1)]
    places, net = _by_tape(typed, reader) if typed.placed_by == "tape" else (_by_coordinates(typed, reader), None)
    if belt is None or None in radii or places is None or len(typed.wheels) < 2:
        return PathReading(None, (), net, reader.notes, tuple(reader.problems), ())
    wheels = tuple(
        _wheel(w, k, belt, radius or 0.0, places[k - 1], power)
        for k, (w, radius, power) in enumerate(zip(typed.wheels, radii, powers, strict=True), 1)
    )
    rotation = -1 if typed.rotation == "clockwise" else 1
    answer = solve_path(wheels, rotation, typed.crossed)
    if (
        net
        and answer.path is None
        and answer.problems
        and solve_path([replace(w, y_m=-w.y_m) for w in wheels], rotation, typed.crossed).path
    ):
        # Tapes cannot tell a layout from its mirror image; the belt can.
        asked = Problem(
            "tapes", f"{answer.problems[0].sentence} It would run in the mirror image: does the drive look the other way round?"
        )
        answer = replace(answer, problems=(asked,))
    verdicts = [*([_closing(net, typed)] if net else []), *answer.verdicts]
    return PathReading(answer, wheels, net, reader.notes, (*reader.problems, *answer.problems), tuple(verdicts))


def _section(name: str, reader: _Reader) -> Section | None:
    try:
        return section(name) if name.strip() else None
    except BeltError as refusal:
        reader.problems.append(Problem("section", str(refusal)))
        return None


def _by_coordinates(typed: TypedPath, reader: _Reader) -> list[tuple[float, float]] | None:
    found = []
    for k, w in enumerate(typed.wheels, 1):
        x, y = (reader.one(f"wheel_{k}_{axis}", entry, "coordinate") for axis, entry in (("x", w.x), ("y", w.y)))
        if k == 1:
            found.append((x.value if x else 0.0, y.value if y else 0.0))
        elif x and y:
            found.append((x.value, y.value))
    return found if len(found) == len(typed.wheels) else None


def _by_tape(typed: TypedPath, reader: _Reader) -> tuple[list[tuple[float, float]] | None, Net | None]:
    count = len(typed.wheels)
    tapes = []
    for k, t in enumerate(typed.tapes, 1):
        distance = reader.one(f"tape_{k}", t.distance, "centre_distance")
        if not distance:
            continue
        if t.a == t.b or not (1 <= t.a <= count and 1 <= t.b <= count):
            reader.problems.append(Problem(f"tape_{k}", "Choose two different wheels for this tape."))
            continue
        tapes.append(Tape(t.a - 1, t.b - 1, distance.value, max(distance.std, 1e-5)))
    if not tapes:
        return None, None
    try:
        net = solve_net(count, tapes, typed.mirrored)
    except GeometryError as reason:
        reader.problems.append(Problem("tapes", str(reason)))
        return None, None
    return list(net.centres), net


def _closing(net: Net, typed: TypedPath) -> Verdict:
    """How well the tapes agree with each other."""
    worst = max(range(len(net.residuals_m)), key=lambda k: abs(net.residuals_m[k]))
    us, si = shown(abs(net.residuals_m[worst]), "length", to_set=True)
    if net.ambiguous:
        names = " and ".join(typed.wheels[i].name.strip() or f"wheel {i + 1}" for i in net.ambiguous)
        return Verdict(
            "tape",
            Tone.WATCH,
            f"{names} could lie on either side",
            "Two tapes leave a mirror image: one more, to a third wheel, says which.",
        )
    if not net.over_determined:
        return Verdict(
            "tape", Tone.OPEN, "The tapes place every wheel, with none to spare", "One more, across the drive, would check them all."
        )
    if net.worst_sigmas > 3:
        tape = [t for t in typed.tapes if t.distance.text.strip()][worst]
        return Verdict(
            "tape",
            Tone.WATCH,
            f"One tape does not close: off by {us} ({si})",
            f"Most likely wheel {tape.a} to wheel {tape.b}: tape it again.",
        )
    return Verdict("tape", Tone.GOOD, "The tapes agree with each other", f"Within {us} ({si}).")


def _wheel(typed: TypedWheel, number: int, belt: Section, rim_radius_m: float, place: tuple[float, float], power_w: float) -> PathWheel:
    role: Role = typed.role if typed.role in get_args(Role) else "idler"  # type: ignore[assignment]
    contact: Contact = "back" if typed.contact == "back" else "inside"
    face: Face = "flat" if typed.face == "flat" else "grooved"
    return PathWheel(
        typed.name.strip() or f"wheel {number}", role, *place, line_radius(belt, rim_radius_m, contact, face), rim_radius_m, contact, face,
        power_w if role == "driven" else 0.0, typed.takes_up,
    )  # fmt: skip


def line_radius(belt: Section, rim_radius_m: float, contact: Contact, face: Face) -> float:
    """Radius of the belt's line on a wheel (m): in a groove by the groove table; on a flat face the belt's back or its narrow face lies on the rim.

    The line lies half of (outside less datum diameter) under the back of a belt that sits flush.
    """
    rows = grooves_of(belt.groove, "standard")
    below_back = max(0.0, rows[0].two_hd_m / 2) if rows else belt.height_m / 3
    if contact == "back":
        return rim_radius_m + below_back
    if face == "flat":
        return rim_radius_m + belt.height_m - below_back
    return datum_from_outside(belt, 2 * rim_radius_m) / 2
