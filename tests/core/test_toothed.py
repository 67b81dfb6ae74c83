"""Which toothed belt or chain: the frozen cases, wear apart from type, and drives of two toothed wheels."""

import math

import pytest
from bench.identification_toothed import cases, drawn, judge
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds import roller_chain, synchronous
from tuyere.core.kinds.registry import meshing
from tuyere.core.kinds.teeth import read_toothed_drive
from tuyere.core.kinds.toothed import read_toothed


def test_the_frozen_cases() -> None:
    """At least nine in ten right first, all in the top two, and whatever it calls sure is right."""
    results = [(case["id"], judge(case)) for case in cases()]
    assert len(results) >= 140
    assert sum(r["place"] == 0 for _, r in results) >= 0.9 * len(results)
    assert [name for name, r in results if r["place"] > 1] == []
    assert [name for name, r in results if r["sure"] > 0.95 and r["place"]] == []


@pytest.mark.parametrize("family", ["chain", "synchronous"])
def test_cases_drawn_by_chance(family: str) -> None:
    """Cases nobody chose: sizes of the tables with everyday scatter and wear. Same aims, and what it calls sure is right."""
    results = [judge(case) for case in drawn(family, 80)]
    assert sum(r["place"] == 0 for r in results) >= 0.9 * len(results)
    assert sum(r["place"] < 2 for r in results) >= 0.98 * len(results)
    assert sum(r["sure"] > 0.95 for r in results) >= 0.4 * len(results)
    assert all(r["place"] == 0 for r in results if r["sure"] > 0.95)


def chain_of(span: str, count: int, **more: str):  # type: ignore[no-untyped-def]
    sizes = {k: Typed(v, "mm", tool="caliper") for k, v in more.items()}
    return read_toothed(meshing("roller chain"), {"pitch_span": Typed(span, "mm", tool="rule"), **sizes}, {"pitch_count": str(count)})


def test_twelve_pitches_tell_a_worn_40_from_an_08b() -> None:
    """Both have 12.70 mm pitch new (ASME B29.1, ISO 606).

    The span gives the wear, the roller the type; a worn pitch does not make it another.
    """
    worn = chain_of("156.5 mm", 12, roller_diameter="7.88 mm")
    first = worn.matches.found[0]
    assert first.kind.name == "40" and first.grown and first.grown[0] == pytest.approx(0.0269, abs=0.001)
    assert {m.kind.name: m.probability for m in worn.matches.found}["08B"] < 0.001
    assert any(v.topic == "wear" and v.tone is Tone.WATCH for v in worn.verdicts)
    fresh = chain_of("152.4 mm", 12, roller_diameter="8.5 mm")
    assert fresh.matches.found[0].kind.name == "08B" and any(v.topic == "wear" and v.tone is Tone.GOOD for v in fresh.verdicts)
    neither = chain_of("156.5 mm", 12)
    assert neither.matches.found[0].probability < 0.9 and neither.ask and neither.ask.key in ("roller_diameter", "inner_width")


@given(st.sampled_from(["40", "60", "80", "08B", "12B", "16B"]), st.floats(0, 0.035), st.integers(12, 30))
def test_wear_never_changes_the_chain(name: str, grown: float, count: int) -> None:
    c = roller_chain.chain(name)
    assert c.roller_m and c.inner_width_m
    span = c.pitch_m * count * (1 + grown) * 1000
    found = chain_of(f"{span:.2f} mm", count, roller_diameter=f"{c.roller_m * 1000:.3f} mm", inner_width=f"{c.inner_width_m * 1000:.3f} mm")
    first = found.matches.found[0]
    assert first.kind.name.removesuffix("H") == name
    assert first.grown and first.grown[0] == pytest.approx(grown, abs=2e-4)


def test_a_strange_pitch_is_said_to_be_strange() -> None:
    found = read_toothed(meshing("synchronous"), {"pitch_span": Typed("152", "mm")}, {"pitch_count": "10"})
    assert found.matches.none_of_them > 0.5 and found.verdicts[0].tone is Tone.WATCH


def test_what_is_missing_or_mistyped_is_said_beside_it() -> None:
    found = read_toothed(
        meshing("roller chain"), {"pitch_span": Typed("12 in", ""), "roller_diameter": Typed("fat", "")}, {"pitch_count": "-3"}
    )
    assert {p.field for p in found.problems} == {"roller_diameter", "pitch_count"}
    assert read_toothed(meshing("roller chain"), {"pitch_span": Typed("12", "in")}, {}).problems[0].field == "pitch_count"
    assert read_toothed(meshing("synchronous"), {}, {"label": "banana"}).problems[0].field == "label"


