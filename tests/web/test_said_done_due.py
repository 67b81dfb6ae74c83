"""What people say they saw, what was done, and what falls due, over the web and on the record."""

import uuid
from datetime import UTC, date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import psycopg
import pytest
from flask import Flask
from sqlalchemy import Engine, text
from sqlmodel import Session, select

from tests.conftest import Caller
from tuyere.store import clock
from tuyere.store.tables import Drive, Finding, Machine


def of(caller: Caller, machine: str) -> dict[str, Any]:
    """A drive as Floor lists it."""
    listed: list[dict[str, Any]] = caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]
    return next(d for d in listed if d["machine"] == machine)


def new_drive(caller: Caller, name: str) -> str:
    """A drive of 8 hours a day, nothing said of it yet."""
    made = uuid.uuid4()
    body = {"id": str(made), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": name}
    assert caller.post(f"/api/sites/{caller.site_id}/drives", body).status_code == 201
    survey = {"machine": {"hours_per_day": {"text": "8"}}}
    kept = caller.post(f"/api/drives/{made}/surveys", {"id": str(uuid.uuid4()), "row_version": 1, "standing": "as found", "survey": survey})
    assert kept.status_code == 201
    return str(made)


def drive(caller: Caller, drive_id: str) -> dict[str, Any]:
    found: dict[str, Any] = caller.get(f"/api/drives/{drive_id}").json
    return found


def say(caller: Caller, drive_id: str, sign: str, words: str = "") -> Any:
    return caller.post(f"/api/drives/{drive_id}/findings", {"id": str(uuid.uuid4()), "sign": sign, "words": words})


def ago(**time: float) -> str:
    return (clock.now() - timedelta(**time)).isoformat()


def test_a_squeal_from_said_to_closed_and_opened_again(sign_in: Any, engine: Engine) -> None:
    tobias, ines = sign_in("Tobias"), sign_in("Ines")
    drive_id = new_drive(tobias, "Squealing fan")
    said = say(tobias, drive_id, "squeals at start").json
    listed = of(ines, "Squealing fan")
    assert (listed["level"], listed["why"], listed["page"]) == ("watch", "Squeals at start", "tension")
    finding = drive(ines, drive_id)["findings"][0]
    assert (finding["who"], finding["place"], finding["machine_state"], finding["by_core"]) == ("Tobias", "belt", "starting", False)
    change = f"/api/findings/{said['id']}"
    taken = ines.post(change, {"row_version": 1, "state": "being done"}).json
    stale = tobias.post(change, {"row_version": 1, "state": "closed", "why": "set again"})
    assert stale.status_code == 409 and "Ines" in stale.json["detail"], "two at once: nothing is lost"
    assert drive(tobias, drive_id)["findings"][0]["being_done_by"] == "Ines"
    nothing = tobias.post(change, {"row_version": taken["row_version"], "state": "closed"})
    assert nothing.status_code == 422 and nothing.json["errors"][0]["field"] == "why"
    closed = tobias.post(change, {"row_version": taken["row_version"], "state": "closed", "why": "set again, quiet"}).json
    assert drive(tobias, drive_id)["findings"] == []
    line = next(e for e in tobias.get(f"/api/drives/{drive_id}/log").json["entries"] if e["kind"] == "finding")
    assert "by Tobias: set again, quiet" in line["detail"] and not line["open"]
    assert ines.post(change, {"row_version": closed["row_version"], "state": "open"}).status_code == 200
    assert [f["what"] for f in drive(ines, drive_id)["findings"]] == ["Squeals at start"]
    with Session(engine) as session:
        did = session.execute(text("SELECT action FROM audit_entry WHERE subject_id = :id ORDER BY id"), {"id": said["id"]}).scalars()
        assert list(did) == ["raised a finding", "took a finding up", "closed a finding", "opened a finding again"]


def test_signs_are_of_the_list_or_in_own_words(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = new_drive(caller, "Odd fan")
    assert say(caller, drive_id, "sings").json["errors"][0]["field"] == "sign"
    assert say(caller, drive_id, "other").json["errors"][0]["field"] == "words"
    assert say(caller, drive_id, "other", "the cover  hums\n").json["what"] == "the cover hums"


def test_new_belts_raise_a_due_hours_bring_it_forward_and_the_second_reading_does_it(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    made = caller.post(
        f"/api/sites/{caller.site_id}/drives",
        {"id": str(uuid.uuid4()), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": "Belted fan"},
    ).json
    drive_id = made["id"]
    with_belts = {
        "quantities": {
            "driver_power": {"text": "10 hp"},
            "driver_speed": {"text": "1750 rpm"},
            "hours_per_day": {"text": "8"},
            "driver_diameter": {"text": "6.35 in"},
            "driven_diameter": {"text": "8.35 in"},
            "centre_distance": {"text": "35 in"},
        },
        "choices": {"section": "B", "belt": "B90", "belt_count": "2", "driven_class": "light"},
    }
    caller.post(f"/api/drives/{drive_id}/surveys", {"id": str(uuid.uuid4()), "row_version": 1, "standing": "as left", "survey": with_belts})

    def first() -> dict[str, Any]:
        return next(d for d in drive(caller, drive_id)["dues"] if d["key"] == "v first day")

    def gauge(force: str, state: str, **more: object) -> dict[str, Any]:
        body = {
            "id": str(uuid.uuid4()),
            "kind": "belt tension",
            "machine_state": "isolated",
            "gauge": {"forces": [{"text": force, "unit": "lbf"}] * 2, "belt_state": state},
            **more,
        }
        kept: dict[str, Any] = caller.post(f"/api/drives/{drive_id}/readings", body).json
        return kept

    say(caller, drive_id, "squeals at start")
    finding = drive(caller, drive_id)["findings"][0]
    body = {
        "id": str(uuid.uuid4()),
        "kind": "new set",
        "at": ago(days=1),
        "what": "2 × B90",
        "came_off": "old pair",
        "why_off": "glazed",
        "life_h": 900,
        "hour_meter": "100",
        "closes": [{"id": finding["id"], "row_version": 1}],
    }
    assert caller.post(f"/api/drives/{drive_id}/happened", body).json["life_h"] == 900
    assert drive(caller, drive_id)["findings"] == [], "closed by what was fitted"
    due = first()
    assert due["days"] == 2 and "about" in due["said"] and due["because"].startswith("Because the new set was fitted on")
    assert due["what"] not in gauge("7", "new")["done"], "the look at the fitting is not the one that it asks for"
    assert caller.post(f"/api/drives/{drive_id}/hours", {"id": str(uuid.uuid4()), "hour_meter": "120"}).status_code == 201
    assert first()["days"] <= 1 < due["days"], "twenty hours in a day: the rest comes sooner"
    say(caller, drive_id, "flops")
    kept = gauge("6", "new", was_set=True)
    assert "Set the tension again: new belts have settled" in kept["done"]
    keys = {d["key"] for d in drive(caller, drive_id)["dues"]}
    assert "v first day" not in keys and "v retension" in keys, "setting it begins a count of its own"
    strike = f"/api/readings/{kept['id']}/strike"
    caller.post(strike, {"row_version": 1, "struck": True})
    assert "v first day" in {d["key"] for d in drive(caller, drive_id)["dues"]}, "a reading struck out did nothing"
    caller.post(strike, {"row_version": 2, "struck": False})
    assert keys == {d["key"] for d in drive(caller, drive_id)["dues"]}
    settles = [s["what"] for s in kept["settles"]]
    assert settles == ["Belt flops or whips"]
    kinds = [e["kind"] for e in caller.get(f"/api/drives/{drive_id}/log").json["entries"]]
    assert {"done", "due", "hours", "set ended", "finding"} <= set(kinds)


def test_the_core_closes_its_own_when_a_newer_reading_says_so(sign_in: Any, engine: Engine) -> None:
    """The pump's last reading found its belts slack; a reading in order closes that, and says which."""
    with Session(engine) as session:
        drive_id = str(session.exec(select(Drive.id).join(Machine).where(Machine.name == "Steep-water pump")).one())
    caller = sign_in("Ines")
    held = [f for f in drive(caller, drive_id)["findings"] if f["by_core"] and f["page"] == "tension"]
    assert held and held[0]["place"] == "belt"
    sheet = caller.post("/api/calc/sheet", {"survey": drive(caller, drive_id)["survey"]}).json["figures"]
    middle = (sheet["force_low"]["value_si"] + sheet["force_high"]["value_si"]) / 2 / 4.4482216
    body = {
        "id": str(uuid.uuid4()),
        "kind": "belt tension",
        "machine_state": "isolated",
        "gauge": {"forces": [{"text": f"{middle:.2f}", "unit": "lbf"}] * 2},
    }
    assert caller.post(f"/api/drives/{drive_id}/readings", body).json["tone"] == "good"
    assert not any(f["by_core"] and f["page"] == "tension" for f in drive(caller, drive_id)["findings"])
    with Session(engine) as session:
        row = session.get_one(Finding, uuid.UUID(held[0]["id"]))
        assert row.closed_how == "reading" and row.closed_why.startswith("Reading of ")


def test_an_oil_change_brings_the_belts_and_the_next_change(sign_in: Any) -> None:
    caller = sign_in("Ines")
    drive_id = new_drive(caller, "Yard engine")
    body = {"id": str(uuid.uuid4()), "kind": "oil change", "interval_h": 40}
    assert caller.post(f"/api/drives/{drive_id}/happened", body).status_code == 201

    def keys() -> set[str]:
        return {d["key"] for d in drive(caller, drive_id)["dues"]}

    dues = {d["key"]: d for d in drive(caller, drive_id)["dues"]}
    assert dues["oil change"]["days"] == 0 and dues["oil"]["days"] == 5, "40 h at 8 h a day"
    assert (
        caller.post(f"/api/drives/{drive_id}/due-answers", {"id": str(uuid.uuid4()), "rule": "oil change", "answer": "done"}).status_code
        == 201
    )
    assert "oil change" not in keys() and "oil" in keys()
    back = {"id": str(uuid.uuid4()), "rule": "oil change", "answer": "taken back"}
    assert caller.post(f"/api/drives/{drive_id}/due-answers", back).status_code == 201 and "oil change" in keys()
    struck = caller.post(f"/api/happened/{body['id']}/strike", {"row_version": 1, "struck": True})
    assert struck.status_code == 200 and not {"oil", "oil change"} & keys()


def test_dues_are_moved_with_a_reason_and_rest_with_their_machine(sign_in: Any) -> None:
    lead, rowan = sign_in("Marta"), sign_in("Rowan")
    drive_id = new_drive(lead, "Seasonal auger")
    caller_day = (clock.now() + timedelta(days=9)).date().isoformat()
    promised = str(uuid.uuid4())
    assert (
        lead.post(f"/api/drives/{drive_id}/dues", {"id": promised, "what": "Look at the clutch", "due_on": caller_day}).status_code == 201
    )
    move = {"row_version": 1, "answer": "moved", "to_on": (clock.now() + timedelta(days=20)).date().isoformat()}
    assert lead.post(f"/api/dues/{promised}", move).json["errors"][0]["field"] == "why"
    assert lead.post(f"/api/dues/{promised}", {**move, "why": "after harvest"}).status_code == 200
    assert lead.post(f"/api/dues/{promised}", {**move, "why": "again"}).status_code == 409
    due = drive(lead, drive_id)["dues"][0]
    assert due["days"] == 20 and due["because"] == "Moved: after harvest"
    done = lead.post(f"/api/dues/{promised}", {"row_version": 2, "answer": "done"}).json
    assert drive(lead, drive_id)["dues"] == []
    assert lead.post(f"/api/dues/{promised}", {"row_version": done["row_version"], "answer": "taken back"}).status_code == 200
    hours = drive(lead, drive_id)["hours"]
    assert lead.post(f"/api/machines/{hours['machine_id']}/rest", {"id": str(uuid.uuid4()), "resting": True}).status_code == 200
    rested = drive(lead, drive_id)
    assert rested["dues"][0]["resting"] and rested["hours"]["laid_up_since"]
    for path, body in (
        (f"/api/drives/{drive_id}/findings", {"id": str(uuid.uuid4()), "sign": "rust"}),
        (f"/api/drives/{drive_id}/happened", {"id": str(uuid.uuid4()), "kind": "new set"}),
        (f"/api/dues/{promised}", {"row_version": 4, "answer": "done"}),
        (f"/api/machines/{hours['machine_id']}/rest", {"id": str(uuid.uuid4()), "resting": False}),
    ):
        assert rowan.post(path, body).status_code == 403
    ends = {"id": str(uuid.uuid4()), "resting": False, "row_version": rested["hours"]["lay_up_version"]}
    assert lead.post(f"/api/machines/{hours['machine_id']}/rest", ends).status_code == 200
    assert drive(lead, drive_id)["hours"]["laid_up_since"] is None


@pytest.mark.parametrize(("name", "status"), [("Marta", 200), ("Tobias", 403)])
def test_rules_are_the_leads_to_change(sign_in: Any, name: str, status: int) -> None:
    caller, lead = sign_in(name), sign_in("Marta")
    rules = f"/api/sites/{caller.site_id}/due-rules"
    body = {"id": str(uuid.uuid4()), "row_version": 0, "key": f"look {name}", "event": "new wheel", "what": "Set screws", "after_hours": 10}
    assert caller.post(rules, body).status_code == status
    if status == 403:
        return
    assert caller.post(rules, {**body, "after_hours": None, "id": str(uuid.uuid4())}).json["errors"][0]["field"] == "after_hours"
    drive_id = new_drive(lead, "Ruled fan")
    caller.post(f"/api/drives/{drive_id}/happened", {"id": str(uuid.uuid4()), "kind": "new wheel"})
    assert "Set screws" in [d["what"] for d in drive(lead, drive_id)["dues"]]
    listed = {r["key"]: r for r in lead.get(rules).json["rules"]}
    assert listed["look Marta"]["own"] and not listed["v first day"]["own"]
    off = {**body, "id": str(uuid.uuid4()), "row_version": 1, "used": False}
    assert caller.post(rules, off).status_code == 200
    assert "Set screws" not in [d["what"] for d in drive(lead, drive_id)["dues"]]
    stale = caller.post(rules, {**off, "id": str(uuid.uuid4()), "what": "Set screws and keys"})
    assert stale.status_code == 409, "somebody had the rule before"
    site = lead.get(rules).json
    assert lead.post(f"/api/sites/{lead.site_id}/zone", {"row_version": site["site_version"], "zone": "Mars/Olympus"}).status_code == 422
    assert lead.post(f"/api/sites/{lead.site_id}/zone", {"row_version": site["site_version"], "zone": "Europe/Berlin"}).status_code == 200
    assert lead.get(rules).json["zone"] == "Europe/Berlin"


OVER_MIDNIGHT = [  # the last moment of a day at the site, in its zone: month's end, a leap day, a year's end, clocks put on and back
    ("UTC", "2027-01-31"),
    ("Pacific/Kiritimati", "2028-02-29"),
    ("America/Los_Angeles", "2026-12-31"),
    ("Asia/Kathmandu", "2027-04-30"),
    ("Europe/Berlin", "2027-03-27"),
    ("Europe/Berlin", "2027-10-30"),
    ("America/St_Johns", "2027-11-06"),
    ("Pacific/Chatham", "2027-09-25"),
]


@pytest.mark.parametrize(("zone", "day"), OVER_MIDNIGHT)
def test_days_are_the_sites_own_over_midnight(app: Flask, demo_database_url: str, zone: str, day: str) -> None:
    """A minute before midnight and a minute after.

    What is due, what was done and what may be chosen go by the site's day, not the server's.
    """
    last = date.fromisoformat(day)
    midnight = datetime.combine(last + timedelta(days=1), time(), ZoneInfo(zone)).astimezone(UTC)
    with psycopg.connect(demo_database_url) as owner:
        owner.execute("UPDATE site SET zone = %s", (zone,))
    try:
        with clock.set_to(midnight - timedelta(minutes=1)):
            caller = entered(app, "Tobias")
            drive_id = new_drive(caller, f"Midnight {zone} {day} {uuid.uuid4().hex[:6]}")
            for on in (last, last + timedelta(days=1)):
                made = caller.post(
                    f"/api/drives/{drive_id}/dues", {"id": str(uuid.uuid4()), "what": f"Look on {on}", "due_on": on.isoformat()}
                )
                assert made.status_code == 201, made.json
            assert days_left(caller, drive_id) == {f"Look on {last}": 0, f"Look on {last + timedelta(days=1)}": 1}
            early = caller.post(
                f"/api/drives/{drive_id}/dues", {"id": str(uuid.uuid4()), "what": "late", "due_on": f"{last - timedelta(days=2)}"}
            )
            assert early.status_code == 422
        with clock.set_to(midnight + timedelta(minutes=1)):
            assert days_left(caller, drive_id) == {f"Look on {last}": -1, f"Look on {last + timedelta(days=1)}": 0}
            new = last + timedelta(days=1)
            caller.post(f"/api/drives/{drive_id}/happened", {"id": str(uuid.uuid4()), "kind": "new set", "what": "B68"})
            assert f"stood on {new:%d %b %Y}" in caller.get(f"/api/drives/{drive_id}/card.svg").text
    finally:
        with psycopg.connect(demo_database_url) as owner:
            owner.execute("UPDATE site SET zone = 'UTC'")


def entered(app: Flask, name: str) -> Caller:
    """Signed in by the clock as it is set."""
    client = app.test_client()
    session = client.get("/api/session").json
    person = next(p for p in session["demo_people"] if p["name"] == name)
    told = client.post("/api/session/demo", json={"person_id": person["id"]}, headers={"X-CSRFToken": session["csrf_token"]}).json
    return Caller(client, told["csrf_token"], told["sites"][0]["id"])


def days_left(caller: Caller, drive_id: str) -> dict[str, int]:
    return {d["what"]: d["days"] for d in drive(caller, drive_id)["dues"] if d["what"].startswith("Look on")}
