"""Every kind of drive answers every question; one made up here, in one place, is on the sheet and the counter slip like the others."""

import math

import pytest

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds import registry
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.line import LineDrive
from tuyere.core.kinds.rating.duties import driven_classes
from tuyere.core.kinds.rating.service import service_factor
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.survey import Part

SURVEYS = {
    "synchronous": Part(
        {"belt_width": Typed("30 mm")},
        {},
        {"drive": Part({"centre_distance": Typed("600 mm")}, {"name": "H8M", "teeth_1": "32", "teeth_2": "64"})},
    ),
    "roller chain": Part(
        {}, {}, {"drive": Part({"centre_distance": Typed("30 in")}, {"name": "60", "teeth_1": "19", "teeth_2": "57", "strands": "1"})}
    ),
    "flat belt": Part(
        {
            "driver_diameter": Typed("8 in"),
            "driven_diameter": Typed("16 in"),
            "centre_distance": Typed("60 in"),
            "flat_width": Typed("4 in"),
        },
        {"belt": "leather 2ply medium"},
    ),
}


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
    assert line.family.key == family.key and line.known and line.of.mass_kg_per_m > 0 and not line.of.missing
    assert line.of.design_ratio(math.pi) > 1 and line.of.grips(2.5)[1]
    assert [w.role for w in found.record.wheels] == ["driver", "driven"]
    page = speeds(line)
    assert page.has("ratio", "belt_speed", "capacity", "service_factor", "shaft_pull")
    assert page.figures["belt_speed"].label == f"{family.runs} speed"
    stock = line.of.stock()
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
