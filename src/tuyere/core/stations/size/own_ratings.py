"""A shop's own rating tables, read from an open file.

Between the figures it is read straight (bilinear); past them it refuses. A ratio's figures hold from that ratio on. What a table gives is
power at half a turn of wrap and the reference length; the standard's factors for wrap, length, teeth in mesh, width and strands stay on.
"""

from dataclasses import dataclass

import numpy as np

from tuyere.core.basis.quantity import QuantityError, from_si, parse, whole_number
from tuyere.core.basis.rows_file import RowReport, RowsFileError, read_rows
from tuyere.core.kinds import roller_chain, synchronous, v_belt
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.rating.own_table import NONE, Measured, OwnRatings, OwnTable, shown_size

COLUMNS = ("for", "size", "speed", "power", "ratio", "width", "source")
# What a person needs to know of each column.
ABOUT = {
    "for": "what it rates, by the name used here: B, SPA, PK, L, H8M, 60, 08B, a flat belt's name",
    "size": "the small wheel: datum or pitch diameter with its unit for a V or ribbed belt, outside diameter for a flat one, teeth for toothed belts and chain",
    "speed": "of the faster shaft, rpm",
    "power": "with its unit: of one belt, rib or strand, or of a toothed or flat belt as wide as `width`; at half a turn of wrap",
    "ratio": "the speed ratio from which the figure holds, added power included; leave out where the table knows no ratio",
    "width": "toothed and flat belts: how wide the belt of the table is, with its unit",
    "source": "where the figure comes from, in your own words",
}
NEEDED = 4  # of the columns, from the first
EXAMPLE = """for,size,speed,power,ratio,width,source
B,140 mm,960 rpm,2.4 kW,,,our belt supplier's list
B,140 mm,1450 rpm,3.1 kW,,,
B,200 mm,960 rpm,4.3 kW,,,
B,200 mm,1450 rpm,5.7 kW,,,
"""
LIMIT_ROWS = 20_000
_WORDS = 120


@dataclass(frozen=True)
class RatingsReport:
    """What a file came to: the tables that are whole, and the report on each row; `refused` when the file as a whole cannot be read."""

    ratings: OwnRatings
    rows: tuple[RowReport, ...]
    refused: str = ""


@dataclass(frozen=True)
class _Row:
    size: float
    speed: float
    power_w: float
    ratio: float
    width_m: float | None
    source: str


def measured_by(name: str) -> Measured | None:
    """How the small wheel of a thing is told in a table; None for a name not known here."""
    if name in v_belt.sections() or name in flat_belts():
        return "diameter"
    return "teeth" if name in synchronous.profiles() or name in roller_chain.chains() else None


def read_ratings(text: str) -> RatingsReport:
    """Read a file of ratings. A thing whose rows are not all good, or leave a place in its table empty, is left out whole.

    >>> head, cells = "for,size,speed,power", [(d, n, d * n / 1e5) for d in (100, 200) for n in (500, 1500)]
    >>> report = read_ratings("\\n".join([head, *(f"B,{d} mm,{n},{p} kW" for d, n, p in cells)]))
    >>> round(report.ratings.of("B").rated(0.150, 1000 * 0.10471976))
    1500
    """
    try:
        raw = read_rows(text, COLUMNS, NEEDED, LIMIT_ROWS)
    except RowsFileError as reason:
        return RatingsReport(NONE, (), str(reason))
    good: dict[str, list[_Row]] = {}
    places: dict[tuple[str, float, float, float], int] = {}
    bad: dict[int, str] = {}
    spoiled: set[str] = set()
    for line, cells in raw:
        try:
            row = _row(cells)
        except (QuantityError, ValueError) as reason:
            bad[line] = str(reason)
            spoiled.add(cells["for"])
            continue
        first = places.setdefault((cells["for"], row.size, row.speed, row.ratio), line)
        if first != line:
            bad[line] = f"The same size, speed and ratio stand in line {first}: keep one of them."
            spoiled.add(cells["for"])
            continue
        good.setdefault(cells["for"], []).append(row)
    tables, left_out = {}, {}
    for name, rows in good.items():
        wrong = "Left out with the rows of this table that cannot be read." if name in spoiled else _unfit(name, rows)
        if wrong:
            left_out[name] = wrong
        else:
            tables[name] = _table(name, rows)
    reports = tuple(
        RowReport(
            line, cells["for"][:40], line not in bad and cells["for"] in tables, bad.get(line) or left_out.get(cells["for"]) or "Taken."
        )
        for line, cells in raw
    )
    return RatingsReport(OwnRatings(tables), reports)


