"""A kept survey: as the form it was typed in, and what the stations say of it."""

import uuid
from functools import lru_cache

from pydantic import ValidationError
from sqlmodel import col, select

from tuyere.core.layout.form import read_path
from tuyere.core.rating.own_table import OwnRatings
from tuyere.core.sheet.solve import solve, solve_page
from tuyere.core.working.verdict import Tone, Verdict
from tuyere.store.tables import Configuration, Drive
from tuyere.web.entry import Entry
from tuyere.web.forms import GaugeForm, SheavesForm, SheetForm, SurveyForm, ToothedForm, read_machine_form, read_sheet, typed_path
from tuyere.web.shop import the_shop
from tuyere.web.stages import train_of
from tuyere.web.state import reading
from tuyere.web.tight import tight_of

_WEIGHS = (Tone.STOP, Tone.WATCH)


def survey_form(drive: Drive, configuration: Configuration | None) -> SurveyForm:
    """The kept survey as it was typed."""
    blank: dict[str, object] = {"stages": [{"fitted": {"family": drive.family}}]}
    typed = configuration.typed if configuration else blank
    try:
        return SurveyForm.model_validate({**typed, "design": drive.typed or {}})
    except ValidationError:
        return SurveyForm.model_validate(blank)


def station_verdicts(configuration_id: uuid.UUID, drive_version: int) -> tuple[Verdict, ...]:
    """What weighs of a configuration, by the site's own ratings where it has any."""
    return _verdicts(configuration_id, drive_version, the_shop().ratings)


# A configuration never changes once it is kept, and a drive says by its version when its design point did.
@lru_cache(maxsize=8192)
def _verdicts(configuration_id: uuid.UUID, _drive_version: int, _own: OwnRatings) -> tuple[Verdict, ...]:
    with reading() as session:
        both = select(Configuration, Drive).join(Drive, col(Drive.id) == col(Configuration.drive_id))
        configuration, drive = session.exec(both.where(Configuration.id == configuration_id)).one()
        return _of(survey_form(drive, configuration))


def own_verdicts(fitted: object) -> tuple[Verdict, ...]:
    """What a survey says of what only some drives have: an overhead conveyor's dogs, a carriage's belt, link belting."""
    if isinstance(fitted, ToothedForm):
        dogs = fitted.dogs.read().verdicts if fitted.dogs.fitted else ()
        linear = fitted.linear.read(fitted.quantities.get("belt_thickness", Entry())).verdicts if fitted.linear.fitted else ()
        return (*dogs, *linear)
    if isinstance(fitted, SheavesForm) and fitted.choices.section.startswith("link"):
        return fitted.link.read().verdicts
    return ()


def _of(survey: SurveyForm) -> tuple[Verdict, ...]:
    form = read_sheet(SheetForm(survey=survey))
    sheet = solve(form.spec)
    page = solve_page(form.spec)
    found = [*page.verdicts]
    train = None
    if survey.layout.wheels:
        found += read_path(typed_path(survey)).verdicts
        train = None if page.has("ratio") else train_of(SheetForm(survey=survey), form.spec)
        found += [v for stage in train.stages for v in stage.verdicts] if train else []
    found += form.surveyed.verdicts
    for place, stage in enumerate(survey.stages, 1):
        found += own_verdicts(stage.fitted)
        tight = tight_of(SheetForm(survey=survey, gauge=GaugeForm(stage=place)), form.spec, sheet, train)
        found += tight.verdicts if tight else ()
    if page.has("driven_speed"):
        felt = read_machine_form(form, survey.machine, page.values["driven_speed"].n).felt
        found += felt.verdicts if felt else ()
    return tuple(v for v in found if v.tone in _WEIGHS)
