"""Whether a drive wants attention, and why: the one rule that the list of drives and its stations go by."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from tuyere.core.working.verdict import Tone, Verdict

SOON_DAYS = 7  # how far ahead a promise is worth saying: common practice, no source


class Level(StrEnum):
    """How much a drive wants attention, the most first."""

    STOP = "stop"
    OVERDUE = "overdue"
    WATCH = "watch"
    SOON = "soon"
    QUIET = "quiet"


@dataclass(frozen=True)
class Attention:
    """The level, and the sentence that it comes from."""

    level: Level
    reason: str


@dataclass(frozen=True)
class Said:
    """Something said of a drive, and how it weighs: an open finding, or what its last reading came to."""

    weight: Tone
    what: str


@dataclass(frozen=True)
class Promised:
    """A due, and the days until it (negative: overdue)."""

    days: int
    what: str


def attention(
    stations: Sequence[Verdict] = (), reading: Said | None = None, findings: Sequence[Said] = (), dues: Sequence[Promised] = ()
) -> Attention:
    """What any station says that weighs, weighs here too; then what is overdue, and what is due soon.

    >>> attention([Verdict("rating", Tone.WATCH, "1 belt will not do: 7 needed", "")], Said(Tone.GOOD, "Right for these belts"))
    Attention(level=<Level.WATCH: 'watch'>, reason='1 belt will not do: 7 needed')
    >>> attention(reading=Said(Tone.GOOD, "Right for these belts"), dues=[Promised(-2, "re-tension")])
    Attention(level=<Level.OVERDUE: 'overdue'>, reason='Overdue by 2 days: re-tension')
    >>> attention(reading=Said(Tone.GOOD, "Right for these belts"))
    Attention(level=<Level.QUIET: 'quiet'>, reason='Right for these belts')
    """
    said = [*findings, *([reading] if reading else []), *(Said(v.tone, v.headline) for v in stations)]
    next_due = min(dues, key=lambda d: d.days, default=None)
    if stop := next((s for s in said if s.weight is Tone.STOP), None):
        return Attention(Level.STOP, stop.what)
    if next_due and next_due.days <= 0:
        late = "Due today" if not next_due.days else f"Overdue by {-next_due.days} {'day' if next_due.days == -1 else 'days'}"
        return Attention(Level.OVERDUE, f"{late}: {next_due.what}")
    if watch := next((s for s in said if s.weight is Tone.WATCH), None):
        return Attention(Level.WATCH, watch.what)
    if next_due and next_due.days <= SOON_DAYS:
        return Attention(Level.SOON, f"In {next_due.days} {'day' if next_due.days == 1 else 'days'}: {next_due.what}")
    return Attention(Level.QUIET, reading.what if reading else "")
