"""Load the sample plant: through the same store and core as everybody's writing, at the dates of its story."""

import math
import secrets
import tomllib
import uuid
from collections.abc import Callable
from datetime import datetime, timedelta
from importlib import resources
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session, col, select

from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.quantity import from_si
from tuyere.core.drive.answer import Answer
from tuyere.core.drive.sheet.solve import Sheet
from tuyere.core.mechanics import speed
from tuyere.core.stations.align import station
from tuyere.core.stations.align.moves import Feet
from tuyere.core.stations.find.cross_reference import read_csv
from tuyere.core.stations.inspect.diagnosis.of_drive import family_of
from tuyere.core.stations.inspect.rounds.checklist import compose
from tuyere.core.stations.inspect.rounds.of_drive import has_of
from tuyere.core.stations.inspect.signs import sign
from tuyere.core.stations.size.own_ratings import RatingsReport, read_ratings
from tuyere.core.stations.size.parts_list import PartsReport, read_parts
from tuyere.core.stations.tension.methods import SHOWS
from tuyere.core.stations.tension.station import tension_of
from tuyere.demo.load_jobs import load_jobs
from tuyere.demo.typed import typed_survey
from tuyere.instruments.rig import Rig, Truth
from tuyere.record.entry import Entry
from tuyere.record.forms import AlignForm, AlignReadingForm, ChecksForm, GaugeForm, TachometerForm, answer_of
from tuyere.record.state import refresh
from tuyere.store import drives, found, people, surveys
from tuyere.store.clock import now
from tuyere.store.dues_tables import DueAnswer, Happened, HourReading, LaidUp
from tuyere.store.inspect_tables import Round, RoundAnswer
from tuyere.store.people_tables import Membership, Person, Site
from tuyere.store.shop_tables import ShopList
from tuyere.store.tables import BeltLife, Configuration, Drive, Due, Finding, Machine
from tuyere.store.write import Writer, insert
from tuyere.web.alignments import KeepAlignment, alignment_of, keep_alignment
from tuyere.web.drives import survey_of
from tuyere.web.find import GetHomeIn, judge_fix
from tuyere.web.found import fix_row
from tuyere.web.readings import KeepReading, keep_round, reading_of
from tuyere.web.rig import shown_by
from tuyere.web.rounds import counted, raise_finding
from tuyere.web.surveyed import answer_on, survey_form
from tuyere.web.worn import KeepWear, keep_wear, wear_of

# How a tool's display is read: its unit, and to how many decimals.
AS_READ = {
    "force": ("lbf", 1),
    "frequency": ("Hz", 1),
    "sag": ("in", 2),
    "mark": ("mm", 1),
    "belt_tension": ("lbf", 0),
    "weight": ("lbf", 0),
}


def plant() -> dict[str, Any]:
    """The plant as written in plant.toml."""
    return tomllib.loads((resources.files("tuyere.demo") / "plant.toml").read_text(encoding="utf-8"))


def load_demo(engine: Engine) -> None:
    """Load the whole plant in one transaction."""
    story = plant()
    with Session(engine) as session, session.begin():
        site = Site(id=uuid.uuid4(), name=story["site"])
        session.add(site)
        session.flush()
        writers: dict[str, Writer] = {}
        for entry in story["people"]:
            person = people.new_person(uuid.uuid4(), entry["name"], secrets.token_hex(16), one_click=True)
            session.add(person)
            session.flush()
            session.add(Membership(person_id=person.id, site_id=site.id, role=entry["role"]))
            writers[person.name] = Writer(person.id, site.id, uuid.uuid4())
        report = read_csv(story["cross_reference"].lstrip())
        found.load_cross_reference(session, next(iter(writers.values())), report.entries)
        for what, read in (("parts", read_parts), ("ratings", read_ratings)):
            _own_list(session, next(iter(writers.values())), what, story[f"own_{what}"].lstrip(), read)
        for machine in story["machines"]:
            _machine(session, site, machine, writers[machine["by"]])
        session.flush()
        refresh(session, site.id, session.exec(select(Drive.id)).all())


