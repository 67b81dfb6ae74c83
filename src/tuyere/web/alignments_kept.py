"""The alignments kept of a drive."""

import uuid
from datetime import datetime

from pydantic import BaseModel
from sqlmodel import Session

from tuyere.core.stations.align.judge import said as spoken
from tuyere.store import drives
from tuyere.store.tables import Reading


class AlignmentKept(BaseModel):
    """An alignment on the record: of which stage and wheel, when, who, how, before or after a move; errors and tolerances (rad, m)."""

    id: uuid.UUID
    stage: int
    wheel: int
    at: datetime
    who: str
    method: str
    standing: str
    angle: float | None
    twist: float | None
    offset: float | None
    texts: dict[str, str]
    angle_allowed: float
    offset_allowed: float
    headline: str
    tone: str
    true: bool


def alignments_kept(session: Session, drive_id: uuid.UUID) -> list[AlignmentKept]:
    """Those of a drive, newest first."""

    def out(row: Reading, who: str) -> AlignmentKept:
        said, figures = row.summary, row.summary["figures"]
        return AlignmentKept(
            id=row.id,
            stage=row.stage_position,
            wheel=row.wheel,
            at=row.taken_at,
            who=who,
            method=row.method,
            standing=row.standing,
            **{k: figures[k]["si"] if k in figures else None for k in ("angle", "twist", "offset")},
            texts={k: spoken(k, figures[k]["si"]) for k in ("angle", "twist", "offset") if k in figures},
            angle_allowed=said["allowed"]["angle"],
            offset_allowed=said["allowed"]["offset"],
            headline=said["headline"],
            tone=said["tone"],
            true=said["true"],
        )

    return [out(row, who) for row, who in drives.alignments(session, drive_id)]
