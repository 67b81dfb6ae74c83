"""The people of a site: a lead adds them, changes roles, sees and ends sessions, hands over one-time codes, takes leavers off."""

import uuid
from collections.abc import Callable
from datetime import datetime

from flask import Response
from flask_login import current_user
from pydantic import BaseModel, Field
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import factors, people, sessions
from tuyere.store.people_tables import Role, Site
from tuyere.store.write import Outcome, Writer, update
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.floor import CreatedOut, SitePath
from tuyere.web.routes import routes
from tuyere.web.rules import at_site
from tuyere.web.session import check_name, check_passphrase, refuse
from tuyere.web.state import constraint_of, reading, write

blueprint = routes("people", "/api", "people")


class OpenSessionOut(BaseModel):
    """A session of somebody that holds; `mine`: the one that asks; `allowed`: a lead lets sessions last for days on its device."""

    id: uuid.UUID
    person_id: uuid.UUID
    began_at: datetime
    seen_at: datetime
    address: str
    device: str
    device_id: str
    allowed: bool
    mine: bool


class PersonOut(BaseModel):
    """Somebody at the site."""

    id: uuid.UUID
    name: str
    role: Role
    seen_at: datetime | None


class PeopleOut(BaseModel):
    """Everybody at the site, and their sessions."""

    people: list[PersonOut]
    leads_factor: bool
    site_version: int
    sessions: list[OpenSessionOut]


class MemberPath(BaseModel):
    """The site and the person."""

    site_id: uuid.UUID
    person_id: uuid.UUID


class SignInPath(BaseModel):
    """The site and the session."""

    site_id: uuid.UUID
    sign_in_id: uuid.UUID


class Nothing(Strict):
    """Nothing to say beyond the address."""


class RoleForm(Strict):
    """The role to give."""

    role: Role


class DoneOut(BaseModel):
    """It is done."""

    done: bool


class CodeOut(BaseModel):
    """A one-time code to hand over; shown once."""

    code: str


@blueprint.get("/sites/<uuid:site_id>/people", summary="The people of a site", responses={"200": PeopleOut})
@at_site(Role.LEAD)
def get_people(path: SitePath) -> Response:
    with reading() as session:
        allowed, site = sessions.devices_at(session, path.site_id), session.get_one(Site, path.site_id)
        seen, here = people.last_seen(session, path.site_id), people.people_at(session, path.site_id)
        return answer(
            PeopleOut(
                people=[PersonOut(id=p.id, name=p.name, role=r, seen_at=seen.get(p.id)) for p, r in here],
                leads_factor=site.leads_factor,
                site_version=site.row_version,
                sessions=[
                    OpenSessionOut(
                        **s.model_dump(exclude={"ended_at", "ended_why", "factor"}),
                        mine=s.id == current_user.sign_in_id,
                        allowed=s.device_id in allowed,
                    )
                    for s in sessions.open_sessions(session, path.site_id)
                ],
            )
        )


class NewPerson(Strict):
    """Somebody to add, with a first passphrase to hand over."""

    id: uuid.UUID
    name: str = Field(min_length=1, max_length=120)
    passphrase: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)
    role: Role = Role.MECHANIC


@blueprint.post("/sites/<uuid:site_id>/people", summary="Add a person to a site", responses={"201": CreatedOut})
@at_site(Role.LEAD)
def post_person(path: SitePath, body: NewPerson) -> Response:
    check_name(body.name)
    check_passphrase("passphrase", body.passphrase, body.name)

    def work(session: Session, writer: Writer) -> Outcome:
        people.add_person(session, writer, body.id, body.name, body.passphrase, body.role)
        return Outcome(201, {"id": str(body.id)})

    try:
        done = write(body.model_dump(mode="json", exclude={"passphrase"}), work)
    except IntegrityError as error:
        if constraint_of(error) not in ("uq_person_name", "uq_person_name_key"):
            raise
        raise refuse("name", "Somebody of that name, or one that looks like it, is here already: add a surname or a letter.") from None
    return answer(CreatedOut(**done.body), done.status)


