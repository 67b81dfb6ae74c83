"""A belt round any number of wheels in one plane: exact length, spans, wraps and bends, and what moves when a wheel moves.

Wheels stand in the order in which the belt meets them. Each turns one way, +1 counter-clockwise or -1 clockwise, as the
belt drives it; on an uncrossed belt the wheels that turn with the loop touch the belt's inside, the others its back.
A belt that passes from a wheel turning one way to one turning the other crosses the line of their centres.
Metres and radians. Source: plane geometry.
"""

import itertools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from scipy.optimize import brentq

from tuyere.core.mechanics.open_belt import GeometryError

_TURN = 2 * math.pi
# A wrap this near a whole turn, with another wheel like it turning the other way, is a wheel that the taut belt has left.
_LEFT = math.radians(300)


@dataclass(frozen=True)
class Pulley:
    """A wheel on the path: centre (m), radius of the belt's line on it (m), the way it turns (+1 or -1), and its name."""

    x_m: float
    y_m: float
    radius_m: float
    turns: int
    name: str = ""


@dataclass(frozen=True)
class Run:
    """A straight span along the belt's travel, from the tangent point it leaves to the one it meets (m), and its direction (rad)."""

    x1_m: float
    y1_m: float
    x2_m: float
    y2_m: float
    length_m: float
    direction_rad: float


@dataclass(frozen=True)
class BeltPath:
    """The taut belt: run i goes from wheel i to wheel i + 1, the last back to the first; wrap i is the angle of contact on wheel i."""

    pulleys: tuple[Pulley, ...]
    runs: tuple[Run, ...]
    wraps_rad: tuple[float, ...]

    @property
    def length_m(self) -> float:
        """Length of the belt's line: straight runs and arcs."""
        arcs = sum(p.radius_m * w for p, w in zip(self.pulleys, self.wraps_rad, strict=True))
        return sum(r.length_m for r in self.runs) + arcs

    @property
    def turning_rad(self) -> float:
        """How far the belt turns in one round, counter-clockwise counted: a whole turn for an open loop, nothing for a figure eight."""
        return sum(p.turns * w for p, w in zip(self.pulleys, self.wraps_rad, strict=True))


def _run(a: Pulley, b: Pulley) -> Run:
    """The directed tangent that leaves `a` and meets `b`, each on the side that its way of turning wants."""
    dx, dy = b.x_m - a.x_m, b.y_m - a.y_m
    distance = math.hypot(dx, dy)
    offset = b.turns * b.radius_m - a.turns * a.radius_m
    if distance <= abs(offset):
        where = f"{a.name or 'one wheel'} and {b.name or 'the next'}"
        if a.turns == b.turns:
            raise GeometryError(f"{where} lie one inside the other: no belt can pass between them. Check their places and diameters.")
        raise GeometryError(
            f"{where} overlap where the belt should pass between them: move them apart, or let the belt touch both on the same side."
        )
    direction = math.atan2(dy, dx) - math.asin(offset / distance)
    nx, ny = -math.sin(direction), math.cos(direction)
    x1, y1 = a.x_m - a.turns * a.radius_m * nx, a.y_m - a.turns * a.radius_m * ny
    x2, y2 = b.x_m - b.turns * b.radius_m * nx, b.y_m - b.turns * b.radius_m * ny
    return Run(x1, y1, x2, y2, math.sqrt(distance**2 - offset**2), direction)


def belt_path(pulleys: Sequence[Pulley], crossed: bool = False) -> BeltPath:
    """The taut path round the wheels. Raises GeometryError, naming the wheels, where a belt cannot run so.

    >>> from tuyere.core.mechanics.open_belt import belt_length
    >>> path = belt_path([Pulley(0, 0, 0.1, 1), Pulley(0.7, 0, 0.2, 1)])
    >>> round(path.length_m - belt_length(0.2, 0.4, 0.7), 12)
    0.0
    """
    wheels = tuple(pulleys)
    if len(wheels) < 2:
        raise GeometryError("A belt needs two wheels at least.")
    if any(p.radius_m <= 0 for p in wheels):
        raise GeometryError("Every wheel needs a diameter above zero.")
    path = _taut(wheels)
    _check_touching(path, crossed)
    return path


def _taut(wheels: tuple[Pulley, ...]) -> BeltPath:
    """Tangents and arcs without asking whether the belt could stay on them."""
    runs = tuple(_run(a, b) for a, b in zip(wheels, wheels[1:] + wheels[:1], strict=True))
    wraps = tuple((p.turns * (runs[i].direction_rad - runs[i - 1].direction_rad)) % _TURN for i, p in enumerate(wheels))
    return BeltPath(wheels, runs, wraps)


