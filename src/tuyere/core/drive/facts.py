"""What is so of a drive, by its survey: in the words that jobs, rounds and wear ask by."""

from tuyere.core.drive.survey import Stage, Survey

# What holds the tension of a stage; motor base where nobody said.
HELD = {
    "spring idler, slack side": "spring",
    "weight idler, slack side": "idler held",
    "lever idler, slack side": "idler held",
    "idler, tight side": "idler held",
    "idler, latched": "idler held",
    "pivoted base": "pivot",
}
_LAYS = {"crossed": "crossed", "quarter-turn": "quarter turn"}


def fitted_facts(survey: Survey) -> list[str]:
    """What is on, of every stage; what its layout has; what was said of its shafts and its machine."""
    found = [f for stage in survey.stages for f in _stage_facts(stage)]
    many = len(survey.layout.wheels) > 2
    found += ["many wheels" if many else "two wheels"] + ["keeper"] * bool(survey.layout.keepers) + ["idler"] * has_idler(survey)
    found += ["mixed"] * (len({s.family.key for s in survey.stages}) > 1)
    return [*found, *machine_says(survey)]


def _stage_facts(stage: Stage) -> list[str]:
    lay = [_LAYS[stage.lay]] if stage.lay in _LAYS else []
    return [stage.family.group, *lay, *stage.family.facts(stage.part)]


def has_idler(survey: Survey) -> bool:
    """Whether an idler is on: said for the service factor, holding the tension, or among the wheels."""
    return any(s.idler_on != "none" for s in survey.stages) or any(w.role == "idler" for w in survey.layout.wheels)


def held_facts(survey: Survey) -> list[str]:
    """What holds the tension, of every stage; nothing of a belt clamped to a carriage."""
    held = [s.held_by for s in survey.stages if "carriage" not in s.family.facts(s.part)]
    return [f for by in held for f in (HELD.get(by, "base"), *(["weight"] * by.startswith("weight")))]


def machine_says(survey: Survey) -> list[str]:
    """What the survey tells of the machine itself: what kind it is, plain bushings, rubber mounts."""
    kind = survey.machine.kind
    found = ["fan survey"] * ("fan" in kind or "blower" in kind) + ["pump survey"] * ("pump" in kind)
    for stage in survey.stages:
        found += ["plain bushings"] * ("bushing" in stage.kept.words.values())
        found += ["rubber mounts"] * any(k.endswith("mounts") and e.text for k, e in stage.kept.quantities.items())
    return found


def group_of(survey: Survey) -> str:
    """Which part of the knowledge of wear and failure holds for the first stage."""
    return survey.first.family.group_of(survey.first.part)
