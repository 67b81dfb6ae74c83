"""What no record can hold and no sum can use, and a write sent by another site's page, are refused before any route sees them, in words."""

import json
from collections.abc import Iterator
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, request

from tuyere.core.basis.characters import can_be_kept
from tuyere.web.errors import FieldError, Refusal

DEEPEST = 32  # levels of a body; ours have at most ten
LARGEST = 1e15  # of any number, in SI
_TEXT = "This text holds a character that cannot be kept and cannot be seen: type it again by hand."
_NUMBER = "This number is far too large to be meant: check its digits and its unit."
_ELSEWHERE = "That came from another site's page. Open Tuyere itself and do it there."
_DEEP = "This is nested too deep to be read."


class _Unusable(ValueError):
    """A number that JSON can write and nobody can mean."""


def install(app: Flask) -> None:
    """Look through the address, the query and the JSON body of every request under /api."""

    @app.before_request
    def readable() -> None:
        if not request.path.startswith("/api/"):
            return
        origin = request.headers.get("Origin")
        if origin and request.method not in ("GET", "HEAD", "OPTIONS") and urlsplit(origin).hostname not in app.config["TRUSTED_HOSTS"]:
            raise Refusal(403, _ELSEWHERE)
        for name, value in (*request.args.items(multi=True), *(request.view_args or {}).items()):
            if isinstance(value, str) and not can_be_kept(value):
                raise Refusal(422, _TEXT, [FieldError(field=name, detail=_TEXT)])
        if request.mimetype == "application/json" and request.content_length:
            _look_through(request.get_data(cache=True))


def _look_through(raw: bytes) -> None:
    try:
        body = json.loads(raw, parse_int=_whole, parse_float=_real, parse_constant=_real)
    except RecursionError:
        raise Refusal(422, _DEEP) from None
    except _Unusable:
        raise Refusal(422, _NUMBER) from None
    except ValueError:
        return  # no JSON at all: the route says so
    for where, text, depth in _texts(body):
        if depth > DEEPEST:
            raise Refusal(422, _DEEP)
        if not can_be_kept(text):
            raise Refusal(422, _TEXT, [FieldError(field=where or "body", detail=_TEXT)])


def _whole(text: str) -> int:
    if len(text) > 17 or abs(int(text)) > LARGEST:
        raise _Unusable
    return int(text)


def _real(text: str) -> float:
    if not abs(float(text)) <= LARGEST:  # nan too
        raise _Unusable
    return float(text)


def _texts(body: Any) -> Iterator[tuple[str, str, int]]:
    """Every text of a body, keys too, with where it stands (dotted) and how deep; without recursion."""
    waiting: list[tuple[str, Any, int]] = [("", body, 0)]
    while waiting:
        where, found, depth = waiting.pop()
        if isinstance(found, str):
            yield where, found, depth
        elif depth > DEEPEST:
            yield where, "", depth
        elif isinstance(found, dict):
            for key, value in found.items():
                yield where, key, depth
                waiting.append((f"{where}.{key}" if where else key, value, depth + 1))
        elif isinstance(found, list):
            waiting.extend((f"{where}.{n}" if where else str(n), value, depth + 1) for n, value in enumerate(found))
