"""Sign-in, sign-out, and the first lead of an empty plant."""

import uuid

from flask import Response, current_app
from flask_login import current_user, login_user, logout_user
from flask_openapi3 import APIBlueprint, Tag
from flask_wtf.csrf import generate_csrf
from pydantic import BaseModel, Field

from tuyere.store import people
from tuyere.store.tables import Person
from tuyere.web.calc import answer
from tuyere.web.entry import Strict
from tuyere.web.errors import FieldError, ProblemOut, Refusal
from tuyere.web.rules import anyone, signed_in
from tuyere.web.state import SignedIn, reading

blueprint = APIBlueprint(
    "session", __name__, url_prefix="/api", abp_tags=[Tag(name="session")], abp_responses={"401": ProblemOut, "422": ProblemOut}
)


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
    """Who is signed in, at which sites, and the CSRF token that writes send as X-CSRFToken."""

    person_id: uuid.UUID | None
    name: str | None
    sites: list[SiteOut]
    csrf_token: str
    demo_people: list[DemoPersonOut]
    needs_first_lead: bool


def _session_out() -> SessionOut:
    with reading() as session:
        here = current_user.is_authenticated
        demo = people.demo_people(session) if current_app.config["DEMO"] else []
        return SessionOut(
            person_id=current_user.id if here else None,
            name=current_user.name if here else None,
            sites=[SiteOut(id=s.id, name=s.name, role=r) for s, r in people.memberships(session, current_user.id)] if here else [],
            csrf_token=generate_csrf(),
            demo_people=[DemoPersonOut(id=p.id, name=p.name, role=r) for p, r in demo],
            needs_first_lead=people.plant_is_empty(session),
        )


@blueprint.get("/session", summary="Who is signed in", responses={"200": SessionOut})
@anyone()
def get_session() -> Response:
    return answer(_session_out())


class SignInForm(Strict):
    """Name and passphrase."""

    name: str = Field(max_length=120)
    passphrase: str = Field(max_length=1000)


@blueprint.post("/session", summary="Sign in", responses={"200": SessionOut, "429": ProblemOut})
@anyone()
def post_session(body: SignInForm) -> Response:
    try:
        with reading() as session:
            person = people.sign_in(session, body.name, body.passphrase)
            user = SignedIn(person) if person else None
    except people.TooManyTriesError:
        raise Refusal(429) from None
    if user is None:
        sentence = "Name and passphrase do not match: check both, capitals count."
        raise Refusal(422, sentence, [FieldError(field="passphrase", detail=sentence)])
    login_user(user)
    return answer(_session_out())


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
        login_user(SignedIn(person))
    return answer(_session_out())


@blueprint.delete("/session", summary="Sign out", responses={"200": SessionOut})
@signed_in()
def delete_session() -> Response:
    logout_user()
    return answer(_session_out())


class PassphraseForm(Strict):
    """The passphrase one has and the one one wants."""

    present: str = Field(max_length=1000)
    wanted: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)


@blueprint.post("/session/passphrase", summary="Change one's own passphrase", responses={"200": SessionOut})
@signed_in()
def post_passphrase(body: PassphraseForm) -> Response:
    with reading() as session:
        if not people.change_passphrase(session, current_user.id, body.present, body.wanted):
            sentence = "That is not your passphrase now: check it, capitals count."
            raise Refusal(422, sentence, [FieldError(field="present", detail=sentence)])
    return answer(_session_out())


class FirstLeadForm(Strict):
    """The one-time code that the start printed, and the lead and site to make."""

    code: str = Field(min_length=1, max_length=60)
    name: str = Field(min_length=1, max_length=120)
    passphrase: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)
    site_name: str = Field(min_length=1, max_length=120)


@blueprint.post("/first-lead", summary="Make the first lead of an empty plant", responses={"200": SessionOut})
@anyone()
def post_first_lead(body: FirstLeadForm) -> Response:
    for field in ("name", "site_name"):
        if not getattr(body, field).strip():
            raise Refusal(422, "This is needed: fill it in.", [FieldError(field=field, detail="This is needed: fill it in.")])
    with reading() as session:
        person = people.make_first_lead(session, body.code, body.name, body.passphrase, body.site_name)
        if person is None:
            sentence = "That code does not fit: use the one printed by the last start. It works once."
            raise Refusal(422, sentence, [FieldError(field="code", detail=sentence)])
        login_user(SignedIn(person))
    return answer(_session_out())
