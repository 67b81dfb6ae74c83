"""What a request needs from the application: the engine, the current writer, a person's sites."""

import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date, datetime
from typing import Any

from flask import current_app, g, has_request_context, request
from flask_login import UserMixin, current_user
from sqlalchemy import Engine
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from tuyere.record.state import settle
from tuyere.store.dues import zone_of
from tuyere.store.write import KeyReusedError, Outcome, StaleError, Writer, write_once
from tuyere.web.errors import FieldError, Refusal


class SignedIn(UserMixin):  # type: ignore[misc]
    """The person behind the session cookie."""

    def __init__(self, person_id: uuid.UUID, name: str, must: str, sign_in_id: uuid.UUID) -> None:
        self.id = person_id
        self.name = name
        self.must = must
        self.sign_in_id = sign_in_id

    def get_id(self) -> str:
        return str(self.sign_in_id)


def engine() -> Engine:
    """The application's database engine."""
    found: Engine = current_app.extensions["engine"]
    return found


@contextmanager
def reading() -> Iterator[Session]:
    """A session to read with: one for the whole request, so that it costs one connection and one transaction."""
    if "reading" not in g:
        g.reading = Session(engine())
    yield g.reading


def end_reading(_error: BaseException | None = None) -> None:
    """Give the request's connection back; what is read after this is read anew."""
    session: Session | None = g.pop("reading", None)
    if session is not None:
        session.close()


def site_day(at: datetime) -> date:
    """The day of a moment at the site that the route's rule found; while the demo plant is loaded, outside any request, UTC's."""
    if not has_request_context():
        return at.date()
    if "zone" not in g:
        with reading() as session:
            g.zone = zone_of(session, g.site_id)
    found: date = at.astimezone(g.zone).date()
    return found


def idempotency_key() -> uuid.UUID:
    """The Idempotency-Key header, which every write carries."""
    try:
        return uuid.UUID(request.headers.get("Idempotency-Key", ""))
    except ValueError:
        detail = "Every write carries an Idempotency-Key header: a UUID made by the client, the same again when it repeats the request."
        raise Refusal(400, detail, [FieldError(field="Idempotency-Key", detail=detail)]) from None


def constraint_of(error: IntegrityError) -> str:
    """The name of the database constraint that refused a write."""
    diagnosis = getattr(error.orig, "diag", None)
    return getattr(diagnosis, "constraint_name", None) or ""


def write(request_body: dict[str, Any], work: Any) -> Outcome:
    """Run a write once, as the person signed in, at the site the route's rule found."""
    end_reading()
    writer = Writer(current_user.id, g.site_id, idempotency_key())

    def settled(session: Session) -> Outcome:
        done: Outcome = work(session, writer)
        settle(session, writer.site_id)
        return done

    marked = {"path": request.path, "method": request.method, "body": request_body}
    try:
        return write_once(engine(), writer, marked, settled)
    except StaleError as stale:
        who = ", ".join(dict.fromkeys(s["who"] for s in stale.since if s["who"])) or "Somebody"
        raise Refusal(
            409,
            f"{who} changed this while you were at it. Nothing of yours is lost: see what changed, then keep yours or take theirs.",
            current_version=stale.current_version,
            since=stale.since,
        ) from None
    except IntegrityError as error:
        if not constraint_of(error).startswith("pk_"):
            raise
        detail = "This id is taken: make a new one."
        raise Refusal(422, detail, [FieldError(field="id", detail=detail)]) from None
    except KeyReusedError:
        detail = "This Idempotency-Key came before with another request: make a new one."
        raise Refusal(422, detail, [FieldError(field="Idempotency-Key", detail=detail)]) from None
