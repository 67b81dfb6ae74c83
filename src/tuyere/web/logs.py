"""The id of a request, on every line that is logged while it is answered and on its response."""

import logging
import re
import uuid

from flask import Flask, Response, g, has_request_context, request

HEADER = "X-Request-ID"
_SENSIBLE = re.compile(r"[\w.:-]{8,64}")


def request_id(given: str | None) -> str:
    """The id that came with a request, when it can be one; else a new one."""
    return given if given and _SENSIBLE.fullmatch(given) else uuid.uuid4().hex


class RequestId(logging.Filter):
    """Adds `request_id` to a line logged while a request is answered."""

    def filter(self, record: logging.LogRecord) -> bool:
        if has_request_context() and "request_id" in g:
            record.request_id = g.request_id
        return True


def install(app: Flask) -> None:
    """Give every request an id and tell the server in front which route answered."""

    @app.before_request
    def mark() -> None:
        g.request_id = request_id(request.headers.get(HEADER))
        if request.url_rule:
            request.environ.get("tuyere.told", {})["route"] = request.url_rule.rule

    @app.after_request
    def tell(response: Response) -> Response:
        response.headers.setdefault(HEADER, g.request_id)
        return response
