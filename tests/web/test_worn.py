"""Measured wear kept of a drive.

Its limit, the finding it raises and closes, its forecast, and what is refused; a diagnosis with the record's facts.
"""

import uuid
from typing import Any

from tests.conftest import Caller
from tests.web.test_said_done_due import drive, new_drive, of


def keep(caller: Caller, drive_id: str, what: str, status: int = 201, **more: Any) -> Any:
    body = {"id": str(uuid.uuid4()), "what": what, **more}
    kept = caller.post(f"/api/drives/{drive_id}/wear", body)
    assert kept.status_code == status, kept.json
    return kept.json


def look(caller: Caller, drive_id: str, **body: Any) -> Any:
    found = caller.post(f"/api/drives/{drive_id}/wear/look", body)
    assert found.status_code == 200, found.json
    return found.json


def test_a_worn_groove_raises_a_finding_and_a_new_one_closes_it(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Steep-water pump")["id"]
    first = look(caller, drive_id)
    assert first["what"] == "groove" and "chain" not in first["whats"] and first["share"] is None and not first["kept"]
    worn = keep(caller, drive_id, "groove", where="driver sheave", quantities={"value": {"text": "0.9 mm"}})
    assert worn["tone"] == "stop"
    open_now = [f for f in drive(caller, drive_id)["findings"] if f["page"] == "inspect/wear"]
    assert len(open_now) == 1 and open_now[0]["what"].startswith("driver sheave: Groove dished out")
    keep(caller, drive_id, "groove", where="driver sheave", quantities={"value": {"text": "0.1 mm"}}, note="new sheave")
    assert not [f for f in drive(caller, drive_id)["findings"] if f["page"] == "inspect/wear"]
    after = look(caller, drive_id, what="groove", where="driver sheave")
    assert next(k["headline"] for k in after["kept"]) == "Groove dished out: 12% of its limit"
    line = next(e for e in caller.get(f"/api/drives/{drive_id}/log").json["entries"] if e["kind"] == "wear")
    assert line["values"] and line["title"].startswith("Groove dished out")


def test_over_its_limit_is_over_it_before_and_after_keeping_and_has_no_day_to_come(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Drag-chain conveyor")["id"]
    where = "last third of the chain"
    typed = {"what": "chain", "where": where, "quantities": {"span": {"text": "24.9 in"}}, "words": {"count": "24"}}
    before = look(caller, drive_id, **typed)
    kept = keep(caller, drive_id, **typed)
    after = look(caller, drive_id, what="chain", where=where)
    assert before["tone"] == kept["tone"] == after["tone"] == "stop" and before["headline"] == after["headline"]
    assert before["share"] > 1 and after["share"] is None
    assert before["hours_left"] is None and after["hours_left"] is None and after["runs_out"] is None


def test_measured_twice_at_once_and_a_meter_that_jumps_are_asked_about(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Hammer mill")["id"]
    groove = {"where": "driver sheave", "quantities": {"value": {"text": "0.2 mm"}}}
    keep(caller, drive_id, "groove", hour_meter="10,482", **groove)
    for what in ("groove", ""):  # left out, it is the first that suits the drive: this one
        assert keep(caller, drive_id, what, 422, **groove)["errors"][0]["field"] == "note"
    keep(caller, drive_id, "groove", note="by another gauge", **groove)
    other = {"where": "driven sheave", "quantities": groove["quantities"]}
    for meter in ("11482", "10381"):
        refused = keep(caller, drive_id, "groove", 422, hour_meter=meter, **other)["errors"]
        assert [e["field"] for e in refused] == ["hour_meter"] and "10,482" in refused[0]["detail"]
        hours = caller.post(f"/api/drives/{drive_id}/hours", {"id": str(uuid.uuid4()), "hour_meter": meter})
        assert hours.status_code == 422 and hours.json["errors"][0]["field"] == "hour_meter"
    keep(caller, drive_id, "groove", hour_meter="11482 h", **other)
    keep(caller, drive_id, "groove", hour_meter="11490", note="the same day", **other)


def test_wear_is_refused_beside_its_field(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Drag-chain conveyor")["id"]
    assert keep(caller, drive_id, "chain", 422, quantities={"span": {"text": "24.5 in"}})["errors"][0]["field"] == "span"
    assert "how many pitches" in look(caller, drive_id, quantities={"span": {"text": "24.5 in"}})["lacks"]
    assert keep(caller, drive_id, "groove", 422, quantities={"value": {"text": "1 mm"}})["errors"][0]["field"] == "what"
    short = look(caller, drive_id, quantities={"span": {"text": "20 in"}}, words={"count": "24"})
    assert short["share"] is None and "shorter than new" in short["problems"][0]["sentence"]
    seen = look(caller, drive_id, quantities={"span": {"text": "24.58 in"}}, words={"count": "24"})
    assert seen["share"] > 0.7 and seen["hours_left"][0] <= seen["hours_left"][1] and seen["runs_out"][0]
    assert look(caller, drive_id, quantities={"span": {"text": "24.58 in"}}, words={"count": "24", "fixed": "yes"})["tone"] == "stop"
    viewer = sign_in("Rowan")
    assert viewer.post(f"/api/drives/{drive_id}/wear", {"id": str(uuid.uuid4()), "what": "chain"}).status_code == 403


def test_what_the_record_knows_enters_a_diagnosis_and_may_be_left_out(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    drive_id = of(caller, "Kiln exhaust fan")["id"]
    ask = {"seen": ["one_side_wear"]}
    found = caller.post(f"/api/drives/{drive_id}/diagnosis", ask).json
    facts = {f["key"]: f for f in found["known"]}
    assert found["family"] == "v" and {"tension_under", "align_angle", "align_twist", "align_offset", "slip", "load_share"} <= set(facts)
    assert facts["align_angle"]["source"].startswith("as left") and facts["align_angle"]["used"]
    assert facts["groove_wear"]["value"] == "0.4 mm" and facts["groove_wear"]["source"].startswith("measured")
    without = caller.post(f"/api/drives/{drive_id}/diagnosis", {**ask, "left_out": ["align_angle"]}).json

    def chance(of_: Any) -> float:
        return next((c["probability"] for c in of_["diagnosis"]["causes"] if c["key"] == "mis_inplane"), 0.0)

    assert chance(without) > chance(found), "an alignment on the record speaks against it"
    assert 100 <= float(facts["wheel_share"]["value"].split()[0]) < 400, "its smallest wheel is no smaller than the least for its section"
    small = caller.post(f"/api/drives/{of(caller, 'Laboratory air cooler')['id']}/diagnosis", {"seen": ["loose_quiet"]}).json
    assert any(f["key"] == "meant_loose" and f["value"] == "yes" for f in small["known"])
    assert small["diagnosis"]["causes"][0]["key"] == "nothing_wrong", "a small blower that is meant to run loose is left alone"
    conveyor = caller.post(f"/api/drives/{of(caller, 'Overhead sack conveyor')['id']}/diagnosis", {}).json
    assert conveyor["family"] == "conveyor" and any(s["place"] == "conveyor" for s in conveyor["signs"])
    unknown = caller.post(f"/api/drives/{drive_id}/diagnosis", {"seen": ["purple"]})
    assert unknown.status_code == 422 and unknown.json["errors"][0]["field"] == "seen.purple"


def test_a_worn_groove_calls_for_every_wheel_and_a_chain_is_measured_again_in_time(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Kiln exhaust fan")["id"]
    places = look(caller, drive_id, what="groove")["places"]
    belts = int(drive(caller, drive_id)["survey"]["stages"][0]["fitted"]["choices"]["belt_count"])
    assert [p["where"] for p in places[:2]] == ["driver sheave, groove 1", "driver sheave, groove 2"] and len(places) == 2 * belts
    keep(caller, drive_id, "groove", where="driven sheave, groove 2", quantities={"value": {"text": "1 mm"}})
    found = look(caller, drive_id, what="groove")
    assert next(p["share"] for p in found["places"] if p["where"] == "driven sheave, groove 2") > 1
    assert len(found["whole_set"]) == 3 and f"{belts} x" in found["whole_set"][2], "both wheels, and the belts with them"
    eye = keep(caller, drive_id, "nick", where="driver sheave", words={"seen": "yes"})
    assert eye["tone"] == "stop" and look(caller, drive_id, what="nick", where="driver sheave")["hours_left"] is None
    assert "say whether" in keep(caller, drive_id, "nick", 422)["detail"]

    sweeper = of(caller, "Yard sweeper")["id"]
    path = [p["where"] for p in look(caller, sweeper, what="nick")["places"]]
    assert len(path) == len(drive(caller, sweeper)["survey"]["layout"]["wheels"]), (
        "every wheel on the path, the engine's and the clutch's too"
    )

    chain = of(caller, "Drag-chain conveyor")["id"]
    where = look(caller, chain)["kept"][-1]["where"]

    def promised() -> list[dict[str, Any]]:
        return [d for d in drive(caller, chain)["dues"] if d["what"].startswith("Measure again")]

    said = keep(caller, chain, "chain", where=where, quantities={"span": {"text": "24.55 in"}}, words={"count": "24"}, note="in order")
    (due,) = promised()
    ends = look(caller, chain, what="chain", where=where)["runs_out"]
    assert due["due_on"] < ends[0] and due["page"] == "inspect/wear?what=chain" and "measured again by" in said["headline"]
    keep(caller, chain, "chain", where=where, quantities={"span": {"text": "24.56 in"}}, words={"count": "24"}, note="again")
    assert len(promised()) == 1 and promised()[0]["key"] != due["key"], "measured again: the promise before is done, and the next is made"


def test_dressing_that_was_seen_enters_and_a_stopped_conveyor_is_gone_through_step_by_step(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Hammer mill")["id"]
    assert caller.post(f"/api/drives/{drive_id}/findings", {"id": str(uuid.uuid4()), "sign": "dressing"}).status_code == 201
    found = caller.post(f"/api/drives/{drive_id}/diagnosis", {"seen": ["squeal_start"]}).json
    assert next(f["value"] for f in found["known"] if f["key"] == "seen dressing") == "yes" and not found["triage"]

    conveyor = of(caller, "Overhead sack conveyor")["id"]

    def steps(**told: Any) -> list[Any]:
        asked = {"seen": ["conv_stopped", "conv_no_jam"], **told}
        return caller.post(f"/api/drives/{conveyor}/diagnosis", asked).json["triage"]

    walked = {"conv_walk": False, "conv_volts": False}
    assert [s["key"] for s in steps()] == ["walk"] and steps(checks=walked)[-1]["key"] == "isolate"
    apart = {"checks": {**walked, "conv_motor_free": True}, "ticks": ["isolate", "chain_off"]}
    assert "suspect the motor" in steps(**apart)[-1]["ends"]
    apart["checks"] = {**walked, "conv_motor_free": False, "conv_gear_stuck": True}
    assert "usually replaced" in steps(**apart)[-1]["ends"]


def test_what_is_told_at_any_station_counts_in_the_diagnosis(sign_in: Any) -> None:
    """A finding's own words, an item of a round that is not OK, wear that was looked at.

    Each by the one list of signs, as long as it holds.
    """
    caller = sign_in("Tobias")
    drive_id = new_drive(caller, "Told at every station")

    def told() -> dict[str, str]:
        found = caller.post(f"/api/drives/{drive_id}/diagnosis", {}).json["known"]
        return {f["key"].removeprefix("seen "): f["source"] for f in found if f["key"].startswith("seen ")}

    assert not told()
    said = {"id": str(uuid.uuid4()), "sign": "other", "words": "the belt squeals when it starts"}
    assert caller.post(f"/api/drives/{drive_id}/findings", said).status_code == 201
    assert set(told()) == {"squeal_start"} and told()["squeal_start"].startswith("seen ")

    round_id = str(uuid.uuid4())
    assert caller.post(f"/api/drives/{drive_id}/rounds", {"id": round_id, "depth": "usual"}).status_code == 201
    item = {"item": "cloth", "found": "not ok", "words": "there"}
    assert caller.post(f"/api/rounds/{round_id}/items", item).status_code == 200
    assert "rim_nick" in told()
    assert caller.post(f"/api/rounds/{round_id}/items", {"item": "cloth", "found": "ok", "row_version": 1}).status_code == 200
    assert "rim_nick" not in told()

    keep(caller, drive_id, "belt_cracks", words={"seen": "no"})
    assert "bottom_cracks" not in told()
    keep(caller, drive_id, "belt_cracks", words={"seen": "begins"}, note="by better light")
    assert told()["bottom_cracks"].startswith("measured ")
    asked = caller.post(f"/api/drives/{drive_id}/diagnosis", {"seen": []}).json["diagnosis"]["causes"]
    without = {"left_out": [f"seen {k}" for k in told()]}
    unsaid = caller.post(f"/api/drives/{drive_id}/diagnosis", without).json["diagnosis"]["causes"]
    assert [c["key"] for c in asked[:3]] != [c["key"] for c in unsaid[:3]]
    fitted = {"id": str(uuid.uuid4()), "kind": "new set", "what": "new belts"}
    assert caller.post(f"/api/drives/{drive_id}/happened", fitted).status_code == 201
    assert "bottom_cracks" not in told() and "squeal_start" in told(), "what was seen of the old belts is not so of the new"
