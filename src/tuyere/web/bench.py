"""What-ifs of the bench: drives thought through, kept by name, opened and changed again, put away."""

import uuid
from datetime import datetime

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import what_ifs
from tuyere.store.people_tables import Person, Role
from tuyere.store.shop_tables import WhatIf
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.floor import SitePath
from tuyere.web.put_away import PutAway, PutAwayOut, put_away
from tuyere.web.routes import routes
from tuyere.web.rules import at_site, at_site_of_what_if
from tuyere.web.size import Key, SizeForm
from tuyere.web.state import reading, write

blueprint = routes("bench", "/api", "bench", "What-ifs without a drive")
MOST = 200


class WhatIfPath(BaseModel):
    """A what-if."""

    what_if_id: uuid.UUID


class WhatIfOut(BaseModel):
    """A what-if: what was asked, the drive picked and those put side by side."""

    id: uuid.UUID
    name: str
    who: str
    made_at: datetime
    size: SizeForm
    chosen: str
    beside: list[str]
    row_version: int


class WhatIfsOut(BaseModel):
    """The what-ifs of a site, newest first."""

    what_ifs: list[WhatIfOut]


@blueprint.get("/sites/<uuid:site_id>/what-ifs", summary="What-ifs kept at a site", responses={"200": WhatIfsOut})
@at_site(Role.VIEWER)
def get_what_ifs(path: SitePath) -> Response:
    with reading() as session:
        return answer(WhatIfsOut(what_ifs=[_out(session, row) for row in what_ifs.at_site(session, path.site_id)]))


def _out(session: Session, row: WhatIf) -> WhatIfOut:
    kept = row.typed
    return WhatIfOut(
        id=row.id,
        name=row.name,
        who=session.get_one(Person, row.made_by).name,
        made_at=row.made_at,
        size=SizeForm.model_validate(kept["size"]),
        chosen=kept["chosen"],
        beside=kept["beside"],
        row_version=row.row_version,
    )


class KeepWhatIf(Strict):
    """A what-if to keep."""

    id: uuid.UUID
    name: str = Field(max_length=200)
    size: SizeForm = Field(default_factory=SizeForm)
    chosen: Key = ""
    beside: list[Key] = Field(default_factory=list, max_length=4)


class WhatIfKept(BaseModel):
    """What was kept, and its version."""

    id: uuid.UUID
    row_version: int


def _name(text: str) -> str:
    cleaned = " ".join(text.split())
    if not 1 <= len(cleaned) <= 120:
        sentence = "Give it a name of up to 120 letters, such as “mill, toothed, 5.6 to 1”."
        raise Refusal(422, sentence, [FieldError(field="name", detail=sentence)])
    return cleaned


@blueprint.post("/sites/<uuid:site_id>/what-ifs", summary="Keep a what-if", responses={"201": WhatIfKept})
@at_site(Role.MECHANIC)
def post_what_if(path: SitePath, body: KeepWhatIf) -> Response:
    name, typed = _name(body.name), body.model_dump(mode="json", include={"size", "chosen", "beside"})

    def work(session: Session, writer: Writer) -> Outcome:
        if len(what_ifs.at_site(session, path.site_id)) >= MOST:
            raise Refusal(409, f"There are {MOST} what-ifs already: put some away first.")
        row = WhatIf(id=body.id, site_id=path.site_id, name=name, made_by=writer.person_id, typed=typed)
        insert(session, writer, row, "kept a what-if")
        return Outcome(201, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(WhatIfKept(**done.body), done.status)


class ChangeWhatIf(Strict):
    """A what-if as it is now, over the version that was opened."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    name: str = Field(max_length=200)
    size: SizeForm = Field(default_factory=SizeForm)
    chosen: Key = ""
    beside: list[Key] = Field(default_factory=list, max_length=4)


@blueprint.put("/what-ifs/<uuid:what_if_id>", summary="Change a what-if", responses={"200": WhatIfKept})
@at_site_of_what_if(Role.MECHANIC)
def put_what_if(path: WhatIfPath, body: ChangeWhatIf) -> Response:
    name, typed = _name(body.name), body.model_dump(mode="json", include={"size", "chosen", "beside"})

    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(WhatIf, path.what_if_id)
        update(session, writer, row, body.row_version, {"name": name, "typed": typed}, "changed a what-if")
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write({"what_if": str(path.what_if_id), **body.model_dump(mode="json")}, work)
    return answer(WhatIfKept(**done.body), done.status)


@blueprint.post("/what-ifs/<uuid:what_if_id>/away", summary="Put a what-if away, or bring it back", responses={"200": PutAwayOut})
@at_site_of_what_if(Role.MECHANIC)
def post_what_if_away(path: WhatIfPath, body: PutAway) -> Response:
    return put_away(WhatIf, path.what_if_id, body, "a what-if")
