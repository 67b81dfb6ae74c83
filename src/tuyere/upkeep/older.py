"""Rows out of a backup of an older Tuyere, which was PostgreSQL's dump as SQL: its COPY blocks are read as data, nothing is run."""

import gzip
import re
import tempfile
from collections.abc import Iterator
from pathlib import Path

from psycopg import sql

from tuyere.upkeep.owners import Connection
from tuyere.upkeep.said import GivingUp

_BLOCK = re.compile(rb"COPY public\.(\w+) \(([\w, \"]+)\) FROM stdin;\r?\n")
_END = b"\\.\n"


def blocks(file: Path) -> Iterator[tuple[str, list[str], Iterator[bytes]]]:
    """Each table's rows in the order of the file: table, columns, lines. Every other line is skipped. Raises GivingUp."""
    try:
        with gzip.open(file) as lines:
            for line in lines:
                if found := _BLOCK.fullmatch(line):
                    columns = [c.strip().strip('"') for c in found[2].decode().split(",")]
                    yield found[1].decode(), columns, _rows(lines)
    except (OSError, EOFError) as error:
        raise GivingUp(f"{file} could not be read as a backup: {error}") from None


def _rows(lines: Iterator[bytes]) -> Iterator[bytes]:
    for line in lines:
        if line == _END:
            return
        yield line
    raise EOFError("it ends in the middle of a table")


def revision_of(file: Path) -> str:
    """The revision of the migrations that it was made at. Raises GivingUp."""
    for table, _, rows in blocks(file):
        told = [row.decode().strip() for row in rows] if table == "alembic_version" else []
        if told and re.fullmatch(r"\w{1,40}", told[0]):
            return told[0]
        _pass_over(rows)
    raise GivingUp(f"{file} holds no plant.")


def load(inside: Connection, file: Path, order: list[str]) -> None:
    """Put the rows of our tables where they belong, parents first. Raises GivingUp, psycopg.Error."""
    with tempfile.TemporaryDirectory(prefix="tuyere-restore-") as folder:
        columns = {}
        for table, named, rows in blocks(file):
            if table in order and table not in columns:
                columns[table] = named
                with (Path(folder) / table).open("wb") as out:
                    out.writelines(rows)
            else:
                _pass_over(rows)
        for table in (t for t in order if t in columns):
            named_columns = sql.SQL(", ").join(map(sql.Identifier, columns[table]))
            into = sql.SQL("COPY {} ({}) FROM STDIN").format(sql.Identifier(table), named_columns)
            with inside.cursor().copy(into) as copy, (Path(folder) / table).open("rb") as kept:
                while piece := kept.read(1024 * 1024):
                    copy.write(piece)


def _pass_over(rows: Iterator[bytes]) -> None:
    for _ in rows:
        pass
