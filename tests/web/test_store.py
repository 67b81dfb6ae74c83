"""The database and the servers over it: migrations, what was typed comes back, two servers, starting up."""

import http.server
import json
import threading
import uuid
from typing import Any

import psycopg
import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from flask import Flask
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy.exc import DBAPIError
from sqlmodel import SQLModel

from tests.conftest import SECRET, database, examples
from tuyere.record.fitted_forms import SheavesForm, ToothedForm
from tuyere.record.forms import SurveyForm
from tuyere.store import tables
from tuyere.store.address import url_from_environment
from tuyere.store.database import alembic_config, engine_from, migrate
from tuyere.store.roles import APPEND, RIGHTS
from tuyere.upkeep.port import Found, look_at
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings


def test_models_and_migrations_agree(demo_database_url: str) -> None:
    assert tables.Drive.metadata is SQLModel.metadata
    with engine_from(demo_database_url).connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), SQLModel.metadata) == []


def test_the_schema_goes_down_and_up_again() -> None:
    engine = engine_from(database("tuyere_test_down"))
    migrate(engine)
    command.downgrade(alembic_config(engine), "base")
    with engine.connect() as connection:
        left = connection.exec_driver_sql("SELECT table_name FROM information_schema.tables WHERE table_schema = 'public'").scalars().all()
        functions = connection.exec_driver_sql(
            "SELECT count(*) FROM pg_proc p JOIN pg_namespace n ON n.oid = pronamespace WHERE nspname = 'public'"
        ).scalar()
    assert set(left) <= {"alembic_version"} and functions == 0
    migrate(engine)
    engine.dispose()


def test_a_missing_database_is_made_once_and_served_by_a_role_that_owns_nothing(demo_database_url: str) -> None:
    url = demo_database_url.rpartition("/")[0] + f"/made_{uuid.uuid4().hex[:8]}"
    served = {prepare(url, SECRET, demo=False) for _ in range(2)}
    with psycopg.connect(served.pop()) as connection:
        assert not served, "the same both times"
        assert connection.execute("SELECT rolsuper OR rolcreatedb OR rolcreaterole FROM pg_roles WHERE rolname = user").fetchone() == (
            False,
        )
        owned = "SELECT count(*) FROM pg_class WHERE relowner = user::regrole"
        assert connection.execute(owned).fetchone() == (0,)


@pytest.mark.parametrize(
    "statement",
    [
        *(f"{verb} {table}" for table in RIGHTS for verb in ("TRUNCATE", "DROP TABLE")),
        *(f"ALTER TABLE {table} DISABLE TRIGGER ALL" for table, right in RIGHTS.items() if right == APPEND),
        *(f"UPDATE {table} SET id = id" for table, right in RIGHTS.items() if right == APPEND),
        *(f"DELETE FROM {table}" for table, right in RIGHTS.items() if "DELETE" not in right),
        "UPDATE shop_list SET content = ''",
        "CREATE TABLE mine (id int)",
        "CREATE TEMP TABLE mine (id int)",
        "ALTER FUNCTION refuse_change() RENAME TO gone",
        "SET session_replication_role = replica",
        "SELECT * FROM alembic_version",
    ],
)
def test_the_serving_role_may_not(serving_url: str, statement: str) -> None:
    with psycopg.connect(serving_url) as connection, pytest.raises(psycopg.errors.InsufficientPrivilege):
        connection.execute(statement)  # type: ignore[call-overload]


# What was done, to what, by whom and when: written out, so that a right given too freely is seen here.
SAYS_WHAT_HAPPENED = {
    "happened": "drive_id kind at what came_off why_off interval_h made_by made_at",
    "hour_reading": "drive_id at hours_h taken_by",
    "reading": "drive_id configuration_id stage_position kind taken_at taken_by machine_state method tool strand belt_state hour_meter_h note"
    " summary engaged turned wheel standing",
    "finding": "drive_id what weight found_at found_by subject sign page",
    "due": "drive_id what kind page",
    "laid_up": "machine_id began_at made_by",
    "temporary_fix": "drive_id due_id what share share_text run made_by made_at typed",
    "inspection_round": "drive_id depth items began_at began_by",
    "job": "drive_id kind title due due_what asked planned_at planned_by machine",
    "job_step": "job_id step",
    "round_answer": "round_id item",
    "photo": "drive_id taken_at taken_by content thumb width height job_id step",
    "person": "name name_key one_click",
    "membership": "person_id site_id",
    "sign_in": "person_id began_at address device",
    "audit_entry": "at person_id site_id action subject_table subject_id changes idempotency_key row_version",
}


