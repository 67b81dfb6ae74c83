"""Sections that are one belt in two systems, and those that only look alike. Statements: tables/v_alike.csv."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.table import rows
from tuyere.core.kinds.v_belt import sections

Likeness = Literal["same", "groove", "near", "alike"]


@dataclass(frozen=True)
class Alike:
    """What two sections have to do with each other, said for a mechanic."""

    section: str
    other: str
    kind: Likeness
    statement: str
    confidence: Confidence
    source: str


@cache
def alikes() -> tuple[Alike, ...]:
    """Every statement."""
    return tuple(
        Alike(r["section"], r["other"], r["kind"], r["statement"], Confidence(r["confidence"]), r["source"])  # type: ignore[arg-type]
        for r in rows("v_alike")
    )


def of(name: str) -> tuple[Alike, ...]:
    """The statements about a section."""
    return tuple(a for a in alikes() if name in (a.section, a.other))


@cache
def same_belt(name: str) -> frozenset[str]:
    """Every section that is the same belt under another name, itself included.

    >>> sorted(same_belt("4L"))
    ['4L', 'A', 'HA', 'ISO A']
    """
    found = {name}
    while True:
        grown = found | {n for a in alikes() if a.kind == "same" and (a.section in found or a.other in found) for n in (a.section, a.other)}
        if grown == found:
            return frozenset(found)
        found = grown


def shares_groove(name: str) -> frozenset[str]:
    """Every section that runs in the same groove in the same way: one belt by other names, or another construction."""
    found = set(same_belt(name))
    for a in alikes():
        if a.kind == "groove" and (a.section in found or a.other in found):
            found |= {a.section, a.other}
    return frozenset(found)


def near(name: str, other: str) -> bool:
    """Whether two sections are near, not the same: they, or what runs in the same grooves as they do.

    >>> near("3VX", "SPZ"), near("15N", "XPB"), near("3V", "3VX")
    (True, True, False)
    """
    mine, theirs = shares_groove(name), shares_groove(other)
    return any(
        a.kind == "near" and ((a.section in mine and a.other in theirs) or (a.section in theirs and a.other in mine)) for a in alikes()
    )


LIGHT = frozenset(("2L", "3L", "4L", "5L"))


def same_duty(name: str, other: str) -> bool:
    """Whether two names of one size are also made for one duty: light, farm and plant belts are not.

    >>> same_duty("A", "ISO A"), same_duty("ISO A", "4L"), same_duty("A", "HA")
    (True, False, False)
    """
    duty = [(n in LIGHT, sections()[n].series == "agricultural inch") for n in (name, other)]
    return duty[0] == duty[1]
