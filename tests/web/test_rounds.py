"""Rounds: composed for the drive, counted, resumed, what is not OK becomes a finding, and a reading answers what asks to be measured."""

import itertools
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import Caller, examples
from tests.web.test_said_done_due import drive, of
from tuyere.core.stations.inspect.rounds.checklist import DEPTHS, EVERY_DAYS, compose, items, suggest

FAMILIES = ("v", "ribbed", "synchronous", "flat", "chain", "conveyor")
NEEDS = ("idler", "keeper", "set", "adjustable", "bushing", "mounts", "fan", "dust")


@given(st.sampled_from(FAMILIES), st.sets(st.sampled_from(NEEDS)), st.sampled_from(NEEDS))
@examples(40)
def test_a_round_runs_first_then_stops_and_grows_with_depth_and_with_what_is_there(family: str, has: set[Any], more: Any) -> None:
    rounds = [compose(family, has, d) for d in DEPTHS]
    for shallow, deep in itertools.pairwise(rounds):
        assert set(shallow) < set(deep)
    for depth, asked in zip(DEPTHS, rounds, strict=True):
        states = [i.state for i in asked]
        assert states == sorted(states) and len(set(asked)) == len(asked), "running before stopped: the machine is locked out once"
        assert set(asked) <= set(compose(family, {*has, more}, depth))
    assert all(i.state == "running" for i in rounds[0]), "a quick look wants no lock-out"


def test_the_list_hangs_together() -> None:
    assert {f for i in items().values() for f in i.families} == set(FAMILIES)
    assert {n for i in items().values() for n in i.needs} == set(NEEDS)
    for i in items().values():
        assert i.ask.endswith("?") and i.how.endswith(".") and i.depth in DEPTHS and (i.state == "running" or i.depth != "quick")


def test_the_deepest_round_that_is_due_is_proposed() -> None:
    now = datetime(2026, 3, 1, tzinfo=UTC)
    ago = {d: now - timedelta(days=n) for d, n in (("quick", 20), ("usual", 90), ("whole", 300))}
    assert suggest({}, "", now).depth == "usual", "nobody ever looked: the round that wants no tools first"
    assert suggest(ago, "", now).depth == "quick" and suggest(ago, "abrasive dust or oil", now).depth == "whole"
    assert suggest({"whole": now - timedelta(days=1)}, "", now).depth == "quick", "a whole round counts as the shallower ones"
    for depth, (usual, severe) in EVERY_DAYS.items():
        assert severe <= usual, depth


def say(caller: Caller, round_id: str, item: str, found: str, status: int = 200, **more: Any) -> Any:
    told = caller.post(f"/api/rounds/{round_id}/items", {"item": item, "found": found, **more})
    assert told.status_code == status, told.json
    return told.json


def test_a_round_of_the_kiln_fan_from_begin_to_end(sign_in: Any) -> None:
    caller, mate = sign_in("Tobias"), sign_in("Marta")
    drive_id = of(caller, "Kiln exhaust fan")["id"]
    told = caller.get(f"/api/drives/{drive_id}/rounds").json
    assert told["under_way"] is None and [d["depth"] for d in told["depths"]] == list(DEPTHS) and told["why"]
    round_id = str(uuid.uuid4())
    assert caller.post(f"/api/drives/{drive_id}/rounds", {"id": round_id, "depth": "usual"}).status_code == 201
    again = caller.post(f"/api/drives/{drive_id}/rounds", {"id": str(uuid.uuid4())})
    assert again.status_code == 422 and "under way" in again.json["detail"]

    def now() -> Any:
        return mate.get(f"/api/drives/{drive_id}/rounds").json["under_way"]

    asked = [i["key"] for i in now()["items"]]
    assert "set" in asked and "output" in asked and "keeper" not in asked and "elongation" not in asked, "as this drive is"
    say(caller, round_id, "guard", "ok")
    say(caller, round_id, "belt", "cannot", 422)
    bad = say(caller, round_id, "cloth", "not ok", words="burr on the fan's rim")
    found = [f for f in drive(caller, drive_id)["findings"] if f["id"] == bad["finding_id"]]
    assert found[0]["words"] == "burr on the fan's rim" and found[0]["machine_state"] == "stopped"
    assert now()["done"] == 2 and now()["not_ok"] == 1, "another device goes on where this one stopped"
    say(mate, round_id, "cloth", "ok", row_version=1)
    assert not [f for f in drive(caller, drive_id)["findings"] if f["id"] == bad["finding_id"]]
    say(caller, round_id, "cloth", "not ok", 409, row_version=1)
    say(caller, round_id, "cloth", "not ok", row_version=2, words="it is there")
    assert [f["words"] for f in drive(caller, drive_id)["findings"] if f["id"] == bad["finding_id"]] == ["it is there"]
    say(caller, round_id, "keeper", "ok", 422)

    caller.post(f"/api/drives/{drive_id}/wear", {"id": str(uuid.uuid4()), "what": "ride_low", "quantities": {"value": {"text": "0.2 mm"}}})
    ride = next(i for i in now()["items"] if i["key"] == "ride")
    assert ride["found"] == "measured" and ride["words"].startswith("Belt sits under the rim")
    early = caller.post(f"/api/rounds/{round_id}/finish", {"row_version": 1})
    assert early.status_code == 422 and early.json["errors"][0]["field"] == "note" and str(len(asked) - 3) in early.json["detail"]
    for key in [i["key"] for i in now()["items"] if not i["found"]]:
        say(caller, round_id, key, "ok")

    def days() -> int:
        return next(d["days"] for d in drive(caller, drive_id)["dues"] if d["page"] == "inspect/round")

    before = days()
    finished = caller.post(f"/api/rounds/{round_id}/finish", {"row_version": 1})
    assert finished.status_code == 200 and finished.json["dues_done"] == ["Groove gauge, bearings, bolts"] and days() > before + 90
    say(caller, round_id, "sound", "not ok", 422)
    after = caller.get(f"/api/drives/{drive_id}/rounds").json
    assert after["under_way"] is None and after["before"][0]["done"] == len(asked) and after["suggested"] != "usual"
    line = next(e for e in caller.get(f"/api/drives/{drive_id}/log").json["entries"] if e["kind"] == "round")
    assert line["title"] == "Usual round" and line["detail"] == f"{len(asked)} of {len(asked)} looked at, 1 not OK"


def test_every_drive_of_the_plant_has_its_round_and_a_viewer_begins_none(sign_in: Any) -> None:
    caller, viewer = sign_in("Marta"), sign_in("Rowan")
    for d in caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]:
        told = caller.get(f"/api/drives/{d['id']}/rounds").json
        assert [x["items"] for x in told["depths"]] == sorted(x["items"] for x in told["depths"]) and told["depths"][0]["items"] >= 4
    assert viewer.post(f"/api/drives/{d['id']}/rounds", {"id": str(uuid.uuid4())}).status_code == 403
