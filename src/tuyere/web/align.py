"""POST /api/calc/align: the errors out of readings of any method, and the moves of the feet that mend them. Bare SI numbers."""

import math
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Discriminator, Field, Tag

from tuyere.core.stations.align import readings as core
from tuyere.core.stations.align.base import base_of, bases
from tuyere.core.stations.align.moves import NOT_MOVED, Feet, in_steps, moves_for
from tuyere.core.stations.align.readings import Equations, WheelPair
from tuyere.core.stations.align.tolerance import kinds, tolerance
from tuyere.core.stations.align.words import AtFeet, corrections
from tuyere.web.answers import answer
from tuyere.web.errors import TAGS
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.tension import Bare, Metres, refuse

blueprint = routes("align", "/api/calc", "align", "Whether two wheels run in one plane, and what to move")

Place = Annotated[float, Field(ge=-1, le=1)]
Gap = Annotated[float, Field(ge=0, le=1)]
Gaps = Annotated[list[Gap], Field(min_length=4, max_length=4)]
ReadingU = Annotated[float | None, Field(ge=1e-9, le=0.1, description="standard uncertainty of each of its figures")]


class StraightedgeIn(Bare):
    """A rigid edge on the +x faces: gaps at [stationary far rim, stationary near, movable near, movable far], 0 where it touches."""

    method: Literal["straightedge"]
    gaps_m: Gaps
    reading_u_m: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        return core.by_edge(pair, self.gaps_m, self.reading_u_m or core.USUAL_U["straightedge"])


class StringIn(Bare):
    """A taut thread held on points 1 and 4: the same gaps; where one at 2 or 3 is 0 it may bend there."""

    method: Literal["string"]
    gaps_m: Gaps
    reading_u_m: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        return core.by_string(pair, self.gaps_m, self.reading_u_m or core.USUAL_U["string"])


class ClockIn(Bare):
    """The movable face at v and -v from the plane of the stationary face, + toward +x."""

    method: Literal["clock"]
    top_m: Place
    bottom_m: Place
    reading_u_m: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        return core.by_clock(pair, self.top_m, self.bottom_m, self.reading_u_m or core.USUAL_U["clock"])


class OneHeadIn(Bare):
    """The movable face's own place at u, -u, v and -v from the plane of the stationary face, + toward +x: not where a line falls on it."""

    method: Literal["one_head"]
    toward_m: Place
    away_m: Place
    top_m: Place
    bottom_m: Place
    reading_u_m: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        u = self.reading_u_m or core.USUAL_U["one_head"]
        return core.by_one_head(pair, self.toward_m, self.away_m, self.top_m, self.bottom_m, u)


class TwoHeadsIn(Bare):
    """Two heads that face each other: each wheel's own place from the other's plane, both + toward +x.

    On a target the line falls on the other side: + out there is - here. `tilt_m`: the movable wheel's lean, v side minus other, over
    `target_height_m`.
    """

    method: Literal["two_heads"]
    at_movable_m: Place
    at_stationary_m: Place
    tilt_m: Place | None = None
    target_height_m: Metres | None = None
    reference: core.Reference = "groove"
    reading_u_m: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        if self.tilt_m is not None and self.target_height_m is None:
            raise refuse("target_height_m", "Give the height over which the tilt was read.")
        u = self.reading_u_m or core.USUAL_U["two_heads"]
        return core.by_two_heads(pair, self.at_movable_m, self.at_stationary_m, self.tilt_m, self.target_height_m or 1.0, self.reference, u)


class LevelIn(Bare):
    """Both shafts by a level, + when the +x end is high."""

    method: Literal["level"]
    stationary_rad: float = Field(ge=-0.5, le=0.5)
    movable_rad: float = Field(ge=-0.5, le=0.5)
    reading_u_rad: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        return core.by_level(pair, self.stationary_rad, self.movable_rad, self.reading_u_rad or core.LEVEL_U_RAD)


class TapeIn(Bare):
    """From shaft to shaft at two places, the outer farther toward +x."""

    method: Literal["tape"]
    outer_m: Metres
    inner_m: Metres
    apart_m: Metres
    reading_u_m: ReadingU = None

    def equations(self, pair: WheelPair) -> Equations:
        return core.by_tape(self.outer_m, self.inner_m, self.apart_m, self.reading_u_m or core.USUAL_U["tape"])


TAGS.update(("straightedge", "string", "clock", "one_head", "two_heads", "level", "tape"))
_METHODS = ("straightedge", "string", "clock", "one_head", "two_heads", "level", "tape")


