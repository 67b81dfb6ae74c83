"""A photograph as it is told of: by the drive's list, its findings and the log."""

import uuid
from datetime import datetime

from pydantic import BaseModel, Field

from tuyere.record.entry import Strict
from tuyere.store.photos import Listed


class Arrow(Strict):
    """From its tail to its head, as shares of the picture's width and height before it is turned."""

    x1: float = Field(ge=0, le=1)
    y1: float = Field(ge=0, le=1)
    x2: float = Field(ge=0, le=1)
    y2: float = Field(ge=0, le=1)


class PhotoOut(BaseModel):
    """A photograph: who took it when, its size (px) before it is turned clockwise by `turned` degrees, and its arrows."""

    id: uuid.UUID
    finding_id: uuid.UUID | None
    job_id: uuid.UUID | None
    step: str
    taken_at: datetime
    who: str
    note: str
    width: int
    height: int
    turned: int
    arrows: list[Arrow]
    row_version: int


def photo_out(p: Listed) -> PhotoOut:
    """A listed photograph with everything."""
    return PhotoOut(**{**p._asdict(), "arrows": [Arrow(**a) for a in p.arrows]})
