"""On every wheel of every stage pull times speed is the power beside it; what goes in is what comes out and what is lost. Statics."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tests.core.test_stages import HP, RPM, chain, read, vee, wheel
from tuyere.core.drive.layout.duties import TrainDemands, TrainDuty
from tuyere.core.drive.layout.stages import duties_of
from tuyere.core.drive.layout.tight import stage_of
from tuyere.core.drive.layout.typed import TypedBelt, TypedWheel
from tuyere.core.kinds.rating.own_table import NONE
from tuyere.core.kinds.registry import family
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.traits import traits

TEETH = {"chain": (17, 22, 30, 40), "toothed": (24, 32, 40, 60)}


def loop(kind: str, lies: str) -> TypedBelt:
    if kind == "chain":
        return chain("80", "1")
    if kind == "toothed":
        return TypedBelt(family("synchronous"), Part(more={"drive": Part(words={"name": "8M"})}))
    return vee({"vee": "B", "cogged": "BX", "wedge": "5V"}[kind], "", lies)


STAGE = st.tuples(
    st.sampled_from(["vee", "cogged", "wedge", "chain"]), st.integers(0, 3), st.integers(0, 3), st.sampled_from(["1", "2", "3"])
)


def laid(stages: list[tuple[str, int, int, str]], powers: list[str]) -> tuple[list[TypedWheel], list[TypedBelt]]:
    """Stage behind stage over jackshafts, each to the right of the last; `powers`: of each stage's driven shaft, in hp."""
    wheels: list[TypedWheel] = []
    belts = []
    for k, ((kind, one, two, count), power) in enumerate(zip(stages, powers, strict=True)):
        size = [6.0, 8.0, 12.0, 16.0]
        many: dict[str, object] = {"belt": k + 1} if k else {}
        onto = {"shaft_of": len(wheels)} if k else {}
        teeth = TEETH.get(kind)
        pair = [(f"in {k}", "driver", one, k * 60.0, "", onto), (f"out {k}", "driven", two, (k + 1) * 60.0, power, {})]
        for name, role, which, x, takes, more in pair:
            made = wheel(name, role, 0 if teeth else size[which], x, 0.0, takes, **many, **more)
            wheels.append(made if not teeth else with_teeth(made, teeth[which]))
        belts.append(loop(kind, count))
    return wheels, belts


def with_teeth(made: TypedWheel, teeth: int) -> TypedWheel:
    from dataclasses import replace

    return replace(made, teeth=str(teeth))


def solved(wheels: list[TypedWheel], belts: list[TypedBelt], power_hp: float | None) -> TrainDuty:
    found = read(wheels, belts, 1200, power_hp)
    assert not found.problems, found.problems
    duty = TrainDemands(1200 * RPM, "moderate", "normal", 10, "clean", "seldom")
    told = duties_of(found, duty, NONE)
    assert told
    return told


@examples(60)
@given(st.lists(STAGE, min_size=1, max_size=3), st.floats(1, 30), st.booleans(), st.booleans())
def test_power_is_pull_times_speed_on_every_wheel_and_nothing_is_lost_unsaid(
    stages: list[tuple[str, int, int, str]], power: float, from_the_driver: bool, between: bool
) -> None:
    """Through the layout, the sheet's stages and the Tension station alike."""
    takes = [f"{power / 2:.3f}" if between else "" for _ in stages[:-1]] + [f"{power:.3f}"]
    wheels, belts = laid(stages, [""] * len(stages) if from_the_driver else takes)
    told = solved(wheels, belts, power if from_the_driver else None)
    assert told.read.train
    lost = 0.0
    for b, stage in enumerate(told.stages):
        answer, kept = told.read.train.belts[b], traits()[told.read.belts[b].traits].kept
        assert stage.belt_speed and stage.power_w and answer.path
        for w, state in zip(stage.wheels, answer.wheels, strict=True):
            assert state.tension_in_n is not None and state.tension_out_n is not None and w.speed
            drop = abs(state.tension_in_n - state.tension_out_n)
            assert drop * stage.belt_speed == pytest.approx(w.power_w, rel=1e-6), (stage.title, w.name)
            assert state.power_w == pytest.approx(w.power_w, rel=1e-9)
        taken = [w for w in stage.wheels if w.role == "driven"]
        assert sum(w.power_w for w in taken) == pytest.approx(stage.power_w, rel=1e-9), "what the driver gives the belt is what it gives up"
        assert sum(w.shaft_w for w in taken) == pytest.approx(stage.power_w * kept, rel=1e-9)
        lost += stage.power_w * (1 - kept)
        tight = stage_of(told, b + 1, "fixed centres", None)
        assert tight
        assert {w.name: abs(w.power_w) for w in tight.wheels} == pytest.approx({w.name: w.power_w for w in stage.wheels})
        if b + 1 < len(told.stages):
            out = next(w for w in taken)
            goes_on = told.stages[b + 1].power_w or 0.0
            own = 0.0 if from_the_driver or not between else power / 2 * HP
            assert out.shaft_w == pytest.approx(goes_on + own, rel=1e-4)
    last = told.stages[-1].wheels[-1] if told.stages[-1].wheels[-1].role == "driven" else told.stages[-1].wheels[0]
    own = 0.0 if from_the_driver or not between else (len(stages) - 1) * power / 2 * HP
    assert told.stages[0].power_w == pytest.approx(last.shaft_w + own + lost, rel=1e-4)


@examples(40)
@given(st.lists(STAGE, min_size=1, max_size=3), st.floats(1, 30))
def test_the_driven_speed_is_that_of_the_trains_end_up_or_down(stages: list[tuple[str, int, int, str]], power: float) -> None:
    """The last shaft is where the train ends, not the slowest; read as turning as it should, it slips by nothing."""
    wheels, belts = laid(stages, [""] * (len(stages) - 1) + [f"{power:.3f}"])
    told = solved(wheels, belts, None)
    end = next(s for s in told.shafts if f"out {len(stages) - 1}" in s.wheels)
    assert end.speed and told.page.values["driven_speed"].n == pytest.approx(end.speed)
    assert told.page.values["ratio"].n == pytest.approx(1200 * RPM / end.speed)
    product = math.prod(s.ratio or math.nan for s in told.stages)
    assert told.page.values["ratio"].n == pytest.approx(product)
