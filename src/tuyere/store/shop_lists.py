"""A shop's own lists, by site."""

import uuid
from collections.abc import Sequence

from sqlmodel import Session, col, select

from tuyere.store.people import SiteId
from tuyere.store.people_tables import Membership
from tuyere.store.shop_tables import ShopList


def site_of_list(list_id: uuid.UUID) -> SiteId:
    """The site that a list is of: the statement that finds it."""
    return select(ShopList.site_id).where(ShopList.id == list_id)


def at_site(session: Session, site_id: uuid.UUID, what: str) -> list[ShopList]:
    """Every list of one sort that is not put away, the one that holds first."""
    wanted = select(ShopList).where(ShopList.site_id == site_id, ShopList.what == what, col(ShopList.put_away_at).is_(None))
    return list(session.exec(wanted.order_by(col(ShopList.loaded_at).desc(), col(ShopList.id))))


def last_put_away(session: Session, site_id: uuid.UUID, what: str) -> ShopList | None:
    """The list that was put away last: what can be brought back."""
    wanted = select(ShopList).where(ShopList.site_id == site_id, ShopList.what == what, col(ShopList.put_away_at).is_not(None))
    return session.exec(wanted.order_by(col(ShopList.put_away_at).desc()).limit(1)).first()


def that_hold(session: Session, person_id: uuid.UUID, site_id: uuid.UUID) -> dict[str, uuid.UUID] | None:
    """The list of each sort that holds at a site; None when the person does not belong to it."""
    found: Sequence[tuple[str | None, uuid.UUID | None]] = session.exec(
        select(ShopList.what, ShopList.id)
        .select_from(Membership)
        .join(ShopList, (col(ShopList.site_id) == Membership.site_id) & col(ShopList.put_away_at).is_(None), isouter=True)
        .where(Membership.site_id == site_id, Membership.person_id == person_id, col(Membership.ended_at).is_(None))
        .order_by(col(ShopList.loaded_at), col(ShopList.id).desc())
    ).all()
    if not found:
        return None
    return {what: list_id for what, list_id in found if what and list_id}
