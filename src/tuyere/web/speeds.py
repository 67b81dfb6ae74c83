"""POST /api/calc/speed/<question>: any unknown, what a reading means, stock for a target, adjustable sheaves, step cones."""

from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import shown
from tuyere.core.basis.page import Page
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.sheet.typed import FormReading
from tuyere.core.stations.speed.adjustable import adjust
from tuyere.core.stations.speed.cones_form import read_cones
from tuyere.core.stations.speed.explain import Explanation, eighths
from tuyere.core.stations.speed.reading import ByDiameter, read_speeds
from tuyere.core.stations.speed.target import smallest, targets
from tuyere.core.stations.speed.unknown import ShaftRow, WheelRow, read_unknown
from tuyere.record.entry import Entry, Strict, none_typed
from tuyere.record.forms import ConesForm, SheetForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.speed_answers import Answered, ConesOut, Entries, TargetOut, cones_out, target_out, typed_entries
from tuyere.web.surveyed import answer_of

blueprint = routes("speeds", "/api/calc/speed", "speed", "Getting the driven shaft to the speed it should have; without a record")
Words = dict[str, Annotated[str, Field(max_length=60)]]


def solved(form: SheetForm) -> tuple[FormReading, Page]:
    on = answer_of(form.survey, form.tachometer)
    return on.reading, on.page


class UnknownIn(Strict):
    """A train with one thing left out.

    Quantities first_speed, last_speed, driving_1, driven_1 ...; words ratio_1, slip, marks_driving, marks_driven.
    """

    quantities: Entries = Field(default_factory=dict, max_length=20)
    words: Words = Field(default_factory=dict, max_length=40)
    stages: int = Field(1, ge=1, le=4)
    teeth: bool = False


class UnknownOut(Answered):
    """Shafts and wheels with what was found."""

    shafts: list[ShaftRow]
    wheels: list[WheelRow]
    ratios: list[str]


@blueprint.post("/unknown", summary="Any unknown of a train of wheels", responses={"200": UnknownOut})
@computes()
def calc_unknown(body: UnknownIn) -> Response:
    found = read_unknown(typed_entries(body.quantities), body.words, body.stages, body.teeth)
    return answer(
        UnknownOut(
            shafts=list(found.shafts),
            wheels=list(found.wheels),
            ratios=list(found.ratios),
            verdicts=list(found.verdicts),
            notes=found.notes,
            problems=list(found.problems),
        )
    )


class ExplainIn(Strict):
    """The sheet with both shafts read, which wheel is to change and to what, the reading after it, and the speed wanted."""

    sheet: SheetForm = Field(default_factory=SheetForm)
    change: Literal["driver", "driven"] = "driver"
    new_diameter: Entry = none_typed
    new_teeth: str = Field("", max_length=20)
    after_driver: Entry = none_typed
    after_driven: Entry = none_typed
    target: Entry = none_typed


class ExplanationOut(BaseModel):
    """One explanation: how well it holds, what the marks would show by hand, what it predicts."""

    title: str
    reason: str
    plausible: str
    by_hand: str
    predicted: BothOut | None
    predicted_plus_minus: BothOut | None


class DiameterRow(BaseModel):
    """One kind of diameter: both wheels, the ratio and the driven speed by it."""

    what: str
    driver: BothOut
    driven: BothOut
    ratio: str
    speed: BothOut | None
    off: float | None


class ExplainOut(Answered):
    """The loss, the explanations, which diameter makes what difference; after a change what it taught."""

    loss: str | None
    hand_turns: int | None
    explanations: list[ExplanationOut]
    diameters: list[DiameterRow]
    by_diameters: BothOut | None
    factor: str | None
    effective_change: str | None


@blueprint.post("/explain", summary="What the tachometer and the diameters say together", responses={"200": ExplainOut})
@computes()
def calc_explain(body: ExplainIn) -> Response:
    reading, page = solved(body.sheet)
    typed = {k: getattr(body, k).typed() for k in ("new_diameter", "after_driver", "after_driven", "target")}
    found = read_speeds(reading.spec, page, typed, {"new_teeth": body.new_teeth}, body.change)
    explained, learned = found.explained, found.learned
    wanted = explained is not None and explained.verdicts[0].tone is not Tone.GOOD
    return answer(
        ExplainOut(
            loss=shown(explained.loss.n, "share")[0] if explained else None,
            hand_turns=explained.hand_turns if explained else None,
            explanations=[_explanation(e) for e in explained.explanations] if explained and wanted else [],
            diameters=[_by_diameter(d) for d in found.diameters],
            by_diameters=both_out(found.by_diameters, "rotation") if found.by_diameters else None,
            factor=f"{learned.factor.n:.3f}" if learned else None,
            effective_change=shown(learned.effective_change.n, "share")[0] if learned and learned.effective_change is not None else None,
            verdicts=list(found.verdicts),
            notes=found.notes,
            problems=list(found.problems),
        )
    )


def _explanation(e: Explanation) -> ExplanationOut:
    return ExplanationOut(
        title=e.title,
        reason=e.reason,
        plausible=e.plausible,
        by_hand=eighths(e.by_hand),
        predicted=both_out(e.predicted.n, "rotation") if e.predicted is not None else None,
        predicted_plus_minus=both_out(2 * e.predicted.s, "rotation") if e.predicted is not None else None,
    )


