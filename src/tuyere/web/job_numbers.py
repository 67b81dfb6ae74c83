"""The numbers that stand with a job's steps: each the answer of its own station, for every stage of the drive."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace

from tuyere.core.drives import v_belt
from tuyere.core.drives.flat import FlatBelt, flat_belts
from tuyere.core.drives.flat.joint import JOINTS, suits
from tuyere.core.drives.roller_chain import ChainError, chain
from tuyere.core.drives.roller_chain.dogs import new_pitch
from tuyere.core.drives.roller_chain.lubrication import Oiling, lubrication
from tuyere.core.drives.v_belt.allowance import allowance
from tuyere.core.entry.reader import FieldReader
from tuyere.core.entry.typed import Typed
from tuyere.core.jobs import numbers
from tuyere.core.jobs.numbers import Number
from tuyere.core.layout.held import STANDS
from tuyere.core.wear.limits import limit_of
from tuyere.core.working.figure import Figure, both, fine, shown
from tuyere.web.calc import SheetOut, sheet_answer
from tuyere.web.entry import Entry
from tuyere.web.forms import AlignForm, FlatForm, GaugeForm, SheavesForm, SheetForm, SurveyForm, ToothedForm, read_sheet
from tuyere.web.machine_is import FAMILY
from tuyere.web.stages import train_of


def numbers_of(
    survey: SurveyForm, sheet: SheetOut, asked: Mapping[str, str], facts: Collection[str], oiling: Oiling | None, flat: "FlatNow | None"
) -> Mapping[str, Number]:
    """Everything that can be told of this drive now, by the name that steps ask for."""
    found = _sheet_numbers(survey, sheet, asked) | _tension_numbers(survey, sheet) | numbers.asked_numbers(asked, facts)
    found |= _stage_numbers(survey, oiling)
    if survey.layout.keepers:
        found["keeper_gap"] = replace(
            numbers.keeper_number(facts), detail=f"{len(survey.layout.keepers)} on the belt; the machine's manual goes before"
        )
    else:
        found["keeper_gap"] = numbers.keeper_number(facts)
    return found | (_flat_numbers(asked, flat, survey, sheet) if flat else {})


def _of_figure(f: Figure, label: str, detail: str = "", page: str = "") -> Number:
    return Number(label, f.us, f.si, detail, page)


def _sheet_numbers(survey: SurveyForm, sheet: SheetOut, asked: Mapping[str, str]) -> dict[str, Number]:
    """Figures as their stations show them."""
    found: dict[str, Number] = {}
    figures = sheet.figures
    for key, figure, label, page in (
        ("driven_speed", "driven_speed", "Driven speed", "speed"), ("slack_off", "installation", "Centres in by", "survey"),
        ("shaft_pull", "shaft_pull", "Pull on each shaft, running", "size"),
    ):  # fmt: skip
        if figure in figures:
            found[key] = _of_figure(figures[figure], label, page=page)
    if "slack_off" in found and "takeup" in figures:
        found["slack_off"] = replace(
            found["slack_off"], detail=f"and room for {figures['takeup'].us} ({figures['takeup'].si}) of take-up outward"
        )
    if others := _others_slacked(survey):
        told = "; ".join(f"stage {n}: {us} ({si})" for n, us, si in others)
        first = found.get("slack_off") or Number("Centres in by", *others[0][1:], page="survey")
        found["slack_off"] = replace(first, detail="; ".join(filter(None, (first.detail, told))))
    if number := numbers.grease_again(asked, figures["driven_speed"].value_si if "driven_speed" in figures else None):
        found["grease_again"] = number
    turning = survey.driver.rotation
    found["rotation"] = numbers.said("It turns", turning or "not known", "as the survey looks at the driver", "survey")
    if sheet.tight and sheet.tight.figures.get("tension_target"):
        found["move"] = _of_figure(sheet.tight.figures["tension_target"], "Until each strand pulls", page="tension")
    if sheet.align:
        allowed = {e.key: e.allowed_both for e in sheet.align.errors}
        if {"angle", "offset"} <= set(allowed):
            us, si = (f"{getattr(allowed['angle'], k)} and {getattr(allowed['offset'], k)}" for k in ("us", "si"))
            found["align_tolerance"] = Number("Allowed: angle, offset", us, si, _others_aligned(survey), "align")
    return found


def _others_slacked(survey: SurveyForm) -> list[tuple[int, str, str]]:
    """How far the centres of the other V-belt stages of a train come in, by each belt's own row; stage, and both systems."""
    many = len(survey.layout.wheels) > 2
    found = []
    for place, stage in enumerate(survey.stages, start=1):
        name = stage.fitted.choices.belt if isinstance(stage.fitted, SheavesForm) else ""
        if (place == 1 and not many) or not name.strip():
            continue
        try:
            room = allowance(v_belt.parse_designation(name))
        except v_belt.BeltError:
            continue
        if room:
            found.append((place, *shown(room.installation_m, "length", to_set=True)))
    return found


