"""Choosing a drive: arrays against the plain loop, loads against statics, and what kills a candidate."""

import math
from collections import Counter
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis.quantity import to_si
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.motor import limit
from tuyere.core.kinds.problem import Demands, Kept
from tuyere.core.kinds.rating.own_table import NONE
from tuyere.core.kinds.rating.service import IDLERS, SURROUNDINGS
from tuyere.core.stations.size.judge import judge
from tuyere.core.stations.size.own_ratings import read_ratings
from tuyere.core.stations.size.parts_list import read_parts
from tuyere.core.stations.size.search import centres, search
from tuyere.core.stations.size.shelf import stock
from tuyere.core.stations.size.stock import choices, kinds

RPM = to_si(1, "rotation", "rpm")

# A shop's own figures and parts: of nobody's catalogue, chosen to reach as far as the tests do.
OWN_TEXT = "\n".join(
    [
        "for,size,speed,power,ratio,width,source",
        *(
            f"B,{d} mm,{n} rpm,{d * n * (1 + k / 20) / 6e4:.3f} kW,{k},,own trials"
            for k in (1, 1.5)
            for d in (130, 200, 290)
            for n in (500, 1160, 1800)
        ),
        *(f"PK,{d} mm,{n} rpm,{d * n / 7e5:.3f} kW,,," for d in (40, 290) for n in (200, 1800)),
        *(f"2L,{d} mm,{n} rpm,{d * n / 9e5:.3f} kW,,," for d in (20, 90) for n in (200, 1800)),
        *(f"H8M,{z},{n} rpm,{z * n / 4e3:.3f} kW,,20 mm," for z in (22, 40, 72) for n in (100, 1800)),
        *(f"60,{z},{n} rpm,{z * n / 5e3:.3f} kW,,," for z in (17, 30, 60) for n in (50, 1800)),
        *(f"leather 1ply medium,{d} mm,{n} rpm,{d * n / 9e4:.3f} kW,,100 mm," for d in (100, 300, 500) for n in (200, 1800)),
    ]
)
PARTS_TEXT = """part,for,size,grooves,width,on_hand,price,number
wheel,B,5.4 in,3,,1,30,
wheel,B,11 in,3,,1,70,
wheel,B,11 in,1,,,20,OLD-11
belt,B,B68,,,2,12,
belt,B,B75,,,,13,
wheel,H8M,32,,30 mm,2,27,
wheel,H8M,64,,30 mm,2,44,
wheel,H8M,72,,85 mm,,70,
belt,H8M,8M-1200,,30 mm,1,41,
belt,H8M,8M-1600,,50 mm,1,60,
wheel,60,17,1,,1,14,
wheel,60,35,1,,1,28,
wheel,60,19,2,,1,30,
chain,60,,1,,5,10,
wheel,flat,160 mm,,100 mm,1,,
wheel,flat,320 mm,,130 mm,1,,
wheel,PK,100 mm outside,6,,1,20,
wheel,PK,200 mm outside,8,,1,30,
belt,PK,6PK1250,,,1,18,
belt,PK,4PK1250,,,1,13,
belt,B,3/B75,,,1,44,
belt,leather 1ply medium,,,100 mm,,,
"""
OWN = read_ratings(OWN_TEXT).ratings
PARTS = read_parts(PARTS_TEXT).parts
SHOPS = (tuple(k for k in kinds(OWN) if k.own), stock(NONE, PARTS, "shelf"), stock(OWN, PARTS, "list"))


def inches(x: float) -> float:
    return x * 0.0254


def some(kind: Choosable, by: np.random.Generator) -> Choosable:
    """A handful of the kind's wheels and lengths."""
    wheels = set(by.choice([w.name for w in kind.driver], min(5, len(kind.driver)), replace=False))
    lengths = set(by.choice([x.name for x in kind.lengths], min(5, len(kind.lengths)), replace=False)) if kind.lengths else set()
    return kind.restricted(lambda w: w.name in wheels, lambda x: x.name in lengths)


optional = st.none() | st.floats(0.1, 0.6)
problems = st.builds(
    Demands,
    power_w=st.floats(100, 40_000),
    driver_speed=st.floats(60, 3600).map(lambda n: n * RPM),
    driven_speed=st.floats(60, 3600).map(lambda n: n * RPM),
    tolerance=st.floats(0.01, 2),
    driven_class=st.sampled_from(["light", "moderate", "heavy", "extra_heavy", "chokable"]),
    driver_class=st.sampled_from(["normal", "high"]),
    hours_per_day=st.floats(1, 24),
    idler=st.sampled_from(list(IDLERS)),
    centre_low_m=st.floats(0, 0.5),
    centre_high_m=st.floats(0.5, 4),
    driver_most_m=optional,
    driven_most_m=optional,
    width_most_m=st.none() | st.floats(0.01, 0.3),
    driver_shaft_m=st.none() | st.floats(0.01, 0.1),
    driven_shaft_m=st.none() | st.floats(0.01, 0.1),
    motor=st.sampled_from(
        [None, *(limit(to_si(hp, "power", "hp"), 1760 * RPM, frame) for hp, frame in ((3, "182T"), (15, "254T"), (30, None)))]
    ),
    surroundings=st.sampled_from(list(SURROUNDINGS)),
    ambient_c=st.none() | st.floats(0, 130),
    pull_most_n=st.none() | st.floats(100, 20_000),
    reserve=st.booleans(),
    fast_wheels=st.booleans(),
    families=st.just(frozenset(choices())),
    keep_driver=st.none() | st.builds(Kept, st.sampled_from(["A", "H8M", "40", "flat"]), st.floats(0.08, 0.4), st.integers(12, 40)),
)


