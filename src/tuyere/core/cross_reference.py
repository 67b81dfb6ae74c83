"""A shop's own cross-reference: the machine's part number to the belt it means, read from CSV, reported row by row."""

import csv
import io
from dataclasses import dataclass

from tuyere.core.families.v_belt import BeltError, parse_designation

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
class RowReport:
    """What became of one row; `line` counts the heading as line 1."""

    line: int
    part_number: str
    taken: bool
    sentence: str


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
    """Read a cross-reference: a heading line with part_number and designation (machine and note if wanted), comma or semicolon."""
    cleaned = text.removeprefix("\ufeff")
    if "\x00" in cleaned:
        return Report((), (), "This is not a text file: save the list as CSV (comma separated, UTF-8).")
    heading = cleaned.split("\n", 1)[0]
    reader = csv.DictReader(io.StringIO(cleaned), delimiter=";" if heading.count(";") > heading.count(",") else ",")
    try:
        columns = [(name or "").strip().lower() for name in reader.fieldnames or ()]
        missing = [c for c in COLUMNS[:2] if c not in columns]
        if missing:
            return Report((), (), f"The first line must name the columns {', '.join(COLUMNS)}: {' and '.join(missing)} is missing.")
        reader.fieldnames = columns
        raw = list(reader)
    except csv.Error as reason:
        return Report((), (), f"The file cannot be read as CSV ({reason}).")
    if len(raw) > LIMIT_ROWS:
        return Report((), (), f"At most {LIMIT_ROWS} rows at a time: split the file.")
    entries: dict[str, Entry] = {}
    rows = []
    for line, row in enumerate(raw, start=2):
        entry, sentence = _row(row)
        if entry and key_of(entry.part_number) in entries:
            sentence, entry = "The same part number stands higher up in this file: the first row counts.", None
        if entry:
            entries[key_of(entry.part_number)] = entry
        rows.append(RowReport(line, ((row.get("part_number") or "").strip())[:40], entry is not None, sentence))
    return Report(tuple(entries.values()), tuple(rows))


def _row(row: dict[str, str]) -> tuple[Entry | None, str]:
    cells = {c: (row.get(c) or "").strip() for c in COLUMNS}
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
