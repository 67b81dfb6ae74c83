"""A kind of drive that is added is at every station: by its folder, one word of the registry, and its rows of data."""

import uuid
from collections.abc import Iterator
from typing import Any

import pytest
from flask import Flask

from tests.conftest import SECRET, Caller, database
from tests.rope import ROPE
from tuyere.core.kinds import registry
from tuyere.core.kinds.rating.own_table import NONE
from tuyere.core.kinds.traits import traits
from tuyere.core.stations.size.shelf import stock as shop_stock
from tuyere.core.stations.size.stock import kinds
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

FITTED = {"family": "rope", "quantities": {"driver_diameter": {"text": "11 in"}}, "words": {"lay": "three strands"}}
SURVEY: dict[str, Any] = {
    "driver": {"driver_power": {"text": "2 hp"}, "driver_speed": {"text": "600 rpm"}},
    "machine": {"driven_class": "light", "hours_per_day": {"text": "8"}},
    "stages": [{"fitted": FITTED, "held_by": "fixed centres"}],
}


@pytest.fixture
def rope(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """The one word of the registry, and the row of traits."""
    monkeypatch.setattr(registry, "FAMILIES", (*registry.FAMILIES, ROPE))
    monkeypatch.setitem(traits(), "rope", traits()["flat belt, leather"])
    kinds.cache_clear(), shop_stock.cache_clear()
    yield
    kinds.cache_clear(), shop_stock.cache_clear()


@pytest.fixture(scope="module")
def app() -> Flask:
    """A plant of its own: nobody else knows the kind."""
    return create_app(Settings(prepare(database("tuyere_test_rope", "demo"), SECRET, demo=True), SECRET, demo=True, plant="rope"))


def test_it_is_refused_while_nobody_has_added_it(app: Any) -> None:
    assert app.test_client().post("/api/calc/sheet", json={"survey": SURVEY}).status_code == 422


def test_it_is_at_survey_speed_size_tension_and_align(rope: None, app: Any) -> None:
    client = app.test_client()
    assert "rope" in [f["key"] for f in client.get("/api/families").json["families"]]
    sheet = client.post("/api/calc/sheet", json={"survey": SURVEY}).json
    assert sheet["figures"]["ratio"]["value_si"] == pytest.approx(2.0)
    assert sheet["figures"]["capacity"]["value_si"] == pytest.approx(2700)
    assert any(v["headline"].startswith("It will carry it") for v in sheet["verdicts"])
    tight = sheet["tight"]
    assert tight["one"] == "rope" and tight["values"] == 3 and not tight["why_not"] and tight["figures"]["aim_low"]["value_si"] > 0
    assert {"angle", "twist", "offset"} == {e["key"] for e in sheet["align"]["errors"]}
    pushed = {"forces": [{"text": "40", "unit": "N"}] * 3, "method": "gauge"}
    read = client.post("/api/calc/sheet", json={"survey": SURVEY, "gauge": pushed}).json
    assert len(read["tight"]["strands"]) == 3 and any(v["topic"] == "tension" for v in read["verdicts"])
    slip = client.post("/api/calc/counter-slip", json={"survey": SURVEY, "part_number": "R-9"}).json["slip"]
    assert (slip["headline"], slip["machine_part"]) == ("Rope", "R-9")
    target = {"sheet": {"survey": SURVEY}, "target": {"text": "300 rpm"}, "tolerance": "5"}
    pair = client.post("/api/calc/speed/target", json=target).json["pairs"][0]
    assert pair["rated"].startswith("carries ") and pair["fitted"]["family"] == "rope"
    room = {"centre_low": {"text": "1 m"}, "centre_high": {"text": "3 m"}, "driven_speed": {"text": "300 rpm"}}
    asked = {"sheet": {"survey": SURVEY}, "size": {"families": ["rope"], "quantities": room}}
    found = client.post("/api/calc/size", json=asked).json["listed"]
    assert found and all(one["family"] == "rope" for one in found)
    full = client.post("/api/calc/size/candidates", json={**asked, "keys": [found[0]["key"]]}).json["candidates"][0]
    assert full["survey"]["stages"][0]["fitted"]["family"] == "rope" and full["sheet"]["figures"]["capacity"]["value_si"] > 0
    assert NONE.of("rope") is None


def test_it_runs_on_many_wheels(rope: None, app: Any) -> None:
    def wheel(name: str, role: str, at: str, **more: str) -> dict[str, Any]:
        entries = {k: {"text": v} for k, v in more.items()}
        return {"name": name, "role": role, "diameter": {"text": "11 in"}, "x": {"text": at}, "y": {"text": "0 in"}, **entries}

    wheels = [wheel("motor", "driver", "0 in"), wheel("drum", "driven", "60 in", power="2 hp")]
    survey = {**SURVEY, "stages": [{"fitted": {**FITTED}}], "layout": {"placed_by": "coordinates", "wheels": wheels}}
    path = app.test_client().post("/api/calc/path", json={"survey": survey})
    assert path.status_code == 200 and not path.json["problems"], path.json["problems"]


def test_it_is_kept_inspected_and_has_its_jobs(rope: None, sign_in: Any) -> None:
    caller: Caller = sign_in("Ines")
    made = {
        "id": str(uuid.uuid4()),
        "machine_id": str(uuid.uuid4()),
        "machine_name": f"Rope way {uuid.uuid4()}",
        "name": "main",
        "family": "rope",
    }
    told = caller.post(f"/api/sites/{caller.site_id}/drives", made)
    assert told.status_code == 201, told.json
    drive_id = told.json["id"]
    kept = {"id": str(uuid.uuid4()), "row_version": 1, "standing": "as found", "survey": SURVEY}
    assert (answer := caller.post(f"/api/drives/{drive_id}/surveys", kept)).status_code == 201, answer.json
    drive = caller.get(f"/api/drives/{drive_id}").json
    assert drive["family"] == "rope" and drive["kind"]["label"] == "rope"
    floor = caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]
    assert drive_id in [d["id"] for d in floor]
    gauge = {"forces": [{"text": "40", "unit": "N"}] * 3, "method": "gauge"}
    reading = {"id": str(uuid.uuid4()), "kind": "belt tension", "machine_state": "isolated", "gauge": gauge}
    assert (answer := caller.post(f"/api/drives/{drive_id}/readings", reading)).status_code == 201, answer.json
    look = caller.post(f"/api/drives/{drive_id}/wear/look", {}).json
    assert look["what"] == "groove" and look["places"]
    found = caller.post(f"/api/drives/{drive_id}/diagnosis", {"seen": ["squeal_start"]}).json
    assert found["diagnosis"]["causes"] and found["family"] == ROPE.group
    assert caller.get(f"/api/drives/{drive_id}/rounds").json["depths"][0]["items"] > 3
    jobs = caller.get(f"/api/drives/{drive_id}/jobs").json
    assert "tension" in [k["key"] for k in jobs["kinds"]]
    begun = caller.post(f"/api/drives/{drive_id}/jobs", {"id": str(uuid.uuid4()), "kind": "tension", "asked": {}})
    assert begun.status_code == 201, begun.json
    assert caller.get(f"/api/drives/{drive_id}/card.pdf?size=label").status_code == 200
