"""What a job knows of its drive: facts that its steps ask for, and the numbers that stand with them, each from its station."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from sqlmodel import Session, col, select

from tuyere.core.drives.flat import FlatBelt, flat_belts
from tuyere.core.drives.flat.joint import JOINTS, suits
from tuyere.core.drives.roller_chain import ChainError, chain
from tuyere.core.drives.roller_chain.dogs import new_pitch
from tuyere.core.drives.roller_chain.lubrication import Oiling, lubrication
from tuyere.core.entry.reader import FieldReader
from tuyere.core.entry.typed import Typed
from tuyere.core.jobs import numbers
from tuyere.core.jobs.library import called, library
from tuyere.core.jobs.numbers import Number
from tuyere.core.wear.limits import limit_of
from tuyere.core.working.figure import Figure, both, fine, shown
from tuyere.store.tables import Configuration, Drive, Machine, Stage
from tuyere.web.calc import SheetOut, sheet_answer
from tuyere.web.entry import Entry
from tuyere.web.forms import FlatForm, GaugeForm, SheavesForm, SheetForm, SurveyForm, ToothedForm
from tuyere.web.inspect import FAMILY
from tuyere.web.surveyed import survey_form

HELD = {"spring idler, slack side": "spring", "weight idler, slack side": "idler held", "lever idler, slack side": "idler held",
        "idler, tight side": "idler held", "pivoted base": "pivot"}  # fmt: skip


@dataclass(frozen=True)
class About:
    """A drive as its jobs see it. `notes`: what is to be said of an option before it is chosen, by question and option."""

    facts: frozenset[str]
    numbers: Mapping[str, Number]
    belts: str
    survey: SurveyForm
    notes: Mapping[str, Mapping[str, str]] = field(default_factory=dict)


def about(session: Session, drive: Drive, configuration: Configuration | None, asked: Mapping[str, str]) -> About:
    """The facts and numbers of a drive, with what was asked before the job."""
    machine = session.get_one(Machine, drive.machine_id)
    survey = survey_form(drive, configuration)
    sheet = sheet_answer(SheetForm(survey=survey))
    belts = ", ".join(_stages(session, configuration))
    facts = set(_fitted_facts(survey)) | called(library(), machine.kind, machine.name, drive.name) | set(_held_facts(survey))
    if sheet.tight and not sheet.tight.why_not:
        facts.add("tension known")
    flat = _flat(survey, asked)
    if flat and numbers.light_lap(asked, flat.thickness_m, flat.belt):
        facts.add("light lap")
    oiling = _oiling(survey, sheet)
    if oiling and oiling.way.startswith("oil bath"):
        facts.add("oil bath")
    found = _sheet_numbers(survey, sheet) | _asked_numbers(asked) | _toothed_numbers(survey, oiling)
    if belts:
        found["ask_for"] = numbers.said("Ask for", belts, page="counter")
    if flat:
        found |= _flat_numbers(asked, flat, survey, sheet)
    return About(frozenset(facts), found, belts, survey, {"joint": _joints(flat, sheet)} if flat else {})


def _stages(session: Session, configuration: Configuration | None) -> list[str]:
    if configuration is None:
        return []
    stages = session.exec(select(Stage).where(Stage.configuration_id == configuration.id).order_by(col(Stage.position)))
    named = (" × ".join(str(p) for p in (s.belt_count, s.belt or s.section) if p) for s in stages)
    return [n for n in named if n]


def _fitted_facts(survey: SurveyForm) -> Sequence[str]:
    """What is on the drive, and what its layout has."""
    fitted = survey.first.fitted
    found: list[str] = [FAMILY.get(survey.family, "v")]
    if isinstance(fitted, SheavesForm):
        choices = fitted.choices
        found += ["link"] * choices.section.startswith("link") + ["set"] * (choices.belt_count.strip() not in ("", "1"))
        found += ["adjustable"] * (choices.adjustable not in ("", "none"))
    if isinstance(fitted, ToothedForm):
        found += ["dogs"] * fitted.dogs.fitted + ["carriage"] * fitted.linear.fitted
    if isinstance(fitted, FlatForm) and fitted.belt.startswith("leather"):
        found.append("leather")
    layout = survey.layout
    found += ["many wheels"] * (len(layout.wheels) > 2) + ["keeper"] * bool(layout.keepers)
    found += ["idler"] * (survey.first.idler not in ("", "none") or any(w.role == "idler" for w in layout.wheels))
    if survey.machine.kind == "fan":
        found.append("fan")
    return found


def _held_facts(survey: SurveyForm) -> Sequence[str]:
    fitted = survey.first.fitted
    if isinstance(fitted, ToothedForm) and fitted.linear.fitted:
        return ()
    held = HELD.get(survey.first.held_by, "base")
    return (held, "weight") if survey.first.held_by.startswith("weight") else (held,)


def _of_figure(f: Figure, label: str, detail: str = "", page: str = "") -> Number:
    return Number(label, f.us, f.si, detail, page)


def _sheet_numbers(survey: SurveyForm, sheet: SheetOut) -> dict[str, Number]:
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
    turning = survey.driver.rotation
    found["rotation"] = numbers.said("It turns", turning or "not said", "as the survey looks at the driver", "survey")
    for state, key in (("run in", "push_run_in"), ("new", "push_new")):
        if number := _push(survey, sheet, state):
            found[key] = number
    if sheet.tight and sheet.tight.figures.get("tension_target"):
        found["move"] = _of_figure(sheet.tight.figures["tension_target"], "Until each strand pulls", page="tension")
    if survey.layout.keepers:
        found["keeper_gap"] = numbers.said(
            "Keepers",
            str(len(survey.layout.keepers)),
            "each by the machine's manual; a finger's breadth from the tight belt where it is silent",
            "survey",
            "common practice, no source",
        )
    if sheet.align:
        allowed = {e.key: e.allowed_both for e in sheet.align.errors}
        if {"angle", "offset"} <= set(allowed):
            us, si = (f"{getattr(allowed['angle'], k)} and {getattr(allowed['offset'], k)}" for k in ("us", "si"))
            found["align_tolerance"] = Number("Allowed: angle, offset", us, si, page="align")
    return found


def _push(survey: SurveyForm, sheet: SheetOut, state: str) -> Number | None:
    """What the usual tool should show, as the Tension station says it for belts in that state."""
    tight = sheet.tight
    if state == "new" and tight:
        tight = sheet_answer(SheetForm(survey=survey, gauge=GaugeForm(belt_state="new"))).tight
    if tight is None or "aim_low" not in tight.figures:
        return None
    low, high = tight.figures["aim_low"], tight.figures["aim_high"]
    label = low.label.removesuffix(", from").capitalize()
    deflection = tight.figures.get("deflection")
    detail = f"at {deflection.us} ({deflection.si}) of deflection" if deflection and tight.method in ("gauge", "scale") else ""
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


def _asked_numbers(asked: Mapping[str, str]) -> dict[str, Number]:
    found = {
        "oil_drops": numbers.said("In each port", numbers.OIL_DROPS, "light oil, non-detergent", source="common practice, no source"),
        "come_back": numbers.said("Again", "after 24 h of running", "the due comes with the sign-off"),
        "turns_step": numbers.said("Step", "half a turn", "two flats, 180 degrees apart"),
        "manual_torque": numbers.said("Torque", "by the manual", "of the machine: none is guessed here"),
    }
    if number := numbers.bushing(asked.get("bushing", "")):
        found["bushing_torque"] = number
    if asked.get("thread"):
        found["thread"] = numbers.said(
            "Thread", asked["thread"], "loosens " + ("clockwise" if asked["thread"].startswith("left") else "anti-clockwise")
        )
    return found


def _toothed_numbers(survey: SurveyForm, oiling: Oiling | None) -> dict[str, Number]:
    fitted = survey.first.fitted
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
        turns = fitted.quantities.open_turns.text
        if turns:
            found["turns_open"] = numbers.said("Turns open", turns, "from closed, as the survey has it", "survey")
    if not isinstance(fitted, ToothedForm):
        return found
    if oiling:
        found["oiling"] = numbers.said("Oil", oiling.way, oiling.detail)
    if survey.family == "roller chain":
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


def _oiling(survey: SurveyForm, sheet: SheetOut) -> Oiling | None:
    fitted = survey.first.fitted
    speed = sheet.figures.get("belt_speed")
    if survey.family != "roller chain" or not isinstance(fitted, ToothedForm) or speed is None:
        return None
    try:
        return lubrication(chain(fitted.drive.name), speed.value_si)
    except ChainError:
        return None


@dataclass(frozen=True)
class _Flat:
    belt: FlatBelt | None
    thickness_m: float | None
    tape_m: float | None
    width_m: float | None
    smallest_m: float | None


def _flat(survey: SurveyForm, asked: Mapping[str, str]) -> _Flat | None:
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
    return _Flat(flat_belts().get(fitted.belt), thickness, tape, reader.value("flat_width", "belt_width"), min(sides) if sides else None)


def _joints(flat: _Flat, sheet: SheetOut) -> dict[str, str]:
    """Which joints do not suit this wheel and speed, and why."""
    thickness, speed = flat.thickness_m or (flat.belt.thickness_m if flat.belt else None), sheet.figures.get("belt_speed")
    if thickness is None or flat.smallest_m is None:
        return {}
    at = speed.value_si if speed else 0.0
    return {j: said for j in JOINTS if (said := suits(j, thickness, flat.smallest_m, at))}


def _flat_numbers(asked: Mapping[str, str], flat: _Flat, survey: SurveyForm, sheet: SheetOut) -> dict[str, Number]:
    speed = sheet.figures.get("belt_speed")
    take_up = survey.first.held_by not in ("", "fixed centres")
    return numbers.joint_numbers(
        asked, flat.tape_m, flat.thickness_m, flat.belt, flat.width_m, flat.smallest_m, speed.value_si if speed else None, take_up
    )
