"""The Align station of a drive."""

from dataclasses import replace

from tuyere.core.drive.answer import Answer
from tuyere.core.stations.align.read import Aligned, TypedAlign, read_align

NOT_READ = TypedAlign()


def alignment_of(on: Answer, number: int = 1, typed: TypedAlign = NOT_READ) -> Aligned | None:
    """How two wheels of a stage, by its number from 1, stand to each other.

    None where nothing can be aligned yet, or the belt is crossed.
    """
    stage = on.stage(number)
    if stage is None or stage.crossed:
        return None
    kept = on.survey.stages[number - 1].kept
    return read_align(stage, replace(typed, kept=kept.quantities, kept_words=kept.words))
