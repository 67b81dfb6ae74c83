"""From what people typed about a layout to a solved one: each entry read on its own, its problem kept beside it."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import get_args

from tuyere.core.drives.v_belt import (
    Belt,
    BeltError,
    Section,
    centrifugal_mass,
    datum_from_outside,
    groove_at_outside,
    grooves_of,
    min_datum_diameter,
    parse_designation,
    pitch_over_datum,
    section,
)
from tuyere.core.drives.v_belt.tension import half_turn_ratio
from tuyere.core.entry.field import Note
from tuyere.core.entry.quantity import QuantityError
from tuyere.core.entry.typed import Given, Typed, given
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.geometry.tape_net import Net, Tape, both_sides, settle, solve_net
from tuyere.core.layout import keepers
from tuyere.core.layout.train import TrainAnswer, solve_train
from tuyere.core.layout.typed import TypedBelt, TypedKeeper, TypedPath, TypedPoint, TypedTakeUp, TypedWheel
from tuyere.core.layout.wheels import BeltOnWheels, Carriage, Contact, Face, Keeper, KeeperState, Lay, PathWheel, Role, TakeUp
from tuyere.core.working.figure import both
from tuyere.core.working.verdict import Problem, Tone, Verdict

MOST_WHEELS = 24
MOST_BELTS = 6
Place = tuple[float, float]


@dataclass(frozen=True)
class BeltRead:
    """One belt as understood: its section, the belt that is on, and how many."""

    section: Section | None
    belt: Belt | None
    count: int

    @property
    def ribs(self) -> int:
        """Ribs of each: joined and ribbed belts have several."""
        return (self.belt.ribs if self.belt else None) or 1


@dataclass(frozen=True)
class PathReading:
    """The solved layout, the wheels in the order typed with the belt each is on, the tape net when there is one, and the problems.

    `places`: of each belt's wheels among those typed. `findings`: what an inspection writes down of the keepers.
    """

    train: TrainAnswer | None
    wheels: tuple[PathWheel, ...]
    places: tuple[tuple[int, ...], ...]
    belts: tuple[BeltRead, ...]
    on_wheels: tuple[BeltOnWheels, ...]
    keepers: tuple[tuple[int, Keeper, Verdict | None], ...]
    net: Net | None
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    verdicts: tuple[Verdict, ...]
    findings: tuple[str, ...]


@dataclass
class _Reader:
    notes: dict[str, Note] = field(default_factory=dict)
    problems: list[Problem] = field(default_factory=list)

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

    def value(self, key: str, typed: Typed, as_field: str) -> float | None:
        found = self.one(key, typed, as_field)
        return found.value if found else None


def read_path(typed: TypedPath) -> PathReading:
    """Read and solve. Nothing is solved until every wheel has a diameter and a place; what is missing is said beside it."""
    reader = _Reader()
    if len(typed.wheels) > MOST_WHEELS:
        reader.problems.append(Problem("wheels", f"At most {MOST_WHEELS} wheels: split the drive in two."))
        return _unread(reader)
    belts = tuple(_belt(b, k, reader) for k, b in enumerate(typed.belts[:MOST_BELTS], 1))
    radii = [r / 2 if (r := reader.value(f"wheel_{k}_diameter", w.diameter, "driven_diameter")) else None for k, w in enumerate(typed.wheels, 1)]  # fmt: skip
    shafts = _shafts(typed, reader)
    places, net = _places(typed, shafts, reader)
    powers = [reader.value(f"wheel_{k}_power", w.power, "wheel_power") or 0.0 for k, w in enumerate(typed.wheels, 1)]
    take_ups = [_take_up(k, w.take_up, reader, places) for k, w in enumerate(typed.wheels, 1)]
    speed = _Reader().value("driver_speed", typed.driver_speed, "driver_speed")  # the sheet itself says what is wrong with it
    by_belt = tuple(tuple(i for i, w in enumerate(typed.wheels) if w.belt == b) for b in range(1, len(belts) + 1))
    if (
        None in radii
        or places is None
        or len(typed.wheels) < 2
        or any(b.section is None for b in belts)
        or sum(map(len, by_belt)) < len(radii)
    ):
        return replace(_unread(reader), belts=belts, net=net)  # fmt: skip
    wheels = tuple(
        _wheel(w, k, belts[w.belt - 1].section, radii[k - 1] or 0.0, places[k - 1], powers[k - 1], take_ups[k - 1], shafts[k - 1])
        for k, w in enumerate(typed.wheels, 1)
    )
    on_wheels = tuple(_on_wheels(typed, b, belts[b], wheels, by_belt[b], reader) for b in range(len(belts)))
    rotation = -1 if typed.rotation == "clockwise" else 1
    train = solve_train(on_wheels, rotation, speed)
    problems = list(_problems(train, wheels, by_belt))
    if problems and train.belts and train.belts[0].path is None and solve_train(on_wheels, -rotation).belts[0].path:
        # Tapes cannot tell a layout from its mirror image, nor wheels their order from the way the driver turns; the belt can.
        asked = (
            "It would run in the mirror image: does the drive look the other way round?"
            if typed.placed_by == "tape"
            else "It would run with the driver turning the other way: check that, or the order of the wheels."
        )
        problems = [replace(problems[0], sentence=f"{problems[0].sentence} {asked}"), *problems[1:]]
        if typed.placed_by == "tape":
            problems[0] = replace(problems[0], field="tapes")
    kept = tuple(
        _keeper(k, t, train, places, belts[t.belt - 1], reader) for k, t in enumerate(typed.keepers, 1) if 1 <= t.belt <= len(belts)
    )
    verdicts = [
        *([_closing(net, typed)] if net else []),
        *(
            replace(v, headline=f"Belt {b}: {v.headline}") if len(belts) > 1 else v
            for b, answer in enumerate(train.belts, 1)
            for v in answer.verdicts
        ),
        *(v for _, _, v in kept if v),
    ]
    findings = tuple(found for _, k, _ in kept if (found := keepers.finding_of(k)))
    return PathReading(
        train, wheels, by_belt, belts, on_wheels, kept, net, reader.notes, (*reader.problems, *problems), tuple(_weighed(verdicts)), findings
    )  # fmt: skip


def _unread(reader: _Reader) -> PathReading:
    return PathReading(None, (), (), (), (), (), None, reader.notes, tuple(reader.problems), (), ())


def _weighed(verdicts: Sequence[Verdict]) -> list[Verdict]:
    """What stops the machine first, then what wants watching, what is still open, and what is right."""
    return sorted(verdicts, key=lambda v: (Tone.STOP, Tone.WATCH, Tone.OPEN, Tone.GOOD).index(v.tone))


def _problems(train: TrainAnswer, wheels: Sequence[PathWheel], by_belt: Sequence[Sequence[int]]) -> list[Problem]:
    found = []
    for b, answer in enumerate(train.belts):
        if b and not by_belt[b]:
            found.append(Problem(f"belt_{b + 1}", "No wheel is on this belt yet: say at each of its wheels that it runs on it."))
            continue
        for p in answer.problems:
            found.append(Problem(p.field if p.field != "wheels" or not b else f"belt_{b + 1}", p.sentence))
    return found


def _belt(typed: TypedBelt, number: int, reader: _Reader) -> BeltRead:
    """One belt's words. What is wrong with the first one's, the sheet itself says."""
    prefix = "" if number == 1 else f"belt_{number}_"
    found, belt = None, None
    try:
        found = section(typed.section) if typed.section.strip() else None
    except BeltError as refusal:
        reader.problems.append(Problem(f"{prefix}section", str(refusal)))
    name = typed.name.strip()
    if found and name and name != "-":
        try:
            belt = parse_designation(name, found)
        except BeltError as refusal:
            reader.problems.append(Problem(f"{prefix}belt", str(refusal)))
    text = typed.count.strip()
    count = int(text) if text.isdecimal() and len(text) < 3 else 1
    if number > 1 and text and not (text.isdecimal() and 1 <= count <= 20):
        reader.problems.append(Problem(f"{prefix}count", "Write how many belts run side by side: 1 to 20."))
    return BeltRead(found, belt, min(max(count, 1), 20))


def _on_wheels(
    typed: TypedPath, b: int, read: BeltRead, wheels: Sequence[PathWheel], places: Sequence[int], reader: _Reader
) -> BeltOnWheels:
    entry = typed.belts[b]
    tension = reader.value("belt_tension" if b == 0 else f"belt_{b + 1}_tension", entry.tension, "belt_tension")
    assert read.section
    lay = Lay(entry.lay) if entry.lay in set(Lay) else Lay.OPEN
    return BeltOnWheels(
        tuple(wheels[i] for i in places), lay, tension * read.count if tension is not None else None,
        centrifugal_mass(read.section) * read.count * read.ribs, min_datum_diameter(read.section), read.section.top_width_m * read.count * read.ribs,
        read.belt.datum_length_m if read.belt else None, read.count, _carriage(typed, places, reader) if b == 0 else None, half_turn_ratio(read.section), read.section.construction == "hexagonal",
    )  # fmt: skip


def _carriage(typed: TypedPath, places: Sequence[int], reader: _Reader) -> Carriage | None:
    entry = typed.carriage
    if not entry.run or entry.run - 1 not in places:
        return None
    position = reader.value("carriage_position", entry.position, "coordinate")
    length = reader.value("carriage_length", entry.length, "coordinate")
    if position is None:
        return None
    return Carriage(places.index(entry.run - 1), abs(position), abs(length or 0.0))


def _shafts(typed: TypedPath, reader: _Reader) -> list[int]:
    """The wheel (from 0) whose shaft each wheel sits on: its own, unless it shares another's."""
    found = []
    for k, w in enumerate(typed.wheels, 1):
        at, seen = k, {k}
        while 1 <= (up := typed.wheels[at - 1].shaft_of) <= len(typed.wheels) and up not in seen:
            at = up
            seen.add(up)
        if w.shaft_of and at == k:
            reader.problems.append(Problem(f"wheel_{k}_shaft", "Choose a wheel with a shaft of its own."))
        found.append(at - 1)
    return found


