"""Belt labels that can be read only in part, and the marks on a wheel."""

import re
from collections.abc import Iterator
from functools import cache, lru_cache

from tuyere.core.kinds.v_belt import Belt, BeltError, Section, belt_of, made_numbers, parse_designation, sections
from tuyere.core.kinds.v_belt.belt import BY_WIDTH

# Likelihood of the fragment given the belt: a whole match, the number alone, an end missing, and a label misread.
WHOLE, NUMBER_ONLY, END_MISSING, MISREAD = 1.0, 0.5, 0.25, 0.004
# A label that is a whole name is hardly ever misread into another section's, and seldom what is left of a longer one.
MISREAD_WHOLE, END_MISSING_WHOLE = 0.0002, 0.02


@lru_cache(maxsize=256)
def named(label: str) -> Belt | None:
    """The belt that a label names, where it can be read whole: 6PK1200, 4/5V1120, 3/B60, 13x1250; None for a fragment or a bare number."""
    if "?" in label or "*" in label or plain(label).isdigit():
        return None
    try:
        return parse_designation(label)
    except BeltError:
        return None


def plain(text: str) -> str:
    """A label without blanks, dashes and case; unreadable characters as ``?``.

    >>> plain("b - 68"), plain("5VX8*0")
    ('B68', '5VX8?0')
    """
    return re.sub(r"[\s\-.]", "", text.upper()).replace("*", "?").replace("_", "?")


@cache
def _written(name: str) -> tuple[tuple[str, str, float], ...]:
    """Each belt of a section as it is written: the whole name, the number alone, the number."""
    stamp = plain(sections()[name].stamp)
    return tuple((f"{stamp}{n:g}", f"{n:g}", n) for n in made_numbers(name))


def matches(found: Section, label: str) -> Iterator[tuple[Belt, float]]:
    """Belts of a section that the label could name, each with the likelihood of reading so much of it."""
    text = plain(label)
    if not text:
        return
    whole_name = named(label)
    if whole_name and whole_name.section.name == found.name:
        yield whole_name, WHOLE
        return
    if text == plain(found.stamp):
        return  # the section's letter alone: it says which section, and no length
    if partly := _BY_WIDTH_IN_PART.fullmatch(text):
        yield from _by_width(found, *partly.groups())
        return
    pattern = re.compile(re.escape(text).replace(r"\?", "."))
    digits = text.replace("?", "").isdigit()
    end_missing = END_MISSING_WHOLE if whole_name else END_MISSING
    for whole, number, value in _written(found.name):
        if pattern.fullmatch(whole):
            yield belt_of(found, value), WHOLE
        elif digits and pattern.fullmatch(number):
            yield belt_of(found, value), NUMBER_ONLY
        elif len(text) > 1 and not digits and (re.search(pattern.pattern + "$", whole) or pattern.match(whole)):
            yield belt_of(found, value), end_missing


_BY_WIDTH_IN_PART = re.compile(r"(\d{1,2})X([\d?]{3,5})(L[IDWPA])?")


def _by_width(found: Section, width: str, length: str, by: str | None) -> Iterator[tuple[Belt, float]]:
    """Belts that a name by width and length could be, of which some digits cannot be read.

    13x12??, an inside length where nothing is said.
    """
    if BY_WIDTH.get(width) != found.name:
        return
    pattern = re.compile(length.replace("?", "."))
    for _, _, number in _written(found.name):
        belt = belt_of(found, number)
        told = number * found.step_m + (found.to_inside_m or 0.0) if by in (None, "LI") else belt.datum_length_m
        if pattern.fullmatch(f"{1000 * told:.0f}"):
            yield belt, WHOLE


_MARK = re.compile(r"(?<![A-Z])(SP[ZABC]|XP[ZABC]|[358]VX?|[2345]L|P[HJKLM](?![A-Z])|[A-E]X?(?![A-Z]))")


def marked_sections(marks: str) -> set[str]:
    """Groove names that a wheel's own marks speak of.

    >>> sorted(marked_sections("2B60")), sorted(marked_sections("SPB 200-3")), sorted(marked_sections("3 5V 9.25"))
    (['B'], ['SPB'], ['5V'])
    """
    grooves = set()
    for found in _MARK.findall(marks.upper()):
        name = found.removesuffix("X") if found[-1] == "X" else found
        name = "SP" + name[2] if name.startswith("XP") else name
        grooves.add(name)
    return grooves
