"""Sections that are one belt in two systems, and those that only look alike. Statements: tables/v_alike.csv."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from tuyere.core.origin import Confidence
from tuyere.core.table import rows

Kind = Literal["same", "groove", "near", "alike"]


@dataclass(frozen=True)
class Alike:
    """What two sections have to do with each other, said for a mechanic."""

    section: str
    other: str
    kind: Kind
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
