"""What a job knows of its drive.

Facts that its steps ask for, and the numbers beside them, each the answer of its own station for every stage.
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace

from tuyere.core.basis.figure import shown
from tuyere.core.basis.number import Number, of_figure, range_of, said
from tuyere.core.drive.answer import Answer
from tuyere.core.drive.facts import fitted_facts, held_facts
from tuyere.core.kinds.held import STANDS
from tuyere.core.kinds.told import Asked, Told
from tuyere.core.stations.align.station import alignment_of
from tuyere.core.stations.jobs import numbers
from tuyere.core.stations.tension.read import Tight
from tuyere.core.stations.tension.station import tension_of
from tuyere.core.stations.tension.typed import TypedTension

_PUSHED = ("v", "ribbed", "synchronous", "flat")  # kinds whose tool is pushed or plucked; of a chain its sag is told


@dataclass(frozen=True)
class JobDrive:
    """A drive as its jobs see it."""

    facts: frozenset[str]
    numbers: Mapping[str, Number]
    notes: Mapping[str, Mapping[str, str]]


def of_drive(on: Answer, asked: Mapping[str, str], machine: Collection[str]) -> JobDrive:
    """`asked`: answers given before the job. `machine`: facts of its machine."""
    told = _told(on, asked)
    facts = {*fitted_facts(on.survey), *held_facts(on.survey), *machine, *(f for t in told for f in t.facts)}
    tight = tension_of(on)
    facts |= {"tension known"} if tight and not tight.why_not else set()
    facts |= {"no reach"} if {"rollers", "link"} <= facts else set()
    notes = {question: options for t in reversed(told) for question, options in t.notes.items()}
    return JobDrive(frozenset(facts), _numbers(on, asked, facts, told, tight), notes)


def _told(on: Answer, asked: Mapping[str, str]) -> list[Told]:
    """What each stage's own kind tells."""
    return [
        stage.family.told(stage.part, Asked(asked, on.belt_speed(number), stage.held_by not in STANDS))
        for number, stage in enumerate(on.survey.stages, 1)
    ]


def _numbers(on: Answer, asked: Mapping[str, str], facts: set[str], told: list[Told], tight: Tight | None) -> dict[str, Number]:
    """Everything that can be told of this drive now, by the name that steps ask for; of two stages alike the first one's."""
    found = _of_sheet(on, asked, tight) | _slack(on, told) | _tension(on) | numbers.asked_numbers(asked, facts)
    for t in reversed(told):
        found |= {k: n for k, n in t.numbers.items() if k != "slack_off"}
    gap, keepers = numbers.keeper_number(facts), len(on.survey.layout.keepers)
    found["keeper_gap"] = replace(gap, detail=f"{keepers} on the belt; the machine's manual goes before") if keepers else gap
    return found


def _of_sheet(on: Answer, asked: Mapping[str, str], tight: Tight | None) -> dict[str, Number]:
    """Figures as their stations show them."""
    found: dict[str, Number] = {}
    figures = on.figures
    for key, label, page in (("driven_speed", "Driven speed", "speed"), ("shaft_pull", "Pull on each shaft, running", "size")):
        if key in figures:
            found[key] = of_figure(figures[key], label, page=page)
    driven = figures["driven_speed"].value_si if "driven_speed" in figures else None
    if number := numbers.grease_again(asked, driven):
        found["grease_again"] = number
    found["rotation"] = said("It turns", on.survey.driver.rotation or "not known", "as the survey looks at the driver", "survey")
    if tight and (aim := tight.figures.get("tension_target")):
        found["move"] = of_figure(aim, "Until each strand pulls", page="tension")
    if first := _allowed(on, 1):
        others = ((n, _allowed(on, n)) for n in range(2, len(on.survey.stages) + 1))
        more = "; ".join(f"stage {n}: {us} ({si})" for n, both in others if both for us, si in [both])
        found["align_tolerance"] = Number("Allowed: angle, offset", *first, more, "align")
    return found


def _allowed(on: Answer, number: int) -> tuple[str, str] | None:
    """What a stage allows of angle and offset, in both systems; None where it cannot be aligned yet."""
    found = alignment_of(on, number)
    if found is None:
        return None
    angle, offset = shown(found.allowed.angle_rad, "slope"), shown(found.allowed.offset_m, "length", decimals=(3, 2))
    return f"{angle[0]} and {offset[0]}", f"{angle[1]} and {offset[1]}"


def _slack(on: Answer, told: list[Told]) -> dict[str, Number]:
    """How far centres come in to lay a belt on: the first pair's by its sheet, every other V-belt stage's by its belt's own row."""
    figures, many = on.figures, len(on.survey.layout.wheels) > 2
    first = of_figure(figures["installation"], "Centres in by", page="survey") if "installation" in figures else None
    if first and "takeup" in figures:
        first = replace(first, detail=f"and room for {figures['takeup'].us} ({figures['takeup'].si}) of take-up outward")
    others = [(n, t.numbers["slack_off"]) for n, t in enumerate(told, 1) if "slack_off" in t.numbers and (n > 1 or many)]
    if others:
        more = "; ".join(f"stage {n}: {row.us} ({row.si})" for n, row in others)
        first = first or others[0][1]
        first = replace(first, detail="; ".join(filter(None, (first.detail, more))))
    return {"slack_off": first} if first else {}


def _tension(on: Answer) -> dict[str, Number]:
    """What the tool of each stage should show: the first belt stage's and the first chain stage's figure, the others named beside it."""
    found: dict[str, Number] = {}
    many = len(on.survey.stages) > 1
    for state, ending in (("run in", "run_in"), ("new", "new")):
        stages = [(n, s.family.group in _PUSHED, _push(on, state, n)) for n, s in enumerate(on.survey.stages, 1)]
        for key, pushed in (("push", True), ("sag", False)):
            told = [(n, number) for n, of, number in stages if of is pushed and number]
            if not told:
                continue
            others = "; ".join(f"stage {n}: {number.us} ({number.si}) {number.detail}" for n, number in told[1:])
            first, number = told[0]
            detail = f"stage {first}, {number.detail}; {others}" if others else f"stage {first}, {number.detail}" if many else number.detail
            found[f"{key}_{ending}"] = replace(number, detail=detail)
    return found


def _push(on: Answer, state: str, stage: int) -> Number | None:
    """What the usual tool should show on a stage, as the Tension station says it for belts in that state."""
    tight = tension_of(on, stage, TypedTension(fresh=state == "new"))
    if tight is None or "aim_low" not in tight.figures:
        return None
    figures = tight.figures
    low, high, deflection = figures["aim_low"], figures["aim_high"], figures.get("deflection")
    pushed = tight.method.key in ("gauge", "scale")
    detail = f"push {tight.pushes}, by {deflection.us} ({deflection.si})" if pushed and deflection else ""
    if "span" in figures:
        detail = ", ".join(filter(None, (detail, f"span {figures['span'].us} ({figures['span'].si})")))
    label = low.label.removesuffix(", from").capitalize()
    runs = tight.stage.loop.family.runs
    return Number(label, range_of(low.us, high.us), range_of(low.si, high.si), f"{detail}; {state} {runs}", "tension")
