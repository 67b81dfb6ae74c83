"""POST /api/calc/<name>: every computation, without any record. Nothing is stored, so nothing is asked of the caller."""

from typing import Literal

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import Figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import KINDS, QuantityError, System, parse, show
from tuyere.core.basis.typed import Given, Typed
from tuyere.core.basis.uncertainty import standard_uncertainty
from tuyere.core.basis.verdict import Flag, Problem, Verdict
from tuyere.core.drive.sheet.drawing import Drawing
from tuyere.core.drive.sheet.solve import Sheet, solve
from tuyere.core.drive.sheet.tight import stage_of
from tuyere.core.kinds import registry, v_belt
from tuyere.core.kinds.fitted import ShortSet, Slide
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS, service_factor
from tuyere.core.kinds.spec import DriverClass, DriveSpec, Rotation
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.drive import VDrive
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.kinds.v_belt.loop import VLoop
from tuyere.core.kinds.v_belt.short_set import not_here
from tuyere.core.kinds.v_belt.v_set import Basis
from tuyere.core.mechanics import open_belt, speed, tension
from tuyere.core.stations.align.station import alignment_of
from tuyere.core.stations.tension.read import Tight, TypedTension, read_tension
from tuyere.core.stations.tension.station import tension_of
from tuyere.web.aligned import AlignedOut, aligned_out
from tuyere.web.answers import answer
from tuyere.web.entry import USUAL_FAMILY, FamilyKey, Strict
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.forms import SheavesForm, SheetForm, SurveyForm, WithSurvey, answer_of
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.stages import TrainOut, train_out
from tuyere.web.tight import TightOut, tight_out

blueprint = routes("calc", "/api/calc", "calc", "Computations without a record; SI numbers, the unit in the field's name")


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


def _refuse(field: str, reason: Exception) -> Refusal:
    return Refusal(422, str(reason), [FieldError(field=field, detail=str(reason))])


@blueprint.post("/sheet", summary="The whole sheet from what was typed", responses={"200": SheetOut})
@computes()
def calc_sheet(body: SheetForm) -> Response:
    return answer(sheet_answer(body))


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


class SurveyOut(BaseModel):
    """A survey as it is typed today."""

    survey: SurveyForm


@blueprint.post("/survey", summary="A survey typed the way of before, as one of today", responses={"200": SurveyOut})
@computes()
def calc_survey(body: WithSurvey) -> Response:
    return answer(SurveyOut(survey=body.survey))


class DriveIn(Strict):
    """A drive in SI. Leave out what is not known."""

    driver_power_w: float | None = Field(None, ge=0.1, le=3e6)
    driver_speed_rad_per_s: float | None = Field(None, ge=0.01, le=2500)
    driver_class: DriverClass = "normal"
    driven_class: str | None = Field(None, max_length=40)
    hours_per_day: float | None = Field(None, ge=0.01, le=24)
    section: str | None = Field(None, max_length=20)
    driver_diameter_m: float | None = Field(None, gt=0.01, le=3.1)
    driver_basis: Basis = "outside"
    driven_diameter_m: float | None = Field(None, gt=0.01, le=3.1)
    driven_basis: Basis = "outside"
    centre_distance_m: float | None = Field(None, ge=0.001, le=20)
    belt: str | None = Field(None, max_length=24)
    belt_count: int | None = Field(None, ge=1, le=20, description="belts, or bands of joined or ribbed belts")
    ribs: int | None = Field(None, ge=1, le=40, description="of each band, where its name does not say")
    travel_in_m: float | None = Field(None, ge=0, le=5)
    travel_out_m: float | None = Field(None, ge=0, le=5)
    design_speed_rad_per_s: float | None = Field(None, ge=0.01, le=2500)
    rotation: Rotation = "clockwise"
    centre_line_deg: float = Field(0, ge=0, lt=360)
    tach_driver_rad_per_s: float | None = Field(None, ge=0.01, le=2500)
    tach_driven_rad_per_s: float | None = Field(None, ge=0.01, le=2500)
    gauge_forces_n: list[float] = Field(default_factory=list, max_length=20)
    gauge_deflection_m: float | None = Field(None, ge=1e-5, le=0.5)
    belt_state: Literal["new", "run in"] = "run in"


@blueprint.post("/drive", summary="The whole sheet from SI numbers", responses={"200": SheetOut})
@computes()
def calc_drive(body: DriveIn) -> Response:
    spec = _spec(body)
    sheet = solve(spec)
    out = sheet_out(sheet)
    if body.gauge_forces_n and (tight := _gauged(body, spec, sheet)):
        out.figures |= tight.readings | {k: f for k, f in tight.figures.items() if k == "deflection"}
        out.verdicts += tight.verdicts
        out.problems += tight.problems
    return answer(out)


