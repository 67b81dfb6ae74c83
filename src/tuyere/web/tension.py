"""Tension as open calculations: a stage's window, what a reading means, how far to move. Bare SI numbers; what is left out is not known."""

import math
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Discriminator, Field, ModelWrapValidatorHandler, RootModel, Tag, ValidationError, model_validator
from pydantic_core import InitErrorDetails, PydanticCustomError

from tuyere.core.basis.uncertainty import UFloat
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tension import measured
from tuyere.core.mechanics.tension import window as core
from tuyere.core.mechanics.tension.beam import SlackError
from tuyere.core.mechanics.tension.moved import move_for
from tuyere.core.mechanics.tension.published import HeldBy
from tuyere.core.mechanics.tension.statics import STEEPEST_RAD, TOO_STEEP
from tuyere.record.entry import Strict
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import computes

blueprint = routes("tension", "/api/calc/tension", "tension", "How tight: the window of a stage, readings, and the move that mends them")

Metres = Annotated[float, Field(ge=1e-7, le=100)]
Newtons = Annotated[float, Field(ge=1e-9, le=1e7)]
Belts = Annotated[int, Field(ge=1, le=60)]


def refuse(field: str, sentence: str) -> Refusal:
    """A sentence beside one field."""
    return Refusal(422, sentence, [FieldError(field=field, detail=sentence)])


class Bare(Strict):
    """Bare numbers: null is as if left out."""

    @model_validator(mode="before")
    @classmethod
    def without_nulls(cls, value: object) -> object:
        return {k: v for k, v in value.items() if v is not None} if isinstance(value, dict) else value


class StageWheelIn(Bare):
    """A wheel on the belt's way. x to the right, y up, gravity along -y; the radius of the pitch line."""

    x_m: float = Field(ge=-100, le=100)
    y_m: float = Field(ge=-100, le=100)
    radius_m: float = Field(ge=1e-9, le=20)
    contact: core.Contact = "inside"
    groove_angle_deg: float | None = Field(None, gt=5, le=180, description="the whole angle; left out: flat")
    friction: float = Field(ge=1e-9, le=5, description="of the material, not of the wedge")
    power_w: float = Field(ge=-1e8, le=1e8, description="+ drives the belt, - is driven by it, 0: an idler; all together nought")
    speed_rad_per_s: float = Field(ge=1e-9, le=1e5, description="magnitude; radius times speed is the same on all wheels")


class StageShaftIn(Bare):
    """What is known of the shaft under a wheel. A limit whose figures are left out is not judged."""

    wheel: int = Field(ge=0, description="index of the wheel, from 0")
    overhang_m: float | None = Field(None, ge=0, le=20, description="from the wheel's middle to the near bearing")
    bearing_span_m: Metres | None = Field(None, description="between the bearings")
    bearing_rating_n: Newtons | None = Field(None, description="dynamic rating C of the near bearing")
    bearing: Literal["ball", "roller"] = "ball"
    life_hours: float | None = Field(None, ge=1e-9, le=1e7, description="L10 life wanted")
    overhung_limit_n: Newtons | None = Field(None, description="most pull at the wheel, its weight included")
    wheel_weight_n: float = Field(0, ge=0, le=1e7)
    bushing_bore_m: Metres | None = Field(None, description="of a sleeve in place of the near bearing")
    bushing_length_m: Metres | None = None
    bushing_pressure_pa: float | None = Field(None, ge=1e-9, le=1e9, description="most load over bore times length")
    bushing_pv_w_per_m2: float | None = Field(None, ge=1e-9, le=1e9, description="most pressure times sliding speed, Pa m/s")
    shaft_diameter_m: Metres | None = None
    shaft_stress_pa: float | None = Field(None, ge=1e-9, le=2e9, description="most bending stress at the near bearing")
    mounts_n: Newtons | None = Field(None, description="pull that the rubber mounts stand before they lean too far")


