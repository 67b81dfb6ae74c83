"""A layout stage by stage: two wheels as the sheet rates them, powers and losses along a train, a deck by hand."""

import math
from dataclasses import replace

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given, Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.layout.duties import StageDuty, TrainDemands, TrainDuty
from tuyere.core.drive.layout.form import PathReading, read_path
from tuyere.core.drive.layout.stages import duties_of
from tuyere.core.drive.layout.typed import TypedBelt, TypedPath, TypedWheel
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds.line import LineDrive
from tuyere.core.kinds.rating.own_table import NONE
from tuyere.core.kinds.registry import family
from tuyere.core.kinds.roller_chain import chain as chain_of
from tuyere.core.kinds.roller_chain import length_in_pitches
from tuyere.core.kinds.roller_chain.rating import rated_power as chain_power
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.v_belt import section
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.kinds.v_belt.rating import rated_power

HP, RPM, INCH = 745.6998715822702, math.pi / 30, 0.0254


def wheel(name: str, role: str, diameter: float, x: float, y: float = 0.0, power: str = "", **more: object) -> TypedWheel:
    contact, face = str(more.pop("contact", "inside")), str(more.pop("face", "grooved"))
    size, at_x, at_y = (Typed(f"{v:.4f}" if v else "", "in") for v in (diameter, x or 1e-9, y or 1e-9))
    return TypedWheel(name=name, role=role, contact=contact, face=face, diameter=size, x=at_x, y=at_y, power=Typed(power, "hp"), **more)  # type: ignore[arg-type]


def vee(section: str, name: str = "", count: str = "") -> TypedBelt:
    return TypedBelt(V_BELT, Part(words={"section": section, "belt": name, "belt_count": count}))


def chain(name: str, strands: str = "1") -> TypedBelt:
    return TypedBelt(family("roller chain"), Part(more={"drive": Part(words={"name": name, "strands": strands})}))


def read(wheels: list[TypedWheel], belts: list[TypedBelt], rpm: float = 1750, power: float | None = None) -> PathReading:
    speed, given = Typed(f"{rpm}", "rpm"), Typed(f"{power}" if power else "", "hp")
    return read_path(TypedPath(wheels, belts, placed_by="coordinates", driver_speed=speed, driver_power=given))


def train(wheels: list[TypedWheel], belts: list[TypedBelt], rpm: float = 1750, power: float | None = None) -> TrainDuty:
    found = read(wheels, belts, rpm, power)
    assert not found.problems, found.problems
    duty = TrainDemands(rpm * RPM, "moderate", "normal", 10, "clean", "seldom")
    duties = duties_of(found, duty, NONE)
    assert duties
    return duties


@examples(40)
@given(st.floats(5.6, 12), st.floats(1.0, 3.2), st.floats(1.2, 3), st.floats(2, 20), st.sampled_from([870.0, 1160.0, 1750.0]))
def test_two_wheels_want_what_the_sheet_says(small: float, ratio: float, apart: float, power: float, rpm: float) -> None:
    """The plain case of the same code: belts wanted by the driver of two wheels equal design power over the sheet's power for each belt."""
    big, centre = small * ratio, (small + small * ratio) * apart
    typed = {
        "driver_power": f"{power} hp",
        "driver_speed": f"{rpm} rpm",
        "driver_diameter": f"{small:.4f}",
        "driven_diameter": f"{big:.4f}",
        "centre_distance": f"{centre:.4f}",
        "hours_per_day": "10",
    }
    page = solve_page(
        read_form(
            V_BELT,
            {k: Typed(t, "in" if k.endswith(("diameter", "distance")) else "") for k, t in typed.items()},
            {"section": "B", "driven_class": "moderate"},
        ).spec
    )
    assume(page.has("rated_power", "power_per_belt"))
    found = train([wheel("motor", "driver", small, 0), wheel("fan", "driven", big, centre)], [vee("B", "", "2")], rpm, power)
    driver = found.stages[0].wheels[0]
    assert driver.belts == pytest.approx(page.values["design_power"].n / page.values["power_per_belt"].n, rel=1e-4)
    assert found.page.values["ratio"].n == pytest.approx(page.values["ratio"].n, rel=1e-6)
    assert found.stages[0].wheels[1].shaft_w == pytest.approx(0.95 * power * HP), "less the loss of wrapped V-belts (drive_traits)"