def _others_aligned(survey: SurveyForm) -> str:
    """What the other stages of a train allow."""
    found = []
    for place in range(2, len(survey.stages) + 1):
        align = sheet_answer(SheetForm(survey=survey, align=AlignForm(stage=place))).align
        allowed = {e.key: e.allowed_both for e in align.errors} if align else {}
        if {"angle", "offset"} <= set(allowed):
            found.append(f"stage {place}: {allowed['angle'].us} and {allowed['offset'].us} ({allowed['angle'].si}, {allowed['offset'].si})")
    return "; ".join(found)


def _tension_numbers(survey: SurveyForm, sheet: SheetOut) -> dict[str, Number]:
    """What the tool of each stage should show: the first belt stage's and the first chain stage's figure, the others named beside it."""
    found: dict[str, Number] = {}
    many = len(survey.stages) > 1
    for state, ending in (("run in", "run_in"), ("new", "new")):
        for key, wanted in (("push", ("v", "ribbed", "synchronous", "flat")), ("sag", ("chain",))):
            told = [
                (i, number)
                for i, stage in enumerate(survey.stages, start=1)
                if FAMILY.get(stage.fitted.family, "v") in wanted and (number := _push(survey, sheet, state, i))
            ]
            if not told:
                continue
            others = "; ".join(f"stage {i}: {n.us} ({n.si}) {n.detail}" for i, n in told[1:])
            first, number = told[0]
            detail = f"stage {first}, {number.detail}; {others}" if others else f"stage {first}, {number.detail}" if many else number.detail
            found[f"{key}_{ending}"] = replace(number, detail=detail)
    return found


def _push(survey: SurveyForm, sheet: SheetOut, state: str, stage: int) -> Number | None:
    """What the usual tool should show on a stage, as the Tension station says it for belts in that state."""
    tight = sheet.tight
    if tight and (state == "new" or stage > 1):
        tight = sheet_answer(SheetForm(survey=survey, gauge=GaugeForm(belt_state=state, stage=stage))).tight
    if tight is None or "aim_low" not in tight.figures:
        return None
    low, high = tight.figures["aim_low"], tight.figures["aim_high"]
    label = low.label.removesuffix(", from").capitalize()
    deflection = tight.figures.get("deflection")
    pushed = tight.method in ("gauge", "scale")
    detail = f"push {tight.pushes}, by {deflection.us} ({deflection.si})" if deflection and pushed else ""
    if "span" in tight.figures:
        detail = ", ".join(filter(None, (detail, f"span {tight.figures['span'].us} ({tight.figures['span'].si})")))
    return Number(label, range_of(low.us, high.us), range_of(low.si, high.si), f"{detail}; {state} {tight.runs}", "tension")


def range_of(low: str, high: str) -> str:
    """Two figures of one unit as a range: the unit once.

    >>> range_of("7.9 lbf", "12.0 lbf"), range_of("5.5 mm", "8 mm")
    ('7.9 to 12.0 lbf', '5.5 to 8 mm')
    """
    unit = low.rsplit(" ", 1)[-1]
    return f"{low.removesuffix(' ' + unit)} to {high}" if high.endswith(" " + unit) else f"{low} to {high}"


def _stage_numbers(survey: SurveyForm, oiling: Oiling | None) -> dict[str, Number]:
    """What is told of each stage's own kind; of two stages alike the first one's."""
    found: dict[str, Number] = {}
    for stage in reversed(survey.stages):
        found |= _fitted_numbers(stage.fitted, oiling)
    return found