def _method(value: object) -> object:
    found = value.get("method") if isinstance(value, dict) else getattr(value, "method", None)
    return found if found in _METHODS else "straightedge"  # whose own method then refuses it in words


AlignReading = Annotated[
    Annotated[StraightedgeIn, Tag("straightedge")]
    | Annotated[StringIn, Tag("string")]
    | Annotated[ClockIn, Tag("clock")]
    | Annotated[OneHeadIn, Tag("one_head")]
    | Annotated[TwoHeadsIn, Tag("two_heads")]
    | Annotated[LevelIn, Tag("level")]
    | Annotated[TapeIn, Tag("tape")],
    Discriminator(_method),
]


class FeetIn(Bare):
    """From the wheel to the front feet, front to back, left to right, and how far they lie below the shaft."""

    a_m: float = Field(ge=-2, le=10)
    b_m: Metres
    width_m: Metres
    height_m: float = Field(ge=0, le=10)


class PairIn(Bare):
    """The two wheels.

    Axes: x along the stationary shaft, from the movable machine's body out through its wheel; z up; y = z × x.
    """

    slope_rad: float = Field(gt=-math.pi - 1e-9, le=math.pi + 1e-9, description="of u, movable to stationary wheel, from +y toward +z")
    centre_m: Metres
    stationary_radius_m: Metres = Field(description="where the edge or head touches the face")
    movable_radius_m: Metres = Field(description="where the edge or head touches the face")
    stationary_face_to_groove_m: Place = 0
    movable_face_to_groove_m: Place = 0

    def pair(self) -> WheelPair:
        """As the core takes them."""
        return WheelPair(**{k: getattr(self, k) for k in PairIn.model_fields})


class AlignIn(PairIn):
    """The two wheels and what was read, together."""

    feet: FeetIn | None = None
    readings: list[AlignReading] = Field(min_length=1, max_length=40)
    shim_step_m: float | None = Field(None, ge=1e-6, le=0.01)
    shims_now_m: Annotated[list[Gap], Field(min_length=4, max_length=4)] | None = None
    base: str = Field("", max_length=40, description="what it stands on: " + ", ".join(b.key for b in bases()))
    kind: str = Field("v-belt", max_length=40, description="whose tolerance holds: " + ", ".join(kinds()))


class AlignOut(BaseModel):
    """Errors of the movable wheel with uncertainty (k = 1) and tolerance; the moves as one set; the corrections in order.

    null: the readings do not settle it.
    """

    angle_rad: float | None
    angle_u_rad: float | None
    angle_tolerance_rad: float
    twist_rad: float | None
    twist_u_rad: float | None
    twist_tolerance_rad: float
    offset_m: float | None
    offset_u_m: float | None
    offset_tolerance_m: float
    shims_m: list[float] | None
    jack_front_m: float | None
    jack_back_m: float | None
    slide_m: float | None
    centre_change_m: float | None
    words: list[str]


@blueprint.post("/align", summary="Alignment out of readings, and the moves that mend it", responses={"200": AlignOut})
@computes()
def calc_align(body: AlignIn) -> Response:
    if body.kind not in kinds():
        raise refuse("kind", "Say the kind of drive: one of " + ", ".join(kinds()) + ".")
    if body.stationary_radius_m + body.movable_radius_m >= body.centre_m:
        raise refuse("centre_m", "So near, the wheels would overlap: measure from shaft to shaft.")
    pair = body.pair()
    errors = core.solve([r.equations(pair) for r in body.readings])
    allowed = tolerance(body.kind, body.centre_m)
    feet = Feet(**body.feet.model_dump()) if body.feet else None
    moves = moves_for(errors, feet, body.slope_rad, in_steps(body.shim_step_m), body.shims_now_m or ()) if feet else NOT_MOVED
    at = AtFeet(base_of(body.base), None, body.shims_now_m or ())
    return answer(
        AlignOut(
            angle_rad=errors.angle_rad,
            angle_u_rad=errors.angle_u_rad,
            angle_tolerance_rad=allowed.angle_rad,
            twist_rad=errors.twist_rad,
            twist_u_rad=errors.twist_u_rad,
            twist_tolerance_rad=allowed.angle_rad,
            offset_m=errors.offset_m,
            offset_u_m=errors.offset_u_m,
            offset_tolerance_m=allowed.offset_m,
            shims_m=list(moves.shims_m) if moves.shims_m else None,
            jack_front_m=moves.jack_front_m,
            jack_back_m=moves.jack_back_m,
            slide_m=moves.slide_m,
            centre_change_m=moves.centre_change_m,
            words=corrections(errors, moves, allowed, body.slope_rad, at),
        )
    )