def _own_list(session: Session, writer: Writer, what: str, content: str, read: Callable[[str], PartsReport | RatingsReport]) -> None:
    taken = sum(r.taken for r in read(content).rows)
    row = ShopList(
        id=uuid.uuid4(),
        site_id=writer.site_id,
        what=what,
        file_name=f"workshop-{what}.csv",
        content=content,
        rows_taken=taken,
        loaded_by=writer.person_id,
        loaded_at=now() - timedelta(days=40),
    )
    insert(session, writer, row, "kept a list of its own")


def _machine(session: Session, site: Site, entry: dict[str, Any], writer: Writer) -> None:
    machine = Machine(id=uuid.uuid4(), site_id=site.id, name=entry["name"], kind=entry["kind"], place=entry["place"])
    drive = Drive(
        id=uuid.uuid4(),
        machine_id=machine.id,
        name=entry["drive"],
        family=entry["family"],
        part_number=entry.get("part_number", ""),
        note=entry.get("note", ""),
    )
    drives.add_drive(session, writer, machine, drive)
    rounds = sorted(
        [(-s["days"], 0, "survey", s) for s in entry.get("surveys", [])]
        + [(-t["days"], 1, "tension", t) for t in entry.get("tension", [])]
        + [(-v["days"], 2, "speed", v) for v in entry.get("speed", [])]
        + [(-v["days"], 1 + (v["standing"] == "as left"), "align", v) for v in entry.get("align", [])]
        + [(-w["days"], 1, "wear", w) for w in entry.get("wear", [])]
        + [(-r["days"], 2, "round", r) for r in entry.get("rounds", [])]
        + [(-d["days"], 0, "did", d) for d in entry.get("did", [])],
        key=lambda r: r[:2],
    )
    configuration: Configuration | None = None
    for days, order, what, item in rounds:
        at = (now() + timedelta(days=days)).replace(hour=8 + 2 * order, minute=10 + 7 * order)
        if what == "survey":
            configuration = _survey(session, writer, drive, entry, item, at)
        elif what == "did":
            _did(session, writer, drive, item, at)
        elif what == "wear":
            body = KeepWear(
                id=uuid.uuid4(),
                what=item["what"],
                where=item.get("where", ""),
                words=item.get("words", {}),
                quantities={k: Entry(text=v) for k, v in item["measured"].items()},
                note=item.get("note", ""),
            )
            worn = wear_of(body, drive, configuration, writer.person_id, item.get("hours"), at)
            keep_wear(session, writer, drive, configuration, worn)
        elif what == "round":
            _round(session, writer, drive, configuration, item, at)
        elif what == "align":
            round_ = _align_round(answer_on(drive, configuration), item)
            kept = alignment_of(round_, drive, configuration, writer.person_id, item.get("hours"), at)
            keep_alignment(session, writer, drive, configuration, kept)
        else:
            _reading(session, writer, drive, configuration, what, item, at)
    _said(session, site, writer, drive, entry)
    load_jobs(session, writer, drive, entry.get("jobs", []))
    for item in entry.get("get_home", []):
        _get_home(session, writer, drive, configuration, item)
    for item in entry.get("lives", []):
        at = now() - timedelta(days=item["days"])
        life = BeltLife(
            id=uuid.uuid4(),
            drive_id=drive.id,
            ended_on=at.date(),
            hours_h=item["hours"],
            why=item["why"],
            made_by=writer.person_id,
            made_at=at,
        )
        insert(session, writer, life, "recorded the life of a set")
    for f in entry.get("findings", []):
        insert(
            session,
            writer,
            Finding(
                id=uuid.uuid4(),
                drive_id=drive.id,
                what=f["what"],
                weight=f["weight"],
                found_at=now() - timedelta(days=f["days"]),
                found_by=writer.person_id,
            ),
            "found",
        )
    for d in entry.get("dues", []):
        insert(
            session,
            writer,
            Due(id=uuid.uuid4(), drive_id=drive.id, what=d["what"], due_on=(now() + timedelta(days=d["days"])).date()),
            "promised",
        )


def _survey(session: Session, writer: Writer, drive: Drive, entry: dict[str, Any], item: dict[str, Any], at: datetime) -> Configuration:
    typed = typed_survey(entry)
    survey = survey_of(uuid.uuid4(), item["standing"], item["reason"], typed, answer_of(typed), at)
    return surveys.keep_survey(session, writer, drive, drive.row_version, survey)


