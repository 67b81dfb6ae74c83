"""Whether a drive wants attention, and why: the one rule that the list of drives and its stations go by."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from tuyere.core.basis.verdict import Tone, Verdict

SOON_DAYS = 7  # how far ahead a promise is worth saying: common practice, no source


class Level(StrEnum):
    """How much a drive wants attention, the most first."""

    STOP = "stop"
    OVERDUE = "overdue"
    WATCH = "watch"
    SOON = "soon"
    REMARK = "remark"
    QUIET = "quiet"


@dataclass(frozen=True)
class Attention:
    """The level, the sentence that it comes from, and the one page that answers it (empty: none does)."""

    level: Level
    reason: str
    page: str = ""


@dataclass(frozen=True)
class Said:
    """Something said of a drive, and how it weighs: an open finding, or what its last reading came to; and the page that answers it.

    `standing`: how it is built, which no hand mends this week: a remark.
    """

    weight: Tone
    what: str
    page: str = ""
    standing: bool = False


@dataclass(frozen=True)
class Promised:
    """A due, the days until it (negative: overdue; None: not to be told yet), and the page that answers it.

    A machine at rest is not nagged.
    """

    days: int | None
    what: str
    page: str = ""
    resting: bool = False


# The station that each topic of a verdict belongs to; others are answered where the drive was surveyed.
_PAGES = {
    "rating": "size",
    "tension": "tension",
    "sag": "tension",
    "speed": "speed",
    "machine": "speed",
    "slip": "tension",
    "window": "tension",
    "manual": "tension",
    "shaft": "size/shafts",
    "keeper": "survey/wheels",
    "path": "survey/wheels",
    "curve": "speed/feels",
    "amps": "speed/feels",
    "rim": "speed",
}


def page_of(verdict: Verdict) -> str:
    """The station that answers what a station says."""
    return _PAGES.get(verdict.topic, "survey")


def attention(
    stations: Sequence[Verdict] = (), reading: Said | None = None, findings: Sequence[Said] = (), dues: Sequence[Promised] = ()
) -> Attention:
    """What any station says that weighs, weighs here too; then what is overdue, and what is due soon; a standing remark comes after.

    A remark of a station itself stands as a finding until somebody accepts it with a reason, so it is not said twice.

    >>> attention([Verdict("rating", Tone.WATCH, "1 belt will not do: 7 needed", "")], Said(Tone.GOOD, "Right for these belts"))
    Attention(level=<Level.WATCH: 'watch'>, reason='1 belt will not do: 7 needed', page='size')
    >>> attention(reading=Said(Tone.GOOD, "Right for these belts"), dues=[Promised(-2, "re-tension", "tension")])
    Attention(level=<Level.OVERDUE: 'overdue'>, reason='Overdue by 2 days: re-tension', page='tension')
    >>> attention(findings=[Said(Tone.WATCH, "The driver wheel is under the smallest", "size", True)]).level
    <Level.REMARK: 'remark'>
    >>> attention(reading=Said(Tone.GOOD, "Right for these belts"))
    Attention(level=<Level.QUIET: 'quiet'>, reason='Right for these belts', page='')
    """
    due = min((d for d in dues if d.days is not None and not d.resting), key=lambda d: d.days or 0, default=None)
    return with_due(without_dues(stations, reading, findings), due)


def without_dues(stations: Sequence[Verdict] = (), reading: Said | None = None, findings: Sequence[Said] = ()) -> Attention:
    """What is said of a drive, whatever day it is: what a list can keep of it."""
    said = [*findings, *([reading] if reading else []), *(Said(v.tone, v.headline, page_of(v)) for v in stations if not v.standing)]
    if stop := next((s for s in said if s.weight is Tone.STOP), None):
        return Attention(Level.STOP, stop.what, stop.page)
    if watch := next((s for s in said if s.weight is Tone.WATCH and not s.standing), None):
        return Attention(Level.WATCH, watch.what, watch.page)
    if remark := next((s for s in said if s.weight is Tone.WATCH), None):
        return Attention(Level.REMARK, remark.what, remark.page)
    return Attention(Level.QUIET, reading.what if reading else "")


def with_due(said: Attention, due: Promised | None) -> Attention:
    """The same with the first due to fall: only a stop comes before what is overdue, only what wants watching before what is due soon."""
    if due is None or due.days is None or said.level is Level.STOP:
        return said
    if due.days <= 0:
        late = "Due today" if not due.days else f"Overdue by {-due.days} {'day' if due.days == -1 else 'days'}"
        return Attention(Level.OVERDUE, f"{late}: {due.what}", due.page)
    if due.days <= SOON_DAYS and said.level is not Level.WATCH:
        return Attention(Level.SOON, f"In {due.days} {'day' if due.days == 1 else 'days'}: {due.what}", due.page)
    return said
