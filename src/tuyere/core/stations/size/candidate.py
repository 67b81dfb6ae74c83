"""One candidate by its key, and one that a person names; what would have to give for it to hold."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from tuyere.core.basis.quantity import to_si
from tuyere.core.kinds.choose import ChoiceWheel, Choosable, StockLength
from tuyere.core.kinds.problem import Demands
from tuyere.core.stations.size.judge import CONSTRAINTS, Judged, judge, pair_failures
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.stock import choices


class CandidateError(ValueError):
    """No such candidate in the stock; the message is a sentence for the person."""


@dataclass(frozen=True)
class Candidate:
    """One combination of the stock."""

    key: str
    kind: Choosable
    driver: ChoiceWheel
    driven: ChoiceWheel
    length: StockLength | None
    count: float

    def judged(self, problem: Demands) -> Judged:
        """Held against every demand."""
        return judge(problem, self.kind, self.driver, self.driven, self.length, self.count)

    def price(self, length_m: float) -> float | None:
        """What its parts cost by the shop's list, a wheel that is kept nothing.

        None where the list does not say. length_m: of belt or chain.
        """
        kind, prices = self.kind, self.kind.prices
        if prices is None:
            return None
        k, m = kind.counts.index(self.count), kind.lengths.index(self.length) if self.length else 0
        total = float(prices.belts[m, k]) * (length_m if prices.per_metre else 1.0)
        for wheel, had, by_wheel in ((self.driver, kind.driver, prices.driver), (self.driven, kind.driven, prices.driven)):
            total += float(by_wheel[had.index(wheel), k]) if wheel in had else 0.0
        return None if math.isnan(total) else total


def sides(problem: Demands, kind: Choosable) -> tuple[tuple[ChoiceWheel, ...], tuple[ChoiceWheel, ...]]:
    """The wheels either shaft may carry: all of the stock's, or the one that stays."""
    found = []
    for kept, wheels, drives in ((problem.keep_driver, kind.driver, True), (problem.keep_driven, kind.driven, False)):
        stays = kind.wheel_kept(kept, drives) if kept else None
        found.append((stays,) if stays else wheels)
    return found[0], found[1]


def by_key(problem: Demands, key: str, stock: Iterable[Choosable]) -> Candidate:
    """The candidate of a key that `key_of` gave. Raises CandidateError for one that the stock does not have."""
    try:
        name, driver, driven, length, count = key.split("|")
        kind = next(one for one in stock if one.name == name)
        first, second = (
            next(w for w in side if w.name == named) for side, named in zip(sides(problem, kind), (driver, driven), strict=True)
        )
        made = next(x for x in kind.lengths if x.name == length) if kind.lengths else None
        return Candidate(key, kind, first, second, made, next(c for c in kind.counts if f"{c:g}" == count))
    except (ValueError, StopIteration):
        raise CandidateError("That drive is not in the stock any more: choose it from the list again.") from None


def key_of(kind: Choosable, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float) -> str:
    """A candidate's name in links, by the names of its parts, so that it outlasts a list that is put in another order."""
    return f"{kind.name}|{driver.name}|{driven.name}|{length.name if length else ''}|{count:g}"


def at_places(problem: Demands, kind: Choosable, driver: int, driven: int, length: int, count: int) -> Candidate:
    """The candidate at places among a kind's wheels, lengths and counts. Raises CandidateError where there is no such place."""
    first, second = sides(problem, kind)
    try:
        made = kind.lengths[length] if kind.lengths else None
        chosen = first[driver], second[driven], made, kind.counts[count]
    except IndexError:
        raise CandidateError("There is no such wheel, length or count in the stock: choose again.") from None
    return Candidate(key_of(kind, *chosen), kind, *chosen)


def nearest(problem: Demands, kind: Choosable) -> tuple[int, int, int, int]:
    """Places (driver, driven, length, count) of what comes nearest to the demands in one kind: where a person's question starts."""
    first, second = sides(problem, kind)

    def off(i: int, j: int) -> tuple[float, float]:
        error = abs(problem.driver_speed * first[i].rolls_m / second[j].rolls_m / problem.driven_speed - 1)
        fails = [f.share for f in pair_failures(problem, kind, first[i], second[j])]
        return sum(fails), error

    i, j = min(((i, j) for i in range(len(first)) for j in range(len(second))), key=lambda p: off(*p))

    def apart(m: int) -> float:
        judged = judge(problem, kind, first[i], second[j], kind.lengths[m], kind.counts[0])
        return abs(judged.measures.centre_m - problem.centre_middle_m) if judged.measures else 1e9

    m = min(range(len(kind.lengths)), key=apart, default=0)
    length = kind.lengths[m] if kind.lengths else None
    strong = (k for k, count in enumerate(kind.counts) if not _weak(judge(problem, kind, first[i], second[j], length, count)))
    return i, j, m, next(strong, len(kind.counts) - 1)


def _weak(judged: Judged) -> bool:
    return any(f.constraint in ("power", "rating", "grooves") for f in judged.failures)


@dataclass(frozen=True)
class Relaxed:
    """What giving way on one thing would let in."""

    constraint: str
    says: str
    lets_in: int


def relaxed(problem: Demands, stock: Sequence[Choosable]) -> list[Relaxed]:
    """When nothing holds: how many would if one demand gave way, most first."""
    wider = to_si(1, "length", "in")
    changes = {
        "speed": ("twice the speed tolerance", replace(problem, tolerance=2 * problem.tolerance)),
        "centres": (
            "a quarter more room for the centres either way",
            replace(problem, centre_low_m=0.75 * problem.centre_low_m, centre_high_m=1.25 * problem.centre_high_m),
        ),
        "room": ("no limit on the wheels' size", replace(problem, driver_most_m=None, driven_most_m=None)),
        "width": (
            "two inches more width",
            replace(problem, width_most_m=problem.width_most_m + 2 * wider if problem.width_most_m else None),
        ),
        "bore": ("thinner shafts, or hubs made to order", replace(problem, driver_shaft_m=None, driven_shaft_m=None)),
        "motor": ("another motor, or an outboard bearing", replace(problem, motor=None)),
        "pull": ("no limit on the shaft's pull", replace(problem, pull_most_n=None)),
        "reserve": ("running on with one belt gone no longer asked", replace(problem, reserve=False)),
        "family": ("every family allowed", replace(problem, families=frozenset(choices()), kinds=frozenset())),
        "heat": ("cooler air round it, or a heat-proof make", replace(problem, ambient_c=None)),
        "kept": ("both wheels new", replace(problem, keep_driver=None, keep_driven=None)),
        "small": ("fewer teeth on the small sprocket", replace(problem, least_chain_teeth=9)),
        "power": ("half the power, by two drives side by side", replace(problem, power_w=problem.power_w / 2)),
    }
    found = [Relaxed(name, said, search(eased, stock).feasible) for name, (said, eased) in changes.items() if eased != problem]
    assert set(changes) <= set(CONSTRAINTS)
    return sorted((r for r in found if r.lets_in), key=lambda r: -r.lets_in)
