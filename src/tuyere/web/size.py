"""POST /api/calc/size...: every stock drive that would do, one or more of them in full, why one was left out, and what a shaft feels."""

from functools import cache
from typing import Annotated

import numpy as np
from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import MANY
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.units import KINDS
from tuyere.core.basis.verdict import Problem as Refused
from tuyere.core.drive.answer import Answer
from tuyere.core.drive.layout.form import MOST_BELTS
from tuyere.core.drive.layout.pair import Pair
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.motor import frames
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS
from tuyere.core.kinds.traits import traits
from tuyere.core.stations.size.candidate import nearest, relaxed, sides
from tuyere.core.stations.size.form import SizeReading, read_size
from tuyere.core.stations.size.judge import CONSTRAINTS
from tuyere.core.stations.size.rank import AXES, WISHES, Wishes, best_of_each, listed, pareto, rank
from tuyere.core.stations.size.rank import USUAL as USUAL_WEIGHTS
from tuyere.core.stations.size.rank import Field as Ranked
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.shelf import Which, stock
from tuyere.core.stations.size.stock import choices, usual
from tuyere.record.entry import Entry, Strict
from tuyere.record.forms import SheetForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, computes
from tuyere.web.shop import the_shop
from tuyere.web.surveyed import answer_of

blueprint = routes("size", "/api/calc", "size", "Choosing a drive across all families, and what it does to its shafts")
_LISTED, _OF_A_KIND, _POINTS = 80, 6, 500
Word = Annotated[str, Field(max_length=60)]
Key = Annotated[str, Field(max_length=300)]


class SizeForm(Strict):
    """What is asked of a drive: quantities and words by field, families and kinds allowed, which stock, weights by wish."""

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=30)
    words: dict[str, Word] = Field(default_factory=dict, max_length=40)
    families: list[Word] = Field(default_factory=list, max_length=20)
    kinds: list[Word] = Field(default_factory=list, max_length=200)
    stage: int = Field(1, ge=1, le=MOST_BELTS, description="which stage of a train it is for, from 1")
    stock: Which = "common"
    weights: dict[str, Annotated[float, Field(ge=0, le=5)]] = Field(default_factory=dict, max_length=30)
    x: Word = "pull"
    y: Word = "width"


class SizeIn(Strict):
    """A sheet (whatever of it is known) and what is asked."""

    sheet: SheetForm = Field(default_factory=SheetForm)
    size: SizeForm = Field(default_factory=SizeForm)


class Killed(BaseModel):
    """How many combinations one demand ruled out first."""

    constraint: str
    says: str
    count: int


class Listed(BaseModel):
    """One candidate in the list: what it is, and what it is like. `best`: nothing beats it on both axes of the plot."""

    key: str
    family: str
    name: str
    driver: str
    driven: str
    length: str
    estimate: str
    caution: str
    score: float
    best: bool
    margin: str
    speed: BothOut
    off: str
    centre: BothOut
    pull: BothOut
    width: BothOut
    belt_speed: BothOut
    loss: BothOut
    price: str


class Dot(BaseModel):
    """One candidate on the plot, in SI, with the key that finds it in the list."""

    key: str
    family: str
    x: float
    y: float
    best: bool
    says: str


class Axis(BaseModel):
    """An axis of the plot: how it is called, its unit in both systems and what one SI unit is in them, and whether more is better."""

    key: str
    says: str
    us_unit: str
    si_unit: str
    us_factor: float
    si_factor: float
    more: bool


class Eased(BaseModel):
    """What giving way on one demand would let in."""

    constraint: str
    says: str
    lets_in: int


class SearchOut(BaseModel):
    """The answer: what was understood and taken from the survey, how many hold, the list and the plot, and what ruled out the rest."""

    notes: dict[str, Note]
    problems: list[Refused]
    from_survey: dict[str, BothOut]
    missing: list[str]
    not_judged: list[str]
    looked_at: int
    feasible: int
    by_family: dict[str, int]
    killed: list[Killed]
    eased: list[Eased]
    listed: list[Listed]
    dots: list[Dot]
    x: Axis
    y: Axis


@cache
def axis_of(key: str, says: str, kind: str, more: bool) -> Axis:
    """An axis of a plot, with its units."""
    if kind in ("share", "money"):
        unit, factor = ("%", 100) if kind == "share" else ("", 1)
        return Axis(key=key, says=says, us_unit=unit, si_unit=unit, us_factor=factor, si_factor=factor, more=more)
    k = KINDS[kind]
    us, si = (1 / to_si(1, kind, symbol) for symbol in (k.us_symbol, k.si_symbol))
    return Axis(key=key, says=says, us_unit=k.us_symbol, si_unit=k.si_symbol, us_factor=us, si_factor=si, more=more)


