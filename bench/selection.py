"""The search over stock drives against a plain loop with the same answers, its speed, memory and growth.

    .venv/bin/python -m bench.selection

One core, one run: ratios of what was measured in it. "Ordinary": a hammer mill's problem, where most pairs of wheels fall out early.
"Open": any driven speed and any centres will do, so that only the wheel and speed limits spare a combination its rating: the worst case.
"""

import resource
import time
from collections.abc import Sequence
from dataclasses import replace
from statistics import median

from bench.live_redraw import percentile

from tuyere.core.basis.quantity import to_si
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.problem import Demands
from tuyere.core.stations.size.judge import judge
from tuyere.core.stations.size.rank import Wishes, best_of_each, listed, pareto, rank
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.stock import choices, kinds

RPM = to_si(1, "rotation", "rpm")
ORDINARY = Demands(
    to_si(30, "power", "hp"),
    1765 * RPM,
    2600 * RPM,
    0.03,
    "heavy",
    centre_low_m=0.66,
    centre_high_m=0.76,
    driven_shaft_m=0.054,
    families=frozenset(choices()),
)
OPEN = replace(ORDINARY, tolerance=1e9, centre_low_m=0.0, centre_high_m=1e3, driven_shaft_m=None, fast_wheels=True, least_chain_teeth=7)


def plain(problem: Demands, stock: Sequence[Choosable]) -> set[tuple[str, str, str, str, float]]:
    """The same space, one candidate at a time."""
    return {
        (kind.name, driver.name, driven.name, length.name if length else "", count)
        for kind in stock
        for driver in kind.driver
        for driven in kind.driven
        for length in kind.lengths or (None,)
        for count in kind.counts
        if not judge(problem, kind, driver, driven, length, count).failures
    }


def fast(problem: Demands, stock: Sequence[Choosable]) -> set[tuple[str, str, str, str, float]]:
    """The search's answer as names."""
    return {
        (f.kind.name, f.driver_wheels[i].name, f.driven_wheels[j].name, f.kind.lengths[m].name if f.kind.lengths else "", f.kind.counts[k])
        for f in search(problem, stock).found
        for i, j, m, k in zip(f.driver, f.driven, f.length, f.count, strict=True)
    }


def part(kind: Choosable, wheels: int, lengths: int) -> Choosable:
    """The kind with every so-and-so-many-th wheel and length."""
    some_wheels = {w.name for w in kind.driver[:: max(1, len(kind.driver) // wheels)]}
    some_lengths = {x.name for x in kind.lengths[:: max(1, len(kind.lengths) // lengths)]}
    return kind.restricted(lambda w: w.name in some_wheels, lambda x: x.name in some_lengths)


def timed(problem: Demands, stock: Sequence[Choosable], rounds: int) -> list[float]:
    found = []
    for _ in range(rounds):
        start = time.perf_counter()
        search(problem, stock)
        found.append(time.perf_counter() - start)
    return found


def main() -> None:
    stock = kinds()
    size = sum(k.size for k in stock)
    search(ORDINARY, stock)
    small = [part(k, 6, 6) for k in stock if k.name in ("B", "5VX", "SPB", "H", "H8M", "60", "16B", "polyamide 0.11in")]
    start = time.perf_counter()
    slow = plain(replace(ORDINARY, tolerance=1.0), small)
    slow_s = time.perf_counter() - start
    fast_s = median(timed(replace(ORDINARY, tolerance=1.0), small, 9))
    same = slow == fast(replace(ORDINARY, tolerance=1.0), small)
    print(
        f"plain loop / search over the same {sum(k.size for k in small):,}: {slow_s / fast_s:.0f} times as long; same {len(slow)} "
        f"answers: {same}"
    )
    ordinary, worst = timed(ORDINARY, stock, 25), timed(OPEN, stock, 3)
    print(f"built-in stock: {size:,} combinations")
    print(
        f"ordinary problem: median {median(ordinary) * 1000:.0f} ms, 95th percentile {percentile(ordinary, 95) * 1000:.0f} ms, "
        f"{size / median(ordinary) / 1e6:.0f} million a second"
    )
    print(
        f"any speed, any centres: {median(worst):.2f} s, {size / median(worst) / 1e6:.1f} million a second, "
        f"{search(OPEN, stock).feasible:,} feasible"
    )
    before = time.perf_counter()
    searched = search(ORDINARY, stock)
    ranked = rank(ORDINARY, searched, Wishes())
    assert ranked
    best_of_each(ranked, by_count=True)
    listed(ranked, 80, 6)
    pareto(ranked.measures["pull"], ranked.measures["width"], False, False)
    print(f"search, rank and list / search alone: {(time.perf_counter() - before) / median(ordinary):.2f}")
    one = None
    for wheels, lengths in ((3, 3), (6, 6), (14, 14), (99, 999)):
        space = [part(k, wheels, lengths) for k in stock]
        n, t = sum(k.size for k in space), median(timed(OPEN, space, 3))
        one = one or t / n
        print(
            f"growth, any speed and centres: {n:>12,} combinations {t * 1000:8.0f} ms, {t / n / one:.2f} times the smallest's time for each"
        )
    print(f"most memory held by the whole run: {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MiB")


if __name__ == "__main__":
    main()
