"""A stage of two wheels in a train is a pair: what Size says of it is what the train has, and what is chosen for it stands in the train."""

from typing import Any

import pytest

from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.answer import Answer
from tuyere.core.stations.size.candidate import by_key
from tuyere.core.stations.size.form import read_size
from tuyere.core.stations.size.rank import USUAL, Wishes, rank
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.shaft import read_shaft
from tuyere.core.stations.size.stock import kinds
from tuyere.record.forms import SurveyForm, answer_of
from tuyere.web.candidate_survey import Where, survey_of

# What is on, its wheels (inches over the rim, or teeth), and which kind is looked for.
ON: dict[str, tuple[dict[str, Any], tuple[str, str], str]] = {
    "V": ({"family": "v-belt", "choices": {"section": "B", "belt_count": "4"}}, ("6.0", "12.0"), "B"),
    "chain": ({"family": "roller chain", "drive": {"name": "80", "strands": "1"}}, ("19t", "45t"), "80"),
    "toothed": (
        {"family": "synchronous", "drive": {"name": "H8M"}, "quantities": {"belt_width": {"text": "50 mm"}}},
        ("36t", "72t"),
        "H8M",
    ),
    "flat": (
        {"family": "flat belt", "belt": "polyamide 0.11in", "quantities": {"flat_width": {"text": "6 in"}}},
        ("8.0", "16.0"),
        "polyamide 0.11in",
    ),
}
PLACES = {1: ("0", "0"), 2: ("34", "6"), 3: ("34", "6"), 4: ("70", "-10")}


def layout(kinds_on: tuple[str, str], placed_by: str) -> SurveyForm:
    """Motor to jackshaft to machine."""
    first, second = (ON[k] for k in kinds_on)
    wheels = []
    for n, (name, role, size, belt) in enumerate(
        (
            ("motor", "driver", first[1][0], 1),
            ("jack, in", "driven", first[1][1], 1),
            ("jack, out", "driver", second[1][0], 2),
            ("machine", "driven", second[1][1], 2),
        ),
        1,
    ):
        measured = {"teeth": size[:-1]} if size.endswith("t") else {"diameter": {"text": f"{size} in"}}
        at = {axis: {"text": f"{v} in"} for axis, v in zip("xy", PLACES[n], strict=True)} if placed_by != "tape" else {}
        wheels.append({"name": name, "role": role, "belt": belt, "shaft_of": 2 if n == 3 else 0, **measured, **at})
    tapes = [{"a": a, "b": b, "distance": {"text": f"{d} in"}} for a, b, d in ((1, 2, 34.525), (2, 4, 39.395), (1, 4, 70.711))]
    return SurveyForm.model_validate(
        {
            "driver": {"driver_power": {"text": "10 hp"}, "driver_speed": {"text": "1160 rpm"}},
            "machine": {"driven_class": "moderate", "hours_per_day": {"text": "10"}},
            "stages": [{"fitted": first[0]}, {"fitted": second[0]}],
            "layout": {"placed_by": placed_by, "wheels": wheels, "tapes": tapes if placed_by == "tape" else []},
        }
    )


def solved(form: SurveyForm) -> Answer:
    on = answer_of(form, _nothing())
    assert on.train and not on.problems, on.path
    return on


def _nothing() -> Any:
    from tuyere.record.forms import SheetForm

    return SheetForm().tachometer


@pytest.mark.parametrize("number", [1, 2])
@pytest.mark.parametrize("kind", ON)
def test_a_pair_out_of_a_train_says_what_the_train_says(kind: str, number: int) -> None:
    on = solved(layout((kind, "V") if number == 1 else ("V", kind), "coordinates"))
    pair, duty = on.pair(number), on.train.stage(number) if on.train else None
    assert pair and duty
    page, driver = pair.page, duty.wheels[0]
    assert page.values["ratio"].n == pytest.approx(duty.ratio, rel=1e-6)
    assert page.values["belt_speed"].n == pytest.approx(duty.belt_speed, rel=1e-6)
    assert page.values["wrap_driver"].n == pytest.approx(driver.wrap_rad, rel=1e-6)
    assert page.values["service_factor"].n == pytest.approx(duty.factor)
    assert pair.spec.driver_power and pair.spec.driver_power.value == pytest.approx(duty.power_w)
    assert driver.rated_w is not None
    many = duty.fitted if duty.counted else 1
    assert page.values["capacity"].n == pytest.approx(driver.rated_w * many, rel=3e-3), "a chain's, a belt's own centres"
    # The next stage is driven by what this one turns, with what this one loses.
    assert on.train
    if number == 2:
        before = on.train.stage(1)
        assert before and before.wheels[1].speed == pytest.approx(pair.spec.driver_speed.value if pair.spec.driver_speed else 0)
        assert before.power_w and duty.power_w == pytest.approx(before.power_w * on.train.read.on_wheels[0].kept)