def _places(typed: TypedPath, shafts: Sequence[int], reader: _Reader) -> tuple[list[Place] | None, Net | None]:
    """Where every wheel stands, shaft by shaft."""
    roots = sorted(set(shafts))
    tapes = _tapes(typed, shafts, roots, reader) if typed.placed_by != "coordinates" else []
    found: Sequence[Place] | None
    net: Net | None = None
    if typed.placed_by == "tape":
        net = _by_tape(typed, roots, tapes, reader)
        found = net.centres if net else None
    else:
        found = _by_coordinates(typed, roots, reader)
        if typed.placed_by == "drag" and found and tapes:
            net = settle(found, tapes)
            found = net.centres
    return ([found[roots.index(s)] for s in shafts] if found else None), net


def _by_coordinates(typed: TypedPath, roots: Sequence[int], reader: _Reader) -> list[Place] | None:
    found = []
    for i in roots:
        w = typed.wheels[i]
        x, y = (reader.value(f"wheel_{i + 1}_{axis}", entry, "coordinate") for axis, entry in (("x", w.x), ("y", w.y)))
        if i == 0:
            found.append((x or 0.0, y or 0.0))
        elif x is not None and y is not None:
            found.append((x, y))
    return found if len(found) == len(roots) else None


def _tapes(typed: TypedPath, shafts: Sequence[int], roots: Sequence[int], reader: _Reader) -> list[Tape]:
    count, tapes = len(typed.wheels), []
    for k, t in enumerate(typed.tapes, 1):
        distance = reader.one(f"tape_{k}", t.distance, "centre_distance")
        if not distance or not t.held:
            continue
        if not (1 <= t.a <= count and 1 <= t.b <= count) or shafts[t.a - 1] == shafts[t.b - 1]:
            reader.problems.append(Problem(f"tape_{k}", "Choose two wheels on different shafts for this tape."))
            continue
        a, b = (roots.index(shafts[n - 1]) for n in (t.a, t.b))
        tapes.append(Tape(a, b, distance.value, max(distance.std, 1e-5)))
    return tapes


