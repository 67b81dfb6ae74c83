"""Jobs that nobody is hurt by: laws over every kind of job and generated machines, a library that is refused where it breaks them,
and a new kind from a data file alone."""

from collections.abc import Sequence

import pytest
from bench.jobs_aloud import drives, jobs
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis.table import rows
from tuyere.core.stations.jobs.compose import (
    OWN,
    OwnStep,
    compose,
    fitting,
    for_due,
    held_up_by,
    next_step,
    open_safety,
    waits_for,
    with_own,
)
from tuyere.core.stations.jobs.library import ISOLATION, LOCKS, JobKind, Step, base_of, guesses, holds, machine_facts, traits_asked
from tuyere.core.stations.jobs.read import library

HELD = ("base", "spring", "idler held", "pivot")
FITTED = sorted(library().drive_facts - {*HELD, "electric", "fan survey", "pump survey", "vfd survey"})
MACHINES = [
    "walk-behind verge mower",
    "ride-on mower",
    "rooftop air unit",
    "condenser fan",
    "kiln exhaust fan",
    "engine pump",
    "portable sawmill with engine",
    "lathe",
    "turret mill",
    "drag conveyor",
    "bucket elevator",
    "hammer mill",
    "reciprocating compressor",
    "tractor-driven auger",
    "centrifugal pump",
    "small blower, laboratory roof",
    "overhead conveyor",
    "pneumatic palletiser",
    "goods hoist",
    "yard sweeper",
    "roller mill with inverter",
]


@st.composite
def composed(draw: st.DrawFn) -> tuple[JobKind, tuple[Step, ...], frozenset[str]]:
    """A job of any kind that fits, on any machine: named ones as guessed, and any answers at all."""
    kind = library().kinds[draw(st.sampled_from(sorted(library().kinds)))]
    if draw(st.booleans()):
        answers = {k: g.is_so for k, g in guesses(library(), [draw(st.sampled_from(MACHINES))]).items()}
    else:
        answers = {k: draw(st.booleans()) for k in library().traits}
    answers["runs"] = draw(st.booleans())
    facts = set(machine_facts(library(), answers)) | draw(st.sets(st.sampled_from(FITTED))) | {draw(st.sampled_from(HELD))}
    for fact in kind.fits:
        facts |= {fact.split("|")[0]} - {f"!{fact}"} if not fact.startswith("!") else set()
        facts -= {fact[1:]} if fact.startswith("!") else set()
    for ask in kind.asks:
        if ask.options:
            facts.add(f"{ask.key}={draw(st.sampled_from(ask.options))}")
    return kind, compose(library(), kind, facts), frozenset(facts)


def broken(kind: JobKind, steps: Sequence[Step]) -> list[str]:
    """Which rules of a safe job it breaks, and where: read off sort, state, leaves and undoes alone, never off words."""
    found = []
    left: dict[str, Step] = {}
    locked: set[str] = set()  # sorts of the isolation that hold now
    for i, step in enumerate(steps):
        before = {s.key for s in steps[:i]}
        opened = {k for k, s in left.items() if s.leaves in ("lock", "hold", "block", "loose")}
        if step.state == "running" and step.sort == "run" and left:
            found.append(f"{step.key} runs with {sorted(left)} still so")
        if step.sort == "test" and step.state == "running":
            held = sorted(k for k in opened if left[k].leaves in ("block", "lock", "loose") or left[k].sort == "stored")
            if held:
                found.append(f"{step.key} is a test under power with {held} in or loose")
            if not any(s.sort == "test" and s.state == "any" for s in steps[:i]):
                found.append(f"{step.key}: nobody cleared tools and people")
        if step.turns and any(s.leaves == "block" for s in left.values()):
            found.append(f"{step.key} turns what is blocked")
        if step.sort in ("hands",):
            if not {"lock", "dead stop", "verify"} <= locked and not step.undoes and not step.key.startswith(("tools_count", "fuel_")):
                found.append(f"{step.key} is hands-on and the machine is not isolated")
            since = _since_run(steps, i)
            waited = {s.key for s in since if s.safety == "lock"}
            if not waited <= set(step.after):
                found.append(f"{step.key} does not wait for {sorted(waited - set(step.after))}")
        if step.sort in ISOLATION:
            behind = [s.key for s in _since_run(steps, i) if s.sort in ISOLATION and ISOLATION.index(s.sort) > ISOLATION.index(step.sort)]
            if behind and step.sort != "tell" and not step.key.startswith("test_off"):
                found.append(f"{step.key} ({step.sort}) stands behind {behind}")
            locked.add(step.sort)
        if step.sort in ("run", "test"):
            locked.clear()
        if not set(step.undoes) <= before:
            found.append(f"{step.key} takes back {step.undoes}, which is not there")
        for key in step.undoes:
            left.pop(key, None)
        if step.to_undo:
            left[step.key] = step
        if step.sort == "access" and any(s.sort in ("run", "hands", "lock") for s in steps[:i]):
            found.append(f"{step.key}: the way there comes behind work at the machine")
    if left:
        found.append(f"left in at the end: {sorted(left)}")
    if kind.stopped and any(s.sort in ("run", "test") for s in steps[: next(i for i, s in enumerate(steps) if s.sort == "verify")]):
        found.append("a machine that stands is run before it is isolated")
    return found


