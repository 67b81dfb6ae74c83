"""A shop's own cross-reference: the machine's part number to the belt it means, read from CSV or JSON, reported row by row."""

from dataclasses import dataclass

from tuyere.core.basis.rows_file import RowReport, RowsFileError, read_rows
from tuyere.core.kinds.v_belt import BeltError, parse_designation

COLUMNS = ("part_number", "designation", "machine", "note")
LIMIT_ROWS = 20_000
LIMIT_TEXT = 120


@dataclass(frozen=True)
class Entry:
    """One good row: the part number as printed, the belt it means in our own writing (empty: not a V-belt known here), and notes."""

    part_number: str
    designation: str
    machine: str
    note: str


@dataclass(frozen=True)
class Report:
    """The rows taken and the report on each row; `refused` is a sentence when the file as a whole cannot be read."""

    entries: tuple[Entry, ...]
    rows: tuple[RowReport, ...]
    refused: str = ""


def key_of(part_number: str) -> str:
    """The part number without case, blanks and punctuation, so that 12-345 A finds 12345a."""
    return "".join(c for c in part_number.upper() if c.isalnum())


def read_csv(text: str) -> Report:
    """Read a cross-reference: part_number and designation, machine and note if wanted; CSV with a heading line, or JSON."""
    try:
        raw = read_rows(text, COLUMNS, 2, LIMIT_ROWS)
    except RowsFileError as reason:
        return Report((), (), str(reason))
    entries: dict[str, Entry] = {}
    rows = []
    for line, row in raw:
        entry, sentence = _row(row)
        if entry and key_of(entry.part_number) in entries:
            sentence, entry = "The same part number stands higher up in this file: the first row counts.", None
        if entry:
            entries[key_of(entry.part_number)] = entry
        rows.append(RowReport(line, row["part_number"][:40], entry is not None, sentence))
    return Report(tuple(entries.values()), tuple(rows))


def _row(cells: dict[str, str]) -> tuple[Entry | None, str]:
    if not key_of(cells["part_number"]):
        return None, "No part number: fill in the first column."
    long = [c for c in COLUMNS if len(cells[c]) > LIMIT_TEXT]
    if long:
        return None, f"{long[0]} is longer than {LIMIT_TEXT} characters."
    if any(not c.isprintable() for c in "".join(cells.values())):
        return None, "It holds characters that cannot be printed."
    if not cells["designation"]:
        return None, "No designation: write the belt it means, such as B81."
    try:
        belt = parse_designation(cells["designation"])
    except BeltError as reason:
        return None, str(reason)
    return Entry(cells["part_number"], belt.designation, cells["machine"], cells["note"]), f"Taken as {belt.designation}."
