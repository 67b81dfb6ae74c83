"""How worn and when: limits against their sources, bands that cover simulated truth, histories that are refused."""

import math
import random

import pytest
from bench.wear import history
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis import keeper
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import standard_uncertainty
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.roller_chain import chain
from tuyere.core.kinds.roller_chain.dogs import new_pitch
from tuyere.core.kinds.wear_limits import LOOKED, Dogs, elongation, judge, judge_dogs, limit_of, whats
from tuyere.core.stations.inspect.diagnosis.knowledge import knowledge
from tuyere.core.stations.inspect.rounds.checklist import items
from tuyere.core.stations.inspect.wear.forecast import forecast
from tuyere.core.stations.inspect.wear.read import WornPart, read_wear, tool_of
from tuyere.core.stations.jobs.numbers import keeper_number

INCH = 0.0254


def test_limits_are_their_sources() -> None:
    """Machinery's Handbook, ASME B29 practice and RMA-type guides, from memory."""
    assert limit_of("groove").limit == pytest.approx(INCH / 32, rel=0.02) and limit_of("groove", narrow=True).limit == pytest.approx(
        INCH / 64, rel=0.02
    )
    assert limit_of("chain").limit == 0.03 and limit_of("chain", fixed=True).limit == 0.015
    assert limit_of("chain", large_teeth=67).limit == 0.03 and limit_of("chain", large_teeth=80).limit == pytest.approx(0.025)
    assert limit_of("chain", fixed=True, large_teeth=80).limit == 0.015
    assert elongation(6.180 * INCH, 12, 0.5 * INCH) == pytest.approx(0.03)
    assert limit_of("splice").limit == pytest.approx((INCH / 16) / 0.3048, rel=0.05)
    assert all(
        r["unit"] in ("m", "share", "count", "look") and r["sense"] in ("most", "least") and float(r["limit"]) > 0
        for r in rows("wear_limits")
    )


MEASURED = [w for w in whats() if limit_of(w).unit != "look" and not limit_of(w).least]


@pytest.mark.parametrize("what", MEASURED)
def test_a_verdict_hardens_toward_the_limit(what: str) -> None:
    limit = limit_of(what)
    tones = [judge(limit.limit * share, limit).tone for share in (0.2, 0.7, 1.0, 1.5)]
    assert tones == [Tone.GOOD, Tone.WATCH, Tone.STOP, Tone.STOP]
    assert judge(limit.limit * 0.7, limit).headline.endswith("70% of its limit")


def test_what_is_judged_by_eye_is_there_begins_or_is_not_and_a_gap_must_not_be_too_small() -> None:
    for what in set(whats()) - set(MEASURED):
        limit = limit_of(what)
        if limit.unit == "look":
            assert [judge(v, limit).tone for v in LOOKED.values()] == [Tone.GOOD, Tone.WATCH, Tone.STOP], what
    guard = limit_of("guard_gap")  # at least half an inch: common practice
    assert [judge(g * INCH, guard).tone for g in (2, 0.6, 0.4, 0)] == [Tone.GOOD, Tone.WATCH, Tone.STOP, Tone.STOP]


def test_dogs_are_judged_against_new_and_against_their_chain() -> None:
    """Trade fact: 6.250 in worn of 6.000 in new (4.2 %) does not mesh with a new chain; worn alike they run on and are renewed together."""
    worn = elongation(6.250 * INCH, 1, 6 * INCH)
    assert worn == pytest.approx(0.0417, abs=1e-4)
    assert judge_dogs(Dogs(worn, 0.0)).tone is Tone.STOP
    together = judge_dogs(Dogs(worn, 0.04))
    assert together.tone is Tone.WATCH and "run on" in together.headline and "Neither alone" in together.detail
    assert judge_dogs(Dogs(0.004, 0.002)).tone is Tone.GOOD


@pytest.mark.parametrize(("shapes", "n"), [(("straight", "bending up", "late"), 4), (("straight", "bending up", "bedding"), 12)])
def test_bands_cover_the_true_hour_at_their_stated_rate(shapes: tuple[str, ...], n: int) -> None:
    """0.9 stated; of 90 histories between 0.83 and 1 (bench/wear.py measures it on thousands)."""
    chance, inside, given_ = random.Random(f"cover {n}"), 0, 0
    for i in range(90):
        hours, values, life = history(shapes[i % len(shapes)], n, chance)
        found = forecast(hours, values, 3.0, "chain")
        if found.low is not None:
            given_ += 1
            inside += found.low <= life and (found.high is None or life <= found.high)
    assert given_ >= 85 and inside / given_ >= 0.83


