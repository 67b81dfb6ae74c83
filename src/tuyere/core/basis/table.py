"""Loading the standards' figures kept in tables/: CSV with comment lines on top, every row with source and confidence."""

import csv
from functools import cache
from importlib import resources


@cache
def rows(name: str) -> tuple[dict[str, str], ...]:
    """The rows of tables/`name`.csv as written. Raises ValueError for a row without source or confidence."""
    text = (resources.files("tuyere.core") / "tables" / f"{name}.csv").read_text(encoding="utf-8")
    lines = [line for line in text.splitlines() if line and not line.startswith("#")]
    found = tuple(csv.DictReader(lines))
    for number, row in enumerate(found, start=1):
        if not row.get("source") or row.get("confidence") not in ("high", "medium", "low"):
            raise ValueError(f"tables/{name}.csv row {number} lacks a source or a confidence")
    return found


@cache
def about(name: str) -> tuple[str, ...]:
    """The comment lines on top of tables/`name`.csv."""
    text = (resources.files("tuyere.core") / "tables" / f"{name}.csv").read_text(encoding="utf-8")
    return tuple(line.removeprefix("#").strip() for line in text.splitlines() if line.startswith("#"))
