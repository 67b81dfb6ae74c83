"""POST /api/calc/path: a drive on many wheels, from what was typed to the path, its verdicts and what to draw."""

import math
from typing import Literal

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field

from tuyere.core.families import v_belt
from tuyere.core.path_drive import PathAnswer, PathWheel
from tuyere.core.path_form import PathReading, read_path
from tuyere.core.sheet.field import Note
from tuyere.core.sheet.figure import shown
from tuyere.core.sheet.verdict import Problem, Verdict
from tuyere.web.calc import answer
from tuyere.web.errors import ProblemOut
from tuyere.web.forms import Strict, SurveyForm, typed_path
from tuyere.web.rules import anyone

blueprint = APIBlueprint(
    "path",
    __name__,
    url_prefix="/api/calc",
    abp_tags=[Tag(name="path", description="A belt round any number of wheels")],
    abp_responses={"422": ProblemOut},
)


class LayoutIn(Strict):
    """A survey with a layout of wheels."""

    survey: SurveyForm = Field(default_factory=SurveyForm)


class BothOut(BaseModel):
    """A figure in both systems."""

    us: str
    si: str


class DrawnPathWheel(BaseModel):
    """One wheel to draw (m, y up): where the belt meets and leaves it (rad), how it turns, and its wrap as shown."""

    name: str
    role: str
    contact: str
    face: str
    x_m: float
    y_m: float
    rim_radius_m: float
    line_radius_m: float
    turns: Literal[-1, 0, 1]
    from_rad: float
    wrap_rad: float
    wrap: str


class DrawnRun(BaseModel):
    """One run of the belt (m), its length as shown, and whether it is the tightest or the slackest under load."""

    x1_m: float
    y1_m: float
    x2_m: float
    y2_m: float
    length: BothOut
    pull: Literal["", "tight", "slack"]


class LayoutOut(BaseModel):
    """The path to draw and to say. Wheels are given as soon as they have places, runs once the belt can run."""

    wheels: list[DrawnPathWheel]
    runs: list[DrawnRun]
    belt_height_m: float
    back_m: float
    length: BothOut | None
    belts: list[str]
    verdicts: list[Verdict]
    notes: dict[str, Note]
    problems: list[Problem]


@blueprint.post("/path", summary="A belt round many wheels", responses={"200": LayoutOut})
@anyone()
def calc_path(body: LayoutIn) -> Response:
    return answer(layout_out(read_path(typed_path(body.survey)), body.survey.choices.section))


def layout_out(reading: PathReading, section_name: str) -> LayoutOut:
    """A layout as the drawing takes it."""
    try:
        belt = v_belt.section(section_name) if section_name.strip() else None
    except v_belt.BeltError:
        belt = None
    solved = reading.answer
    length = solved.length_m if solved else None
    rows = v_belt.grooves_of(belt.groove, "standard") if belt else ()
    return LayoutOut(
        wheels=_wheels(reading.wheels, solved),
        runs=_runs(solved),
        belt_height_m=belt.height_m if belt else 0.01,
        back_m=max(0.0, rows[0].two_hd_m / 2) if rows else 0.0,
        length=BothOut(**dict(zip(("us", "si"), shown(length, "length", decimals=(1, 0)), strict=True))) if length else None,
        belts=[b.designation for b in v_belt.nearest_belts(belt, length) if b] if belt and length else [],
        verdicts=list(reading.verdicts),
        notes=reading.notes,
        problems=list(reading.problems),
    )


def _wheels(wheels: tuple[PathWheel, ...], solved: PathAnswer | None) -> list[DrawnPathWheel]:
    path = solved.path if solved else None
    # The path begins at the driver; the wheels stand as typed.
    start = next((i for i, w in enumerate(wheels) if w.role == "driver"), 0)
    found = []
    for i, w in enumerate(wheels):
        k = (i - start) % len(wheels)
        p = path.pulleys[k] if path else None
        arrive = path.runs[k - 1] if path else None
        found.append(
            DrawnPathWheel(
                name=w.name,
                role=w.role,
                contact=w.contact,
                face=w.face,
                x_m=w.x_m,
                y_m=w.y_m,
                rim_radius_m=w.rim_radius_m,
                line_radius_m=w.line_radius_m,
                turns=(1 if p.turns > 0 else -1) if p else 0,
                from_rad=math.atan2(arrive.y2_m - w.y_m, arrive.x2_m - w.x_m) if arrive else 0.0,
                wrap_rad=path.wraps_rad[k] if path else 0.0,
                wrap=f"{math.degrees(path.wraps_rad[k]):.0f}°" if path else "",
            )
        )
    return found


def _runs(solved: PathAnswer | None) -> list[DrawnRun]:
    if not (solved and solved.path):
        return []
    found = []
    for i, r in enumerate(solved.path.runs):
        us, si = shown(r.length_m, "length", to_set=True)
        pull: Literal["", "tight", "slack"] = "tight" if i == solved.tight_run else "slack" if i == solved.slack_run else ""
        found.append(DrawnRun(x1_m=r.x1_m, y1_m=r.y1_m, x2_m=r.x2_m, y2_m=r.y2_m, length=BothOut(us=us, si=si), pull=pull))
    return found
