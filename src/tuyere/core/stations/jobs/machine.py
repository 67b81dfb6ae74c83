"""What a machine is: guessed by its names and its survey, answered before a job, kept with it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from tuyere.core.drive.facts import machine_says
from tuyere.core.drive.survey import Survey
from tuyere.core.stations.jobs.library import Guess, guesses, machine_facts
from tuyere.core.stations.jobs.read import library


@dataclass(frozen=True)
class MachineIs:
    """By question: the guess, what was kept of an answer, and what is taken to be so."""

    guesses: Mapping[str, Guess]
    kept: Mapping[str, bool]
    answers: Mapping[str, bool]

    @property
    def facts(self) -> frozenset[str]:
        """What is so."""
        return machine_facts(library(), self.answers)


def machine_is(names: Iterable[str], kept: Mapping[str, bool], survey: Survey, said: Mapping[str, bool] | None = None) -> MachineIs:
    """`names`: of the machine, its kind, its drive, its place.

    `kept`: answers on the record. `said`: answers given now, over those and over the guesses.
    """
    guessed = guesses(library(), names, machine_says(survey))
    kept = {k: v for k, v in kept.items() if k in guessed and not library().traits[k].today}
    answers = {k: g.is_so for k, g in guessed.items()} | kept | {k: v for k, v in (said or {}).items() if k in guessed}
    return MachineIs(guessed, kept, answers)
