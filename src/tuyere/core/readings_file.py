"""Readings from an instrument's file: CSV of what, value, unit; what can be taken, and a sentence for each row that cannot."""

import csv
import io
from dataclasses import dataclass

from tuyere.core.quantity import QuantityError
from tuyere.core.sheet.field import read_field

COLUMNS = ("what", "value", "unit")
LIMIT_ROWS = 200
# What a row may be of, as it is written in the file, and the field it fills.
WHAT = {
    "driver speed": "tach_driver",
    "driven speed": "tach_driven",
    "amps": "amps",
    "pressure": "machine_pressure",
    "noise": "noise",
}


@dataclass(frozen=True)
class FileRow:
    """One row: its line, the field it fills (empty: not taken), text and unit as typed there, and a sentence."""

    line: int
    field: str
    text: str
    unit: str
    sentence: str


@dataclass(frozen=True)
class FileReport:
    """The rows in turn; `refused` is a sentence when the file as a whole cannot be read. A later row of the same field wins."""

    rows: tuple[FileRow, ...]
    refused: str = ""


def read_file(text: str) -> FileReport:
    """Read a file of readings with a heading line what,value,unit; comma or semicolon.

    >>> [r.field for r in read_file("what,value,unit\\ndriven speed,1312,rpm\\n").rows]
    ['tach_driven']
    """
    cleaned = text.removeprefix("\ufeff")
    if "\x00" in cleaned:
        return FileReport((), "This is not a text file: save the readings as CSV (UTF-8).")
    heading = cleaned.split("\n", 1)[0]
    reader = csv.DictReader(io.StringIO(cleaned), delimiter=";" if heading.count(";") > heading.count(",") else ",")
    try:
        columns = [(name or "").strip().lower() for name in reader.fieldnames or ()]
        missing = [c for c in COLUMNS[:2] if c not in columns]
        if missing:
            return FileReport((), f"The first line must name the columns {', '.join(COLUMNS)}: {' and '.join(missing)} is missing.")
        reader.fieldnames = columns
        raw = list(reader)
    except csv.Error as reason:
        return FileReport((), f"The file cannot be read as CSV ({reason}).")
    if len(raw) > LIMIT_ROWS:
        return FileReport((), f"At most {LIMIT_ROWS} readings at a time: split the file.")
    return FileReport(tuple(_row(line, row) for line, row in enumerate(raw, start=2)))


def _row(line: int, row: dict[str, str]) -> FileRow:
    what, value, unit = ((row.get(c) or "").strip() for c in COLUMNS)
    field = WHAT.get(what.lower(), "")
    if not field:
        return FileRow(line, "", value, unit, f"“{what[:30]}” is not read here: write one of {', '.join(WHAT)}.")
    try:
        parsed, note = read_field(field, f"{value} {unit}".strip() if field != "noise" else value, "")
    except QuantityError as reason:
        return FileRow(line, "", value, unit, str(reason))
    if parsed is None or note is None:
        return FileRow(line, "", value, unit, "No value in this row.")
    return FileRow(line, field, value, note.unit, f"Taken as {note.us}.")