def _reading(
    session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, what: str, item: dict[str, Any], at: datetime
) -> None:
    on = answer_on(drive, configuration)
    body = _tension_round(on, item) if what == "tension" else _speed_round(on.sheet, item)
    rows = reading_of(body, drive, configuration, writer.person_id, item.get("hours"), at)
    keep_round(session, writer, drive, configuration, rows, item.get("was_set", False))


def _did(session: Session, writer: Writer, drive: Drive, item: dict[str, Any], at: datetime) -> None:
    """Something fitted or done, with what the meter showed."""
    row = Happened(
        id=uuid.uuid4(),
        drive_id=drive.id,
        kind=item["kind"],
        at=at,
        what=item.get("what", ""),
        came_off=item.get("came_off", ""),
        why_off=item.get("why_off", ""),
        interval_h=item.get("interval_h"),
        made_by=writer.person_id,
        made_at=at,
    )
    insert(session, writer, row, "did")
    if "hours" in item:
        meter = HourReading(id=uuid.uuid4(), drive_id=drive.id, at=at, hours_h=item["hours"], taken_by=writer.person_id)
        insert(session, writer, meter, "read the hour meter")


def _said(session: Session, site: Site, writer: Writer, drive: Drive, entry: dict[str, Any]) -> None:
    """What people saw, what became of it, and what they said of dues; a machine at rest."""
    who = dict(session.exec(select(Person.name, Person.id).join(Membership).where(col(Membership.site_id) == site.id)).all())
    for item in entry.get("seen", []):
        seen, at = sign(item["sign"]), now() - timedelta(days=item["days"])
        row = Finding(
            id=uuid.uuid4(),
            drive_id=drive.id,
            what=seen.label,
            weight=seen.weight,
            found_at=at,
            found_by=who[item.get("by", entry["by"])],
            sign=seen.key,
            words=item.get("words", ""),
            place=seen.place,
            page=seen.page,
            machine_state=item.get("state", seen.state),
        )
        if "taken_up_by" in item:
            row.taken_up_by, row.taken_up_at = who[item["taken_up_by"]], at + timedelta(hours=20)
        if "closed" in item:
            row.closed_at, row.closed_by = now() - timedelta(days=item["closed"]["days"]), writer.person_id
            row.closed_how, row.closed_why = item["closed"]["how"], item["closed"]["why"]
        insert(session, writer, row, "raised a finding")
    for item in entry.get("answers", []):
        at = now() - timedelta(days=item["days"])
        to_on = (now() + timedelta(days=item["to_in"])).date() if "to_in" in item else None
        answered = DueAnswer(
            id=uuid.uuid4(),
            drive_id=drive.id,
            rule=item["rule"],
            answer=item["answer"],
            at=at,
            to_on=to_on,
            why=item.get("why", ""),
            made_by=who[item.get("by", entry["by"])],
        )
        insert(session, writer, answered, "answered a due")
    if "rests_for" in entry:
        began = now() - timedelta(days=entry["rests_for"])
        rest = LaidUp(id=uuid.uuid4(), machine_id=drive.machine_id, began_at=began, made_by=writer.person_id)
        insert(session, writer, rest, "laid up a machine")


def _get_home(session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, item: dict[str, Any]) -> None:
    asked = GetHomeIn(survey=survey_form(drive, configuration), fix_section=item["section"], fix_count=item["count"])
    judged, _ = judge_fix(asked)
    assert judged
    row = fix_row(asked, judged, uuid.uuid4(), drive.id, writer.person_id)
    row.made_at = now() - timedelta(days=item["days"])
    found.keep_fix(session, writer, row, (now() + timedelta(days=item["off_in"])).date())


