"""A PostgreSQL database for the tests: bin/test starts the server and names it in TUYERE_TEST_DATABASE_BASE."""

import os
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from tuyere.store import clock  # isort: skip

# No run comes upon midnight by itself, whenever it is started: near it the clock is set some hours off, for this process, its workers and
# every server that a test starts. What happens over midnight has tests of its own.
if clock.AHEAD not in os.environ:
    hour = clock.now().hour
    os.environ[clock.AHEAD] = str(3600 * (-3 if hour > 21 else 3 if hour < 3 else 0))
    clock.begin()

import hypothesis
import psycopg
import pytest
from argon2 import PasswordHasher
from flask import Flask
from flask.testing import FlaskClient
from sqlalchemy import Engine
from sqlmodel import Session, select

from tuyere.demo.load import load_demo
from tuyere.store import people as people_store
from tuyere.store.database import engine_from, migrate
from tuyere.store.people_tables import Person
from tuyere.store.tables import Drive, Machine
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

LONG = bool(os.environ.get("TUYERE_LONG"))  # bin/test --long
hypothesis.settings.register_profile("repeatable", derandomize=True, deadline=None, max_examples=1000 if LONG else 60)
hypothesis.settings.load_profile("repeatable")


def examples(usual: int) -> hypothesis.settings:
    """So many generated examples, twenty times as many in the long form."""
    return hypothesis.settings(max_examples=20 * usual if LONG else usual)


# Hashing is slow on purpose; the tests hash hundreds of times, and one of them holds the real cost (test_session).
REAL_HASHER = people_store._hasher
people_store._hasher = PasswordHasher(time_cost=1, memory_cost=64, parallelism=1)
SECRET = "tests-only-tests-only-tests-only-1234"


def database(name: str, template: str = "") -> str:
    """The URL of a new database; `template`: `empty` (the tables) or `demo` (the sample plant), made once for all workers, or a name."""
    base = os.environ.get("TUYERE_TEST_DATABASE_BASE")
    if not base:
        pytest.fail("TUYERE_TEST_DATABASE_BASE is not set: run the tests through bin/test.")
    own = f"{name}_{os.environ.get('PYTEST_XDIST_WORKER', 'gw')}"
    with psycopg.connect(f"{base}/postgres", autocommit=True) as connection:
        if template in ("empty", "demo"):
            template = _template(connection, base, template)
        connection.execute(f"DROP DATABASE IF EXISTS {own} WITH (FORCE)")
        connection.execute(f"CREATE DATABASE {own} TEMPLATE {template or 'template1'}")
    return f"{base}/{own}"


def _template(connection: psycopg.Connection[Any], base: str, kind: str) -> str:
    name = f"tuyere_template_{kind}"
    connection.execute("SELECT pg_advisory_lock(4711)")
    if not connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", (name,)).fetchone():
        connection.execute(f"CREATE DATABASE {name}_making")
        engine = engine_from(f"{base}/{name}_making")
        migrate(engine)
        if kind == "demo":
            load_demo(engine)
        engine.dispose()
        connection.execute(f"ALTER DATABASE {name}_making RENAME TO {name}")
    connection.execute("SELECT pg_advisory_unlock(4711)")
    return name


@pytest.fixture(scope="session")
def empty_database_url() -> str:
    return database("tuyere_test_empty", "empty")


@pytest.fixture(scope="session")
def demo_database_url() -> str:
    return database("tuyere_test_demo", "demo")


@pytest.fixture(scope="session")
def serving_url(demo_database_url: str) -> str:
    """The demo plant's database, as the role that may read and write rows only."""
    return prepare(demo_database_url, SECRET, demo=True)


@pytest.fixture(scope="session")
def app(serving_url: str) -> Flask:
    return create_app(Settings(serving_url, SECRET, demo=True, plant="test"))


@pytest.fixture(scope="session")
def engine(app: Flask) -> Engine:
    found: Engine = app.extensions["engine"]
    return found


@dataclass
class Caller:
    """A signed-in client that sends the CSRF token and an idempotency key."""

    client: FlaskClient
    token: str
    site_id: str

    def post(self, path: str, body: dict[str, Any], key: str | None = None, site: str = "") -> Any:
        headers = {"X-CSRFToken": self.token, "Idempotency-Key": key or str(uuid.uuid4())}
        return self.client.post(path, json=body, headers=headers | ({"Tuyere-Site": site} if site else {}))

    def put(self, path: str, body: dict[str, Any]) -> Any:
        return self.client.put(path, json=body, headers={"X-CSRFToken": self.token, "Idempotency-Key": str(uuid.uuid4())})

    def get(self, path: str) -> Any:
        return self.client.get(path)


@pytest.fixture
def sign_in(app: Flask) -> Iterator[Any]:
    def enter(name: str) -> Caller:
        client = app.test_client()
        session = client.get("/api/session").json
        person = next(p for p in session["demo_people"] if p["name"] == name)
        answer = client.post("/api/session/demo", json={"person_id": person["id"]}, headers={"X-CSRFToken": session["csrf_token"]})
        assert answer.status_code == 200
        return Caller(client, answer.json["csrf_token"], answer.json["sites"][0]["id"])

    yield enter


@pytest.fixture
def drive_id(engine: Engine) -> str:
    """A surveyed drive of the demo plant: the dust-collector fan, three belts."""
    with Session(engine) as session:
        found = session.exec(select(Drive.id).join(Machine).where(Machine.name == "Dust-collector fan")).one()
        return str(found)


@pytest.fixture
def people(engine: Engine) -> dict[str, uuid.UUID]:
    with Session(engine) as session:
        return {p.name: p.id for p in session.exec(select(Person))}
