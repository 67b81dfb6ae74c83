"""The one way to write: once, in one transaction, versioned, audited, append-only."""

import copy
import uuid
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import psycopg
import pytest
from sqlalchemy import Engine, text
from sqlmodel import Session, col, func, select

from tuyere.store.database import engine_from
from tuyere.store.tables import AuditEntry, Configuration, Reading


def reading(forces: tuple[str, ...] = ("4.6", "4.4", "4.5"), **more: Any) -> dict[str, Any]:
    return {
        "id": str(uuid.uuid4()),
        "kind": "belt tension",
        "machine_state": "isolated",
        "gauge": {"forces": [{"text": f, "unit": "lbf"} for f in forces], "belt_state": "run in"},
        **more,
    }


def count(engine: Engine, drive_id: str) -> int:
    with Session(engine) as session:
        return session.exec(select(func.count()).select_from(Reading).where(Reading.drive_id == uuid.UUID(drive_id))).one()


def test_a_repeated_request_stores_once(sign_in: Any, engine: Engine, drive_id: str) -> None:
    caller, key, body, before = sign_in("Ines"), str(uuid.uuid4()), reading(), count(engine, drive_id)
    answers = [caller.post(f"/api/drives/{drive_id}/readings", body, key) for _ in range(3)]
    assert [a.status_code for a in answers] == [201, 201, 201]
    assert len({a.json["id"] for a in answers}) == 1
    assert count(engine, drive_id) == before + 1


def test_the_same_at_once_stores_once(sign_in: Any, engine: Engine, drive_id: str) -> None:
    key, body, before = str(uuid.uuid4()), reading(), count(engine, drive_id)
    callers = [sign_in("Ines") for _ in range(4)]
    with ThreadPoolExecutor(4) as pool:
        answers = list(pool.map(lambda c: c.post(f"/api/drives/{drive_id}/readings", body, key), callers))
    assert {a.status_code for a in answers} == {201}
    assert count(engine, drive_id) == before + 1


def test_a_key_used_for_another_request_or_person_is_refused(sign_in: Any, drive_id: str) -> None:
    caller, key, body = sign_in("Ines"), str(uuid.uuid4()), reading()
    assert caller.post(f"/api/drives/{drive_id}/readings", body, key).status_code == 201
    assert caller.post(f"/api/drives/{drive_id}/readings", reading(), key).status_code == 422
    assert sign_in("Marta").post(f"/api/drives/{drive_id}/readings", body, key).status_code == 422
    missing = caller.client.post(f"/api/drives/{drive_id}/readings", json=body, headers={"X-CSRFToken": caller.token})
    assert missing.status_code == 400 and missing.json["errors"][0]["field"] == "Idempotency-Key"


def test_a_taken_id_is_refused(sign_in: Any, drive_id: str) -> None:
    caller, body = sign_in("Ines"), reading()
    assert caller.post(f"/api/drives/{drive_id}/readings", body).status_code == 201
    again = caller.post(f"/api/drives/{drive_id}/readings", body)
    assert again.status_code == 422 and again.json["errors"][0]["field"] == "id"


def test_a_kept_reading_holds_what_was_measured(sign_in: Any, drive_id: str) -> None:
    caller = sign_in("Ines")
    body = reading(("4 1/2", "4.4", "20 N"), hour_meter="10,482", note="after lunch")
    made = caller.post(f"/api/drives/{drive_id}/readings", body)
    entry = next(e for e in caller.get(f"/api/drives/{drive_id}/log").json["entries"] if e["id"] == made.json["id"])
    assert (entry["who"], entry["machine_state"], entry["method"], entry["tool"]) == (
        "Ines",
        "isolated",
        "deflection at mid-span",
        "spring gauge",
    )
    assert [v["typed"] for v in entry["values"]] == ["4 1/2 lbf", "4.4 lbf", "20 N"]
    assert all(v["plus_minus_us"] and v["origin"] == "measured" for v in entry["values"])
    assert entry["hour_meter_h"] == 10482 and entry["note"] == "after lunch"
    assert entry["figures"]["strand_average"]["std_si"] > 0 and entry["sureness"]


@pytest.mark.parametrize(
    ("body", "field"),
    [
        (reading(("4.4", "twelve", "4.4")), "force_2"),
        (reading(("", "", "")), "force_1"),
        (reading(machine_state="running, guard on"), "machine_state"),
        (reading(hour_meter="many"), "hour_meter"),
        (reading(kind="shaft speed", machine_state="running, guard on"), "tach_driven"),
    ],
)
def test_a_reading_that_cannot_be_is_refused_with_its_field(
    sign_in: Any, engine: Engine, drive_id: str, body: dict[str, Any], field: str
) -> None:
    before = count(engine, drive_id)
    answer = sign_in("Ines").post(f"/api/drives/{drive_id}/readings", body)
    assert answer.status_code == 422 and answer.content_type == "application/problem+json"
    assert answer.json["errors"][0]["field"] == field
    assert count(engine, drive_id) == before


