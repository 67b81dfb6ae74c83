"""Photographs: sent as the camera made them, kept clean; turned, marked with arrows, put away and brought back."""

import hashlib
import uuid
from typing import Literal

from flask import Response, request
from flask_openapi3 import RawModel
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.basis.picture import NotAPictureError, picture_of
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import photos as store
from tuyere.store.clock import now
from tuyere.store.inspect_tables import Photo
from tuyere.store.job_tables import Job
from tuyere.store.people_tables import Role
from tuyere.store.tables import Drive, Finding
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.photo_answers import Arrow, PhotoOut, photo_out
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive, at_site_of_photo
from tuyere.web.state import reading, write

blueprint = routes("photos", "/api", "photos", "Photographs of drives and of what was found")


class PhotoPath(BaseModel):
    """A photograph."""

    photo_id: uuid.UUID


class PhotosOut(BaseModel):
    """Every photograph of a drive that is not put away, newest first."""

    photos: list[PhotoOut]


class SentPhoto(RawModel):
    """The picture itself, whatever it is called: JPEG, PNG or WebP are read."""

    mimetypes: list[str] = ["image/*"]  # noqa: RUF012 (as the library declares it)


class PhotoQuery(Strict):
    """Client-made id, the finding or the step of a job that it shows (left out: the drive alone), a note."""

    id: uuid.UUID
    finding_id: uuid.UUID | None = None
    job_id: uuid.UUID | None = None
    step: str = Field("", max_length=60)
    note: str = Field("", max_length=400)


class PhotoKeptOut(BaseModel):
    """The photograph and its version."""

    id: uuid.UUID
    row_version: int


@blueprint.get("/drives/<uuid:drive_id>/photos", summary="The photographs of a drive", responses={"200": PhotosOut})
@at_site_of_drive(Role.VIEWER)
def get_photos(path: DrivePath) -> Response:
    with reading() as session:
        return answer(PhotosOut(photos=[photo_out(p) for p in store.photos(session, path.drive_id)]))


@blueprint.post("/drives/<uuid:drive_id>/photos", summary="Keep a photograph", responses={"201": PhotoKeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_photo(path: DrivePath, query: PhotoQuery, raw: SentPhoto) -> Response:
    sent = request.get_data()
    try:
        picture = picture_of(sent)
    except NotAPictureError as reason:
        raise Refusal(422, str(reason), [FieldError(field="photo", detail=str(reason))]) from None

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        _of_this_drive(session, query.finding_id, drive.id)
        job = session.get(Job, query.job_id) if query.job_id else None
        if query.job_id and (job is None or job.drive_id != drive.id):
            sentence = "That job is not one of this drive."
            raise Refusal(422, sentence, [FieldError(field="job_id", detail=sentence)])
        row = Photo(
            id=query.id,
            drive_id=drive.id,
            finding_id=query.finding_id,
            job_id=query.job_id,
            step=query.step,
            taken_by=writer.person_id,
            note=" ".join(query.note.split()),
            width=picture.width,
            height=picture.height,
            content=picture.content,
            thumb=picture.thumb,
        )
        insert(session, writer, row, "kept a photograph")
        return Outcome(201, {"id": str(row.id), "row_version": 1})

    done = write({**query.model_dump(mode="json"), "sha256": hashlib.sha256(sent).hexdigest()}, work)
    return answer(PhotoKeptOut(**done.body), done.status)


def _of_this_drive(session: Session, finding_id: uuid.UUID | None, drive_id: uuid.UUID) -> None:
    finding = session.get(Finding, finding_id) if finding_id else None
    if finding_id and (finding is None or finding.drive_id != drive_id):
        sentence = "That was not seen at this drive."
        raise Refusal(422, sentence, [FieldError(field="finding_id", detail=sentence)])


class Size(Strict):
    """Whole, or small as in a list."""

    size: Literal["whole", "small"] = "whole"


@blueprint.get("/photos/<uuid:photo_id>/picture", summary="The picture itself")
@at_site_of_photo(Role.VIEWER)
def get_picture(path: PhotoPath, query: Size) -> Response:
    with reading() as session:
        content = store.content_of(session, path.photo_id, query.size == "small")
    # Like every other answer it is left in no cache: whoever has the device next may not be allowed to see it.
    return Response(content, content_type="image/jpeg", headers={"X-Content-Type-Options": "nosniff"})


class PhotoForm(Strict):
    """How a photograph is to be shown: turned, with arrows, a note, and what it shows; `put_away`: out of sight, or back in it."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    turned: Literal[0, 90, 180, 270] = 0
    arrows: list[Arrow] = Field(default_factory=list, max_length=12)
    note: str = Field("", max_length=400)
    finding_id: uuid.UUID | None = None
    put_away: bool = False


@blueprint.post("/photos/<uuid:photo_id>", summary="Turn, mark or put away a photograph", responses={"200": PhotoKeptOut})
@at_site_of_photo(Role.MECHANIC)
def post_photo_change(path: PhotoPath, body: PhotoForm) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Photo, path.photo_id)
        _of_this_drive(session, body.finding_id, row.drive_id)
        values = {
            "turned": body.turned,
            "arrows": [a.model_dump() for a in body.arrows],
            "note": " ".join(body.note.split()),
            "finding_id": body.finding_id,
            "put_away_at": (row.put_away_at or now()) if body.put_away else None,
        }
        update(session, writer, row, body.row_version, values, "put a photograph away" if body.put_away else "changed a photograph")
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(PhotoKeptOut(**done.body), done.status)