def _by_tape(typed: TypedPath, roots: Sequence[int], tapes: Sequence[Tape], reader: _Reader) -> Net | None:
    if not tapes or len(roots) < 2:
        return None
    try:
        lies = math.radians(float(typed.lies_deg))
    except ValueError:
        lies = 0.0
    try:
        return solve_net(len(roots), tapes, typed.mirrored, lies if math.isfinite(lies) else 0.0, lambda i: _called(typed, roots[i]))
    except GeometryError as reason:
        reader.problems.append(Problem("tapes", str(reason)))
        return None


def _called(typed: TypedPath, i: int) -> str:
    return f"wheel {i + 1}" + (f", {name}" if (name := typed.wheels[i].name.strip()) else "")


def _closing(net: Net, typed: TypedPath) -> Verdict:
    """How well the tapes agree with each other."""
    held = [t for t in typed.tapes if t.held and t.distance.text.strip()]
    worst = max(range(len(net.residuals_m)), key=lambda k: abs(net.residuals_m[k]), default=None)
    off = both(abs(net.residuals_m[worst])) if worst is not None else ""
    if net.ambiguous:
        roots = sorted(set(_shafts(typed, _Reader())))
        names = " and ".join(typed.wheels[roots[i]].name.strip() or f"wheel {roots[i] + 1}" for i in net.ambiguous)
        return Verdict("tape", Tone.WATCH, f"{names} could lie on either side", "Two tapes leave a mirror image: one more, to a third wheel, says which.")  # fmt: skip
    if not net.over_determined or worst is None:
        more = "One more, across the drive, would check them all."
        if typed.placed_by == "drag":
            return Verdict(
                "tape", Tone.OPEN, "What was taped holds; the rest lies as drawn", "Each further tape, centre to centre, pins it down."
            )
        return Verdict("tape", Tone.OPEN, "The tapes place every wheel, with none to spare", more)
    if net.worst_sigmas > 3 and worst < len(held):
        return Verdict("tape", Tone.WATCH, f"One tape does not close: off by {off}", f"Most likely wheel {held[worst].a} to wheel {held[worst].b}: tape it again.")  # fmt: skip
    return Verdict("tape", Tone.GOOD, "The tapes agree with each other", f"Within {off}.")