def _gauged(body: DriveIn, spec: DriveSpec, sheet: Sheet) -> Tight | None:
    """What the gauge says, as the station reads it; None until the wheels and their centres are known."""
    fitted = spec.fitted
    if not isinstance(fitted, VDrive) or fitted.section is None:
        return None
    loop = VLoop(fitted.section, fitted.belt, fitted.belt_count or len(body.gauge_forces_n), fitted.band_ribs)
    stage = stage_of(spec, sheet, loop, "")
    if stage is None:
        return None
    pushed = {"deflection": Typed(f"{body.gauge_deflection_m} m", "")} if body.gauge_deflection_m else {}
    forces = [Typed(f"{force} N", "", tool="spring gauge") for force in body.gauge_forces_n]
    return read_tension(stage, TypedTension("gauge", body.belt_state == "new", forces, pushed))


def _given(value: float | None, kind: str, origin: Origin, name: str) -> Given | None:
    return None if value is None else Given(value, standard_uncertainty(value, kind, origin), origin, name)


def _spec(body: DriveIn) -> DriveSpec:
    try:
        section = v_belt.section(body.section) if body.section else None
        belt = v_belt.parse_designation(body.belt, section) if body.belt else None
    except v_belt.BeltError as reason:
        raise _refuse("belt" if body.belt else "section", reason) from None
    if body.driven_class and body.driven_class not in {c.name for c in duties.driven_classes()}:
        raise Refusal(
            422,
            "Choose a class of driven machine.",
            [FieldError(field="driven_class", detail="One of: " + ", ".join(c.name for c in duties.driven_classes()))],
        )
    if any(not 0.01 <= force <= 5000 for force in body.gauge_forces_n):
        raise Refusal(
            422,
            "A gauge force lies between 0.01 and 5000 N.",
            [FieldError(field="gauge_forces_n", detail="A gauge force lies between 0.01 and 5000 N.")],
        )
    m, n, c = Origin.MEASURED, Origin.NAMEPLATE, Origin.CHOSEN
    hours = body.hours_per_day * 3600 if body.hours_per_day else None
    fitted = VDrive(
        section=section,
        driver_diameter=_given(body.driver_diameter_m, "length", m, "driver sheave diameter"),
        driver_basis=body.driver_basis,
        driven_diameter=_given(body.driven_diameter_m, "length", m, "driven sheave diameter"),
        driven_basis=body.driven_basis,
        centre_distance=_given(body.centre_distance_m, "length", m, "centre distance"),
        belt=belt,
        belt_count=body.belt_count,
        band_ribs=body.ribs,
    )
    return DriveSpec(
        V_BELT,
        fitted,
        driver_power=_given(body.driver_power_w, "power", n, "driver power"),
        driver_speed=_given(body.driver_speed_rad_per_s, "rotation", n, "driver speed"),
        driver_class=body.driver_class,
        driven_class=body.driven_class,
        hours_per_day=_given(hours, "duration", c, "hours a day"),
        slide=Slide(
            _given(body.travel_in_m, "length", m, "motor can move closer by"),
            _given(body.travel_out_m, "length", m, "motor can move away by"),
        ),
        design_speed=_given(body.design_speed_rad_per_s, "rotation", n, "driven speed it should have"),
        rotation=body.rotation,
        centre_line_deg=body.centre_line_deg,
        tach_driver=_given(body.tach_driver_rad_per_s, "rotation", m, "driver speed by tachometer"),
        tach_driven=_given(body.tach_driven_rad_per_s, "rotation", m, "driven speed by tachometer"),
    )


class QuantityIn(Strict):
    """Text to read as a quantity of `kind`; a bare number takes `unit`."""

    text: str = Field(max_length=200)
    kind: str = Field("length", max_length=20)
    unit: str = Field("", max_length=12)


class QuantityOut(BaseModel):
    """What was understood: SI value (null: not known) in `si_unit`, and both systems as shown."""

    value_si: float | None
    si_unit: str
    us: str
    si: str


@blueprint.post("/quantity", summary="Read a quantity as people write it", responses={"200": QuantityOut})
@computes()
def calc_quantity(body: QuantityIn) -> Response:
    kind = KINDS.get(body.kind)
    if not kind:
        raise Refusal(422, "Unknown kind of quantity.", [FieldError(field="kind", detail="One of: " + ", ".join(KINDS))])
    unit = body.unit if body.unit in {u.symbol for u in kind.units} else kind.us_symbol
    try:
        parsed = parse(body.text, body.kind, unit)
    except QuantityError as reason:
        raise _refuse("text", reason) from None
    if parsed is None:
        return answer(QuantityOut(value_si=None, si_unit=kind.si_unit, us="not known", si="not known"))
    return answer(
        QuantityOut(
            value_si=parsed.value_si,
            si_unit=kind.si_unit,
            us=show(parsed.value_si, body.kind, System.US),
            si=show(parsed.value_si, body.kind, System.SI),
        )
    )


