"""The stock as a shop's list has it: only what is in the list, or every common size with the list's prices on it."""

import copy
import math
from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import Literal

import numpy as np

from tuyere.core.kinds.choose import SAME_M, Array, ChoiceWheel, Choosable, Prices, StockLength
from tuyere.core.kinds.part_row import PartRow
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.stations.size.parts_list import PartsList
from tuyere.core.stations.size.stock import kinds

Which = Literal["common", "list", "shelf"]
_SAME_LINE_M = 0.002  # two ways to write one length of belt


@lru_cache(maxsize=24)
def stock(own: OwnRatings, parts: PartsList, which: Which) -> tuple[Choosable, ...]:
    """Every kind to search: the common sizes (priced where the list has a price), or only what the list or the shelf has."""
    if which == "common":
        return tuple(_priced(kind, parts) for kind in kinds(own)) if parts.priced else kinds(own)
    had = parts.on_the_shelf() if which == "shelf" else parts
    found = (_listed(kind, had, which == "shelf") for kind in kinds(own))
    return tuple(kind for kind in found if kind)


def _wheels_of(parts: PartsList, fits: str) -> list[PartRow]:
    return [r for r in parts.rows if r.part == "wheel" and r.fits == fits]


def _belts_of(kind: Choosable, parts: PartsList) -> list[PartRow]:
    return [r for r in parts.rows if r.part != "wheel" and kind.lists(r)]


def _long_enough(row: PartRow, length: StockLength | None) -> bool:
    """Whether a listed belt is of that length; belting and chain are cut to any."""
    return row.size == 0 or (length is not None and abs(row.size - length.line_m) <= _SAME_LINE_M)


def _cheapest(rows: Iterable[PartRow]) -> float:
    return min((r.price for r in rows if r.price is not None), default=math.nan)


def _prices(kind: Choosable, driver: list[list[PartRow]], driven: list[list[PartRow]], belts: list[PartRow]) -> Prices:
    """`driver`, `driven`: the rows that each wheel of the kind may be."""

    def wheels(side: list[list[PartRow]]) -> Array:
        return np.array([[_cheapest(r for r in rows if kind.takes(r, c)) for c in kind.counts] for rows in side])

    def set_of(of_length: list[PartRow], count: float) -> float:
        return kind.many(count) * _cheapest(r for r in of_length if kind.makes(r, count))

    return Prices(wheels(driver), wheels(driven), _by_length(kind, belts, set_of), kind.per_metre)


def _by_length(kind: Choosable, belts: list[PartRow], value: Callable[[list[PartRow], float], float]) -> Array:
    """`value` of the belts of each length, for each count; the belts are sorted out by length first, for lists may be long."""
    lengths = [[r for r in belts if _long_enough(r, x)] for x in kind.lengths or (None,)]
    return np.array([[value(rows, c) for c in kind.counts] for rows in lengths])


def _priced(kind: Choosable, parts: PartsList) -> Choosable:
    """A kind of the common sizes, with what the list says that its parts cost."""
    rows, driven, belts = _wheels_of(parts, kind.fits), _wheels_of(parts, kind.driven_fits), _belts_of(kind, parts)
    if not (rows and driven and belts):
        return kind
    one = copy.copy(kind)
    may_be = [[[r for r in had if _same(r, w)] for w in side] for side, had in ((kind.driver, rows), (kind.driven, driven))]
    one.prices = _prices(kind, may_be[0], may_be[1], belts)
    return one


def _same(row: PartRow, wheel: ChoiceWheel) -> bool:
    if wheel.teeth is not None:
        return row.size == wheel.teeth
    return abs(row.size - (wheel.outside_m if row.of == "flat" else wheel.line_m)) <= SAME_M


def _listed(kind: Choosable, parts: PartsList, enough: bool) -> Choosable | None:
    """A kind with only the wheels, lengths and counts of the list; `enough`: a set needs so many on the shelf.

    None where nothing is left.
    """
    rows, driven, belts = _wheels_of(parts, kind.fits), _wheels_of(parts, kind.driven_fits), _belts_of(kind, parts)
    if not (rows and driven and belts):
        return None
    one = kind.only(rows, belts)
    one.assumed = False
    one.forget()
    one.driver = one.driven = tuple(kind.wheel_of(r) for r in rows)
    if driven != rows:
        one.driven = tuple(kind.wheel_of(r) for r in driven)

    def on(of_length: list[PartRow], count: float) -> bool:
        many = kind.many(count) if enough else 0
        return any(kind.makes(r, count) and (r.on_hand or 0) >= many for r in of_length)

    one.had = _by_length(one, belts, on).astype(bool)
    one.prices = _prices(one, [[r] for r in rows], [[r] for r in driven], belts) if parts.priced else None
    return one
