"""A shop's own list of wheels, belts and chain: what it can have, what lies on the shelf, and what each costs. Read from an open file."""

from collections.abc import Callable
from dataclasses import dataclass

from tuyere.core.basis.quantity import QuantityError, parse, whole_number
from tuyere.core.basis.rows_file import RowReport, RowsFileError, read_rows
from tuyere.core.kinds import roller_chain, synchronous, v_belt
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.part_row import Of, PartRow

COLUMNS = ("part", "for", "size", "grooves", "width", "on_hand", "price", "number")
ABOUT = {
    "part": "wheel, belt or chain",
    "for": "what it runs with, by the name used here: a groove (B, SPA), a toothed profile (L, H8M), a chain (60, 08B), a flat belt's name; flat for a flat pulley",
    "size": "V-sheave: datum or pitch diameter with its unit, or outside diameter with the word outside after it; flat pulley: outside diameter; toothed pulley and sprocket: teeth; belt: its name (B68, 8M-1200); nothing for chain and flat belting, which are cut to length",
    "grooves": "V-sheave: how many grooves; sprocket and chain: how many strands (1 where left out); a joined or ribbed belt says its ribs in its name",
    "width": "toothed and flat belt: its width; their pulleys: the widest belt they take; with the unit",
    "on_hand": "how many lie on the shelf; leave out where it is ordered",
    "price": "of one, or of a metre where it is cut to length; in your own money",
    "number": "your own part number, if you want to see it",
}
NEEDED = 3  # of the columns, from the first
EXAMPLE = """part,for,size,grooves,width,on_hand,price,number
wheel,B,5.4 in,2,,1,31.50,
wheel,B,11 in,2,,,58,
belt,B,B68,,,6,12.40,V-068
wheel,H8M,32,,30 mm,2,27,
belt,H8M,8M-1200,,30 mm,,41,
wheel,60,17,1,,3,14,
chain,60,,1,,4,9.80,
"""
LIMIT_ROWS = 20_000
_WORDS = 60
_LEAST_M, _MOST_M = 0.003, 10.0  # bounds of what a list may hold, as the sentence says
_OUTSIDE = ("outside", "od")
_BASES = (*_OUTSIDE, "datum", "pitch")


def across_m(row: PartRow) -> float:
    """Diameter of a wheel, over its line, m; 0 for what is no wheel."""
    if row.part != "wheel":
        return 0.0
    if row.of == "toothed":
        return synchronous.pitch_diameter(synchronous.profile(row.fits), int(row.size))
    return roller_chain.pitch_diameter(roller_chain.chain(row.fits).pitch_m, row.size) if row.of == "chain" else row.size


@dataclass(frozen=True, eq=False)
class PartsList:
    """A shop's parts."""

    rows: tuple[PartRow, ...] = ()

    def on_the_shelf(self) -> "PartsList":
        """Only what lies there now."""
        return PartsList(tuple(r for r in self.rows if r.on_hand))

    @property
    def priced(self) -> bool:
        """Whether any part has a price."""
        return any(r.price is not None for r in self.rows)


@dataclass(frozen=True)
class PartsReport:
    """The parts taken, and the report on each row; `refused` when the file as a whole cannot be read."""

    parts: PartsList
    rows: tuple[RowReport, ...]
    refused: str = ""


def read_parts(text: str) -> PartsReport:
    """Read a file of parts; a row that cannot be read is left out and says why.

    >>> report = read_parts("part,for,size,grooves,price\\nwheel,B,5.4 in,2,31\\nbelt,B,B68,,12\\nbelt,B,Q68,,12\\n")
    >>> [r.taken for r in report.rows], round(report.parts.rows[1].size, 3)
    ([True, True, False], 1.773)
    """
    try:
        raw = read_rows(text, COLUMNS, NEEDED, LIMIT_ROWS)
    except RowsFileError as reason:
        return PartsReport(PartsList(), (), str(reason))
    taken: dict[tuple[object, ...], PartRow] = {}
    reports = []
    for line, cells in raw:
        what = f"{cells['part']} {cells['for']} {cells['size']}".strip()[:60]
        try:
            row = _row(line, cells)
        except (QuantityError, ValueError) as reason:
            reports.append(RowReport(line, what, False, str(reason)))
            continue
        if row.same in taken:
            reports.append(RowReport(line, what, False, f"The same part stands in line {taken[row.same].line}: the first row counts."))
            continue
        taken[row.same] = row
        reports.append(RowReport(line, what, True, "Taken."))
    return PartsReport(PartsList(tuple(taken.values())), tuple(reports))


