"""Every job that every drive of the demo plant can have, as text to read aloud: python -m bench.jobs_aloud [FOLDER]

Composed by the guesses about each machine and the first answer to each question, from the demo plant's own file; needs no database.
Prints how many jobs and steps there are, or writes one file a job into FOLDER.
"""

import sys
import tomllib
import uuid
from collections.abc import Mapping
from functools import cache
from importlib import resources
from pathlib import Path

from tuyere.core.drive.facts import fitted_facts, held_facts
from tuyere.core.stations.jobs.compose import as_text, compose, fitting
from tuyere.core.stations.jobs.library import Step, holds, machine_facts
from tuyere.core.stations.jobs.read import library
from tuyere.demo.typed import typed_survey
from tuyere.store.tables import Drive, Machine
from tuyere.web.machine_is import machine_is


@cache
def drives() -> dict[str, tuple[frozenset[str], Mapping[str, bool]]]:
    """The demo plant's drives by machine: the facts of its survey, and what is guessed of the machine."""
    plant = tomllib.loads((resources.files("tuyere.demo") / "plant.toml").read_text(encoding="utf-8"))
    found: dict[str, tuple[frozenset[str], Mapping[str, bool]]] = {}
    for told in plant["machines"]:
        survey = typed_survey(told).typed()
        machine = Machine(id=uuid.uuid4(), site_id=uuid.uuid4(), name=told["name"], kind=told["kind"], place=told["place"])
        drive = Drive(id=uuid.uuid4(), machine_id=machine.id, name=told.get("drive", ""), family=survey.first.family.key)
        facts = frozenset({*fitted_facts(survey), *held_facts(survey), "tension known"})
        found[told["name"]] = facts, machine_is(machine, drive, survey).answers
    return found


def jobs() -> dict[tuple[str, str], tuple[Step, ...]]:
    """Every job by machine and kind, each question by its first option."""
    found: dict[tuple[str, str], tuple[Step, ...]] = {}
    for machine, (of_drive, answers) in drives().items():
        facts = of_drive | machine_facts(library(), answers)
        for kind in fitting(library(), facts):
            asked: set[str] = set()
            for ask in kind.asks:
                if ask.options and holds(ask.when, facts | asked):
                    asked.add(f"{ask.key}={ask.options[0]}")
            found[machine, kind.key] = compose(library(), kind, facts | asked)
    return found


def main() -> None:
    """Print the count, or write the texts."""
    every = jobs()
    if len(sys.argv) > 1:
        folder = Path(sys.argv[1])
        folder.mkdir(parents=True, exist_ok=True)
        for (machine, kind), steps in every.items():
            title = f"{library().kinds[kind].title}: {machine}"
            (folder / f"{kind}-{machine.lower().replace(' ', '-')}.txt").write_text(as_text(title, steps), encoding="utf-8")
    print(f"{len(every)} jobs on {len({m for m, _ in every})} machines, {sum(map(len, every.values()))} steps")


if __name__ == "__main__":
    main()
