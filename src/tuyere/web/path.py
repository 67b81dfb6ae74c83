"""POST /api/calc/path: belts round many wheels, from what was typed to the paths, the verdicts and what to draw."""

import math
from typing import Literal

from flask import Response
from pydantic import BaseModel

from tuyere.core.basis.field import Note
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.layout.form import PathReading, read_path
from tuyere.core.drive.layout.keepers import nearest
from tuyere.core.kinds.loop import Loop
from tuyere.core.mechanics.on_wheels.one_belt import PathAnswer, WheelState
from tuyere.core.mechanics.on_wheels.take_up import Reach
from tuyere.core.mechanics.on_wheels.wheels import PathWheel
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.record.forms import WithSurvey
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.routes import routes
from tuyere.web.rules import computes

blueprint = routes("path", "/api/calc", "path", "Belts round any number of wheels")


class LayoutIn(WithSurvey):
    """A survey with a layout of wheels."""


class PlaceOut(BaseModel):
    """A place in the drawing (m, y up)."""

    x_m: float
    y_m: float


class DrawnPathWheel(BaseModel):
    """One wheel to draw (m, y up): where the belt meets it and how far it wraps (rad), how it turns, and what to write beside it.

    `edge_on`: seen from the side, as behind a quarter turn. `shares`: the wheel (from 1) whose shaft it sits on, 0 for its own.
    """

    name: str
    belt: int
    role: str
    contact: str
    face: str
    x_m: float
    y_m: float
    rim_radius_m: float
    line_radius_m: float
    diameter: BothOut
    turns: Literal[-1, 0, 1]
    from_rad: float
    wrap_rad: float
    wrap: str
    speed: BothOut | None
    rim_speed: BothOut | None
    shares: int
    edge_on: bool


class DrawnRun(BaseModel):
    """One run of a belt (m), its length as shown, and whether it is the tightest or the slackest under load."""

    x1_m: float
    y1_m: float
    x2_m: float
    y2_m: float
    length: BothOut
    pull: Literal["", "tight", "slack"]


class TakeUpStop(BaseModel):
    """Where a take-up stands for one belt: how far from where it was measured (tighter above 0), or why it cannot."""

    belt: str
    at: PlaceOut | None
    travel: BothOut | None
    way: Literal["", "tighter", "slacker"]
    problem: str


class DrawnTakeUp(BaseModel):
    """The movement of a wheel (its place among those drawn): its track, and where it stands for the belts nearest in length."""

    wheel: int
    track: list[PlaceOut]
    belts: list[TakeUpStop]


class DrawnCarriage(BaseModel):
    """A carriage between its clamps, and the spans beside it."""

    near: PlaceOut
    far: PlaceOut
    near_span: BothOut
    far_span: BothOut
    belt: BothOut


class LayoutBelt(BaseModel):
    """One belt or chain (`goes_round`): wheels (places among those drawn) and runs in the order it meets them from the driver.

    `pace`: its speed over the first one's.
    """

    number: int
    goes_round: str
    order: list[int]
    runs: list[DrawnRun]
    height_m: float
    back_m: float
    length: BothOut | None
    nearest: list[str]
    needs: BothOut | None
    slip_order: list[str]
    pace: float


class DrawnKeeper(BaseModel):
    """A keeper to draw, the nearest place of the belt, the face of the belt it should see, and how it was judged."""

    name: str
    belt: int
    at: PlaceOut | None
    foot: PlaceOut | None
    side: str
    state: str
    tone: str


class SharedShaft(BaseModel):
    """A shaft with several wheels: who sits on it, its speed, and what the belts pull it with together."""

    wheels: list[int]
    speed: BothOut | None
    pull: BothOut | None
    towards_deg: float | None


