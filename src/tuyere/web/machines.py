"""POST /api/calc/speed/<question>: what the machine feels, a wheel to make, trials, readings from a file."""

from typing import Literal
from urllib.parse import urlencode

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis import readings_file
from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import from_si
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds import v_belt
from tuyere.core.stations.speed import wheel as wheels
from tuyere.core.stations.speed.machine import KINDS, Row
from tuyere.core.stations.speed.station import felt
from tuyere.core.stations.speed.trial import CHANGES, LEAKS, TrialReading, TrialRow, read_trial
from tuyere.documents.wheel_drawing import sizes, wheel_dxf, wheel_svg
from tuyere.record.entry import Entry, Strict, none_typed
from tuyere.record.forms import MachineForm, SheetForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.rules import anyone, computes
from tuyere.web.speed_answers import Answered, Entries, pair_out, typed_entries
from tuyere.web.speeds import Words, blueprint
from tuyere.web.surveyed import answer_of


class MachineIn(Strict):
    """The sheet with its machine, and the new speed to ask about: typed in the form, or in rad/s from a setting."""

    sheet: SheetForm = Field(default_factory=SheetForm)
    machine: MachineForm = Field(default_factory=MachineForm)
    new_speed_rad_per_s: float | None = Field(None, gt=0.01, le=3000)


class RowOut(BaseModel):
    """One quantity now and then."""

    key: str
    label: str
    now: BothOut | None
    new: BothOut | None
    change: float | None
    law: str


class PointOut(BaseModel):
    """Where fan and ducts meet."""

    flow_m3_per_s: float
    pressure_pa: float
    flow: BothOut
    pressure: BothOut


class CurveOut(BaseModel):
    """A curve to draw: flow (m3/s) and pressure (Pa), point after point."""

    what: str
    points: list[list[float]]


class MachineOut(Answered):
    """What changes, the curves to draw, and whether something would be overloaded."""

    rows: list[RowOut]
    overloaded: bool
    curves: list[CurveOut]
    points: list[PointOut]
    kinds: dict[str, str]


@blueprint.post("/machine", summary="What the machine and its motor feel of another speed", responses={"200": MachineOut})
@computes()
def calc_machine(body: MachineIn) -> Response:
    on = answer_of(body.sheet.survey, body.sheet.tachometer)
    found = felt(on, body.new_speed_rad_per_s, body.machine.typed())
    return answer(
        MachineOut(
            rows=[_row_out(r) for r in found.felt.rows] if found.felt else [],
            overloaded=bool(found.felt and found.felt.overloaded),
            curves=[CurveOut(what=c.what, points=[list(p) for p in c.points]) for c in found.curves],
            points=[
                PointOut(flow_m3_per_s=q, pressure_pa=p, flow=both_out(q, "airflow"), pressure=both_out(p, "pressure")) for q, p in found.at
            ],
            kinds=dict(KINDS),
            verdicts=list(found.verdicts),
            notes=found.notes,
            problems=list(found.problems),
        )
    )


def _row_out(row: Row) -> RowOut:
    return RowOut(
        key=row.key,
        label=row.label,
        now=pair_out(row.now) if row.now else None,
        new=pair_out(row.new) if row.new else None,
        change=row.change,
        law=row.law,
    )


class WheelIn(Strict):
    """A sheave to make: section, the diameter of its line or over the rim, grooves, bore, material, and the speed it is to turn."""

    section: str = Field("", max_length=40)
    diameter: Entry = none_typed
    basis: Literal["outside", "datum"] = "outside"
    grooves: str = Field("1", max_length=20)
    bore: Entry = none_typed
    material: str = Field("cast iron", max_length=40)
    speed: Entry = none_typed


class SizeRow(BaseModel):
    """One figure to work to."""

    name: str
    value: str


class MadeOut(Answered):
    """The wheel's figures, its profile (m, along the shaft and from the axis), and the words of its drawing's address."""

    sizes: list[SizeRow]
    profile: list[list[float]]
    outside_m: float | None
    face_m: float | None
    checks: list[str]
    materials: dict[str, str]
    query: str


@blueprint.post("/wheel", summary="A sheave to turn down, machine or cast", responses={"200": MadeOut})
@computes()
def calc_wheel(body: WheelIn) -> Response:
    problems: list[Problem] = []
    made, notes, speed = _made(body, problems)
    verdicts = wheels.judge(made, speed) if made else []
    if not made and not problems:
        verdicts = [Verdict("wheel", Tone.OPEN, "Choose the section and the diameter", "Groove, face and run-out follow from the tables.")]
    query = ""
    if made:
        sized = {"section": made.section.name, "line_mm": f"{made.line_m * 1000:.3f}", "grooves": made.grooves}
        query = urlencode(sized | {"bore_mm": f"{made.bore_m * 1000:.3f}", "material": made.material.name})
    return answer(
        MadeOut(
            sizes=[SizeRow(name=n, value=v) for n, v in sizes(made, bore_given=bool(body.bore.text.strip()))] if made else [],
            profile=[list(p) for p in made.profile] if made else [],
            outside_m=made.outside_m if made else None,
            face_m=made.face_m if made else None,
            checks=[text for _, text in wheels.CHECKS],
            materials={m.name: m.title for m in wheels.materials().values()},
            query=query,
            verdicts=verdicts,
            notes=notes,
            problems=problems,
        )
    )