def _row(cells: dict[str, str]) -> _Row:
    by = measured_by(cells["for"])
    if by is None:
        raise ValueError(
            f"“{cells['for'][:30]}” is not a belt or chain known here: write its name as the Tables have it, such as B, SPA, H8M or 60."
        )
    if len(cells["source"]) > _WORDS:
        raise ValueError(f"The source is longer than {_WORDS} characters: shorten it.")
    size = _teeth(cells["size"]) if by == "teeth" else _quantity(cells["size"], "length", "size")
    by_width = cells["for"] in synchronous.profiles() or cells["for"] in flat_belts()
    return _Row(
        size,
        _quantity(cells["speed"], "rotation", "speed", "rpm"),
        _quantity(cells["power"], "power", "power", least=0.0),
        _ratio(cells["ratio"]),
        _quantity(cells["width"], "length", "width") if by_width else None,
        cells["source"],
    )


def _quantity(text: str, kind: str, column: str, unit: str = "", least: float = 1e-9) -> float:
    parsed = parse(text, kind, unit or "mm" if kind == "length" else unit or "kW")
    if parsed is None:
        raise ValueError(f"No {column} in this row: {ABOUT[column]}.")
    if not parsed.unit_was_written and not unit:
        raise ValueError(f"Write the {column} with its unit, such as {'125 mm or 5 in' if kind == 'length' else '2.1 kW or 3 hp'}.")
    if parsed.value_si < least:
        raise ValueError(f"The {column} must be more than zero.")
    return parsed.value_si


def _teeth(text: str) -> float:
    teeth = whole_number(text, 5, 500)
    if teeth is None:
        raise ValueError("Write the small wheel's teeth as a whole number, 5 to 500.")
    return float(teeth)


def _ratio(text: str) -> float:
    if not text:
        return 1.0
    try:
        ratio = float(text.replace(",", "."))
    except ValueError:
        ratio = 0.0
    if not 1 <= ratio <= 100:
        raise ValueError("Write the ratio as a number from 1 on, such as 1.5: the larger wheel over the smaller.")
    return ratio


def _unfit(name: str, rows: list[_Row]) -> str:
    """Why rows make no table; empty when they do."""
    sizes, speeds, ratios = _axes(rows)
    if len(sizes) < 2 or len(speeds) < 2:
        return f"{name} needs at least two sizes and two speeds, so that it can be read between them."
    if len({r.width_m for r in rows}) > 1:
        return f"The rows of {name} are for several widths: give them all for one width."
    have = {(r.ratio, r.size, r.speed) for r in rows}
    by = measured_by(name)
    assert by
    for ratio in ratios:
        for size in sizes:
            for speed in speeds:
                if (ratio, size, speed) not in have:
                    return f"{name} has no figure for {shown_size(size, by)} at {from_si(speed, 'rotation', 'rpm'):.0f} rpm{f' and a ratio of {ratio:g}' if len(ratios) > 1 else ''}: a table needs one in every place."
    return ""


def _axes(rows: list[_Row]) -> tuple[tuple[float, ...], tuple[float, ...], tuple[float, ...]]:
    return tuple(sorted({r.size for r in rows})), tuple(sorted({r.speed for r in rows})), tuple(sorted({r.ratio for r in rows}))


def _table(name: str, rows: list[_Row]) -> OwnTable:
    sizes, speeds, ratios = _axes(rows)
    powers = np.zeros((len(ratios), len(sizes), len(speeds)))
    for r in rows:
        powers[ratios.index(r.ratio), sizes.index(r.size), speeds.index(r.speed)] = r.power_w
    by = measured_by(name)
    assert by
    return OwnTable(name, by, sizes, speeds, ratios, powers, rows[0].width_m, next((r.source for r in rows if r.source), ""))
