"""How many hours a drive has run, and when it will have run so many more.

Between two hour-meter readings it ran evenly while it was not laid up; before the first and after the last it runs at a pace: learnt from
the readings, else as surveyed. A meter that shows less than before is another meter: that stretch counts by the pace.
"""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from itertools import pairwise

ABOUT = 0.25  # how far hours a day as surveyed, or of one stretch alone, may be off: an assumption, common practice, no source
SETTLES_H = 24.0  # how long new belts settle before they are set for good: common practice, no source
_TOO_SHORT_H = 12.0  # a stretch under half a day teaches no pace
_SPILL = 1.02  # a meter may run a little ahead of the clock it was read by
_FOREVER = datetime.max.replace(tzinfo=UTC)
_EVER = datetime.min.replace(tzinfo=UTC)


@dataclass(frozen=True)
class MeterReading:
    """What the hour meter showed (h), and when."""

    at: datetime
    hours: float


_SLACK_H = 24.0  # of a meter read late in one day and early in another: a judgement


def meter_doubt(readings: Sequence[MeterReading], now: MeterReading) -> str:
    """Why a meter can hardly show that after what it showed last; empty where it can.

    >>> then = MeterReading(datetime(2026, 3, 2, tzinfo=UTC), 10482.0)
    >>> meter_doubt([then], MeterReading(datetime(2026, 3, 3, tzinfo=UTC), 11482.0))
    'It showed 10,482 h last: 1,000 h more cannot have run since.'
    >>> meter_doubt([then], MeterReading(datetime(2026, 3, 12, tzinfo=UTC), 10560.0))
    ''
    """
    before = [r for r in readings if _utc(r.at) <= _utc(now.at)]
    if not before:
        return ""
    last = max(before, key=lambda r: r.at)
    passed, ran = (_utc(now.at) - _utc(last.at)) / timedelta(hours=1), now.hours - last.hours
    if ran < 0:
        return f"It showed {last.hours:,.0f} h last, and less now: is it another meter?"
    return f"It showed {last.hours:,.0f} h last: {ran:,.0f} h more cannot have run since." if ran > passed + _SLACK_H else ""


@dataclass(frozen=True)
class LayUp:
    """From when to when the machine stands for the season; `end` None: it still does."""

    start: datetime
    end: datetime | None = None


@dataclass(frozen=True)
class Pace:
    """Running hours an hour while not laid up: the least, the likeliest and the most; and where it is from."""

    low: float
    likely: float
    high: float
    source: str

    @property
    def hours_per_day(self) -> float:
        """The likeliest, as people say it."""
        return 24 * self.likely


@dataclass(frozen=True)
class When:
    """When so many hours are run: at the earliest, likeliest, latest. None: not within what is known (it stands, or may)."""

    earliest: datetime | None
    likely: datetime | None
    latest: datetime | None


@dataclass(frozen=True)
class _Stretch:
    """A time over which it runs evenly: hours an hour, the least, the likeliest and the most."""

    start: datetime
    end: datetime
    low: float
    likely: float
    high: float


