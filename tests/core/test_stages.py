"""A layout stage by stage: two wheels as the sheet rates them, powers and losses along a train, a deck by hand."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.drives.registry import family
from tuyere.core.drives.v_belt import section
from tuyere.core.drives.v_belt.kind import V_BELT
from tuyere.core.drives.v_belt.rating import rated_power
from tuyere.core.entry.typed import Typed
from tuyere.core.layout.form import read_path
from tuyere.core.layout.stages import Duty, TrainDuty, duties_of
from tuyere.core.layout.typed import TypedBelt, TypedPath, TypedWheel
from tuyere.core.rating.own_table import NONE
from tuyere.core.sheet.solve import solve_page
from tuyere.core.sheet.typed import read_form
from tuyere.core.working.verdict import Tone

HP, RPM, INCH = 745.6998715822702, math.pi / 30, 0.0254
V = family("v-belt")


def wheel(name: str, role: str, diameter: float, x: float, y: float = 0.0, power: str = "", **more: object) -> TypedWheel:
    contact, face = str(more.pop("contact", "inside")), str(more.pop("face", "grooved"))
    size, at_x, at_y = (Typed(f"{v:.4f}", "in") for v in (diameter, x, y))
    return TypedWheel(name=name, role=role, contact=contact, face=face, diameter=size, x=at_x, y=at_y, power=Typed(power, "hp"), **more)  # type: ignore[arg-type]


def train(wheels: list[TypedWheel], belts: list[tuple[str, str, str]], rpm: float = 1750, power: float | None = None) -> TrainDuty:
    typed = TypedPath(
        wheels, [], [TypedBelt(s, name, count) for s, name, count in belts], "coordinates", False, "clockwise", "0", Typed(f"{rpm}", "rpm")
    )
    read = read_path(typed)
    assert not read.problems, read.problems
    duty = Duty(power * HP if power else None, rpm * RPM, "moderate", "normal", 10, "clean", "seldom")
    found = duties_of(read, duty, V, NONE)
    assert found
    return found


@examples(40)
@given(st.floats(5.6, 12), st.floats(1.0, 3.2), st.floats(1.2, 3), st.floats(2, 20), st.sampled_from([870.0, 1160.0, 1750.0]))
def test_two_wheels_want_what_the_sheet_says(small: float, ratio: float, apart: float, power: float, rpm: float) -> None:
    """The plain case of the same code: belts wanted by the driver of two wheels equal design power over the sheet's power for each belt."""
    big, centre = small * ratio, (small + small * ratio) * apart
    typed = {"driver_power": f"{power} hp", "driver_speed": f"{rpm} rpm", "driver_diameter": f"{small:.4f}", "driven_diameter": f"{big:.4f}", "centre_distance": f"{centre:.4f}", "hours_per_day": "10"}  # fmt: skip
    page = solve_page(read_form(V_BELT, {k: Typed(t, "in" if k.endswith(("diameter", "distance")) else "") for k, t in typed.items()}, {"section": "B", "driven_class": "moderate"}).spec)  # fmt: skip
    assume(page.has("rated_power", "power_per_belt"))
    found = train([wheel("motor", "driver", small, 0), wheel("fan", "driven", big, centre)], [("B", "", "2")], rpm, power)
    driver = found.stages[0].wheels[0]
    assert driver.belts == pytest.approx(page.values["design_power"].n / page.values["power_per_belt"].n, rel=1e-4)
    assert found.page.values["ratio"].n == pytest.approx(page.values["ratio"].n, rel=1e-6)
    assert found.stages[0].wheels[1].power_w == pytest.approx(0.95 * power * HP), "less the loss of wrapped V-belts (drive_traits)"


def test_power_and_speed_along_a_train() -> None:
    """Statics and kinematics: ratios multiply, each stage takes in what the next does over its efficiency, pulls on the jackshaft add as arrows."""
    found = train(
        [
            wheel("motor", "driver", 6, 0),
            wheel("large", "driven", 12, 30),
            wheel("small", "driver", 9, 30, belt=2, shaft_of=2),
            wheel("die", "driven", 18, 30, 35, "10", belt=2),
        ],
        [("B", "B90", "2"), ("C", "", "2")],
    )
    first, second = found.stages
    assert second.wheels[-1].power_w == pytest.approx(10 * HP)
    assert second.power_w == pytest.approx(10 * HP / 0.95) and first.power_w == pytest.approx(10 * HP / 0.95**2)
    assert first.ratio and second.ratio and found.page.values["ratio"].n == pytest.approx(first.ratio * second.ratio)
    jack = next(s for s in found.shafts if "large" in s.wheels)
    assert jack.wheels == ("large", "small") and jack.speed == pytest.approx(1750 * RPM / first.ratio)
    on = {w.name: w for s in found.stages for w in s.wheels}
    arrows = [(on[n].pull_n, on[n].pull_rad) for n in jack.wheels]
    x, y = (sum(p * f(a) for p, a in arrows if p is not None and a is not None) for f in (math.cos, math.sin))
    assert jack.pull_n == pytest.approx(math.hypot(x, y))


def test_a_deck_is_rated_at_its_worst_wheel_and_says_it_is_an_estimate() -> None:
    """By hand: each wheel's share at its own diameter, speed and wrap; an idler on the slack side's outside adds 0.1 (IP-20, medium)."""
    found = train(
        [
            wheel("engine", "driver", 7, 0),
            wheel("idler", "idler", 7, 14, -2, contact="back", face="flat"),
            wheel("left", "driven", 7, 26, -8, "4"),
            wheel("right", "driven", 7, -14, -16, "4"),
        ],
        [("B", "", "1")],
        2400,
    )
    stage = found.stages[0]
    assert stage.power_w == pytest.approx(8 * HP / 0.95)
    engine = next(w for w in stage.wheels if w.name == "engine")
    b = section("B")
    basic = rated_power(b, 7 * INCH - 0.35 * INCH, 2400 * RPM, 1.0).basic_w  # datum: two h_d of a standard groove
    arc = 1.25 * (1 - 5 ** (-engine.wrap_rad / math.pi))
    assert engine.rated_w == pytest.approx(basic * arc, rel=0.15), "but for the length factor, 0.85 to 1.15"
    assert stage.factor == pytest.approx(1.2 + 0.1)
    worst = max((w for w in stage.wheels if w.belts), key=lambda w: w.belts or 0)
    assert stage.governs == worst.name and stage.needed == math.ceil(worst.belts or 0)
    said = stage.verdicts[0]
    assert said.tone is Tone.WATCH and "Engineering estimate" in said.detail and stage.slips_first


def test_what_nobody_said_is_asked_for() -> None:
    deck = [wheel("engine", "driver", 7, 0), wheel("left", "driven", 7, 26, -8), wheel("right", "driven", 7, -14, -16)]
    found = train(deck, [("B", "", "1")], power=10)
    assert found.wanted == ("wheel_power",) and found.stages[0].verdicts[0].tone is Tone.OPEN
    assert found.page.has("ratio", "driven_speed") and not found.page.has("capacity")