@pytest.mark.parametrize("placed_by", ["coordinates", "tape", "drag"])
@pytest.mark.parametrize(("number", "kind"), [(1, "V"), (2, "V"), (1, "chain"), (1, "toothed"), (2, "flat")])
def test_what_is_chosen_for_a_stage_stands_in_the_train(kind: str, number: int, placed_by: str) -> None:
    form = layout((kind, "V") if number == 1 else ("V", kind), placed_by)
    on = solved(form)
    pair = on.pair(number)
    assert pair
    reading = read_size({}, {}, [], [ON[kind][2]], pair.spec, pair.page)
    assert reading.problem, (reading.problems, reading.missing)
    have = tuple(k for k in kinds() if k.name == ON[kind][2])
    ranked = rank(reading.problem, search(reading.problem, have), Wishes(USUAL))
    assert ranked is not None
    one = by_key(reading.problem, ranked.key(int(ranked.score.argmax())), have)
    judged = one.judged(reading.problem)
    assert judged.measures and not judged.failures
    after = solved(survey_of(reading.problem, one, judged, form, Where(number, pair, on.train)))
    new, other = after.pair(number), 3 - number
    assert new and after.train and on.train
    assert new.page.values["centre_distance"].n == pytest.approx(judged.measures.centre_m, abs=2e-4)
    assert new.page.values["driven_speed"].n == pytest.approx(judged.measures.driven_speed, rel=1e-3)
    said = [v for s in after.train.stages if s.number == number for v in s.verdicts if v.topic == "rating"]
    assert said and all(v.tone is Tone.GOOD for v in said), said
    # The other stage keeps its wheels and what runs on it.
    kept, was = after.train.stage(other), on.train.stage(other)
    assert kept and was and (kept.belt, kept.ratio) == (was.belt, was.ratio)
    loop = after.loop(number)
    assert loop and loop.of == one.kind.loop.of and (not one.kind.lengths or loop.made)


def test_a_jackshaft_is_no_motors_and_carries_the_other_belt_too() -> None:
    on = solved(layout(("V", "chain"), "coordinates"))
    first, second = on.pair(1), on.pair(2)
    assert first and second and on.train
    asked = {"motor": "yes"}
    told = {n: {v.topic: v for v in read_shaft({}, asked, pair).verdicts} for n, pair in ((1, first), (2, second))}
    assert "motor" in told[1] and "shaft" not in told[1] and "motor" not in told[2]
    assert told[2]["shaft"].tone is Tone.OPEN and "jack, in and jack, out" in told[2]["shaft"].headline
    assert "shaft" not in {v.topic for v in read_shaft({}, asked | {"side": "driven"}, second).verdicts}
    pulls = [next(s for s in on.train.shafts if name in s.wheels) for name in ("jack, in", "jack, out")]
    assert pulls[0] is pulls[1] and pulls[0].pull_n


def test_a_belt_on_three_wheels_is_no_pair_and_a_layout_not_finished_neither() -> None:
    form = layout(("V", "V"), "coordinates")
    third = form.layout.wheels[1].model_copy(deep=True, update={"name": "idler", "role": "idler", "shaft_of": 0})
    third.x.text, third.y.text, third.diameter.text, third.face = "17 in", "9 in", "4 in", "flat"
    third.contact = "back"
    form.layout.wheels.insert(1, third)
    for w in form.layout.wheels:
        w.shaft_of = 3 if w.shaft_of else 0
    on = solved(form)
    assert on.pair(1) is None and on.pair(2)
    form.layout.wheels[0].diameter.text = ""
    on = answer_of(form, _nothing())
    assert on.train is None and on.pair(1) is None
