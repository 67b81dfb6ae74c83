"""What-ifs of the bench, by site."""

import uuid

from sqlmodel import Session, col, select

from tuyere.store.tables import WhatIf


def site_of_what_if(session: Session, what_if_id: uuid.UUID) -> uuid.UUID | None:
    """The site that a what-if is kept at, or None."""
    return session.exec(select(WhatIf.site_id).where(WhatIf.id == what_if_id)).first()


def at_site(session: Session, site_id: uuid.UUID) -> list[WhatIf]:
    """The what-ifs that are not put away, newest first."""
    wanted = select(WhatIf).where(WhatIf.site_id == site_id, col(WhatIf.put_away_at).is_(None))
    return list(session.exec(wanted.order_by(col(WhatIf.made_at).desc())))
