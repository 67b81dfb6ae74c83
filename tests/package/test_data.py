"""Every file of data is checked as it is read: what does not hold is refused by file, line and column."""

import csv
import io
import re
import tomllib
from importlib import resources

import pytest

from tuyere.core.basis.table import TableError, read
from tuyere.core.stations.inspect.diagnosis.check import KnowledgeError, check

TABLES = resources.files("tuyere.core") / "tables"
COLUMNS = tomllib.loads((TABLES / "columns.toml").read_text(encoding="utf-8"))
NAMES = sorted(p.name.removesuffix(".csv") for p in TABLES.iterdir() if p.name.endswith(".csv"))


def spoiled(text: str, line: int, column: str, value: str) -> str:
    """A table with one cell of one line changed."""
    lines = text.splitlines()
    heading = next(csv.reader([next(one for one in lines if one and not one.startswith("#"))]))
    row = next(csv.reader([lines[line - 1]]))
    row[heading.index(column)] = value
    out = io.StringIO()
    csv.writer(out, lineterminator="").writerow(row)
    return "\n".join([*lines[: line - 1], out.getvalue(), *lines[line:]])


@pytest.mark.parametrize("name", NAMES)
def test_a_cell_that_does_not_hold_is_refused_by_line_and_column(name: str) -> None:
    text = (TABLES / f"{name}.csv").read_text(encoding="utf-8")
    rows = read(name, text)
    last = max(n for n, one in enumerate(text.splitlines(), 1) if one and not one.startswith("#"))
    words = {c for c in rows[0] if c in COLUMNS["words"] or f"{name}.{c}" in COLUMNS["words"]}
    numbers = {c.rstrip("?") for c in COLUMNS["numbers"].get(name, "").split()}
    assert {"source", "confidence"} <= set(rows[0]) and words | numbers <= set(rows[0])
    for column in (words | numbers) | {"source"}:
        with pytest.raises(TableError, match=f"{name}.csv, line {last}, {column}: "):
            read(name, spoiled(text, last, column, "" if column == "source" else "purple"))
    with pytest.raises(TableError, match=f"{name}.csv, line {last}, more columns"):
        read(name, text.rstrip("\n") + ",more")


def test_what_is_said_of_columns_is_said_of_columns_that_there_are() -> None:
    headings = {n: read(n, (TABLES / f"{n}.csv").read_text(encoding="utf-8"))[0].keys() for n in NAMES}
    assert set(COLUMNS["numbers"]) <= set(NAMES)
    every = {column for columns in headings.values() for column in columns}
    for rule in COLUMNS["words"]:
        table, _, column = rule.rpartition(".")
        assert column in (headings[table] if table else every), rule


KNOWLEDGE = (resources.files("tuyere.core.stations.inspect.diagnosis") / "knowledge.toml").read_text(encoding="utf-8")


@pytest.mark.parametrize(
    ("was", "now", "said"),
    [
        (
            '[signs.squeal_start]\nlook = "ear"\nplace = "hear"',
            '[signs.squeal_start]\nlook = "ear"\nplace = "attic"',
            "signs.squeal_start, place: “attic”",
        ),
        ("just_squeals = 0.7", "just_squealed = 0.7", "causes.low_tension, shows: “just_squealed”"),
        ("just_squeals = 0.7", "just_squeals = 1.7", "causes.low_tension, shows: just_squeals is 1.7"),
        ("tension_gauge = 0.95", "tension_guage = 0.95", "causes.low_tension, checks: “tension_guage”"),
        ("prior = { v = 0.3, ribbed = 0.15", "prior = { vee = 0.3, ribbed = 0.15", "causes.low_tension, prior: “vee”"),
        ('page = "tension"\njobs', 'page = "tensoin"\njobs', "causes.low_tension, page: “tensoin”"),
        ('sign = "conv_stopped"', 'sign = "conv_stoppt"', "triage.conveyor conv_stoppt walk, sign"),
    ],
)
def test_an_entry_of_the_knowledge_that_does_not_hang_together_is_refused_by_line(was: str, now: str, said: str) -> None:
    spoilt = KNOWLEDGE.replace(was, now, 1)
    assert spoilt != KNOWLEDGE
    check(KNOWLEDGE, tomllib.loads(KNOWLEDGE))
    with pytest.raises(KnowledgeError, match=re.escape(said)) as refused:
        check(spoilt, tomllib.loads(spoilt))
    line = int(re.search(r"line (\d+)", str(refused.value))[1])  # type: ignore[index]
    key = said.split(",")[0]
    assert key.startswith("triage") or spoilt.splitlines()[line - 1] == f"[{key}]"
