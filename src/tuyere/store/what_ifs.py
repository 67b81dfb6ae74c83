"""What-ifs of the bench, by site."""

import uuid

from sqlmodel import Session, col, select

from tuyere.store.people import SiteId
from tuyere.store.shop_tables import WhatIf


def site_of_what_if(what_if_id: uuid.UUID) -> SiteId:
    """The site that a what-if is kept at: the statement that finds it."""
    return select(WhatIf.site_id).where(WhatIf.id == what_if_id)


def at_site(session: Session, site_id: uuid.UUID) -> list[WhatIf]:
    """The what-ifs that are not put away, newest first."""
    wanted = select(WhatIf).where(WhatIf.site_id == site_id, col(WhatIf.put_away_at).is_(None))
    return list(session.exec(wanted.order_by(col(WhatIf.made_at).desc())))
