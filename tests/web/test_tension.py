"""The open calculations of tension: bare numbers in and out, each method with its own fields only."""

import math
import uuid
from typing import Any

import pytest
from flask.testing import FlaskClient

from tuyere.web.app import openapi_app

PAIR = [
    {"x_m": 0, "y_m": 0, "radius_m": 0.1, "groove_angle_deg": 38, "friction": 0.3, "power_w": 5000, "speed_rad_per_s": 150},
    {"x_m": 0.6, "y_m": 0, "radius_m": 0.2, "groove_angle_deg": 38, "friction": 0.3, "power_w": -5000, "speed_rad_per_s": 75},
]
READINGS: list[tuple[dict[str, Any], float]] = [
    ({"method": "gauge", "force_n": 10, "deflection_m": 0.01, "span_m": 0.64}, 160),
    ({"method": "gauge", "force_n": 10, "deflection_m": 0.01, "span_m": 0.64, "rigidity_n": 40_000, "held": True}, 160 - 40_000 / 2048),
    ({"method": "strand_gauge", "force_n": 40, "offset_m": 0.005, "half_base_m": 0.06}, 240),
    ({"method": "note", "frequency_hz": 50, "span_m": 0.5, "mass_kg_per_m": 0.038, "bending_n_m2": None}, 95),
    ({"method": "chain_sag", "sag_m": 0.02, "chord_m": 1, "mass_kg_per_m": 1}, 61.3),
    ({"method": "idler_lever", "pull_n": 80, "handle_m": 0.3, "arm_m": 0.2, "wrap_rad": math.pi, "belts": 2}, 30),
    ({"method": "weighted_base", "weight_n": 300, "weight_arm_m": 0.2, "strand_arms_m": [0.1, 0.3]}, 150),
    ({"method": "elongation", "mark_slack_m": 1, "mark_stretched_m": 1.008, "rigidity_n": 50_000}, 400),
]


@pytest.fixture(scope="module")
def client() -> FlaskClient:
    """Calculations need no database."""
    app = openapi_app()
    app.config["SECRET_KEY"] = "nothing is signed here"
    return app.test_client()


def ask(client: FlaskClient, name: str, body: object, status: int = 200) -> Any:
    answer = client.post(f"/api/calc/tension/{name}", json=body)
    assert answer.status_code == status, answer.get_data(as_text=True)
    return answer.json


@pytest.mark.parametrize(("body", "tension"), READINGS)
def test_each_method_knows_its_own_fields_and_no_others(client: FlaskClient, body: dict[str, Any], tension: float) -> None:
    found = ask(client, "reading", body)
    assert found["tension_n"] == pytest.approx(tension, rel=1e-3)
    assert 0 < found["tension_u_n"] < 0.5 * tension
    strange = "slope_rad" if body["method"] != "chain_sag" else "handle_m"
    assert [e["field"] for e in ask(client, "reading", body | {strange: 0.1}, 422)["errors"]] == [strange]
    needed = next(k for k in list(body)[1:] if body[k] is not None)
    assert [e["field"] for e in ask(client, "reading", {k: v for k, v in body.items() if k != needed}, 422)["errors"]] == [needed]


@pytest.mark.parametrize(
    ("name", "body", "field"),
    [
        ("reading", {"method": "thumb"}, "method"),
        ("reading", {"method": "chain_sag", "sag_m": 0.02, "chord_m": 1, "slope_rad": 1.4, "mass_kg_per_m": 1}, "slope_rad"),
        ("reading", {**READINGS[0][0], "bending_n_m2": 90}, "deflection_m"),
        ("reading", {**READINGS[0][0], "rigidity_n": 40_000}, "belt_length_m"),
        ("reading", {**READINGS[7][0], "mark_stretched_m": 0.9}, "mark_stretched_m"),
        ("window", {"wheels": [PAIR[0], {**PAIR[1], "power_w": -100}]}, "wheels"),
        ("window", {"wheels": PAIR, "shafts": [{"wheel": 7}]}, "shafts"),
        ("window", {"wheels": PAIR, "shafts": [{"wheel": 0}, {"wheel": 0}]}, "shafts"),
        (
            "move",
            {
                "tension_now_n": 1,
                "tension_wanted_n": 2,
                "rigidity_n": 1e5,
                "radius_1_m": 0.1,
                "radius_2_m": 0.1,
                "centre_m": 0.7,
                "held_by": "slack_side",
            },
            "held_by",
        ),
        (
            "move",
            {"tension_now_n": 1, "tension_wanted_n": 2, "rigidity_n": 1e5, "radius_1_m": 0.1, "radius_2_m": 0.1, "centre_m": 0.1},
            "centre_m",
        ),
    ],
)
def test_what_cannot_be_is_refused_in_a_sentence_beside_its_field(client: FlaskClient, name: str, body: Any, field: str) -> None:
    said = ask(client, name, body, 422)["errors"]
    assert [e["field"] for e in said] == [field]
    assert len(said[0]["detail"]) > 20 and "_" not in said[0]["detail"].replace("strand_gauge", "").replace("chain_sag", "").replace(
        "idler_lever", ""
    ).replace("weighted_base", "")