class TensionWindowIn(Bare):
    """A stage: the wheels in the order in which the belt meets them while the first turns as `rotation` says."""

    wheels: list[StageWheelIn] = Field(min_length=2, max_length=24)
    rotation: Literal["counter-clockwise", "clockwise"] = "counter-clockwise"
    belts: Belts = 1
    mass_kg_per_m: float = Field(0, ge=0, le=100, description="of one belt")
    held_by: HeldBy = "fixed"
    start_factor: float | None = Field(None, ge=1e-9, le=20, description="torque of every wheel at start over running")
    jolt_factor: float = Field(2, ge=1e-9, le=20)
    design_factor: float = Field(1, ge=1e-9, le=20)
    ratio_at_half_turn: float = Field(5, gt=1, le=1000)
    belt_strength_n: Newtons | None = Field(None, description="most tension of one belt, its centrifugal part included")
    shafts: list[StageShaftIn] = Field(default_factory=list, max_length=24)


class UpperLimitOut(BaseModel):
    """The largest tension of one strand, running at design power, at which a limit holds (N); null: not judged.

    `wheel` null: the belt itself.
    """

    name: core.UpperName
    wheel: int | None
    limit_n: float | None


class TensionWindowOut(BaseModel):
    """Tensions of one strand of one belt, at rest for fixed centres, N. `governing_*`: the wheel that slips first.

    `empty`: the lowest upper limit lies under the higher of the slip limits running and starting.
    """

    slip_running_n: float
    slip_starting_n: float | None
    slip_jolt_n: float
    target_n: float
    target_low_n: float
    target_high_n: float
    target_new_low_n: float
    target_new_high_n: float
    governing_running: int | None
    governing_starting: int | None
    upper: list[UpperLimitOut]
    empty: bool


@blueprint.post("/window", summary="The tension window of a stage", responses={"200": TensionWindowOut})
@computes()
def calc_window(body: TensionWindowIn) -> Response:
    try:
        found = core.window(_stage(body))
    except core.WindowError as reason:
        raise refuse(reason.field, str(reason)) from None
    except GeometryError as reason:
        raise refuse("wheels", str(reason)) from None
    given = {name: getattr(found, name) for name in TensionWindowOut.model_fields if name != "upper"}
    return answer(TensionWindowOut(**given, upper=[UpperLimitOut(name=u.name, wheel=u.wheel, limit_n=u.limit_n) for u in found.upper]))


def _stage(body: TensionWindowIn) -> core.WindowStage:
    seen = [s.wheel for s in body.shafts]
    if len(set(seen)) < len(seen):
        raise refuse("shafts", "Describe each wheel's shaft once.")
    wheels = tuple(
        core.WindowWheel(
            w.x_m,
            w.y_m,
            w.radius_m,
            w.contact,
            w.friction,
            w.power_w,
            w.speed_rad_per_s,
            math.radians(w.groove_angle_deg) if w.groove_angle_deg is not None else None,
        )
        for w in body.wheels
    )
    plain = {name: getattr(body, name) for name in TensionWindowIn.model_fields if name not in ("wheels", "shafts", "rotation")}
    shafts = tuple(core.Shaft(**s.model_dump()) for s in body.shafts)
    return core.WindowStage(wheels, rotation=1 if body.rotation == "counter-clockwise" else -1, shafts=shafts, **plain)


class GaugeReading(Bare):
    """A spring gauge at mid-span. Tension before the push: its own stretch 2q²/L and the belt's bending are taken off where known."""

    method: Literal["gauge"]
    force_n: Newtons
    deflection_m: Metres
    span_m: Metres
    rigidity_n: float | None = Field(None, ge=0, le=1e9, description="EA of one belt")
    belt_length_m: Metres | None = Field(None, description="shares the stretch, unless the span is held")
    held: bool = Field(False, description="both wheels locked: the span alone stretches")
    bending_n_m2: float | None = Field(None, ge=0, le=1e6, description="EI of one belt")

    def tension(self) -> UFloat:
        if self.rigidity_n and not self.held and self.belt_length_m is None:
            raise refuse("belt_length_m", "Give the belt's length: the whole belt shares the stretch, unless both wheels are held.")
        if self.deflection_m > self.span_m / 4:
            raise refuse("deflection_m", "Push less than a quarter of the span: look at both lengths again.")
        if self.belt_length_m is not None and self.belt_length_m < self.span_m:
            raise refuse("belt_length_m", "The belt is longer than one of its spans: look at both lengths again.")
        return measured.by_gauge(
            measured.usual(self.force_n, "force"),
            measured.usual(self.deflection_m, "deflection"),
            measured.usual(self.span_m, "span"),
            _or_none(self.rigidity_n, "rigidity"),
            self.belt_length_m,
            self.held,
            _or_none(self.bending_n_m2, "bending"),
        )


