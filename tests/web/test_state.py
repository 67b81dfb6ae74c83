"""What the lists of drives go by is kept by every write: after each of them it is what would be worked out anew, whoever wrote and however."""

import threading
import uuid
from datetime import date, timedelta
from typing import Any
from urllib.parse import quote

import pytest
from flask import Flask
from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule
from sqlalchemy import Engine
from sqlalchemy import select as columns
from sqlmodel import Session, col, select

from tests.conftest import SECRET, Caller, database
from tuyere.core.stations.floor.attention import Level
from tuyere.record import state as kept
from tuyere.record.listed import Asked, page
from tuyere.store import clock
from tuyere.store.database import engine_from
from tuyere.store.state_tables import DriveDue, DriveState
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

BELTS = {
    "driver": {"driver_power": {"text": "10 hp"}, "driver_speed": {"text": "1750 rpm"}},
    "machine": {"hours_per_day": {"text": "8"}, "driven_class": "light"},
    "stages": [
        {
            "fitted": {
                "family": "v-belt",
                "quantities": {
                    "driver_diameter": {"text": "6.35 in"},
                    "driven_diameter": {"text": "8.35 in"},
                    "centre_distance": {"text": "35 in"},
                },
                "choices": {"section": "B", "belt": "B90", "belt_count": "2"},
            }
        }
    ],
}


@pytest.fixture(scope="module")
def serving_url() -> str:
    return prepare(database("tuyere_test_state", "demo"), SECRET, demo=True)


@pytest.fixture(scope="module")
def app(serving_url: str) -> Flask:
    return create_app(Settings(serving_url, SECRET, demo=True, plant="test"))


@pytest.fixture
def engine(serving_url: str) -> Engine:
    return engine_from(serving_url)


def wrong(engine: Engine, site_id: str) -> list[str]:
    with Session(engine) as session:
        return kept.compare(session, uuid.UUID(site_id))


def entered(app: Flask, name: str) -> Caller:
    client = app.test_client()
    session = client.get("/api/session").json
    person = next(p for p in session["demo_people"] if p["name"] == name)
    answer = client.post("/api/session/demo", json={"person_id": person["id"]}, headers={"X-CSRFToken": session["csrf_token"]})
    return Caller(client, answer.json["csrf_token"], answer.json["sites"][0]["id"])


def test_a_plant_that_was_loaded_is_kept_as_it_would_be_worked_out(app: Flask, engine: Engine) -> None:
    assert wrong(engine, entered(app, "Ines").site_id) == []


def test_the_level_of_a_row_is_the_cores_on_any_day(app: Flask, engine: Engine) -> None:
    """The column that lists are sorted by, against the one rule of attention, on days around every due."""
    entered(app, "Ines")
    with Session(engine) as session:
        rows = session.exec(select(DriveState)).all()
        days = {d + timedelta(days=k) for d in {r.due_on for r in rows if r.due_on} for k in (-8, -7, -1, 0, 1)}
        assert len(days) > 10 and {r.said for r in rows} >= {0, 2, 4, 5}
        for today in sorted(days)[:40]:
            by_column = {r[0]: r[1] for r in session.execute(columns(col(DriveState.drive_id), kept.level_on(today)))}
            for r in rows:
                assert kept.LEVELS[by_column[r.drive_id]] is kept.attention_of(r, today).level, (r.why, r.due_on, today)


