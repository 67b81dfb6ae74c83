"""POST /api/calc/<name>: every computation, without any record. Nothing is stored, so nothing is asked of the caller."""

from typing import Literal

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.quantity import QuantityError, System, parse, show
from tuyere.core.basis.units import KINDS
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.kinds import registry, v_belt
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS, service_factor
from tuyere.core.kinds.spec import DriverClass
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.mechanics import open_belt, speed, tension
from tuyere.record.entry import USUAL_FAMILY, FamilyKey, Strict
from tuyere.record.forms import SheetForm, SurveyForm, WithSurvey
from tuyere.web.answers import answer
from tuyere.web.drive_in import DriveIn, gauged, refuse, spec_of
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.sheet import SheetOut, sheet_answer, sheet_out

blueprint = routes("calc", "/api/calc", "calc", "Computations without a record; SI numbers, the unit in the field's name")


@blueprint.post("/sheet", summary="The whole sheet from what was typed", responses={"200": SheetOut})
@computes()
def calc_sheet(body: SheetForm) -> Response:
    return answer(sheet_answer(body))


class SurveyOut(BaseModel):
    """A survey as it is typed today."""

    survey: SurveyForm


@blueprint.post("/survey", summary="A survey typed the way of before, as one of today", responses={"200": SurveyOut})
@computes()
def calc_survey(body: WithSurvey) -> Response:
    return answer(SurveyOut(survey=body.survey))


@blueprint.post("/drive", summary="The whole sheet from SI numbers", responses={"200": SheetOut})
@computes()
def calc_drive(body: DriveIn) -> Response:
    spec = spec_of(body)
    sheet = solve(spec)
    out = sheet_out(sheet)
    if body.gauge_forces_n and (tight := gauged(body, spec, sheet)):
        out.figures |= tight.readings | {k: f for k, f in tight.figures.items() if k == "deflection"}
        out.verdicts += tight.verdicts
        out.problems += tight.problems
    return answer(out)


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
        raise refuse("text", reason) from None
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
        raise refuse("centre_distance_m", reason) from None
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
        raise refuse("belt_length_m", reason) from None
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
        raise refuse("section" if isinstance(reason, v_belt.BeltError) else "small_diameter_m", reason) from None
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
        raise refuse("section", reason) from None
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
        raise refuse("driven_class", reason) from None
    return answer(ServiceFactorOut(service_factor=found, source=source))