class StrandGaugeReading(Bare):
    """A gauge that bends the strand between its own posts."""

    method: Literal["strand_gauge"]
    force_n: Newtons
    offset_m: Metres
    half_base_m: Metres = Field(description="from an outer post to the middle one")
    bending_n_m2: float | None = Field(None, ge=0, le=1e6, description="EI of one belt")

    def tension(self) -> UFloat:
        return measured.by_strand_gauge(
            measured.usual(self.force_n, "force"),
            measured.usual(self.offset_m, "offset"),
            measured.usual(self.half_base_m, "base"),
            _or_none(self.bending_n_m2, "bending"),
        )


class NoteReading(Bare):
    """A plucked span's lowest partial, as sounded."""

    method: Literal["note"]
    frequency_hz: float = Field(ge=1e-9, le=1e5)
    span_m: Metres
    mass_kg_per_m: float = Field(ge=1e-9, le=100)
    bending_n_m2: float | None = Field(None, ge=0, le=1e6, description="EI of one belt")
    ends: Literal["pinned", "clamped"] = "pinned"

    def tension(self) -> UFloat:
        return measured.by_note(
            measured.usual(self.frequency_hz, "frequency"),
            measured.usual(self.span_m, "span"),
            measured.usual(self.mass_kg_per_m, "mass"),
            _or_none(self.bending_n_m2, "bending"),
            self.ends,
        )


class ChainSagReading(Bare):
    """A hanging strand of chain: tension where it runs along its chord."""

    method: Literal["chain_sag"]
    sag_m: Metres = Field(description="square to the chord, at its largest")
    chord_m: Metres = Field(description="between the ends of the strand")
    slope_rad: float = Field(0, ge=-math.pi / 2, le=math.pi / 2, description="of the chord, from level")
    mass_kg_per_m: float = Field(ge=1e-9, le=500)

    def tension(self) -> UFloat:
        if abs(self.slope_rad) > STEEPEST_RAD:
            raise refuse("slope_rad", TOO_STEEP)
        if not 1e-6 * self.chord_m <= self.sag_m <= 2 * self.chord_m:
            raise refuse("sag_m", "The sag is a small part of the chord: look at both lengths again.")
        return measured.by_chain_sag(
            measured.usual(self.sag_m, "sag"),
            measured.usual(self.chord_m, "chord"),
            self.slope_rad,
            measured.usual(self.mass_kg_per_m, "mass"),
        )


class IdlerLeverReading(Bare):
    """The pull at an idler's handle that just moves it, at rest."""

    method: Literal["idler_lever"]
    pull_n: Newtons = Field(description="square to the handle")
    handle_m: Metres
    arm_m: Metres = Field(description="from the pivot to the idler's middle")
    wrap_rad: float = Field(ge=1e-9, lt=math.tau)
    off_square_rad: float = Field(0, gt=-math.pi / 2, lt=math.pi / 2, description="between the belt's resultant and the square to the arm")
    belts: Belts = 1

    def tension(self) -> UFloat:
        return measured.by_idler_lever(
            measured.usual(self.pull_n, "force"),
            measured.usual(self.handle_m, "arm"),
            measured.usual(self.arm_m, "arm"),
            measured.usual(self.wrap_rad, "angle"),
            measured.usual(self.off_square_rad, "angle"),
            self.belts,
        )


class WeightedBaseReading(Bare):
    """A pivoted base held by its weight, at rest."""

    method: Literal["weighted_base"]
    weight_n: Newtons
    weight_arm_m: Metres = Field(description="horizontal, from the pivot to the common centre of gravity")
    strand_arms_m: tuple[Metres, Metres] = Field(description="square from the pivot to each strand, both on the side that lifts the weight")
    belts: Belts = 1

    def tension(self) -> UFloat:
        first, second = (measured.usual(a, "arm") for a in self.strand_arms_m)
        return measured.by_weighted_base(
            measured.usual(self.weight_n, "weight"), measured.usual(self.weight_arm_m, "arm"), (first, second), self.belts
        )