def test_a_stale_survey_is_refused_with_what_changed(sign_in: Any, engine: Engine, drive_id: str) -> None:
    ines, marta = sign_in("Ines"), sign_in("Marta")
    seen = ines.get(f"/api/drives/{drive_id}").json
    survey = seen["survey"]
    changed = {**survey, "design": {**survey["design"], "design_speed": {"text": "2900 rpm", "unit": "", "origin": None}}}
    body = {"id": str(uuid.uuid4()), "row_version": seen["row_version"], "standing": "corrected", "survey": changed}
    assert marta.post(f"/api/drives/{drive_id}/surveys", body).status_code == 201
    late = ines.post(f"/api/drives/{drive_id}/surveys", {**body, "id": str(uuid.uuid4())})
    assert late.status_code == 409
    assert late.json["current_version"] == seen["row_version"] + 1
    assert late.json["since"][0]["who"] == "Marta" and "design_speed_rad_per_s" in late.json["since"][0]["changes"]
    again = ines.post(f"/api/drives/{drive_id}/surveys", {**body, "id": str(uuid.uuid4()), "row_version": late.json["current_version"]})
    assert again.status_code == 201
    with Session(engine) as session:
        kept = session.exec(
            select(Configuration.sequence).where(Configuration.drive_id == uuid.UUID(drive_id)).order_by(col(Configuration.sequence))
        ).all()
    assert list(kept) == list(range(1, len(kept) + 1))


def test_an_impossible_survey_is_not_kept_and_a_bad_one_is(sign_in: Any, drive_id: str) -> None:
    caller = sign_in("Ines")
    seen = caller.get(f"/api/drives/{drive_id}").json

    def with_driver(text: str) -> dict[str, Any]:
        survey = copy.deepcopy(seen["survey"])
        survey["stages"][0]["fitted"]["quantities"]["driver_diameter"] = {"text": text, "unit": "in", "origin": None}
        return {"id": str(uuid.uuid4()), "row_version": seen["row_version"], "survey": survey}

    refused = caller.post(f"/api/drives/{drive_id}/surveys", with_driver("1/0"))
    assert refused.status_code == 422 and refused.json["errors"][0]["field"] == "driver_diameter"
    assert caller.post(f"/api/drives/{drive_id}/surveys", with_driver("3 3/4")).status_code == 201


def test_renaming_putting_away_and_bringing_back(sign_in: Any, drive_id: str) -> None:
    caller = sign_in("Ines")

    def details(**changed: Any) -> dict[str, Any]:
        seen = caller.get(f"/api/drives/{drive_id}").json
        keys = ("row_version", "machine_row_version", "name", "part_number", "note", "machine", "machine_kind", "place")
        return {k: seen[k] for k in keys} | changed

    path = f"/api/drives/{drive_id}/details"
    stale = details(note="older page")
    assert caller.post(path, details(note="grease both ends", place="Yard")).status_code == 200
    assert caller.post(path, stale).status_code == 409
    taken = caller.post(path, details(machine="Roller mill"))
    assert taken.status_code == 422 and taken.json["errors"][0]["field"] == "machine"
    for away in (True, False):
        assert caller.post(path, details(retired=away)).status_code == 200
        floor = caller.get(f"/api/sites/{caller.site_id}/floor?away={str(away).lower()}").json["drives"]
        assert next(d for d in floor if d["id"] == drive_id)["retired"] is away
    assert caller.get(f"/api/drives/{drive_id}").json["note"] == "grease both ends"


def test_striking_out_and_bringing_back(sign_in: Any, drive_id: str) -> None:
    caller = sign_in("Ines")
    made = caller.post(f"/api/drives/{drive_id}/readings", reading()).json["id"]
    struck = caller.post(f"/api/readings/{made}/strike", {"row_version": 1, "struck": True})
    assert struck.json["row_version"] == 2
    assert caller.post(f"/api/readings/{made}/strike", {"row_version": 1, "struck": False}).status_code == 409
    assert caller.post(f"/api/readings/{made}/strike", {"row_version": 2, "struck": False}).status_code == 200


def test_every_write_leaves_an_audit_entry(sign_in: Any, engine: Engine, drive_id: str, people: dict[str, uuid.UUID]) -> None:
    key = str(uuid.uuid4())
    made = sign_in("Ines").post(f"/api/drives/{drive_id}/readings", reading(), key).json["id"]
    with Session(engine) as session:
        entries = session.exec(select(AuditEntry).where(AuditEntry.idempotency_key == uuid.UUID(key))).all()
    assert {e.subject_table for e in entries} == {"reading", "reading_value"}
    assert all(e.person_id == people["Ines"] for e in entries)
    assert any(str(e.subject_id) == made for e in entries)


@pytest.mark.parametrize(
    "statement",
    [
        "DELETE FROM audit_entry",
        "UPDATE audit_entry SET action = 'x'",
        "UPDATE configuration SET reason = 'x'",
        "DELETE FROM wheel",
        "UPDATE reading_value SET value_si = 1",
        "DELETE FROM reading",
        "UPDATE reading SET note = 'x'",
        "INSERT INTO reading_value (id, reading_id, quantity, position, kind, typed_text, typed_unit, origin, value_si, std_si)"
        " SELECT gen_random_uuid(), id, 'force', 99, 'force', '', '', '', 1, -1 FROM reading LIMIT 1",
        "UPDATE machine SET name = ' '",
        "UPDATE drive SET family = ' '",
    ],
)
def test_the_database_itself_refuses(demo_database_url: str, statement: str) -> None:
    """Even the owner of the tables; what the serving role may not is tried in test_store."""
    with pytest.raises(Exception) as refused, Session(engine_from(demo_database_url)) as session:
        session.execute(text(statement))
    assert isinstance(refused.value.orig, psycopg.errors.IntegrityError)  # type: ignore[attr-defined]
