"""Every route has a rule, and the rules hold."""

import re
import uuid
from typing import Any

import pytest
from flask import Flask
from sqlalchemy import text

from tests.web.test_found import test_a_slip_is_kept_once_and_printed
from tests.web.test_photos import jpeg, send
from tests.web.test_said_done_due import of
from tuyere.store.database import engine_from
from tuyere.store.names import name_key
from tuyere.store.people import hash_passphrase
from tuyere.store.people_tables import Role
from tuyere.web.rules import rule_of

OPEN = {
    "/",
    "/<path:address>",
    "/api/alive",
    "/api/health",
    "/api/openapi.json",
    "/api/choices",
    "/api/families",
    "/api/signs",
    "/api/session",
    "/api/session/demo",
    "/api/session/reset",
    "/api/first-lead",
    "/api/tables",
    "/api/tables/<name>",
}


def test_every_route_has_a_rule_and_only_the_known_ones_are_open(app: Flask) -> None:
    for route in app.url_map.iter_rules():
        rule = rule_of(app, route.endpoint)
        assert rule is not None, f"{route.rule} has no rule"
        if rule.computes:
            assert route.rule.startswith("/api/calc/"), f"{route.rule}: the front leads calculations by their address"
        if rule.who == "anyone":
            assert route.rule in OPEN or route.rule.startswith("/api/calc/"), f"{route.rule} is open to anyone"
        else:
            assert rule.role is not None or route.rule.startswith("/api/session")


def _example(route: Any) -> str:
    return re.sub(r"<uuid:\w+>", lambda _: str(uuid.uuid4()), str(route.rule))


def test_nothing_behind_a_rule_answers_without_sign_in(app: Flask) -> None:
    client = app.test_client()
    token = client.get("/api/session").json["csrf_token"]
    for route in app.url_map.iter_rules():
        rule = rule_of(app, route.endpoint)
        if rule and rule.who != "anyone":
            for method in (route.methods or set()) - {"HEAD", "OPTIONS"}:
                answer = client.open(_example(route), method=method, headers={"X-CSRFToken": token}, json={})
                assert answer.status_code == (200 if route.rule == "/api/session" and method in ("GET", "POST") else 401), (
                    method,
                    route.rule,
                )


def test_a_route_without_a_rule_is_refused(demo_database_url: str) -> None:
    from tests.conftest import SECRET
    from tuyere.web.app import create_app
    from tuyere.web.settings import Settings

    app = create_app(Settings(demo_database_url, SECRET))
    app.add_url_rule("/api/forgotten", "forgotten", lambda: "secret")
    assert app.test_client().get("/api/forgotten").status_code == 403