def _fitted_numbers(fitted: object, oiling: Oiling | None) -> dict[str, Number]:
    found: dict[str, Number] = {}
    if isinstance(fitted, SheavesForm):
        link = fitted.link.read().belt
        if link:
            found["links_hand"] = numbers.said("Links, hand-tight", str(link.hand_tight), f"{fine(link.pitch_m)} a link", "survey")
            found["links_out"] = numbers.said(
                "Links out",
                str(link.take_out) if link.take_out else "as many as still let it join",
                f"{both(link.length_m)} is left",
                "survey",
            )
        found["turns_range"] = numbers.turns_range(fitted.choices.section)
        turns = fitted.quantities.open_turns.text
        if turns:
            found["turns_open"] = numbers.said("Turns open", turns, "from closed, as the survey has it", "survey")
    if not isinstance(fitted, ToothedForm):
        return found
    if oiling:
        found["oiling"] = numbers.said("Oil", oiling.way, oiling.detail)
    if fitted.family == "roller chain":
        try:
            of = chain(fitted.drive.name)
        except ChainError:
            return found
        if fitted.drive.count:
            teeth = [int(t) for t in (fitted.drive.teeth_1, fitted.drive.teeth_2) if t.isdigit()]
            limit = numbers.elongation_limit(of.pitch_m, 12, limit_of("chain", large_teeth=max(teeth, default=None)).limit)
            found["chain_limit"] = limit
            found["chain_pitches"] = numbers.said(
                "Pitches", fitted.drive.count, f"{of.name}; {limit.label}: {limit.us} ({limit.si})", "survey"
            )
    if fitted.dogs.fitted:
        dogs = fitted.dogs.read().dogs
        new, _ = new_pitch(fitted.dogs.conveyor, dogs.roller_pitch_m if dogs else 0.0)
        if new:
            found["dog_pitch"] = Number(
                "Dog pitch, new",
                *shown(new, "length", decimals=(3, 1)),
                f"as measured {fine(dogs.dog_pitch_m)}" if dogs else "",
                "inspect/wear?what=dogs",
            )
    if fitted.linear.fitted:
        read = fitted.linear.read(fitted.quantities.get("belt_thickness", Entry()))
        if fitted.linear.linear_span.text:
            found["carriage_span"] = numbers.said("Free span", _typed(fitted.linear.linear_span), page="survey")
        if read.low_hz and read.high_hz:
            found["carriage_target"] = numbers.said(
                "Hum", f"{read.low_hz:.0f} to {read.high_hz:.0f} Hz", f"{_typed(fitted.linear.linear_target)} wanted", "tension"
            )
    return found


def _typed(entry: object) -> str:
    text, unit = getattr(entry, "text", ""), getattr(entry, "unit", "")
    return f"{text} {unit}".strip() if text and text[-1].isdigit() else text


def _speed_of(survey: SurveyForm, sheet: SheetOut, place: int) -> float | None:
    """How fast a stage's belt or chain runs (m/s)."""
    if "belt_speed" in sheet.figures and not place:
        return sheet.figures["belt_speed"].value_si
    form = SheetForm(survey=survey)
    train = train_of(form, read_sheet(form).spec)
    return train.stages[place].belt_speed if train and place < len(train.stages) else None


def oiling_of(survey: SurveyForm, sheet: SheetOut) -> Oiling | None:
    """How the drive's chain is oiled, on whichever stage it runs."""
    place = next((i for i, s in enumerate(survey.stages) if s.fitted.family == "roller chain"), None)
    if place is None:
        return None
    fitted, speed = survey.stages[place].fitted, _speed_of(survey, sheet, place)
    if not isinstance(fitted, ToothedForm) or speed is None:
        return None
    try:
        return lubrication(chain(fitted.drive.name), speed)
    except ChainError:
        return None


@dataclass(frozen=True)
class FlatNow:
    """A flat belt as it is surveyed and asked for: thickness, tape, width, the smallest pulley (m)."""

    belt: FlatBelt | None
    thickness_m: float | None
    tape_m: float | None
    width_m: float | None
    smallest_m: float | None


def flat_of(survey: SurveyForm, asked: Mapping[str, str]) -> FlatNow | None:
    fitted = survey.first.fitted
    if not isinstance(fitted, FlatForm):
        return None
    reader = FieldReader(
        {**{k: e.typed() for k, e in fitted.quantities.items()}, **{k: Typed(asked[k], "") for k in ("tape", "thickness") if asked.get(k)}},
        {},
    )
    drive = fitted.read().drive
    sides = [d for k in ("driver_diameter", "driven_diameter") if (d := reader.value(k, k))]
    thickness = reader.value("thickness", "flat_thickness") or reader.value("flat_thickness", "flat_thickness")
    tape = reader.value("tape", "outside_length") or (drive.inside_m if drive else None)
    return FlatNow(flat_belts().get(fitted.belt), thickness, tape, reader.value("flat_width", "belt_width"), min(sides) if sides else None)


def joints_of(flat: FlatNow, sheet: SheetOut) -> dict[str, str]:
    """Which joints do not suit this wheel and speed, and why."""
    thickness, speed = flat.thickness_m or (flat.belt.thickness_m if flat.belt else None), sheet.figures.get("belt_speed")
    if thickness is None or flat.smallest_m is None:
        return {}
    at = speed.value_si if speed else 0.0
    return {j: said for j in JOINTS if (said := suits(j, thickness, flat.smallest_m, at))}


def _flat_numbers(asked: Mapping[str, str], flat: FlatNow, survey: SurveyForm, sheet: SheetOut) -> dict[str, Number]:
    speed = sheet.figures.get("belt_speed")
    take_up = survey.first.held_by not in STANDS
    return numbers.joint_numbers(
        asked, flat.tape_m, flat.thickness_m, flat.belt, flat.width_m, flat.smallest_m, speed.value_si if speed else None, take_up
    )
