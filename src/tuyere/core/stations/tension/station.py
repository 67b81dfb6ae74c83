"""The Tension station of a drive."""

from dataclasses import replace

from tuyere.core.drive.answer import Answer
from tuyere.core.stations.tension.read import Tight, read_tension
from tuyere.core.stations.tension.typed import TypedTension

NOT_READ = TypedTension()


def tension_of(on: Answer, number: int = 1, typed: TypedTension = NOT_READ) -> Tight | None:
    """A stage's tension, by its number from 1, with what was read of it.

    None where what is on, or where its wheels stand, is not known well enough.
    """
    stage = on.stage(number)
    if stage is None:
        return None
    kept = on.survey.stages[number - 1].kept
    return read_tension(stage, replace(typed, kept=kept.quantities, kept_words=kept.words))
