"""Errors as RFC 9457 problem details, with the field named."""

from collections.abc import Sequence
from typing import Any

from flask import Flask, Response, request
from psycopg.errors import ForeignKeyViolation, RestrictViolation, UniqueViolation
from pydantic import BaseModel, Field, ValidationError
from sqlalchemy.exc import DataError, IntegrityError, InternalError, OperationalError
from werkzeug.exceptions import HTTPException, SecurityError

from tuyere.web import bodies

SENTENCES = {
    400: "The request could not be read. Reload the page and try again.",
    401: "Sign in first.",
    403: "Your role at this site does not allow that: ask a lead.",
    404: "There is nothing at this address; it may have been moved.",
    405: "That cannot be done at this address.",
    408: "This came too slowly and was given up: send it again.",
    409: "Somebody changed this first. See what changed, then decide.",
    413: bodies.TOO_MUCH_TEXT,
    415: "Send JSON.",
    422: "Something typed is too large or too long to be kept: check it and try again.",
    429: "Too many tries. Wait ten minutes, then try again.",
    503: "The record cannot be reached just now. What you typed is still here; try again in a moment.",
    500: "Tuyere hit an error. What you typed is still here; try again in a moment.",
}


_ANOTHER_NAME = "This server does not go by that name. Open it by its own address, or name that host in TUYERE_HOSTS where it is started."


NO_ROOM = (
    "The server keeps nothing just now: its disk is full, or its database only reads. What you typed is still here; tell whoever looks"
    " after the server."
)


def no_room(error: BaseException | None) -> bool:
    """Whether the database would not keep a write: out of disk or memory (class 53), a fault of its files (58), or read-only (25006)."""
    state = getattr(error, "sqlstate", None) or ""
    return state[:2] in ("53", "58") or state == "25006"


# What the forms of a list's items are told apart by: no part of a field's name.
TAGS: set[str] = set()


class FieldError(BaseModel):
    """One refused field."""

    field: str
    detail: str


class ProblemOut(BaseModel):
    """RFC 9457 problem details; `errors` names the fields, `since` what others changed (409), `wait_s` how long to wait (429)."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldError] = Field(default_factory=list)
    wait_s: int | None = None
    current_version: int | None = None
    since: list[dict[str, Any]] = Field(default_factory=list)


class Refusal(Exception):
    """Raised by a route to answer with problem details."""

    def __init__(self, status: int, detail: str = "", errors: list[FieldError] | None = None, **more: Any) -> None:
        super().__init__(detail)
        self.problem = ProblemOut(title=_title(status), status=status, detail=detail or SENTENCES[status], errors=errors or [], **more)


def _title(status: int) -> str:
    titles = {
        400: "Bad request",
        401: "Not signed in",
        403: "Not allowed",
        404: "Not found",
        408: "Too slow",
        409: "Changed meanwhile",
        413: "Too large",
        422: "Refused input",
        429: "Too many tries",
        503: "Out of reach",
    }
    return titles.get(status, "Error")


def titled(status: int, detail: str = "") -> ProblemOut:
    """The problem of a status, with its usual sentence unless another is given."""
    return ProblemOut(title=_title(status), status=status, detail=detail or SENTENCES[status])


def in_json(problem: ProblemOut) -> bytes:
    """A problem as the bytes of its JSON."""
    return problem.model_dump_json(exclude_none=True).encode()


def respond(problem: ProblemOut) -> Response:
    """A problem as an application/problem+json response."""
    response = Response(in_json(problem), problem.status, content_type="application/problem+json")
    if problem.wait_s:
        response.headers["Retry-After"] = str(problem.wait_s)
    return response


def validation_problem(error: ValidationError) -> Response:
    """pydantic's findings as problem details, in words."""
    errors = [
        FieldError(field=_field(e["loc"]) or "body", detail=_in_words(e)) for e in error.errors(include_url=False, include_input=False)
    ]
    first = errors[0].detail if errors else SENTENCES[400]
    return respond(ProblemOut(title=_title(422), status=422, detail=first, errors=errors))


def _field(loc: Sequence[int | str]) -> str:
    """The field by its way through the form; which of several forms it is read in is no part of it."""

    def is_tag(before: int | str, part: int | str) -> bool:
        return before == "fitted" or (isinstance(before, int) and part in TAGS)

    return ".".join(str(p) for before, p in zip(("", *loc), loc, strict=False) if not is_tag(before, p))


def _in_words(error: Any) -> str:
    kind = error["type"]
    if kind == "missing":
        return "This is needed: fill it in."
    if kind == "string_too_long":
        return f"This is too long: at most {error['ctx']['max_length']} characters."
    if kind == "string_too_short":
        return f"This is too short: at least {error['ctx']['min_length']} characters."
    if kind == "value_error":
        return str(error["ctx"]["error"])
    return f"{error['msg']}."


def install(app: Flask) -> None:
    """Answer every error under /api as problem details."""

    @app.errorhandler(Refusal)
    def refused(error: Refusal) -> Response:
        return respond(error.problem)

    @app.errorhandler(SecurityError)
    def another_name(_error: SecurityError) -> Response:
        return respond(titled(400, _ANOTHER_NAME))

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        status = error.code or 500
        if status < 400:
            return error.get_response()  # type: ignore[return-value]
        if status == 413:
            return respond(titled(status, bodies.too_large(request.max_content_length or bodies.TEXT)))
        return respond(titled(status, SENTENCES.get(status, error.description or "")))

    @app.errorhandler(OperationalError)
    def away(error: OperationalError) -> Response:
        """The database is away, or took longer than it is given."""
        app.logger.error("database out of reach at %s %s: %s", request.method, request.path, error.orig)
        if no_room(error.orig):
            request.environ.get("tuyere.told", {})["write_refused"] = True
            return respond(titled(503, NO_ROOM))
        return respond(titled(503))

    @app.errorhandler(InternalError)
    def keeps_nothing(error: InternalError) -> Response:
        """As a database that only reads."""
        return away(OperationalError(error.statement, error.params, error.orig or error)) if no_room(error.orig) else broken(error)

    @app.errorhandler(DataError)
    def cannot_be_kept(_error: DataError) -> Response:
        return respond(titled(422))

    @app.errorhandler(IntegrityError)
    def crossed(error: IntegrityError) -> Response:
        """Two at the same moment: who came second has not seen what the first did."""
        if not isinstance(error.orig, (UniqueViolation, ForeignKeyViolation, RestrictViolation)):
            return broken(error)
        return respond(titled(409, "Somebody changed this at the same moment. Load it again, see what changed, then decide."))

    @app.errorhandler(MemoryError)
    def no_memory(_error: MemoryError) -> Response:
        request.environ.get("tuyere.told", {})["out_of_memory"] = True  # the process says so and is replaced
        return respond(titled(503))

    @app.errorhandler(Exception)
    def broken(error: Exception) -> Response:
        app.logger.exception("unhandled error at %s %s", request.method, request.path)
        return respond(titled(500))
