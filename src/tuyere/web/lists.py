"""A shop's own lists: what parts it has and what they cost, and ratings of its own; checked, kept, taken back, fetched."""

import uuid
from collections import Counter
from datetime import datetime
from functools import lru_cache
from types import ModuleType
from typing import Literal

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.basis.rows_file import RowReport, guarded
from tuyere.core.kinds.part_row import PartRow
from tuyere.core.stations.size import own_ratings as own
from tuyere.core.stations.size import parts_list
from tuyere.core.stations.size.compare import Compared, compare
from tuyere.record.entry import Strict
from tuyere.store import shop_lists
from tuyere.store.people_tables import Person, Role
from tuyere.store.shop_tables import ShopList
from tuyere.store.write import Outcome, Writer, insert
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.floor import SitePath
from tuyere.web.put_away import PutAway, PutAwayOut, put_away
from tuyere.web.routes import routes
from tuyere.web.rules import at_site, at_site_of_shop_list
from tuyere.web.size import Axis, axis_of
from tuyere.web.state import reading, write

blueprint = routes("lists", "/api", "lists", "A shop's own parts, prices and ratings")
What = Literal["parts", "ratings"]
_SHOWN = 400
_FORMAT: dict[What, ModuleType] = {"parts": parts_list, "ratings": own}


class ListIn(Strict):
    """A file of a shop's own: CSV or JSON text."""

    what: What
    content: str = Field(max_length=240_000)


class KeepList(ListIn):
    """A file to keep."""

    id: uuid.UUID
    file_name: str = Field("", max_length=120)


class ListPath(BaseModel):
    """A shop's list."""

    list_id: uuid.UUID


class ListReport(BaseModel):
    """What became of each row; `refused` when the file as a whole cannot be read."""

    taken: int
    refused: str
    rows: list[RowReport]


class ListOut(BaseModel):
    """A list that is kept."""

    id: uuid.UUID
    file_name: str
    rows_taken: int
    who: str
    loaded_at: datetime
    row_version: int


class FileColumn(BaseModel):
    """One column of the file."""

    name: str
    about: str
    needed: bool


class PartOut(BaseModel):
    """One part of the list; `across_m` is the wheel's diameter, 0 for what is no wheel."""

    part: str
    fits: str
    said: str
    grooves: int
    width: BothOut | None
    across_m: float
    on_hand: float | None
    price: float | None
    number: str


class Held(BaseModel):
    """What holds of one sort: the list, the one that stands behind it or was put away, and how a file is written."""

    now: ListOut | None
    before: ListOut | None
    put_away: ListOut | None
    columns: list[FileColumn]
    example: str


class ListsOut(BaseModel):
    """A shop's own lists; the first parts of the list, and its ratings beside the standards'."""

    parts: Held
    ratings: Held
    part_rows: list[PartOut]
    part_count: int
    by_fit: dict[str, int]
    compared: list[Compared]
    power: Axis


def _read(what: What, content: str) -> own.RatingsReport | parts_list.PartsReport:
    return own.read_ratings(content) if what == "ratings" else parts_list.read_parts(content)


@blueprint.get("/sites/<uuid:site_id>/lists", summary="A shop's own lists", responses={"200": ListsOut})
@at_site(Role.VIEWER)
def get_lists(path: SitePath) -> Response:
    with reading() as session:
        parts, ratings = _held(session, path.site_id, "parts"), _held(session, path.site_id, "ratings")
        parts_text, ratings_text = (session.get_one(ShopList, h.now.id).content if h.now else "" for h in (parts, ratings))
    rows = parts_list.read_parts(parts_text).parts.rows if parts_text else ()
    return answer(
        ListsOut(
            parts=parts,
            ratings=ratings,
            part_rows=[_part(r) for r in rows[:_SHOWN]],
            part_count=len(rows),
            by_fit=dict(Counter(r.fits for r in rows)),
            compared=list(_compared(ratings_text)) if ratings_text else [],
            power=axis_of("power", "power", "power", True),
        )
    )