@pytest.mark.parametrize("table", SAYS_WHAT_HAPPENED)
def test_the_serving_role_cannot_change_what_happened(serving_url: str, table: str) -> None:
    with psycopg.connect(serving_url, autocommit=True) as connection:
        for column in ("id" if table != "membership" else "role", *SAYS_WHAT_HAPPENED[table].split()):
            if (table, column) == ("membership", "role"):
                continue
            with pytest.raises(psycopg.errors.InsufficientPrivilege):
                connection.execute(f"UPDATE {table} SET {column} = {column}")  # type: ignore[call-overload]


def test_what_ended_says_what_it_said_whoever_asks(sign_in: Any, serving_url: str, demo_database_url: str) -> None:
    """A signed-off job and a finished round: each column of them, a step and an answer, by the role that serves; and by the owner too."""
    with psycopg.connect(demo_database_url, autocommit=True) as owner, psycopg.connect(serving_url, autocommit=True) as server:
        job = owner.execute("SELECT id FROM job WHERE finished_at IS NOT NULL AND id IN (SELECT job_id FROM job_step) LIMIT 1").fetchone()
        done = owner.execute("SELECT id FROM happened LIMIT 1").fetchone()
        assert job and done
        for connection in (server, owner):
            for column in ("note", "said", "steps", "finished_at", "ended_by", "unread", "row_version"):
                with pytest.raises(psycopg.errors.RestrictViolation):
                    connection.execute(f"UPDATE job SET {column} = {column} WHERE id = %s", job)  # type: ignore[call-overload]
            for column in ("state", "words", "at", "by"):
                with pytest.raises(psycopg.errors.RestrictViolation):
                    connection.execute(f"UPDATE job_step SET {column} = {column} WHERE job_id = %s", job)  # type: ignore[call-overload]
        with pytest.raises(psycopg.errors.RestrictViolation):
            owner.execute("UPDATE happened SET what = 'another set' WHERE id = %s", done)
        server.execute("UPDATE happened SET struck_at = struck_at WHERE id = %s", done)
        late = "INSERT INTO job_step (id, job_id, step, state, words, at, by, row_version) SELECT %s, id, 'late', 'done', '', now(), ended_by, 1 FROM job WHERE id = %s"
        with pytest.raises(psycopg.errors.RestrictViolation):
            server.execute(late, (uuid.uuid4(), *job))


