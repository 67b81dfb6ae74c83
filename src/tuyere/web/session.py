"""Sign-in, sign-out, and the first lead of an empty plant."""

import math
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Literal

from flask import Response, current_app, request
from flask_login import current_user, login_user, logout_user
from flask_wtf.csrf import generate_csrf
from itsdangerous import BadData, URLSafeSerializer
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.record.entry import Strict
from tuyere.store import people, sessions
from tuyere.store.brake import WaitError
from tuyere.store.names import name_problem
from tuyere.store.people_tables import Person
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, signed_in
from tuyere.web.state import SignedIn, reading

MOST_KNOWN = 20  # people whom one device is known for
KNOWN_FOR = 180 * 24 * 3600  # seconds

blueprint = routes("session", "/api", "session")


class SiteOut(BaseModel):
    """A site and one's role there."""

    id: uuid.UUID
    name: str
    role: str


class DemoPersonOut(BaseModel):
    """A demo person, signed in with one click."""

    id: uuid.UUID
    name: str
    role: str


class SessionOut(BaseModel):
    """Who is signed in, at which sites, the CSRF token that writes send as X-CSRFToken; `must`: what they have to do before they are in."""

    person_id: uuid.UUID | None
    name: str | None
    must: Literal["", "choose", "show", "add"]
    sites: list[SiteOut]
    csrf_token: str
    demo_people: list[DemoPersonOut]
    needs_first_lead: bool


def session_out() -> SessionOut:
    """The session as it stands in this request."""
    with reading() as session:
        here = current_user.is_authenticated
        demo = people.demo_people(session) if current_app.config["DEMO"] else []
        return SessionOut(
            person_id=current_user.id if here else None,
            name=current_user.name if here else None,
            must=current_user.must if here else "",
            sites=[SiteOut(id=s.id, name=s.name, role=r) for s, r in people.memberships(session, current_user.id)] if here else [],
            csrf_token=generate_csrf(),
            demo_people=[DemoPersonOut(id=p.id, name=p.name, role=r) for p, r in demo],
            needs_first_lead=people.plant_is_empty(session),
        )


@blueprint.get("/session", summary="Who is signed in", responses={"200": SessionOut})
@anyone()
def get_session() -> Response:
    return answer(session_out())


class SignInForm(Strict):
    """Name and passphrase."""

    name: str = Field(max_length=120)
    passphrase: str = Field(max_length=1000)


@blueprint.post("/session", summary="Sign in", responses={"200": SessionOut})
@anyone()
def post_session(body: SignInForm) -> Response:
    with reading() as session, braked():
        person = people.sign_in(session, body.name, body.passphrase, source(session, body.name))
        if person is None:
            raise refuse("passphrase", "Name and passphrase do not match: check both, capitals count.")
        return _enter(session, person)


class DemoSignIn(Strict):
    """Which demo person."""

    person_id: uuid.UUID


@blueprint.post("/session/demo", summary="Sign in as a demo person", responses={"200": SessionOut})
@anyone()
def post_demo_session(body: DemoSignIn) -> Response:
    with reading() as session:
        person = session.get(Person, body.person_id)
        if not (current_app.config["DEMO"] and person and person.one_click):
            raise Refusal(404)
        return _enter(session, person)


@blueprint.delete("/session", summary="Sign out, everywhere this session is in use", responses={"200": SessionOut})
@signed_in(half_in=True)
def delete_session() -> Response:
    with reading() as session:
        sessions.end_session(session, current_user.sign_in_id)
    logout_user()
    return answer(session_out())


class PassphraseForm(Strict):
    """The passphrase one has and the one one wants."""

    present: str = Field(max_length=1000)
    wanted: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)


@blueprint.post("/session/passphrase", summary="Change one's own passphrase; ends all other sessions", responses={"200": SessionOut})
@signed_in(half_in=True)
def post_passphrase(body: PassphraseForm) -> Response:
    check_passphrase("wanted", body.wanted, current_user.name)
    if body.wanted == body.present:
        raise refuse("wanted", "That is the one you have: choose another.")
    with reading() as session, braked():
        if not people.change_passphrase(session, current_user.id, body.present, body.wanted, f"session {current_user.sign_in_id}"):
            raise refuse("present", "That is not your passphrase now: check it, capitals count.")
        return _enter(session, session.get_one(Person, current_user.id))


