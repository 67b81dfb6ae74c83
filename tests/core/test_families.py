"""Every kind of drive answers every question; one made up here, in one place, is on the sheet and the counter slip like the others."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import pytest
from flask import Flask

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds import registry
from tuyere.core.kinds.about import Slip
from tuyere.core.kinds.choose import Array, LineKind, Mate
from tuyere.core.kinds.choose import StockWheel as Wheel
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.fitted import Duty, On, Role, Slide, StockWheel
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.part_row import PartRow
from tuyere.core.kinds.problem import Kept, Problem
from tuyere.core.kinds.rating.duties import driven_classes
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings
from tuyere.core.kinds.rating.service import service_factor
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.survey import Part, Record, RecordedWheel, Surveyed
from tuyere.core.kinds.told import Called
from tuyere.core.kinds.workings import put
from tuyere.core.kinds.written import Length, Written
from tuyere.core.stations.size.shelf import stock as shop_stock
from tuyere.core.stations.size.stock import kinds

SURVEYS = {
    "synchronous": Part({"belt_width": Typed("30 mm")}, {}, {"drive": Part({"centre_distance": Typed("600 mm")}, {"name": "H8M", "teeth_1": "32", "teeth_2": "64"})}),
    "roller chain": Part({}, {}, {"drive": Part({"centre_distance": Typed("30 in")}, {"name": "60", "teeth_1": "19", "teeth_2": "57", "strands": "1"})}),
    "flat belt": Part(
        {"driver_diameter": Typed("8 in"), "driven_diameter": Typed("16 in"), "centre_distance": Typed("60 in"), "flat_width": Typed("4 in")},
        {"belt": "leather 2ply medium"},
    ),
}  # fmt: skip


@pytest.mark.parametrize("family", registry.FAMILIES, ids=lambda f: f.key)
def test_every_kind_answers_for_itself(family: Family) -> None:
    assert registry.family(family.key) is family and family.label and family.runs in ("belt", "chain")
    assert 0 <= family.slip.usual[0] <= family.slip.usual[1] < family.slip.fault and family.slip.said
    assert 1 <= family.overhung_factor <= 3
    times, added, note = family.speed_up(3.0)
    assert times >= 1 and added >= 0 and bool(note) == (times > 1 or added > 0)
    assert family.speed_up(0.5) == (1.0, 0.0, "")
    factors = [service_factor(family, c.name, "normal", 10)[0] for c in driven_classes()]
    assert factors == sorted(factors) and factors[0] >= 1
    fitted = family.survey(Part()).fitted
    assert fitted is None or not fitted.known


def speeds(line: LineDrive) -> Page:
    rpm, hp = math.pi / 30, 745.7
    power, hours, speed = (_given(v) for v in (3 * hp, 36_000.0, 900 * rpm))
    return solve_page(DriveSpec(line.family, line, driver_power=power, driver_speed=speed, hours_per_day=hours, driven_class="moderate"))


def _given(value: float):  # type: ignore[no-untyped-def]
    from tuyere.core.basis.typed import Given

    return Given(value, 0.0, Origin.CHOSEN, "given")


@pytest.mark.parametrize("key", SURVEYS)
def test_what_is_fitted_answers_every_question(key: str) -> None:
    family = registry.family(key)
    found = family.survey(SURVEYS[key])
    assert isinstance(found.fitted, LineDrive) and found.record and not found.problems
    line = found.fitted
    assert line.family is family and line.name and line.mass_kg_per_m > 0 and not line.missing
    assert float(line.tension_ratio(math.pi)[0]) > 1 and line.tension_ratio(2.5)[1]
    assert [w.role for w in found.record.wheels] == ["driver", "driven"]
    page = speeds(line)
    assert page.has("ratio", "belt_speed", "capacity", "service_factor", "shaft_pull")
    assert page.figures["belt_speed"].label == f"{family.runs} speed"
    stock = line.stock()
    on = line.belt_for(stock[3], stock[-1], 1.5, 1.5, Slide())
    assert on.belt and on.tight_at and all(w.rolls > 0 for w in stock)
    slip = family.counter_slip(SURVEYS[key], "KX-1")
    assert slip and slip.machine_part == "KX-1" and slip.refuse
    assert family.counter_slip(Part(), "") is None


@pytest.mark.parametrize("family", registry.MESHING, ids=lambda f: f.key)
def test_kinds_with_teeth_know_their_candidates(family: registry.Meshing) -> None:
    names = family.names()
    assert {k.name for k in family.candidates()} == set(names)
    for kind in family.candidates():
        what, template = family.described(kind.name)
        assert what and template.pitch_m == pytest.approx(kind.pitch_m)
        assert set(kind.sizes) <= set(family.sizes) and family.wheel_measures(kind.name, 30).value > 0
        assert all(v.headline for v in family.alike(kind.name))


@dataclass(frozen=True)
class RopeLine(LineDrive):
    """A rope in a groove, made up for this test."""

    @property
    def family(self) -> Family:
        return ROPE

    @property
    def name(self) -> str:
        return "rope"

    @property
    def mass_of_one(self) -> float:
        return 0.4

    @property
    def missing(self) -> tuple[str, str] | None:
        return None if self.size else ("How many ropes?", "Count them.")

    def tension_ratio(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return math.exp(0.6) + 0.0 * wrap_rad, "made up"

    def too_small(self, page: Page) -> None:
        """Never."""

    def rate(self, own: OwnRatings, duty: Duty, page: Page) -> None:
        put(page, "capacity", "power the ropes carry", "P", "power", 900.0 * (self.size or 0), [], "P = 900 W each", "made up")

    def stock(self) -> tuple[StockWheel, ...]:
        return (StockWheel(0.3, 0.28),)

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> On:
        return On("rope, spliced", False, now_m)

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: On) -> Written:
        return {"quantities": {"driver_diameter": Length(driver.rim_m)}}


class RopeKind(LineKind):
    """Ropes as they can be chosen: a few wheels, one to six ropes, cut to length."""

    family, drive, traits, fastest_m_per_s, per_metre = "rope", None, "flat belt, leather", 30.0, True  # type: ignore[assignment]

    def __init__(self) -> None:
        self.name, self.fits, self.drive, self.lengths = "rope", "rope groove", ROPE, ()
        self.driver = self.driven = tuple(Wheel(f"{d} m rope wheel", d, d - 0.02, d / 2) for d in (0.3, 0.6, 0.9))
        self.counts = tuple(float(n) for n in range(1, 7))

    @property
    def overhung(self) -> float:
        return 2.0

    def wheel_kept(self, kept: Kept, drives: bool) -> None:
        return None

    def least_small(self, problem: Problem) -> tuple[float, str]:
        return 0.25, "a rope wants 0.25 m"

    def width(self, count: Array) -> Array:
        return count * 0.03

    def tension_ratio(self, wrap: Array) -> Array:
        return np.full_like(wrap, math.exp(0.6))

    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Array) -> Array:  # type: ignore[override]
        return 900.0 + 0.0 * wrap

    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        return unit * count

    def rate(self, driver: Wheel, driven: Wheel, length: Any, count: float, wrap_rad: float, problem: Problem) -> float:
        return 900.0 * count

    def fitted(self, driver: LineWheel, driven: LineWheel, centre_m: float, count: float, length: Any) -> LineDrive:
        return RopeLine(driver, driven, centre_m, 0.02, 0.01, 30.0, "made up", size=count)

    def as_typed(self, driver: Wheel, driven: Wheel, length: Any, count: float, centre_m: float) -> Written:
        return {"quantities": {"driver_diameter": Length(driver.outside_m)}, "words": {"ropes": f"{count:.0f}"}}

    def parts(self, driver: Wheel, driven: Wheel, length: Any, count: float, length_m: float) -> list[tuple[float, str]]:
        return [(1, driver.name), (1, driven.name), (count, "rope")]

    def takes(self, row: PartRow, count: float) -> bool:
        return True

    def makes(self, row: PartRow, count: float) -> bool:
        return True

    def only(self, rows: list[PartRow], belts: list[PartRow]) -> "RopeKind":
        return self

    def wheel_of(self, row: PartRow) -> Wheel:
        return self.driver[0]

    def shown(self, count: float) -> str:
        return f"{count:.0f} ropes"


class Rope(Family):
    """All there is to say of it, in one place."""

    key = "rope"
    label = "rope"
    group = "v"
    part = "grooved rims"
    slip = Slip((0.01, 0.02), 0.04, "A rope slips a little (made up)")
    overhung_factor = 2.0

    def kinds(self, own: OwnRatings) -> list[RopeKind]:
        return [RopeKind()]

    def survey(self, part: Part) -> Surveyed:
        if "driver_diameter" not in part.quantities:
            return Surveyed()
        wheels = LineWheel(0.3, 0.28, 0.0, Origin.MEASURED), LineWheel(0.6, 0.58, 0.0, Origin.MEASURED)
        record = Record("rope", None, 2.0, (RecordedWheel("driver", 0.28, "outside"), RecordedWheel("driven", 0.58, "outside")))
        return Surveyed(RopeLine(*wheels, 2.0, 0.02, 0.01, 30.0, "made up", size=3), record)

    def called(self, part: Part) -> Called:
        return Called("", "", "the ropes")

    def counter_slip(self, part: Part, machine_part: str) -> CounterSlip | None:
        return CounterSlip("Rope", "3", (), machine_part, ("hemp",), ("by the yard",), (), ("wire",), ("the splice",))


ROPE = Rope()


def test_a_made_up_kind_is_on_the_sheet_at_speed_at_size_and_on_the_slip(monkeypatch: pytest.MonkeyPatch, app: Flask) -> None:
    client = app.test_client()
    rope = {"family": "rope", "quantities": {"driver_diameter": {"text": "11 in"}}, "words": {"lay": "three strands"}}
    typed: dict[str, Any] = {"survey": {"stages": [{"fitted": rope}]}}
    assert client.post("/api/calc/sheet", json=typed).status_code == 422
    monkeypatch.setattr(registry, "FAMILIES", (*registry.FAMILIES, ROPE))
    assert "rope" in [f["key"] for f in client.get("/api/families").json["families"]]
    typed["survey"] |= {
        "driver": {"driver_power": {"text": "2 hp"}, "driver_speed": {"text": "600 rpm"}},
        "machine": {"driven_class": "light", "hours_per_day": {"text": "8"}},
    }
    sheet = client.post("/api/calc/sheet", json=typed).json
    assert sheet["figures"]["ratio"]["value_si"] == pytest.approx(2.0)
    assert sheet["figures"]["capacity"]["value_si"] == pytest.approx(2700)
    assert any(v["headline"].startswith("It will carry it") for v in sheet["verdicts"])
    slip = client.post("/api/calc/counter-slip", json={"survey": typed["survey"], "part_number": "R-9"}).json["slip"]
    assert (slip["headline"], slip["machine_part"]) == ("Rope", "R-9")
    target = {"sheet": typed, "target": {"text": "300 rpm"}, "tolerance": "5"}
    pair = client.post("/api/calc/speed/target", json=target).json["pairs"][0]
    assert pair["rated"].startswith("carries ") and pair["fitted"]["family"] == "rope"
    kinds.cache_clear(), shop_stock.cache_clear()
    try:
        room = {"centre_low": {"text": "1 m"}, "centre_high": {"text": "3 m"}, "driven_speed": {"text": "300 rpm"}}
        asked = {"sheet": typed, "size": {"families": ["rope"], "quantities": room}}
        found = client.post("/api/calc/size", json=asked).json["listed"]
        assert found and all(one["family"] == "rope" for one in found)
        full = client.post("/api/calc/size/candidates", json={**asked, "keys": [found[0]["key"]]}).json["candidates"][0]
        assert full["survey"]["stages"][0]["fitted"]["family"] == "rope" and full["sheet"]["figures"]["capacity"]["value_si"] > 0
    finally:
        kinds.cache_clear(), shop_stock.cache_clear()
    assert NONE.of("rope") is None