def read(body: SizeIn) -> tuple[SizeReading, Pair, Answer]:
    """What is asked, and the two wheels that stand there now."""
    on = answer_of(body.sheet.survey, body.sheet.tachometer)
    pair, quantities = on.pair(body.size.stage), {k: e.typed() for k, e in body.size.quantities.items()}
    if pair is None:
        refused = Refused("stage", "Choose a stage of two wheels that runs: a belt on more is tried wheel by wheel, under As fitted.")
        return SizeReading(None, {}, (refused,), {}, ()), Pair(on.spec, on.page), on
    return read_size(quantities, body.size.words, body.size.families, body.size.kinds, pair.spec, pair.page), pair, on


def stock_of(body: SizeIn) -> tuple[Choosable, ...]:
    """What is searched: the common sizes, or the shop's own list or shelf, rated by its own tables where it has any."""
    shop = the_shop()
    return stock(shop.ratings, shop.parts, body.size.stock)


def kind_named(body: SizeIn, name: str) -> Choosable:
    """One kind of what is searched; refuses a name that is not among them."""
    found = next((k for k in stock_of(body) if k.name == name), None)
    if found is None:
        raise Refusal(422, "Choose a kind of belt or chain from the list.", [FieldError(field="kind", detail="Choose one from the list.")])
    return found


