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


_RUN_AS_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def guarded(text: str) -> str:
    r"""A CSV file in which no cell is run as a formula when it is opened in a spreadsheet: such cells begin with an apostrophe, that
    `read_rows` takes off again. Source: OWASP, "CSV injection" (from memory).

    >>> guarded("part;for\n=2+5;B\n")
    "part;for\n'=2+5;B\n"
    """
    delimiter = _delimiter(text.removeprefix("\ufeff").lstrip())
    out = io.StringIO()
    rows = csv.reader(io.StringIO(text.removeprefix("\ufeff")), delimiter=delimiter)
    csv.writer(out, delimiter=delimiter, lineterminator="\n").writerows(
        [f"'{cell}" if _runs(cell) else cell for cell in row] for row in rows
    )
    return out.getvalue()


def _unguarded(cell: str) -> str:
    return cell[1:] if cell.startswith("'") and _runs(cell[1:]) else cell


def _runs(cell: str) -> bool:
    return bool(cell.strip()) and (cell.startswith(_RUN_AS_FORMULA) or cell.lstrip().startswith(_RUN_AS_FORMULA))


def _delimiter(text: str) -> str:
    heading = text.split("\n", 1)[0]
    return ";" if heading.count(";") > heading.count(",") else ","


def _csv(text: str, columns: Sequence[str], wanted: int) -> list[tuple[int, dict[str, str]]]:
    reader = csv.DictReader(io.StringIO(text), delimiter=_delimiter(text))
    try:
        named = [(name or "").strip().lower() for name in reader.fieldnames or ()]
        missing = [c for c in columns[:wanted] if c not in named]
        if missing:
            raise RowsFileError(f"The first line must name the columns {', '.join(columns)}: {' and '.join(missing)} is missing.")
        reader.fieldnames = named
        return [
            (line, {k: _unguarded(v or "") for k, v in row.items() if isinstance(k, str) and k}) for line, row in enumerate(reader, start=2)
        ]
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
