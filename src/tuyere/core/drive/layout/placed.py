"""Where the wheels of a layout stand: by tape between centres, by coordinates, or by hand with some of it taped; and points beside them."""

import math
from collections.abc import Callable, Sequence

from tuyere.core.basis.figure import both
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.layout.reader import PathReader
from tuyere.core.drive.layout.typed import TypedPath, TypedPoint
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tape_net import Net, Tape, both_sides, settle, solve_net

Place = tuple[float, float]


def shafts_of(typed: TypedPath, reader: PathReader) -> list[int]:
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


def places_of(typed: TypedPath, shafts: Sequence[int], reader: PathReader) -> tuple[list[Place] | None, Net | None]:
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


def _by_coordinates(typed: TypedPath, roots: Sequence[int], reader: PathReader) -> list[Place] | None:
    found = []
    for i in roots:
        w = typed.wheels[i]
        x, y = (reader.value(f"wheel_{i + 1}_{axis}", entry, "coordinate") for axis, entry in (("x", w.x), ("y", w.y)))
        if i == 0:
            found.append((x or 0.0, y or 0.0))
        elif x is not None and y is not None:
            found.append((x, y))
    return found if len(found) == len(roots) else None


def _tapes(typed: TypedPath, shafts: Sequence[int], roots: Sequence[int], reader: PathReader) -> list[Tape]:
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


def _by_tape(typed: TypedPath, roots: Sequence[int], tapes: Sequence[Tape], reader: PathReader) -> Net | None:
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


def closing(net: Net, typed: TypedPath) -> Verdict:
    """How well the tapes agree with each other."""
    held = [t for t in typed.tapes if t.held and t.distance.text.strip()]
    worst = max(range(len(net.residuals_m)), key=lambda k: abs(net.residuals_m[k]), default=None)
    off = both(abs(net.residuals_m[worst])) if worst is not None else ""
    if net.ambiguous:
        roots = sorted(set(shafts_of(typed, PathReader())))
        names = " and ".join(typed.wheels[roots[i]].name.strip() or f"wheel {roots[i] + 1}" for i in net.ambiguous)
        return Verdict(
            "tape",
            Tone.WATCH,
            f"{names} could lie on either side",
            "Two tapes leave a mirror image: one more, to a third wheel, says which.",
        )
    if not net.over_determined or worst is None:
        more = "One more, across the drive, would check them all."
        if typed.placed_by == "drag":
            return Verdict(
                "tape", Tone.OPEN, "What was taped holds; the rest lies as drawn", "Each further tape, centre to centre, pins it down."
            )
        return Verdict("tape", Tone.OPEN, "The tapes place every wheel, with none to spare", more)
    if net.worst_sigmas > 3 and worst < len(held):
        return Verdict(
            "tape",
            Tone.WATCH,
            f"One tape does not close: off by {off}",
            f"Most likely wheel {held[worst].a} to wheel {held[worst].b}: tape it again.",
        )
    return Verdict("tape", Tone.GOOD, "The tapes agree with each other", f"Within {off}.")


def point_of(
    key: str, typed: TypedPoint, places: Sequence[Place] | None, reader: PathReader, nearer: Callable[[Place], float]
) -> Place | None:
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
