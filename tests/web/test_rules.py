"""Every route has a rule, and the rules hold."""

import re
import uuid
from typing import Any

import pytest
from flask import Flask

from tuyere.web.rules import rule_of

OPEN = {
    "/",
    "/<path:address>",
    "/api/health",
    "/api/openapi.json",
    "/api/choices",
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
        if rule.who == "anyone":
            assert route.rule in OPEN or route.rule.startswith("/api/calc/"), f"{route.rule} is open to anyone"
        else:
            assert rule.role is not None or route.rule in ("/api/session", "/api/session/passphrase")


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
