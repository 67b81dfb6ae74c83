"""From what people typed about a layout to a solved one: each entry read on its own, its problem kept beside it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import get_args

from tuyere.core.basis.field import Note
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.layout import keepers
from tuyere.core.drive.layout.placed import Place, closing, places_of, point_of, shafts_of
from tuyere.core.drive.layout.reader import PathReader
from tuyere.core.drive.layout.typed import TypedBelt, TypedKeeper, TypedPath, TypedTakeUp, TypedWheel
from tuyere.core.kinds.loop import Loop, Rim, Seating
from tuyere.core.kinds.traits import traits
from tuyere.core.mechanics.on_wheels.train import TrainAnswer, solve_train
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Carriage, Contact, Face, Keeper, KeeperState, Lay, PathWheel, Role, TakeUp
from tuyere.core.mechanics.tape_net import Net

MOST_WHEELS = 24
MOST_BELTS = 6
LEAST_TEETH, MOST_TEETH = 6, 400


@dataclass(frozen=True)
class PathReading:
    """The solved layout, the wheels in the order typed with the belt each is on, the tape net when there is one, and the problems.

    `places`: of each belt's wheels among those typed. `findings`: what an inspection writes down of the keepers.
    """

    train: TrainAnswer | None
    wheels: tuple[PathWheel, ...]
    places: tuple[tuple[int, ...], ...]
    belts: tuple[Loop, ...]
    on_wheels: tuple[BeltOnWheels, ...]
    keepers: tuple[tuple[int, Keeper, Verdict | None], ...]
    net: Net | None
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    verdicts: tuple[Verdict, ...]
    findings: tuple[str, ...]


def read_path(typed: TypedPath) -> PathReading:
    """Read and solve. Nothing is solved until every wheel has a diameter and a place; what is missing is said beside it."""
    reader = PathReader()
    if len(typed.wheels) > MOST_WHEELS:
        reader.problems.append(Problem("wheels", f"At most {MOST_WHEELS} wheels: split the drive in two."))
        return _unread(reader)
    belts = tuple(_loop(b, k, reader) for k, b in enumerate(typed.belts[:MOST_BELTS], 1))
    rims = [_rim(w, k, reader) for k, w in enumerate(typed.wheels, 1)]
    shafts = shafts_of(typed, reader)
    places, net = places_of(typed, shafts, reader)
    powers = [reader.value(f"wheel_{k}_power", w.power, "wheel_power") or 0.0 for k, w in enumerate(typed.wheels, 1)]
    take_ups = [_take_up(k, w.take_up, reader, places) for k, w in enumerate(typed.wheels, 1)]
    # The sheet itself says what is wrong with these two.
    speed, power = (
        PathReader().value(key, entry, key) for key, entry in (("driver_speed", typed.driver_speed), ("driver_power", typed.driver_power))
    )
    by_belt = tuple(tuple(i for i, w in enumerate(typed.wheels) if w.belt == b) for b in range(1, len(belts) + 1))
    loops = tuple(b for b in belts if b)
    whole = len(loops) == len(belts) and sum(map(len, by_belt)) == len(typed.wheels)
    sits = [loops[w.belt - 1].sits(rim) for w, rim in zip(typed.wheels, rims, strict=True)] if whole else []
    on = [s for s in sits if s]
    if places is None or len(typed.wheels) < 2 or len(on) < len(typed.wheels):
        return replace(_unread(reader), net=net)
    wheels = tuple(
        _wheel(w, k, rims[k - 1], on[k - 1], places[k - 1], powers[k - 1], take_ups[k - 1], shafts[k - 1])
        for k, w in enumerate(typed.wheels, 1)
    )
    on_wheels = tuple(_on_wheels(typed, b, loops[b], wheels, by_belt[b], reader) for b in range(len(loops)))
    rotation = -1 if typed.rotation == "clockwise" else 1
    train = solve_train(on_wheels, rotation, speed, power)
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
        _keeper(k, t, train, places, loops[t.belt - 1], reader) for k, t in enumerate(typed.keepers, 1) if 1 <= t.belt <= len(loops)
    )
    verdicts = [
        *([closing(net, typed)] if net else []),
        *(
            replace(v, headline=f"{loop.family.runs.capitalize()} {b}: {v.headline}") if len(loops) > 1 else v
            for b, (loop, answer) in enumerate(zip(loops, train.belts, strict=True), 1)
            for v in answer.verdicts
        ),
        *(v for _, _, v in kept if v),
    ]
    findings = tuple(found for _, k, _ in kept if (found := keepers.finding_of(k)))
    return PathReading(
        train,
        wheels,
        by_belt,
        loops,
        on_wheels,
        kept,
        net,
        reader.notes,
        (*reader.problems, *problems),
        tuple(_weighed(verdicts)),
        findings,
    )


def _unread(reader: PathReader) -> PathReading:
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


def _loop(typed: TypedBelt, number: int, reader: PathReader) -> Loop | None:
    """What goes round, as its kind of drive reads it. How many of the first there are, the sheet itself says."""
    prefix = "" if number == 1 else f"belt_{number}_"
    read = typed.family.loop(typed.part)
    if read is None:
        reader.problems.append(Problem(f"{prefix}belt", f"A {typed.family.label} is surveyed on two wheels only."))
        return None
    reader.problems += [replace(p, field=f"{prefix}{p.field}") for p in read.problems if number > 1 or p.field != "count"]
    reader.notes |= {f"{prefix}{key}": note for key, note in read.notes.items()} if number > 1 else {}
    if read.loop and read.loop.flat_only and typed.lay != Lay.OPEN:
        reader.problems.append(Problem(f"{prefix}lay", f"A {typed.family.label} runs in one plane: lay it open."))
    return read.loop


def _rim(typed: TypedWheel, number: int, reader: PathReader) -> Rim:
    diameter = reader.value(f"wheel_{number}_diameter", typed.diameter, "driven_diameter")
    teeth = reader.whole(f"wheel_{number}_teeth", typed.teeth, LEAST_TEETH, MOST_TEETH)
    contact: Contact = "back" if typed.contact == "back" else "inside"
    face: Face = "flat" if typed.face == "flat" else "grooved"
    return Rim(diameter, teeth, contact, face)


def _on_wheels(
    typed: TypedPath, b: int, loop: Loop, wheels: Sequence[PathWheel], places: Sequence[int], reader: PathReader
) -> BeltOnWheels:
    entry = typed.belts[b]
    tension = reader.value("belt_tension" if b == 0 else f"belt_{b + 1}_tension", entry.tension, "belt_tension")
    lay = Lay(entry.lay) if entry.lay in set(Lay) and not loop.flat_only else Lay.OPEN
    return BeltOnWheels(
        tuple(wheels[i] for i in places),
        lay,
        tension * loop.count if tension is not None else None,
        loop.mass_kg_per_m,
        loop.least_m,
        loop.width_m,
        loop.made.length_m if loop.made else None,
        loop.count,
        _carriage(typed, places, reader) if b == 0 else None,
        loop.half_turn_ratio,
        loop.both_faces,
        loop.seat,
        loop.family.runs,
        traits()[loop.traits].kept,
    )


def _carriage(typed: TypedPath, places: Sequence[int], reader: PathReader) -> Carriage | None:
    entry = typed.carriage
    if not entry.run or entry.run - 1 not in places:
        return None
    position = reader.value("carriage_position", entry.position, "coordinate")
    length = reader.value("carriage_length", entry.length, "coordinate")
    if position is None:
        return None
    return Carriage(places.index(entry.run - 1), abs(position), abs(length or 0.0))


def _wheel(
    typed: TypedWheel, number: int, rim: Rim, sits: Seating, place: Place, power_w: float, take_up: TakeUp | None, shaft: int
) -> PathWheel:
    role: Role = typed.role if typed.role in get_args(Role) else "idler"  # type: ignore[assignment]
    turns = {"clockwise": -1, "counter-clockwise": 1}.get(typed.turns, 0)
    return PathWheel(
        typed.name.strip() or f"wheel {number}",
        role,
        *place,
        sits.line_m,
        sits.rim_m,
        rim.contact,
        rim.face,
        power_w if role == "driven" else 0.0,
        take_up,
        turns,
        shaft,
        sits.rolls_m - sits.line_m,
        rim.teeth if rim.face == "grooved" else None,
    )


def _take_up(number: int, typed: TypedTakeUp, reader: PathReader, places: Sequence[Place] | None) -> TakeUp | None:
    if typed.how not in ("line", "arm"):
        return None
    key = f"wheel_{number}"
    tighten = reader.value(f"{key}_tighten", typed.tighten, "travel_out")
    slacken = reader.value(f"{key}_slacken", typed.slacken, "travel_in")
    if typed.how == "arm":
        at = places[number - 1] if places else None
        pivot = point_of(f"{key}_pivot", typed.pivot, places, reader, lambda p: math.dist(p, at) if at else 0.0)
        return TakeUp(None, pivot, tighten, slacken)
    try:
        direction = math.radians(float(typed.along)) if typed.along.strip() else None
    except ValueError:
        direction = None
    return TakeUp(direction if direction is None or math.isfinite(direction) else None, None, tighten, slacken)


def _keeper(
    number: int, typed: TypedKeeper, train: TrainAnswer, places: Sequence[Place], loop: Loop, reader: PathReader
) -> tuple[int, Keeper, Verdict | None]:
    """A keeper as it stands, and what to say of it; one taped from two wheels lies on the side where the belt is."""
    key, path = f"keeper_{number}", train.belts[typed.belt - 1].path
    at = point_of(key, typed.at, places, reader, lambda p: keepers.nearest(path, *p).reach_m if path else 0.0)
    gap, least, most = (
        reader.value(f"{key}_{n}", e, "keeper_gap") for n, e in (("gap", typed.gap), ("least", typed.least), ("most", typed.most))
    )
    if least is not None and most is not None and least > most:
        reader.problems.append(Problem(f"{key}_most", "The most is less than the least: look at the manual again."))
        most = None
    state = KeeperState(typed.state) if typed.state in set(KeeperState) else KeeperState.IN_PLACE
    side: Contact = "back" if typed.side == "back" else "inside"
    x, y = at or (None, None)
    keeper = Keeper(typed.name.strip() or f"keeper {number}", side, x, y, gap, least, most, state)
    answer = train.belts[typed.belt - 1]
    judged = keepers.judge(path, keeper, *loop.faces) if path and not answer.quarter else None
    return typed.belt - 1, keeper, judged