def _made(body: WheelIn, problems: list[Problem]) -> tuple[wheels.MadeWheel | None, dict[str, Note], float | None]:
    reader = FieldReader(
        {"made_diameter": body.diameter.typed(), "made_bore": body.bore.typed(), "made_speed": body.speed.typed()},
        {"made_grooves": body.grooves or "1"},
    )
    size, bore = reader.value("made_diameter", "train_wheel"), reader.value("made_bore", "bore")
    speed, grooves = reader.value("made_speed", "train_speed"), reader.whole("made_grooves", 1, 12)
    problems += reader.problems
    if not body.section or size is None or problems or grooves is None:
        return None, reader.notes, speed
    material = wheels.materials().get(body.material) or wheels.materials()["cast iron"]
    try:
        section = v_belt.section(body.section)
        line = v_belt.datum_from_outside(section, size) if body.basis == "outside" else size
        return wheels.made_wheel(section, line, grooves, bore if bore is not None else 0.02, material), reader.notes, speed
    except v_belt.BeltError as reason:
        problems.append(Problem("made_diameter", str(reason)))
        return None, reader.notes, speed


class WheelFileQuery(BaseModel):
    """A wheel by its drawing's address."""

    section: str = Field(max_length=40)
    line_mm: float = Field(gt=5, le=6000)
    grooves: int = Field(1, ge=1, le=12)
    bore_mm: float = Field(20.0, gt=0.5, le=2000)
    material: str = Field("cast iron", max_length=40)


class WheelFilePath(BaseModel):
    """Which form of drawing."""

    form: Literal["svg", "dxf"]


@blueprint.get("/wheel.<form>", summary="A sheave's drawing at 1:1, as SVG or DXF")
@anyone()
def get_wheel(path: WheelFilePath, query: WheelFileQuery) -> Response:
    try:
        section = v_belt.section(query.section)
        material = wheels.materials().get(query.material) or wheels.materials()["cast iron"]
        made = wheels.made_wheel(section, query.line_mm / 1000, query.grooves, query.bore_mm / 1000, material)
    except v_belt.BeltError as reason:
        raise Refusal(422, str(reason), [FieldError(field="section", detail=str(reason))]) from None
    inches = from_si(made.outside_m, "length", "in")
    name = f"sheave-{section.name.replace(' ', '-')}-{inches:.2f}in.{path.form}"
    body, kind = (wheel_svg(made), "image/svg+xml") if path.form == "svg" else (wheel_dxf(made), "image/vnd.dxf")
    return Response(body, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'})


class TrialForm(Strict):
    """Readings before and after one change: quantities before_tach_driver, after_amps...; words change, before_leak, after_leak, note."""

    quantities: Entries = Field(default_factory=dict, max_length=20)
    words: Words = Field(default_factory=dict, max_length=20)

    def read(self) -> TrialReading:
        """As the core reads it."""
        return read_trial(typed_entries(self.quantities), self.words)


class TrialRowOut(BaseModel):
    """One reading before and after, its change, and whether that is more than its doubt."""

    key: str
    label: str
    before: BothOut | None
    after: BothOut | None
    change: float | None
    real: bool


class TrialOut(Answered):
    """Both columns side by side."""

    rows: list[TrialRowOut]
    changes: dict[str, str]
    leaks: list[str]


@blueprint.post("/trial", summary="Readings before and after one change", responses={"200": TrialOut})
@computes()
def calc_trial(body: TrialForm) -> Response:
    return answer(trial_out(body.read()))


def trial_out(found: TrialReading) -> TrialOut:
    """A trial as an answer."""
    return TrialOut(
        rows=[_trial_row(r) for r in found.rows],
        changes=dict(CHANGES),
        leaks=list(LEAKS),
        verdicts=list(found.verdicts),
        notes=found.notes,
        problems=list(found.problems),
    )


def _trial_row(r: TrialRow) -> TrialRowOut:
    before, after = (pair_out(v) if v else None for v in (r.before, r.after))
    return TrialRowOut(key=r.key, label=r.label, before=before, after=after, change=r.change, real=r.real)


class FileIn(Strict):
    """A file of readings as text."""

    text: str = Field(max_length=200_000)


class FileRowOut(BaseModel):
    """One row of the file: the field it fills, or a sentence why not."""

    line: int
    field: str
    text: str
    unit: str
    sentence: str


class FileOut(BaseModel):
    """The rows in turn; a sentence when the file as a whole cannot be read."""

    rows: list[FileRowOut]
    refused: str


@blueprint.post("/readings-file", summary="Readings from a CSV file", responses={"200": FileOut})
@computes()
def calc_readings_file(body: FileIn) -> Response:
    found = readings_file.read_file(body.text)
    rows = [FileRowOut(line=r.line, field=r.field, text=r.text, unit=r.unit, sentence=r.sentence) for r in found.rows]
    return answer(FileOut(rows=rows, refused=found.refused))