@examples(16)
@given(problems, st.integers(0, 2**31))
def test_the_arrays_find_what_the_plain_loop_finds(problem: Demands, seed: int) -> None:
    by = np.random.default_rng(seed)
    shop = SHOPS[by.integers(len(SHOPS))]
    drawn = [kinds()[k] for k in by.choice(len(kinds()), 2, replace=False)] + [shop[k] for k in by.choice(len(shop), 2, replace=False)]
    picked = [some(kind, by) for kind in {k.name: k for k in drawn}.values()]
    found = search(problem, picked)
    fast = {
        (
            f.kind.name,
            f.driver_wheels[i].name,
            f.driven_wheels[j].name,
            f.kind.lengths[m].name if f.kind.lengths else "",
            f.kind.counts[k],
        ): n
        for f in found.found
        for n, (i, j, m, k) in enumerate(zip(f.driver, f.driven, f.length, f.count, strict=True))
    }
    killed: Counter[str] = Counter()
    slow = set()
    for kind in picked:
        stays = kind.wheel_kept(problem.keep_driver, True) if problem.keep_driver else None
        for driver in kind.driver if not stays else (*kind.driver[1:], stays):
            for driven in kind.driven:
                for length in kind.lengths or (None,):
                    for count in kind.counts:
                        judged = judge(problem, kind, driver, driven, length, count)
                        key = (kind.name, driver.name, driven.name, length.name if length else "", count)
                        if judged.failures:
                            killed[judged.failures[0].constraint] += 1
                            continue
                        slow.add(key)
                        assert judged.measures
                        f = next(f for f in found.found if f.kind is kind)
                        n = fast[key]
                        for mine, theirs in (
                            (judged.measures.centre_m, f.centre_m),
                            (judged.measures.capacity_w, f.capacity_w),
                            (judged.measures.pull_n, f.pull_n),
                            (judged.measures.wrap_rad, f.wrap_rad),
                            (judged.measures.width_m, f.width_m),
                            (judged.measures.speed_error, f.speed_error),
                        ):
                            assert math.isclose(mine, theirs[n], rel_tol=1e-9, abs_tol=1e-12)
    assert slow == set(fast)
    assert killed == +Counter(found.killed), "and what killed the rest"
    assert found.looked_at == sum(killed.values()) + len(slow)


@given(st.floats(0.02, 1), st.floats(0.02, 1), st.floats(1.01, 20))
def test_centres_from_a_length_come_back(d: float, big: float, apart: float) -> None:
    """Against the length of an open belt at those centres, by geometry's own code."""
    from tuyere.core.mechanics.open_belt import belt_length

    at = apart * (d + big) / 2
    line = np.array([belt_length(d, big, at)])
    found = centres(line, np.array([math.pi * (d + big) / 2]), np.array([big - d]), np.array([(big - d) / 2]))
    assert math.isclose(found[0], at, rel_tol=1e-9)


FAN = Demands(to_si(5, "power", "hp"), 1750 * RPM, 875 * RPM, 0.02, "light", centre_low_m=inches(20), centre_high_m=inches(24))


def test_a_textbook_drive_is_found_and_its_neighbours_die_of_the_right_thing() -> None:
    """Two to one at 1750 rpm on B belts: 5.4 and 11 in pass, a pair off in speed, a belt too short and a set too narrow do not."""
    b = next(k for k in kinds() if k.name == "B")
    wheel = {w.name: w for w in b.driver}
    belt = {x.name: x for x in b.lengths}

    def why(driver: str, driven: str, length: str, count: float, problem: Demands = FAN) -> list[str]:
        return [f.constraint for f in judge(problem, b, wheel[driver], wheel[driven], belt[length], count).failures]

    assert why("5.4 in datum", "11 in datum", "B68", 1) == []
    assert why("5.4 in datum", "9.4 in datum", "B68", 1) == ["speed"]
    assert why("5.4 in datum", "11 in datum", "B51", 2) == ["centres"]
    heavy = replace(FAN, power_w=to_si(25, "power", "hp"))
    assert why("5.4 in datum", "11 in datum", "B68", 1, heavy) == ["power"]
    assert why("5.4 in datum", "11 in datum", "B68", 1, replace(FAN, reserve=True)) == ["reserve"]
    assert why("5.4 in datum", "11 in datum", "B68", 1, replace(FAN, families=frozenset({"synchronous"}))) == ["family"]


def test_pulls_stand_in_order_of_the_families() -> None:
    """For one effective pull a chain pulls its shaft least, toothed belts less than V, flat belts most.

    The overhung factors' order (handbooks).
    """
    found = search(replace(FAN, centre_low_m=0.4, centre_high_m=0.9, tolerance=0.05), kinds())
    least = {}
    for f in found.found:
        at = f.pull_n * f.belt_speed / (FAN.power_w if f.kind.family == "roller chain" else f.design_w)
        least[f.kind.family] = min(least.get(f.kind.family, math.inf), float(at.min()))
    assert least["roller chain"] < least["synchronous"] < least["v-belt"] < least["flat belt"]


@pytest.mark.parametrize("family", ["v-belt", "synchronous", "roller chain", "flat belt"])
def test_every_family_has_something_for_an_ordinary_fan(family: str) -> None:
    found = search(replace(FAN, families=frozenset({family}), tolerance=0.05), kinds())
    assert found.feasible > 10
    assert all(np.isfinite(f.pull_n).all() and (f.capacity_w >= f.design_w).all() for f in found.found)
