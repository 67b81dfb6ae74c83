"""Dues against a plain simulation by the hour: shifts, gaps, meter readings, another meter, lay-ups; the calendar over summer time."""

from datetime import UTC, datetime, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.stations.inspect.dues.engine import DueEvent, DueOn, DueWord, dues
from tuyere.core.stations.inspect.dues.hours import LayUp, MeterReading, RunningHours
from tuyere.core.stations.inspect.dues.rules import UpkeepRule, standard_rules

START = datetime(2026, 3, 2, 6, tzinfo=UTC)
HOUR = timedelta(hours=1)
BERLIN = ZoneInfo("Europe/Berlin")


def after(hours: float) -> datetime:
    return START + hours * HOUR


@st.composite
def machines(draw: st.DrawFn) -> tuple[list[tuple[int, float]], list[tuple[int, int]], float]:
    """Readings (hour, meter), lay-ups (from, to), hours a day as surveyed. Some readings are of a meter that was changed."""
    at, meter, readings = 0, draw(st.floats(0, 9000)), []
    rests, gap = [], 0
    for _ in range(draw(st.integers(0, 2))):
        gap += draw(st.integers(30, 300))
        rests.append((gap, gap + draw(st.integers(5, 200))))
        gap = rests[-1][1]
    for _ in range(draw(st.integers(0, 4))):
        readings.append((at, meter))
        step = draw(st.integers(1, 200))
        active = sum(not any(a <= h < b for a, b in rests) for h in range(at, at + step))
        at += step
        meter += active * draw(st.floats(0, 1))
        if draw(st.integers(0, 5)) == 0:
            meter = draw(st.floats(0, 5))
    return readings, rests, draw(st.floats(1, 24))


def simulated(readings: list[tuple[int, float]], rests: list[tuple[int, int]], pace: float, start: int, end: int) -> float:
    """Hour by hour: nothing while laid up, evenly between two readings of one meter, else at the pace."""
    run = 0.0
    for h in range(start, end):
        if any(a <= h < b for a, b in rests):
            continue
        rate = pace
        for (a, before), (b, then) in pairwise(readings):
            active = sum(not any(x <= k < y for x, y in rests) for k in range(a, b))
            if a <= h < b and active and 0 <= then - before <= active * 1.02:
                rate = min(1.0, (then - before) / active)
        run += rate
    return run


@examples(120)
@given(machines(), st.integers(0, 400), st.integers(1, 300), st.floats(0.5, 60))
def test_running_hours_are_those_of_a_simulation_by_the_hour(machine, start: int, length: int, wanted: float) -> None:  # type: ignore[no-untyped-def]
    readings, rests, per_day = machine
    clock = RunningHours([MeterReading(after(h), m) for h, m in readings], per_day, [LayUp(after(a), after(b)) for a, b in rests])
    assert clock.pace and clock.pace.low <= clock.pace.likely <= clock.pace.high <= 1 + 1e-9
    found = clock.between(after(start), after(start + length))
    assert found and found[0] <= found[1] + 1e-9 and found[1] <= found[2] + 1e-9
    assert found[1] == pytest.approx(simulated(readings, rests, clock.pace.likely, start, start + length), abs=1e-6)
    when = clock.when(after(start), wanted)
    assert when
    if when.likely is None:
        assert clock.pace.likely < 1e-5  # not within the years that a calendar has
        return
    so_far = clock.between(after(start), when.likely)
    assert so_far and so_far[1] == pytest.approx(wanted, abs=1e-6)
    assert when.earliest and when.earliest <= when.likely and (when.latest is None or when.likely <= when.latest)


LOOK = UpkeepRule("look", "new set", "Look again", after_hours=24)


def open_dues(
    rule: UpkeepRule, clock: RunningHours, now: datetime, happened: list[DueEvent] | None = None, answered: list[DueWord] | None = None
) -> tuple[DueOn, ...]:
    return dues(happened or [DueEvent("new set", START)], answered or [], [rule], clock, now, BERLIN)


