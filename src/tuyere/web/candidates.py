"""POST /api/calc/size/candidates and /why: drives in full, side by side, and the demand that killed one by how much."""

from collections.abc import Callable

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.answer import Answer
from tuyere.core.drive.layout.pair import Pair
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.traits import traits
from tuyere.core.stations.size.as_sheet import spec_of
from tuyere.core.stations.size.candidate import Candidate, CandidateError, at_places, by_key
from tuyere.core.stations.size.conversion import changes, saving
from tuyere.core.stations.size.judge import CONSTRAINTS
from tuyere.record.forms import SurveyForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.candidate_survey import Where, survey_of
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import computes
from tuyere.web.sheet import SheetOut, sheet_out
from tuyere.web.size import Key, SizeIn, Word, kind_named, read, stock_of

blueprint = routes("candidates", "/api/calc", "size", "Choosing a drive across all families, and what it does to its shafts")
_SIDE_BY_SIDE = 4
_SHOCKS = ("heavy", "extra_heavy", "chokable")


class CandidatesIn(SizeIn):
    """Candidates to see in full, by their keys."""

    keys: list[Key] = Field(min_length=1, max_length=_SIDE_BY_SIDE)


class Part(BaseModel):
    """Something to fetch."""

    many: float
    name: str


class Change(BaseModel):
    """One thing that becomes different with another kind of drive."""

    headline: str
    detail: str


class Savings(BaseModel):
    """What another kind of drive saves in a year, by public efficiency figures."""

    before: str
    after: str
    power: BothOut
    energy_kwh: float
    money: float | None
    source: str


class CandidateFull(BaseModel):
    """One candidate as a sheet, what fails of it, its parts, the survey it would make (of `drive_family`), what changes."""

    key: str
    family: str
    drive_family: str
    name: str
    estimate: str
    sheet: SheetOut | None
    failures: list[Verdict]
    parts: list[Part]
    price: str
    survey: SurveyForm | None
    changes: list[Change]
    savings: Savings | None


class CandidatesOut(BaseModel):
    """The candidates asked for, in their order."""

    candidates: list[CandidateFull]


@blueprint.post("/size/candidates", summary="Up to four candidates in full, to one scale", responses={"200": CandidatesOut})
@computes()
def calc_candidates(body: CandidatesIn) -> Response:
    have = stock_of(body)
    return _candidates(body, lambda problem: [by_key(problem, key, have) for key in body.keys])


def _candidates(body: SizeIn, find: Callable[[Demands], list[Candidate]]) -> Response:
    reading, pair, on = read(body)
    if reading.problem is None:
        raise Refusal(
            422,
            "Fill in what is asked first.",
            [FieldError(field="keys", detail=", ".join(reading.missing) or reading.problems[0].sentence)],
        )
    try:
        found = find(reading.problem)
    except CandidateError as reason:
        raise Refusal(422, str(reason), [FieldError(field="keys", detail=str(reason))]) from None
    return answer(CandidatesOut(candidates=[_full(reading.problem, c, pair, on, body) for c in found]))


def _full(problem: Demands, one: Candidate, pair: Pair, on: Answer, body: SizeIn) -> CandidateFull:
    spec = pair.spec
    judged = one.judged(problem)
    sheet = sheet_out(solve(spec_of(problem, one, judged, spec))) if judged.measures else None
    made = judged.measures.length_m if judged.measures else 0.0
    parts = [Part(many=many, name=name) for many, name in one.kind.parts(one.driver, one.driven, one.length, one.count, made)]
    price = one.price(made)
    before = body.size.words.get("before") or _standing(spec)
    old_speed = pair.page.values.get("driven_speed")
    ratio = judged.measures.driven_speed / old_speed.n if judged.measures and old_speed is not None else 1.0
    said = changes(before, one.kind.traits, problem.driven_class in _SHOCKS, ratio) if before in traits() else []
    return CandidateFull(
        key=one.key,
        family=one.kind.family,
        drive_family=one.kind.drive.key,
        name=one.kind.shown(one.count),
        estimate=one.kind.counted_as,
        sheet=sheet,
        failures=[Verdict(f.constraint, Tone.STOP, CONSTRAINTS[f.constraint].capitalize(), f.says) for f in judged.failures],
        parts=parts,
        price="" if price is None else f"{price:,.2f}",
        survey=survey_of(problem, one, judged, body.sheet.survey, Where(body.size.stage, pair, on.train)) if judged.measures else None,
        changes=[Change(headline=h, detail=d) for h, d in said],
        savings=_savings(problem, one, body, before),
    )


def _standing(spec: DriveSpec) -> str:
    """What kind of drive stands now, as its traits are called; empty where nothing does."""
    return spec.fitted.traits if spec.fitted and spec.fitted.known else ""


def _number(text: str) -> float | None:
    try:
        return float(text.strip().rstrip("%").replace(",", "."))
    except ValueError:
        return None


def _savings(problem: Demands, one: Candidate, body: SizeIn, before: str) -> Savings | None:
    words = body.size.words
    if before not in traits():
        return None
    days, load, price = (_number(words.get(k, "")) for k in ("days_a_year", "load", "price_kwh"))
    hours = problem.hours_per_day * min(max(days if days is not None else 250.0, 0.0), 366.0)
    share = min(max((load if load is not None else 75.0) / 100, 0.0), 1.5)
    found = saving(
        problem.power_w,
        share,
        hours,
        price if price is None or 0 <= price < 1000 else None,
        before,
        one.kind.traits,
        words.get("neglected") == "yes",
    )
    return Savings(
        before=_between(found.before_efficiency),
        after=_between(found.after_efficiency),
        power=both_out(found.before_w - found.after_w, "power"),
        energy_kwh=round(found.energy_j / 3.6e6),
        money=None if found.money is None else round(found.money, 2),
        source=found.source,
    )


def _between(pair: tuple[float, float]) -> str:
    return f"{pair[0]:.0%} let go, {pair[1]:.0%} well kept" if pair[0] != pair[1] else f"{pair[1]:.0%}"


class WhyIn(SizeIn):
    """One combination that a person names, by its places in the stock."""

    kind: Word
    driver: int = Field(0, ge=0, le=4000)
    driven: int = Field(0, ge=0, le=4000)
    length: int = Field(0, ge=0, le=4000)
    count: int = Field(0, ge=0, le=100)


@blueprint.post(
    "/size/why", summary="Why a drive was left out: the demand that killed it and by how much", responses={"200": CandidatesOut}
)
@computes()
def calc_why(body: WhyIn) -> Response:
    kind = kind_named(body, body.kind)
    return _candidates(body, lambda problem: [at_places(problem, kind, body.driver, body.driven, body.length, body.count)])
