"""Speeds over the web and on the record: proposals, trials, design-point findings, instruments, drawings of wheels."""

import io
import uuid
from typing import Any

import ezdxf
import pytest
from sqlalchemy import Engine
from sqlmodel import Session, select

from tests.web.test_layout import drive_of, keep
from tuyere.instruments.device import DEVICES, Truth, strobe
from tuyere.store.tables import Configuration, Finding, Trial

RPM = 3.141592653589793 / 30


def reading(tach: str, driver: str = "1740 rpm") -> dict[str, Any]:
    speeds = {"tach_driver": {"text": driver}, "tach_driven": {"text": tach}}
    return {"id": str(uuid.uuid4()), "kind": "shaft speed", "machine_state": "running, guard on", "tachometer": speeds}


def test_a_proposal_is_kept_beside_what_is_fitted_until_something_is(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Refrigeration compressor 1")
    survey = drive["survey"]
    survey["stages"][0]["fitted"]["quantities"]["driver_diameter"]["text"] = "9.0"
    assert keep(caller, drive, survey, "proposed").status_code == 201
    again = drive_of(caller, "Refrigeration compressor 1")
    assert (
        again["survey"]["stages"][0]["fitted"]["quantities"]["driver_diameter"]["text"] == "9.4"
        and again["configuration_id"] == drive["configuration_id"]
    )
    assert again["proposed"]["survey"]["stages"][0]["fitted"]["quantities"]["driver_diameter"]["text"] == "9.0"
    assert keep(caller, again, again["survey"], "as left").status_code == 201
    assert drive_of(caller, "Refrigeration compressor 1")["proposed"] is None
    with Session(engine) as session:
        standings = session.exec(
            select(Configuration.standing).where(Configuration.drive_id == uuid.UUID(drive["id"])).order_by(Configuration.sequence)
        ).all()
        assert standings[-2:] == ["proposed", "as left"]


def test_a_proposal_that_overloads_the_motor_is_refused(sign_in: Any) -> None:
    """Power as speed cubed (pump affinity): 10.4 of 12.8 A at 1316 rpm leaves too little for 1700."""
    caller = sign_in("Ines")
    drive = drive_of(caller, "Steep-water pump")
    survey = drive["survey"]
    survey["stages"][0]["fitted"]["quantities"]["driver_diameter"]["text"] = "8.15"
    refused = keep(caller, drive, survey, "proposed")
    assert refused.status_code == 422 and refused.json["detail"].startswith("Stop: the motor would carry")
    survey["stages"][0]["fitted"]["quantities"]["driver_diameter"]["text"] = "6.55"
    assert keep(caller, drive, survey, "proposed").status_code == 201


def test_a_speed_off_the_design_raises_one_finding_and_a_right_one_closes_it(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Tobias")
    drive = drive_of(caller, "Bucket elevator 2")
    path = f"/api/drives/{drive['id']}/readings"

    def open_findings() -> list[str]:
        with Session(engine) as session:
            wanted = select(Finding).where(Finding.drive_id == uuid.UUID(drive["id"]), Finding.subject == "design speed")
            return [f.what for f in session.exec(wanted) if f.closed_at is None]

    assert caller.post(path, reading("1050 rpm")).status_code == 201
    assert len(open_findings()) == 1 and open_findings()[0].startswith("Never set up properly")
    assert caller.post(path, reading("1165 rpm")).status_code == 201
    assert open_findings() == []
    assert caller.post(path, reading("1060 rpm")).status_code == 201
    assert open_findings() == ["Off its design speed of 1160 rpm by -9 %: it has been there before"]


def test_a_trial_is_kept_once_with_what_it_said(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive = drive_of(caller, "Dust-collector fan")
    typed = {"before_tach_driven": {"text": "2790 rpm"}, "after_tach_driven": {"text": "2890 rpm"}}
    body = {"id": str(uuid.uuid4()), "trial": {"quantities": typed, "words": {"change": "tightened"}}, "note": "after the weekend"}
    key = str(uuid.uuid4())
    path = f"/api/drives/{drive['id']}/trials"
    assert [caller.post(path, body, key).status_code for _ in range(2)] == [201, 201]
    with Session(engine) as session:
        kept = session.exec(select(Trial).where(Trial.drive_id == uuid.UUID(drive["id"]))).one()
        assert kept.values_si["after_tach_driven"] == pytest.approx(2890 * RPM) and "3.6% of the speed was slip" in kept.summary["headline"]
    nothing = {"id": str(uuid.uuid4()), "trial": {"quantities": {}, "words": {"change": "tightened"}}}
    refused = caller.post(path, nothing)
    assert refused.status_code == 422 and "both before and after" in refused.json["detail"]
    unsaid = caller.post(path, {**body, "id": str(uuid.uuid4()), "trial": {"quantities": typed, "words": {}}})
    assert unsaid.json["errors"][0]["field"] == "change"
    assert sign_in("Rowan").post(path, body).status_code == 403


def test_instruments_read_what_is_true_within_their_errors(sign_in: Any) -> None:
    """The interface is the same for all: pointed at a target, each shows text and unit as a person would type it."""
    caller = sign_in("Rowan")
    drive = drive_of(caller, "Kiln exhaust fan")
    path = f"/api/drives/{drive['id']}/instruments"
    read = [float(caller.post(path, {"device": "tachometer", "target": "driver shaft"}).json["text"]) for _ in range(12)]
    near = sorted(read)[4]
    assert near == pytest.approx(1775 * 1.004, abs=6) and all(
        r == pytest.approx(near, abs=8) or r == pytest.approx(2 * near, abs=16) for r in read
    )
    assert caller.post(path, {"device": "clamp meter", "target": "motor lead"}).json["unit"] == "A"
    wrong = caller.post(path, {"device": "manometer", "target": "driver shaft"})
    assert wrong.status_code == 422 and "plenum" in wrong.json["detail"]
    assert set(DEVICES) == {"tachometer", "clamp meter", "manometer"} and Truth().at("plenum") is None
    # Aliasing: p/q of the flash rate shows q images (any text on stroboscopes).
    assert strobe(1200 * RPM, 400).word == "1 image stands still" and "drifts" in strobe(1200 * RPM, 1111).word


def test_a_wheel_comes_as_svg_and_dxf_at_one_to_one(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    query = "section=B&line_mm=152.4&grooves=2&bore_mm=25.4"
    drawing = ezdxf.read(io.StringIO(caller.get(f"/api/calc/speed/wheel.dxf?{query}").get_data(as_text=True)))  # type: ignore[attr-defined]
    assert drawing.units == ezdxf.units.MM
    outline = next(iter(drawing.modelspace().query("LWPOLYLINE")))
    points = [(x, y) for x, y, *_ in outline.get_points()]
    # 6.0 in datum: 6.35 in outside, 1.75 in face (IP-20, from memory).
    assert (
        outline.closed
        and max(y for _, y in points) == pytest.approx(6.35 / 2 * 25.4)
        and max(x for x, _ in points) == pytest.approx(1.75 * 25.4)
    )
    circles = sorted(c.dxf.radius * 2 for c in drawing.modelspace().query("CIRCLE"))
    assert circles == pytest.approx([25.4, 152.4, 161.29])
    svg = caller.get(f"/api/calc/speed/wheel.svg?{query}")
    assert svg.mimetype == "image/svg+xml" and "check the print" in svg.get_data(as_text=True)
    assert caller.get("/api/calc/speed/wheel.dxf?section=banana&line_mm=152.4").status_code == 422


def test_a_file_of_readings_is_reported_row_by_row(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    said = caller.post("/api/calc/speed/readings-file", {"text": "what;value;unit\namps;12,4;A\nnoise;84;\nfeeling;bad;\n"}).json
    assert [r["field"] for r in said["rows"]] == ["amps", "noise", ""] and "not read here" in said["rows"][2]["sentence"]
    assert "must name the columns" in caller.post("/api/calc/speed/readings-file", {"text": "a,b\n1,2\n"}).json["refused"]


def test_targets_of_every_family_say_what_each_pair_carries(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    for machine, family, target, rated in (
        ("Steep-water pump", "v-belt", "1100 rpm", "belts needed"),
        ("Drag-chain conveyor", "roller chain", "40 rpm", "of the design power"),
        ("Bag filter shaker", "synchronous", "600 rpm", "of the design power"),
        ("Workshop lathe", "flat belt", "500 rpm", "carries"),
    ):
        survey = drive_of(caller, machine)["survey"]
        body = {"sheet": {"family": family, "survey": survey}, "target": {"text": target}, "tolerance": "3"}
        said = caller.post("/api/calc/speed/target", body).json
        assert said["pairs"] and all(abs(p["off"]) <= 0.03 for p in said["pairs"]), machine
        assert said["rateable"] and any(rated in p["rated"] for p in said["pairs"]), (machine, said["pairs"][0])
        if family in ("roller chain", "synchronous"):
            assert all(p["driver_teeth"] and p["driven_teeth"] for p in said["pairs"])