class ElongationReading(Bare):
    """Two marks on the belt, slack and fitted."""

    method: Literal["elongation"]
    mark_slack_m: Metres
    mark_stretched_m: Metres
    rigidity_n: float = Field(ge=1e-9, le=1e9, description="EA of one belt")

    def tension(self) -> UFloat:
        return measured.by_elongation(
            measured.usual(self.mark_slack_m, "mark"),
            measured.usual(self.mark_stretched_m, "mark"),
            measured.usual(self.rigidity_n, "rigidity"),
        )


def _method(value: object) -> object:
    return value.get("method") if isinstance(value, dict) else getattr(value, "method", None)


AnyReading = Annotated[
    Annotated[GaugeReading, Tag("gauge")]
    | Annotated[StrandGaugeReading, Tag("strand_gauge")]
    | Annotated[NoteReading, Tag("note")]
    | Annotated[ChainSagReading, Tag("chain_sag")]
    | Annotated[IdlerLeverReading, Tag("idler_lever")]
    | Annotated[WeightedBaseReading, Tag("weighted_base")]
    | Annotated[ElongationReading, Tag("elongation")],
    Discriminator(_method),
]
# The field that a person looks at again where a reading leaves no tension.
_AGAIN = {"gauge": "deflection_m", "strand_gauge": "offset_m", "note": "frequency_hz", "elongation": "mark_stretched_m"}


class TensionReadingIn(RootModel[AnyReading]):
    """A reading by one of the methods, with that method's own fields and no others."""

    @model_validator(mode="wrap")
    @classmethod
    def fields_by_their_own_names(cls, value: object, handler: ModelWrapValidatorHandler["TensionReadingIn"]) -> "TensionReadingIn":
        """What is wrong is said of the field, without the method that it was read as."""
        try:
            return handler(value)
        except ValidationError as error:
            which = PydanticCustomError(
                "method", "Say the method: one of gauge, strand_gauge, note, chain_sag, idler_lever, weighted_base, elongation"
            )
            found = [
                InitErrorDetails(type=e["type"], loc=e["loc"][1:], input=e["input"], ctx=e.get("ctx", {}))
                if e["loc"]
                else InitErrorDetails(type=which, loc=("method",), input=e["input"])
                for e in error.errors(include_url=False)
            ]
            raise ValidationError.from_exception_data(error.title, found) from None


class MeasuredTensionOut(BaseModel):
    """Tension of one strand of one belt, N, and its standard uncertainty (k = 1) by the method's usual tools."""

    tension_n: float
    tension_u_n: float


def _or_none(value: float | None, what: str) -> UFloat | None:
    return measured.usual(value, what) if value else None


@blueprint.post("/reading", summary="Strand tension from a reading", responses={"200": MeasuredTensionOut})
@computes()
def calc_reading(body: TensionReadingIn) -> Response:
    try:
        found = body.root.tension()
    except SlackError as reason:
        raise refuse(_AGAIN[body.root.method], str(reason)) from None
    return answer(MeasuredTensionOut(tension_n=float(found.n), tension_u_n=float(found.s)))


class TensionMoveIn(Bare):
    """An open belt on two wheels as it stands now."""

    tension_now_n: float = Field(ge=0, le=1e7)
    tension_wanted_n: float = Field(ge=0, le=1e7)
    rigidity_n: float = Field(ge=1e-9, le=1e9, description="EA of one belt")
    held_by: HeldBy = "fixed"
    radius_1_m: Metres
    radius_2_m: Metres
    centre_m: Metres
    screw_pitch_m: float | None = Field(None, ge=1e-9, le=0.1)


class TensionMoveOut(BaseModel):
    """Centres apart (+) or together, m, with its standard uncertainty; turns of each screw, of the same sign (null: pitch not known)."""

    centre_change_m: float
    turns: float | None
    centre_change_u_m: float


@blueprint.post("/move", summary="How far to move the centres for a tension", responses={"200": TensionMoveOut})
@computes()
def calc_move(body: TensionMoveIn) -> Response:
    if body.held_by != "fixed":
        raise refuse(
            "held_by", "The spring or weight sets this tension, not the belt's stretch: change the spring, the weight or its arm instead."
        )
    try:
        found = move_for(
            body.tension_now_n, body.tension_wanted_n, body.rigidity_n, body.radius_1_m, body.radius_2_m, body.centre_m, body.screw_pitch_m
        )
    except GeometryError as reason:
        raise refuse("centre_m", str(reason)) from None
    return answer(TensionMoveOut(**found._asdict()))
