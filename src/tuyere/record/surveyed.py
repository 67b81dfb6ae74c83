"""A kept survey: as the form it was typed in, and what it says by the tables of its site."""

import uuid
from collections import OrderedDict

from pydantic import ValidationError
from sqlmodel import Session, col, select

from tuyere.core.drive.answer import Answer
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings
from tuyere.core.stations.size.own_ratings import read_ratings
from tuyere.record.forms import SurveyForm, answer_of
from tuyere.store.shop_tables import ShopList
from tuyere.store.tables import Configuration, Drive


def survey_form(drive: Drive, configuration: Configuration | None) -> SurveyForm:
    """The kept survey as it was typed."""
    blank: dict[str, object] = {"stages": [{"fitted": {"family": drive.family}}]}
    typed = configuration.typed if configuration else blank
    try:
        return SurveyForm.model_validate({**typed, "design": drive.typed or {}})
    except ValidationError:
        return SurveyForm.model_validate(blank)


def answer_on(drive: Drive, configuration: Configuration | None, own: OwnRatings = NONE) -> Answer:
    """What the kept survey says."""
    return answer_of(survey_form(drive, configuration), own=own)


# A list never changes once it is kept, so what was read of it stays right.
_RATINGS: OrderedDict[uuid.UUID, OwnRatings] = OrderedDict()
_MOST_LISTS = 32


def ratings_at(session: Session, site_id: uuid.UUID) -> tuple[uuid.UUID | None, OwnRatings]:
    """The ratings of its own that hold at a site, and which list they are."""
    wanted = select(ShopList.id).where(ShopList.site_id == site_id, ShopList.what == "ratings", col(ShopList.put_away_at).is_(None))
    list_id = session.exec(wanted.order_by(col(ShopList.loaded_at).desc(), col(ShopList.id)).limit(1)).first()
    if list_id is None:
        return None, NONE
    found = _RATINGS.get(list_id)
    if found is None:
        found = _RATINGS[list_id] = read_ratings(session.get_one(ShopList, list_id).content).ratings
        if len(_RATINGS) > _MOST_LISTS:
            _RATINGS.popitem(last=False)
    return list_id, found