def _since_run(steps: Sequence[Step], place: int) -> list[Step]:
    """The steps since the machine was last run or tested."""
    start = max((k + 1 for k, s in enumerate(steps[:place]) if s.state == "running"), default=0)
    return list(steps[start:place])


@given(composed())
@examples(400)
def test_no_job_leaves_a_block_in_or_asks_a_hand_into_what_may_move(job: tuple[JobKind, tuple[Step, ...], frozenset[str]]) -> None:
    kind, steps, facts = job
    assert not broken(kind, steps), (kind.key, sorted(facts))
    assert {"tell", "dead stop", "verify"} <= {s.sort for s in steps}, "on every machine, whatever drives it"
    assert len({s.key for s in steps}) == len(steps)


def test_every_job_of_the_demo_plant_holds_the_rules() -> None:
    every = jobs()
    assert len(every) > 200 and len({m for m, _ in every}) == 24
    wrong = {(machine, kind): found for (machine, kind), steps in every.items() if (found := broken(library().kinds[kind], steps))}
    assert not wrong


@given(
    st.sampled_from(sorted(drives())),
    st.sampled_from(sorted(library().kinds)),
    st.sets(st.sampled_from(sorted(library().traits))),
    st.data(),
)
@examples(300)
def test_every_demo_drive_s_jobs_hold_the_rules_whatever_is_answered(
    machine: str, key: str, flipped: set[str], data: st.DataObject
) -> None:
    of_drive, guessed = drives()[machine]
    kind = library().kinds[key]
    facts = of_drive | machine_facts(library(), {k: so != (k in flipped) for k, so in guessed.items()})
    if not holds(kind.fits, facts):
        return
    asked = {f"{a.key}={data.draw(st.sampled_from(a.options))}" for a in kind.asks if a.options}
    steps = compose(library(), kind, facts | asked)
    assert not broken(kind, steps), (machine, key, sorted(flipped))


@given(composed())
@examples(200)
def test_any_job_can_be_done_in_the_order_it_is_read(job: tuple[JobKind, tuple[Step, ...], frozenset[str]]) -> None:
    _, steps, _ = job
    settled: set[str] = set()
    for step in steps:
        assert next_step(steps, settled) == step and not waits_for(steps, step.key, settled)
        settled.add(step.key)
    assert next_step(steps, settled) is None and not open_safety(steps, settled)
    for i, step in enumerate(steps):
        assert [s.key for s in held_up_by(steps, step.key, settled)] == [s.key for s in steps[i + 1 :]]


@given(composed(), st.data())
@examples(150)
def test_what_is_not_taken_back_is_open_at_the_sign_off(job: tuple[JobKind, tuple[Step, ...], frozenset[str]], data: st.DataObject) -> None:
    _, steps, _ = job
    undo = data.draw(st.sampled_from([s for s in steps if s.undoes]))
    done = {s.key for s in steps} - {undo.key}
    assert undo.key in {s.key for s in open_safety(steps, done)}
    lock = data.draw(st.sampled_from([s for s in steps if s.safety]))
    assert lock.key in {s.key for s in open_safety(steps, {s.key for s in steps} - {lock.key})}


@given(composed(), st.sampled_from(["isolated", "running", "any"]), st.data())
@examples(150)
def test_a_shop_s_own_step_gets_the_waits_of_its_state(
    job: tuple[JobKind, tuple[Step, ...], frozenset[str]], state: str, data: st.DataObject
) -> None:
    kind, steps, _ = job
    behind = data.draw(st.sampled_from(steps)).key
    own = OwnStep("own-1", behind, "Hang the sign.", state=state)  # type: ignore[arg-type]
    facts_steps = compose_with(steps, own)
    assert not broken(kind, facts_steps)
    step = next(s for s in facts_steps if s.key == "own-1")
    at = facts_steps.index(step)
    if state == "isolated":
        assert {s.key for s in _since_run(facts_steps, at) if s.safety == "lock"} <= set(step.after)
    if state == "running":
        assert {s.key for s in facts_steps[:at] if s.undoes} <= set(step.after)


