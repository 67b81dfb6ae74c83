"""What a job knows of its drive: facts that its steps ask for, from its survey and from what is answered of its machine."""

from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlmodel import Session, col, select

from tuyere.core.jobs import numbers
from tuyere.core.jobs.library import RUNS, Guess, Kind, machine_facts
from tuyere.core.jobs.numbers import Number
from tuyere.core.jobs.read import library
from tuyere.store.tables import Configuration, Drive, Machine, Stage
from tuyere.web.calc import sheet_answer
from tuyere.web.forms import SheetForm, SurveyForm
from tuyere.web.job_numbers import flat_of, joints_of, numbers_of, oiling_of
from tuyere.web.machine_is import fitted_facts, held_facts, machine_is
from tuyere.web.shop import the_shop
from tuyere.web.surveyed import survey_form


@dataclass(frozen=True)
class About:
    """A drive as its jobs see it. `machine`: what is taken to be so of its machine, by question; `guesses`: before anybody said;
    `kept`: as it was answered before another job. `notes`: what is to be said of an option before it is chosen, by question and option.
    """

    facts: frozenset[str]
    machine: Mapping[str, bool]
    guesses: Mapping[str, Guess]
    kept: Mapping[str, bool]
    numbers: Mapping[str, Number]
    belts: str
    survey: SurveyForm
    notes: Mapping[str, Mapping[str, str]] = field(default_factory=dict)


# A configuration never changes once it is kept, and drive and machine say by their versions when they did: the same key is the same answer.
MOST_KEPT = 512
_KEPT: OrderedDict[tuple[Any, ...], About] = OrderedDict()


def about(
    session: Session, drive: Drive, configuration: Configuration | None, asked: Mapping[str, str], said: Mapping[str, bool] | None = None,
    kind: Kind | None = None,
) -> About:  # fmt: skip
    """The facts and numbers of a drive, with what was asked before the job. `said`: answers about its machine, over what was kept."""
    machine = session.get_one(Machine, drive.machine_id)
    of = (drive.id, drive.row_version, machine.row_version, configuration.id if configuration else None, kind.key if kind else "")
    key = (*of, tuple(sorted(asked.items())), None if said is None else tuple(sorted(said.items())), the_shop())
    found = _KEPT.pop(key, None)
    if found is None:
        found = _worked_out(session, drive, machine, configuration, asked, said, kind)
    _KEPT[key] = found
    if len(_KEPT) > MOST_KEPT:
        _KEPT.popitem(last=False)
    return found


def _worked_out(
    session: Session, drive: Drive, machine: Machine, configuration: Configuration | None, asked: Mapping[str, str],
    said: Mapping[str, bool] | None, kind: Kind | None,
) -> About:  # fmt: skip
    survey = survey_form(drive, configuration)
    sheet = sheet_answer(SheetForm(survey=survey))
    fitted = set(fitted_facts(survey))
    taken = machine_is(machine, drive, survey, said)
    answers = dict(taken.answers)
    if kind and kind.stopped:
        answers[RUNS] = False
    facts = fitted | machine_facts(library(), answers) | set(held_facts(survey)) | ({"guessed"} if not taken.kept and not said else set())
    if sheet.tight and not sheet.tight.why_not:
        facts.add("tension known")
    if "rollers" in facts and "link" in facts:
        facts.add("no reach")
    flat = flat_of(survey, asked)
    if flat and numbers.light_lap(asked, flat.thickness_m, flat.belt):
        facts.add("light lap")
    oiling = oiling_of(survey, sheet)
    if oiling and oiling.way.startswith("oil bath"):
        facts.add("oil bath")
    belts = ", ".join(_stages(session, configuration))
    found = dict(numbers_of(survey, sheet, asked, facts, oiling, flat))
    if belts:
        found["ask_for"] = numbers.said("Ask for", belts, page="counter")
    short = [library().traits[k].short for k in sorted(facts & set(library().traits))]
    found["machine_is"] = numbers.said("Taken to be", ", ".join(["electric"] * ("electric" in facts) + short))
    notes = {"joint": joints_of(flat, sheet)} if flat else {}
    return About(frozenset(facts), answers, taken.guesses, taken.kept, found, belts, survey, notes)


def _stages(session: Session, configuration: Configuration | None) -> list[str]:
    if configuration is None:
        return []
    stages = session.exec(select(Stage).where(Stage.configuration_id == configuration.id).order_by(col(Stage.position)))
    named = (" × ".join(str(p) for p in (s.belt_count, s.belt or s.section) if p) for s in stages)
    return [n for n in named if n]
