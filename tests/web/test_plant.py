"""The floor, the log, new drives, and the people of a site, on the demo plant."""

import math
import uuid
from datetime import datetime
from typing import Any

import pytest
from flask import Flask

from tuyere.demo.load import plant


def floor(caller: Any) -> dict[str, Any]:
    return {d["machine"]: d for d in caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]}


def log(caller: Any, drive_id: str, kind: str) -> list[dict[str, Any]]:
    return [e for e in caller.get(f"/api/drives/{drive_id}/log").json["entries"] if e["kind"] == kind]


def test_the_demo_plant_is_furnished(sign_in: Any) -> None:
    found = floor(sign_in("Rowan"))
    assert {m["name"] for m in plant()["machines"]} <= found.keys() and len(plant()["machines"]) >= 10
    assert {d["family"] for d in found.values()} >= {"v-belt", "flat belt", "roller chain"}
    surveyed = [d for d in found.values() if d["belts"]]
    assert len(surveyed) >= 9 and all(d["sketch"] for d in surveyed)
    assert sum(bool(d["last_headline"]) for d in surveyed) >= 9
    assert {d["machine"] for d in found.values() if d["findings"]} and {d["machine"] for d in found.values() if d["dues"]}


def test_dues_count_days_and_the_late_one_is_below_zero(sign_in: Any) -> None:
    found = floor(sign_in("Rowan"))
    assert found["Kiln exhaust fan"]["dues"][0]["days"] == -1
    days = [
        d["days"] for d in found["Steep-water pump"]["dues"] if not d["what"].startswith("Measure again")
    ]  # other tests measure wear there
    assert days[0] == 2


def test_a_sketch_is_the_drive_in_small(sign_in: Any) -> None:
    sketch = floor(sign_in("Rowan"))["Kiln exhaust fan"]["sketch"]
    driver, driven = sketch["wheels"]
    for strand in sketch["strands"]:
        assert math.hypot(strand["x1_m"] - driver["x_m"], strand["y1_m"] - driver["y_m"]) == pytest.approx(driver["radius_m"])
        assert math.hypot(strand["x2_m"] - driven["x_m"], strand["y2_m"] - driven["y_m"]) == pytest.approx(driven["radius_m"])


