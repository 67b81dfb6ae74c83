"""What a job knows of its drive: facts that its steps ask for, from its survey and from what is answered of its machine."""

from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlmodel import Session, col, select

from tuyere.core.basis import number
from tuyere.core.basis.number import Number
from tuyere.core.drive.survey import Survey
from tuyere.core.stations.jobs.library import RUNS, Guess, JobKind, machine_facts
from tuyere.core.stations.jobs.of_drive import of_drive
from tuyere.core.stations.jobs.read import library
from tuyere.store.tables import Configuration, Drive, Machine, Stage
from tuyere.web.machine_is import machine_is
from tuyere.web.shop import the_shop
from tuyere.web.surveyed import answer_on


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
    survey: Survey
    notes: Mapping[str, Mapping[str, str]] = field(default_factory=dict)


# A configuration never changes once it is kept, and drive and machine say by their versions when they did: the same key is the same answer.
MOST_KEPT = 512
_KEPT: OrderedDict[tuple[Any, ...], About] = OrderedDict()


def about(
    session: Session,
    drive: Drive,
    configuration: Configuration | None,
    asked: Mapping[str, str],
    said: Mapping[str, bool] | None = None,
    kind: JobKind | None = None,
) -> About:
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
    session: Session,
    drive: Drive,
    machine: Machine,
    configuration: Configuration | None,
    asked: Mapping[str, str],
    said: Mapping[str, bool] | None,
    kind: JobKind | None,
) -> About:
    on = answer_on(drive, configuration)
    taken = machine_is(machine, drive, on.survey, said)
    answers = dict(taken.answers)
    if kind and kind.stopped:
        answers[RUNS] = False
    told = of_drive(on, asked, machine_facts(library(), answers))
    facts = told.facts | ({"guessed"} if not taken.kept and not said else set())
    found = dict(told.numbers)
    if belts := ", ".join(_stages(session, configuration)):
        found["ask_for"] = number.said("Ask for", belts, page="counter")
    short = [library().traits[k].short for k in sorted(facts & set(library().traits))]
    found["machine_is"] = number.said("Taken to be", ", ".join(["electric"] * ("electric" in facts) + short))
    return About(facts, answers, taken.guesses, taken.kept, found, belts, on.survey, told.notes)


def _stages(session: Session, configuration: Configuration | None) -> list[str]:
    if configuration is None:
        return []
    stages = session.exec(select(Stage).where(Stage.configuration_id == configuration.id).order_by(col(Stage.position)))
    named = (" × ".join(str(p) for p in (s.belt_count, s.belt or s.section) if p) for s in stages)
    return [n for n in named if n]
