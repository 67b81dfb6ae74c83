"""Ordering what is feasible by what the person weighs, and which candidates nothing beats on two things at once."""

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from tuyere.core.kinds.choose import Array
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.traits import traits
from tuyere.core.mechanics.open_belt import belt_length
from tuyere.core.stations.size.candidate import key_of
from tuyere.core.stations.size.search import Found, Searched, line_at

# What can be weighed, and how it is called; each is turned into points from 0 (worst) to 1 (best).
WISHES = {
    "margin": "power to spare",
    "pull": "light on shafts and bearings",
    "width": "narrow",
    "accuracy": "speed just right",
    "energy": "little loss",
    "wheels": "small wheels",
    "pieces": "few pieces",
    "price": "cheap by your list",
    "belt_speed": "easy belt speed",
    "dirt": "stands dirt",
    "shock": "stands shock",
    "no_oil": "needs no oil",
    "out_of_line": "forgives alignment",
    "quiet": "quiet",
}
USUAL = {
    "margin": 1.0,
    "pull": 2.0,
    "wheels": 2.0,
    "width": 2.0,
    "accuracy": 1.0,
    "energy": 2.0,
    "pieces": 1.0,
    "no_oil": 1.0,
    "quiet": 1.0,
}
POINTS = ("dirt", "shock", "no_oil", "out_of_line", "quiet")

# Axes of the plot: the measure, how it is called, its kind of quantity, and whether more of it is better.
AXES = {
    "pull": ("pull on each shaft", "force", False),
    "width": ("width over belts", "length", False),
    "wheels": ("both wheels across", "length", False),
    "margin": ("power to spare", "share", True),
    "loss": ("lost on the way", "power", False),
    "belt_speed": ("belt speed", "velocity", False),
    "centre": ("centres", "length", False),
    "price": ("price by your list", "money", False),
}

_MARGIN_ENOUGH = 0.5  # more to spare than this is no better: common practice, no source
_EASY = (5.0, 25.0, 15.0)  # m/s: points fall off below, above, and over how much
_EFFICIENCY = (0.90, 0.99)


@dataclass(frozen=True)
class Wishes:
    """Weights by wish."""

    weights: Mapping[str, float] = field(default_factory=lambda: USUAL)


@dataclass(frozen=True)
class Field:
    """All feasible candidates in one row of arrays; `of` says which kind each is of, `at` its place there. Measures in SI; score 0 to 1."""

    searched: Searched
    of: NDArray[np.int32]
    at: NDArray[np.int64]
    measures: dict[str, Array]
    points: dict[str, Array]
    score: Array

    @property
    def size(self) -> int:
        """How many there are."""
        return len(self.of)

    def key(self, n: int) -> str:
        """The candidate's name in links."""
        f, k = self.searched.found[self.of[n]], self.at[n]
        length = f.kind.lengths[f.length[k]] if f.kind.lengths else None
        return key_of(f.kind, f.driver_wheels[f.driver[k]], f.driven_wheels[f.driven[k]], length, f.kind.counts[f.count[k]])


def _stack(searched: Searched, take: str) -> Array:
    return np.concatenate([np.asarray(getattr(f, take), dtype=float) for f in searched.found])


def _across(f: Found) -> Array:
    """Both outside diameters together, m."""
    first, second = (np.array([w.outside_m for w in side]) for side in (f.driver_wheels, f.driven_wheels))
    return np.asarray(first[f.driver] + second[f.driven])


def _each(searched: Searched, value: Mapping[str, float]) -> Array:
    return np.concatenate([np.full(f.size, value[f.kind.traits]) for f in searched.found])


def efficiency(kind_traits: str) -> float:
    """Between well kept and neglected: what a drive of the kind has over its life, as a planning figure."""
    t = traits()[kind_traits]
    return (t.kept + t.neglected) / 2