class LayoutOut(BaseModel):
    """The layout to draw and to say. Wheels are given as soon as they have places, runs once a belt can run."""

    wheels: list[DrawnPathWheel]
    belts: list[LayoutBelt]
    take_ups: list[DrawnTakeUp]
    keepers: list[DrawnKeeper]
    carriage: DrawnCarriage | None
    shafts: list[SharedShaft]
    verdicts: list[Verdict]
    notes: dict[str, Note]
    problems: list[Problem]


@blueprint.post("/path", summary="Belts round many wheels", responses={"200": LayoutOut})
@computes()
def calc_path(body: LayoutIn) -> Response:
    return answer(layout_out(read_path(body.survey.typed().path)))


def layout_out(reading: PathReading) -> LayoutOut:
    """A layout as the drawing takes it."""
    answers = reading.train.belts if reading.train else ()
    paces = reading.train.paces if reading.train else ()
    belts = [_belt(b, a, reading.belts[b] if reading.belts else None, reading.places[b], paces[b]) for b, a in enumerate(answers)]
    return LayoutOut(
        wheels=[_wheel(i, w, reading) for i, w in enumerate(reading.wheels)],
        belts=belts,
        take_ups=[_take_up(r, a, reading.belts[b], reading.places[b][a.order[r.wheel]]) for b, a in enumerate(answers) for r in a.reaches],
        keepers=_keepers(reading),
        carriage=_carriage(answers[0]) if answers else None,
        shafts=_shafts(reading),
        verdicts=list(reading.verdicts),
        notes=reading.notes,
        problems=list(reading.problems),
    )


def _wheel(i: int, w: PathWheel, reading: PathReading) -> DrawnPathWheel:
    b = next(b for b, places in enumerate(reading.places) if i in places)
    found = reading.train.belts[b] if reading.train else None
    in_belt = reading.places[b].index(i)
    state: WheelState | None = None
    x, y, start, edge_on = w.x_m, w.y_m, 0.0, False
    if found and found.path:
        k = found.order.index(in_belt)
        state, arrive = found.wheels[k], found.path.runs[k - 1]
        start = math.atan2(arrive.y2_m - y, arrive.x2_m - x)
        edge_on = found.quarter is not None and k == 1
        x, y = found.path.pulleys[k].x_m, found.path.pulleys[k].y_m
    speed = state.speed_rad_per_s if state else None
    return DrawnPathWheel(
        name=w.name,
        belt=b + 1,
        role=w.role,
        contact=w.contact,
        face=w.face,
        x_m=x,
        y_m=y,
        rim_radius_m=w.rim_radius_m,
        line_radius_m=w.line_radius_m,
        diameter=both_out(2 * w.rim_radius_m, "length", True),
        turns=(1 if state.turns > 0 else -1) if state else 0,
        from_rad=start,
        wrap_rad=state.wrap_rad if state else 0.0,
        wrap=f"{math.degrees(state.wrap_rad):.0f}°" if state else "",
        speed=both_out(speed, "rotation") if speed else None,
        rim_speed=both_out(speed * w.rim_radius_m, "velocity") if speed else None,
        shares=w.shaft + 1 if w.shaft != i else 0,
        edge_on=edge_on,
    )


def _belt(b: int, found: PathAnswer, loop: Loop | None, places: tuple[int, ...], pace: float) -> LayoutBelt:
    length = found.carriage.belt_m if found.carriage else found.length_m
    nearest = loop.nearest(length) if loop and length and not found.carriage else ()
    margins = sorted((s.slips_at, s.name) for s in found.wheels if s.slips_at is not None)
    return LayoutBelt(
        number=b + 1,
        goes_round=loop.family.runs if loop else "belt",
        order=[places[i] for i in found.order],
        runs=_runs(found),
        height_m=sum(loop.faces) if loop else 0.01,
        back_m=loop.faces[1] if loop else 0.0,
        length=both_out(length, "length", decimals=(1, 0)) if length else None,
        nearest=[n.name for n in nearest],
        needs=both_out(found.needed_n / loop.count, "force") if loop and loop.slips and found.needed_n else None,
        slip_order=[name for _, name in margins],
        pace=pace,
    )


