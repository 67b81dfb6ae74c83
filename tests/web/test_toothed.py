"""Toothed belts, chains and flat belts over the web and in the database."""

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
    assert survey["stages"][0]["fitted"]["drive"]["name"] == "80" and survey["stages"][0]["fitted"]["words"]["pitch_count"] == "12"
    survey["stages"][0]["fitted"]["drive"] |= {"teeth_2": "47", "count": "94"}
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
    survey["stages"][0]["fitted"]["drive"]["count"] = "20"
    survey["stages"][0]["fitted"]["quantities"]["pitch_span"] = {"text": "wide"}
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


def test_a_flat_belt_drive_is_kept_with_its_pulleys(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Workshop lathe")
    survey = drive["survey"]
    survey["stages"][0]["fitted"]["lay"] = "crossed"
    assert keep(caller, drive, survey).status_code == 201
    again = drive_of(caller, "Workshop lathe")
    with Session(engine) as session:
        stage = session.exec(select(Stage).where(Stage.configuration_id == uuid.UUID(again["configuration_id"]))).one()
        wheels = session.exec(select(Wheel).where(Wheel.stage_id == stage.id).order_by(col(Wheel.position))).all()
    assert (stage.section, stage.lay) == ("flat", "crossed") and stage.centre_distance_m == pytest.approx(38 * 0.0254)
    assert [(w.face, round((w.diameter_m or 0) / 0.0254, 3)) for w in wheels] == [("flat", 6.0), ("flat", 8.0)]
    survey["stages"][0]["fitted"]["quantities"]["driver_diameter"] = {"text": "round"}
    refused = keep(caller, again, survey)
    assert refused.status_code == 422 and refused.json["errors"][0]["field"] == "driver_diameter"
    assert len(caller.get("/api/calc/flat-lists").json["belts"]) > 20
