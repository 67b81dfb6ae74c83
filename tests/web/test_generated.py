"""Schemathesis makes requests from our own OpenAPI document: answers fit it, and nothing ends in a 5xx."""

import re
import uuid
from typing import Any

import pytest
import schemathesis
from flask import Flask
from hypothesis import HealthCheck, given, settings


def operations(app: Flask, path_regex: str) -> list[Any]:
    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", app).include(path_regex=path_regex)
    return [found.ok() for found in schema.get_all_operations()]


def every_case(operation: Any, try_one: Any, examples: int) -> None:
    limits = settings(max_examples=examples, deadline=None, database=None, suppress_health_check=list(HealthCheck))
    limits(given(case=operation.as_strategy())(try_one))()


def test_no_generated_request_breaks_a_computation(app: Flask) -> None:
    def try_one(case: Any) -> None:
        answer = case.call()
        assert answer.status_code < 500, (case.path, case.body)
        if answer.status_code == 200:
            case.validate_response(answer, checks=(schemathesis.checks.response_schema_conformance,))

    found = operations(app, "^/api/(calc|choices|health|tables)")
    assert len(found) > 12
    for operation in found:
        every_case(operation, try_one, 25)


@pytest.mark.parametrize(
    "path",
    [
        "surveys",
        "readings",
        "details",
        "people",
        "drives",
        "strike",
        "first-lead",
        "slips",
        "lives",
        "cross-reference",
        "off",
        "drives/{drive_id}/get-home",
    ],
)
def test_no_generated_request_breaks_a_write(app: Flask, sign_in: Any, path: str) -> None:
    caller, drive_id = sign_in("Marta"), str(uuid.uuid4())
    own = {"id": drive_id, "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": f"For {path} {uuid.uuid4().hex}"}
    assert caller.post(f"/api/sites/{caller.site_id}/drives", own).status_code == 201
    cookie = caller.client.get_cookie("tuyere_test")
    assert cookie is not None
    (operation,) = [o for o in operations(app, f"/{re.escape(path)}$") if o.method == "post"]

    def try_one(case: Any) -> None:
        case.path_parameters = {
            "drive_id": drive_id,
            "site_id": caller.site_id,
            **{k: v for k, v in (case.path_parameters or {}).items() if k in ("reading_id", "fix_id")},
        }
        if isinstance(case.body, dict) and "row_version" in case.body and "drive_id" in operation.path:
            case.body |= {
                k: v for k, v in caller.get(f"/api/drives/{drive_id}").json.items() if k in case.body and k.endswith("row_version")
            }
        headers = {"X-CSRFToken": caller.token, "Idempotency-Key": str(uuid.uuid4())}
        answer = case.call(headers=headers, cookies={"tuyere_test": cookie.value})
        assert answer.status_code < 500, (case.path, case.body)

    every_case(operation, try_one, 25)
