"""Sign-in by passphrase, the brake on guessing, the first lead of an empty plant."""

from typing import Any

from flask import Flask
from sqlmodel import Session, select

from tests.conftest import SECRET
from tuyere.store import people
from tuyere.store.tables import Person
from tuyere.web.app import Settings, create_app


def post(client: Any, path: str, body: dict[str, Any]) -> Any:
    token = client.get("/api/session").json["csrf_token"]
    return client.post(path, json=body, headers={"X-CSRFToken": token})


def test_first_lead_then_passphrase_then_the_brake(empty_database_url: str) -> None:
    app = create_app(Settings(empty_database_url, SECRET, plant="empty"))
    with Session(app.extensions["engine"]) as session:
        code = people.issue_first_lead_code(session)
    assert code
    client = app.test_client()
    assert client.get("/api/session").json["needs_first_lead"]
    form = {"code": code, "name": "Ada", "passphrase": "short", "site_name": "Mill"}
    assert post(client, "/api/first-lead", form).json["errors"][0] == {
        "field": "passphrase",
        "detail": "This is too short: at least 10 characters.",
    }
    form["passphrase"] = "seven blue herons"
    assert post(client, "/api/first-lead", {**form, "code": "wrong"}).status_code == 422
    made = post(client, "/api/first-lead", form)
    assert made.json["sites"][0]["role"] == "lead"
    assert post(app.test_client(), "/api/first-lead", {**form, "name": "Eve"}).status_code == 422, "the code works once"
    with Session(app.extensions["engine"]) as session:
        assert people.issue_first_lead_code(session) is None
        assert session.exec(select(Person.passphrase_hash)).one().startswith("$argon2id$")

    assert post(app.test_client(), "/api/session", {"name": "Ada", "passphrase": "seven blue herons"}).json["name"] == "Ada"
    for _ in range(people.FAILURES_ALLOWED):
        assert post(app.test_client(), "/api/session", {"name": "Ada", "passphrase": "guess"}).status_code == 422
    assert post(app.test_client(), "/api/session", {"name": "Ada", "passphrase": "seven blue herons"}).status_code == 429


def test_demo_people_only_in_demo_mode(app: Flask, demo_database_url: str) -> None:
    person = app.test_client().get("/api/session").json["demo_people"][0]
    real = create_app(Settings(demo_database_url, SECRET, demo=False))
    client = real.test_client()
    assert client.get("/api/session").json["demo_people"] == []
    assert post(client, "/api/session/demo", {"person_id": person["id"]}).status_code == 404


def test_signing_out(sign_in: Any) -> None:
    caller = sign_in("Ines")
    assert caller.client.delete("/api/session", headers={"X-CSRFToken": caller.token}).json["name"] is None
    assert caller.get(f"/api/sites/{caller.site_id}/floor").status_code == 401