def test_a_window_and_the_move_to_its_target(client: FlaskClient) -> None:
    stage = {"wheels": PAIR, "belts": 2, "mass_kg_per_m": 0.2, "start_factor": 2, "shafts": [{"wheel": 0, "overhung_limit_n": 700}]}
    found = ask(client, "window", stage)
    assert found["slip_running_n"] < found["slip_starting_n"] and found["target_low_n"] < found["target_n"] < found["target_high_n"]
    assert {u["name"] for u in found["upper"] if u["limit_n"] is None} > {"bearing life", "mounts", "belt strength"}
    move = {
        "tension_now_n": 100,
        "tension_wanted_n": found["target_n"],
        "rigidity_n": 80_000,
        "radius_1_m": 0.1,
        "radius_2_m": 0.2,
        "centre_m": 0.6,
        "screw_pitch_m": 0.002,
    }
    apart = ask(client, "move", move)
    assert apart["centre_change_m"] > 0 and apart["turns"] == pytest.approx(apart["centre_change_m"] / 0.002)
    back = ask(client, "move", move | {"tension_wanted_n": 50})
    assert back["centre_change_m"] < 0 and back["turns"] < 0 and back["centre_change_u_m"] > 0


def drive_of(caller: Any, machine: str) -> str:
    listed = caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]
    return str(next(d["id"] for d in listed if d["machine"] == machine))


def keep(caller: Any, drive_id: str, gauge: dict[str, Any], **more: Any) -> Any:
    body = {"id": str(uuid.uuid4()), "kind": "belt tension", "machine_state": "isolated", "gauge": gauge, **more}
    return caller.post(f"/api/drives/{drive_id}/readings", body)


def test_a_reading_keeps_its_stage_its_method_and_its_state(sign_in: Any) -> None:
    """A slack second stage is a finding of its own: a first stage in order does not close it."""
    caller = sign_in("Tobias")
    press = drive_of(caller, "Dust pellet press")
    forces = [{"text": "3 lbf"}, {"text": "3.1 lbf"}]
    state = {"engaged": "yes", "turned": "2"}
    slack = keep(caller, press, {"stage": 2, "method": "gauge", "forces": forces, "words": state})
    assert slack.status_code == 201 and slack.json["tone"] == "watch" and "Slack" in slack.json["headline"]
    assert "fell" in slack.json["beyond"], "a month does not explain so much"
    entry = next(e for e in caller.get(f"/api/drives/{press}/log").json["entries"] if e["kind"] == "belt tension")
    assert entry["stage"] == 2 and "jackshaft, small to die" in entry["state"]
    assert "tensioner engaged" in entry["state"] and "turned round 2 times" in entry["state"]
    other = keep(caller, press, {"stage": 1, "method": "note", "forces": [{"text": "41 Hz"}, {"text": "40.6 Hz"}]})
    assert other.status_code == 201 and "Slack" not in other.json["headline"], other.json
    held = caller.get(f"/api/drives/{press}").json
    assert any(f["by_core"] and "Slack" in f["what"] for f in held["findings"])
    assert [t["stage"] for t in held["tensions"][:2]] == [1, 2] and held["tensions"][0]["method"] == "plucked note"
    assert held["why"].startswith("Slack") or held["level"] in ("stop", "overdue", "watch")


def test_what_is_lacking_or_wrong_is_said_and_nothing_is_kept(sign_in: Any) -> None:
    caller = sign_in("Ines")
    sweeper, elevator = drive_of(caller, "Yard sweeper"), drive_of(caller, "Bucket elevator 2")
    before = len(caller.get(f"/api/drives/{sweeper}/log").json["entries"])
    lever = keep(caller, sweeper, {"method": "lever", "forces": [{"text": "18 lbf"}]})
    assert lever.status_code == 422 and "measure it first" in lever.json["detail"]
    for gauge, field in (
        ({"forces": [{"text": "nine"}]}, "force_1"),
        ({"forces": [{"text": "9 lbf"}], "words": {"turned": "a few"}}, "turned"),
    ):
        refused = keep(caller, sweeper, gauge)
        assert refused.status_code == 422 and [e["field"] for e in refused.json["errors"]] == [field], refused.json
    limp = keep(caller, sweeper, {"forces": [{"text": "0.1 lbf"}], "quantities": {"span_measured": {"text": "20 in"}}})
    assert limp.status_code == 201 and limp.json["headline"].startswith("Slack"), "too slack to reckon is slack, and is kept"
    strange = keep(caller, elevator, {"method": "no such", "forces": [{"text": "4 lbf"}, {"text": "4 lbf"}], "words": {"engaged": "maybe"}})
    assert strange.status_code == 201, "an unknown method is the usual one, an unknown word is none"
    arms = {"handle": "14 in", "arm": "8 in", "wrap": "50 deg"}
    told = {"method": "lever", "forces": [{"text": "60 lbf"}], "quantities": {k: {"text": v} for k, v in arms.items()}}
    assert keep(caller, sweeper, told).status_code == 201
    assert len(caller.get(f"/api/drives/{sweeper}/log").json["entries"]) >= before + 1


def test_the_log_draws_how_a_set_tension_should_settle(sign_in: Any) -> None:
    caller = sign_in("Marta")
    found = caller.get(f"/api/drives/{drive_of(caller, 'Kiln exhaust fan')}/trend").json["expected"]
    assert found and all(e["stage"] == 1 for e in found)
    for band in found:
        lows = [p["low"] for p in band["points"]]
        assert lows == sorted(lows, reverse=True) and all(p["low"] < p["high"] for p in band["points"])
