"""What a drive has that a round looks at, and how hard its service is."""

from tuyere.core.drive.facts import fitted_facts, has_idler
from tuyere.core.drive.survey import Survey
from tuyere.core.stations.inspect.rounds.checklist import Need

LONG_DAY_H = 16.0  # hours a day from which service counts as severe: as in the service factors' classes


def has_of(survey: Survey) -> set[Need]:
    """What there is to look at, by its survey."""
    kept, on = [s.kept for s in survey.stages], set(fitted_facts(survey))
    found: set[Need] = set()
    if has_idler(survey):
        found.add("idler")
    if survey.layout.keepers:
        found.add("keeper")
    if any(k.words.get(f"wheel_{i}_bearing") == "bushing" for k in kept for i in (1, 2)):
        found.add("bushing")
    if any(f"wheel_{i}_mounts" in k.quantities for k in kept for i in (1, 2)):
        found.add("mounts")
    if "adjustable" in on:
        found.add("adjustable")
    if "set" in on:
        found.add("set")
    if survey.machine.kind == "fan":
        found.add("fan")
    if survey.machine.surroundings != "clean":
        found.add("dust")
    return found


def severe(survey: Survey, hours_per_day: float | None) -> str:
    """Why service is severe; empty where it is not."""
    if survey.machine.surroundings != "clean":
        return survey.machine.surroundings
    if survey.machine.starts != "seldom":
        return f"{survey.machine.starts} starts"
    return f"{LONG_DAY_H:g} hours a day and more" if hours_per_day and hours_per_day >= LONG_DAY_H else ""