def test_two_servers_over_one_database_are_one(serving_url: str, app: Flask, sign_in: Any) -> None:
    caller = sign_in("Ines")
    cookie = caller.client.get_cookie("tuyere_test")
    assert cookie is not None
    other = create_app(Settings(serving_url, SECRET, demo=True, plant="test")).test_client()
    other.set_cookie("tuyere_test", cookie.value)
    assert other.get("/api/session").json["name"] == "Ines"
    body = {"id": str(uuid.uuid4()), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": f"Twin {uuid.uuid4().hex[:6]}"}
    key = str(uuid.uuid4())
    headers = {"X-CSRFToken": caller.token, "Idempotency-Key": key}
    path = f"/api/sites/{caller.site_id}/drives"
    assert caller.post(path, body, key).status_code == other.post(path, json=body, headers=headers).status_code == 201
    floor = other.get(f"/api/sites/{caller.site_id}/floor").json["drives"]
    assert [d["machine"] for d in floor].count(body["machine_name"]) == 1


inches = st.integers(0, 63).flatmap(lambda part: st.integers(4, 14).map(lambda whole: f"{whole} {part}/64"))


@examples(15)
@given(
    driver=inches, driven=inches, centre=st.integers(20, 60), hours=st.integers(1, 24), belts=st.integers(1, 6), note=st.text(max_size=60)
)
def test_what_was_typed_comes_back_as_typed(app: Flask, driver: str, driven: str, centre: int, hours: int, belts: int, note: str) -> None:
    client = app.test_client()
    session = client.get("/api/session").json
    person = next(p for p in session["demo_people"] if p["name"] == "Ines")
    signed = client.post("/api/session/demo", json={"person_id": person["id"]}, headers={"X-CSRFToken": session["csrf_token"]}).json

    def post(path: str, body: dict[str, Any]) -> Any:
        return client.post(path, json=body, headers={"X-CSRFToken": signed["csrf_token"], "Idempotency-Key": str(uuid.uuid4())})

    drive = str(uuid.uuid4())
    machine = {"id": drive, "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": uuid.uuid4().hex}
    assert post(f"/api/sites/{signed['sites'][0]['id']}/drives", machine).status_code == 201
    survey = client.get(f"/api/drives/{drive}").json["survey"]
    typed = {
        "driver_diameter": (driver, "in"),
        "driven_diameter": (driven, "in"),
        "centre_distance": (str(centre), "in"),
        "hours_per_day": (str(hours), "h"),
    }
    for field, (text, unit) in typed.items():
        part = survey["machine"] if field == "hours_per_day" else survey["stages"][0]["fitted"]["quantities"]
        part[field] = {"text": text, "unit": unit, "origin": "measured"}
    survey["stages"][0]["fitted"]["choices"] |= {"section": "A", "belt_count": str(belts)}
    reason = "".join(c for c in note if c.isprintable() and c != "\x00")
    kept = post(f"/api/drives/{drive}/surveys", {"id": str(uuid.uuid4()), "row_version": 1, "reason": reason, "survey": survey})
    assert kept.status_code == 201, kept.json
    seen = client.get(f"/api/drives/{drive}").json
    assert seen["survey"] == survey and seen["row_version"] == 2
    assert client.get(f"/api/drives/{drive}/log").json["entries"][0]["note"] == reason


def test_a_start_without_what_it_needs_says_so(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delenv("DATABASE_URL", raising=False)
    monkeypatch.setenv("TUYERE_SECRET_KEY", "short")
    with pytest.raises(RuntimeError, match="bin/start"):
        url_from_environment()
    with pytest.raises(RuntimeError, match="TUYERE_SECRET_KEY"):
        Settings.from_environment()


def test_what_is_at_a_port() -> None:
    answers = {"/api/health": b'{"name": "tuyere", "plant": "mill", "database": "answers"}'}

    class Handler(http.server.BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.end_headers()
            self.wfile.write(answers.get(self.path, b""))

        def log_message(self, *_args: object) -> None:
            pass

    server = http.server.HTTPServer(("127.0.0.1", 0), Handler)
    port = server.server_port
    threading.Thread(target=server.serve_forever, daemon=True).start()
    assert look_at(port, "mill") is Found.PLANT
    assert look_at(port, "other plant") is Found.OTHER
    answers["/api/health"] = b'{"name": "tuyere", "plant": "mill", "database": "away"}'
    assert look_at(port, "mill") is Found.NO_DATABASE
    answers["/api/health"] = b"<html>"
    assert look_at(port, "mill") is Found.OTHER
    server.shutdown()
    server.server_close()
    assert look_at(port, "mill") is Found.NOTHING


_A_DRIVE = """INSERT INTO drive (id, machine_id, name, family, part_number, note, row_version)
    VALUES (%(id)s, %(id)s, 'drive', %(family)s, '', '', 1)"""
_A_SURVEY = """INSERT INTO configuration (id, drive_id, sequence, standing, reason, driver_class, rotation, made_by, made_at, typed)
    VALUES (%(id)s, %(drive_id)s, 1, 'as found', '', 'normal', 'clockwise', %(drive_id)s, now(), %(typed)s)"""


OLD_CHAIN = {
    "family": "roller chain",
    "quantities": {
        "driver_power": {"text": "5 hp", "unit": "", "origin": None},
        "driver_diameter": {"text": "9", "unit": "in", "origin": None},
        "travel_in": {"text": "1", "unit": "in", "origin": None},
    },
    "choices": {"section": "C", "belt": "C90", "driven_class": "heavy", "rotation": "counter-clockwise", "idler": "tight side, inside"},
    "toothed": {"drive": {"name": "80", "teeth_1": "15", "teeth_2": "45", "count": "90"}, "words": {"label": "80"}},
    "flat": {"belt": "leather 1ply heavy"},
    "path": {"wheels": [{"name": "stale"}]},
    "machine": {"kind": "conveyor"},
}
OLD_LAYOUT = {
    "quantities": {"driver_speed": {"text": "1750", "unit": "rpm", "origin": None}},
    "choices": {"section": "B", "belt": "B81", "belt_count": "2"},
    "toothed": {"drive": {"name": "left behind"}},
    "path": {
        "wheels": [{"name": "motor", "role": "driver"}, {"name": "die", "belt": 2}],
        "crossed": True,
        "tension": {"text": "90 lbf"},
        "more_belts": [{"section": "C", "belt": "C105", "count": "2", "lay": "open"}],
    },
}


def test_surveys_of_before_are_kept_by_stages_and_nothing_of_another_kind_survives() -> None:
    """Each as the form of today reads it; a page that still sends the old words is answered as one that sends the new."""
    engine = engine_from(database("tuyere_test_stages"))
    config = alembic_config(engine)
    command.upgrade(config, "0011")
    ids = {"chain": uuid.uuid4(), "layout": uuid.uuid4()}
    with engine.begin() as connection:
        connection.exec_driver_sql("SET LOCAL session_replication_role = replica")  # rows alone, without the plant they belong to
        for name, typed in (("chain", OLD_CHAIN), ("layout", OLD_LAYOUT)):
            drive = uuid.uuid4()
            family = "roller chain" if name == "chain" else "v-belt"
            connection.exec_driver_sql(_A_DRIVE, {"id": drive, "family": family})
            connection.exec_driver_sql(_A_SURVEY, {"id": ids[name], "drive_id": drive, "typed": json.dumps(typed)})
    command.upgrade(config, "head")
    with engine.connect() as connection:
        said = {row.id: row.typed for row in connection.exec_driver_sql("SELECT id, typed FROM configuration")}
    chain, layout = (SurveyForm.model_validate(said[ids[name]]) for name in ("chain", "layout"))
    assert chain == SurveyForm.model_validate(OLD_CHAIN) and chain.family == "roller chain" and len(chain.stages) == 1
    assert chain.driver.driver_power.text == "5 hp" and chain.driver.rotation == "counter-clockwise"
    assert (chain.machine.driven_class, chain.machine.kind) == ("heavy", "conveyor")
    assert chain.first.idler == "tight side, inside" and chain.first.travel_in.text == "1"
    assert isinstance(chain.first.fitted, ToothedForm) and chain.first.fitted.drive.teeth_2 == "45"
    assert "C90" not in json.dumps(said[ids["chain"]]) and not chain.layout.wheels, "nothing of the V-belts that were there before"
    assert layout == SurveyForm.model_validate(OLD_LAYOUT) and "left behind" not in json.dumps(said[ids["layout"]])
    assert [s.fitted.choices.belt for s in layout.stages if isinstance(s.fitted, SheavesForm)] == ["B81", "C105"]
    assert (layout.first.lay, layout.first.tension.text, layout.layout.wheels[1].belt) == ("crossed", "90 lbf", 2)
    with pytest.raises(DBAPIError), engine.begin() as connection:
        connection.exec_driver_sql("UPDATE configuration SET typed = typed")


def test_ribs_of_one_band_counted_as_belts_are_read_as_one_band() -> None:
    """A survey kept when 3 belts of 3/B81 meant its three ribs says one band from then on; two bands stay two, and singles stay."""
    engine = engine_from(database("tuyere_test_bands"))
    config = alembic_config(engine)
    command.upgrade(config, "0008")
    kept = {"3/B81": ("3", "1"), "2/5V1000": ("4", "4"), "B81": ("3", "3"), "6PK1195": ("6", "1")}
    ids = {belt: uuid.uuid4() for belt in kept}
    with engine.begin() as connection:
        connection.exec_driver_sql("SET LOCAL session_replication_role = replica")  # rows alone, without the plant they belong to
        for belt, (count, _) in kept.items():
            typed = json.dumps({"choices": {"belt": belt, "belt_count": count}})
            connection.exec_driver_sql(_A_SURVEY, {"id": ids[belt], "drive_id": uuid.uuid4(), "typed": typed})
    command.upgrade(config, "0009")
    with engine.connect() as connection:
        for belt, (_, expected) in kept.items():
            said = connection.exec_driver_sql(
                "SELECT typed #>> '{choices,belt_count}' FROM configuration WHERE id = %(id)s", {"id": ids[belt]}
            )
            assert said.scalar() == expected, belt
    with pytest.raises(DBAPIError), engine.begin() as connection:
        connection.exec_driver_sql("UPDATE configuration SET typed = typed")
    engine.dispose()
