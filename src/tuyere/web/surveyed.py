"""A kept survey: as the form it was typed in, and what the stations say of it."""

import uuid
from functools import lru_cache

from pydantic import ValidationError
from sqlmodel import col, select

from tuyere.core.basis.verdict import Verdict
from tuyere.core.drive.answer import Answer
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.stations.floor.weighs import weighs
from tuyere.store.tables import Configuration, Drive
from tuyere.web.forms import SurveyForm, answer_of
from tuyere.web.shop import the_shop
from tuyere.web.state import reading


def survey_form(drive: Drive, configuration: Configuration | None) -> SurveyForm:
    """The kept survey as it was typed."""
    blank: dict[str, object] = {"stages": [{"fitted": {"family": drive.family}}]}
    typed = configuration.typed if configuration else blank
    try:
        return SurveyForm.model_validate({**typed, "design": drive.typed or {}})
    except ValidationError:
        return SurveyForm.model_validate(blank)


def answer_on(drive: Drive, configuration: Configuration | None) -> Answer:
    """What the kept survey says."""
    return answer_of(survey_form(drive, configuration))


def station_verdicts(configuration_id: uuid.UUID, drive_version: int) -> tuple[Verdict, ...]:
    """What weighs of a configuration, by the site's own ratings where it has any."""
    return _verdicts(configuration_id, drive_version, the_shop().ratings)


# A configuration never changes once it is kept, and a drive says by its version when its design point did.
@lru_cache(maxsize=8192)
def _verdicts(configuration_id: uuid.UUID, _drive_version: int, _own: OwnRatings) -> tuple[Verdict, ...]:
    with reading() as session:
        both = select(Configuration, Drive).join(Drive, col(Drive.id) == col(Configuration.drive_id))
        configuration, drive = session.exec(both.where(Configuration.id == configuration_id)).one()
        return weighs(answer_on(drive, configuration))