def drive(family: str, **words: str):  # type: ignore[no-untyped-def]
    centre = words.pop("centre", "")
    return read_toothed_drive(meshing(family).lay_out, {"centre_distance": Typed(centre, "mm")}, words)  # type: ignore[arg-type]


@given(st.sampled_from(["L", "H", "T5", "T10", "H8M", "H14M"]), st.integers(14, 40), st.integers(0, 60), st.floats(1.2, 4))
def test_a_belt_of_whole_teeth_is_taut_at_its_centres(name: str, z1: int, more: int, ratio: float) -> None:
    """The numerical length round the pitch circles (runs and arcs) is exactly the teeth times the pitch."""
    p = synchronous.profile(name)
    d1, d2 = synchronous.pitch_diameter(p, z1), synchronous.pitch_diameter(p, z1 + more)
    centre = ratio * (d1 + d2) / 2 + 0.05
    found = drive("synchronous", name=name, teeth_1=str(z1), teeth_2=str(z1 + more), centre=f"{centre * 1000:.3f}").drive
    assert found
    for f in found.fittings:
        tilt = math.asin((d2 - d1) / (2 * f.centre_m))
        length = 2 * f.centre_m * math.cos(tilt) + d1 / 2 * (math.pi - 2 * tilt) + d2 / 2 * (math.pi + 2 * tilt)
        assert length == pytest.approx(f.count * p.pitch_m, rel=1e-9)
    nearest = min(found.fittings, key=lambda f: abs(f.centre_m - centre))
    assert abs(nearest.centre_m - centre) <= p.pitch_m


def test_the_textbook_chain_drive() -> None:
    """Shigley, Example 17-5: No. 140, 17/34 teeth: 76 pitches stand at 43.93 in."""
    found = drive("roller chain", name="140", teeth_1="17", teeth_2="34", count="76").drive
    assert found and found.fittings[0].centre_m / 0.0254 == pytest.approx(43.93, rel=5e-4)
    taped = drive("roller chain", name="140", teeth_1="17", teeth_2="34", centre="1115").drive
    assert taped and taped.fittings[0].count == 76 and taped.fittings[0].plain and any(not f.plain for f in taped.fittings)


def test_odd_chains_few_teeth_and_small_wrap_are_flagged() -> None:
    odd = drive("roller chain", name="60", teeth_1="11", teeth_2="60", count="65").drive
    assert odd and {v.headline.split(" ")[0] for v in odd.verdicts if v.tone is Tone.WATCH} == {"An", "11", "The"}
    few = drive("synchronous", name="XH", teeth_1="12", teeth_2="60", centre="430").drive
    assert few and any("few for XH" in v.headline for v in few.verdicts) and any("teeth in mesh" in v.headline for v in few.verdicts)
    assert "too short" in drive("roller chain", name="60", teeth_1="40", teeth_2="40", count="50").problems[0].sentence
    assert "not a chain" in drive("roller chain", name="61", teeth_1="17", teeth_2="40").problems[0].sentence


@given(st.sampled_from(["L", "H", "XL", "T5", "T10", "H8M", "H14M", "XH"]), st.integers(18, 48))
def test_a_pulley_alone_tells_its_pitch(name: str, teeth: int) -> None:
    """ISO 5294: the diameter over the teeth and their number give the pitch; forms of one pitch stay open."""
    size = synchronous.outside_diameter(synchronous.profile(name), teeth) * 1000
    found = read_toothed(meshing("synchronous"), {"wheel_outside": Typed(f"{size:.2f}", "mm", tool="caliper")}, {"wheel_teeth": str(teeth)})
    same_pitch = [m for m in found.matches.found if abs(m.kind.pitch_m - synchronous.profile(name).pitch_m) < 1e-4]
    assert sum(m.probability for m in same_pitch) > 0.9


def test_a_sprocket_alone_tells_its_chain_and_wants_its_teeth_counted() -> None:
    """ASME B29.1: No. 60, 17 teeth, caliper diameter 0.75 x 5.419 - 0.469 in."""
    typed = {"wheel_caliper": Typed(f"{0.75 * 5.419 - 0.469:.3f}", "in", tool="caliper")}
    found = read_toothed(meshing("roller chain"), typed, {"wheel_teeth": "17"})
    assert sum(m.probability for m in found.matches.found if m.kind.name in ("60", "60H", "12B")) > 0.9
    assert read_toothed(meshing("roller chain"), typed, {}).problems[0].field == "wheel_teeth"
