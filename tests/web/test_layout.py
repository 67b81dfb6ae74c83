"""Layouts of many wheels over the web and in the database: stages, shafts, keepers and the findings they raise and close."""

import uuid
from typing import Any

import pytest
from sqlalchemy import Engine
from sqlmodel import Session, col, select

from tests.web.test_plant import floor, log
from tuyere.store.tables import BeltKeeper, Configuration, Finding, Stage, Wheel


def drive_of(caller: Any, machine: str) -> dict[str, Any]:
    drive: dict[str, Any] = caller.get(f"/api/drives/{floor(caller)[machine]['id']}").json
    return drive


def keep(caller: Any, drive: dict[str, Any], survey: dict[str, Any], standing: str = "as found") -> Any:
    body = {"id": str(uuid.uuid4()), "row_version": drive["row_version"], "standing": standing, "reason": "looked again", "survey": survey}
    return caller.post(f"/api/drives/{drive['id']}/surveys", body)


def test_a_jackshaft_is_two_stages_that_share_a_shaft(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Tobias")
    drive = drive_of(caller, "Dust pellet press")
    with Session(engine) as session:
        stages = session.exec(
            select(Stage).where(Stage.configuration_id == uuid.UUID(drive["configuration_id"])).order_by(col(Stage.position))
        ).all()
        assert [(s.section, s.belt, s.belt_count, s.lay) for s in stages] == [("B", "B81", 2, "open"), ("C", "C105", 2, "open")]
        wheels = [session.exec(select(Wheel).where(Wheel.stage_id == s.id).order_by(col(Wheel.position))).all() for s in stages]
        assert wheels[0][1].shaft == wheels[1][0].shaft and (wheels[0][1].x_m, wheels[0][1].y_m) == (wheels[1][0].x_m, wheels[1][0].y_m)
        assert wheels[1][1].power_w == pytest.approx(13 * 745.7, rel=1e-4) and wheels[0][0].takes_up
    listed = floor(caller)["Dust pellet press"]
    assert listed["belts"] == "2 × B81, 2 × C105" and len(listed["sketch"]["wheels"]) == 4 and len(listed["sketch"]["strands"]) == 4


def test_a_keeper_that_is_gone_is_a_finding_until_it_is_back(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Yard sweeper")
    assert any("rotor pin: worn off" in f["what"] for f in drive["findings"])
    survey = drive["survey"]
    assert caller.post("/api/calc/path", {"survey": survey}).json["keepers"][1]["tone"] == "stop"
    refused = keep(caller, drive, survey, "as left")
    assert refused.status_code == 422 and "rotor pin is worn off" in refused.json["detail"]
    survey["layout"]["keepers"][1]["state"] = "in place"
    survey["layout"]["keepers"][1]["gap"] = {"text": "5 mm"}
    assert keep(caller, drive, survey, "as left").status_code == 201
    again = drive_of(caller, "Yard sweeper")
    assert not any("rotor pin" in f["what"] for f in again["findings"]) and any("Sets die early" in f["what"] for f in again["findings"])
    with Session(engine) as session:
        finding = session.exec(select(Finding).where(col(Finding.what).contains("rotor pin"))).one()
        assert finding.closed_at and finding.subject == "keeper"
        newest = (
            select(Configuration.id).where(Configuration.drive_id == uuid.UUID(drive["id"])).order_by(col(Configuration.sequence).desc())
        )
        stage = session.exec(select(Stage).where(Stage.configuration_id == session.exec(newest).first())).one()
        kept = session.exec(select(BeltKeeper).where(BeltKeeper.stage_id == stage.id).order_by(col(BeltKeeper.position))).all()
        assert [(k.name, k.side, k.state) for k in kept] == [("engine finger", "back", "in place"), ("rotor pin", "back", "in place")]
        assert kept[1].gap_m == pytest.approx(0.005) and kept[0].x_m is not None
    assert any("rotor pin" in e["title"] + e["detail"] for e in log(caller, drive["id"], "finding"))


def test_a_carriage_and_a_tension_are_kept_and_answered(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Yard sweeper")
    survey = drive["survey"]
    survey["layout"]["carriage"] = {"run": 5, "position": {"text": "6 in"}, "length": {"text": "4 in"}}
    survey["stages"][0]["tension"] = {"text": "300 lbf"}
    said = caller.post("/api/calc/path", {"survey": survey}).json
    assert said["carriage"]["near_span"]["us"] == "6 in" and not said["belts"][0]["nearest"]
    assert any(v["headline"] == "engine would slip first" for v in said["verdicts"])
    assert said["belts"][0]["slip_order"][0] == "engine"
    assert keep(caller, drive, survey).status_code == 201
    with Session(engine) as session:
        newest = (
            select(Configuration.id).where(Configuration.drive_id == uuid.UUID(drive["id"])).order_by(col(Configuration.sequence).desc())
        )
        stage = session.exec(select(Stage).where(Stage.configuration_id == session.exec(newest).first())).one()
        assert (stage.carriage_from, stage.carriage_m) == (5, pytest.approx(0.1524)) and stage.carriage_length_m == pytest.approx(0.1016)
    survey["layout"]["carriage"]["position"] = {"text": "90 in"}
    far = keep(caller, drive_of(caller, "Yard sweeper"), survey)
    assert far.status_code == 422 and far.json["errors"][0]["field"] == "carriage_position"


def test_what_is_mistyped_in_a_layout_is_said_beside_it(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    survey = drive_of(caller, "Dust pellet press")["survey"]
    path = survey["layout"]
    second = survey["stages"][1]["fitted"]["choices"]
    second.update(section="Q", belt_count="many")
    path["wheels"][3]["power"] = {"text": "much"}
    path["keepers"] = [{"at": {"from_a": 1, "tape_a": {"text": "2"}, "from_b": 1, "tape_b": {"text": "3"}}, "least": {"text": "9"}}]
    fields = {p["field"] for p in caller.post("/api/calc/path", {"survey": survey}).json["problems"]}
    assert {"belt_2_section", "belt_2_count", "wheel_4_power"} <= fields
    second.update(section="C", belt_count="2")
    path["keepers"][0]["most"] = {"text": "1/2"}
    path["keepers"][0]["least"] = {"text": "3/4"}
    fields = {p["field"] for p in caller.post("/api/calc/path", {"survey": survey}).json["problems"]}
    assert {"keeper_1_tape_b", "keeper_1_most"} <= fields
    path["wheels"][2]["shaft_of"] = 3
    loose = caller.post("/api/calc/path", {"survey": survey}).json["problems"]
    assert any(p["field"] == "wheel_3_shaft" for p in loose)
