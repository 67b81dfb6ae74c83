"""Wheel centres from tape measurements between them: a triangle at a time, then least squares over all of them.

Tape distances leave the whole net free to move, turn and be mirrored: the first wheel is put at the origin, the second
along a given direction, and the mirror image is a question for the person.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares

from tuyere.core.mechanics.open_belt import GeometryError


@dataclass(frozen=True)
class Tape:
    """One tape measurement between two wheels (by index), m, with its standard uncertainty."""

    a: int
    b: int
    distance_m: float
    std_m: float = 0.0008


@dataclass(frozen=True)
class Net:
    """Centres (m), each measurement's residual (measured less found, m), whether more was measured than needed, the worst in standard
    deviations, and the wheels that could as well lie on the other side.
    """

    centres: tuple[tuple[float, float], ...]
    residuals_m: tuple[float, ...]
    over_determined: bool
    worst_sigmas: float
    mirrored: bool
    ambiguous: tuple[int, ...] = ()


def solve_net(
    count: int,
    tapes: Sequence[Tape],
    mirrored: bool = False,
    direction_rad: float = 0.0,
    called: Callable[[int], str] | None = None,
) -> Net:
    """Place `count` wheels from tape measurements.

    The third wheel lies to the left of the line from the first to the second, or to the right when `mirrored`.
    `called` names a wheel.
    Raises GeometryError naming the first wheel that the measurements do not reach, or a triangle that cannot close.
    """
    known = {frozenset((t.a, t.b)): t.distance_m for t in tapes}
    for t in tapes:
        if t.a == t.b or not (0 <= t.a < count and 0 <= t.b < count):
            raise GeometryError("A tape measurement joins two different wheels.")
        if t.distance_m <= 0:
            raise GeometryError("A distance between centres is above zero.")
    places = _start(count, known, mirrored, direction_rad, called or (lambda i: f"wheel {i + 1}"))
    ties = {i: sum(i in pair for pair in known) for i in range(count)}
    # The last wheel of the first triangle is settled by `mirrored`; any other that two tapes alone hold could lie on either side.
    first_triangle = next((i for i in list(places)[2:3]), -1)
    ambiguous = tuple(i for i in range(2, count) if ties[i] == 2 and i != first_triangle)
    across, along = math.sin(direction_rad) * 1e6, math.cos(direction_rad) * 1e6

    def off(values: np.ndarray) -> np.ndarray:
        at = np.vstack([(0.0, 0.0), values.reshape(-1, 2)])
        gaps = [(t.distance_m - math.dist(at[t.a], at[t.b])) / t.std_m for t in tapes]
        # The net may not turn: the second wheel stays on its line.
        return np.array([*gaps, at[1][1] * along - at[1][0] * across])

    start = np.array([places[i] for i in range(1, count)]).ravel()
    solved = least_squares(off, start, xtol=1e-15, ftol=1e-15, gtol=1e-15).x.reshape(-1, 2)
    found = [(0.0, 0.0), *((float(x), float(y)) for x, y in solved)]
    residuals = tuple(t.distance_m - math.dist(found[t.a], found[t.b]) for t in tapes)
    worst = max((abs(r) / t.std_m for r, t in zip(residuals, tapes, strict=True)), default=0.0)
    return Net(tuple(found), residuals, len(known) > 2 * count - 3, worst, mirrored, ambiguous)


def _start(
    count: int,
    known: Mapping[frozenset[int], float],
    mirrored: bool,
    direction: float,
    called: Callable[[int], str],
) -> dict[int, tuple[float, float]]:
    """First places, one triangle after another; a wheel that two measurements reach goes on the outer side."""
    first = known.get(frozenset((0, 1)))
    if first is None:
        raise GeometryError(f"Tape from {called(0)} to {called(1)}: everything else hangs on it.")
    places = {0: (0.0, 0.0), 1: (first * math.cos(direction), first * math.sin(direction))}
    while len(places) < count:
        for i in (i for i in range(count) if i not in places):
            reached = [(j, known[frozenset((i, j))]) for j in places if frozenset((i, j)) in known]
            if len(reached) >= 2:
                places[i] = _triangle(i, reached, places, mirrored, called)
                break
        else:
            missing = next(i for i in range(count) if i not in places)
            raise GeometryError(f"{called(missing).capitalize()} hangs loose: tape from it to two wheels whose places are known.")
    return places


def settle(sketch: Sequence[tuple[float, float]], tapes: Sequence[Tape]) -> Net:
    """Wheels drawn by hand, pulled to what was measured: the tapes hold, and what they leave free stays nearest to the sketch.

    The sketch also answers which mirror image is meant. It is first trusted much, then less and less, until only what no tape
    holds still follows it.
    """
    drawn = np.array(sketch, dtype=float).ravel()
    for t in tapes:
        if t.a == t.b or not (0 <= t.a < len(sketch) and 0 <= t.b < len(sketch)):
            raise GeometryError("A tape measurement joins two different wheels.")

    def gaps(values: np.ndarray) -> np.ndarray:
        at = values.reshape(-1, 2)
        return np.array([(t.distance_m - math.dist(at[t.a], at[t.b])) / t.std_m for t in tapes])

    places = drawn
    for trust_m in (0.1, 10.0, 1000.0) if tapes else ():

        def off(values: np.ndarray, trust_m: float = trust_m) -> np.ndarray:
            return np.concatenate([gaps(values), (values - drawn) / trust_m])

        places = least_squares(off, places, xtol=1e-15, ftol=1e-15, gtol=1e-15).x
    found = [(float(x), float(y)) for x, y in places.reshape(-1, 2)]
    residuals = tuple(t.distance_m - math.dist(found[t.a], found[t.b]) for t in tapes)
    worst = max((abs(r) / t.std_m for r, t in zip(residuals, tapes, strict=True)), default=0.0)
    spare = len(tapes) - _rank(found, tapes)
    return Net(tuple(found), residuals, spare > 0, worst, False)


def _rank(places: Sequence[tuple[float, float]], tapes: Sequence[Tape]) -> int:
    """How many of the tapes are independent of each other, at these places."""
    if not tapes:
        return 0
    rows = np.zeros((len(tapes), 2 * len(places)))
    for row, t in zip(rows, tapes, strict=True):
        (ax, ay), (bx, by) = places[t.a], places[t.b]
        apart = max(math.hypot(bx - ax, by - ay), 1e-9)
        row[2 * t.a : 2 * t.a + 2] = (ax - bx) / apart, (ay - by) / apart
        row[2 * t.b : 2 * t.b + 2] = (bx - ax) / apart, (by - ay) / apart
    return int(np.linalg.matrix_rank(rows, tol=1e-6))


def both_sides(
    a: tuple[float, float], from_a_m: float, b: tuple[float, float], from_b_m: float
) -> tuple[tuple[float, float], tuple[float, float]]:
    """The two places at given distances from two points: left and right of the way from `a` to `b`.

    Distances short of each other by up to 2 % meet on the line. Raises GeometryError when they cannot meet.

    >>> both_sides((0.0, 0.0), 5.0, (6.0, 0.0), 5.0)
    ((3.0, 4.0), (3.0, -4.0))
    """
    base = math.dist(a, b)
    if base < 1e-9:
        raise GeometryError("The two points lie on each other: tape from two that stand apart.")
    along = (from_a_m**2 - from_b_m**2 + base**2) / (2 * base)
    square = from_a_m**2 - along**2
    if square < -((0.02 * from_a_m) ** 2):
        raise GeometryError("The two distances do not reach each other: tape them again.")
    height = math.sqrt(max(0.0, square))
    ux, uy = (b[0] - a[0]) / base, (b[1] - a[1]) / base
    return (
        (a[0] + along * ux - height * uy, a[1] + along * uy + height * ux),
        (a[0] + along * ux + height * uy, a[1] + along * uy - height * ux),
    )


def _triangle(
    wheel: int,
    reached: list[tuple[int, float]],
    places: Mapping[int, tuple[float, float]],
    mirrored: bool,
    called: Callable[[int], str],
) -> tuple[float, float]:
    (a, da), (b, db) = reached[:2]
    try:
        left, right = both_sides(places[a], da, places[b], db)
    except GeometryError as reason:
        raise GeometryError(f"The triangle to {called(wheel)} cannot close. {reason}") from reason
    if len(reached) > 2:  # a third distance says which side
        c, dc = reached[2]
        return min((left, right), key=lambda p: abs(math.dist(p, places[c]) - dc))
    return right if mirrored else left
