"""Belt labels that can be read only in part, and the marks on a wheel."""

import re
from collections.abc import Iterator
from functools import cache

from tuyere.core.families.v_belt import Belt, Section, belt_of, sections, standard_belts, trade_range

# Likelihood of the fragment given the belt: a whole match, the number alone, an end missing, and a label misread.
WHOLE, NUMBER_ONLY, END_MISSING, MISREAD = 1.0, 0.5, 0.25, 0.004


def plain(text: str) -> str:
    """A label without blanks, dashes and case; unreadable characters as ``?``.

    >>> plain("b - 68"), plain("5VX8*0")
    ('B68', '5VX8?0')
    """
    return re.sub(r"[\s\-.]", "", text.upper()).replace("*", "?").replace("_", "?")


@cache
def made_numbers(name: str) -> tuple[float, ...]:
    """The numbers that belts of a section carry: the standard list and, by trade habit, the whole steps between."""
    listed = {b.number for b in standard_belts(name)}
    ends = trade_range(name)
    if ends:
        found = sections()[name]
        step = 1 if found.step_m > 0.01 else 10
        listed |= {float(n) for n in range(int(ends[0]), int(ends[1]) + 1, step)}
    return tuple(sorted(listed))


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
    pattern = re.compile(re.escape(text).replace(r"\?", "."))
    digits = text.replace("?", "").isdigit()
    for whole, number, value in _written(found.name):
        if pattern.fullmatch(whole):
            yield belt_of(found, value), WHOLE
        elif digits and pattern.fullmatch(number):
            yield belt_of(found, value), NUMBER_ONLY
        elif len(text) > 1 and not digits and (re.search(pattern.pattern + "$", whole) or pattern.match(whole)):
            yield belt_of(found, value), END_MISSING


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
