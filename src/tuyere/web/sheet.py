"""The sheet as an answer: every station of a drive as typed."""

from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import Figure
from tuyere.core.basis.verdict import Flag, Problem, Verdict
from tuyere.core.drive.sheet.drawing import Drawing
from tuyere.core.drive.sheet.solve import Sheet
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.fitted import ShortSet
from tuyere.core.kinds.v_belt.short_set import not_here
from tuyere.core.stations.align.station import alignment_of
from tuyere.core.stations.tension.station import tension_of
from tuyere.record.fitted_forms import SheavesForm
from tuyere.record.forms import SheetForm
from tuyere.web.aligned import AlignedOut, aligned_out
from tuyere.web.stages import TrainOut, train_out
from tuyere.web.surveyed import answer_of
from tuyere.web.tight import TightOut, tight_out


class BeltNamedOut(BaseModel):
    """A V-belt's name, whole: its section, its ribs (empty for a single belt), itself, and all of it as a sentence."""

    section: str
    ribs: str
    belt: str
    says: str


class SheetOut(BaseModel):
    """Everything the sheet shows: figures by key, what each field understood, verdicts, flags, problems, the drawing."""

    figures: dict[str, Figure]
    notes: dict[str, Note]
    verdicts: list[Verdict]
    flags: list[Flag]
    problems: list[Problem]
    drawing: Drawing | None
    wanted: list[str]
    short: list[ShortSet]
    short_not: str = Field("", description="why no short set is offered on this machine")
    train: TrainOut | None = None
    tight: TightOut | None = Field(None, description="the tension of the stage that the reading is of")
    align: AlignedOut | None = Field(None, description="the two wheels that the alignment is of")
    in_bands: bool = Field(False, description="whether belts are counted in bands of several ribs")
    belt_named: BeltNamedOut | None = Field(None, description="what the belt's name says, where section or ribs are set otherwise")


def sheet_out(sheet: Sheet, notes: dict[str, Note] | None = None, problems: list[Problem] | None = None) -> SheetOut:
    """A solved sheet as an answer, with what the form's reading said."""
    return SheetOut(
        figures=sheet.figures,
        notes=notes or {},
        verdicts=list(sheet.verdicts),
        flags=list(sheet.flags),
        problems=[*(problems or []), *sheet.problems],
        drawing=sheet.drawing,
        wanted=list(sheet.wanted),
        short=list(sheet.short),
    )


def sheet_answer(body: SheetForm) -> SheetOut:
    """Every station of a drive as typed: what all pages show."""
    on = answer_of(body.survey, body.tachometer)
    out = sheet_out(on.sheet, on.reading.notes, on.reading.problems)
    out.short_not = not_here(body.machine_is) if out.short else ""
    out.short = [] if out.short_not else out.short
    out.in_bands = on.spec.fitted is not None and on.spec.fitted.in_bands
    out.belt_named = _belt_named(body)
    if on.train:  # where the two-wheel survey says nothing
        out.train = train_out(on.train)
        out.figures |= on.train.page.figures
        out.verdicts += [*on.train.page.verdicts, *(v for stage in on.train.stages for v in stage.verdicts)]
    if tight := tension_of(on, body.gauge.stage, body.gauge.typed()):
        out.verdicts += tight.verdicts
        out.tight = tight_out(tight, on.stage_titles)
        out.notes |= tight.notes
        out.figures |= tight.readings | {k: f for k, f in tight.figures.items() if k == "deflection"}
        out.problems += [p for p in tight.problems if p not in out.problems]
    if aligned := alignment_of(on, body.align.stage, body.align.typed()):
        out.verdicts += aligned.verdicts
        out.align = aligned_out(aligned, on.stage_titles)
        out.notes |= aligned.notes
        out.problems += [p for p in aligned.problems if p not in out.problems]
    return out


def _belt_named(body: SheetForm) -> BeltNamedOut | None:
    fitted = body.survey.first.fitted
    if not isinstance(fitted, SheavesForm):
        return None
    choices = fitted.choices
    try:
        belt = v_belt.parse_designation(choices.belt)
    except v_belt.BeltError:
        return None
    ribs = str(belt.ribs) if belt.ribs else ""
    if (choices.section, choices.ribs.strip() or "1") == (belt.section.name, ribs or "1"):
        return None
    band = f", one band of {ribs} ribs" if belt.section.construction != "ribbed" and ribs else f", {ribs} ribs" if ribs else ""
    return BeltNamedOut(
        section=belt.section.name, ribs=ribs, belt=belt.designation, says=f"Section {belt.section.name}{band}: {belt.designation}"
    )