def _row(line: int, cells: dict[str, str]) -> PartRow:
    part, name = cells["part"].lower(), cells["for"]
    if part not in ("wheel", "belt", "chain"):
        raise ValueError("Write wheel, belt or chain in the first column.")
    long = next((c for c in COLUMNS if len(cells[c]) > _WORDS), None)
    if long:
        raise ValueError(f"{long} is longer than {_WORDS} characters.")
    of = _family(name, part)
    size, said = _SIZE[part, of](cells["size"], name)
    grooves = _whole(cells["grooves"]) if of == "chain" or (of == "v" and part == "wheel") else 1
    if (part, of) == ("belt", "v"):
        grooves = v_belt.parse_designation(cells["size"], v_belt.section(name)).ribs or 1
    width = _length(cells["width"], "width") if of in ("toothed", "flat") else 0.0
    fits = _wheel_fits(of, name) if part == "wheel" else name
    return PartRow(
        line,
        "wheel" if part == "wheel" else "chain" if part == "chain" else "belt",
        of,
        fits,
        size,
        said,
        grooves,
        width,
        _number(cells["on_hand"], "on_hand"),
        _number(cells["price"], "price"),
        cells["number"],
    )


def _family(name: str, part: str) -> Of:
    """The family of a name. Raises ValueError."""
    grooves = {s.groove for s in v_belt.sections().values()}
    found: Of | None = None
    if name in v_belt.sections() or (part == "wheel" and name in grooves):
        found = "v"
    elif name in synchronous.profiles():
        found = "toothed"
    elif name in roller_chain.chains():
        found = "chain"
    elif name in flat_belts() or (part == "wheel" and name == "flat"):
        found = "flat"
    if found is None or (part == "chain") != (found == "chain" and part != "wheel"):
        raise ValueError(f"“{name[:30]}” is no {part if part == 'chain' else 'belt'} known here: write its name as the Tables have it.")
    return found


def _wheel_fits(of: Of, name: str) -> str:
    if of == "v":
        return v_belt.sections()[name].groove if name in v_belt.sections() else name
    return "flat" if of == "flat" else name


def _length(text: str, column: str) -> float:
    parsed = parse(text, "length", "mm")
    if parsed is None or not parsed.unit_was_written or parsed.value_si <= 0:
        raise ValueError(f"Write the {column} with its unit, such as 125 mm or 5 in.")
    if not _LEAST_M <= parsed.value_si <= _MOST_M:
        raise ValueError(f"A {column} of {text[:20]} cannot be: write 3 mm to 10 m.")
    return parsed.value_si


def _across(text: str, name: str) -> tuple[float, str]:
    return _length(text, "size"), text


def _sheave(text: str, name: str) -> tuple[float, str]:
    """A V-sheave's datum or pitch diameter; by its outside where the word says so."""
    words = text.split()
    basis = words[-1].lower() if words else ""
    given = _length(text.removesuffix(words[-1]) if basis in _BASES else text, "size")
    if basis not in _OUTSIDE:
        return given, text
    return v_belt.datum_from_outside(next(s for s in v_belt.sections().values() if name in (s.name, s.groove)), given), text


def _teeth(text: str, name: str) -> tuple[float, str]:
    teeth = whole_number(text, 5, 500)
    if teeth is None:
        raise ValueError("Write its teeth as a whole number, 5 to 500.")
    return float(teeth), f"{teeth} teeth"


def _v_belt(text: str, name: str) -> tuple[float, str]:
    belt = v_belt.parse_designation(text, v_belt.section(name))
    if belt.section.name != name:
        raise ValueError(f"{belt.designation} is a section {belt.section.name} belt, and the row is for {name}: change one of them.")
    single = v_belt.belt_of(belt.section, belt.number)
    return belt.datum_length_m, single.designation


def _toothed_belt(text: str, name: str) -> tuple[float, str]:
    belt, of = synchronous.parse_name(text), synchronous.profile(name)
    if belt.profile.pitch_name != of.pitch_name:
        raise ValueError(f"{text} is not a {name} belt: change one of them.")
    return belt.teeth * of.pitch_m, synchronous.ToothedBelt(of, belt.teeth, None, True).designation


def _cut(text: str, name: str) -> tuple[float, str]:
    if text:
        raise ValueError("It is cut to length: leave the size empty, and give the price of a metre.")
    return 0.0, "cut to length"


_SIZE: dict[tuple[str, Of], Callable[[str, str], tuple[float, str]]] = {
    ("wheel", "v"): _sheave,
    ("wheel", "flat"): _across,
    ("wheel", "toothed"): _teeth,
    ("wheel", "chain"): _teeth,
    ("belt", "v"): _v_belt,
    ("belt", "toothed"): _toothed_belt,
    ("belt", "flat"): _cut,
    ("chain", "chain"): _cut,
}


def _whole(text: str) -> int:
    if not text:
        return 1
    counted = whole_number(text, 1, 20)
    if counted is None:
        raise ValueError("Write the grooves or strands as a whole number, 1 to 20.")
    return counted


def _number(text: str, column: str) -> float | None:
    if not text:
        return None
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        value = -1.0
    if not 0 <= value <= 1e7:
        raise ValueError(f"Write the {column.replace('_', ' ')} as a plain number, such as 12.50.")
    return value
