"""A survey, worked out for whoever asks: rated by the tables of the site that the request is at, where it has any."""

from tuyere.core.drive.answer import Answer
from tuyere.record import forms, surveyed
from tuyere.record.forms import SurveyForm, TachometerForm
from tuyere.record.surveyed import survey_form
from tuyere.store.tables import Configuration, Drive
from tuyere.web.shop import the_shop

__all__ = ["answer_of", "answer_on", "survey_form"]


def answer_of(survey: SurveyForm, seen: TachometerForm | None = None) -> Answer:
    """What a survey says."""
    return forms.answer_of(survey, seen, the_shop().ratings)


def answer_on(drive: Drive, configuration: Configuration | None) -> Answer:
    """What the kept survey says."""
    return surveyed.answer_on(drive, configuration, the_shop().ratings)