def _wheel(
    typed: TypedWheel, number: int, belt: Section | None, rim_radius_m: float, place: Place, power_w: float, take_up: TakeUp | None, shaft: int
) -> PathWheel:  # fmt: skip
    assert belt
    role: Role = typed.role if typed.role in get_args(Role) else "idler"  # type: ignore[assignment]
    contact: Contact = "back" if typed.contact == "back" else "inside"
    face: Face = "flat" if typed.face == "flat" else "grooved"
    turns = {"clockwise": -1, "counter-clockwise": 1}.get(typed.turns, 0)
    return PathWheel(
        typed.name.strip() or f"wheel {number}", role, *place, line_radius(belt, rim_radius_m, contact, face), rim_radius_m, contact, face,
        power_w if role == "driven" else 0.0, take_up, turns, shaft, pitch_over_datum(belt) / 2,
    )  # fmt: skip


def line_radius(belt: Section, rim_radius_m: float, contact: Contact, face: Face) -> float:
    """Radius of the belt's line on a wheel (m): in a groove by the groove table; on a flat face the belt's back or its narrow face lies on the rim.

    The line lies half of (outside less datum diameter) under the back of a belt that sits flush.
    """
    inside, back = faces(belt)
    if contact == "back" and face == "grooved" and belt.construction == "hexagonal":
        # Its upper V fills the groove as its lower one does; the datum line lies as far outside that rim as it lies inside a rim below.
        return rim_radius_m + groove_at_outside(belt, 2 * rim_radius_m).two_hd_m / 2
    if contact == "back":
        return rim_radius_m + back
    if face == "flat":
        return rim_radius_m + inside
    return datum_from_outside(belt, 2 * rim_radius_m) / 2