def _check_touching(path: BeltPath, crossed: bool) -> None:
    """A taut open belt turns once in a round, as its first wheel does; a wheel it has left shows as a whole turn too many or too few."""
    if crossed and len(path.pulleys) == 2:
        return  # a crossed belt cannot leave either of its wheels, and wraps each by more than 300 degrees where they are near
    wanted = 0.0 if crossed else path.pulleys[0].turns * _TURN
    extra = round((path.turning_rad - wanted) / _TURN)
    wrapped = sorted(zip(path.wraps_rad, path.pulleys, strict=True), key=lambda pair: -pair[0])
    if extra:
        suspects = [p for w, p in wrapped if p.turns * extra > 0 and w > math.pi]
        if not suspects:
            raise GeometryError("The belt would wind round more than once: check the order of the wheels and the side it touches each on.")
    else:
        # Two wheels left at once, one turning each way, cancel in the sum.
        suspects = [p for w, p in wrapped if w > _LEFT] if len({p.turns for w, p in wrapped if w > 1.5 * math.pi}) > 1 else []
    if suspects:
        raise GeometryError(
            f"The taut belt does not reach {suspects[0].name or 'a wheel'}: it passes on the other side. Move that wheel into the belt, "
            "or let the belt touch it on its other side."
        )


def length_gradient(path: BeltPath, index: int) -> tuple[float, float]:
    """How the length changes as wheel `index` moves: (dL/dx, dL/dy), unit direction in less unit direction out."""
    before, after = path.runs[index - 1].direction_rad, path.runs[index].direction_rad
    return math.cos(before) - math.cos(after), math.sin(before) - math.sin(after)


def pull(path: BeltPath, index: int, tension_in_n: float = 1.0, tension_out_n: float = 1.0) -> tuple[float, float]:
    """The force of the belt on wheel `index` (N): the two strands pull away from it along their runs."""
    before, after = path.runs[index - 1].direction_rad, path.runs[index].direction_rad
    return (
        tension_out_n * math.cos(after) - tension_in_n * math.cos(before),
        tension_out_n * math.sin(after) - tension_in_n * math.sin(before),
    )


Mover = Callable[[float], tuple[float, float]]


def along_line(x_m: float, y_m: float, direction_rad: float) -> Mover:
    """A wheel that slides: its centre at travel s (m) from (x, y).

    >>> from math import pi
    >>> [round(c, 6) for c in along_line(0.1, 0.2, pi / 2)(0.05)]
    [0.1, 0.25]
    """
    return lambda s: (x_m + s * math.cos(direction_rad), y_m + s * math.sin(direction_rad))


def about_pivot(x_m: float, y_m: float, pivot_x_m: float, pivot_y_m: float) -> Mover:
    """A wheel on an arm: its centre when the arm has swung by s (rad, counter-clockwise).

    >>> from math import pi
    >>> [round(c, 6) for c in about_pivot(0.3, 0.0, 0.1, 0.0)(pi / 2)]
    [0.1, 0.2]
    """
    dx, dy = x_m - pivot_x_m, y_m - pivot_y_m
    return lambda s: (
        pivot_x_m + dx * math.cos(s) - dy * math.sin(s),
        pivot_y_m + dx * math.sin(s) + dy * math.cos(s),
    )


def moved(pulleys: Sequence[Pulley], index: int, place: tuple[float, float]) -> list[Pulley]:
    """The wheels with one of them somewhere else."""
    p = pulleys[index]
    return [*pulleys[:index], Pulley(*place, p.radius_m, p.turns, p.name), *pulleys[index + 1 :]]


def take_up_for(
    pulleys: Sequence[Pulley],
    index: int,
    mover: Mover,
    length_m: float,
    low: float,
    high: float,
    crossed: bool = False,
    rims_m: Sequence[float] | None = None,
) -> float:
    """The travel (m) or swing (rad), between low and high, at which a belt of the given length is taut; of several, the nearest to 0.

    Only places where the belt can run count: no wheel left, none overlapping another, no run through a wheel or another run; `rims_m`:
    radii over the rims. Raises GeometryError when the belt is too short or too long for the whole movement, or the length does not change
    with it.
    """
    rims = rims_m or [p.radius_m for p in pulleys]

    def surplus(s: float) -> float | None:
        try:
            path = possible_path(moved(pulleys, index, mover(s)), rims, crossed)
        except GeometryError:
            return None
        return path.length_m - length_m

    known: list[tuple[float, float]] = []  # places in order, with the belt's surplus there
    found: list[float] = []
    before: tuple[float, float | None] | None = None
    for k in range(_STEPS + 1):
        s = low + (high - low) * k / _STEPS
        v = surplus(s)
        if before is not None and (before[1] is None) != (v is None):
            edge = _edge(surplus, *((before[0], s) if v is None else (s, before[0])))
            known.append((edge, surplus(edge) or 0.0))
            found += _crossing(surplus, *(known[-2:] if v is None and len(known) > 1 else [known[-1], (s, v or 0.0)]))
        if v is not None:
            if before is not None and before[1] is not None:
                found += _crossing(surplus, before[0:2], (s, v))  # type: ignore[arg-type]
            known.append((s, v))
        before = (s, v)
    if not known:
        return _refuse("The belt cannot run anywhere in that movement: check the wheel's place and its movement.")
    found += [s for s, v in known if v == 0]
    if found:
        return min(found, key=abs)
    if all(v > 0 for _, v in known):
        return _refuse("The belt is too short for the whole movement of the take-up.")
    return _refuse("The belt is too long: it is slack even at the end of the take-up.")