def _part(r: PartRow) -> PartOut:
    width = both_out(r.width_m, "length", decimals=(2, 0)) if r.width_m else None
    return PartOut(
        part=r.part,
        fits=r.fits,
        said=r.said,
        grooves=r.grooves,
        width=width,
        on_hand=r.on_hand,
        price=r.price,
        number=r.number,
        across_m=parts_list.across_m(r),
    )


@lru_cache(maxsize=8)
def _compared(content: str) -> tuple[Compared, ...]:
    return tuple(compare(table) for table in own.read_ratings(content).ratings.tables.values())


def _held(session: Session, site_id: uuid.UUID, what: What) -> Held:
    form = _FORMAT[what]
    kept = shop_lists.at_site(session, site_id, what)
    away = shop_lists.last_put_away(session, site_id, what)
    return Held(
        now=_out(session, kept[0]) if kept else None,
        before=_out(session, kept[1]) if len(kept) > 1 else None,
        put_away=_out(session, away) if away else None,
        columns=[FileColumn(name=c, about=says, needed=n < form.NEEDED) for n, (c, says) in enumerate(form.ABOUT.items())],
        example=form.EXAMPLE,
    )


def _out(session: Session, row: ShopList) -> ListOut:
    who = session.get_one(Person, row.loaded_by).name
    return ListOut(
        id=row.id, file_name=row.file_name, rows_taken=row.rows_taken, who=who, loaded_at=row.loaded_at, row_version=row.row_version
    )


def _report(what: What, content: str) -> ListReport:
    found = _read(what, content)
    return ListReport(taken=sum(r.taken for r in found.rows), refused=found.refused, rows=list(found.rows))


@blueprint.post("/sites/<uuid:site_id>/lists/check", summary="Read a file row by row, keeping nothing", responses={"200": ListReport})
@at_site(Role.VIEWER)
def check_list(path: SitePath, body: ListIn) -> Response:
    return answer(_report(body.what, body.content))


@blueprint.post("/sites/<uuid:site_id>/lists", summary="Keep a shop's own list: it holds from now on", responses={"201": ListReport})
@at_site(Role.MECHANIC)
def post_list(path: SitePath, body: KeepList) -> Response:
    report = _report(body.what, body.content)
    if report.refused or not report.taken:
        sentence = report.refused or "No row of this file can be taken: see what each one says."
        raise Refusal(422, sentence, [FieldError(field="content", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        row = ShopList(
            id=body.id,
            site_id=path.site_id,
            what=body.what,
            file_name=" ".join(body.file_name.split()) or "typed here",
            content=body.content,
            rows_taken=report.taken,
            loaded_by=writer.person_id,
        )
        insert(session, writer, row, "kept a list of its own")
        return Outcome(201, {"id": str(row.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(report, done.status)


@blueprint.post("/shop-lists/<uuid:list_id>/away", summary="Put a list away, or bring it back", responses={"200": PutAwayOut})
@at_site_of_shop_list(Role.MECHANIC)
def post_list_away(path: ListPath, body: PutAway) -> Response:
    return put_away(ShopList, path.list_id, body, "a list")


@blueprint.get("/shop-lists/<uuid:list_id>/file", summary="A list as the file that was brought")
@at_site_of_shop_list(Role.VIEWER)
def get_list_file(path: ListPath) -> Response:
    with reading() as session:
        row = session.get_one(ShopList, path.list_id)
        is_json = row.content.lstrip("\ufeff \n\r\t").startswith(("[", "{"))
        kind, end = ("application/json", "json") if is_json else ("text/csv; charset=utf-8", "csv")
        content = row.content if is_json else guarded(row.content)
        return Response(content, content_type=kind, headers={"Content-Disposition": f'attachment; filename="own-{row.what}.{end}"'})
