"""Verdicts, flags and field problems: sentences for a mechanic."""

from dataclasses import dataclass
from enum import StrEnum


@dataclass(frozen=True)
class Offer:
    """The other unit, when a bare number is only plausible in it."""

    unit: str
    sentence: str


class Tone(StrEnum):
    """How a sentence weighs."""

    GOOD = "good"
    WATCH = "watch"
    STOP = "stop"
    OPEN = "open"


@dataclass(frozen=True)
class Verdict:
    """One answer: a headline, the reason and the next action, and how sure it is. `standing`: a remark on how it is built."""

    topic: str
    tone: Tone
    headline: str
    detail: str
    sureness: str = ""
    standing: bool = False


@dataclass(frozen=True)
class Flag:
    """Bad practice, recorded as it stands: kept and computed, and said."""

    code: str
    field: str
    sentence: str


@dataclass(frozen=True)
class Problem:
    """Impossible input: refused, with what to do, beside the field."""

    field: str
    sentence: str
    offer: Offer | None = None