def compose_with(steps: Sequence[Step], own: OwnStep) -> tuple[Step, ...]:
    from tuyere.core.stations.jobs.compose import waiting

    return waiting(with_own(steps, [own]))


def test_every_step_says_why_and_from_where_and_names_what_is_there() -> None:
    cautions = {r["id"] for r in rows("cautions")}
    for kind in library().kinds.values():
        for step in library().steps_of(kind):
            assert step.do.endswith((".", "?")), step.key
            assert step.why and step.source and set(step.cautions) <= cautions, step.key
            assert len(step.do) <= 200, f"{step.key} is read aloud in one breath"
            assert "/" not in step.do.replace("1/4", "").replace("1/2", ""), f"{step.key}: no shorthand"
            assert (step.safety == "lock") == (
                step.sort in LOCKS or step.leaves == "block" or step.key in ("spindle_clear", "test_clear")
            ), step.key


def on(kind: str, *names: str, drive: set[str] | None = None, **answers: bool) -> list[str]:
    so = {k: g.is_so for k, g in guesses(library(), names, drive or ()).items()} | answers
    return [s.key for s in compose(library(), library().kinds[kind], machine_facts(library(), so) | (drive or {"v", "base"}))]


@pytest.mark.parametrize(
    ("machine", "steps"),
    [
        ("walk-behind mower", {"plug_off", "engine_off", "engine_dead", "plug_on"}),
        ("rooftop blower", {"roof_way", "damper_shut", "gas_shut", "dead_stop_coasts", "wheel_block", "try_call"}),
        ("condenser fan", {"roof_way", "damper_shut", "wheel_free"}),
        ("engine pump", {"engine_off", "plug_off", "suction_shut", "valves_open"}),
        ("sawmill", {"saw_held", "saw_free", "dead_stop_coasts"}),
        ("lathe", {"spindle_clear"}),
        ("turret mill", {"spindle_clear"}),
        ("drag conveyor", {"empty_first", "load_held", "load_free"}),
        ("bucket elevator", {"dust_permit", "empty_first", "load_held"}),
        ("hammer mill", {"dust_permit", "empty_first", "dead_stop_coasts", "blade_block", "blade_free"}),
        ("reciprocating compressor", {"receiver_shut", "receiver_open"}),
        ("tractor-driven auger", {"pto_off", "pto_uncouple", "hydraulics_down", "tractor_chocked", "pto_dead", "chocks_out"}),
        ("goods hoist", {"raised_down", "raised_free"}),
        ("mixer with inverter", {"vfd_wait", "prove_dead"}),
        ("pneumatic palletiser", {"air_shut", "air_on"}),
    ],
)
def test_each_machine_has_its_own_hazards_prepared_for(machine: str, steps: set[str]) -> None:
    keys = set(on("own", machine))
    assert steps <= keys, steps - keys
    assert len(keys & {"lock", "plug_off", "pto_uncouple"}) == 1, "one way or the other it is dead before hands go in"


def test_what_does_not_run_is_not_run_and_is_proved_dead() -> None:
    keys = on("motor_new", "drag conveyor", drive={"chain", "base"}, runs=False)
    assert "empty_first" not in keys and "try_start" not in keys and keys.index("prove_dead") < keys.index("guard_off")
    assert "load_held" in keys, "what cannot be emptied is blocked as it stands"
    keys = on("triage", "overhead sack conveyor", drive={"chain", "dogs", "base"}, runs=True)
    assert not [k for k in keys if k == "empty_first"] and keys.index("walk") < keys.index("supply") < keys.index("lock") < keys.index(
        "chain_off"
    )
    assert keys.index("chain_off") < keys.index("motor") < keys.index("gearbox") < keys.index("chain_back")


def test_a_turn_by_hand_has_its_block_out_and_in_again() -> None:
    keys = on("belt_set", "kiln exhaust fan", drive={"v", "set", "base", "tension known", "two wheels"})
    at = keys.index("turn_by_hand")
    assert keys[at - 1 : at + 2] == ["wheel_free", "turn_by_hand", "wheel_block.2"]
    again = [
        k
        for k in keys[keys.index("load_on") :]
        if base_of(k) in ("lock", "dead_stop_coasts", "damper_shut", "try_start", "wheel_block", "guard_off", "look_bolts")
    ]
    assert again == ["lock.2", "dead_stop_coasts.2", "damper_shut.2", "try_start.2", "wheel_block.3", "guard_off.2", "look_bolts"]