def _tension_round(on: Answer, item: dict[str, Any]) -> KeepReading:
    """What the story's tool shows for its strand tensions, shares of the target: rounded as a person reads it."""
    gauge = GaugeForm(
        method=item.get("method", ""),
        stage=item.get("stage", 1),
        belt_state=item["state"],
        words=item.get("words", {}),
        quantities={k: Entry(text=v) for k, v in item.get("measured", {}).items()},
    )
    found = tension_of(on, gauge.stage, gauge.typed())
    assert found and found.at and found.scale, item
    scale = found.scale
    # By the band's lower edge here; a new set is told as times what it wants run in.
    band = scale.new if item["state"] == "new" else scale.run_in
    base = scale.target_n if found.stage.hangs else band and band.low_n / (1.3 if item["state"] == "new" else 1.0)
    wanted = [float(n) for n in item["newtons"]] if "newtons" in item else [r * (base or 0.0) for r in item["ratios"]]
    unit, digits = AS_READ[found.method.reads]
    kind = FIELDS[found.method.reads].kind
    shows = [SHOWS[found.method.key](found.at, tension) for tension in wanted]
    gauge.forces = [Entry(text=f"{from_si(v, kind, unit):.{digits}f}", unit=unit) for v in shows]
    return KeepReading(id=uuid.uuid4(), kind="belt tension", machine_state="isolated", gauge=gauge, note=item.get("note", ""))


def _round(session: Session, writer: Writer, drive: Drive, configuration: Configuration | None, item: dict[str, Any], at: datetime) -> None:
    """A round that was walked, everything in order but what the story says."""
    on = answer_on(drive, configuration)
    asked = compose(family_of(on), has_of(on.survey), item["depth"])
    ended = counted(len(asked), len(asked), len(item.get("not_ok", {})))
    row = Round(
        id=uuid.uuid4(),
        drive_id=drive.id,
        depth=item["depth"],
        items=[i.key for i in asked],
        began_at=at,
        began_by=writer.person_id,
        finished_at=at + timedelta(minutes=2 * len(asked)),
        finished_by=writer.person_id,
        said=ended,
        note=item.get("note", ""),
    )
    insert(session, writer, row, "finished a round")
    for n, asked_for in enumerate(asked):
        bad, cannot = item.get("not_ok", {}).get(asked_for.key), item.get("cannot", {}).get(asked_for.key)
        said = "not ok" if bad else "cannot" if cannot else "ok"
        found = RoundAnswer(
            id=uuid.uuid4(),
            round_id=row.id,
            item=asked_for.key,
            found=said,
            words=bad or cannot or "",
            by=writer.person_id,
            at=at + timedelta(minutes=2 * n),
        )
        found.finding_id = raise_finding(session, writer, row, found) if bad else None
        insert(session, writer, found, "answered an item of a round")


def _align_round(on: Answer, item: dict[str, Any]) -> KeepAlignment:
    """What the story's tools show of its errors: degrees, and millimetres of offset."""
    align = AlignForm(
        stage=item.get("stage", 1),
        wheel=item.get("wheel", 0),
        checks=ChecksForm(quantities={k: Entry(text=v) for k, v in item.get("measured", {}).items()}, words=item.get("checks", {})),
        readings=[AlignReadingForm(method=m) for m in item["by"]],
    )
    found = station.alignment_of(on, align.stage, align.typed())
    assert found, item
    angle, twist, offset = item["errors"]
    stands = Truth(math.radians(angle), math.radians(twist), offset / 1000)
    rig = Rig(found.pair, found.feet or Feet(0.1, 0.2, 0.2, 0.1), stands, item["days"])
    for reading in align.readings:
        shows = rig.read(reading.method)
        reading.quantities = {k: shown_by(reading.method, k, v, item.get("system", "si")) for k, v in shows.items()}
    return KeepAlignment(id=uuid.uuid4(), align=align, standing=item["standing"], note=item.get("note", ""))


def _speed_round(sheet: Sheet, item: dict[str, Any]) -> KeepReading:
    """Tachometer speeds, to the rpm, for the slip of the story; the motor a little over its plate speed."""
    driver = from_si(sheet.figures["driver_speed"].value_si, "rotation", "rpm") * 1.004
    driven = speed.driven_speed(driver, sheet.figures["ratio"].value_si) * (1 - item["slip"] / 100)
    form = TachometerForm(tach_driver=Entry(text=f"{driver:.0f}", unit="rpm"), tach_driven=Entry(text=f"{driven:.0f}", unit="rpm"))
    return KeepReading(id=uuid.uuid4(), kind="shaft speed", machine_state="running, guard on", tachometer=form)
