"""Saying what one saw at a drive, and the life of findings: taken up, closed with what was done, opened again."""

import uuid
from typing import Literal

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.stations.inspect.signs import MACHINE_STATES, PLACES, UnknownSignError, sign, signs
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import findings as store
from tuyere.store.people_tables import Role
from tuyere.store.tables import Finding
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, at_site_of_drive, at_site_of_finding
from tuyere.web.state import write

blueprint = routes("seen", "/api", "seen", "What people saw, and what became of it")


class FindingPath(BaseModel):
    """A finding."""

    finding_id: uuid.UUID


class SignOut(BaseModel):
    """A plain sign to tap: how it is said, how it weighs, and in which state of the machine it shows."""

    key: str
    label: str
    weight: str
    place: str
    page: str
    state: str


class SignsOut(BaseModel):
    """The signs, the usual ones first; the states of a machine and the places on a drive to choose from."""

    signs: list[SignOut]
    states: list[str]
    places: list[str]


@blueprint.get("/signs", summary="The plain signs to choose from", responses={"200": SignsOut})
@anyone()
def get_signs() -> Response:
    listed = [SignOut(key=s.key, label=s.label, weight=s.weight, place=s.place, page=s.page, state=s.state) for s in signs().values()]
    return answer(SignsOut(signs=listed, states=list(MACHINE_STATES), places=list(PLACES)))


class SayForm(Strict):
    """What one saw: a sign of the list, and one's own words; where on the drive, and in which state of the machine."""

    id: uuid.UUID
    sign: str = Field(max_length=40)
    words: str = Field("", max_length=400)
    place: str = Field("", max_length=40)
    machine_state: Literal["", "starting", "running", "stopped", "any"] = ""


class SaidOut(BaseModel):
    """The finding that it became."""

    id: uuid.UUID
    what: str
    row_version: int


@blueprint.post("/drives/<uuid:drive_id>/findings", summary="Say what you saw", responses={"201": SaidOut})
@at_site_of_drive(Role.MECHANIC)
def post_finding(path: DrivePath, body: SayForm) -> Response:
    try:
        seen = sign(body.sign)
    except UnknownSignError as reason:
        raise Refusal(422, str(reason), [FieldError(field="sign", detail=str(reason))]) from None
    words = " ".join(body.words.split())
    if seen.key == "other" and not words:
        sentence = "Say in a few words what you saw."
        raise Refusal(422, sentence, [FieldError(field="words", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        row = Finding(
            id=body.id,
            drive_id=path.drive_id,
            what=_title(words) if seen.key == "other" else seen.label,
            weight=seen.weight,
            found_by=writer.person_id,
            sign=seen.key,
            words=words,
            place=body.place or seen.place,
            page=seen.page,
            machine_state=body.machine_state or ("" if seen.state == "any" else seen.state),
        )
        insert(session, writer, row, "raised a finding")
        return Outcome(201, {"id": str(row.id), "what": row.what, "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(SaidOut(**done.body), done.status)


def _title(words: str) -> str:
    """One's own words as the name of a finding."""
    return words if len(words) <= 100 else f"{words[:99]}…"


class WordsForm(Strict):
    """More about what was seen: in one's own words, where, and in which state of the machine. A person's own findings only."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    words: str = Field("", max_length=400)
    place: str = Field("", max_length=40)
    machine_state: Literal["", "starting", "running", "stopped", "any"] = ""


class FindingChangedOut(BaseModel):
    """The finding's new row version."""

    id: uuid.UUID
    row_version: int


@blueprint.post("/findings/<uuid:finding_id>/words", summary="Say more about what you saw", responses={"200": FindingChangedOut})
@at_site_of_finding(Role.MECHANIC)
def post_words(path: FindingPath, body: WordsForm) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Finding, path.finding_id)
        if row.subject:
            raise Refusal(422, "This one the application found itself: say what you saw as one of your own.")
        values = {"words": " ".join(body.words.split()), "place": body.place, "machine_state": body.machine_state}
        update(session, writer, row, body.row_version, values, "said more of a finding")
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(FindingChangedOut(**done.body), done.status)


class FindingForm(Strict):
    """What becomes of a finding. Closing wants `why`: what was done, or why it is nothing."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    state: Literal["open", "being done", "closed"]
    how: Literal["said", "reading", "survey", "fitted", "job"] = "said"
    why: str = Field("", max_length=400)


@blueprint.post("/findings/<uuid:finding_id>", summary="Take up, close or reopen a finding", responses={"200": FindingChangedOut})
@at_site_of_finding(Role.MECHANIC)
def post_finding_change(path: FindingPath, body: FindingForm) -> Response:
    why = " ".join(body.why.split())
    if body.state == "closed" and not why:
        sentence = "Say what was done, or why it is nothing."
        raise Refusal(422, sentence, [FieldError(field="why", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Finding, path.finding_id)
        if row.subject and row.subject not in store.REMARKS and body.state == "closed":
            raise Refusal(422, "The application closes this one itself, by the next reading or survey that finds it in order.")
        store.change(session, writer, row, body.row_version, body.state, body.how, why)
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(FindingChangedOut(**done.body), done.status)
