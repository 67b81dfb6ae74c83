"""Dogs and conveyor chain: who carries the load once they differ. Geometry; the worn figures are common practice, no source."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.roller_chain.dogs import read_dogs


def read(dog: float, link: float, **words: str):  # type: ignore[no-untyped-def]
    spans = {"dog_span": Typed(f"{dog * 6:.4f}", "in"), "conveyor_span": Typed(f"{link * 10:.4f}", "in")}
    return read_dogs(spans, {"dog_count": "6", "conveyor_count": "10", **words})


@given(st.floats(5.5, 6.5), st.floats(5.5, 6.5), st.integers(2, 8))
def test_one_dog_touches_and_the_others_stand_short(dog: float, link: float, engaged: int) -> None:
    """In the direction of travel every roller is at or ahead of its dog; the nearest gap is nothing and the gaps grow by the mismatch."""
    dogs = read(dog, link, dogs_engaged=str(engaged)).dogs
    assert dogs
    gaps = [r - d for r, d in zip(dogs.rollers_at_m, dogs.dogs_at_m, strict=True)]
    assert min(gaps) == pytest.approx(0, abs=1e-9) and all(g >= -1e-9 for g in gaps)
    touching = gaps.index(min(gaps))
    if abs(dogs.slip_m) > 1e-6:
        assert touching == (0 if dogs.slip_m > 0 else engaged - 1)
    assert max(gaps) == pytest.approx(abs(dogs.slip_m) * (engaged - 1), abs=1e-9)


def test_dogs_worn_by_four_per_cent_do_not_mesh_with_a_new_chain() -> None:
    """Dogs at 6.000 in new and 6.250 in worn (4.2 %) against a new conveyor chain: common practice, no source."""
    assert read(6.0, 6.0).verdicts[0].tone is Tone.GOOD
    worn = read(6.25, 6.0).verdicts[0]
    assert worn.tone is Tone.STOP and "the dog that leaves carries all" in worn.headline and "4.0 %" in worn.detail
    assert read(6.0, 6.06).verdicts[0].tone is Tone.WATCH


def test_several_conveyor_pitches_to_a_dog_and_the_chain_by_its_name() -> None:
    """X-458 has 4.031 in pitch (ISO 6973): worn 3 % over 10 pitches."""
    found = read(8.062, 4.031 * 1.03, pitches_per_dog="2", conveyor="X-458")
    assert found.dogs and found.dogs.slip_m == pytest.approx(8.062 * 0.03 * 0.0254, rel=1e-3)
    assert any(v.topic == "conveyor" and "3.0 % longer" in v.headline for v in found.verdicts)


def test_what_the_eye_sees_is_said() -> None:
    seen = read_dogs(
        {}, {"bears_on": "vertical rollers", "take_up_side": "incoming tight side", "wear_strips": "missing", "pressure_plate": "there"}
    )
    stops = [v.headline for v in seen.verdicts if v.tone is Tone.STOP]
    assert stops == ["The dogs push on the vertical rollers", "The take-up is on the tight side", "Wear strips below: missing"]
    asked = read_dogs({"dog_span": Typed("36", "in")}, {"dogs_engaged": "many"})
    assert {p.field for p in asked.problems} == {"dog_count", "dogs_engaged"}


def test_each_is_judged_against_new_too() -> None:
    """Worn alike they run on, and a new chain would not fit the dogs: both go together; a new chain on worn dogs wants dogs only."""
    alike = read(6.25, 6.25).verdicts[0]
    assert alike.tone is Tone.WATCH and "both worn" in alike.headline and "enew" in alike.detail
    assert read(6.25, 6.0).verdicts[0].headline.startswith("The dogs are worn, the conveyor chain is not")
    assert read(6.0, 6.25).verdicts[0].headline.startswith("The conveyor chain is worn, the dogs are not")
