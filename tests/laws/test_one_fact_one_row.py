"""Every number with a unit that stands in a sentence of the core or of its data is a row of tables/said.csv, and one fact is one figure
everywhere.
"""

import ast
import re
import tomllib
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

import tuyere.core
from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import from_si, parse
from tuyere.core.basis.table import rows
from tuyere.core.basis.units import KINDS

CORE = Path(tuyere.core.__file__).parent
PAGES = Path(__file__).parents[2] / "frontend" / "src"
UNITS = "°C|°F|°|%|mm|in|ft/min|m/s|rpm|hours|hour|h|days|day|weeks|years|minutes|min|lbf|lb|N|kN|hp|kW|psi|Hz|amps|teeth|pitches|turns|seconds|s"
FIGURE = re.compile(rf"(?<![\w.,/#-])(\d[\d ,.]*\d|\d)(?: to (\d[\d.,]*))? ?({UNITS})(?![\w²³/-])")
# Signs of a formula's own symbols (2 h, 2 N), and names of standards.
NO_FIGURE = re.compile(r"\b\d+-\d+ in |\bISO \d+ in |\(2 h\)|2 h tan|2 N T|2a_p = 0 in")
SI = {
    "°C": lambda v: v,
    "°F": lambda v: (v - 32) / 1.8,
    "in": lambda v: v * 25.4,
    "ft/min": lambda v: v * 0.00508,
    "hp": lambda v: v * 0.7457,
    "minutes": lambda v: v / 60,
    "min": lambda v: v / 60,
    "days": lambda v: v * 24,
    "day": lambda v: v * 24,
}
SAME = {
    "°F": "°C",
    "in": "mm",
    "ft/min": "m/s",
    "hp": "kW",
    "hours": "h",
    "hour": "h",
    "minutes": "h",
    "min": "h",
    "days": "h",
    "day": "h",
    "seconds": "s",
}


def texts(file: Path) -> Iterator[str]:
    if file.suffix == ".toml":
        yield from strings(tomllib.loads(file.read_text()))
        return
    if file.suffix == ".csv":
        for row in rows(file.stem):
            yield from (cell for column, cell in row.items() if column != "source")
        return
    if file.suffix == ".vue":
        yield from (" ".join(part.split()) for part in re.findall(r"'[^']*'|\"[^\"]*\"|>[^<>]*<", NO_STYLE.sub("", file.read_text())))
        return
    tree = ast.parse(file.read_text())
    docs = {
        id(n.body[0].value)
        for n in ast.walk(tree)
        if isinstance(n, ast.Module | ast.FunctionDef | ast.ClassDef) and isinstance(n.body[0], ast.Expr)
    }
    yield from (n.value for n in ast.walk(tree) if isinstance(n, ast.Constant) and isinstance(n.value, str) and id(n) not in docs)


def strings(told: Any) -> Iterator[str]:
    if isinstance(told, str):
        yield told
    elif isinstance(told, dict | list):
        for one in told.values() if isinstance(told, dict) else told:
            yield from strings(one)


NO_STYLE = re.compile(r"<style.*?</style>|<svg.*?</svg>", re.S)
SENTENCE = re.compile(r"[A-Za-z]{3,} .*\d|\d.* [A-Za-z]{3,}", re.S)


def found() -> set[tuple[str, str]]:
    """In the core every figure; of the tables those whose cells are read out at a station; of the pages whole sentences."""
    tables = [CORE / "tables" / f"{name}.csv" for name in ("cautions", "due_rules", "round_items", "wear_limits")]
    pages = [f for f in PAGES.rglob("*.vue") if "/test" not in str(f)]
    return {
        (str(file.relative_to(CORE if CORE in file.parents else PAGES)), m.group(0))
        for file in (*CORE.rglob("*.py"), *CORE.rglob("*.toml"), *tables, *pages)
        for text in texts(file)
        if file.suffix != ".vue" or SENTENCE.search(text)
        for m in FIGURE.finditer(NO_FIGURE.sub(" ", text))
    }


SAID = [(r["file"], r["figure"], r["fact"]) for r in rows("said")]


def test_each_figure_in_a_sentence_is_a_row_and_each_row_is_said() -> None:
    told = {(file, figure) for file, figure, _ in SAID}
    assert sorted(found() - told) == [] and sorted(told - found()) == []