def _runs(found: PathAnswer) -> list[DrawnRun]:
    drawn = []
    for i, r in enumerate(found.path.runs if found.path else ()):
        pull: Literal["", "tight", "slack"] = "tight" if i == found.tight_run else "slack" if i == found.slack_run else ""
        drawn.append(DrawnRun(x1_m=r.x1_m, y1_m=r.y1_m, x2_m=r.x2_m, y2_m=r.y2_m, length=both_out(r.length_m, "length", True), pull=pull))
    return drawn


def _take_up(reach: Reach, found: PathAnswer, loop: Loop, wheel: int) -> DrawnTakeUp:
    """The track, and a stop for the one that is on and for those nearest in length that can be had."""
    assert found.path
    belts = {n.name: n for n in (loop.made, *loop.nearest(found.path.length_m)) if n}
    return DrawnTakeUp(
        wheel=wheel,
        track=[PlaceOut(x_m=x, y_m=y) for x, y in reach.track],
        belts=[_stop(name, n.length_m, reach, found) for name, n in sorted(belts.items(), key=lambda pair: pair[1].length_m)],
    )


def _stop(name: str, length_m: float, reach: Reach, found: PathAnswer) -> TakeUpStop:
    assert found.path
    try:
        travel = reach.travel_for(found.path, length_m)
    except GeometryError as reason:
        return TakeUpStop(belt=name, at=None, travel=None, way="", problem=str(reason))
    x, y = reach.mover(travel)
    way: Literal["", "tighter", "slacker"] = "" if abs(travel) < 0.0004 else "tighter" if travel > 0 else "slacker"
    return TakeUpStop(belt=name, at=PlaceOut(x_m=x, y_m=y), travel=both_out(abs(travel), "length", True), way=way, problem="")


def _keepers(reading: PathReading) -> list[DrawnKeeper]:
    drawn = []
    for b, k, judged in reading.keepers:
        path = reading.train.belts[b].path if reading.train else None
        at = PlaceOut(x_m=k.x_m, y_m=k.y_m) if k.x_m is not None and k.y_m is not None else None
        foot = nearest(path, at.x_m, at.y_m) if path and at else None
        drawn.append(
            DrawnKeeper(
                name=k.name,
                belt=b + 1,
                at=at,
                foot=PlaceOut(x_m=foot.x_m, y_m=foot.y_m) if foot else None,
                side=k.side,
                state=k.state,
                tone=judged.tone if judged else Tone.OPEN,
            )
        )
    return drawn


def _carriage(found: PathAnswer) -> DrawnCarriage | None:
    if not (found.carriage and found.path):
        return None
    state, run = found.carriage, found.path.runs[found.carriage.run]

    def at(s: float) -> PlaceOut:
        return PlaceOut(x_m=run.x1_m + s * math.cos(run.direction_rad), y_m=run.y1_m + s * math.sin(run.direction_rad))

    return DrawnCarriage(
        near=at(state.near_span_m),
        far=at(run.length_m - state.far_span_m),
        near_span=both_out(state.near_span_m, "length", True),
        far_span=both_out(state.far_span_m, "length", True),
        belt=both_out(state.belt_m, "length", decimals=(1, 0)),
    )


def _shafts(reading: PathReading) -> list[SharedShaft]:
    drawn = []
    for s in reading.train.shafts if reading.train else ():
        force = s.force_n
        drawn.append(
            SharedShaft(
                wheels=[reading.places[b][i] for b, i in s.wheels],
                speed=both_out(s.speed_rad_per_s, "rotation") if s.speed_rad_per_s else None,
                pull=both_out(force, "force") if force is not None else None,
                towards_deg=math.degrees(math.atan2(s.pull_n[1], s.pull_n[0])) % 360 if s.pull_n else None,
            )
        )
    return drawn
