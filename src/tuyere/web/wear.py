"""Wear as open calculations: what was measured against its limit, and when the limit will come. Bare numbers."""

import math
from datetime import date
from typing import Annotated

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.kinds.wear_limits import Dogs, Worn, elongation, judge, judge_dogs, limit_of, whats
from tuyere.core.stations.inspect.wear.forecast import Bend, forecast
from tuyere.web.answers import answer
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.tension import Bare, refuse

blueprint = routes("wear", "/api/calc", "inspect", "How worn, and when the limit comes")

Share = Annotated[float, Field(ge=-0.5, le=2)]


class WearIn(Bare):
    """What was measured: `value`, or of a chain or dogs what lies over so many pitches.

    `value`: m, a share or a count, as its limit is; by eye 0 where it is not there, 0.7 where it begins, 1 where it is there.
    `what`: see the description. Dogs: `value` (or the span) of the dogs, `chain` of the conveyor chain they drive, shares longer than new.
    """

    what: str = Field(max_length=40, description="one of: " + ", ".join(whats()))
    value: float | None = Field(None, ge=-1, le=400)
    measured_m: float | None = Field(None, ge=1e-4, le=100)
    pitches: int | None = Field(None, ge=1, le=10000)
    pitch_m: float | None = Field(None, ge=1e-4, le=10)
    narrow: bool = Field(False, description="narrow, joined or ribbed belts")
    fixed_centres: bool = Field(False, description="fixed centres, timed or critical")
    large_teeth: int | None = Field(None, ge=5, le=1000, description="of a chain's large sprocket")
    chain: Share | None = Field(None, description="of dogs: how much longer the conveyor chain is")
    limit: float | None = Field(None, ge=1e-6, le=10, description="the manual's own, in place of the table's")


class WearOut(BaseModel):
    """How far to its limit (1: at it), the limit (m or share), and what to do."""

    value: float
    limit: float
    unit: str
    share_of_limit: float
    tone: str
    verdict: str
    detail: str
    measured: str
    source: str
    confidence: str


@blueprint.post("/wear", summary="Measured wear against its limit", responses={"200": WearOut})
@computes()
def calc_wear(body: WearIn) -> Response:
    if body.what not in whats():
        raise refuse("what", "Say what was measured: one of " + ", ".join(whats()) + ".")
    value = body.value
    if value is None and body.measured_m is not None and body.pitches is not None and body.pitch_m is not None:
        value = elongation(body.measured_m, body.pitches, body.pitch_m)
    if value is None:
        raise refuse("value", "Give the measured value, or of a chain the length over so many pitches and its pitch.")
    worn = _judged(body, value)
    limit = worn.limit
    return answer(
        WearOut(
            value=value,
            limit=limit.limit,
            unit=limit.unit,
            share_of_limit=worn.share,
            tone=worn.tone.value,
            verdict=worn.headline,
            detail=worn.detail,
            measured=limit.measured,
            source=limit.source,
            confidence=limit.confidence,
        )
    )


def _judged(body: WearIn, value: float) -> Worn:
    limit = limit_of(body.what, body.narrow, body.fixed_centres, body.large_teeth)
    if body.limit is not None:
        limit = limit._replace(limit=body.limit, source="the machine's manual, as typed", confidence="high")
    if body.what == "dogs" and body.chain is not None:
        return judge_dogs(Dogs(value, body.chain))
    return judge(value, limit)


class WearReading(Bare):
    """One reading: its day, the hours on the meter, the value (null: taken, not readable)."""

    date: date
    hours: float = Field(ge=0, le=1e7)
    value: float | None = Field(None, ge=-1e6, le=1e6)


class ForecastIn(Bare):
    """Readings of one part toward its limit, in one unit. Hours count since it was new, its wear nought; else from `start_hours`."""

    readings: list[WearReading] = Field(max_length=500)
    limit: float = Field(ge=-1e6, le=1e6)
    kind: Bend = ""
    start_hours: float = Field(0, ge=0, le=1e7)
    start_value: float = Field(0, ge=-1e6, le=1e6)


class ForecastOut(BaseModel):
    """Hours on the same meter at which the limit comes: low, middle, high (5, 50, 95 %; high null: open); null with why it cannot be."""

    hours_at_limit: list[float | None] | None
    refused: str = ""


@blueprint.post("/wear-forecast", summary="When the limit comes, with a band", responses={"200": ForecastOut})
@computes()
def calc_forecast(body: ForecastIn) -> Response:
    hours, values = [r.hours for r in body.readings], [r.value for r in body.readings]
    found = forecast(hours, values, body.limit, body.kind, body.start_hours, body.start_value)
    if found.refused or found.low is None or found.middle is None or not math.isfinite(found.middle):
        return answer(ForecastOut(hours_at_limit=None, refused=found.refused or "It wears too little to say when."))
    return answer(ForecastOut(hours_at_limit=[found.low, found.middle, found.high]))