@blueprint.post("/size", summary="Every stock drive that would do, ranked, and what ruled out the rest", responses={"200": SearchOut})
@computes()
def calc_size(body: SizeIn) -> Response:
    reading, _, _ = read(body)
    x, y = (
        axis_of(k, *AXES[k]) if k in AXES else axis_of(usual, *AXES[usual]) for k, usual in ((body.size.x, "pull"), (body.size.y, "width"))
    )
    out = SearchOut(
        notes=reading.notes,
        problems=list(reading.problems),
        from_survey={k: BothOut(us=us, si=si) for k, (us, si) in reading.from_survey.items()},
        missing=list(reading.missing),
        not_judged=list(reading.not_judged),
        looked_at=0,
        feasible=0,
        by_family={},
        killed=[],
        eased=[],
        listed=[],
        dots=[],
        x=x,
        y=y,
    )
    problem = reading.problem
    if problem is None:
        return answer(out)
    have = stock_of(body)
    searched = search(problem, have)
    out.looked_at, out.feasible = searched.looked_at, searched.feasible
    out.killed = [Killed(constraint=k, says=CONSTRAINTS[k], count=n) for k, n in searched.killed.items() if n]
    for f in searched.found:
        out.by_family[f.kind.family] = out.by_family.get(f.kind.family, 0) + f.size
    weights = {k: w for k, w in body.size.weights.items() if k in WISHES} or USUAL_WEIGHTS
    ranked = rank(problem, searched, Wishes(weights))
    if ranked is None:
        out.eased = [Eased(constraint=r.constraint, says=r.says, lets_in=r.lets_in) for r in relaxed(problem, have)]
        return answer(out)
    unpriced = np.full(ranked.size, np.nan)
    xs, ys = (ranked.measures.get(axis.key, unpriced) for axis in (x, y))
    on_plot = ~(np.isnan(xs) | np.isnan(ys))
    best = np.zeros(ranked.size, bool)
    best[on_plot] = pareto(xs[on_plot], ys[on_plot], x.more, y.more)
    order = best_of_each(ranked, by_count=True)
    shown_first = listed(ranked, _LISTED, _OF_A_KIND)
    front = [int(n) for n in np.nonzero(best)[0][:100]]
    out.listed = [_listed(ranked, n, bool(best[n]), problem) for n in shown_first]
    spread = order[:: max(1, len(order) // _POINTS)]
    for n in (k for k in dict.fromkeys([*shown_first, *front, *(int(m) for m in spread)]) if on_plot[k]):
        f = ranked.searched.found[ranked.of[n]]
        out.dots.append(
            Dot(
                key=ranked.key(n),
                family=f.kind.family,
                x=float(xs[n]),
                y=float(ys[n]),
                best=bool(best[n]),
                says=_name(ranked, n),
            )
        )
    return answer(out)


def _name(ranked: Ranked, n: int) -> str:
    f, k = ranked.searched.found[ranked.of[n]], ranked.at[n]
    return f"{f.kind.shown(f.kind.counts[f.count[k]])}, {f.driver_wheels[f.driver[k]].name} to {f.driven_wheels[f.driven[k]].name}"


def _listed(ranked: Ranked, n: int, best: bool, problem: Demands) -> Listed:
    f, k = ranked.searched.found[ranked.of[n]], int(ranked.at[n])
    m = {name: float(values[n]) for name, values in ranked.measures.items()}
    speed = problem.driven_speed * (1 + m["speed_error"])
    return Listed(
        key=ranked.key(n),
        family=f.kind.family,
        name=f.kind.shown(f.kind.counts[f.count[k]]),
        driver=f.driver_wheels[f.driver[k]].name,
        driven=f.driven_wheels[f.driven[k]].name,
        length=f.kind.lengths[f.length[k]].name if f.kind.lengths else "cut to length",
        estimate=f.kind.counted_as,
        caution=f.kind.caution(problem, f.driver_wheels[f.driver[k]], f.driven_wheels[f.driven[k]]),
        score=float(ranked.score[n]),
        best=best,
        margin=f"{m['margin']:.0%}" if m["margin"] < MANY else f"over {MANY:.0%}",
        speed=both_out(speed, "rotation"),
        off=f"{m['speed_error']:+.1%}",
        centre=both_out(m["centre"], "length", True),
        pull=both_out(m["pull"], "force"),
        width=both_out(m["width"], "length", decimals=(2, 0)),
        belt_speed=both_out(m["belt_speed"], "velocity"),
        loss=both_out(m["loss"], "power"),
        price=_money(m.get("price")),
    )


def _money(value: float | None) -> str:
    return "" if value is None or np.isnan(value) else f"{value:,.2f}"


class StockIn(SizeIn):
    """A kind to choose from; wheels that stay count."""

    kind: Word


class Start(BaseModel):
    """Places in the stock."""

    driver: int = 0
    driven: int = 0
    length: int = 0
    count: int = 0


class StockOut(BaseModel):
    """What one kind can be had in: wheels for either shaft, lengths, counts in words; and what the stock is taken from."""

    driver: list[str]
    driven: list[str]
    lengths: list[str]
    counts: list[str]
    assumed: bool
    start: Start


@blueprint.post("/size/stock", summary="The wheels, lengths and counts of one kind", responses={"200": StockOut})
@computes()
def calc_stock(body: StockIn) -> Response:
    kind = kind_named(body, body.kind)
    reading, _, _ = read(body)
    first, second = sides(reading.problem, kind) if reading.problem else (kind.driver, kind.driven)
    return answer(
        StockOut(
            driver=[w.name for w in first],
            driven=[w.name for w in second],
            lengths=[x.name for x in kind.lengths],
            counts=[kind.shown(c) for c in kind.counts],
            assumed=kind.assumed,
            start=Start(**dict(zip(Start.model_fields, nearest(reading.problem, kind), strict=True))) if reading.problem else Start(),
        )
    )


class KindChoice(BaseModel):
    """One kind of belt or chain in the stock."""

    name: str
    family: str
    fits: str
    estimate: str
    toothed: bool


class SizeChoices(BaseModel):
    """What the form offers: families, kinds, wishes and their usual weights, axes, motor frames, kinds of drive that may stand now."""

    families: list[str]
    usual_families: list[str]
    kinds: list[KindChoice]
    wishes: dict[str, str]
    usual_weights: dict[str, float]
    axes: dict[str, str]
    frames: list[str]
    idlers: list[str]
    surroundings: list[str]
    starts: list[str]
    before: list[str]
    listed_parts: int
    own_ratings: list[str]
    stock_size: int


@blueprint.get("/size/choices", summary="What can be asked of a drive", responses={"200": SizeChoices})
@anyone()
def size_choices() -> Response:
    shop = the_shop()
    all_kinds = stock(shop.ratings, shop.parts, "common")
    return answer(
        SizeChoices(
            families=list(choices()),
            usual_families=[f for f in choices() if f in usual()],
            kinds=[
                KindChoice(name=k.name, family=k.family, fits=k.fits, estimate=k.counted_as, toothed=k.drive.toothed) for k in all_kinds
            ],
            wishes={k: v for k, v in WISHES.items() if k != "price" or shop.parts.priced},
            usual_weights=dict(USUAL_WEIGHTS),
            axes={k: says for k, (says, _, _) in AXES.items() if k != "price" or shop.parts.priced},
            listed_parts=len(shop.parts.rows),
            own_ratings=sorted(shop.ratings.tables),
            frames=list(frames()),
            idlers=list(IDLERS),
            surroundings=list(SURROUNDINGS),
            starts=list(STARTS),
            before=list(traits()),
            stock_size=sum(k.size for k in all_kinds),
        )
    )
