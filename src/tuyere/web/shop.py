"""The shop that an answer is worked out for: its own ratings and parts, where the request says whose site it is."""

import uuid
from dataclasses import dataclass
from functools import lru_cache

from flask import g, has_request_context, request
from flask_login import current_user

from tuyere.core.kinds.rating.own_table import NONE, OwnRatings
from tuyere.core.stations.size.own_ratings import read_ratings
from tuyere.core.stations.size.parts_list import PartsList, read_parts
from tuyere.store import shop_lists
from tuyere.store.shop_tables import ShopList
from tuyere.web.errors import Refusal
from tuyere.web.state import reading

HEADER = "Tuyere-Site"
NO_PARTS = PartsList()


@dataclass(frozen=True)
class Shop:
    """What a site has of its own."""

    ratings: OwnRatings = NONE
    parts: PartsList = NO_PARTS


NOBODYS = Shop()


def the_shop() -> Shop:
    """The shop of the site in the path or in the header; nobody's where neither names one. Refuses a site one does not belong to."""
    if not has_request_context():
        return NOBODYS
    if "shop" not in g:
        g.shop = _found()
    found: Shop = g.shop
    return found


def _found() -> Shop:
    site_id = g.get("site_id") or _named()
    if site_id is None or not current_user.is_authenticated:
        return NOBODYS
    with reading() as session:
        hold = shop_lists.that_hold(session, current_user.id, site_id)
    if hold is None:
        raise Refusal(404)
    return Shop(
        _ratings(hold["ratings"]) if "ratings" in hold else NONE,
        _parts(hold["parts"]) if "parts" in hold else NO_PARTS,
    )


def _named() -> uuid.UUID | None:
    text = request.headers.get(HEADER, "")
    if not text:
        return None
    try:
        return uuid.UUID(text)
    except ValueError:
        raise Refusal(404) from None


def _content(list_id: uuid.UUID) -> str:
    with reading() as session:
        return session.get_one(ShopList, list_id).content


# A list never changes once it is kept, so what was read of it stays right.
@lru_cache(maxsize=32)
def _ratings(list_id: uuid.UUID) -> OwnRatings:
    return read_ratings(_content(list_id)).ratings


@lru_cache(maxsize=32)
def _parts(list_id: uuid.UUID) -> PartsList:
    return read_parts(_content(list_id)).parts