def test_power_and_speed_along_a_train() -> None:
    """Statics and kinematics.

    Ratios multiply, each stage takes in what the next does over its efficiency, pulls on the jackshaft add as arrows.
    """
    found = train(
        [
            wheel("motor", "driver", 6, 0),
            wheel("large", "driven", 12, 30),
            wheel("small", "driver", 9, 30, belt=2, shaft_of=2),
            wheel("die", "driven", 18, 30, 35, "10", belt=2),
        ],
        [vee("B", "B90", "2"), vee("C", "", "2")],
    )
    first, second = found.stages
    assert second.wheels[-1].shaft_w == pytest.approx(10 * HP)
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
        [vee("B")],
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
    found = train(deck, [vee("B")], power=10)
    assert found.wanted == ("wheel_power",) and found.stages[0].verdicts[0].tone is Tone.OPEN
    assert found.page.has("ratio", "driven_speed") and not found.page.has("capacity")


def said(value: float) -> Given:
    return Given(value, 0.0, Origin.MEASURED, "said")


MEASURED = {
    "roller chain": (
        Part(more={"drive": Part({"centre_distance": Typed("30 in")}, {"name": "60", "teeth_1": "19", "teeth_2": "57", "strands": "2"})}),
        30.0,
        (19, 57),
        (0, 0),
    ),
    "synchronous": (
        Part(
            {"belt_width": Typed("30 mm")},
            {},
            {"drive": Part({"centre_distance": Typed("24 in")}, {"name": "H8M", "teeth_1": "32", "teeth_2": "64"})},
        ),
        24.0,
        (32, 64),
        (0, 0),
    ),
    "flat belt": (
        Part(
            {
                "driver_diameter": Typed("8 in"),
                "driven_diameter": Typed("16 in"),
                "centre_distance": Typed("60 in"),
                "flat_width": Typed("4 in"),
            },
            {"belt": "leather 2ply medium"},
        ),
        60.0,
        (None, None),
        (8, 16),
    ),
}


@pytest.mark.parametrize("key", MEASURED)
def test_every_kind_goes_round_wheels_as_its_sheet_says(key: str) -> None:
    """The plain case of the same code again.

    On two wheels, ratio and what it carries are the sheet's (its own centres: a chain's by whole pitches).
    """
    part, _, teeth, rims = MEASURED[key]
    of = family(key)
    fitted = of.survey(part).fitted
    assert isinstance(fitted, LineDrive) and fitted.centre_m
    spec = DriveSpec(
        of, fitted, driver_power=said(10 * HP), driver_speed=said(700 * RPM), driven_class="moderate", hours_per_day=said(36000)
    )
    page, apart = solve_page(spec), fitted.centre_m / INCH
    wheels = [
        wheel(name, name, size, x, teeth=str(z or ""))
        for name, size, x, z in zip(("driver", "driven"), rims, (0, apart), teeth, strict=True)
    ]
    found = train(wheels, [TypedBelt(of, part)], 700, 10)
    assert found.page.values["ratio"].n == pytest.approx(page.values["ratio"].n, rel=1e-6)
    driver = found.stages[0].wheels[0]
    assert driver.wrap_rad == pytest.approx(page.values["wrap_driver"].n, rel=2e-3)
    assert driver.rated_w == pytest.approx(page.values["capacity"].n, rel=2e-3)
    assert found.stages[0].factor and page.values["design_power"].n == pytest.approx(10 * HP * found.stages[0].factor)
    assert found.stages[0].needed is None and (driver.slips_at is None) == of.toothed