def in_si(figure: str) -> tuple[tuple[float, ...], str]:
    m = FIGURE.fullmatch(figure)
    assert m
    unit = m.group(3)
    numbers = (
        [0.0] if figure.count(" ") > 2 and "to" not in figure else [float(g.replace(" ", "").replace(",", "")) for g in m.groups()[:2] if g]
    )
    return tuple(SI.get(unit, lambda v: v)(n) for n in numbers), SAME.get(unit, unit)


def test_one_fact_is_one_figure_and_its_limit_is_the_tables() -> None:
    figures: dict[tuple[str, str], list[tuple[tuple[float, ...], str]]] = defaultdict(list)
    for file, figure, fact in SAID:
        values, unit = in_si(figure)
        figures[fact, unit].append((values, f"{file}: {figure}"))
    names = {r["name"]: r for r in rows("limits")}
    for (fact, unit), said in figures.items():
        if fact in ("an example", "a form"):
            continue
        for values, where in said:
            assert values == pytest.approx(said[0][0], rel=0.03, abs=1.0 if unit == "°C" else 1e-9), (fact, where)
            if fact in names and names[fact]["unit"] and unit != "°":
                limits, same = in_si(f"{names[fact]['value']} {names[fact]['unit']}")
                assert same == unit and values == pytest.approx(limits, rel=0.02), (fact, where)
            elif fact in names and unit == "%":
                assert values[0] == pytest.approx(100 * limit(fact).value), (fact, where)


def test_a_refusal_names_the_bounds_of_its_field() -> None:
    """Where a field says from what to what it takes, all of that is taken: whoever does as the sentence says is not refused again."""
    number = r"(\d+ \d+/\d+|\d+/\d+|\d[\d ]*\d\d\d|\d+(?:\.\d+)?)"
    span = re.compile(rf"between {number} and {number}|{number} to {number} (?!\d)")
    told = 0
    for key, field in FIELDS.items():
        low, high = field.bounds_si()
        if not (match := span.search(field.refusal)):
            continue
        least, most = (_value(n) for n in match.groups() if n)
        told += 1
        units = [u.symbol for u in KINDS[field.kind].units]
        assert any(from_si(low, field.kind, u) <= 1.02 * least and most <= 1.02 * from_si(high, field.kind, u) for u in units), (
            key,
            field.refusal,
        )
    assert told > 0.5 * len(FIELDS)


def _value(text: str) -> float:
    whole, _, part = text.rpartition(" ") if "/" in text else (text.replace(" ", ""), "", "")
    top, _, under = part.partition("/")
    return (float(whole) if whole else 0.0) + (float(top) / float(under) if part else 0.0)


def test_a_constant_with_a_unit_says_where_it_is_from() -> None:
    """A number of the trade that stands in a module, and is no row, has its ground beside it."""
    constant = re.compile(r"^_?[A-Z][A-Z_]*_(?:W|M|N|RAD|H|DEG|S|C|PA|HZ|MM|KG|MIN|DAYS)\b[^=]*= *[\d(]")
    for file in CORE.rglob("*.py"):
        lines = file.read_text().splitlines()
        bare = [line for before, line in zip(["", *lines], lines, strict=False) if constant.match(line) and "#" not in line + before]
        assert not bare, (file.name, bare)


RANGE = re.compile(r"(-?\d[\d ./]*)(?: (in|ft))? (?:and|to) (\d[\d ./]*) (in|ft|rpm|hp|lbf|degrees|A|Hz|cfm|turns|mm)\b")


@pytest.mark.parametrize("key", [k for k, f in FIELDS.items() if RANGE.search(f.refusal)])
def test_what_a_field_says_it_takes_is_what_it_takes(key: str) -> None:
    """The range in its sentence lies within what is possible, and names both ends, rounded as people say them."""
    of = FIELDS[key]
    ranges = [m.groups() for m in RANGE.finditer(of.refusal)]
    low, high = of.bounds_si()

    def si(text: str, unit: str) -> float:
        sign = -1 if text.startswith("-") else 1
        text = text.strip("- ")
        text = text.replace(" ", "") if re.fullmatch(r"[\d ]{5,}", text) else text
        found = parse(text, of.kind, {"degrees": "°"}.get(unit, unit))
        assert found
        return sign * found.value_si

    said = [(si(a, unit_a or unit_b), si(b, unit_b)) for a, unit_a, b, unit_b in ranges]
    near = [abs(a - low) <= 0.3 * abs(low) + 1e-9 and abs(b - high) <= 0.05 * abs(high) for a, b in said]
    assert any(near), (of.refusal, said, (low, high))
    assert all(low - 1e-9 <= a and b <= high + 1e-9 for a, b in said)
