"""Loading the standards' figures kept in tables/.

CSV with comment lines on top, every row with source and confidence, every column as tables/columns.toml says.
"""

import csv
import math
import tomllib
from functools import cache
from importlib import resources
from typing import Any


class TableError(ValueError):
    """A row does not hold what its column holds; the message names file, line and column."""


def _text(file: str) -> str:
    return (resources.files("tuyere.core") / "tables" / file).read_text(encoding="utf-8")


@cache
def rows(name: str) -> tuple[dict[str, str], ...]:
    """The rows of tables/`name`.csv as written. Raises TableError."""
    return read(name, _text(f"{name}.csv"))


def read(name: str, text: str) -> tuple[dict[str, str], ...]:
    """The rows of a table's text, each checked. Raises TableError for the first that does not hold.

    >>> read("settling", "key,s,source,confidence\\nx,much,a book,high")
    Traceback (most recent call last):
    tuyere.core.basis.table.TableError: tables/settling.csv, line 2, s: “much” is no number
    """
    lines = [(number, line) for number, line in enumerate(text.splitlines(), 1) if line and not line.startswith("#")]
    found = tuple(csv.DictReader(line for _, line in lines))
    if len(found) + 1 != len(lines):
        raise TableError(f"tables/{name}.csv: a row goes over several lines, or there is none")
    for (number, _), row in zip(lines[1:], found, strict=True):
        if wrong := _wrong(name, row):
            raise TableError(f"tables/{name}.csv, line {number}, {wrong}")
    return found


def _wrong(table: str, row: dict[str, Any]) -> str:
    """What of a row does not hold; empty where all does."""
    if None in row or None in row.values():
        return f"{'more' if None in row else 'fewer'} columns than the heading has"
    if not row.get("source"):
        return "source: where is it from?"
    words, numbers = _columns()["words"], _columns()["numbers"].get(table, "").split()
    for column, value in row.items():
        allowed = words.get(f"{table}.{column}") or words.get(column)
        if allowed and not _holds(value, allowed):
            return f"{column}: “{value}” is none of {', '.join(w for w in allowed if w and not w.startswith('*'))}"
    for column in numbers:
        key, value = column.rstrip("?"), row.get(column.rstrip("?"), "")
        if not (_is_number(value) or (column.endswith("?") and not value)):
            return f"{key}: “{value}” is no number"
    return ""


def _holds(value: str, allowed: list[str]) -> bool:
    if allowed[0].startswith("*"):
        return all(one in allowed[1:] for one in value.replace(allowed[0][1:] or " ", " ").split())
    return value in allowed


def _is_number(text: str) -> bool:
    try:
        return math.isfinite(float(text))
    except ValueError:
        return False


@cache
def _columns() -> dict[str, Any]:
    return tomllib.loads(_text("columns.toml"))


@cache
def about(name: str) -> tuple[str, ...]:
    """The comment lines on top of tables/`name`.csv."""
    return tuple(line.removeprefix("#").strip() for line in _text(f"{name}.csv").splitlines() if line.startswith("#"))
