"""The floor of the sample plant: few drives cry, each for a reason that a hand mends; a remark that somebody accepted is quiet."""

import uuid
from typing import Any

import pytest
from flask import Flask

from tests.conftest import SECRET, Caller, database
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

NOW = ("stop", "overdue", "watch")


@pytest.fixture(scope="module")
def serving_url() -> str:
    """A plant of its own: a remark is accepted in it."""
    return prepare(database("tuyere_test_floor", "demo"), SECRET, demo=True)


@pytest.fixture(scope="module")
def app(serving_url: str) -> Flask:
    return create_app(Settings(serving_url, SECRET, demo=True, plant="test"))


def floor(caller: Caller) -> dict[str, dict[str, Any]]:
    return {d["machine"]: d for d in caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]}


def test_at_most_a_quarter_of_the_plant_needs_a_hand(sign_in: Any) -> None:
    drives = floor(sign_in("Marta"))
    crying = {name: d for name, d in drives.items() if d["level"] in NOW}
    assert len(crying) <= len(drives) / 4, {name: d["why"] for name, d in crying.items()}
    assert all(d["why"] and d["page"] for d in crying.values())
    assert drives["Overhead sack conveyor"]["level"] == "stop", "what a survey stops stops here"


def test_a_remark_accepted_with_a_reason_is_quiet_and_stays_so(sign_in: Any) -> None:
    caller = sign_in("Ines")
    elevator = floor(caller)["Bucket elevator 2"]
    assert elevator["level"] == "remark" and "under the smallest" in elevator["why"]
    held = caller.get(f"/api/drives/{elevator['id']}").json
    finding = next(f for f in held["findings"] if "under the smallest" in f["what"])
    body = {"row_version": finding["row_version"], "state": "closed", "why": "Bought so with the elevator; belts last two years."}
    done = caller.post(f"/api/findings/{finding['id']}", body)
    assert done.status_code == 200, done.json
    assert floor(caller)["Bucket elevator 2"]["level"] == "quiet"
    again = {
        "id": str(uuid.uuid4()),
        "row_version": caller.get(f"/api/drives/{elevator['id']}").json["row_version"],
        "standing": "as found",
        "survey": held["survey"],
    }
    assert caller.post(f"/api/drives/{elevator['id']}/surveys", again).status_code == 201
    assert floor(caller)["Bucket elevator 2"]["level"] == "quiet", "the same survey does not raise it again"
