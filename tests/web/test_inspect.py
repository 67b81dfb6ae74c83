"""Diagnosis, wear and forecast as open calculations: what they take, what they answer, what they refuse."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tuyere.web.app import openapi_app


@pytest.fixture(scope="module")
def client() -> FlaskClient:
    app = openapi_app()
    app.config["SECRET_KEY"] = "nothing is signed here"
    return app.test_client()


def ask(client: FlaskClient, path: str, body: dict[str, Any], status: int = 200) -> Any:
    answer = client.post(f"/api/calc/{path}", json=body)
    assert answer.status_code == status, answer.get_data(as_text=True)
    return answer.json


def test_words_then_a_diagnosis_then_its_checks(client: FlaskClient) -> None:
    words = client.get("/api/calc/diagnosis/words").json
    assert len(words["signs"]) >= 100 and len(words["causes"]) >= 70 and len(words["checks"]) >= 80
    assert any("nothing is wrong" in c["name"].lower() for c in words["causes"])
    assert {f for s in words["signs"] for f in s["families"]} == {"v", "ribbed", "synchronous", "flat", "chain", "conveyor"}
    assert all(f["unit"] for f in words["facts"])
    first = ask(client, "diagnosis", {"family": "v", "seen": ["one_side_wear", "early_fail"]})
    assert first["causes"][0]["for"] and 0 < first["causes"][0]["probability"] < 1 and first["next_check"]["minutes"] > 0
    chances = [c["probability"] for c in first["causes"]]
    assert chances == sorted(chances, reverse=True) and not first["enough_to_tell"]
    asked = first["next_check"]["key"]
    cannot = ask(client, "diagnosis", {"family": "v", "seen": ["one_side_wear", "early_fail"], "checks": {asked: "cannot"}})
    assert cannot["causes"] == first["causes"] and cannot["next_check"]["key"] != asked
    yes = ask(
        client, "diagnosis", {"family": "v", "seen": ["one_side_wear"], "checks": {"straightedge": True}, "facts": {"align_share": 240}}
    )
    assert yes["causes"][0]["key"] == "mis_inplane" and yes == ask(
        client, "diagnosis", {"family": "v", "seen": ["one_side_wear"], "checks": {"straightedge": True}, "facts": {"align_share": 240}}
    )


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"family": "v", "seen": ["purple"]}, "seen.purple"),
        ({"family": "v", "checks": {"look": True}}, "checks.look"),
        ({"family": "v", "facts": {"mood": 3}}, "facts.mood"),
        ({"family": "v", "not_seen": ["green"]}, "not_seen.green"),
        ({"family": "rope"}, "family"),
        ({"family": "v", "extra": 1}, "extra"),
    ],
)
def test_unknown_keys_are_refused_by_their_name(client: FlaskClient, body: dict[str, Any], field: str) -> None:
    refused = ask(client, "diagnosis", body, 422)
    assert field in [e["field"] for e in refused["errors"]]
    assert field.split(".")[-1] in str(refused)


def test_a_sentence_finds_signs_or_none(client: FlaskClient) -> None:
    found = ask(client, "diagnosis/match", {"sentence": "the sheave squeals at start"})["signs"]
    assert found[0]["key"] == "squeal_start" and found[0]["question"] and 0 < found[0]["score"] <= 1
    assert ask(client, "diagnosis/match", {"sentence": "nice weather"})["signs"] == []


def test_wear_against_its_limit(client: FlaskClient) -> None:
    chain = ask(client, "wear", {"what": "chain", "measured_m": 0.0127 * 24 * 1.024, "pitches": 24, "pitch_m": 0.0127})
    assert chain["value"] == pytest.approx(0.024) and chain["share_of_limit"] == pytest.approx(0.8) and chain["tone"] == "watch"
    assert ask(client, "wear", {"what": "chain", "value": 0.024, "fixed_centres": True})["tone"] == "stop"
    assert "200/90" in ask(client, "wear", {"what": "chain", "value": 0.01, "large_teeth": 90})["source"]
    dogs = ask(client, "wear", {"what": "dogs", "measured_m": 6.25 * 0.0254, "pitches": 1, "pitch_m": 6 * 0.0254, "chain": 0.04})
    assert "run on" in dogs["verdict"]
    assert ask(client, "wear", {"what": "bushing", "value": 0.0002, "limit": 0.0001})["source"].startswith("the machine's manual")
    assert ask(client, "wear", {"what": "mood", "value": 1}, 422)["errors"][0]["field"] == "what"
    assert ask(client, "wear", {"what": "groove"}, 422)["errors"][0]["field"] == "value"


def test_a_forecast_or_why_there_is_none(client: FlaskClient) -> None:
    readings = [{"date": f"2026-0{i}-01", "hours": 1000 * i, "value": 0.3 * i} for i in range(1, 7)]
    low, middle, high = ask(client, "wear-forecast", {"readings": readings, "limit": 3, "kind": "chain"})["hours_at_limit"]
    assert low < middle < high and middle == pytest.approx(10000, rel=0.06)
    none = ask(client, "wear-forecast", {"readings": [{"date": "2026-01-01", "hours": 10, "value": None}], "limit": 3})
    assert none["hours_at_limit"] is None and none["refused"].endswith(".")
    assert (
        ask(client, "wear-forecast", {"readings": [{"date": "soon", "hours": 1, "value": 1}], "limit": 3}, 422)["errors"][0]["field"]
        == "readings.0.date"
    )
