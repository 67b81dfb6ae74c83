"""The people of a site: a lead sees and adds them."""

import uuid

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from tuyere.store import people
from tuyere.store.tables import Role
from tuyere.store.write import Answer, Writer
from tuyere.web.calc import answer
from tuyere.web.entry import Strict
from tuyere.web.errors import FieldError, ProblemOut, Refusal
from tuyere.web.floor import CreatedOut, SitePath
from tuyere.web.rules import at_site
from tuyere.web.state import constraint_of, reading, write

blueprint = APIBlueprint(
    "people", __name__, url_prefix="/api", abp_tags=[Tag(name="people")], abp_responses={"403": ProblemOut, "422": ProblemOut}
)


class PersonOut(BaseModel):
    """Somebody at the site."""

    id: uuid.UUID
    name: str
    role: Role


class PeopleOut(BaseModel):
    """Everybody at the site."""

    people: list[PersonOut]


@blueprint.get("/sites/<uuid:site_id>/people", summary="The people of a site", responses={"200": PeopleOut})
@at_site(Role.LEAD)
def get_people(path: SitePath) -> Response:
    with reading() as session:
        return answer(PeopleOut(people=[PersonOut(id=p.id, name=p.name, role=r) for p, r in people.people_at(session, path.site_id)]))


class NewPerson(Strict):
    """Somebody to add, with a first passphrase to hand over."""

    id: uuid.UUID
    name: str = Field(min_length=1, max_length=120)
    passphrase: str = Field(min_length=people.SHORTEST_PASSPHRASE, max_length=1000)
    role: Role = Role.MECHANIC


@blueprint.post("/sites/<uuid:site_id>/people", summary="Add a person to a site", responses={"201": CreatedOut})
@at_site(Role.LEAD)
def post_person(path: SitePath, body: NewPerson) -> Response:
    if not body.name.strip():
        raise Refusal(422, "Write the name.", [FieldError(field="name", detail="Write the name they sign in by.")])

    def work(session: Session, writer: Writer) -> Answer:
        people.add_person(session, writer, body.id, body.name, body.passphrase, body.role)
        return Answer(201, {"id": str(body.id)})

    try:
        done = write(body.model_dump(mode="json", exclude={"passphrase"}), work)
    except IntegrityError as error:
        if constraint_of(error) != "uq_person_name":
            raise
        sentence = "Somebody of that name is here already: add a surname or a letter."
        raise Refusal(422, sentence, [FieldError(field="name", detail=sentence)]) from None
    return answer(CreatedOut(**done.body), done.status)
