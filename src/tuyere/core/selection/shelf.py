"""The stock as a shop's list has it: only what is in the list, or every common size with the list's prices on it."""

import copy
import math
from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import Literal

import numpy as np

from tuyere.core.drives import v_belt
from tuyere.core.entry.quantity import System, show
from tuyere.core.rating.own_table import OwnRatings
from tuyere.core.selection.flat_kind import FlatKind
from tuyere.core.selection.kind import Array, Kind, Prices, StockLength, StockWheel
from tuyere.core.selection.parts_list import PartRow, PartsList
from tuyere.core.selection.stock import kinds
from tuyere.core.selection.toothed_kind import ChainKind, ToothedKind, teeth_named
from tuyere.core.selection.v_kind import VKind, flat_wheel, sheave

Which = Literal["common", "list", "shelf"]
_SAME_M = 0.0004  # two ways to write one diameter
_SAME_LINE_M = 0.002  # two ways to write one length of belt


@lru_cache(maxsize=24)
def stock(own: OwnRatings, parts: PartsList, which: Which) -> tuple[Kind, ...]:
    """Every kind to search: the common sizes (priced where the list has a price), or only what the list or the shelf has."""
    if which == "common":
        return tuple(_priced(kind, parts) for kind in kinds(own)) if parts.priced else kinds(own)
    had = parts.on_the_shelf() if which == "shelf" else parts
    found = (_listed(kind, had, which == "shelf") for kind in kinds(own))
    return tuple(kind for kind in found if kind)


def _wheels_of(kind: Kind, parts: PartsList, drives: bool = True) -> list[PartRow]:
    fits = kind.fits if drives else _driven_fits(kind)
    return [r for r in parts.rows if r.part == "wheel" and r.fits == fits]


def _driven_fits(kind: Kind) -> str:
    return "flat" if isinstance(kind, VKind) and kind.flat else kind.fits


def _belts_of(kind: Kind, parts: PartsList) -> list[PartRow]:
    name = kind.of.name if isinstance(kind, VKind) else kind.name
    return [
        r
        for r in parts.rows
        if r.part != "wheel" and r.fits == name and (not isinstance(kind, VKind) or bool(kind.bands) == (r.grooves > 1))
    ]


def _takes(kind: Kind, row: PartRow, count: float) -> bool:
    """Whether a listed wheel takes so many belts or strands, or a belt so wide. A listed sheave may stand with a groove empty; a common one is bought to fit."""
    if row.of == "flat" and isinstance(kind, VKind):
        return float(kind.width(np.array(count))) <= row.width_m * (1 + 1e-9)
    if isinstance(kind, ChainKind) or (isinstance(kind, VKind) and kind.assumed):
        return row.grooves == count
    return count <= (row.grooves if isinstance(kind, VKind) else row.width_m * (1 + 1e-9))


def _long_enough(row: PartRow, length: StockLength | None) -> bool:
    """Whether a listed belt is of that length; belting and chain are cut to any."""
    return row.size == 0 or (length is not None and abs(row.size - length.line_m) <= _SAME_LINE_M)


def _makes(kind: Kind, row: PartRow, count: float) -> bool:
    """Whether a listed belt makes a set of so many strands, or so wide."""
    if isinstance(kind, VKind):
        many, _ = kind.belts("", count)
        return not kind.bands or row.grooves * many == count
    return row.grooves == count if isinstance(kind, ChainKind) else abs(row.width_m - count) <= _SAME_M


def _cheapest(rows: Iterable[PartRow]) -> float:
    return min((r.price for r in rows if r.price is not None), default=math.nan)


def _prices(kind: Kind, driver: list[list[PartRow]], driven: list[list[PartRow]], belts: list[PartRow]) -> Prices:
    """`driver`, `driven`: the rows that each wheel of the kind may be."""

    def wheels(side: list[list[PartRow]]) -> Array:
        return np.array([[_cheapest(r for r in rows if _takes(kind, r, c)) for c in kind.counts] for rows in side])

    def set_of(of_length: list[PartRow], count: float) -> float:
        many = kind.belts("", count)[0] if isinstance(kind, VKind) else 1.0
        return many * _cheapest(r for r in of_length if _makes(kind, r, count))

    return Prices(wheels(driver), wheels(driven), _by_length(kind, belts, set_of), isinstance(kind, ChainKind | FlatKind))