Metres = Field(ge=0.001, le=20)


class TwoWheelsIn(Strict):
    """An open belt: diameters of the belt's line (datum diameters for the datum length) and centre distance, m."""

    driver_diameter_m: float = Metres
    driven_diameter_m: float = Metres
    centre_distance_m: float = Metres


class PathOut(BaseModel):
    """Belt length, span (m) and wraps (rad)."""

    belt_length_m: float
    span_m: float
    driver_wrap_rad: float
    driven_wrap_rad: float


@blueprint.post("/belt-length", summary="Exact open-belt length, span and wraps", responses={"200": PathOut})
@computes()
def calc_belt_length(body: TwoWheelsIn) -> Response:
    wheels = body.driver_diameter_m, body.driven_diameter_m, body.centre_distance_m
    try:
        driver, driven = open_belt.wraps(*wheels)
    except open_belt.GeometryError as reason:
        raise _refuse("centre_distance_m", reason) from None
    return answer(
        PathOut(
            belt_length_m=open_belt.belt_length(*wheels),
            span_m=open_belt.span_length(*wheels),
            driver_wrap_rad=driver,
            driven_wrap_rad=driven,
        )
    )


class BeltLengthIn(Strict):
    """Two wheels and a belt length, m."""

    driver_diameter_m: float = Metres
    driven_diameter_m: float = Metres
    belt_length_m: float = Field(ge=0.001, le=50)


class CentresOut(BaseModel):
    """Centre distance, m."""

    centre_distance_m: float


@blueprint.post("/centre-distance", summary="Centre distance for a belt length", responses={"200": CentresOut})
@computes()
def calc_centre_distance(body: BeltLengthIn) -> Response:
    try:
        found = open_belt.centre_distance(body.driver_diameter_m, body.driven_diameter_m, body.belt_length_m)
    except open_belt.GeometryError as reason:
        raise _refuse("belt_length_m", reason) from None
    return answer(CentresOut(centre_distance_m=found))


class RatedPowerIn(Strict):
    """A V-belt section on its small sheave, the faster shaft's speed and the speed ratio (1 or more).

    The diameter is of the belt's line, m: datum of classical and metric sections, pitch of narrow and light ones.
    """

    section: str = Field(max_length=20)
    small_diameter_m: float = Field(gt=0.01, le=3.1)
    fast_shaft_rad_per_s: float = Field(ge=0.01, le=2500)
    ratio: float = Field(1.0, ge=1, le=100)


class RatedPowerOut(BaseModel):
    """Rated power of one belt at 180 degrees and the reference length, W, as the sheet rates it; `estimate` says where no standard does."""

    basic_w: float
    added_for_ratio_w: float
    total_w: float
    source: str
    estimate: str
    below_least: bool


@blueprint.post("/rated-power", summary="Rated power of one V-belt, by the method that the sheet uses", responses={"200": RatedPowerOut})
@computes()
def calc_rated_power(body: RatedPowerIn) -> Response:
    try:
        section = v_belt.section(body.section)
        how = vee.method(section)
        rated = vee.rated_power(section, body.small_diameter_m, body.fast_shaft_rad_per_s, body.ratio)
    except (v_belt.BeltError, duties.OutOfRangeError) as reason:
        raise _refuse("section" if isinstance(reason, v_belt.BeltError) else "small_diameter_m", reason) from None
    return answer(
        RatedPowerOut(
            basic_w=rated.basic_w,
            added_for_ratio_w=rated.added_for_ratio_w,
            total_w=rated.total_w,
            source=how.source,
            estimate=how.estimate,
            below_least=body.small_diameter_m < v_belt.min_datum_diameter(section) - 1e-6,
        )
    )


class StaticTensionIn(Strict):
    """Design power (W, with service factor), belt speed, number of belts, wrap on the small sheave, mass per metre."""

    design_power_w: float = Field(ge=0.1, le=3e6)
    belt_speed_m_per_s: float = Field(gt=0.01, le=100)
    belts: int = Field(ge=1, le=20)
    small_wheel_wrap_rad: float = Field(gt=0.5, le=3.1416)
    mass_kg_per_m: float = Field(ge=0, le=5)
    section: str = Field(
        "", max_length=20, description="its system says which form holds: IP-20's 15 for inch sections, GB/T 13575.1's 500 for metric"
    )
    form: Literal["metric", "inch"] = Field("metric", description="where no section is named")