class Plant(RuleBasedStateMachine):
    """Hands at work on a few drives, in any order; leads who change what all drives go by."""

    app: Flask
    engine: Engine

    @initialize()
    def begin(self) -> None:
        self.ines, self.marta = entered(self.app, "Ines"), entered(self.app, "Marta")
        self.drives: list[str] = []
        self.readings: list[tuple[str, int]] = []
        self.findings: list[tuple[str, int]] = []
        self.happened: list[tuple[str, int]] = []
        self.add()
        self.add()

    def kept(self, caller: Caller, path: str, body: dict[str, Any]) -> dict[str, Any]:
        found = caller.post(path, body)
        assert found.status_code < 300, (path, found.json)
        answer: dict[str, Any] = found.json
        return answer

    def of(self, one: int) -> str:
        return self.drives[one % len(self.drives)]

    @rule()
    def add(self) -> None:
        made = {
            "id": str(uuid.uuid4()),
            "name": "Drive",
            "machine_id": str(uuid.uuid4()),
            "machine_name": f"Fan {uuid.uuid4()}",
            "place": "Attic, east",
        }
        self.kept(self.ines, f"/api/sites/{self.ines.site_id}/drives", made)
        self.drives.append(made["id"])

    @rule(one=st.integers(0, 9), standing=st.sampled_from(["as found", "as left", "proposed"]), many=st.sampled_from(["1", "2", "3"]))
    def survey(self, one: int, standing: str, many: str) -> None:
        version = self.ines.get(f"/api/drives/{self.of(one)}").json["row_version"]
        survey = {**BELTS, "stages": [{**BELTS["stages"][0]}]}
        survey["stages"][0]["fitted"]["choices"]["belt_count"] = many
        body = {"id": str(uuid.uuid4()), "row_version": version, "standing": standing, "survey": survey}
        self.kept(self.ines, f"/api/drives/{self.of(one)}/surveys", body)

    @rule(
        one=st.integers(0, 9), force=st.sampled_from(["2", "6", "7.5", "15"]), state=st.sampled_from(["new", "run in"]), left=st.booleans()
    )
    def gauge(self, one: int, force: str, state: str, left: bool) -> None:
        gauge = {"forces": [{"text": force, "unit": "lbf"}] * 2, "belt_state": state}
        body = {"id": str(uuid.uuid4()), "kind": "belt tension", "machine_state": "isolated", "gauge": gauge, "was_set": left}
        found = self.ines.post(f"/api/drives/{self.of(one)}/readings", body)
        assert found.status_code in (201, 422), found.json  # nothing to gauge before it is surveyed
        if found.status_code == 201:
            self.readings.append((body["id"], 1))

    @precondition(lambda self: self.readings)
    @rule(one=st.integers(0, 99), struck=st.booleans())
    def strike(self, one: int, struck: bool) -> None:
        at = one % len(self.readings)
        reading, version = self.readings[at]
        done = self.kept(self.ines, f"/api/readings/{reading}/strike", {"row_version": version, "struck": struck})
        self.readings[at] = reading, done["row_version"]

    @rule(one=st.integers(0, 9), sign=st.sampled_from(["squeals at start", "flops", "smells burnt"]))
    def see(self, one: int, sign: str) -> None:
        said = self.ines.post(f"/api/drives/{self.of(one)}/findings", {"id": str(uuid.uuid4()), "sign": sign, "words": ""})
        if said.status_code == 201:
            self.findings.append((said.json["id"], 1))

    @precondition(lambda self: self.findings)
    @rule(one=st.integers(0, 99), state=st.sampled_from(["closed", "being done", "open"]))
    def change(self, one: int, state: str) -> None:
        at = one % len(self.findings)
        finding, version = self.findings[at]
        done = self.ines.post(f"/api/findings/{finding}", {"row_version": version, "state": state, "why": "looked at"})
        if done.status_code == 200:
            self.findings[at] = finding, done.json["row_version"]

    @rule(one=st.integers(0, 9), kind=st.sampled_from(["new set", "re-tension", "first start"]), days=st.integers(0, 40))
    def happen(self, one: int, kind: str, days: int) -> None:
        body = {"id": str(uuid.uuid4()), "kind": kind, "at": (clock.now() - timedelta(days=days)).isoformat(), "what": "2 × B90"}
        done = self.ines.post(f"/api/drives/{self.of(one)}/happened", body)
        if done.status_code == 201:
            self.happened.append((body["id"], 1))

    @precondition(lambda self: self.happened)
    @rule(one=st.integers(0, 99), struck=st.booleans())
    def undo(self, one: int, struck: bool) -> None:
        at = one % len(self.happened)
        happened, version = self.happened[at]
        done = self.ines.post(f"/api/happened/{happened}/strike", {"row_version": version, "struck": struck})
        if done.status_code == 200:
            self.happened[at] = happened, done.json["row_version"]

    @rule(one=st.integers(0, 9), days=st.integers(-3, 30))
    def promise(self, one: int, days: int) -> None:
        on = (clock.now().date() + timedelta(days=days)).isoformat()
        self.ines.post(f"/api/drives/{self.of(one)}/dues", {"id": str(uuid.uuid4()), "what": "look again", "due_on": on})

    @rule(one=st.integers(0, 9), meter=st.integers(1, 5000))
    def hours(self, one: int, meter: int) -> None:
        self.ines.post(f"/api/drives/{self.of(one)}/hours", {"id": str(uuid.uuid4()), "hour_meter": f"{meter} h"})

    @rule(one=st.integers(0, 9), place=st.sampled_from(["Attic, west", "Cellar", ""]), retired=st.booleans())
    def details(self, one: int, place: str, retired: bool) -> None:
        held = self.ines.get(f"/api/drives/{self.of(one)}").json
        body = {
            "row_version": held["row_version"],
            "machine_row_version": held["machine_row_version"],
            "name": "Drive",
            "machine": held["machine"],
            "machine_kind": "blower",
            "place": place,
            "retired": retired,
        }
        self.kept(self.ines, f"/api/drives/{self.of(one)}/details", body)

    @rule(zone=st.sampled_from(["UTC", "Pacific/Auckland", "America/Los_Angeles"]))
    def zone(self, zone: str) -> None:
        site = f"/api/sites/{self.marta.site_id}"
        version = self.marta.get(f"{site}/due-rules").json["site_version"]
        self.kept(self.marta, f"{site}/zone", {"row_version": version, "zone": zone})

    @invariant()
    def what_is_kept_is_what_would_be_worked_out(self) -> None:
        with Session(self.engine) as session:
            site = uuid.UUID(self.ines.site_id) if hasattr(self, "ines") else None
            if site is None:
                return
            stale = session.exec(select(DriveState.drive_id).where(col(DriveState.stale))).all()
            if stale:  # a rebuild in the background
                kept.rebuild(session, site)
            assert kept.compare(session, site) == []


