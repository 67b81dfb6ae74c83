"""A drive in SI numbers, as it crosses the web."""

from typing import Literal

from pydantic import Field

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.typed import Given, Typed
from tuyere.core.basis.uncertainty import standard_uncertainty
from tuyere.core.drive.sheet.solve import Sheet
from tuyere.core.drive.sheet.tight import stage_of
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.spec import DriverClass, DriveSpec, Rotation
from tuyere.core.kinds.v_belt.drive import VDrive
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.kinds.v_belt.loop import VLoop
from tuyere.core.kinds.v_belt.v_set import Basis
from tuyere.core.stations.tension.read import Tight, read_tension
from tuyere.core.stations.tension.typed import TypedTension
from tuyere.record.entry import Strict
from tuyere.web.errors import FieldError, Refusal


def refuse(field: str, reason: Exception) -> Refusal:
    return Refusal(422, str(reason), [FieldError(field=field, detail=str(reason))])


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


def gauged(body: DriveIn, spec: DriveSpec, sheet: Sheet) -> Tight | None:
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


def spec_of(body: DriveIn) -> DriveSpec:
    try:
        section = v_belt.section(body.section) if body.section else None
        belt = v_belt.parse_designation(body.belt, section) if body.belt else None
    except v_belt.BeltError as reason:
        raise refuse("belt" if body.belt else "section", reason) from None
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
