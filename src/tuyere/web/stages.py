"""A surveyed layout on the sheet: every stage and shaft, as core/drive/layout/stages.py has them."""

import math
from collections.abc import Mapping

from pydantic import BaseModel

from tuyere.core.basis.figure import shown
from tuyere.core.basis.verdict import Verdict
from tuyere.core.drive.layout.duties import ShaftDuty, StageDuty, TrainDuty, WheelDuty
from tuyere.web.answers import BothOut, both_out


class WheelDutyOut(BaseModel):
    """One wheel of a stage: how fast, how far wrapped, its pull, the belts it wants, when it slips.

    `power`: the belt's there; `shaft`: what of it reaches its shaft.
    """

    name: str
    role: str
    speed: BothOut | None
    wrap: str
    power: BothOut | None
    shaft: BothOut | None
    pull: BothOut | None
    pull_n: float | None
    pull_deg: float | None
    belts: str
    slips_at: str
    why_not: str
    place: int


class StageName(BaseModel):
    """A stage to choose."""

    number: int
    title: str


def named(titles: Mapping[int, str]) -> list[StageName]:
    """Stages by their numbers."""
    return [StageName(number=n, title=title) for n, title in titles.items()]


class StageOut(BaseModel):
    """One belt set on its wheels. `tension`: of one belt at rest, `stated` or the least that carries the powers."""

    number: int
    first: bool
    title: str
    belt: str
    fitted: int
    runs: str
    counted: bool
    needed: int | None
    governs: str
    slips_first: str
    belt_speed: BothOut | None
    ratio: str
    power: BothOut | None
    factor: str
    tension: BothOut | None
    stated: bool
    wheels: list[WheelDutyOut]
    verdicts: list[Verdict]


class TrainShaftOut(BaseModel):
    """A shaft: its wheels, its speed, the driver's speed over its own, and the belts' pulls added as arrows."""

    name: str
    speed: BothOut | None
    ratio: str
    pull: BothOut | None


class TrainOut(BaseModel):
    """Every stage and shaft of a surveyed layout."""

    stages: list[StageOut]
    shafts: list[TrainShaftOut]
    wanted: list[str]


def train_out(train: TrainDuty) -> TrainOut:
    """A train as an answer."""
    return TrainOut(stages=[_stage(s) for s in train.stages], shafts=[_shaft(s) for s in train.shafts], wanted=list(train.wanted))


def _both(value: float | None, kind: str) -> BothOut | None:
    return both_out(value, kind) if value is not None else None


def _stage(s: StageDuty) -> StageOut:
    return StageOut(
        number=s.number,
        first=s.first,
        title=s.title,
        belt=s.belt,
        fitted=s.fitted,
        runs=s.runs,
        counted=s.counted,
        needed=s.needed,
        governs=s.governs,
        slips_first=s.slips_first or "",
        belt_speed=_both(s.belt_speed, "velocity"),
        ratio=f"{s.ratio:.3f}" if s.ratio else "",
        power=_both(s.power_w, "power"),
        factor=f"{s.factor:.2f}" if s.factor else "",
        tension=_both(s.standing_n, "force") if s.runs == "belt" else None,
        stated=s.stated,
        wheels=[_wheel(w, s.counted) for w in s.wheels],
        verdicts=list(s.verdicts),
    )


def _wheel(w: WheelDuty, counted: bool) -> WheelDutyOut:
    """`belts`: how many it wants, or which share it takes of what the whole carries."""
    return WheelDutyOut(
        name=w.name,
        role=w.role,
        speed=_both(w.speed, "rotation"),
        wrap=shown(w.wrap_rad, "angle")[0],
        power=_both(w.power_w, "power") if w.power_w else None,
        shaft=_both(w.shaft_w, "power") if w.power_w and w.role != "driver" else None,
        pull=_both(w.pull_n, "force"),
        pull_n=w.pull_n,
        pull_deg=math.degrees(w.pull_rad) if w.pull_rad is not None else None,
        belts=(f"{w.belts:.2f}" if counted else f"{w.belts:.0%}") if w.belts else "",
        slips_at=f"{w.slips_at:.0%}" if w.slips_at is not None else "",
        why_not=w.why_not,
        place=w.place,
    )


def _shaft(s: ShaftDuty) -> TrainShaftOut:
    return TrainShaftOut(
        name=s.name,
        speed=_both(s.speed, "rotation"),
        ratio=f"{s.ratio:.3f}" if math.isfinite(s.ratio) else "",
        pull=_both(s.pull_n, "force"),
    )
