"""From what happened to what falls due: each due with its day, its doubt and its reason."""

import calendar
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal
from zoneinfo import ZoneInfo

from tuyere.core.stations.inspect.dues.hours import RunningHours
from tuyere.core.stations.inspect.dues.rules import UpkeepRule

Answer = Literal["done", "moved", "not needed"]


@dataclass(frozen=True)
class DueEvent:
    """An event at a drive that starts a count."""

    kind: str
    at: datetime


@dataclass(frozen=True)
class DueWord:
    """What somebody said of a due, by its rule: done, moved `to` another day, or not needed; and why."""

    rule: str
    answer: Answer
    at: datetime
    to: datetime | None = None
    why: str = ""


@dataclass(frozen=True)
class DueOn:
    """A due: at the earliest, likeliest and latest; None while that cannot be told. `because`: in words.

    by: what brings it, "hours", "calendar" or "moved". resting: the machine is laid up, and nothing nags. late: past its likeliest day.
    """

    rule: UpkeepRule
    since: datetime
    earliest: datetime | None
    likely: datetime | None
    latest: datetime | None
    by: str
    late: bool
    resting: bool
    because: str

    def days(self, now: datetime, zone: ZoneInfo) -> int | None:
        """Days of the site's calendar until it falls, below zero once past; None while that cannot be told."""
        return (self.likely.astimezone(zone).date() - now.astimezone(zone).date()).days if self.likely else None

    def said(self, now: datetime, zone: ZoneInfo) -> str:
        """The day it falls with its doubt, as people say it."""
        if self.resting:
            return "at rest: nothing falls due until it runs again"
        if self.likely is None:
            return "its day is not known yet"
        day = _short(self.likely, zone)
        if self.earliest is None or self.latest is None:
            return f"about {day}" if self.latest is None and self.by == "hours" else day
        first, last = _short(self.earliest, zone), _short(self.latest, zone)
        return f"about {day} ({first} to {last})" if first != last else day

    def answered_by(self, clock: RunningHours, now: datetime) -> bool:
        """Whether a look taken now is the one it asks for.

        Once half of what it waits for has gone by (an assumption), not the look that began it.
        """
        if self.likely is None:
            return False
        if self.by == "hours" and self.rule.after_hours is not None:
            ran = clock.between(self.since, now)
            return ran is not None and ran[1] >= ENOUGH * self.rule.after_hours
        return now - self.since >= ENOUGH * (self.likely - self.since)


ENOUGH = 0.5

_EVENTS = {
    "new set": "the new set was fitted",
    "re-tension": "the tension was set",
    "first start": "it was started for the first time",
    "oil change": "the oil was changed",
    "new wheel": "another wheel was fitted",
    "get-home fix": "a get-home fix was made",
    "chain oiled": "the chain was oiled",
}


def dues(
    happened: Sequence[DueEvent],
    answered: Sequence[DueWord],
    rules: Sequence[UpkeepRule],
    clock: RunningHours,
    now: datetime,
    zone: ZoneInfo,
    family: str = "",
) -> tuple[DueOn, ...]:
    """Every open due, the first to fall first. zone: the site's, whose days and months count.

    Times are aware; nothing after `now` counts.
    """
    found = []
    for rule in rules:
        if rule.kinds and family and family not in rule.kinds:
            continue
        started = [h.at for h in happened if h.kind == rule.event and h.at <= now]
        if started:
            one = _of(rule, max(started), [a for a in answered if a.rule == rule.key and max(started) <= a.at <= now], clock, now, zone)
            if one:
                found.append(one)
    return tuple(sorted(found, key=lambda d: (d.likely is None, d.likely or now, d.rule.key)))


def _of(rule: UpkeepRule, started: datetime, said: list[DueWord], clock: RunningHours, now: datetime, zone: ZoneInfo) -> DueOn | None:
    said.sort(key=lambda a: a.at)
    if any(a.answer == "not needed" for a in said) or (not rule.repeats and any(a.answer == "done" for a in said)):
        return None
    base = max((a.at for a in said if a.answer == "done"), default=started)
    moved = next((a for a in reversed(said) if a.answer == "moved" and a.at >= base and a.to), None)
    resting = clock.laid_up(now) is not None
    because = _because(rule, started, base, clock, zone)
    if moved and moved.to:
        why = f" ({moved.why})" if moved.why else ""
        return DueOn(
            rule,
            base,
            moved.to,
            moved.to,
            moved.to,
            "moved",
            moved.to <= now and not resting,
            resting,
            f"{because} Moved to {_day(moved.to, zone)}{why}.",
        )
    by_hours = clock.when(base, rule.after_hours) if rule.after_hours is not None else None
    on = _on_calendar(rule, base, clock, zone)
    earliest, likely, latest = (
        min((t for t in (hours, on) if t is not None), default=None)
        for hours in ((by_hours.earliest, by_hours.likely, by_hours.latest) if by_hours else (None, None, None))
    )
    by = "hours" if by_hours and by_hours.likely is not None and likely == by_hours.likely else "calendar"
    if likely is None and not resting:
        because += " How many hours a day does it run? Then its day is known."
    late = likely is not None and likely <= now and not resting
    return DueOn(rule, base, earliest, likely, latest, by, late, resting, because)


def _on_calendar(rule: UpkeepRule, base: datetime, clock: RunningHours, zone: ZoneInfo) -> datetime | None:
    """By days and months of the site's own calendar, at the same time of day; one that falls into a lay-up waits for its end."""
    local = base.astimezone(zone)
    days = [_days_on(local, rule.after_days)] if rule.after_days is not None else []
    days += [_months_on(local, rule.after_months)] if rule.after_months is not None else []
    if not days:
        return None
    on = min(days, key=lambda d: d.timestamp())
    rest = clock.laid_up(on)
    return on if rest is None else rest.end


def _days_on(local: datetime, days: float) -> datetime:
    """The wall clock so many days on, whatever summer time does in between."""
    return (local.replace(tzinfo=None) + timedelta(days=days)).replace(tzinfo=local.tzinfo)


def _months_on(local: datetime, months: int) -> datetime:
    """The same day so many months on, or the month's last where it has no such day."""
    year, month = divmod(local.year * 12 + local.month - 1 + months, 12)
    day = min(local.day, calendar.monthrange(year, month + 1)[1])
    return local.replace(year=year, month=month + 1, day=day, fold=0)


def _because(rule: UpkeepRule, started: datetime, base: datetime, clock: RunningHours, zone: ZoneInfo) -> str:
    first = base == started
    event = _EVENTS.get(rule.event, rule.event) if first else "it was done last"
    about = ""
    if rule.after_hours is not None and clock.pace and clock.pace.likely > 0:
        days = rule.after_hours / clock.pace.hours_per_day
        said = f"{days:.0f} days" if days >= 1.75 else "a day" if days >= 0.75 else f"{rule.after_hours:g} hours"
        about = f", about {said} at {clock.pace.hours_per_day:.0f} h a day ({clock.pace.source})"
    return f"Because {event} on {_day(base, zone)}: {rule.interval}{about}."


def _short(at: datetime, zone: ZoneInfo) -> str:
    local = at.astimezone(zone)
    return f"{local:%a} {local.day} {local:%b}"


def _day(at: datetime, zone: ZoneInfo) -> str:
    local = at.astimezone(zone)
    return f"{local:%A} {local.day} {local:%B}"
