"""Rows of an open file that a person brings: CSV (comma or semicolon) with a heading line, or a JSON list of objects."""

import csv
import io
import json
from collections.abc import Sequence
from dataclasses import dataclass


class RowsFileError(ValueError):
    """The file as a whole cannot be read; the message is a sentence that says what to do."""


@dataclass(frozen=True)
class RowReport:
    """What became of one row: its line (CSV: the heading is line 1; JSON: the first object is 1), what it is about, whether it was taken."""

    line: int
    what: str
    taken: bool
    sentence: str


def read_rows(text: str, columns: Sequence[str], wanted: int, most: int) -> list[tuple[int, dict[str, str]]]:
    """Every row as its line and its cells by column, trimmed, all columns there; the first `wanted` columns must be named in the file.

    Raises RowsFileError.

    >>> read_rows("for;power\\nB; 2.1 kW\\n", ("for", "power", "note"), 2, 10)
    [(2, {'for': 'B', 'power': '2.1 kW', 'note': ''})]
    """
    cleaned = text.removeprefix("\ufeff").strip()
    if "\x00" in cleaned:
        raise RowsFileError("This is not a text file: save it as CSV (comma separated, UTF-8).")
    raw = _json(cleaned) if cleaned.startswith(("[", "{")) else _csv(cleaned, columns, wanted)
    if len(raw) > most:
        raise RowsFileError(f"At most {most} rows at a time: split the file.")
    return [(line, {c: row.get(c, "").strip() for c in columns}) for line, row in raw]


def _csv(text: str, columns: Sequence[str], wanted: int) -> list[tuple[int, dict[str, str]]]:
    heading = text.split("\n", 1)[0]
    reader = csv.DictReader(io.StringIO(text), delimiter=";" if heading.count(";") > heading.count(",") else ",")
    try:
        named = [(name or "").strip().lower() for name in reader.fieldnames or ()]
        missing = [c for c in columns[:wanted] if c not in named]
        if missing:
            raise RowsFileError(f"The first line must name the columns {', '.join(columns)}: {' and '.join(missing)} is missing.")
        reader.fieldnames = named
        return [(line, {k: v or "" for k, v in row.items() if isinstance(k, str) and k}) for line, row in enumerate(reader, start=2)]
    except csv.Error as reason:
        raise RowsFileError(f"The file cannot be read as CSV ({reason}).") from None


def _json(text: str) -> list[tuple[int, dict[str, str]]]:
    try:
        found = json.loads(text)
    except (json.JSONDecodeError, RecursionError):
        raise RowsFileError("The file cannot be read as JSON: write a list of objects, such as [{…}, {…}].") from None
    if not isinstance(found, list) or not all(isinstance(row, dict) for row in found):
        raise RowsFileError("The JSON must be a list of objects, one a row, such as [{…}, {…}].")
    return [(line, {str(k).strip().lower(): _cell(v) for k, v in row.items()}) for line, row in enumerate(found, start=1)]


def _cell(value: object) -> str:
    return "" if value is None else f"{value:g}" if isinstance(value, float) else str(value)