def test_a_bump_is_a_test_under_power_of_its_own() -> None:
    keys = on("motor_new", "kiln exhaust fan", drive={"v", "set", "base", "tension known", "two wheels"})
    at = keys.index("bump")
    assert keys[at - 5 : at + 1] == ["test_clear", "wheel_free", "blocks_out", "damper_open", "unlock", "bump"]
    after = keys[at + 1 : keys.index("slide_in")]
    assert after == ["test_off", "lock.2", "dead_stop_coasts.2", "damper_shut.2", "stored.2", "try_start.2", "try_call.2", "wheel_block.2"]
    assert keys.index("motor_snug") < at, "nothing that is loose is started"


def test_a_mower_is_prepared_for_by_what_is_asked() -> None:
    walk = {"v", "spring", "mower", "which=traction belt of a walk-behind", "fuel=run the tank dry"}
    keys = on("mower_belt", "verge mower", drive=walk)
    order = [
        "run_dry",
        "plug_off",
        "engine_dead",
        "covers_off",
        "traction_off",
        "tip_up",
        "blade_wood",
        "blade_off",
        "blade_on",
        "blade_torque",
        "upright",
        "traction_on",
        "covers_on",
        "fuel_wiped",
        "plug_on",
        "first_start_mower",
        "blades_stop",
        "plug_off.2",
        "covers_off.2",
        "look_mower",
        "covers_on.2",
        "plug_on.2",
    ]
    assert [k for k in keys if k in order] == order
    ride = on("mower_belt", "verge mower", drive={"v", "spring", "mower", "which=deck belt of a ride-on"})
    assert not {"tip_up", "blade_wood", "upright", "run_dry"} & set(ride) and {"brake_set", "deck_low", "brake_free", "deck_free"} <= set(
        ride
    )


def test_guesses_ask_and_never_decide() -> None:
    found = guesses(library(), ["Grain auger", "tractor-driven auger"])
    assert found["pto"].is_so and "tractor" in found["pto"].because and not found["engine"].is_so and found["dust"].is_so
    assert guesses(library(), ["Malt cooler"])["dust"].is_so, "a malt machine is a dust machine until somebody says no"
    assert "electric" in machine_facts(library(), {}) and "electric" not in machine_facts(library(), {"pto": True})
    assert "plug" not in machine_facts(library(), {"plug": True}), "without an engine nobody is asked for its plug"
    assert {t.key for t in traits_asked(library(), {})} >= {"runs", "engine", "dust", "roof"} and "saw" not in {
        t.key for t in traits_asked(library(), {})
    }


def test_a_due_finds_its_job() -> None:
    blower = fitting(library(), {"v", "electric", "tension known", "base"})
    assert for_due(blower, "new set", "tension", True) == "run_in" and for_due(blower, "new set", "inspect/round", False) == ""
    assert for_due(blower, "get-home fix", "survey", True) == "belt_set"


def test_own_steps_stand_where_they_were_added() -> None:
    own = [
        OwnStep("own-1", "guard_off", "Call the control room."),
        OwnStep("own-2", "guard_off", "Hang the sign."),
        OwnStep("own-3", "gone", "Sweep.", state="any"),
    ]
    keys = [s.key for s in compose(library(), library().kinds["align"], {"v", "base", "electric", "runs"}, own)]
    at = keys.index("guard_off")
    assert keys[at : at + 3] == ["guard_off", "own-1", "own-2"] and keys[-1] == "own-3"
    steps = compose(library(), library().kinds["align"], {"v", "base", "electric", "runs"}, [OwnStep("own-4", "lock", "Feel the belt.")])
    assert next(i for i, s in enumerate(steps) if s.key == "own-4") > next(i for i, s in enumerate(steps) if s.key == "try_start"), (
        "hands wait for the verification"
    )
    assert next(s for s in steps if s.key == "own-4").source == OWN


NEW = """
key = "shelter"
title = "Put a rain shelter over the drive"
about = "Seen dry from all sides."
for = ["outdoor"]
minutes = 30
event = ""
closes = []
steps = ["@arrive", "@prepare", "shelter_up", "prop_out", "@back"]
[[step]]
key = "shelter_up"
do = "Prop the shelter up so that the guard still opens."
why = "Rain on a belt slips it."
leaves = "hold"
look = "sun"
source = "common practice"
[[step]]
key = "prop_out"
undoes = ["shelter_up"]
do = "Bolt it down and take the prop away."
why = "A prop is no post."
look = "sun"
source = "common practice"
"""