def test_a_chain_behind_a_belt_on_one_jackshaft() -> None:
    """Kinematics and statics.

    Ratios of both kinds multiply; a chain's slack run hangs free, so its pull is the load's own along the tight run.
    """
    found = train(
        [
            wheel("motor", "driver", 6, 0),
            wheel("large", "driven", 12, 30),
            wheel("pinion", "driver", 0, 30, belt=2, shaft_of=2, teeth="17"),
            wheel("die", "driven", 0, 30, 35, "5", belt=2, teeth="51"),
        ],
        [vee("B", "B90", "2"), chain("80")],
    )
    belt, of = found.stages
    assert belt.ratio and of.ratio == pytest.approx(3) and found.page.values["ratio"].n == pytest.approx(3 * belt.ratio)
    assert of.power_w == pytest.approx(5 * HP / 0.97) and belt.power_w == pytest.approx(5 * HP / 0.97 / 0.95), "drive_traits: kept"
    pinion, die = of.wheels
    assert die.speed and die.pull_n == pytest.approx(5 * HP / 0.97 / (die.speed * 51 * 0.0254 / math.tau), rel=1e-6)
    rating = chain_power(chain_of("80"), 17, 1750 * RPM / belt.ratio, pitches=rated_pitches(of))
    assert pinion.rated_w == pytest.approx(rating.power_w) and of.slips_first is None
    jack = next(s for s in found.shafts if "pinion" in s.wheels)
    assert jack.wheels == ("large", "pinion") and jack.pull_n


def rated_pitches(stage: StageDuty) -> float:
    """By hand: pitches round 17 and 51 teeth at 35 in, two times whole."""
    assert stage.runs == "chain"
    return 2 * round(length_in_pitches(17, 51, 35.0) / 2)


def test_teeth_run_in_one_plane_and_are_counted() -> None:
    pair = [wheel("motor", "driver", 0, 0, teeth="17"), wheel("shaft", "driven", 0, 30, teeth="5")]
    crossed = read(pair, [replace(chain("60"), lay="crossed")])
    assert {p.field for p in crossed.problems} == {"wheel_2_teeth", "lay"} and crossed.train is None
    assert [p.field for p in read(pair[:1], [vee("B"), chain("99x")]).problems] == ["belt_2_name"]


def test_a_shaft_read_along_a_train_tells_the_slip_between() -> None:
    """Kinematics.

    S = 1 - n2 R / n1 with the ratio to that shaft; two belts may lose 4 % together, one 2 % (common practice, each to 2 %).
    """
    wheels = [
        wheel("motor", "driver", 6, 0),
        wheel("large", "driven", 12, 30),
        wheel("small", "driver", 9, 30, belt=2, shaft_of=2),
        wheel("die", "driven", 18, 30, 35, "10", belt=2),
    ]
    found = read(wheels, [vee("B", "B90", "2"), vee("C", "", "2")])

    def slip(rpm: float, shaft: str = "") -> Page:
        duty = TrainDemands(1750 * RPM, None, "normal", None, "clean", "seldom", tach(1750), tach(rpm), shaft)
        duties = duties_of(found, duty, NONE)
        assert duties
        return duties.page

    def tach(rpm: float) -> Given:
        return Given(rpm * RPM, 0.0005 * rpm * RPM, Origin.MEASURED, f"speed {rpm}")

    ratio = slip(400).values["ratio"].n
    at_die = slip(1750 / ratio * 0.965)
    assert at_die.values["slip"].n == pytest.approx(0.035, abs=1e-6)
    assert at_die.verdicts[0].tone is Tone.GOOD, "over two belts 3.5 % is what they lose"
    first = next(
        s for s in duties_of(found, TrainDemands(1750 * RPM, None, "normal", None, "clean", "seldom"), NONE).shafts if "large" in s.wheels
    )  # type: ignore[union-attr]
    at_jack = slip(1750 / first.ratio * 0.95, first.name)
    assert at_jack.values["slip"].n == pytest.approx(0.05, abs=1e-6) and at_jack.verdicts[0].tone is Tone.WATCH
