"""Where wear is measured on a drive, each place with its last reading."""

from collections.abc import Sequence
from datetime import datetime

from pydantic import BaseModel

from tuyere.store.tables import Reading


class WornPlaceOut(BaseModel):
    """A place to measure, and the last reading there since the part went on: share of the limit, words, when; null where there is none."""

    where: str
    share: float | None
    text: str
    at: datetime | None


def places_out(where: Sequence[str], rows: Sequence[Reading], since: datetime | None) -> list[WornPlaceOut]:
    """Each place with its last reading since the part went on; places that were measured and are not on the list come last."""
    last = {r.summary["where"]: r for r in rows if since is None or r.taken_at > since}
    names = [*where, *(w for w in last if w and w not in where)]
    return [
        WornPlaceOut(where=w, share=last[w].summary["share"], text=last[w].summary["text"], at=last[w].taken_at)
        if w in last
        else WornPlaceOut(where=w, share=None, text="", at=None)
        for w in names
    ]
