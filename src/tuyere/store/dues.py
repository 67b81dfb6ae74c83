"""What happened at drives, their running hours and what was said of their dues: the queries and the writes."""

import uuid
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, time
from typing import Any
from zoneinfo import ZoneInfo

from sqlalchemy import Select, text
from sqlmodel import Session, col, select

from tuyere.core.stations.inspect.dues import engine
from tuyere.core.stations.inspect.dues.engine import DueOn, DueWord
from tuyere.core.stations.inspect.dues.hours import LayUp, MeterReading, RunningHours
from tuyere.core.stations.inspect.dues.rules import UpkeepRule, oil_rule, rules_of
from tuyere.store.dues_tables import DueAnswer, DueRule, Happened, HourReading, LaidUp
from tuyere.store.findings import Cause
from tuyere.store.people import SiteId
from tuyere.store.people_tables import Site
from tuyere.store.tables import Drive, Due, Machine, Reading
from tuyere.store.write import Writer, insert, update


def site_of_due(due_id: uuid.UUID) -> SiteId:
    """The site of a due's drive: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Due).where(Due.id == due_id)


def site_of_machine(machine_id: uuid.UUID) -> SiteId:
    """The site of a machine: the statement that finds it."""
    return select(Machine.site_id).where(Machine.id == machine_id)


def site_of_happened(happened_id: uuid.UUID) -> SiteId:
    """The site of the drive at which something happened: the statement that finds it."""
    return select(Machine.site_id).join(Drive).join(Happened).where(Happened.id == happened_id)


@dataclass
class Facts:
    """What counts at one drive: what happened and was said of dues, meter readings, its machine's lay-ups; oldest first."""

    happened: list[Happened] = field(default_factory=list)
    answered: list[DueAnswer] = field(default_factory=list)
    hours: list[MeterReading] = field(default_factory=list)
    rests: list[LaidUp] = field(default_factory=list)

    def fitted(self, kind: str) -> datetime | None:
        """When a part of that kind (`new set`, `new wheel`) was fitted last; None where the record does not say."""
        return max((h.at for h in self.happened if h.kind == kind), default=None)

    def clock(self, hours_per_day: float | None) -> RunningHours:
        """Its running hours."""
        return RunningHours(self.hours, hours_per_day, [LayUp(r.began_at, r.ended_at) for r in self.rests])

    def dues(
        self, rules: Sequence[UpkeepRule], hours_per_day: float | None, family: str, at: datetime, zone: ZoneInfo
    ) -> tuple[DueOn, ...]:
        """What its rules ask for; with the next oil change, where its interval was said."""
        interval = next((h.interval_h for h in reversed(self.happened) if h.kind == "oil change" and h.interval_h), None)
        own = (*rules, oil_rule(interval)) if interval else rules
        said = [DueWord(a.rule, a.answer, a.at, _on(a, zone), a.why) for a in standing(self.answered)]  # type: ignore[arg-type]  # the table's own words
        events = [engine.DueEvent(h.kind, h.at) for h in self.happened]
        return engine.dues(events, said, own, self.clock(hours_per_day), at, zone, family)


def standing(answers: Sequence[DueAnswer]) -> list[DueAnswer]:
    """The answers that hold, oldest first: one taken back takes the last of its rule with it."""
    found: list[DueAnswer] = []
    for a in answers:
        if a.answer != "taken back":
            found.append(a)
        elif last := next((x for x in reversed(found) if x.rule == a.rule), None):
            found.remove(last)
    return found


def _on(answer: DueAnswer, zone: ZoneInfo) -> datetime | None:
    """A day it was moved to, from its morning on."""
    return datetime.combine(answer.to_on, time(6), zone) if answer.to_on else None


