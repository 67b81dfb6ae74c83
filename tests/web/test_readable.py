"""What cannot be kept or meant is refused in words at every door, and a record that is away is said to be away."""

import json
import uuid
from typing import Any

import pytest
from flask import Flask

from tests.conftest import SECRET
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

BODIES = [
    ('{"text": "12\\u0000 in", "kind": "length"}', "text"),
    ('{"text": "\\ud800", "kind": "length"}', "text"),
    ('{"text": "12\\u0001 in", "kind": "length"}', "text"),
    ('{"text": "12 in\\ufffe", "kind": "length"}', "text"),
    ('{"text": "12 in\\u0085", "kind": "length"}', "text"),
    ('{"text": "12 in\\ud83f\\udffe", "kind": "length"}', "text"),
    ('{"te\\u0000xt": "12 in"}', ""),
    ('{"text": "12 in", "kind": "length", "n": NaN}', ""),
    ('{"text": "12 in", "kind": "length", "n": 1e308}', ""),
    ('{"text": "12 in", "kind": "length", "n": -Infinity}', ""),
    ('{"text": "12 in", "kind": "length", "n": ' + "9" * 5000 + "}", ""),
    ('{"text": ' + "[" * 2000 + "]" * 2000 + "}", ""),
    ('{"text": ' + "[" * 60 + '"x"' + "]" * 60 + "}", ""),
]


@pytest.mark.parametrize(("body", "field"), BODIES)
def test_what_cannot_be_meant_is_refused_in_words(app: Flask, sign_in: Any, drive_id: str, body: str, field: str) -> None:
    caller = sign_in("Marta")
    headers = {"X-CSRFToken": caller.token, "Idempotency-Key": str(uuid.uuid4())}
    for client, path in (
        (app.test_client(), "/api/calc/quantity"),
        (app.test_client(), "/api/calc/sheet"),
        (caller.client, f"/api/drives/{drive_id}/readings"),
        (caller.client, f"/api/drives/{drive_id}/surveys"),
    ):
        answer = client.post(path, data=body.encode(), content_type="application/json", headers=headers)
        assert answer.status_code == 422 and answer.content_type == "application/problem+json", (path, answer.status_code)
        assert len(answer.json["detail"]) > 20 and (not field or answer.json["errors"][0]["field"] == field)


def test_nothing_typed_into_an_address_breaks_it(app: Flask, sign_in: Any) -> None:
    caller = sign_in("Marta")
    for path in (
        "/api/tables/v_grooves%00",
        "/api/choices?site=%00",
        "/api/tables/" + "x" * 5000,
        f"/api/sites/{caller.site_id}/floor?q=%00",
    ):
        assert caller.client.get(path).status_code < 500, path


def test_a_version_beyond_its_column_is_refused(sign_in: Any, drive_id: str) -> None:
    caller = sign_in("Marta")
    for version in (2**31, 2**53, -1):
        body = {"id": str(uuid.uuid4()), "row_version": version, "standing": "as found", "survey": {}}
        assert caller.post(f"/api/drives/{drive_id}/surveys", body).status_code == 422


def test_numbers_that_a_machine_has_still_pass(app: Flask) -> None:
    """A modulus of 2.06e11 Pa is the largest figure that anyone means."""
    body = json.dumps({"text": "12 in", "kind": "length"})
    assert app.test_client().post("/api/calc/quantity", data=body, content_type="application/json").status_code == 200


def test_a_record_that_is_away_is_said_to_be_away() -> None:
    """503 in words, and what needs no record still answers."""
    away = create_app(Settings("postgresql://nobody@127.0.0.1:1/none", SECRET, demo=True)).test_client()
    answer = away.get("/api/session")
    assert answer.status_code == 503 and "What you typed is still here" in answer.json["detail"]
    assert away.post("/api/calc/quantity", json={"text": "12 in", "kind": "length"}).status_code == 200


def test_only_its_own_names_and_its_own_pages_are_answered(app: Flask) -> None:
    client = app.test_client()
    for host in ("evil.example", "localhost.evil.example", "127.0.0.1.nip.example:80"):
        answer = client.get("/api/session", headers={"Host": host})
        assert answer.status_code == 400 and "TUYERE_HOSTS" in answer.json["detail"]
    assert client.get("/api/session", headers={"Host": "127.0.0.1:8640"}).status_code == 200
    body = {"text": "12 in", "kind": "length"}
    for origin, status in (("http://evil.example", 403), ("null", 403), ("http://localhost", 200)):
        assert client.post("/api/calc/quantity", json=body, headers={"Origin": origin}).status_code == status