class RunningHours:
    """The running hours of one drive, by what is known of it. Times are aware; any zone."""

    def __init__(self, readings: Sequence[MeterReading] = (), hours_per_day: float | None = None, lay_ups: Sequence[LayUp] = ()) -> None:
        self._readings = sorted((MeterReading(_utc(r.at), r.hours) for r in readings), key=lambda r: r.at)
        self._times = [r.at for r in self._readings]
        self._rests = _merged(lay_ups)
        self.pace = self._learnt() or (_about(hours_per_day / 24, "as surveyed") if hours_per_day is not None else None)
        self._stretches = self._even()

    def laid_up(self, at: datetime) -> LayUp | None:
        """The lay-up that `at` falls into."""
        at = _utc(at)
        return next((LayUp(a, None if b == _FOREVER else b) for a, b in self._rests if a <= at < b), None)

    def between(self, start: datetime, end: datetime) -> tuple[float, float, float] | None:
        """Hours run from `start` to `end`: the least, the likeliest, the most; None where no pace is known for a part of it.

        >>> clock, at = RunningHours(hours_per_day=8), datetime(2026, 3, 2, tzinfo=UTC)
        >>> [round(h, 1) for h in clock.between(at, at + timedelta(days=3)) or ()]
        [18.0, 24.0, 30.0]
        """
        start, end = _utc(start), _utc(end)
        low = likely = high = 0.0
        covered = timedelta()
        for s in self._stretches:
            took = min(end, s.end) - max(start, s.start)
            if took > timedelta():
                hours = took / timedelta(hours=1)
                low, likely, high, covered = low + hours * s.low, likely + hours * s.likely, high + hours * s.high, covered + took
        return (low, likely, high) if covered >= end - start else None

    def when(self, after: datetime, hours: float) -> When | None:
        """When it has run so many hours since `after`; None where no pace is known.

        >>> clock, at = RunningHours(hours_per_day=8), datetime(2026, 3, 2, tzinfo=UTC)
        >>> str(clock.when(at, 24).likely)
        '2026-03-05 00:00:00+00:00'
        """
        if self.pace is None:
            return None
        return When(*(self._reached(_utc(after), hours, at) for at in ("high", "likely", "low")))

    def _reached(self, after: datetime, hours: float, which: str) -> datetime | None:
        left = hours
        for s in self._stretches:
            start = max(after, s.start)
            if s.end <= start:
                continue
            rate: float = getattr(s, which)
            can = (s.end - start) / timedelta(hours=1) * rate
            if can >= left - 1e-9 and rate > 0:
                try:
                    return start + timedelta(hours=left / rate)
                except OverflowError:
                    return None
            left -= can
        return None

    def _learnt(self) -> Pace | None:
        stretches = [(gained, active) for gained, active in self._gains() if active >= _TOO_SHORT_H]
        total = sum(active for _, active in stretches)
        if not stretches:
            return None
        likely = sum(gained for gained, _ in stretches) / total
        if len(stretches) == 1:
            return _about(likely, "by the hour meter")
        shares = [gained / active for gained, active in stretches]
        return Pace(min(1.0, *shares), min(1.0, likely), min(1.0, max(shares)), "by the hour meter")

    def _gains(self) -> list[tuple[float, float]]:
        """Hours gained and hours not laid up, of every two readings that belong to one meter."""
        found = ((b.hours - a.hours, self._active(a.at, b.at)) for a, b in pairwise(self._readings))
        return [(gained, active) for gained, active in found if 0 <= gained <= active * _SPILL]

    def _active(self, start: datetime, end: datetime) -> float:
        rest = sum((max(timedelta(), min(end, b) - max(start, a)) for a, b in self._rests), timedelta())
        return (end - start - rest) / timedelta(hours=1)

    def _even(self) -> list[_Stretch]:
        cuts = sorted({_EVER, _FOREVER, *(r.at for r in self._readings), *(edge for rest in self._rests for edge in rest)})
        found = []
        for start, end in pairwise(cuts):
            rates = self._rates(start, end)
            if rates:
                found.append(_Stretch(start, end, *rates))
        return found

    def _rates(self, start: datetime, end: datetime) -> tuple[float, float, float] | None:
        if any(a <= start and end <= b for a, b in self._rests):
            return 0.0, 0.0, 0.0
        last = bisect_right(self._times, start) - 1
        if 0 <= last < len(self._readings) - 1:
            a, b = self._readings[last], self._readings[last + 1]
            active = self._active(a.at, b.at)
            if 0 <= b.hours - a.hours <= active * _SPILL and active:
                share = min(1.0, (b.hours - a.hours) / active)
                return share, share, share
        return (self.pace.low, self.pace.likely, self.pace.high) if self.pace else None


def _utc(at: datetime) -> datetime:
    """Hours are hours: the clock of a place skips and repeats some."""
    return at.astimezone(UTC)


def _about(share: float, source: str) -> Pace:
    return Pace(share * (1 - ABOUT), min(1.0, share), min(1.0, share * (1 + ABOUT)), source)


def _merged(lay_ups: Sequence[LayUp]) -> list[tuple[datetime, datetime]]:
    found: list[tuple[datetime, datetime]] = []
    for start, end in sorted((_utc(r.start), _utc(r.end) if r.end else _FOREVER) for r in lay_ups):
        if end <= start:
            continue
        if found and start <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], end))
        else:
            found.append((start, end))
    return found