def test_a_due_by_hours_comes_nearer_with_a_reading_and_goes_when_it_is_done() -> None:
    surveyed = RunningHours(hours_per_day=8)
    (due,) = open_dues(LOOK, surveyed, after(1))
    assert (due.likely, due.by, due.late) == (after(72), "hours", False) and due.earliest and due.latest
    assert due.earliest < due.likely < due.latest
    assert due.because == "Because the new set was fitted on Monday 2 March: 24 running hours, about 3 days at 8 h a day (as surveyed)."
    read = RunningHours([MeterReading(START, 100), MeterReading(after(24), 120)], 8)
    (sooner,) = open_dues(LOOK, read, after(25))
    assert sooner.likely == after(28.8) and sooner.likely < due.likely and "by the hour meter" in sooner.because
    assert open_dues(LOOK, read, after(40), answered=[DueWord("look", "done", after(30))]) == ()
    (again,) = open_dues(
        LOOK, read, after(60), [DueEvent("new set", START), DueEvent("new set", after(50))], [DueWord("look", "done", after(30))]
    )
    assert again.since == after(50), "a new set starts anew"


def test_whichever_comes_first_and_again_and_again() -> None:
    rule = UpkeepRule("either", "new set", "Look", after_hours=500, after_months=1, repeats=True)
    (slow,) = open_dues(rule, RunningHours(hours_per_day=2), after(1))
    assert (slow.by, slow.likely) == ("calendar", datetime(2026, 4, 2, 7, tzinfo=BERLIN)), "the same time of day over summer time"
    (fast,) = open_dues(rule, RunningHours(hours_per_day=24), after(1))
    assert fast.by == "hours" and fast.likely == after(500)
    (next_one,) = open_dues(rule, RunningHours(hours_per_day=24), after(601), answered=[DueWord("either", "done", after(600))])
    assert next_one.likely == after(1100) and "it was done last on" in next_one.because


def test_moved_not_needed_and_not_known() -> None:
    clock, to = RunningHours(hours_per_day=8), after(200)
    (moved,) = open_dues(LOOK, clock, after(100), answered=[DueWord("look", "moved", after(90), to, "the line runs through")])
    assert (moved.by, moved.likely, moved.late) == ("moved", to, False) and moved.because.endswith("(the line runs through).")
    assert open_dues(LOOK, clock, after(100), answered=[DueWord("look", "not needed", after(90))]) == ()
    (unknown,) = open_dues(LOOK, RunningHours(), after(100))
    assert unknown.likely is None and not unknown.late and "How many hours a day does it run?" in unknown.because


def test_nothing_nags_while_the_machine_is_laid_up() -> None:
    monthly = UpkeepRule("month", "new set", "Look", after_months=1)
    rest = LayUp(after(300), after(2000))
    clock = RunningHours(hours_per_day=8, lay_ups=[rest])
    (due,) = open_dues(monthly, clock, after(900))
    assert due.resting and not due.late and due.likely == rest.end, "it waits for the season"
    (hours,) = open_dues(UpkeepRule("h", "new set", "Look", after_hours=150), clock, after(900))
    assert hours.likely == after(2000 + (150 - 100) * 3), "100 of them were run before"
    still = RunningHours(hours_per_day=8, lay_ups=[LayUp(after(300))])
    (standing,) = open_dues(monthly, still, after(900))
    assert standing.likely is None and standing.resting and not standing.late


@given(st.integers(0, 800), st.integers(1, 14))
def test_days_are_days_of_the_place(day: int, months: int) -> None:
    """Months on, the same wall clock; where the month has no such day, its last."""
    base = datetime(2026, 1, 31, 10, tzinfo=BERLIN) + timedelta(days=day)
    rule = UpkeepRule("m", "new set", "Look", after_months=months)
    (due,) = open_dues(rule, RunningHours(hours_per_day=8), base, [DueEvent("new set", base)])
    assert due.likely
    local = due.likely.astimezone(BERLIN)
    assert (
        (local.hour, local.minute) == (10, 0)
        and local.day <= base.day
        and (base + timedelta(days=28 * months)) <= local + timedelta(hours=2)
    )
    assert local.day == base.day or (local + timedelta(days=1)).month != local.month


def test_every_standard_rule_is_whole() -> None:
    assert len({r.key for r in standard_rules()}) == len(standard_rules())
    for rule in standard_rules():
        assert rule.what and rule.source and rule.page in ("survey", "tension", "align", "inspect/round", "jobs?kind=chain_oil")
        assert (rule.after_hours, rule.after_days, rule.after_months) != (None, None, None)
