"""Alignment as an open calculation: readings in, errors and moves out, and what it does not know said by its name."""

import math
from typing import Any

import pytest
from flask.testing import FlaskClient

from tuyere.web.app import openapi_app

PAIR = {"slope_rad": 0, "centre_m": 0.7, "stationary_radius_m": 0.14, "movable_radius_m": 0.08}
FEET = {"a_m": 0.15, "b_m": 0.25, "width_m": 0.22, "height_m": 0.13}
CLOCK = {"method": "clock", "top_m": 0.002, "bottom_m": 0.0004}
EDGE = {"method": "straightedge", "gaps_m": [0, 0.001, 0.0012, 0]}


@pytest.fixture(scope="module")
def client() -> FlaskClient:
    app = openapi_app()
    app.config["SECRET_KEY"] = "nothing is signed here"
    return app.test_client()


def ask(client: FlaskClient, status: int = 200, **body: Any) -> Any:
    answer = client.post("/api/calc/align", json={**PAIR, **body})
    assert answer.status_code == status, answer.get_data(as_text=True)
    return answer.json


def test_readings_are_used_together_and_the_words_follow(client: FlaskClient) -> None:
    found = ask(client, readings=[CLOCK, EDGE], feet=FEET)
    assert found["twist_rad"] == pytest.approx(0.0016 / 0.16)
    assert found["angle_rad"] == pytest.approx(0.0012 / 0.16 + 0.001 / 0.28, rel=0.2), "the offsets of both count"
    assert found["twist_tolerance_rad"] == pytest.approx(math.radians(0.5)) and found["offset_tolerance_m"] == pytest.approx(0.0035)
    assert found["shims_m"][:2] == pytest.approx([0.0025, 0.0025]) and found["shims_m"][2:] == [0, 0]
    assert found["jack_front_m"] == 0 and found["jack_back_m"] > 0
    assert [w[:2] for w in found["words"]] == ["1.", "2.", "3."], "a slide of less than a tenth of a millimetre is not asked"
    assert abs(found["slide_m"]) < 1e-4
    assert "both front feet" in found["words"][0] and "to the left" in found["words"][1] and "read again" in found["words"][-1]
    upright = ask(client, readings=[CLOCK, EDGE], feet=FEET, slope_rad=math.pi / 2)
    assert upright["words"][0].startswith("1. The angle") and upright["words"][1].startswith("2. The twist")


def test_what_is_not_read_is_null_and_said(client: FlaskClient) -> None:
    found = ask(client, readings=[{"method": "tape", "outer_m": 0.7, "inner_m": 0.703, "apart_m": 0.3}], feet=FEET)
    assert found["angle_rad"] == pytest.approx(0.01) and found["twist_rad"] is None and found["offset_m"] is None
    assert found["shims_m"] is None and found["slide_m"] is None and found["jack_back_m"] == pytest.approx(0.0025)
    assert "twist nor the offset" in found["words"][0]
    edge = ask(client, readings=[EDGE], feet=FEET)
    assert edge["shims_m"] is None and edge["slide_m"] == pytest.approx(-edge["offset_m"]), "the offset alone is settled, and mended"
    bent = ask(client, readings=[{"method": "string", "gaps_m": [0, 0.002, 0, 0]}], feet=FEET)
    assert bent["angle_rad"] is None and "straightedge" in bent["words"][0]
    true = ask(client, readings=[{"method": "one_head", "toward_m": 0, "away_m": 0, "top_m": 0, "bottom_m": 0}], feet=FEET)
    assert len(true["words"]) == 1 and "Within tolerance" in true["words"][0]
    known = ask(client, readings=[{**CLOCK, "reading_u_m": 0.0002}])
    assert known["twist_u_rad"] == pytest.approx(math.sqrt(2) * 0.0002 / 0.16) and known["shims_m"] is None


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"readings": [{**CLOCK, "gaps_m": [0, 0, 0, 0]}]}, "readings.0.gaps_m"),
        ({"readings": [{"method": "clock", "top_m": 0}]}, "readings.0.bottom_m"),
        ({"readings": [{"method": "eye"}]}, "readings.0.method"),
        ({"readings": [{**EDGE, "gaps_m": [0, -0.001, 0, 0]}]}, "readings.0.gaps_m.1"),
        ({"readings": [CLOCK], "centre_m": 0.1}, "centre_m"),
        ({"readings": [CLOCK], "kind": "rope"}, "kind"),
        ({"readings": [{"method": "two_heads", "at_movable_m": 0, "at_stationary_m": 0, "tilt_m": 0.001}]}, "target_height_m"),
        ({"readings": []}, "readings"),
    ],
)
def test_what_cannot_be_is_refused_beside_its_field(client: FlaskClient, body: Any, field: str) -> None:
    assert field in [e["field"] for e in ask(client, 422, **body)["errors"]]
