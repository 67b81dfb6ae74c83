"""The OpenAPI document, made complete from the rules of the routes.

What every route can answer besides its own answer, in which content type, what a write must carry, and who may call it, follow from its
rule; so they are written here once, not at each route.
"""

import re
from collections.abc import Iterator
from typing import Any

from flask import Flask
from werkzeug.routing import Rule as Route

from tuyere.store.people_tables import Role
from tuyere.web.errors import SENTENCES
from tuyere.web.rules import Rule, rule_of

_UUID = {"type": "string", "format": "uuid"}
_KEY = {
    "name": "Idempotency-Key",
    "in": "header",
    "required": True,
    "schema": _UUID,
    "description": "a UUID made by the client; a repeated request with the same one is answered as before and stores nothing",
}
_SITE = {
    "name": "Tuyere-Site",
    "in": "header",
    "required": False,
    "schema": _UUID,
    "description": "whose own ratings and parts to go by; the caller belongs to that site",
}
_COOKIE = {"schema": {"type": "string"}, "description": "the session: HttpOnly, SameSite=Lax, Secure where the server is reached by TLS"}
_FILES = {
    "/api/drives/{drive_id}/card.pdf": ("application/pdf",),
    "/api/drives/{drive_id}/card.svg": ("image/svg+xml",),
    "/api/jobs/{job_id}/sheet.pdf": ("application/pdf",),
    "/api/photos/{photo_id}/picture": ("image/jpeg",),
    "/api/slips/{slip_id}/pdf": ("application/pdf",),
    "/api/shop-lists/{list_id}/file": ("text/csv", "application/json"),
    "/api/calc/speed/wheel.{form}": ("image/svg+xml", "image/vnd.dxf"),
}
_ENTERS = ("/api/session", "/api/session/demo", "/api/session/passphrase", "/api/session/reset", "/api/first-lead")


def complete(app: Flask, document: dict[str, Any]) -> dict[str, Any]:
    """The document with every status, content type, header and rule of each operation."""
    for path, operations in document["paths"].items():
        for method, route in _routes_at(app, path):
            if method in operations:
                rule = rule_of(app, route.endpoint)
                assert rule
                _complete(operations[method], path, method, rule)
    return document


def _routes_at(app: Flask, path: str) -> Iterator[tuple[str, Route]]:
    for route in app.url_map.iter_rules():
        if re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", route.rule) == path:
            yield from ((method.lower(), route) for method in route.methods or ())


def _complete(operation: dict[str, Any], path: str, method: str, rule: Rule) -> None:
    writes = method in ("post", "put", "delete") and not rule.computes
    refusals = {400, 403, 422, 429, 500, 503}
    if rule.who != "anyone":
        refusals.add(401)
    if "{" in path or rule.role or path.startswith(("/api/session", "/api/calc/")):  # a calculation may name a site
        refusals.add(404)
    if rule.role and writes:
        refusals.add(409)
    if method in ("post", "put"):
        refusals |= {408, 413, 415}
    answers = operation.setdefault("responses", {})
    for status in sorted(refusals):
        if str(status) not in answers or status == 422:
            answers[str(status)] = {
                "description": SENTENCES[status],
                "content": {"application/problem+json": {"schema": {"$ref": "#/components/schemas/ProblemOut"}}},
            }
    if path in _FILES:
        binary = {"schema": {"type": "string", "format": "binary"}}
        answers["200"] = {"description": "The file", "content": {kind: binary for kind in _FILES[path]}}
    if path in _ENTERS:
        answers["200"]["headers"] = {"Set-Cookie": _COOKIE}
    more = operation.setdefault("parameters", [])
    if writes and rule.role and rule.role is not Role.VIEWER:  # what a viewer may call keeps nothing
        more.append(_KEY)
    if path.startswith("/api/calc/"):
        more.append(_SITE)
    if writes:
        operation["security"] = [{"csrf": []}] if rule.who == "anyone" else [{"session": [], "csrf": []}]
    elif rule.who != "anyone":
        operation["security"] = [{"session": []}]
    if not more:
        del operation["parameters"]