class ResetForm(Strict):
    """The one-time code that a lead handed over, and the passphrase one wants."""

    name: str = Field(min_length=1, max_length=120)
    code: str = Field(min_length=1, max_length=60)
    wanted: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)


@blueprint.post("/session/reset", summary="Choose a new passphrase by a one-time code", responses={"200": SessionOut})
@anyone()
def post_reset(body: ResetForm) -> Response:
    check_passphrase("wanted", body.wanted, body.name)
    with reading() as session, braked():
        person = people.use_reset_code(session, body.name, body.code, body.wanted, source(session, body.name))
        if person is None:
            raise refuse("code", "Name and code do not fit: a code works once and for 24 hours. Ask a lead for a new one.")
        return _enter(session, person)


class FirstLeadForm(Strict):
    """The one-time code that the start printed, and the lead and site to make."""

    code: str = Field(min_length=1, max_length=60)
    name: str = Field(min_length=1, max_length=120)
    passphrase: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)
    site_name: str = Field(min_length=1, max_length=120)


@blueprint.post("/first-lead", summary="Make the first lead of an empty plant", responses={"200": SessionOut})
@anyone()
def post_first_lead(body: FirstLeadForm) -> Response:
    check_name(body.name)
    if not body.site_name.strip():
        raise refuse("site_name", "This is needed: fill it in.")
    check_passphrase("passphrase", body.passphrase, body.name, body.site_name)
    with reading() as session, braked():
        person = people.make_first_lead(session, body.code, body.name, body.passphrase, body.site_name, request.remote_addr or "")
        if person is None:
            raise refuse("code", "That code does not fit: use the one printed by the last start. It works once.")
        return _enter(session, person)


def refuse(field: str, sentence: str) -> Refusal:
    """A refusal with its sentence at one field."""
    return Refusal(422, sentence, [FieldError(field=field, detail=sentence)])


def check_passphrase(field: str, passphrase: str, *known: str) -> None:
    """Refuse what is easy to guess."""
    if problem := people.passphrase_problem(passphrase, *known):
        raise refuse(field, problem)


def check_name(name: str) -> None:
    """Refuse a blank name, and one that could be taken for another."""
    if problem := name_problem(name):
        raise refuse("name", problem)


@contextmanager
def braked() -> Iterator[None]:
    """A try that comes too soon after failed ones is answered with how long to wait."""
    try:
        yield
    except WaitError as wait:
        seconds = math.ceil(wait.seconds)
        raise Refusal(
            429, f"Too many tries: wait {seconds} {'second' if seconds == 1 else 'seconds'}, then try again.", wait_s=seconds
        ) from None


def source(session: Session, name: str) -> str:
    """What tries for a name are counted by: a device where this person has signed in before, else the address."""
    device, known = _known_device()
    person = people.find_person(session, name) if known else None
    return f"device {device}" if person and str(person.id) in known else request.remote_addr or ""


def _enter(session: Session, person: Person) -> Response:
    """Begin a session and remember the device."""
    device, known = _known_device()
    began = sessions.begin_session(session, person, request.remote_addr or "", request.user_agent.string, device)
    found = sessions.person_of_session(session, began.id)
    assert found
    login_user(SignedIn(*found, began.id))
    response = answer(session_out())
    value = _signer().dumps([device, [*[k for k in known if k != str(person.id)], str(person.id)][-MOST_KNOWN:]])
    response.set_cookie(
        _cookie_name(), str(value), max_age=KNOWN_FOR, httponly=True, samesite="Lax", secure=current_app.config["SESSION_COOKIE_SECURE"]
    )
    return response


def _known_device() -> tuple[str, list[str]]:
    try:
        device, known = _signer().loads(request.cookies.get(_cookie_name(), ""))
        return str(device), list(known)
    except (BadData, TypeError, ValueError):
        return uuid.uuid4().hex, []


def _signer() -> URLSafeSerializer:
    return URLSafeSerializer(str(current_app.secret_key), salt="known device")


def _cookie_name() -> str:
    return f"{current_app.config['SESSION_COOKIE_NAME']}_device"