def facts_of(session: Session, drives: Select[Any] | Sequence[uuid.UUID]) -> dict[uuid.UUID, Facts]:
    """What counts at each of the drives: a statement for each table, whatever their number."""
    found: dict[uuid.UUID, Facts] = defaultdict(Facts)
    struck: dict[uuid.UUID, list[uuid.UUID]] = defaultdict(list)
    for drive_id, reading_id in session.exec(
        select(Reading.drive_id, Reading.id).where(col(Reading.drive_id).in_(drives), col(Reading.struck_at).is_not(None))
    ):
        struck[drive_id].append(reading_id)
    # What a reading did has an id made from the reading's: struck out, the reading takes it along, and brings it back.
    void = {uuid.uuid5(r, "re-tension") for of_one in struck.values() for r in of_one}
    for h in session.exec(
        select(Happened).where(col(Happened.drive_id).in_(drives), col(Happened.struck_at).is_(None)).order_by(col(Happened.at))
    ):
        if h.id not in void:
            found[h.drive_id].happened.append(h)
    answers = session.exec(select(DueAnswer).where(col(DueAnswer.drive_id).in_(drives)).order_by(col(DueAnswer.at))).all()
    rules = {(a.drive_id, a.rule) for a in answers if struck[a.drive_id]}
    void |= {uuid.uuid5(r, rule) for drive_id, rule in rules for r in struck[drive_id]}
    for a in answers:
        if a.id not in void:
            found[a.drive_id].answered.append(a)
    for m in session.exec(select(HourReading).where(col(HourReading.drive_id).in_(drives), col(HourReading.struck_at).is_(None))):
        found[m.drive_id].hours.append(MeterReading(m.at, m.hours_h))
    metered = select(Reading.drive_id, Reading.taken_at, Reading.hour_meter_h).where(
        col(Reading.drive_id).in_(drives), col(Reading.hour_meter_h).is_not(None), col(Reading.struck_at).is_(None)
    )
    for drive_id, at, hours in session.exec(metered):
        found[drive_id].hours.append(MeterReading(at, hours or 0.0))
    for drive_id, rest in session.exec(
        select(Drive.id, LaidUp).join(LaidUp, col(LaidUp.machine_id) == col(Drive.machine_id)).where(col(Drive.id).in_(drives))
    ):
        found[drive_id].rests.append(rest)
    return found


@dataclass(frozen=True)
class Place:
    """Whose days count at a site, and by which rules things fall due there."""

    zone: ZoneInfo
    rules: tuple[UpkeepRule, ...]


def place_of(session: Session, site_id: uuid.UUID) -> Place:
    """The zone and the rules of a site."""
    site = session.get_one(Site, site_id)
    own = session.exec(select(DueRule).where(DueRule.site_id == site_id).order_by(col(DueRule.key)))
    return Place(ZoneInfo(site.zone), rules_of((rule_of(r), r.used) for r in own))


def day_at(session: Session, site_id: uuid.UUID, at: datetime) -> date:
    """The day that a moment is on at a site: every day that is told or counted is one of the site's own."""
    return at.astimezone(zone_of(session, site_id)).date()


def zone_of(session: Session, site_id: uuid.UUID) -> ZoneInfo:
    """Whose days count at a site."""
    return ZoneInfo(session.exec(select(Site.zone).where(Site.id == site_id)).one())


def rule_of(row: DueRule) -> UpkeepRule:
    """A site's own rule as the engine takes it."""
    kinds = tuple(k for k in row.kinds.split(";") if k)
    return UpkeepRule(
        row.key, row.event, row.what, row.after_hours, row.after_days, row.after_months, row.repeats, kinds, row.page, "this site's own"
    )


def own_rules(session: Session, site_id: uuid.UUID) -> list[DueRule]:
    """The rules that a site has of its own."""
    return list(session.exec(select(DueRule).where(DueRule.site_id == site_id).order_by(col(DueRule.key))))


def settle_rule(session: Session, writer: Writer, rule_id: uuid.UUID, seen: int, key: str, values: dict[str, Any]) -> DueRule:
    """Make the writer's site a rule of its own, or change it. `seen`: its version, 0 for a new one. Raises StaleError."""
    site_id = writer.site_id
    session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 0))"), {"key": f"due rule {site_id} {key}"})
    held = session.exec(select(DueRule).where(DueRule.site_id == site_id, DueRule.key == key)).first()
    if held is None:
        row = DueRule(id=rule_id, site_id=site_id, key=key, **values)
        insert(session, writer, row, "made a rule")
        return row
    update(session, writer, held, seen, values, "changed a rule")
    return held


def laid_up(session: Session, machine_id: uuid.UUID) -> LaidUp | None:
    """The lay-up that a machine is in."""
    wanted = select(LaidUp).where(LaidUp.machine_id == machine_id, col(LaidUp.ended_at).is_(None))
    return session.exec(wanted.order_by(col(LaidUp.began_at).desc())).first()


def answer_by_look(session: Session, writer: Writer, drive: Drive, cause: Cause, page: str, hours_per_day: float | None) -> list[str]:
    """A look taken on a station does the dues that are answered there and whose time has come; what they asked, in words."""
    site_id = session.get_one(Machine, drive.machine_id).site_id
    place, facts, at = place_of(session, site_id), facts_of(session, [drive.id])[drive.id], cause.at
    done = []
    for due in facts.dues(place.rules, hours_per_day, drive.family, at, place.zone):
        if due.rule.page == page and due.answered_by(facts.clock(hours_per_day), at):
            row = DueAnswer(
                id=uuid.uuid5(cause.id, due.rule.key),
                drive_id=drive.id,
                rule=due.rule.key,
                answer="done",
                at=at,
                why=cause.why,
                made_by=writer.person_id,
            )
            insert(session, writer, row, "did a due")
            done.append(due.rule.what)
    return done
