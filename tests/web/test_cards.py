"""Cards, labels and jobs on paper; jobs of trains and of conversions."""

import re
import uuid
from typing import Any
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.web.test_jobs import NUMBER, begin, figure, say
from tests.web.test_said_done_due import drive, of
from tuyere.documents.drive_card import Card, CardRow, card_svg


@pytest.mark.parametrize("size", ["A6", "A5", "half", "label"])
def test_the_card_says_the_stations_numbers_inside_its_frame(sign_in: Any, size: str) -> None:
    caller = sign_in("Rowan")
    for machine in ("Kiln exhaust fan", "Drag-chain conveyor", "Bag palletiser", "Hammer mill"):
        drive_id = of(caller, machine)["id"]
        drawn = caller.get(f"/api/drives/{drive_id}/card.svg?size={size}")
        root = ElementTree.fromstring(drawn.text)
        width, height = (float(v) for v in root.attrib["viewBox"].split()[2:])
        for text in root.iter("{http://www.w3.org/2000/svg}text"):
            long = 0.56 * float(text.attrib["font-size"]) * len(text.text or "")
            at = float(text.attrib["x"])
            anchor = text.attrib.get("text-anchor", "start")
            left = at - {"start": 0, "middle": long / 2, "end": long}[anchor]
            assert left >= 0 and left + long <= width and 0 < float(text.attrib["y"]) < height, (machine, text.text)
        pdf = caller.get(f"/api/drives/{drive_id}/card.pdf?size={size}")
        assert pdf.data.startswith(b"%PDF") and len(re.findall(rb"/Type /Page\b", pdf.data)) <= 1
    shown = NUMBER.findall(caller.get(f"/api/drives/{of(caller, 'Kiln exhaust fan')['id']}/card.svg?size={size}").text)
    kiln = of(caller, "Kiln exhaust fan")["id"]
    assert shown[:3] == ["Kiln exhaust fan", "5 × C144", figure(caller, kiln, "deflection")["us"]]
    assert shown[3] == f"{figure(caller, kiln, 'aim_low')['us'].removesuffix(' lbf')} to {figure(caller, kiln, 'aim_high')['us']}"


@given(st.lists(st.text(st.characters(), max_size=30), min_size=4, max_size=4))
def test_a_card_is_well_formed_whatever_is_in_the_rows(told: list[str]) -> None:
    """Rows from before such characters were refused."""
    machine, at, label, value = told
    drawn = card_svg(Card(machine, at, (CardRow(label, value, at),), "clockwise", "http://localhost/drives/1", at))
    assert "".join(ElementTree.fromstring(drawn).itertext())


def test_a_job_on_paper_has_every_step(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    job = begin(caller, "Workshop lathe", "align")
    pdf = caller.get(f"/api/jobs/{job['id']}/sheet.pdf")
    assert pdf.content_type == "application/pdf" and pdf.data.startswith(b"%PDF")


def test_a_mixed_train_has_the_jobs_and_numbers_of_each_of_its_stages(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    told = caller.get(f"/api/drives/{of(caller, 'Intake bucket elevator')['id']}/jobs").json
    assert {"chain_join", "chain_oil", "belt_set"} <= {k["key"] for k in told["kinds"]}
    chain = begin(caller, "Intake bucket elevator", "chain_join", {"link": "spring clip link", "offset": "no: even"})
    at = {s["key"]: s["number"] for s in chain["steps"]}
    survey = drive(caller, chain["drive_id"])["survey"]
    own = caller.post("/api/calc/sheet", {"survey": survey, "gauge": {"belt_state": "new", "stage": 2}}).json["tight"]["figures"]
    assert at["sag_set"]["us"].split(" to ")[1] == own["aim_high"]["us"] and at["sag_set"]["detail"].startswith("stage 2")
    assert at["chain_length"]["us"] == "96" and at["oil_chain"]["us"].split()[0] in ("by", "oil", "pumped")
    belts = {s["key"]: s["number"] for s in begin(caller, "Intake bucket elevator", "belt_set")["steps"]}
    assert belts["gauge_new"]["detail"].startswith("stage 1") and "stage 2" in belts["align_first"]["detail"]
    press = {s["key"]: s["number"] for s in begin(caller, "Dust pellet press", "belt_set")["steps"]}
    assert "stage 2: " in press["gauge_new"]["detail"] and "stage 2: " in press["slack_base"]["detail"], "every stage has its own number"


def test_a_conversion_follows_the_survey_of_its_new_drive(sign_in: Any) -> None:
    """Begun before the new drive is surveyed, its figures and its gauging step come with the survey; what is done stays done."""
    caller = sign_in("Tobias")
    made = {
        "id": str(uuid.uuid4()),
        "name": "Mill drive",
        "machine_id": str(uuid.uuid4()),
        "machine_name": "Old bench mill",
        "machine_kind": "turret mill",
    }
    assert caller.post(f"/api/sites/{caller.site_id}/drives", made).status_code == 201
    job_id = str(uuid.uuid4())
    assert caller.post(f"/api/drives/{made['id']}/jobs", {"id": job_id, "kind": "convert", "machine": {"spindle": True}}).status_code == 201
    job = caller.get(f"/api/jobs/{job_id}").json
    assert "gauge_new" not in {s["key"] for s in job["steps"]}
    say(caller, job, job["steps"][0]["key"])
    survey = {
        "quantities": {
            "driver_power": {"text": "2 hp"},
            "driver_speed": {"text": "1750 rpm"},
            "hours_per_day": {"text": "4"},
            "driver_diameter": {"text": "4.2 in"},
            "driven_diameter": {"text": "5.2 in"},
            "centre_distance": {"text": "20 in"},
        },
        "choices": {"section": "A", "belt_count": "1", "driven_class": "light"},
    }
    kept = caller.post(
        f"/api/drives/{made['id']}/surveys", {"id": str(uuid.uuid4()), "row_version": 1, "standing": "as left", "survey": survey}
    )
    assert kept.status_code == 201, kept.json
    now = {s["key"]: s for s in caller.get(f"/api/jobs/{job_id}").json["steps"]}
    assert now["gauge_new"]["number"]["page"] == "tension"
    assert now[job["steps"][0]["key"]]["standing"] == "done"
    say(caller, job, job["steps"][1]["key"])


def test_link_belting_stands_with_its_length_on_the_slip(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    survey = drive(caller, of(caller, "Sack roller conveyor")["id"])["survey"]
    slip = caller.post("/api/calc/counter-slip", {"survey": survey}).json["slip"]
    links = caller.post("/api/calc/link", {"link": survey["stages"][0]["fitted"]["link"]}).json["links"]
    assert slip["headline"] == "Link belting" and slip["length"][0].startswith(f"{links} links, ")