_STEPS = 96


def _edge(surplus: Callable[[float], float | None], inside: float, outside: float) -> float:
    """The last place where a belt can run, between one where it can and one where it cannot."""
    for _ in range(50):
        middle = (inside + outside) / 2
        inside, outside = (middle, outside) if surplus(middle) is not None else (inside, middle)
    return inside


def _crossing(surplus: Callable[[float], float | None], a: tuple[float, float], b: tuple[float, float]) -> list[float]:
    """Where the surplus is nothing between two places where the belt can run; none where it cannot run at that place itself."""
    if a[1] * b[1] >= 0:
        return []

    def known(s: float) -> float:
        found = surplus(s)
        if found is None:
            raise GeometryError("The belt cannot run there.")
        return found

    try:
        return [float(brentq(known, a[0], b[0], xtol=1e-12))]
    except GeometryError:
        return []


def possible_path(pulleys: Sequence[Pulley], rims_m: Sequence[float], crossed: bool = False) -> BeltPath:
    """The path of a belt that can run: `belt_path`, and no wheel overlaps another, no run cuts a wheel or another run.

    Raises GeometryError.
    """
    if pair := overlapping(pulleys, rims_m):
        raise GeometryError(f"{pair[0].name or 'One wheel'} and {pair[1].name or 'another'} overlap: check their places and diameters.")
    path = belt_path(pulleys, crossed)
    if hits := clashes(path, rims_m, crossed):
        raise GeometryError(hits[0].sentence)
    return path


def overlapping(pulleys: Sequence[Pulley], rims_m: Sequence[float]) -> tuple[Pulley, Pulley] | None:
    """The first two wheels of one plane whose rims overlap; None where all stand clear."""
    for (a, ra), (b, rb) in itertools.combinations(list(zip(pulleys, rims_m, strict=True)), 2):
        if math.hypot(a.x_m - b.x_m, a.y_m - b.y_m) < ra + rb - 1e-9:
            return a, b
    return None


def _refuse(sentence: str) -> float:
    raise GeometryError(sentence)


@dataclass(frozen=True)
class Clash:
    """Something the belt would run into: what it is and which run, or which two, it concerns."""

    kind: str
    runs: tuple[int, ...]
    wheel: int | None
    sentence: str


def clashes(path: BeltPath, outside_radii_m: Sequence[float], crossed: bool = False) -> tuple[Clash, ...]:
    """Runs that cross each other, and runs that pass through a wheel they do not touch (rim radii in m)."""
    found = []
    count = len(path.runs)
    for i in range(count):
        for j in range(i + 1, count):
            if crossed and count == 2:
                continue
            if _cross(path.runs[i], path.runs[j]):
                names = [_between(path, k) for k in (i, j)]
                found.append(Clash("crossing", (i, j), None, f"The belt crosses itself: the run {names[0]} meets the run {names[1]}."))
    for i, run in enumerate(path.runs):
        for k, p in enumerate(path.pulleys):
            if k in (i, (i + 1) % count):
                continue
            if _distance(run, p.x_m, p.y_m) < outside_radii_m[k] - 1e-9:
                found.append(
                    Clash(
                        "through a wheel",
                        (i,),
                        k,
                        f"The run {_between(path, i)} passes through {p.name or 'a wheel'}: the order of the wheels is wrong, or a side.",
                    )
                )
    return tuple(found)


def _between(path: BeltPath, run: int) -> str:
    a, b = path.pulleys[run], path.pulleys[(run + 1) % len(path.pulleys)]
    return f"from {a.name or f'wheel {run + 1}'} to {b.name or 'the next'}"


def _cross(a: Run, b: Run) -> bool:
    def side(px: float, py: float, qx: float, qy: float, rx: float, ry: float) -> float:
        return (qx - px) * (ry - py) - (qy - py) * (rx - px)

    s1 = side(a.x1_m, a.y1_m, a.x2_m, a.y2_m, b.x1_m, b.y1_m)
    s2 = side(a.x1_m, a.y1_m, a.x2_m, a.y2_m, b.x2_m, b.y2_m)
    s3 = side(b.x1_m, b.y1_m, b.x2_m, b.y2_m, a.x1_m, a.y1_m)
    s4 = side(b.x1_m, b.y1_m, b.x2_m, b.y2_m, a.x2_m, a.y2_m)
    return s1 * s2 < -1e-18 and s3 * s4 < -1e-18


def _distance(run: Run, x: float, y: float) -> float:
    """From a point to the run, m."""
    dx, dy = run.x2_m - run.x1_m, run.y2_m - run.y1_m
    if run.length_m == 0:
        return math.hypot(x - run.x1_m, y - run.y1_m)
    t = min(1.0, max(0.0, ((x - run.x1_m) * dx + (y - run.y1_m) * dy) / run.length_m**2))
    return math.hypot(x - run.x1_m - t * dx, y - run.y1_m - t * dy)