def rank(problem: Demands, searched: Searched, wishes: Wishes) -> Field | None:
    """Score every feasible candidate; None when there is none."""
    if not searched.feasible:
        return None
    design = np.concatenate([np.full(f.size, f.design_w) for f in searched.found])
    effs = {name: efficiency(name) for name in traits()}
    eff = _each(searched, effs)
    count = np.concatenate([np.array(f.kind.counts)[f.count] if f.kind.reserve_counts else np.ones(f.size) for f in searched.found])
    measures = {
        "pull": _stack(searched, "pull_n"),
        "width": _stack(searched, "width_m"),
        "margin": _stack(searched, "capacity_w") / design - 1,
        "loss": problem.power_w * (1 / eff - 1),
        "belt_speed": _stack(searched, "belt_speed"),
        "centre": _stack(searched, "centre_m"),
        "speed_error": _stack(searched, "speed_error"),
        "pieces": count + 2,
        "wrap": _stack(searched, "wrap_rad"),
    }
    measures["wheels"] = np.concatenate([_across(f) for f in searched.found])
    v, (slow, fast, off) = measures["belt_speed"], _EASY
    points = {
        "margin": np.minimum(measures["margin"], _MARGIN_ENOUGH) / _MARGIN_ENOUGH,
        "pull": measures["pull"].min() / measures["pull"],
        "width": measures["width"].min() / measures["width"],
        "accuracy": 1 - np.abs(measures["speed_error"]) / max(problem.tolerance, 1e-9),
        "energy": np.clip((eff - _EFFICIENCY[0]) / (_EFFICIENCY[1] - _EFFICIENCY[0]), 0, 1),
        "pieces": measures["pieces"].min() / measures["pieces"],
        "wheels": measures["wheels"].min() / measures["wheels"],
        "belt_speed": np.clip(np.minimum(v / slow, 1 - (v - fast) / off), 0, 1),
    }
    for name in POINTS:
        points[name] = _each(searched, {k: getattr(t, name) / 4 for k, t in traits().items()})
    if any(f.kind.prices for f in searched.found):
        prices = np.concatenate([_prices(f) for f in searched.found])
        measures["price"] = prices
        if np.isfinite(prices).any():
            points["price"] = np.where(np.isfinite(prices), np.nanmin(prices) / prices, 0.0)
    weights = {k: w for k, w in wishes.weights.items() if w > 0 and k in points} or {"pull": 1.0}
    score = sum(w * points[k] for k, w in weights.items()) / sum(weights.values())
    of = np.concatenate([np.full(f.size, n, dtype=np.int32) for n, f in enumerate(searched.found)])
    at = np.concatenate([np.arange(f.size) for f in searched.found])
    return Field(searched, of, at, measures, points, np.asarray(score))


def _prices(f: Found) -> Array:
    """Each candidate's price by the list; NaN where a part is not in it. A wheel that is kept costs nothing."""
    if f.kind.prices is None:
        return np.full(f.size, np.nan)
    kind, prices = f.kind, f.kind.prices
    total = prices.belts[f.length, f.count] * (_metres(f) if prices.per_metre else 1.0)
    if f.driver_wheels is kind.driver:
        total = total + prices.driver[f.driver, f.count]
    if f.driven_wheels is kind.driven:
        total = total + prices.driven[f.driven, f.count]
    return np.asarray(total)


def _metres(f: Found) -> Array:
    """Length of each candidate's belt or chain, m."""
    if f.kind.lengths:
        return np.array([x.line_m for x in f.kind.lengths])[f.length]
    d, big = (np.array([w.line_m for w in side])[at] for side, at in ((f.driver_wheels, f.driver), (f.driven_wheels, f.driven)))
    return line_at(f.centre_m, *f.kind.line_terms(d, big, d, big))


def parts_of(f: Found, n: int) -> list[tuple[float, str]]:
    """What to fetch for one candidate."""
    length = f.kind.lengths[f.length[n]] if f.kind.lengths else None
    driver, driven = f.driver_wheels[f.driver[n]], f.driven_wheels[f.driven[n]]
    made = length.line_m if length else belt_length(driver.line_m, driven.line_m, float(f.centre_m[n]))
    return f.kind.parts(driver, driven, length, f.kind.counts[f.count[n]], made)


def best_of_each(field_: Field, by_count: bool = False) -> NDArray[np.int64]:
    """The best-scored length and count of every pair of wheels (with `by_count` of every pair and count), best first.

    Not one drive in forty lengths.
    """
    f = field_.searched.found
    code = np.concatenate(
        [((np.int64(n) * 4096 + one.driver) * 4096 + one.driven) * 64 + (one.count if by_count else 0) for n, one in enumerate(f)]
    )
    order = np.argsort(-field_.score, kind="stable")
    _, first = np.unique(code[order], return_index=True)
    return np.asarray(order[np.sort(first)])


def listed(field_: Field, most: int, each: int) -> list[int]:
    """The best drives for a list: first the best of each kind, best first, then more of them, at most `each` of one kind."""
    seen: dict[int, int] = {}
    firsts: list[int] = []
    rest: list[int] = []
    for n in best_of_each(field_):
        kind = int(field_.of[n])
        seen[kind] = seen.get(kind, 0) + 1
        if seen[kind] <= each:
            (firsts if seen[kind] == 1 else rest).append(int(n))
    return [*firsts, *rest][:most]


def pareto(x: Array, y: Array, more_x: bool, more_y: bool) -> NDArray[np.bool_]:
    """Which points nothing beats: no other is as good on both and better on one.

    >>> pareto(np.array([1.0, 2, 3, 1]), np.array([3.0, 2, 2.5, 4]), False, False).tolist()
    [True, True, False, False]
    """
    a, b = (-x if more_x else x), (-y if more_y else y)
    order = np.lexsort((b, a))
    best_before = np.concatenate([[np.inf], np.minimum.accumulate(b[order])[:-1]])
    a_sorted, b_sorted = a[order], b[order]
    # Equal on both to one already kept: as good, so kept too.
    same_x = np.concatenate([[False], a_sorted[1:] == a_sorted[:-1]])
    keep = b_sorted < best_before
    out = np.zeros(len(x), bool)
    last = (np.nan, np.nan)
    for n in np.nonzero(keep | (same_x & (b_sorted == best_before)))[0]:
        point = (a_sorted[n], b_sorted[n])
        if keep[n] or point == last:
            out[order[n]] = True
            last = point
    return out