def faces(belt: Section) -> tuple[float, float]:
    """How far the belt's narrow face and its back stand off its line (m)."""
    rows = grooves_of(belt.groove, "standard")
    if belt.construction == "hexagonal" and rows:  # widest at the rim, half its height above and half below
        return belt.height_m / 2 - rows[0].two_hd_m / 2, belt.height_m / 2 + rows[0].two_hd_m / 2
    back = max(0.0, rows[0].two_hd_m / 2) if rows else belt.height_m / 3
    return belt.height_m - back, back


def _take_up(number: int, typed: TypedTakeUp, reader: _Reader, places: Sequence[Place] | None) -> TakeUp | None:
    if typed.how not in ("line", "arm"):
        return None
    key = f"wheel_{number}"
    tighten = reader.value(f"{key}_tighten", typed.tighten, "travel_out")
    slacken = reader.value(f"{key}_slacken", typed.slacken, "travel_in")
    if typed.how == "arm":
        at = places[number - 1] if places else None
        pivot = _point(f"{key}_pivot", typed.pivot, places, reader, lambda p: math.dist(p, at) if at else 0.0)
        return TakeUp(None, pivot, tighten, slacken)
    try:
        direction = math.radians(float(typed.along)) if typed.along.strip() else None
    except ValueError:
        direction = None
    return TakeUp(direction if direction is None or math.isfinite(direction) else None, None, tighten, slacken)


def _point(key: str, typed: TypedPoint, places: Sequence[Place] | None, reader: _Reader, nearer: Callable[[Place], float]) -> Place | None:
    """A point by tape from two wheels, or as drawn. Of the two mirror places the one nearer the sketch, else by `nearer`."""
    x, y = reader.value(f"{key}_x", typed.x, "coordinate"), reader.value(f"{key}_y", typed.y, "coordinate")
    drawn = (x, y) if x is not None and y is not None else None
    a, b = reader.value(f"{key}_tape_a", typed.tape_a, "point_tape"), reader.value(f"{key}_tape_b", typed.tape_b, "point_tape")
    if a is None or b is None or not places:
        return drawn
    if typed.from_a == typed.from_b or not (1 <= typed.from_a <= len(places) and 1 <= typed.from_b <= len(places)):
        reader.problems.append(Problem(f"{key}_tape_b", "Tape it from two different wheels."))
        return drawn
    try:
        sides = both_sides(places[typed.from_a - 1], a, places[typed.from_b - 1], b)
    except GeometryError as reason:
        reader.problems.append(Problem(f"{key}_tape_b", str(reason)))
        return drawn
    return min(sides, key=lambda p: math.dist(p, drawn) if drawn else nearer(p))


def _keeper(
    number: int, typed: TypedKeeper, train: TrainAnswer, places: Sequence[Place], belt: BeltRead, reader: _Reader
) -> tuple[int, Keeper, Verdict | None]:
    """A keeper as it stands, and what to say of it; one taped from two wheels lies on the side where the belt is."""
    key, path = f"keeper_{number}", train.belts[typed.belt - 1].path
    at = _point(key, typed.at, places, reader, lambda p: keepers.nearest(path, *p).reach_m if path else 0.0)
    gap, least, most = (reader.value(f"{key}_{n}", e, "keeper_gap") for n, e in (("gap", typed.gap), ("least", typed.least), ("most", typed.most)))  # fmt: skip
    if least is not None and most is not None and least > most:
        reader.problems.append(Problem(f"{key}_most", "The most is less than the least: look at the manual again."))
        most = None
    state = KeeperState(typed.state) if typed.state in set(KeeperState) else KeeperState.IN_PLACE
    side: Contact = "back" if typed.side == "back" else "inside"
    x, y = at or (None, None)
    keeper = Keeper(typed.name.strip() or f"keeper {number}", side, x, y, gap, least, most, state)
    answer = train.belts[typed.belt - 1]
    judged = keepers.judge(path, keeper, *faces(belt.section)) if path and belt.section and not answer.quarter else None
    return typed.belt - 1, keeper, judged