def _by_length(kind: Kind, belts: list[PartRow], value: Callable[[list[PartRow], float], float]) -> Array:
    """`value` of the belts of each length, for each count; the belts are sorted out by length first, for lists may be long."""
    lengths = [[r for r in belts if _long_enough(r, x)] for x in kind.lengths or (None,)]
    return np.array([[value(rows, c) for c in kind.counts] for rows in lengths])


def _priced(kind: Kind, parts: PartsList) -> Kind:
    """A kind of the common sizes, with what the list says that its parts cost."""
    rows, driven, belts = _wheels_of(kind, parts), _wheels_of(kind, parts, False), _belts_of(kind, parts)
    if not (rows and driven and belts):
        return kind
    one = copy.copy(kind)
    may_be = [[[r for r in had if _same(kind, r, w)] for w in side] for side, had in ((kind.driver, rows), (kind.driven, driven))]
    one.prices = _prices(kind, may_be[0], may_be[1], belts)
    return one


def _same(kind: Kind, row: PartRow, wheel: StockWheel) -> bool:
    if wheel.teeth is not None:
        return row.size == wheel.teeth
    return abs(row.size - (wheel.outside_m if row.of == "flat" else wheel.line_m)) <= _SAME_M


def _listed(kind: Kind, parts: PartsList, enough: bool) -> Kind | None:
    """A kind with only the wheels, lengths and counts of the list; `enough`: a set needs so many on the shelf. None where nothing is left."""
    rows, driven, belts = _wheels_of(kind, parts), _wheels_of(kind, parts, False), _belts_of(kind, parts)
    if not (rows and driven and belts):
        return None
    if isinstance(kind, VKind):
        # One length stands once, in however many rows and widths it is listed: 6PK1250 and 4PK1250 are one length of PK.
        named = {b.number: b for b in (v_belt.parse_designation(r.said, kind.of) for r in belts)}
        one: Kind = kind.with_belts(tuple(named.values()))
    else:
        one = copy.copy(kind)
    one.assumed = False
    one.forget()
    one.driver = one.driven = tuple(_wheel(kind, r) for r in rows)
    if driven != rows:
        one.driven = tuple(_wheel(kind, r) for r in driven)
    if isinstance(kind, VKind):
        most = max(r.grooves for r in rows)
        one.counts = tuple(c for c in kind.counts if c <= most) if kind.bands else tuple(float(n) for n in range(1, most + 1))
    elif isinstance(kind, ToothedKind):
        one.lengths = tuple(StockLength(said, line) for line, said in sorted({(r.size, r.said) for r in belts}))
        one.counts = tuple(sorted({r.width_m for r in belts}))
    else:
        one.counts = tuple(sorted({r.width_m if isinstance(kind, FlatKind) else float(r.grooves) for r in belts}))

    def on(of_length: list[PartRow], count: float) -> bool:
        many = kind.belts("", count)[0] if enough and isinstance(kind, VKind) else 0
        return any(_makes(kind, r, count) and (r.on_hand or 0) >= many for r in of_length)

    one.had = _by_length(one, belts, on).astype(bool)
    one.prices = _prices(one, [[r] for r in rows], [[r] for r in driven], belts) if parts.priced else None
    return one


def _pulley_name(row: PartRow) -> str:
    return f"{show(row.size, 'length', System.SI)} pulley{f' ({row.number})' if row.number else ''}"


def _wheel(kind: Kind, row: PartRow) -> StockWheel:
    """A wheel of the list as the search takes it."""
    number = f" ({row.number})" if row.number else ""
    if isinstance(kind, VKind) and row.of == "flat":
        fitting = [c for c in kind.counts if _takes(kind, row, c)]
        return flat_wheel(kind.of, row.size, _pulley_name(row), max(fitting, default=0.0))
    if isinstance(kind, VKind):
        outside = v_belt.outside_from_datum(kind.of, row.size)
        return sheave(
            kind.of, row.size, outside, f"{row.said}, {row.grooves} groove{'' if row.grooves == 1 else 's'}{number}", 0, row.grooves
        )
    if isinstance(kind, FlatKind):
        return kind.pulley(row.size, _pulley_name(row), row.width_m * (1 + 1e-9))
    teeth = int(row.size)
    if isinstance(kind, ToothedKind):
        return kind.pulley(teeth, f"{teeth_named(teeth)}, to {show(row.width_m, 'length', System.SI)}{number}", row.width_m * (1 + 1e-9))
    assert isinstance(kind, ChainKind)
    strands = f", {row.grooves} strands" if row.grooves > 1 else ""
    return kind.sprocket(teeth, f"{teeth_named(teeth)}{strands}{number}", row.grooves)