def test_the_story_of_a_set_that_relaxed(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    drive = floor(caller)["Kiln exhaust fan"]["id"]
    rounds = log(caller, drive, "belt tension")
    times = [datetime.fromisoformat(e["at"]) for e in rounds]
    assert times == sorted(times, reverse=True)
    means = [e["figures"]["strand_average"]["value_si"] for e in reversed(rounds)]
    assert means[0] < means[1], "the new set is tighter than the old one"
    assert means[3:] == sorted(means[3:], reverse=True), "and relaxes from then on"
    assert rounds[0]["tone"] == "watch" and rounds[-2]["belt_state"] == "new"
    assert {e["title"] for e in log(caller, drive, "survey")} == {"Survey 1, as found", "Survey 2, as left"}


def test_the_story_of_a_set_no_longer_matched_and_of_slip_that_grew(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    found = floor(caller)
    spreads = [e["figures"]["strand_spread"]["value_si"] for e in log(caller, found["Germination rooftop air unit"]["id"], "belt tension")]
    assert spreads == sorted(spreads, reverse=True) and spreads[0] > 0.3 > spreads[-1]
    slips = [e["figures"]["slip"]["value_si"] for e in log(caller, found["Steep-water pump"]["id"], "shaft speed")]
    assert slips == sorted(slips, reverse=True) and slips[0] > 0.03 > slips[-1]


def new_drive(**changed: Any) -> dict[str, Any]:
    return {
        "id": str(uuid.uuid4()),
        "name": "Main drive",
        "machine_id": str(uuid.uuid4()),
        "machine_name": f"Screen {uuid.uuid4().hex[:6]}",
    } | changed


def test_a_second_drive_on_the_same_machine_and_names_that_clash(sign_in: Any) -> None:
    caller = sign_in("Ines")
    path = f"/api/sites/{caller.site_id}/drives"
    first = new_drive()
    assert caller.post(path, first).status_code == 201
    assert caller.post(path, new_drive(machine_id=first["machine_id"], machine_name="", name="Second drive")).status_code == 201
    for body, field in (
        (new_drive(machine_name=first["machine_name"]), "machine_name"),
        (new_drive(machine_id=first["machine_id"]), "name"),
        (new_drive(name="   "), "name"),
        (new_drive(machine_name=" "), "machine_name"),
        (new_drive(family="rubber band"), "family"),
    ):
        refused = caller.post(path, body)
        assert refused.status_code == 422 and refused.json["errors"][0]["field"] == field, (body, refused.json)


def test_a_new_drive_has_an_empty_sheet_and_an_empty_log(sign_in: Any) -> None:
    caller = sign_in("Ines")
    made = caller.post(f"/api/sites/{caller.site_id}/drives", new_drive()).json["id"]
    seen = caller.get(f"/api/drives/{made}").json
    assert seen["configuration_id"] is None and seen["row_version"] == 1
    assert seen["survey"]["driver"]["driver_power"]["text"] == ""
    assert caller.get(f"/api/drives/{made}/log").json["entries"] == []


def test_a_lead_adds_people_and_nobody_else_does(sign_in: Any, app: Flask) -> None:
    lead = sign_in("Marta")
    path = f"/api/sites/{lead.site_id}/people"
    person = {"id": str(uuid.uuid4()), "name": "Wim", "passphrase": "copper kettle nine", "role": "viewer"}
    assert sign_in("Ines").get(path).status_code == 403
    assert sign_in("Ines").post(path, person).status_code == 403
    assert lead.post(path, {**person, "passphrase": "short"}).json["errors"][0]["field"] == "passphrase"
    assert lead.post(path, person).status_code == 201
    assert lead.post(path, {**person, "id": str(uuid.uuid4())}).json["errors"][0]["field"] == "name"
    assert ("Wim", "viewer") in {(p["name"], p["role"]) for p in lead.get(path).json["people"]}
    client = app.test_client()
    token = client.get("/api/session").json["csrf_token"]
    signed = client.post("/api/session", json={"name": "Wim", "passphrase": "copper kettle nine"}, headers={"X-CSRFToken": token})
    assert signed.json["sites"][0]["role"] == "viewer"
    assert all(p.keys() == {"id", "name", "role", "seen_at"} for p in lead.get(path).json["people"])
    token = signed.json["csrf_token"]
    for present, wanted, status in (
        ("guess", "pewter jug eleven", 422),
        ("copper kettle nine", "short", 422),
        ("copper kettle nine", "pewter jug eleven", 200),
    ):
        changed = client.post("/api/session/passphrase", json={"present": present, "wanted": wanted}, headers={"X-CSRFToken": token})
        assert changed.status_code == status


def test_choices_name_every_field_unit_and_caution(sign_in: Any) -> None:
    choices = sign_in("Rowan").get("/api/choices").json
    names = [s["value"] for s in choices["sections"]]
    assert len(names) > 45 and {"A", "BX", "5V", "4L", "AA", "HB", "ISO A", "SPA", "XPB", "PK", "link 13"} <= set(names)
    assert {"in", "mm", "ft", "cm", "m"} <= set(choices["fields"]["centre_distance"]["units"])
    assert choices["cautions"]["tension"] and "manual" in choices["cautions"]["deference"]
    assert len(choices["driven_classes"]) == 5


@pytest.mark.parametrize("text", ["null \x00 here", "half \ud83d", "\x00"])
def test_invisible_characters_are_refused_not_broken(sign_in: Any, app: Flask, text: str) -> None:
    caller = sign_in("Ines")
    drive = floor(caller)["Drill press"]["id"]
    seen = caller.get(f"/api/drives/{drive}").json
    reading = {
        "id": str(uuid.uuid4()),
        "kind": "belt tension",
        "machine_state": "isolated",
        "gauge": {"forces": [{"text": "1.5"}]},
        "note": text,
    }
    survey = {"id": str(uuid.uuid4()), "row_version": seen["row_version"], "reason": text, "survey": seen["survey"]}
    for path, body in (
        (f"/api/sites/{caller.site_id}/drives", new_drive(name=text)),
        (f"/api/drives/{drive}/readings", reading),
        (f"/api/drives/{drive}/surveys", survey),
    ):
        answer = caller.post(path, body)
        assert answer.status_code == 422, (path, answer.json)
    assert app.test_client().post("/api/calc/quantity", json={"text": text}).status_code == 422
    client = app.test_client()
    token = client.get("/api/session").json["csrf_token"]
    assert client.post("/api/session", json={"name": text, "passphrase": text}, headers={"X-CSRFToken": token}).status_code == 422
