"""Slips, get-home fixes, lives of sets, cross-reference and tables, over the web and in the database."""

import io
import uuid
from dataclasses import asdict
from datetime import timedelta
from typing import Any

import psycopg
import pytest
from sqlalchemy import Engine, event, text
from sqlmodel import Session, select

from tests.core.test_found import spec as a_drive
from tests.drives import fit, window
from tests.web.test_plant import floor, log
from tuyere.core.kinds import v_belt
from tuyere.core.stations.bench.table_book import BOOK
from tuyere.core.stations.find.counter_slip import counter_slip
from tuyere.core.stations.find.grade import DUTIES, grade
from tuyere.documents.slip_pdf import Heading, laid_out, slip_html, slip_pdf
from tuyere.store import clock
from tuyere.store.database import engine_from
from tuyere.store.shop_tables import CrossReference
from tuyere.store.tables import AuditEntry, Due, TemporaryFix

TODAY = clock.now().date()


def blower(caller: Any) -> tuple[str, dict[str, Any]]:
    drive = floor(caller)["Malt cooler blower"]["id"]
    return drive, caller.get(f"/api/drives/{drive}").json["survey"]


def test_identify_and_check_without_a_record(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    form = {
        "quantities": {"top_width": {"text": "16.3 mm"}, "thickness": {"text": "9.9 mm"}},
        "words": {"construction": "wrapped", "label": "B?1"},
    }
    said = caller.post("/api/calc/identify", form).json
    assert said["answer"]["candidates"][0]["section"] == "B" and not said["problems"]
    assert {n["designation"] for n in said["answer"]["candidates"][0]["names"]} & {"B51", "B81"}
    bad = caller.post("/api/calc/identify", {"quantities": {"top_width": {"text": "10 MB"}}, "words": {"construction": "knitted"}}).json
    assert {p["field"] for p in bad["problems"]} == {"top_width", "construction"}
    checked = caller.post(
        "/api/calc/groove-check",
        {
            "quantities": {"wheel_diameter": {"text": "5.75"}, "ride": {"text": "3/16"}},
            "words": {"belt_section": "B", "made_for": "B", "ride_way": "sunk"},
        },
    ).json["check"]
    assert checked["measured_ride_m"] < 0 and any("below the rim" in v["headline"] for v in checked["verdicts"])
    named = caller.post("/api/calc/designation", {"text": "13x1400 Li"}).json
    assert named["designation"] == "A 1430" and named["inside_length_m"] == pytest.approx(1.4)


def test_a_slip_is_kept_once_and_printed(sign_in: Any) -> None:
    caller = sign_in("Ines")
    drive, survey = blower(caller)
    body = {"id": str(uuid.uuid4()), "asked": {"belt": "b-85", "survey": survey, "duties": ["oily"]}, "find": {"words": {"label": "B8?"}}}
    key = str(uuid.uuid4())
    assert [caller.post(f"/api/drives/{drive}/slips", body, key).status_code for _ in range(2)] == [201, 201]
    kept = caller.get(f"/api/drives/{drive}/found").json["slip"]
    assert kept["designation"] == "B85" and kept["who"] == "Ines" and kept["find"]["words"]["label"] == "B8?"
    assert "matched set of 3" in kept["slip"]["count"] and kept["slip"]["grade"] == ["oil-resisting"]
    assert len([e for e in log(caller, drive, "counter slip") if e["id"] == body["id"]]) == 1
    pdf = caller.get(f"/api/slips/{kept['id']}/pdf")
    assert pdf.status_code == 200 and pdf.content_type == "application/pdf" and pdf.data.startswith(b"%PDF")
    nothing = caller.post(f"/api/drives/{drive}/slips", {"id": str(uuid.uuid4()), "asked": {"belt": "marmalade"}})
    assert nothing.status_code == 422 and nothing.json["errors"][0]["field"] == "belt"


def test_a_slip_escapes_what_people_write() -> None:
    slip = {
        "headline": "B81",
        "count": "one",
        "names": [],
        "machine_part": "<script>x</script>",
        "section": [],
        "length": [],
        "grade": [],
        "refuse": [],
        "check_first": [],
    }
    html = slip_html(slip, Heading("Fan & co", "today"))
    assert "<script>" not in html and "&lt;script&gt;" in html and "Fan &amp; co" in html
    assert io.BytesIO(slip_pdf(slip, Heading("Fan", "today"))).read(4) == b"%PDF"


def test_the_longest_slip_keeps_to_one_page() -> None:
    belt, spec = v_belt.parse_designation("HB75"), a_drive()
    slip = counter_slip(
        belt, 3, False, fit(spec), window(spec), grade(belt.section, tuple(DUTIES), fit(spec), (900.0,)), "the long number from the plate"
    )
    assert len(slip.refuse) > 5 and len(slip.grade) > 3
    assert len(laid_out(asdict(slip), Heading("A long way to the kiln fan's main drive, second floor", "today")).pages) == 1


def test_a_get_home_fix_raises_a_due_and_ends_with_it(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    drive, survey = blower(caller)
    body = {
        "id": str(uuid.uuid4()),
        "fix": {"survey": survey, "fix_section": "A", "fix_count": "3"},
        "off_by": str(TODAY + timedelta(days=3)),
    }
    assert caller.post(f"/api/drives/{drive}/get-home", body).status_code == 201
    (fix,) = [f for f in caller.get(f"/api/drives/{drive}/found").json["fixes"] if f["id"] == body["id"]]
    assert fix["what"] == "3 A belts in B grooves" and fix["off_by"] == body["off_by"]
    dues = floor(caller)["Malt cooler blower"]["dues"]
    assert any(d["what"] == "Get-home fix off: 3 A belts in B grooves" and d["days"] == 3 for d in dues)
    off = {"row_version": fix["row_version"]}
    assert [caller.post(f"/api/get-home/{fix['id']}/off", off).status_code for _ in range(2)] == [200, 200]
    with Session(engine) as session:
        row = session.exec(select(TemporaryFix).where(TemporaryFix.id == uuid.UUID(fix["id"]))).one()
        assert row.off_at and session.get_one(Due, row.due_id).done_at
    assert not any("3 A belts" in d["what"] for d in floor(caller)["Malt cooler blower"]["dues"])


@pytest.mark.parametrize(
    ("fix", "off_by", "field"),
    [
        ({"fix_section": "C", "fix_count": "3"}, TODAY, "fix_section"),
        ({"fix_section": "", "fix_count": "3"}, TODAY, "fix_count"),
        ({"fix_section": "", "fix_count": "many"}, TODAY, "fix_count"),
        ({"fix_section": "", "fix_count": "2"}, TODAY + timedelta(days=900), "off_by"),
    ],
)
def test_a_fix_that_is_none_is_refused(sign_in: Any, fix: dict[str, str], off_by: Any, field: str) -> None:
    caller = sign_in("Ines")
    drive, survey = blower(caller)
    refused = caller.post(
        f"/api/drives/{drive}/get-home", {"id": str(uuid.uuid4()), "fix": {"survey": survey, **fix}, "off_by": str(off_by)}
    )
    assert refused.status_code == 422 and refused.json["errors"][0]["field"] == field


def test_two_early_deaths_raise_a_finding_once(sign_in: Any) -> None:
    caller = sign_in("Ines")
    drive = floor(caller)["Steep-water pump"]["id"]
    survey = caller.get(f"/api/drives/{drive}").json["survey"]
    raised = []
    for days, hours in ((40, "900 h"), (20, "700"), (2, "650 h")):
        life = {
            "id": str(uuid.uuid4()),
            "hours": {"text": hours, "unit": "h"},
            "ended_on": str(TODAY - timedelta(days=days)),
            "survey": survey,
        }
        raised.append(caller.post(f"/api/drives/{drive}/lives", life).json["raised"])
    assert raised == [False, True, False]
    assert [f["what"] for f in floor(caller)["Steep-water pump"]["findings"]].count("Sets die early: wrong angle, depth or grade") == 1
    assert [x["hours_h"] for x in caller.get(f"/api/drives/{drive}/found").json["lives"]] == [900, 700, 650]
    wrong = caller.post(f"/api/drives/{drive}/lives", {"id": str(uuid.uuid4()), "hours": {"text": "-"}, "ended_on": str(TODAY)})
    assert wrong.status_code == 422 and wrong.json["errors"][0]["field"] == "set_hours"


def test_a_shop_list_is_loaded_and_looked_up(sign_in: Any) -> None:
    caller = sign_in("Ines")
    site = f"/api/sites/{caller.site_id}/cross-reference"
    first = caller.post(
        site, {"csv": "part_number,designation,note\nQZ 7,b81,short\nQZ-8,nonsense,\nMC-22 SET OF 3,B85,matched set of 3\n"}
    ).json
    assert (first["added"], first["changed"], first["refused_rows"]) == (1, 1, 1)
    again = caller.post(site, {"csv": "part_number,designation,note\nqz-7,B82,longer\n"}).json
    assert (again["added"], again["changed"]) == (0, 1)
    assert {"QZ-7", "qz-7"} & {r["part_number"] for r in caller.get(site).json["rows"]}
    drive, _ = blower(caller)
    assert caller.get(f"/api/drives/{drive}/found").json["cross_reference"]["designation"] == "B85"
    assert caller.post(site, {"csv": "part,belt\n1,B81\n"}).status_code == 422
    assert sign_in("Rowan").post(site, {"csv": "part_number,designation\n1,B81\n"}).status_code == 403


def test_every_table_reads_in_both_systems(sign_in: Any) -> None:
    caller = sign_in("Rowan")
    listed = caller.get("/api/tables").json["tables"]
    assert {t["name"] for t in listed} == set(BOOK)
    for entry in listed:
        found = caller.get(f"/api/tables/{entry['name']}").json["table"]
        assert len(found["rows"]) == entry["rows"] == len(found["sources"]) and all(len(r) == len(found["columns"]) for r in found["rows"])
    sections = caller.get("/api/tables/v_sections").json["table"]
    at = [c["key"] for c in sections["columns"]].index("top_width")
    sizes = {r[0]["us"]: r[at] for r in sections["rows"]}
    assert sizes["A"] == {"us": "0.5", "si": "12.7"} and sizes["SPA"] == {"us": "0.5", "si": "12.7"}
    assert caller.get("/api/tables/secrets").status_code == 404


def test_slips_and_lives_cannot_be_changed_even_by_the_owner(demo_database_url: str, sign_in: Any) -> None:
    test_a_slip_is_kept_once_and_printed(sign_in)
    engine = engine_from(demo_database_url)
    for statement in ("UPDATE counter_slip SET designation = 'Z'", "DELETE FROM counter_slip", "UPDATE belt_life SET hours_h = 1"):
        with Session(engine) as session, pytest.raises(Exception) as refused:
            session.execute(text(statement))
        assert isinstance(refused.value.__cause__, psycopg.errors.RestrictViolation)


def test_a_long_cross_reference_is_kept_in_few_statements_and_once(sign_in: Any, engine: Engine) -> None:
    caller = sign_in("Ines")
    site = f"/api/sites/{caller.site_id}/cross-reference"
    rows = [f"L{n:05},{'B' if n % 2 else 'A'}{30 + n % 60}" for n in range(4000)]
    statements = 0

    def count(*_: Any) -> None:
        nonlocal statements
        statements += 1

    event.listen(engine, "before_cursor_execute", count)
    first = caller.post(site, {"csv": "\n".join(["part_number,designation", *rows])}).json
    event.remove(engine, "before_cursor_execute", count)
    assert (first["added"], first["changed"], first["same"]) == (4000, 0, 0) and statements < 60
    rows[7] = "l-00007,C99"
    again = caller.post(site, {"csv": "\n".join(["part_number,designation", *rows])}).json
    assert (again["added"], again["changed"], again["same"]) == (0, 1, 3999)
    with Session(engine) as session:
        row = session.exec(select(CrossReference).where(CrossReference.part_key == "L00007")).one()
        entry = session.exec(select(AuditEntry).where(AuditEntry.subject_id == row.id, AuditEntry.row_version == 2)).one()
    assert entry.changes == {"part_number": ["L00007", "l-00007"], "designation": ["B37", "C99"]}
