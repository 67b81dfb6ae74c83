"""What is on a drive by its survey, and what its machine is: guessed, answered before a job, kept with it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from tuyere.core.diagnosis.knowledge import Family
from tuyere.core.jobs.library import Guess, guesses, machine_facts
from tuyere.core.jobs.read import library
from tuyere.core.rating.service import idler_on
from tuyere.store.tables import Drive, Machine
from tuyere.web.forms import FlatForm, SheavesForm, StageForm, SurveyForm, ToothedForm

FAMILY: dict[str, Family] = {"v-belt": "v", "synchronous": "synchronous", "roller chain": "chain", "flat belt": "flat"}
HELD = {"spring idler, slack side": "spring", "weight idler, slack side": "idler held", "lever idler, slack side": "idler held",
        "idler, tight side": "idler held", "idler, latched": "idler held", "pivoted base": "pivot"}  # fmt: skip


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


def fitted_facts(survey: SurveyForm) -> Sequence[str]:
    """What is on the drive, of every stage, and what its layout has."""
    found = [f for stage in survey.stages for f in _stage_facts(stage)]
    layout = survey.layout
    many = len(layout.wheels) > 2
    found += ["many wheels" if many else "two wheels"] + ["keeper"] * bool(layout.keepers)
    found += ["idler"] * has_idler(survey)
    if len({s.fitted.family for s in survey.stages}) > 1:
        found.append("mixed")
    return [*found, *survey_says(survey)]


def has_idler(survey: SurveyForm) -> bool:
    """Whether an idler is on: said for the service factor, holding the tension, or among the wheels."""
    return any(idler_on(s.idler, s.held_by) != "none" for s in survey.stages) or any(w.role == "idler" for w in survey.layout.wheels)


def _stage_facts(stage: StageForm) -> list[str]:
    fitted = stage.fitted
    found: list[str] = [
        FAMILY.get(fitted.family, "v"),
        *(["crossed"] * (stage.lay == "crossed")),
        *(["quarter turn"] * (stage.lay == "quarter-turn")),
    ]
    if isinstance(fitted, SheavesForm):
        choices = fitted.choices
        on = choices.section.startswith("link")
        found += (
            ["link"] * (on or fitted.link.read().belt is not None)
            + ["link on"] * on
            + ["set"] * (choices.belt_count.strip() not in ("", "1"))
        )
        found += ["adjustable"] * (choices.adjustable not in ("", "none"))
    if isinstance(fitted, ToothedForm):
        found += ["dogs"] * fitted.dogs.fitted + ["carriage"] * fitted.linear.fitted
    if isinstance(fitted, FlatForm) and fitted.belt.startswith("leather"):
        found.append("leather")
    return found


def held_facts(survey: SurveyForm) -> Sequence[str]:
    """What holds the tension, of every stage."""
    found: list[str] = []
    for stage in survey.stages:
        if isinstance(stage.fitted, ToothedForm) and stage.fitted.linear.fitted:
            continue
        found.append(HELD.get(stage.held_by, "base"))
        if stage.held_by.startswith("weight"):
            found.append("weight")
    return found
