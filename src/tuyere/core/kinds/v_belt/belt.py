"""A belt by its name: reading names across systems, standard lengths, the nearest ones. Figures: tables/v_belt_lengths.csv."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cache

from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.v_belt.broad import broad_named
from tuyere.core.kinds.v_belt.length import lengths, number_from_datum, number_from_outside
from tuyere.core.kinds.v_belt.section import BeltError, Section, section, sections


@dataclass(frozen=True)
class Belt:
    """A belt by designation.

    Its section, the number in its name, datum length (m), whether in the standard list; ribs of a joined or ribbed one.
    """

    section: Section
    number: float
    datum_length_m: float
    listed: bool
    preferred: bool
    ribs: int | None = None

    @property
    def made(self) -> bool:
        """Whether it is in the standard list or, by trade habit, a length that the trade makes."""
        return self.listed or self.number in made_numbers(self.section.name)

    @property
    def designation(self) -> str:
        """The name to ask for; `parse_designation` reads it back."""
        if self.section.construction == "ribbed":
            return f"{self.ribs or ''}{self.section.name} {self.number:g}"
        if self.section.name.startswith("DIN "):
            joined = f"{self.ribs}/" if self.ribs else ""
            return f"{joined}{self.section.name.removeprefix('DIN ')}x{self.number:g} Lw"  # named by its width and datum length
        joined = f"{self.ribs}/" if self.ribs else ""
        space = " " if self.section.unit == "mm" else ""
        return f"{joined}{self.section.stamp}{space}{self.number:g}"


_PREFIX = r"(?:(\d{1,2})\s*[/-]\s*)?"
_NUMBER = r"(\d{2,5}(?:\.\d)?)"
_STAMPS = "|".join(sorted((re.escape(name.upper()).replace("\\ ", r"\s*") for name in sections()), key=len, reverse=True))
_NAME = re.compile(rf"{_PREFIX}({_STAMPS})\s*-?\s*{_NUMBER}")
_RIBBED = re.compile(rf"(\d{{1,2}})?\s*(P[HJKLM])\s*-?\s*{_NUMBER}")
_RIBBED_INCH = re.compile(r"(\d{3,4})\s*([HJKLM])\s*(\d{1,2})")
_WIDTH_BY_LENGTH = re.compile(rf"{_PREFIX}(\d{{1,2}})\s*[X×]\s*(\d{{3,5}}(?:\.\d)?)\s*(LI|LD|LW|LP|LA)?")
BY_WIDTH = {
    "6": "Y",
    "10": "Z",
    "13": "ISO A",
    "17": "ISO B",
    "20": "DIN 20",
    "22": "ISO C",
    "25": "DIN 25",
    "32": "ISO D",
    "38": "ISO E",
    "40": "ISO E",
}
# Inch numbers of A to E end at 660, A's at about 200; metric ones begin well above.
_INCH_ENDS = {"A": 400, "B": 700, "C": 700, "D": 700, "E": 700}


@cache
def standard_belts(name: str) -> tuple[Belt, ...]:
    """The standard belts of a section, shortest first."""
    belt = section(name)
    listed = [
        Belt(belt, number, lengths(belt, number).datum_m, True, r["preferred"] == "yes")
        for r in rows("v_belt_lengths")
        if r["section"] == belt.name
        for number in (float(r["number"]),)
    ]
    return tuple(sorted(listed, key=lambda b: b.datum_length_m))


@cache
def trade_range(name: str) -> tuple[float, float] | None:
    """The numbers between which belts of a section can be had (an availability hint); None where not known."""
    for r in rows("v_belt_trade_range"):
        if r["section"] == name:
            return float(r["number_from"]), float(r["number_to"])
    listed = standard_belts(name)
    return (listed[0].number, listed[-1].number) if listed else None


@cache
def made_numbers(name: str) -> tuple[float, ...]:
    """The numbers that belts of a section carry: the standard list and, by trade habit, the whole steps between."""
    listed = {b.number for b in standard_belts(name)}
    ends = trade_range(name)
    if ends:
        found = section(name)
        step = 1 if found.step_m > 0.01 else 10
        listed |= {float(n) for n in range(int(ends[0]), int(ends[1]) + 1, step)}
    return tuple(sorted(listed))


def counter_numbers(name: str) -> tuple[float, ...]:
    """What may be asked for at a counter unseen: the standard list, and in inch sections each inch that the trade makes.

    Metric belts off the list are made too, in no steps to count on: they are read from a label, and not offered.
    """
    return made_numbers(name) if section(name).unit == "in" else tuple(sorted(b.number for b in standard_belts(name)))


def belt_of(found: Section, number: float, ribs: int | None = None) -> Belt:
    """The belt of a section with `number` in its name, listed or not."""
    for standard in standard_belts(found.name):
        if standard.number == number:
            return replace(standard, ribs=ribs)
    return Belt(found, number, lengths(found, number).datum_m, False, False, ribs)


def parse_designation(text: str, expected: Section | None = None) -> Belt:
    """Read a designation of any system: ``B81``, ``B-81``, ``BX81``, ``5VX830``, ``4L430``, ``SPA 1180``, ``A 1400`` (metric),
    ``13x1400 Li``, ``4/5V1000`` (joined, four ribs), ``6PK 1195``, ``430J6``. A bare number takes the `expected` section.

    Raises BeltError with a sentence.
    """
    cleaned = " ".join(text.upper().split())
    if expected and re.fullmatch(_NUMBER, cleaned):
        cleaned = f"{expected.name.upper()} {cleaned}"
    if broad := broad_named(cleaned):
        raise BeltError(broad.sentence)
    belt = _ribbed(cleaned) or _by_width(cleaned) or _by_name(cleaned)
    if not belt:
        raise BeltError(
            f"“{text.strip()[:20]}” is not a belt name known here: write it as it stands on the belt, such as B81, 5VX830, 4L430 or SPA "
            "1180."
        )
    shortest = trade_range(belt.section.name)
    if shortest and belt.number < 0.4 * shortest[0]:
        raise BeltError(f"{belt.designation} is too short to be a belt of this section.")
    if expected and belt.section.groove != expected.groove:
        raise BeltError(
            f"{belt.designation} is a section {belt.section.name} belt and the drive is set to {expected.name}: change one of them."
        )
    return belt


def _ribbed(text: str) -> Belt | None:
    if match := _RIBBED.fullmatch(text):
        return belt_of(section(match[2]), float(match[3]), int(match[1]) if match[1] else None)
    if match := _RIBBED_INCH.fullmatch(text):
        millimetres = round(to_si(int(match[1]) / 10, "length", "in") * 1000)
        return belt_of(section("P" + match[2]), millimetres, int(match[3]))
    return None


def _by_width(text: str) -> Belt | None:
    match = _WIDTH_BY_LENGTH.fullmatch(text)
    if not match or match[2] not in BY_WIDTH:
        return None
    found, length, by = section(BY_WIDTH[match[2]]), float(match[3]) / 1000, match[4] or "LI"
    if by == "LI":
        number = (length - (found.to_inside_m or 0.0)) / found.step_m
    elif by == "LA":
        number = number_from_outside(found, length)
    else:
        number = number_from_datum(found, length)
    whole = number if by in ("LD", "LW", "LP") else round(number)
    return belt_of(found, round(whole, 1), int(match[1]) if match[1] else None)


def _by_name(text: str) -> Belt | None:
    match = _NAME.fullmatch(text)
    if not match:
        return None
    stamp, number, ribs = " ".join(match[2].split()), float(match[3]), int(match[1]) if match[1] else None
    if stamp in _INCH_ENDS and number > _INCH_ENDS[stamp]:
        stamp = f"ISO {stamp}"
    for word in ("ISO", "LINK", "DIN"):
        if stamp.startswith(word):
            stamp = f"{word} {stamp.removeprefix(word).strip()}"
    return belt_of(section(stamp), number, ribs)


# Sections whose belts may be stamped with the plain one's letter on the counter's list: the number is the same.
_SPECIAL = ("cogged", "hexagonal")


def of_section(belt: Belt, section: Section) -> Belt:
    """The belt under the section that a drive is made for: B83 asked for a BX or HB drive is BX83, HB83.

    Another groove's belt stays as it is.

    >>> from tuyere.core.kinds.v_belt.section import section
    >>> of_section(parse_designation("B83"), section("BX")).designation, of_section(parse_designation("BX83"), section("B")).designation
    ('BX83', 'BX83')
    """
    plain = belt.section.construction == "wrapped" and belt.section.series == "classical inch"
    special = section.construction in _SPECIAL or section.series == "agricultural inch"
    narrow = belt.section.construction == "wrapped" and section.construction == "cogged" and "narrow" in belt.section.series
    if belt.section.groove == section.groove and belt.section.name != section.name and ((plain and special) or narrow):
        return belt_of(section, belt.number, belt.ribs)
    return belt


def nearest_belts(belt: Section, datum_length_m: float) -> tuple[Belt | None, Belt | None]:
    """The standard belts just below (or at) and just above a datum length; None where none is near it (limits)."""
    return _near(standard_belts(belt.name), datum_length_m)


def nearest_made(belt: Section, datum_length_m: float) -> tuple[Belt | None, Belt | None]:
    """The belts that a counter may have, standard or not, just below (or at) and just above a datum length; None as for nearest_belts."""
    return _near(sorted((belt_of(belt, n) for n in counter_numbers(belt.name)), key=lambda b: b.datum_length_m), datum_length_m)


def _near(made: Sequence[Belt], length_m: float) -> tuple[Belt | None, Belt | None]:
    most = limit("near length").value
    near = [b for b in made if abs(b.datum_length_m - length_m) <= most * max(b.datum_length_m, length_m)]
    below = [b for b in near if b.datum_length_m <= length_m]
    return (below[-1] if below else None), (near[len(below)] if len(below) < len(near) else None)
