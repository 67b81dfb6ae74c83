"""Dues as an open calculation: what happened, the rules and the hours, to what falls due and when."""

from datetime import datetime
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, available_timezones

from flask import Response
from pydantic import AfterValidator, AwareDatetime, BaseModel, Field

from tuyere.core.stations.inspect.dues.engine import DueEvent, DueOn, DueWord, dues
from tuyere.core.stations.inspect.dues.hours import LayUp, MeterReading, RunningHours
from tuyere.core.stations.inspect.dues.rules import UpkeepRule, standard_rules
from tuyere.record.entry import FamilyKey, Strict
from tuyere.web.answers import answer
from tuyere.web.routes import routes
from tuyere.web.rules import computes

blueprint = routes("dues", "/api/calc", "dues", "What falls due, and when")
_YEARS = (1950, 2200)


def _this_age(at: datetime) -> datetime:
    if not _YEARS[0] <= at.year <= _YEARS[1]:
        raise ValueError(f"Write a year from {_YEARS[0]} to {_YEARS[1]}.")
    return at


def _zone(name: str) -> str:
    if name not in available_timezones():
        raise ValueError("Write a time zone as the tz database has it, such as Europe/Berlin.")
    return name


When = Annotated[AwareDatetime, AfterValidator(_this_age)]


class HappenedIn(Strict):
    """An event that starts a count: new set, re-tension, first start, oil change, get-home fix, or one that a rule of your own names."""

    kind: str = Field(min_length=1, max_length=60)
    at: When


class AnsweredIn(Strict):
    """What was said of a due, by its rule's key; `to`: the day it was moved to."""

    rule: str = Field(max_length=60)
    answer: Literal["done", "moved", "not needed"]
    at: When
    to: When | None = None
    why: str = Field("", max_length=400)


class RuleIn(Strict):
    """A rule of your own."""

    key: str = Field(min_length=1, max_length=60)
    event: str = Field(min_length=1, max_length=60)
    what: str = Field(min_length=1, max_length=200)
    after_hours: float | None = Field(None, gt=0, le=200_000)
    after_days: float | None = Field(None, ge=0, le=20_000)
    after_months: int | None = Field(None, ge=1, le=240)
    repeats: bool = False


class ReadingIn(Strict):
    """What the hour meter showed."""

    at: When
    hours: float = Field(ge=0, le=1e7)


class LayUpIn(Strict):
    """A season at rest; without an end it lasts."""

    start: When
    end: When | None = None


class DuesIn(Strict):
    """What happened, what was answered, and what is known of the hours. Rules: the standard ones where none are given."""

    now: When
    zone: Annotated[str, Field(max_length=60), AfterValidator(_zone)] = "UTC"
    family: FamilyKey | None = None
    events: list[HappenedIn] = Field(default_factory=list, max_length=200)
    answered: list[AnsweredIn] = Field(default_factory=list, max_length=500)
    rules: list[RuleIn] | None = Field(None, max_length=100)
    hour_readings: list[ReadingIn] = Field(default_factory=list, max_length=500)
    hours_per_day: float | None = Field(None, ge=0, le=24)
    lay_ups: list[LayUpIn] = Field(default_factory=list, max_length=50)


class DueDayOut(BaseModel):
    """A due: what and why, from when it counts, and its day at the earliest, as expected, and at the latest.

    ISO, in the zone asked; null while it cannot be told.
    """

    rule: str
    what: str
    page: str
    since: datetime
    earliest: datetime | None
    expected: datetime | None
    latest: datetime | None
    by: str
    late: bool
    resting: bool
    reason: str


class DuesOut(BaseModel):
    """Every open due, the first to fall first; the pace it was reckoned by, running hours a day (null: not known)."""

    dues: list[DueDayOut]
    hours_per_day: float | None
    hours_from: str


@blueprint.post("/dues", summary="What falls due, from events, rules and running hours", responses={"200": DuesOut})
@computes()
def calc_dues(body: DuesIn) -> Response:
    zone = ZoneInfo(body.zone)
    clock = RunningHours(
        [MeterReading(r.at, r.hours) for r in body.hour_readings], body.hours_per_day, [LayUp(x.start, x.end) for x in body.lay_ups]
    )
    rules = standard_rules() if body.rules is None else [UpkeepRule(**r.model_dump()) for r in body.rules]
    found = dues(
        [DueEvent(h.kind, h.at) for h in body.events],
        [DueWord(a.rule, a.answer, a.at, a.to, a.why.strip()) for a in body.answered],
        rules,
        clock,
        body.now,
        zone,
        body.family or "",
    )
    pace = clock.pace
    return answer(
        DuesOut(
            dues=[_due(d, zone) for d in found],
            hours_per_day=pace.hours_per_day if pace else None,
            hours_from=pace.source if pace else "",
        )
    )


def _due(d: DueOn, zone: ZoneInfo) -> DueDayOut:
    return DueDayOut(
        rule=d.rule.key,
        what=d.rule.what,
        page=d.rule.page,
        since=_at(d.since, zone),
        earliest=_or_never(d.earliest, zone),
        expected=_or_never(d.likely, zone),
        latest=_or_never(d.latest, zone),
        by=d.by,
        late=d.late,
        resting=d.resting,
        reason=d.because,
    )


def _at(at: datetime, zone: ZoneInfo) -> datetime:
    """In the zone, to the second."""
    return at.astimezone(zone).replace(microsecond=0)


def _or_never(at: datetime | None, zone: ZoneInfo) -> datetime | None:
    """A day beyond every calendar is none."""
    return None if at is None or at.year > _YEARS[1] else _at(at, zone)
