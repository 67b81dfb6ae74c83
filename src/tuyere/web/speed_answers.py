"""What the questions of Speed answer."""

from typing import Any

from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import shown
from tuyere.core.basis.page import Page
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Verdict
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.stock_wheel import StockWheel
from tuyere.core.stations.speed.cones_form import ConesReading
from tuyere.core.stations.speed.target import TargetPair, Targets, carries, rated, say
from tuyere.record.entry import Entry
from tuyere.web.answers import BothOut, both_out
from tuyere.web.candidate_survey import written_over

Entries = dict[str, Entry]


class Answered(BaseModel):
    """What every answer carries: what the fields understood, their problems, and what to say."""

    verdicts: list[Verdict]
    notes: dict[str, Note]
    problems: list[Problem]


def pair_out(text: tuple[str, str]) -> BothOut:
    return BothOut(us=text[0], si=text[1])


def typed_entries(quantities: Entries) -> dict[str, Typed]:
    return {key: entry.typed() for key, entry in quantities.items()}


class PairOut(BaseModel):
    """One pair of stock wheels: sizes over the rim (or teeth), the speed it gives, and what speaks against it."""

    driver: str
    driven: str
    driver_si: str
    driven_si: str
    driver_m: float
    driven_m: float
    driver_teeth: int | None
    driven_teeth: int | None
    speed: BothOut
    speed_rad_per_s: float
    off: float
    belt: str
    belt_stays: bool
    slide: str
    links: int | None
    fitted: dict[str, Any] = Field(description="the drive's own form with this pair on it")
    centre: BothOut | None
    belt_speed: BothOut | None
    wrap: str
    changes: list[str]
    against: list[str]
    rated: str


class TargetOut(Answered):
    """Pairs, the best first; the size of the stock; the exact wheel of either shaft."""

    pairs: list[PairOut]
    stock: int
    hits: int
    by: str
    exact_driver: BothOut | None
    exact_driven: BothOut | None
    exact_driver_m: float | None
    exact_driven_m: float | None
    rateable: bool
    held: bool


def target_out(
    spec: DriveSpec,
    page: Page,
    reader: FieldReader,
    found: Targets | None,
    target: float | None,
    most: float | None,
    before: dict[str, Any],
) -> TargetOut:
    sizes = (found.exact_driver_m, found.exact_driven_m) if found else (None, None)
    exact_out = [both_out(v, "length", decimals=(3, 1)) if v else None for v in sizes]
    return TargetOut(
        pairs=[_one_pair(p, spec, before) for p in found.pairs] if found else [],
        stock=found.stock if found else 0,
        hits=found.hits if found else 0,
        by=found.by if found else "",
        exact_driver=exact_out[0],
        exact_driven=exact_out[1],
        exact_driver_m=sizes[0],
        exact_driven_m=sizes[1],
        rateable=rated(spec),
        held=found.held if found else False,
        verdicts=say(found, spec, page, target, most),
        notes=reader.notes,
        problems=reader.problems,
    )


def _one_pair(p: TargetPair, spec: DriveSpec, before: dict[str, Any]) -> PairOut:
    def size(w: StockWheel, system: int) -> str:
        return f"{w.teeth} teeth" if w.teeth else shown(w.rim_m, "length", decimals=(2, 1))[system]

    return PairOut(
        driver=size(p.driver, 0),
        driven=size(p.driven, 0),
        driver_si=size(p.driver, 1),
        driven_si=size(p.driven, 1),
        driver_m=p.driver.rim_m,
        driven_m=p.driven.rim_m,
        driver_teeth=p.driver.teeth,
        driven_teeth=p.driven.teeth,
        speed=both_out(p.speed, "rotation"),
        speed_rad_per_s=p.speed,
        off=p.off,
        belt=p.on.belt,
        belt_stays=p.on.stays,
        slide=p.on.slide,
        links=p.on.links,
        fitted=written_over(before, spec.fitted.pair_written(p.driver, p.driven, p.changes, p.on)) if spec.fitted else {},
        centre=both_out(p.on.tight_at, "length", True) if p.on.tight_at else None,
        belt_speed=both_out(p.belt_speed, "velocity") if p.belt_speed else None,
        wrap=shown(p.wrap_rad, "angle")[0] if p.wrap_rad else "",
        changes=list(p.changes),
        against=list(p.against),
        rated=carries(p, spec),
    )


class ConeStepOut(BaseModel):
    """One step as shown and as drawn."""

    number: int
    driving: BothOut
    driven: BothOut
    driving_m: float
    driven_m: float
    ratio: str
    speed: BothOut | None
    length: BothOut
    short: BothOut
    short_m: float


class ConvertedOut(BaseModel):
    """One range before and after."""

    before: BothOut
    after: BothOut
    speed_change: float
    torque: float


class ConesOut(Answered):
    """The steps and the conversions."""

    steps: list[ConeStepOut]
    centre_m: float | None
    conversions: list[ConvertedOut]


def cones_out(found: ConesReading) -> ConesOut:
    return ConesOut(
        steps=[
            ConeStepOut(
                number=s.number,
                driving=pair_out(s.driving),
                driven=pair_out(s.driven),
                driving_m=s.driving_m,
                driven_m=s.driven_m,
                ratio=f"{s.ratio:.3f}",
                speed=pair_out(s.speed) if s.speed else None,
                length=pair_out(s.length),
                short=pair_out(s.short),
                short_m=s.short_m,
            )
            for s in found.steps
        ],
        centre_m=found.centre_m,
        conversions=[
            ConvertedOut(before=pair_out(c.before), after=pair_out(c.after), speed_change=c.speed_change, torque=c.torque)
            for c in found.conversions
        ],
        verdicts=list(found.verdicts),
        notes=found.notes,
        problems=list(found.problems),
    )