def test_every_order_of_writes_keeps_it(app: Flask, engine: Engine) -> None:
    Plant.app, Plant.engine = app, engine
    from hypothesis.stateful import run_state_machine_as_test

    run_state_machine_as_test(Plant, settings=settings(max_examples=4, stateful_step_count=18, deadline=None))


def test_two_hands_at_one_drive_at_once_leave_both(app: Flask, engine: Engine) -> None:
    ines = entered(app, "Ines")
    made = {"id": str(uuid.uuid4()), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": "Two at once"}
    assert ines.post(f"/api/sites/{ines.site_id}/drives", made).status_code == 201
    path = f"/api/drives/{made['id']}/findings"

    def see(n: int) -> None:
        with app.app_context():
            mine = entered(app, "Tobias")
            assert mine.post(path, {"id": str(uuid.uuid4()), "sign": "other", "words": f"noise {n}"}).status_code == 201

    hands = [threading.Thread(target=see, args=(n,)) for n in range(6)]
    for h in hands:
        h.start()
    for h in hands:
        h.join()
    assert wrong(engine, ines.site_id) == []
    row = next(d for d in ines.get(f"/api/sites/{ines.site_id}/floor?find=two+at+once").json["drives"])
    assert len(row["findings"]) == 6


def test_a_page_after_a_page_is_the_whole_list_once(app: Flask) -> None:
    caller = entered(app, "Marta")
    floor = f"/api/sites/{caller.site_id}/floor"
    whole = caller.get(f"{floor}?limit=200").json
    assert whole["next"] == "" and len(whole["drives"]) == whole["here"] == sum(whole["counts"].values())
    seen, after = [], ""
    while True:
        found = caller.get(f"{floor}?limit=7&after={after}").json
        seen += [d["id"] for d in found["drives"]]
        assert found["counts"] == whole["counts"]
        if not (after := found["next"]):
            break
    assert seen == [d["id"] for d in whole["drives"]] and len(set(seen)) == len(seen)
    order = [list(Level).index(Level(d["level"])) for d in whole["drives"]]
    assert order == sorted(order)
    assert caller.get(f"{floor}?after=nonsense").status_code == 422
    assert caller.get(f"{floor}?limit=0").status_code == 422


def test_what_is_looked_for_is_found_and_counted(app: Flask, engine: Engine) -> None:
    caller = entered(app, "Marta")
    floor = f"/api/sites/{caller.site_id}/floor"
    whole = {d["id"]: d for d in caller.get(floor).json["drives"]}
    for words in ("fan", "b90", "belt%", "_", "conveyor sack", "OVERHEAD"):
        found = caller.get(f"{floor}?find={words.replace('%', '%25').replace(' ', '+')}").json
        with Session(engine) as session:
            texts = {str(s.drive_id): s.words for s in session.exec(select(DriveState).where(~col(DriveState.retired)))}
        assert {d["id"] for d in found["drives"]} == {i for i, t in texts.items() if all(w in t for w in words.lower().split())} & set(
            whole
        )
    for area in caller.get(floor).json["areas"]:
        mine = caller.get(floor + f"?area={quote(area['name'] or '-')}").json
        assert len(mine["drives"]) == area["drives"] and all((d["place"].split(",")[0].strip()) == area["name"] for d in mine["drives"])
        assert sum(mine["counts"][x] for x in ("stop", "overdue", "watch")) == area["attention"]
    stops = caller.get(f"{floor}?levels=stop,watch").json["drives"]
    assert {d["level"] for d in stops} == {"stop", "watch"}


def test_what_falls_due_is_the_drives_own_dues(app: Flask) -> None:
    caller = entered(app, "Marta")
    listed = caller.get(f"/api/sites/{caller.site_id}/dues?days=60").json
    own = [
        (d["id"], due["key"])
        for d in caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]
        for due in d["dues"]
        if not due["resting"] and due["days"] is not None and due["days"] <= 60
    ]
    assert listed["many"] == len(own) and {(d["drive_id"], d["due"]["key"]) for d in listed["dues"]} <= set(own)
    days = [d["due"]["days"] for d in listed["dues"]]
    assert days == sorted(days) and len(days) > 5


def test_what_is_stale_is_told_right_and_is_worked_out_by_a_rebuild(app: Flask, engine: Engine) -> None:
    caller = entered(app, "Ines")
    with Session(engine) as session:
        site = uuid.UUID(caller.site_id)
        row = session.exec(select(DriveState).where(col(DriveState.due_on).is_not(None))).first()
        assert row
        drive_id, right = row.drive_id, (row.why, row.due_on)
        row.why, row.due_on, row.stale = "nonsense", date(2001, 1, 1), True
        session.exec(select(DriveDue).where(DriveDue.drive_id == drive_id)).first()
        session.commit()
        assert any("nonsense" in w for w in kept.compare(session, site))
        assert caller.get(f"/api/drives/{drive_id}").json["why"] != "nonsense", "its own page works it out"
        assert kept.rebuild(session, site) == 1
        again = session.get_one(DriveState, drive_id)
        assert (again.why, again.due_on) == right and kept.compare(session, site) == []
        assert len(page(session, site, Asked(limit=3), clock.now().date()).rows) == 3