@pytest.mark.parametrize(("name", "status"), [("Rowan", 403), ("Ines", 201), ("Marta", 201)])
def test_a_viewer_looks_and_a_mechanic_writes(sign_in: Any, name: str, status: int) -> None:
    caller = sign_in(name)
    assert caller.get(f"/api/sites/{caller.site_id}/floor").status_code == 200
    body = {"id": str(uuid.uuid4()), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": f"Fan of {name}"}
    assert caller.post(f"/api/sites/{caller.site_id}/drives", body).status_code == status


def test_another_site_is_not_there_at_all(sign_in: Any) -> None:
    caller = sign_in("Marta")
    assert caller.get(f"/api/sites/{uuid.uuid4()}/floor").status_code == 404
    assert caller.get(f"/api/drives/{uuid.uuid4()}").status_code == 404


def test_a_write_without_the_csrf_token_is_refused(sign_in: Any) -> None:
    caller = sign_in("Ines")
    caller.token = "wrong"
    assert caller.post(f"/api/sites/{caller.site_id}/drives", {}).status_code == 400


SUBJECTS = {
    "drive_id": "SELECT d.id FROM drive d JOIN machine m ON m.id = d.machine_id WHERE m.site_id = :site LIMIT 1",
    "reading_id": "SELECT id FROM reading LIMIT 1",
    "slip_id": "SELECT id FROM counter_slip LIMIT 1",
    "fix_id": "SELECT id FROM temporary_fix LIMIT 1",
    "list_id": "SELECT id FROM shop_list WHERE site_id = :site LIMIT 1",
    "what_if_id": "SELECT id FROM what_if WHERE site_id = :site LIMIT 1",
    "finding_id": "SELECT id FROM finding LIMIT 1",
    "due_id": "SELECT id FROM due LIMIT 1",
    "happened_id": "SELECT id FROM happened LIMIT 1",
    "photo_id": "SELECT id FROM photo LIMIT 1",
    "round_id": "SELECT id FROM inspection_round LIMIT 1",
    "job_id": "SELECT id FROM job LIMIT 1",
    "machine_id": "SELECT id FROM machine WHERE site_id = :site LIMIT 1",
    "device_id": "SELECT device_id FROM sign_in JOIN membership USING (person_id) WHERE site_id = :site AND device_id <> '' LIMIT 1",
}


def test_route_by_role_by_site(app: Flask, sign_in: Any, demo_database_url: str) -> None:
    """Every route of the map, asked by nobody, by each role of its site, and by the lead of another site, with real subjects."""
    marta = sign_in("Marta")
    added, phrase = {}, "seven blue herons"
    for role in Role:
        name, person_id = f"{role} {uuid.uuid4().hex[:8]}", str(uuid.uuid4())
        new = {"id": person_id, "name": name, "passphrase": phrase, "role": role}
        assert marta.post(f"/api/sites/{marta.site_id}/people", new).status_code == 201
        added[role] = (name, person_id)
    marta.post(
        f"/api/sites/{marta.site_id}/what-ifs", {"id": str(uuid.uuid4()), "name": "of the matrix", "size": {}, "chosen": "", "beside": []}
    )
    test_a_slip_is_kept_once_and_printed(sign_in)
    pump = of(marta, "Drill press")["id"]
    assert send(marta, pump, jpeg(40, 30)).status_code == 201
    assert marta.post(f"/api/drives/{pump}/rounds", {"id": str(uuid.uuid4())}).status_code == 201
    owner = engine_from(demo_database_url)
    with owner.begin() as connection:
        values = {
            key: connection.execute(text(sql), {"site": marta.site_id} if ":site" in sql else {}).scalar() for key, sql in SUBJECTS.items()
        }
        other = {"site": uuid.uuid4(), "person": uuid.uuid4(), "name": f"Other {uuid.uuid4().hex[:8]}", "hash": hash_passphrase(phrase)}
        other["key"] = name_key(str(other["name"]))
        connection.execute(text("INSERT INTO site (id, name, row_version) VALUES (:site, :name, 1)"), other)
        person = "INSERT INTO person (id, name, name_key, passphrase_hash, one_click, row_version) VALUES (:person, :name, :key, :hash, false, 1)"
        connection.execute(text(person), other)
        connection.execute(text("INSERT INTO membership (person_id, site_id, role) VALUES (:person, :site, 'lead')"), other)
        connection.execute(text("UPDATE person SET handed_over = false"))  # they have chosen their own
    assert all(values.values()), values
    values |= {"site_id": marta.site_id, "name": "v_grooves", "form": "svg", "address": "floor"}

    def client_of(name: str) -> Any:
        client = app.test_client()
        if name:
            token = client.get("/api/session").json["csrf_token"]
            assert client.post("/api/session", json={"name": name, "passphrase": phrase}, headers={"X-CSRFToken": token}).status_code == 200
        return client, client.get("/api/session").json["csrf_token"]

    callers = {"nobody": client_of(""), "another site's lead": client_of(other["name"]), **{r: client_of(added[r][0]) for r in Role}}
    cells = 0
    for route in app.url_map.iter_rules():
        rule = rule_of(app, route.endpoint)
        assert rule
        for method in sorted((route.methods or set()) - {"HEAD", "OPTIONS"}):
            for who, (client, token) in callers.items():
                if route.rule in ("/api/session", "/api/session/reset", "/api/first-lead") and method != "GET":
                    continue  # they change who is asking; test_session has them
                leaver, sign_in_id = (
                    _somebody_to_lose(marta, app, phrase) if "<uuid:person_id>" in route.rule or "sign_in_id" in route.rule else ("", "")
                )
                here = {**values, "person_id": leaver, "sign_in_id": sign_in_id}
                path = re.sub(r"<(?:\w+:)?(\w+)>", lambda m, at=here: str(at[m[1]]), route.rule)
                headers = {"X-CSRFToken": token, "Idempotency-Key": str(uuid.uuid4())}
                status = client.open(path, method=method, headers=headers, **({} if method == "GET" else {"json": {}})).status_code
                cells += 1
                if rule.who == "anyone":
                    assert status not in (401, 403), (who, method, path, status)
                elif who == "nobody":
                    assert status == 401, (who, method, path, status)
                elif rule.role is None:
                    assert status not in (401, 403), (who, method, path, status)
                elif who == "another site's lead":
                    assert status == 404, (who, method, path, status)
                elif not Role(who).covers(rule.role):
                    assert status == 403, (who, method, path, status)
                else:
                    assert status not in (401, 403, 404) and status < 500, (who, method, path, status)
    print(f"{cells} cells")
    assert cells > 400


def _somebody_to_lose(lead: Any, app: Flask, phrase: str) -> tuple[str, str]:
    name, person_id = f"Leaver {uuid.uuid4().hex[:8]}", str(uuid.uuid4())
    lead.post(f"/api/sites/{lead.site_id}/people", {"id": person_id, "name": name, "passphrase": phrase, "role": "viewer"})
    client = app.test_client()
    token = client.get("/api/session").json["csrf_token"]
    client.post("/api/session", json={"name": name, "passphrase": phrase}, headers={"X-CSRFToken": token})
    held = lead.get(f"/api/sites/{lead.site_id}/people").json["sessions"]
    return person_id, next(s["id"] for s in held if s["person_id"] == person_id)
