"""Readings from an instrument's file: CSV of what, value, unit; what can be taken, and a sentence for each row that cannot."""

from dataclasses import dataclass

from tuyere.core.basis.field import read_field
from tuyere.core.basis.quantity import QuantityError
from tuyere.core.basis.rows_file import RowsFileError, read_rows

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
    try:
        raw = read_rows(text, COLUMNS, 2, LIMIT_ROWS)
    except RowsFileError as reason:
        return FileReport((), str(reason))
    return FileReport(tuple(_row(line, row) for line, row in raw))


def _row(line: int, row: dict[str, str]) -> FileRow:
    what, value, unit = (row[c] for c in COLUMNS)
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
