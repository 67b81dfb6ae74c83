"""Schemathesis makes requests from our own OpenAPI document: answers fit it in status, content type and schema, and nothing ends in a 5xx.

TUYERE_LONG=1 bin/test tests/web/test_generated.py -s   tries more of them, and prints how many requests it made.
"""

import uuid
from collections import Counter
from typing import Any

import pytest
import schemathesis
from flask import Flask
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import content_type_conformance, response_schema_conformance, status_code_conformance

from tests.conftest import LONG

EXAMPLES = 100 if LONG else 4
CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
# They change who is asking; test_session has them.
NOT_AS_LEAD = {"/api/session", "/api/session/demo", "/api/session/passphrase", "/api/session/reset", "/api/first-lead"}


def operations(app: Flask) -> list[Any]:
    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", app)
    return [found.ok() for found in schema.get_all_operations()]


def every_case(operation: Any, try_one: Any) -> None:
    limits = settings(max_examples=EXAMPLES, deadline=None, database=None, suppress_health_check=list(HealthCheck))
    limits(given(case=operation.as_strategy())(try_one))()


def test_what_nobody_signed_in_may_send(app: Flask) -> None:
    tried: Counter[str] = Counter()
    token = app.test_client().get("/api/session").json["csrf_token"]

    def try_one(case: Any) -> None:
        answer = case.call(headers={"X-CSRFToken": token, "Accept-Encoding": "identity"})
        tried[str(answer.status_code)[0] + "xx"] += 1
        case.validate_response(answer, checks=CHECKS)

    found = operations(app)
    assert len(found) > 70
    for operation in found:
        every_case(operation, try_one)
    print(f"as nobody: {sum(tried.values())} requests on {len(found)} operations, {dict(tried)}")


def test_what_a_lead_may_send(app: Flask, sign_in: Any) -> None:
    """On a drive and at a site of their own, so that writes arrive; half of the ids are real."""
    caller, drive_id = sign_in("Marta"), str(uuid.uuid4())
    own = {"id": drive_id, "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": f"Generated {uuid.uuid4().hex}"}
    assert caller.post(f"/api/sites/{caller.site_id}/drives", own).status_code == 201
    cookie = caller.client.get_cookie("tuyere_test")
    assert cookie is not None
    tried: Counter[str] = Counter()

    def try_one(case: Any) -> None:
        case.path_parameters = {**(case.path_parameters or {}), **{k: v for k, v in real.items() if k in (case.path_parameters or {})}}
        if isinstance(case.body, dict) and "row_version" in case.body and "drive_id" in real.keys() & (case.path_parameters or {}).keys():
            seen = caller.get(f"/api/drives/{drive_id}").json
            case.body |= {k: v for k, v in seen.items() if k in case.body and k.endswith("row_version")}
        headers = {"X-CSRFToken": caller.token, "Idempotency-Key": str(uuid.uuid4()), "Accept-Encoding": "identity"}
        answer = case.call(headers=headers, cookies={"tuyere_test": cookie.value})
        tried[str(answer.status_code)[0] + "xx"] += 1
        case.validate_response(answer, checks=CHECKS)

    real = {"drive_id": drive_id, "site_id": caller.site_id}
    found = [o for o in operations(app) if o.path not in NOT_AS_LEAD]
    for operation in found:
        every_case(operation, try_one)
    print(f"as a lead: {sum(tried.values())} requests on {len(found)} operations, {dict(tried)}")
    assert tried["2xx"] > len(found)


@pytest.mark.parametrize("path", ["/api/nowhere", "/api/drives/none", "/api/calc/sheet/more"])
def test_an_address_that_is_not_there_is_a_problem_in_json(app: Flask, path: str) -> None:
    answer = app.test_client().get(path)
    assert answer.status_code == 404 and answer.content_type == "application/problem+json"