class DevicePath(BaseModel):
    """The site and the device, by the cookie it has."""

    site_id: uuid.UUID
    device_id: str = Field(pattern="^[0-9a-f]{32}$")


class DeviceForm(Strict):
    """Whether sessions may last for days on it."""

    allowed: bool


@blueprint.post("/sites/<uuid:site_id>/devices/<device_id>", summary="Let sessions last on a device", responses={"200": DoneOut})
@at_site(Role.LEAD)
def post_device(path: DevicePath, body: DeviceForm) -> Response:
    return _to_member(body, lambda session, writer: sessions.allow_device(session, writer, path.device_id, body.allowed))


class FactorRuleForm(Strict):
    """Whether the leads of the site need a second factor, over the version seen."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    leads_factor: bool


@blueprint.post("/sites/<uuid:site_id>/leads-factor", summary="Ask a second factor of leads", responses={"200": DoneOut})
@at_site(Role.LEAD)
def post_leads_factor(path: SitePath, body: FactorRuleForm) -> Response:
    def work(session: Session, writer: Writer) -> bool:
        has = factors.of(session, writer.person_id)
        if body.leads_factor and not (has.code or has.passkeys):
            sentence = "Add a second factor of your own first: you would lock yourself out."
            raise refuse("leads_factor", sentence)
        site = session.get_one(Site, path.site_id)
        said = "asked a second factor of leads" if body.leads_factor else "asked no second factor of leads"
        update(session, writer, site, body.row_version, {"leads_factor": body.leads_factor}, said)
        return True

    return _to_member(body, work)


LAST_LEAD = "This is the only lead of the site: make somebody else a lead first."


@blueprint.post("/sites/<uuid:site_id>/people/<uuid:person_id>/role", summary="Give a person another role", responses={"200": DoneOut})
@at_site(Role.LEAD)
def post_role(path: MemberPath, body: RoleForm) -> Response:
    return _to_member(body, lambda session, writer: people.change_role(session, writer, path.person_id, body.role))


@blueprint.post(
    "/sites/<uuid:site_id>/people/<uuid:person_id>/leave",
    summary="Take a leaver off the site, and end their sessions",
    responses={"200": DoneOut},
)
@at_site(Role.LEAD)
def post_leave(path: MemberPath, body: Nothing) -> Response:
    return _to_member(body, lambda session, writer: people.leave(session, writer, path.person_id))


@blueprint.post("/sites/<uuid:site_id>/sign-ins/<uuid:sign_in_id>/end", summary="End a session", responses={"200": DoneOut})
@at_site(Role.LEAD)
def post_end(path: SignInPath, body: Nothing) -> Response:
    return _to_member(body, lambda session, writer: people.end_session_at(session, writer, path.sign_in_id))


@blueprint.post(
    "/sites/<uuid:site_id>/people/<uuid:person_id>/reset",
    summary="A one-time code by which a person chooses a new passphrase",
    responses={"200": CodeOut},
)
@at_site(Role.LEAD)
def post_reset_code(path: MemberPath, body: Nothing) -> Response:
    """The code is not kept with the answer: a repeated request makes another, and the older one stops working."""
    issued: list[str] = []

    def work(session: Session, writer: Writer) -> bool:
        code = people.issue_reset_code(session, writer, path.person_id)
        issued.extend([code] if code else [])
        return code is not None

    done = _to_member(body, work)
    if not issued:
        raise Refusal(409, "This was done already; ask for a new code.")
    return answer(CodeOut(code=issued[0]), done.status_code)


def _to_member(body: BaseModel, work: Callable[[Session, Writer], bool]) -> Response:
    """Do something to somebody at the site, once."""

    def once(session: Session, writer: Writer) -> Outcome:
        if not work(session, writer):
            raise Refusal(404)
        return Outcome(200, {"done": True})

    try:
        done = write(body.model_dump(mode="json"), once)
    except people.LastLeadError:
        raise Refusal(422, LAST_LEAD, [FieldError(field="role", detail=LAST_LEAD)]) from None
    except people.ElsewhereError:
        raise Refusal(403, "This person belongs to another site too, where you are no lead: ask a lead of both.") from None
    return answer(DoneOut(**done.body), done.status)
