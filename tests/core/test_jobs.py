"""The library of jobs hangs together, composes by a drive's facts, keeps its order, and takes a new kind from a data file alone."""

from importlib import resources
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.jobs.compose import OwnStep, compose, fitting, for_due, held_up_by, next_step, open_safety, waits_for
from tuyere.core.jobs.library import LibraryError, called, library, read_library
from tuyere.core.table import rows

WORDS = sorted(
    {f.removeprefix("!") for k in library().kinds.values() for s in library().steps_of(k) for t in s.when for f in t.split("|")}
    | {f for m in library().machines for f in m.facts}
    | {"v", "chain", "flat", "dogs", "tension known"}
)


def test_every_step_says_why_and_from_where_and_names_what_is_there() -> None:
    cautions = {r["id"] for r in rows("cautions")}
    for kind in library().kinds.values():
        for step in library().steps_of(kind):
            assert step.do.endswith(".") or step.do.endswith("?"), step.key
            assert step.why and step.source and set(step.cautions) <= cautions, step.key
            assert len(step.do) <= 200, f"{step.key} is read aloud in one breath"


@given(st.sampled_from(sorted(library().kinds)), st.sets(st.sampled_from(WORDS)))
@examples(200)
def test_any_drive_s_job_can_be_done_in_the_order_it_is_read(kind: str, facts: set[str]) -> None:
    steps = compose(library(), library().kinds[kind], facts)
    settled: set[str] = set()
    for step in steps:
        assert next_step(steps, settled) == step and not waits_for(steps, step.key, settled)
        settled.add(step.key)
    assert next_step(steps, settled) is None and not open_safety(steps, settled)
    assert len({s.key for s in steps}) == len(steps)
    locks = [i for i, s in enumerate(steps) if s.safety == "lock"]
    for i, step in enumerate(steps):
        if locks and i > locks[-1] and step.state == "isolated":
            assert {steps[k].key for k in locks} <= set(step.after), "hands go in only behind every lock"
    for step in steps:
        assert all(step.key in s.after for s in held_up_by(steps, step.key, settled))


def test_facts_choose_kinds_and_steps() -> None:
    blower = called(library(), "rooftop blower") | {"v", "base", "tension known"}
    titles = {k.key for k in fitting(library(), blower)}
    assert {"belt_set", "tension", "align", "sheave", "motor_new"} <= titles and not titles & {
        "chain_join",
        "dogs",
        "link_belt",
        "mower_belt",
    }
    keys = [s.key for s in compose(library(), library().kinds["belt_set"], blower)]
    assert "roof_way" in keys and "off_one" in keys and "off" not in keys and "plug_off" not in keys
    mower = called(library(), "walk-behind mower") | {"v", "spring", "which=traction belt of a walk-behind"}
    keys = [s.key for s in compose(library(), library().kinds["mower_belt"], mower)]
    order = [
        "plug_off",
        "fuel_low",
        "traction_off",
        "tip_up",
        "blade_off",
        "adapter",
        "blade_on",
        "upright",
        "traction_on",
        "fuel_wiped",
        "plug_on",
    ]
    assert [k for k in keys if k in order] == order, "lead off first and on last; belt off the transmission before it is tipped"
    assert for_due(fitting(library(), blower), "new set", "tension", True) == "run_in"
    assert for_due(fitting(library(), blower), "new set", "inspect/round", False) == ""


@pytest.mark.parametrize(
    ("machine", "steps"),
    [
        ("walk-behind mower", {"plug_off", "fuel_low", "caps_tight", "tip_up", "blade_block", "fuel_wiped", "plug_on"}),
        ("rooftop blower", {"roof_way", "damper_shut", "blower_gas", "coast"}), ("condenser fan", {"roof_way", "damper_shut", "coast"}),
        ("exhaust fan", {"damper_shut", "coast"}), ("engine pump", {"engine_off", "plug_off", "plug_on"}),
        ("sawmill", {"log_clear", "coast", "blade_block"}), ("lathe", {"chuck_clear"}), ("turret mill", {"chuck_clear"}),
        ("drag conveyor", {"conveyor_empty"}), ("bucket elevator", {"dust_permit", "conveyor_empty", "backstop"}),
        ("hammer mill", {"dust_permit", "conveyor_empty", "coast"}), ("reciprocating compressor", {"discharge"}),
    ],
)  # fmt: skip
def test_each_machine_has_its_own_hazards_prepared_for(machine: str, steps: set[str]) -> None:
    keys = {s.key for s in compose(library(), library().kinds["own"], called(library(), machine) | {"v", "base"})}
    assert steps <= keys and ("engine_off" in keys) != ("lock" in keys), "one way or the other it is dead before hands go in"


def test_own_steps_stand_where_they_were_added() -> None:
    own = [
        OwnStep("own-1", "lock", "Call the control room."),
        OwnStep("own-2", "lock", "Hang the sign."),
        OwnStep("own-3", "gone", "Sweep."),
    ]
    keys = [s.key for s in compose(library(), library().kinds["align"], {"v", "base"}, own)]
    at = keys.index("lock")
    assert keys[at : at + 3] == ["lock", "own-1", "own-2"] and keys[-1] == "own-3"


NEW = """
key = "shelter"
title = "Put a rain shelter over the drive"
about = "Seen dry from all sides."
for = ["outdoor"]
minutes = 30
event = ""
closes = []
steps = ["@prepare", "shelter_up", "@back"]
[[step]]
key = "shelter_up"
do = "Set the shelter up so that the guard still opens."
why = "Rain on a belt slips it."
look = "sun"
source = "common practice"
"""


def test_a_new_kind_of_job_is_a_data_file_only(tmp_path: Path) -> None:
    (tmp_path / "kinds").mkdir()
    (tmp_path / "kinds" / "shelter.toml").write_text(NEW)
    more = read_library(resources.files("tuyere.core.jobs"), tmp_path)
    facts = called(more, "condenser fan") | {"v"}
    assert "shelter" in {k.key for k in fitting(more, facts)} and set(more.kinds) == {*library().kinds, "shelter"}
    keys = [s.key for s in compose(more, more.kinds["shelter"], facts)]
    assert keys.index("lock") < keys.index("shelter_up") < keys.index("guard_on")
    for bad, said in (("steps = [", "no step"), ('event = ""', "event"), ("minutes = 30", "minutes")):
        (tmp_path / "kinds" / "shelter.toml").write_text(
            NEW.replace(bad, {"steps = [": 'steps = ["gone", ', 'event = ""': 'event = "feast"'}.get(bad, ""))
        )
        with pytest.raises(LibraryError, match=said):
            read_library(resources.files("tuyere.core.jobs"), tmp_path)
