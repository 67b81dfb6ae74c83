"""Putting something of the bench away, and bringing it back: nothing is deleted, and nobody else's change is run over."""

import uuid
from typing import Any

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store.clock import now
from tuyere.store.shop_tables import ShopList, WhatIf
from tuyere.store.write import Outcome, Writer, update
from tuyere.web.answers import answer
from tuyere.web.state import write


class PutAway(Strict):
    """Put it away or, with `back`, bring it back; over the version seen."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    back: bool = False


class PutAwayOut(BaseModel):
    """What was put away, and its version."""

    id: uuid.UUID
    row_version: int


def put_away(table: type[WhatIf] | type[ShopList], row_id: uuid.UUID, body: PutAway, noun: str) -> Response:
    """Do it, once for the request's key; the audit says what was put away by its `noun`."""

    def work(session: Session, writer: Writer) -> Outcome:
        row: Any = session.get_one(table, row_id)
        said = f"brought {noun} back" if body.back else f"put {noun} away"
        update(session, writer, row, body.row_version, {"put_away_at": None if body.back else now()}, said)
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write({"row": str(row_id), **body.model_dump(mode="json")}, work)
    return answer(PutAwayOut(**done.body), done.status)
