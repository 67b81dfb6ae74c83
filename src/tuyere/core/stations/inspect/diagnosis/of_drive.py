"""What a drive's survey enters into a diagnosis by itself."""

from typing import get_args

from tuyere.core.drive.answer import Answer
from tuyere.core.drive.facts import group_of
from tuyere.core.mechanics.on_wheels.routing import tight_on_back
from tuyere.core.stations.inspect.diagnosis.knowledge import Family, Knowledge, knowledge
from tuyere.core.stations.inspect.wear.of_drive import worn_part

Known = dict[str, tuple[bool | float, str]]  # by fact: its value in the fact's unit, and where that is from
SMALL_W = 746.0  # under it a drive in plain bushings is meant to run loose: trade fact, common practice


def family_of(on: Answer) -> Family:
    """Which knowledge holds: a chain with dogs drives a conveyor, joined ribs are ribbed; of a kind that has none of its own, V-belts'."""
    group = group_of(on.survey)
    return next((f for f in get_args(Family) if f == group), "v")


def knowledge_of(on: Answer) -> Knowledge:
    """The knowledge with the limits that Wear judges this drive by."""
    part = worn_part(on)
    return knowledge(part.narrow, on.survey.first.held_by == "fixed centres", part.large_teeth, family_of(on))


def known_of_survey(on: Answer) -> Known:
    """Load, smallest wheel, a wheel that bends the belt backward too tightly, and whether it is a small plain-bushed drive, which is meant to
    run loose.
    """
    found: Known = {}
    figures, loop, words = on.figures, on.loop(), on.survey.first.kept.words
    design, carries, power = (figures.get(k) for k in ("design_power", "capacity", "driver_power"))
    if design and carries and carries.value_si:
        found["load_share"] = (100 * design.value_si / carries.value_si, "by the sheet")
    if on.path and (tight := [w for belt in on.path.on_wheels for w in tight_on_back(belt)]):
        found["back_idler"] = (True, f"{tight[0].name}, by the survey")
    least = loop.least_m if loop else 0.0
    across = [figures[k].value_si for k in ("driver_datum", "driven_datum") if k in figures]
    if least and across:
        found["wheel_share"] = (round(100 * min(across) / least, 1), "by the survey")
    if power and power.value_si < SMALL_W and "bushing" in (words.get("wheel_1_bearing"), words.get("wheel_2_bearing")):
        found["meant_loose"] = (True, "under 1 hp in plain bushings")
    return found
