"""What a form offers can be kept, read back and opened at every station, and its readings kept: no choice breaks on our side."""

import uuid
from typing import Any

import pytest

from tuyere.core.kinds.held import HELD_BY
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS
from tuyere.core.kinds.starts import starts
from tuyere.core.stations.tension.grip import surfaces

BASE: dict[str, Any] = {
    "family": "v-belt",
    "quantities": {
        "driver_power": {"text": "10 hp"},
        "driver_speed": {"text": "1750 rpm"},
        "hours_per_day": {"text": "10 h"},
        "driver_diameter": {"text": "7 in"},
        "driven_diameter": {"text": "16 in"},
        "centre_distance": {"text": "40 in"},
    },
    "choices": {"section": "B", "belt_count": "2", "driven_class": "moderate"},
}


def survey(**choices: str) -> dict[str, Any]:
    return {**BASE, "choices": {**BASE["choices"], **choices}}


def staged(stage: dict[str, Any]) -> dict[str, Any]:
    """What stands with the stage and not with what is fitted."""
    return {"stage": stage}


CHOICES: list[dict[str, Any]] = [
    *({"driven_basis": b, "section": s} for b in ("outside", "datum", "flat") for s in ("A", "B", "5V", "SPA", "PK", "HB", "ISO B", "4L")),
    *({"driver_basis": b} for b in ("outside", "datum")),
    *({f"{w}_groove": g} for w in ("driver", "driven") for g in ("standard", "deep", "combination")),
    *({"adjustable": a} for a in ("driver", "driven")),
    *({"ribs": r, "belt_count": "1"} for r in ("2", "3", "5")),
    *({"idler": i} for i in IDLERS),
    *({"surroundings": s} for s in SURROUNDINGS),
    *({"starts": s} for s in STARTS),
    *({"driver_class": c} for c in ("normal", "high")),
    *({"rotation": r} for r in ("clockwise", "counter-clockwise")),
]
STAGES: list[dict[str, Any]] = [
    *({"held_by": h} for h in HELD_BY),
    *({"kept": {"words": {"start_by": c.key}}} for c in starts()),
    *({"kept": {"words": {"surface": c.key}}} for c in surfaces()),
    *({"kept": {"words": {"wheel_1_bearing": b}}} for b in ("ball", "roller", "bushing")),
]


@pytest.fixture
def drive(sign_in: Any) -> tuple[Any, str]:
    caller = sign_in("Ines")
    made = {
        "id": str(uuid.uuid4()),
        "name": "Every choice",
        "machine_id": str(uuid.uuid4()),
        "machine_name": f"Choices {uuid.uuid4().hex[:8]}",
    }
    assert caller.post(f"/api/sites/{caller.site_id}/drives", made).status_code == 201
    return caller, made["id"]


def kept_and_opened(caller: Any, drive_id: str, version: int, typed: dict[str, Any], what: object) -> None:
    """Keep it, read it back as it was typed, open every station, keep what a gauge read."""
    form = caller.post("/api/calc/survey", {"survey": typed}).json["survey"]
    body = {"id": str(uuid.uuid4()), "row_version": version, "standing": "as found", "survey": form}
    done = caller.post(f"/api/drives/{drive_id}/surveys", body)
    assert done.status_code == 201, (what, done.json)
    read = caller.get(f"/api/drives/{drive_id}").json
    assert read["survey"] == form, what
    sheet = caller.post("/api/calc/sheet", {"survey": read["survey"]})
    assert sheet.status_code == 200 and not sheet.json["problems"], (what, sheet.json)
    for path in ("log", "photos", "jobs"):
        assert caller.get(f"/api/drives/{drive_id}/{path}").status_code == 200, (what, path)
    tight = sheet.json["tight"]
    if tight and "aim_low" in tight["figures"] and tight["method"] == "gauge":
        forces = [{"text": f"{tight['figures']['aim_low']['value_si'] * 1.1} N"}] * tight["values"]
        reading = {"id": str(uuid.uuid4()), "kind": "belt tension", "machine_state": "isolated", "gauge": {"forces": forces}}
        assert caller.post(f"/api/drives/{drive_id}/readings", reading).status_code == 201, what


def test_every_choice_can_be_kept_and_opened(drive: tuple[Any, str]) -> None:
    caller, drive_id = drive
    version = 1
    for choice in CHOICES:
        kept_and_opened(caller, drive_id, version, survey(**choice), choice)
        version = caller.get(f"/api/drives/{drive_id}").json["row_version"]
    plain = caller.post("/api/calc/survey", {"survey": survey()}).json["survey"]
    for stage in STAGES:
        typed = {**plain, "stages": [{**plain["stages"][0], **stage}]}
        kept_and_opened(caller, drive_id, version, typed, stage)
        version = caller.get(f"/api/drives/{drive_id}").json["row_version"]


def test_a_v_belt_on_a_flat_wheel_is_kept_as_that(drive: tuple[Any, str]) -> None:
    """It answered that something broke on our side, and its readings were refused too."""
    caller, drive_id = drive
    kept_and_opened(caller, drive_id, 1, survey(driven_basis="flat"), "V-flat")
    floor = caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]
    assert next(d for d in floor if d["id"] == drive_id)["sketch"]
