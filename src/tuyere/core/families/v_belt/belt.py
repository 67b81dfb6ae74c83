"""A belt by its name: reading names across systems, standard lengths, the nearest ones. Figures: tables/v_belt_lengths.csv."""

import re
from dataclasses import dataclass, replace
from functools import cache

from tuyere.core.families.v_belt.length import lengths, number_from_datum, number_from_outside
from tuyere.core.families.v_belt.section import BeltError, Section, section, sections
from tuyere.core.quantity import to_si
from tuyere.core.table import rows


@dataclass(frozen=True)
class Belt:
    """A belt by designation: its section, the number in its name, datum length (m), whether listed; ribs of a joined or ribbed one."""

    section: Section
    number: float
    datum_length_m: float
    listed: bool
    preferred: bool
    ribs: int | None = None

    @property
    def designation(self) -> str:
        """The name to ask for; `parse_designation` reads it back."""
        if self.section.construction == "ribbed":
            return f"{self.ribs or ''}{self.section.name} {self.number:g}"
        joined = f"{self.ribs}/" if self.ribs else ""
        space = " " if self.section.unit == "mm" else ""
        return f"{joined}{self.section.stamp}{space}{self.number:g}"


_PREFIX = r"(?:(\d{1,2})\s*[/-]\s*)?"
_NUMBER = r"(\d{2,5}(?:\.\d)?)"
_STAMPS = "|".join(sorted((re.escape(name.upper()).replace("\\ ", r"\s*") for name in sections()), key=len, reverse=True))
_NAME = re.compile(rf"{_PREFIX}({_STAMPS})\s*-?\s*{_NUMBER}")
_RIBBED = re.compile(rf"(\d{{1,2}})?\s*(P[HJKLM])\s*-?\s*{_NUMBER}")
_RIBBED_INCH = re.compile(r"(\d{3,4})\s*([HJKLM])\s*(\d{1,2})")
_WIDTH_BY_LENGTH = re.compile(r"(\d{1,2})\s*[X×]\s*(\d{3,5})\s*(LI|LD|LW|LP|LA)?")
_BY_WIDTH = {"6": "Y", "10": "Z", "13": "ISO A", "17": "ISO B", "22": "ISO C", "32": "ISO D", "38": "ISO E", "40": "ISO E"}
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
    belt = _ribbed(cleaned) or _by_width(cleaned) or _by_name(cleaned)
    if not belt:
        raise BeltError(
            f"“{text.strip()[:20]}” is not a belt name known here: write it as it stands on the belt, such as B81, 5VX830, 4L430 or SPA 1180."
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
    if not match or match[1] not in _BY_WIDTH:
        return None
    found, length, by = section(_BY_WIDTH[match[1]]), int(match[2]) / 1000, match[3] or "LI"
    if by == "LI":
        number = (length - (found.to_inside_m or 0.0)) / found.step_m
    elif by == "LA":
        number = number_from_outside(found, length)
    else:
        number = number_from_datum(found, length)
    return belt_of(found, round(number))


def _by_name(text: str) -> Belt | None:
    match = _NAME.fullmatch(text)
    if not match:
        return None
    stamp, number, ribs = " ".join(match[2].split()), float(match[3]), int(match[1]) if match[1] else None
    if stamp in _INCH_ENDS and number > _INCH_ENDS[stamp]:
        stamp = f"ISO {stamp}"
    for word in ("ISO", "LINK"):
        if stamp.startswith(word):
            stamp = f"{word} {stamp.removeprefix(word).strip()}"
    return belt_of(section(stamp), number, ribs)


def nearest_belts(belt: Section, datum_length_m: float) -> tuple[Belt | None, Belt | None]:
    """The standard belts just below (or at) and just above a datum length; None beyond the end of the list."""
    below = [b for b in standard_belts(belt.name) if b.datum_length_m <= datum_length_m]
    above = [b for b in standard_belts(belt.name) if b.datum_length_m > datum_length_m]
    return (below[-1] if below else None), (above[0] if above else None)
