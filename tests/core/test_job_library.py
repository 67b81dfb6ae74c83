"""The library of jobs: what is added to it, and what it refuses."""

from dataclasses import replace
from importlib import resources
from pathlib import Path

import pytest

from tests.core.test_jobs import NEW, broken
from tuyere.core.stations.jobs.compose import compose, fitting
from tuyere.core.stations.jobs.library import LibraryError, base_of, guesses, machine_facts
from tuyere.core.stations.jobs.read import library, read_library


def test_a_new_kind_of_job_is_a_data_file_only(tmp_path: Path) -> None:
    (tmp_path / "kinds").mkdir()
    (tmp_path / "kinds" / "shelter.toml").write_text(NEW)
    more = read_library(resources.files("tuyere.core.stations.jobs"), tmp_path)
    facts = machine_facts(more, {k: g.is_so for k, g in guesses(more, ["condenser fan"]).items()}) | {"v"}
    assert "shelter" in {k.key for k in fitting(more, facts)} and set(more.kinds) == {*library().kinds, "shelter"}
    keys = [s.key for s in compose(more, more.kinds["shelter"], facts)]
    assert keys.index("lock") < keys.index("shelter_up") < keys.index("prop_out") < keys.index("guard_on")


@pytest.mark.parametrize(
    ("old", "new", "said"),
    [
        ("steps = [", 'steps = ["gone", ', "no step “gone”"),
        ('event = ""', 'event = "feast"', "no event"),
        ("minutes = 30", "", "minutes"),
        ('undoes = ["shelter_up"]\n', "", "nothing takes back “shelter_up”"),
        ('"@prepare", "shelter_up"', '"shelter_up", "@prepare"', "before the machine is isolated"),
        ('for = ["outdoor"]', 'for = ["auger"]', "nothing says “auger”"),
        ('leaves = "hold"', 'leaves = "hold"\nwhen = ["roller mill"]', "nothing says “roller mill”"),
        ('"@arrive", "@prepare"', '"@prepare", "@arrive"', "the way to the machine"),
        ('leaves = "hold"', 'leaves = "hold"\nsort = "dead stop"', "out of the order of isolation"),
        ('leaves = "hold"', 'leaves = "hold"\nstate = "running"', "is not done with the machine “running”"),
        ('leaves = "hold"', 'leaves = "hold"\nsort = "feast"', "no sort"),
        ('leaves = "hold"', 'leaves = "hold"\nafter = ["prop_out"]', "which stands behind it"),
    ],
)
def test_a_library_that_could_hurt_is_refused_when_it_is_read(tmp_path: Path, old: str, new: str, said: str) -> None:
    (tmp_path / "kinds").mkdir()
    assert old in NEW
    (tmp_path / "kinds" / "shelter.toml").write_text(NEW.replace(old, new, 1))
    with pytest.raises(LibraryError, match=said):
        read_library(resources.files("tuyere.core.stations.jobs"), tmp_path)


def test_a_rule_is_found_broken_where_it_is() -> None:
    """The laws themselves: a job with its block left in, or its verification gone, is found."""
    kind = library().kinds["belt_set"]
    facts = machine_facts(library(), {"windmill": True, "runs": True}) | {"v", "base"}
    steps = compose(library(), kind, facts)
    assert not broken(kind, steps)
    without = [s for s in steps if base_of(s.key) != "wheel_free"]
    assert [b for b in broken(kind, without) if "turns what is blocked" in b] and [b for b in broken(kind, without) if "left in" in b]
    assert [b for b in broken(kind, [s for s in steps if s.sort != "verify"]) if "not isolated" in b]
    moved = [s for s in steps if s.key != "dead_stop"] + [replace(next(s for s in steps if s.key == "dead_stop"), after=())]
    assert broken(kind, moved)
