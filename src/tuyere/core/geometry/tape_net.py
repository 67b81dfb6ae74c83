"""Wheel centres from tape measurements between them: a triangle at a time, then least squares over all of them.

Tape distances leave the whole net free to move, turn and be mirrored: the first wheel is put at the origin, the second
along a given direction, and the mirror image is a question for the person.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares

from tuyere.core.geometry.open_belt import GeometryError


@dataclass(frozen=True)
class Tape:
    """One tape measurement between two wheels (by index), m, with its standard uncertainty."""

    a: int
    b: int
    distance_m: float
    std_m: float = 0.0008


@dataclass(frozen=True)
class Net:
    """Centres (m), each measurement's residual (measured less found, m), whether more was measured than needed, the worst in standard deviations, and the wheels that could as well lie on the other side."""

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
    fixed: Mapping[int, tuple[float, float]] | None = None,
) -> Net:
    """Place `count` wheels from tape measurements; `fixed` wheels keep their places.

    The third wheel lies to the left of the line from the first to the second, or to the right when `mirrored`.
    Raises GeometryError naming the first wheel (counted from 1) that the measurements do not reach, or a triangle that cannot close.
    """
    known = {frozenset((t.a, t.b)): t.distance_m for t in tapes}
    for t in tapes:
        if t.a == t.b or not (0 <= t.a < count and 0 <= t.b < count):
            raise GeometryError("A tape measurement joins two different wheels.")
        if t.distance_m <= 0:
            raise GeometryError("A distance between centres is above zero.")
    places = _start(count, known, mirrored, direction_rad, dict(fixed or {}))
    ties = {i: sum(i in pair for pair in known) for i in range(count)}
    # The last wheel of the first triangle is settled by `mirrored`; any other that two tapes alone hold could lie on either side.
    first_triangle = next((i for i in list(places)[2:3]), -1)
    ambiguous = tuple(i for i in range(2, count) if ties[i] == 2 and i != first_triangle and i not in (fixed or {}))
    free = [i for i in range(count) if i not in (fixed or {})]
    start = np.array([places[i] for i in free]).ravel()
    held = {} if fixed else {0: places[0]}

    def unpack(values: np.ndarray) -> dict[int, tuple[float, float]]:
        moving = {i: (float(values[2 * k]), float(values[2 * k + 1])) for k, i in enumerate(free)}
        return {**moving, **(fixed or {}), **held}

    def off(values: np.ndarray) -> np.ndarray:
        at = unpack(values)
        gaps = [(t.distance_m - math.dist(at[t.a], at[t.b])) / t.std_m for t in tapes]
        if not fixed:  # the net may not turn: the second wheel stays on its line
            gaps.append((at[1][1] - at[0][1]) * math.cos(direction_rad) * 1e6 - (at[1][0] - at[0][0]) * math.sin(direction_rad) * 1e6)
        return np.array(gaps)

    found = unpack(least_squares(off, start, xtol=1e-15, ftol=1e-15, gtol=1e-15).x) if tapes else dict(places)
    residuals = tuple(t.distance_m - math.dist(found[t.a], found[t.b]) for t in tapes)
    worst = max((abs(r) / t.std_m for r, t in zip(residuals, tapes, strict=True)), default=0.0)
    needed = 2 * count - 3 if not fixed else 2 * len(free)
    return Net(tuple(found[i] for i in range(count)), residuals, len(known) > needed, worst, mirrored, ambiguous)


def _start(
    count: int, known: Mapping[frozenset[int], float], mirrored: bool, direction: float, places: dict[int, tuple[float, float]]
) -> dict[int, tuple[float, float]]:
    """First places, one triangle after another; a wheel that two measurements reach goes on the outer side."""
    if not places:
        places[0] = (0.0, 0.0)
        first = known.get(frozenset((0, 1)))
        if first is None:
            raise GeometryError("Tape from the first wheel to the second: everything else hangs on it.")
        places[1] = (first * math.cos(direction), first * math.sin(direction))
    while len(places) < count:
        for i in (i for i in range(count) if i not in places):
            reached = [(j, known[frozenset((i, j))]) for j in places if frozenset((i, j)) in known]
            if len(reached) >= 2:
                places[i] = _triangle(i, reached, places, mirrored)
                break
        else:
            missing = next(i for i in range(count) if i not in places)
            raise GeometryError(f"Wheel {missing + 1} hangs loose: tape from it to two wheels whose places are known.")
    return places


def _triangle(
    wheel: int, reached: list[tuple[int, float]], places: Mapping[int, tuple[float, float]], mirrored: bool
) -> tuple[float, float]:
    (a, da), (b, db) = reached[:2]
    (ax, ay), (bx, by) = places[a], places[b]
    base = math.hypot(bx - ax, by - ay)
    along = (da**2 - db**2 + base**2) / (2 * base)
    square = da**2 - along**2
    if square < -((0.02 * da) ** 2):
        raise GeometryError(f"The triangle to wheel {wheel + 1} cannot close: its two distances do not reach. Tape them again.")
    height = math.sqrt(max(0.0, square))
    ux, uy = (bx - ax) / base, (by - ay) / base
    left = (ax + along * ux - height * uy, ay + along * uy + height * ux)
    right = (ax + along * ux + height * uy, ay + along * uy - height * ux)
    if len(reached) > 2:  # a third distance says which side
        c, dc = reached[2]
        return min((left, right), key=lambda p: abs(math.dist(p, places[c]) - dc))
    return right if mirrored else left