def test_a_straight_history_ends_where_a_ruler_says_whatever_the_unit_and_the_start() -> None:
    hours = [1000.0, 2000, 3000, 4000, 5000, 6000]
    straight = forecast(hours, [h / 6000 * 1.8 for h in hours], 3.0, "chain")
    assert straight.middle == pytest.approx(10000, rel=0.05) and straight.low and straight.high and straight.low < 10000 < straight.high
    inches = forecast(hours, [h / 6000 * 1.8 / 25.4 for h in hours], 3.0 / 25.4, "chain")
    assert (inches.low, inches.middle, inches.high) == pytest.approx((straight.low, straight.middle, straight.high), rel=1e-6)
    later = forecast([h + 500 for h in hours], [h / 6000 * 1.8 + 0.4 for h in hours], 3.4, "chain", 500, 0.4)
    assert (later.low, later.middle) == pytest.approx((straight.low + 500, (straight.middle or 0) + 500), rel=1e-6)
    falling = forecast(hours, [100 - h / 6000 * 18 for h in hours], 70, "tension", 0, 100)
    assert falling.middle and falling.middle > 6000, "a tension that falls to its limit"


def test_one_blunder_among_many_does_not_move_the_day() -> None:
    hours = [float(h) for h in range(500, 6500, 500)]
    values = [round(h / 10000 * 3, 2) for h in hours]
    clean, odd = forecast(hours, values, 3.0, "chain"), forecast(hours, [*values[:5], 2.9, *values[6:]], 3.0, "chain")
    assert odd.middle == pytest.approx(clean.middle, rel=0.05)


@pytest.mark.parametrize(
    ("hours", "values", "limit"),
    [
        ([], [], 3.0),
        ([1000.0], [None], 3.0),
        ([1000.0, 2000.0], [0.0, 0.0], 3.0),
        ([1000.0, 2000.0, 3000.0], [0.02, 0.01, 0.0], 3.0),
        ([0.0], [0.0], 3.0),
        ([1000.0], [1.0], 0.0),
        ([500.0, 1000.0, 1500.0, 2000.0], [1.2, 0.6, 0.3, 0.0], 3.0),
    ],
)
def test_what_cannot_be_said_is_refused_in_a_sentence_or_left_open(hours: list[float], values: list[float | None], limit: float) -> None:
    found = forecast(hours, values, limit)
    assert found.high is None and (found.refused.endswith(".") or found.middle is not None)
    if not any(values):
        assert found.refused


@given(
    st.lists(st.tuples(st.floats(1, 50000), st.one_of(st.none(), st.floats(-5, 10))), max_size=12),
    st.floats(0.01, 10),
    st.sampled_from(["", "chain", "groove", "tension"]),
)
@examples(40)
def test_any_readings_give_an_ordered_band_or_a_sentence(readings: list[tuple[float, float | None]], limit: float, kind: str) -> None:
    found = forecast([h for h, _ in readings], [v for _, v in readings], limit, kind)  # type: ignore[arg-type]
    if found.refused:
        assert found.low is None and found.middle is None
    else:
        assert found.low is not None and found.middle is not None and 0 <= found.low <= found.middle and math.isfinite(found.middle)
        assert found.high is None or found.middle <= found.high


def test_a_keeper_has_one_gap_at_every_station() -> None:
    """One table by the kind of machine; wear's limit is the widest of it, and every text that names the gap takes it from there."""
    assert limit_of("keeper").limit == pytest.approx(keeper.widest().most_m)
    assert keeper.said() in limit_of("keeper").then and keeper.said() in knowledge().causes["keeper_gap"].do
    assert any(keeper.said() in item.how for item in items().values())
    assert keeper_number({"mower"}).us == keeper.keeper_gap("mower").text[0]


def test_the_diagnosis_asks_wear_for_its_limits() -> None:
    for drive in ({}, {"fixed": True}, {"large_teeth": 100}):
        known = knowledge(**drive)  # type: ignore[arg-type]
        assert known.checks["chain_meas"].over == pytest.approx(100 * limit_of("chain", **drive).limit)  # type: ignore[arg-type]
        assert known.facts["elongation"].then[0].value == known.checks["chain_meas"].over
    assert "1/64" in knowledge(narrow=True).checks["groove_gauge"].question and "1/32" in knowledge().checks["groove_gauge"].question
    assert knowledge().checks["conv_pitch"].over == pytest.approx(100 * limit_of("dogs").limit)


def test_an_overhead_chain_is_counted_from_its_own_pitch() -> None:
    """X-678 is 6.031 in when new, so 6.250 in is 3.6 % (trade fact, from memory)."""
    assert elongation(6.250 * INCH, 1, chain("X-678").pitch_m) == pytest.approx(0.0363, abs=1e-4)
    assert new_pitch("", 6.250 * INCH)[0] == pytest.approx(chain("X-678").pitch_m)


def test_each_part_counts_from_its_own_fitting() -> None:
    """New belts renew no grooves, new wheels no chain; a feeler's doubt is a feeler's, not a tape's."""
    assert {limit_of(w).anew for w in ("groove", "run_out_rim", "sprocket_tooth", "flange")} == {"new wheel"}
    assert {limit_of(w).anew for w in ("chain", "belt_cracks", "cords", "stiff_joint")} == {"new set"}
    assert limit_of("keeper").anew == ""
    found = read_wear("groove", WornPart("v"), {"value": Typed("0.3", "mm")}, {})
    assert found.value == pytest.approx(0.0003) and tool_of(limit_of("groove")) == "feeler"
    assert standard_uncertainty(0.0003, "length", Origin.MEASURED, "feeler") < 0.1 * limit_of("groove").limit
