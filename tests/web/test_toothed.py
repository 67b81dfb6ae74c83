"""Toothed belts and chains over the web and in the database."""

import uuid
from typing import Any

import pytest
from sqlalchemy import Engine
from sqlmodel import Session, col, select

from tests.web.test_layout import drive_of, keep
from tests.web.test_plant import floor
from tuyere.store.tables import Stage, Wheel


def test_a_chain_drive_is_kept_by_teeth_and_listed(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Drag-chain conveyor")
    survey = drive["survey"]
    assert survey["toothed"]["drive"]["name"] == "80" and survey["toothed"]["words"]["pitch_count"] == "12"
    survey["toothed"]["drive"] |= {"teeth_2": "47", "count": "94"}
    assert keep(caller, drive, survey, "as left").status_code == 201
    again = drive_of(caller, "Drag-chain conveyor")
    with Session(engine) as session:
        stage = session.exec(select(Stage).where(Stage.configuration_id == uuid.UUID(again["configuration_id"]))).one()
        wheels = session.exec(select(Wheel).where(Wheel.stage_id == stage.id).order_by(col(Wheel.position))).all()
        assert (stage.section, stage.belt) == ("80", "80, 94 pitches") and [w.teeth for w in wheels] == [15, 47]
        # ASME B29.1: 1 / sin(180/15) = 4.810 in.
        assert wheels[0].diameter_m == pytest.approx(4.8097 * 0.0254, rel=1e-4) and stage.centre_distance_m
    listed = floor(caller)["Drag-chain conveyor"]
    assert listed["belts"] == "80, 94 pitches" and len(listed["sketch"]["wheels"]) == 2


def test_what_cannot_be_read_is_refused_beside_its_field(sign_in: Any) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Bag filter shaker")
    survey = drive["survey"]
    survey["toothed"]["drive"]["count"] = "20"
    survey["toothed"]["quantities"]["pitch_span"] = {"text": "wide"}
    refused = keep(caller, drive, survey)
    assert refused.status_code == 422 and {e["field"] for e in refused.json["errors"]} == {"pitch_span", "count"}


def test_identification_answers_with_shapes(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    toothed = {
        "quantities": {"pitch_span": {"text": "100 mm"}, "belt_thickness": {"text": "2.7 mm"}},
        "words": {"pitch_count": "20", "shape": "straight"},
    }
    said = caller.post("/api/calc/toothed", {"family": "synchronous", "toothed": toothed}).json
    assert said["found"][0]["name"] == "AT5" and len(said["found"][0]["template"]["belt"]["points"]) > 20
    lists = caller.get("/api/calc/toothed-lists").json
    assert "H8M" in lists["names"]["synchronous"] and "08B" in lists["names"]["roller chain"]
