"""What a machine is: guessed from its name, place and survey, answered before a job, kept with it."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.jobs.library import Guess, guesses, machine_facts
from tuyere.core.jobs.read import library
from tuyere.store.tables import Drive, Machine
from tuyere.web.forms import StageForm, SurveyForm


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


def machine_is(machine: Machine, drive: Drive, survey: SurveyForm, said: Mapping[str, bool] | None = None) -> MachineIs:
    """`said`: answers given now, over those that were kept and over the guesses."""
    guessed = guesses(library(), [machine.kind, machine.name, drive.name, machine.place or ""], survey_says(survey))
    kept = {k: v for k, v in machine.traits.items() if k in guessed and not library().traits[k].today}
    answers = {k: g.is_so for k, g in guessed.items()} | kept | {k: v for k, v in (said or {}).items() if k in guessed}
    return MachineIs(guessed, kept, answers)


def survey_says(survey: SurveyForm) -> list[str]:
    """What the survey tells of the machine: facts that tick a question."""
    kind = survey.machine.kind
    found = ["fan survey"] * ("fan" in kind or "blower" in kind) + ["pump survey"] * ("pump" in kind)
    return found + [f for stage in survey.stages for f in bearings_and_mounts(stage)]


def bearings_and_mounts(stage: StageForm) -> list[str]:
    """What was said of a stage's shafts: plain bushings, rubber mounts."""
    mounts = any(k.endswith("mounts") and e.text for k, e in stage.kept.quantities.items())
    return ["plain bushings"] * ("bushing" in stage.kept.words.values()) + ["rubber mounts"] * mounts