def _by_diameter(d: ByDiameter) -> DiameterRow:
    return DiameterRow(
        what=d.what,
        driver=both_out(d.driver_m, "length", decimals=(2, 1)),
        driven=both_out(d.driven_m, "length", decimals=(2, 1)),
        ratio=f"{d.ratio:.3f}",
        speed=both_out(d.speed, "rotation") if d.speed else None,
        off=d.off,
    )


class TargetIn(Strict):
    """The sheet, the speed wanted, how near it must come (percent), and which wheel stays."""

    sheet: SheetForm = Field(default_factory=SheetForm)
    target: Entry = none_typed
    tolerance: str = Field("", max_length=20)
    keep: Literal["", "driver", "driven"] = ""
    meaning: Literal["", "slip", "diameter"] = Field("", description="what a reading that disagrees with the diameters was found to mean")


@blueprint.post("/target", summary="Stock wheels for a target speed", responses={"200": TargetOut})
@computes()
def calc_target(body: TargetIn) -> Response:
    reading, page = solved(body.sheet)
    reader = FieldReader({"target": body.target.typed()}, {"tolerance": body.tolerance})
    target = reader.value("target", "target_speed")
    tolerance = reader.number("tolerance", 0.1, 20, "Write how near it must come in percent, such as 3.")
    found = None
    if target is not None and not reader.problems:
        share = (tolerance if tolerance is not None else 3.0) / 100
        found = targets(reading.spec, page, target, share, body.keep, most_speed(body.sheet), body.meaning)
    before = body.sheet.survey.first.fitted.model_dump(mode="json")
    return answer(target_out(reading.spec, page, reader, found, target, most_speed(body.sheet), before))


def most_speed(sheet: SheetForm) -> float | None:
    """How fast the driven machine may turn (rad/s), as its survey has it; None where it does not, or cannot be read."""
    typed = sheet.survey.machine.quantities.get("most_speed", Entry()).typed()
    return FieldReader({"most_speed": typed}, {}).value("most_speed", "machine_speed")


class AdjustableIn(Strict):
    """The sheet with an adjustable sheave in its survey, and the speed wanted."""

    sheet: SheetForm = Field(default_factory=SheetForm)
    target: Entry = none_typed


class SettingOut(BaseModel):
    """One half turn: turns open, pitch diameter, driven speed, whether it may stand there, is the one now or the nearest."""

    turns: float
    diameter: BothOut
    speed: BothOut
    speed_rad_per_s: float
    usable: bool
    now: bool
    nearest: bool


class AdjustableOut(Answered):
    """Every setting, closed first; how far the belt's plane moves for the nearest one."""

    role: str
    settings: list[SettingOut]
    shift: BothOut | None


@blueprint.post("/adjustable", summary="An adjustable sheave, half turn by half turn", responses={"200": AdjustableOut})
@computes()
def calc_adjustable(body: AdjustableIn) -> Response:
    reading, page = solved(body.sheet)
    spec = reading.spec
    sheave = spec.fitted.adjustable if spec.fitted else None
    pieces = (spec.fitted.pieces if spec.fitted else None) or 1
    reader = FieldReader({"target": body.target.typed()}, {})
    target = reader.value("target", "target_speed")
    speed = spec.tach_driven.value if spec.tach_driven else page.values["driven_speed"].n if page.has("driven_speed") else None
    if sheave is None or speed is None or sheave.turns is None or not page.has(f"{sheave.role}_pitch"):
        wanted = "Which sheave is adjustable, and how far open?" if sheave is None else "Survey both sheaves and the driver's speed first"
        if sheave is not None and sheave.turns is None:
            wanted = "Count how many turns it stands open"
        said = Verdict("adjustable", Tone.OPEN, wanted, "The table then shows what each half turn does.")
        return answer(
            AdjustableOut(role="", settings=[], shift=None, verdicts=[said], notes=reader.notes | _own(reading), problems=reader.problems)
        )
    closed = page.values[f"{sheave.role}_pitch"].n + sheave.turns * sheave.drop_m
    design = reading.design.get("design_turns")
    least, least_of = smallest(spec, sheave.role)
    found = adjust(
        sheave.role,
        closed,
        sheave.drop_m,
        sheave.most,
        sheave.turns,
        speed,
        target,
        design,
        pieces,
        least_m=least,
        least_of=least_of,
        most_speed=most_speed(body.sheet),
    )
    return answer(
        AdjustableOut(
            role=sheave.role,
            settings=[
                SettingOut(
                    turns=s.turns,
                    diameter=both_out(s.pitch_diameter_m, "length", decimals=(2, 1)),
                    speed=both_out(s.driven_speed, "rotation"),
                    speed_rad_per_s=s.driven_speed,
                    usable=s.usable,
                    now=s.now,
                    nearest=s is found.nearest,
                )
                for s in found.settings
            ],
            shift=both_out(found.shift_m, "length", decimals=(3, 1)) if found.shift_m else None,
            verdicts=list(found.verdicts),
            notes=reader.notes | _own(reading),
            problems=[*reader.problems, *(p for p in reading.problems if p.field in _SHEAVE)],
        )
    )


_SHEAVE = ("open_turns", "most_turns", "turn_drop")


def _own(reading: FormReading) -> dict[str, Note]:
    return {k: n for k, n in reading.notes.items() if k in _SHEAVE}


@blueprint.post("/cones", summary="Step cones that one belt fits", responses={"200": ConesOut})
@computes()
def calc_cones(body: ConesForm) -> Response:
    return answer(cones_out(read_cones(typed_entries(body.quantities), body.words, body.steps)))