class TensionOut(BaseModel):
    """Tension of one strand, N."""

    tension_n: float


@blueprint.post("/static-tension", summary="Static tension of one strand", responses={"200": TensionOut})
@computes()
def calc_static_tension(body: StaticTensionIn) -> Response:
    arc = ip20.arc_factor(body.small_wheel_wrap_rad)
    try:
        inch = v_belt.section(body.section).unit == "in" if body.section else body.form == "inch"
    except v_belt.BeltError as reason:
        raise _refuse("section", reason) from None
    return answer(
        TensionOut(
            tension_n=tension.static_tension(body.design_power_w, body.belt_speed_m_per_s, body.belts, arc, body.mass_kg_per_m, inch=inch)
        )
    )


class GaugeIn(Strict):
    """A deflection gauge: force (N) or tension (N), span and deflection (m), belt-stiffness term (N; 0: the bare string)."""

    force_or_tension_n: float = Field(ge=0.001, le=1e5)
    span_m: float = Metres
    deflection_m: float | None = Field(None, ge=1e-5, le=1, description="left out: 1/64 of the span")
    stiffness_term_n: float = Field(0, ge=0, le=1e4)


@blueprint.post("/strand-tension", summary="Strand tension from a gauge's force", responses={"200": TensionOut})
@computes()
def calc_strand_tension(body: GaugeIn) -> Response:
    pushed = body.deflection_m or tension.deflection(body.span_m)
    return answer(TensionOut(tension_n=tension.tension_from_force(body.force_or_tension_n, body.span_m, pushed, body.stiffness_term_n)))


class ForceOut(BaseModel):
    """Gauge force, N, and the deflection it belongs to, m."""

    force_n: float
    deflection_m: float


@blueprint.post("/gauge-force", summary="Gauge force for a strand tension", responses={"200": ForceOut})
@computes()
def calc_gauge_force(body: GaugeIn) -> Response:
    pushed = body.deflection_m or tension.deflection(body.span_m)
    return answer(
        ForceOut(force_n=tension.deflection_force(body.force_or_tension_n, body.span_m, pushed, body.stiffness_term_n), deflection_m=pushed)
    )


class SpeedSlipIn(Strict):
    """Both measured speeds and the ratio by diameters."""

    driver_rad_per_s: float = Field(ge=0.01, le=2500)
    driven_rad_per_s: float = Field(ge=0.01, le=2500)
    ratio: float = Field(ge=0.01, le=100)


class SpeedSlipOut(BaseModel):
    """Slip as a share (0.01 is 1 %)."""

    slip: float


@blueprint.post("/slip", summary="Slip from measured speeds", responses={"200": SpeedSlipOut})
@computes()
def calc_slip(body: SpeedSlipIn) -> Response:
    return answer(SpeedSlipOut(slip=speed.slip(body.driver_rad_per_s, body.driven_rad_per_s, body.ratio)))


class ServiceFactorIn(Strict):
    """Class of driven machine, class of driver, hours a day; the kind of drive and what else counts in its factor."""

    driven_class: str = Field(max_length=40)
    driver_class: DriverClass = "normal"
    hours_per_day: float = Field(ge=0.01, le=24)
    family: FamilyKey = USUAL_FAMILY
    speed_up: float = Field(1.0, ge=0.01, le=100, description="driven speed over driver speed")
    idler: str = Field("none", max_length=40, description="one of: " + ", ".join(IDLERS))
    surroundings: str = Field("clean", max_length=40, description="one of: " + ", ".join(SURROUNDINGS))
    starts: str = Field("seldom", max_length=40, description="one of: " + ", ".join(STARTS))


class ServiceFactorOut(BaseModel):
    """The factor and its source."""

    service_factor: float
    source: str


@blueprint.post("/service-factor", summary="Service factor, as the sheet counts it", responses={"200": ServiceFactorOut})
@computes()
def calc_service_factor(body: ServiceFactorIn) -> Response:
    try:
        for key, known in (("idler", IDLERS), ("surroundings", SURROUNDINGS), ("starts", STARTS)):
            if getattr(body, key) not in known:
                raise Refusal(422, "Choose from the list.", [FieldError(field=key, detail="One of: " + ", ".join(known))])
        found, source = service_factor(
            registry.family(body.family),
            body.driven_class,
            body.driver_class,
            body.hours_per_day,
            body.speed_up,
            body.idler,
            body.surroundings,
            body.starts,
        )
    except duties.OutOfRangeError as reason:
        raise _refuse("driven_class", reason) from None
    return answer(ServiceFactorOut(service_factor=found, source=source))
