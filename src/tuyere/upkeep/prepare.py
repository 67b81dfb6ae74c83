"""Before serving: the database, its schema, the role that serves, the demo plant or a first lead's code."""

import contextlib
import hmac
from urllib.parse import quote, urlsplit, urlunsplit

import psycopg
from psycopg import sql
from psycopg.errors import DuplicateDatabase, UniqueViolation
from sqlalchemy import Engine, text
from sqlalchemy.exc import DBAPIError, ProgrammingError
from sqlmodel import Session

from tuyere.store import people
from tuyere.store.database import engine_from, migrate
from tuyere.store.prune import prune
from tuyere.store.roles import grant, make_serving_role
from tuyere.upkeep.said import GivingUp, say


def prepare(owner_url: str, secret_key: str, demo: bool, serving_url: str = "") -> str:
    """Bring the database up to date as its owner; gives the URL to serve with: `serving_url`, or one of a role made here.

    The made role's password comes from the secret key, so that two servers of one plant agree on it. Raises GivingUp.
    """
    try:
        _make_database(owner_url)
        engine = engine_from(owner_url)
        migrate(engine)
        served = serving_url or _served_by(engine, owner_url, secret_key)
        if serving_url:
            grant(engine, urlsplit(serving_url).username or "")
        with Session(engine) as session:
            _first_people(engine, session, demo)
        prune(engine)
        engine.dispose()
    except (psycopg.Error, DBAPIError) as error:
        reason = str(getattr(error, "orig", error)).strip()
        raise GivingUp(f"the database cannot be used: {reason}") from None
    return served


def _make_database(url: str) -> None:
    parts = urlsplit(url)
    try:
        psycopg.connect(url, connect_timeout=10).close()
    except psycopg.OperationalError as error:
        if "does not exist" not in str(error):
            raise
        server = urlunsplit(parts._replace(path="/postgres"))
        made = (DuplicateDatabase, UniqueViolation)  # by another start at the same moment
        with psycopg.connect(server, autocommit=True, connect_timeout=10) as connection, contextlib.suppress(*made):
            connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(parts.path.strip("/"))))


def _served_by(engine: Engine, owner_url: str, secret_key: str) -> str:
    parts = urlsplit(owner_url)
    role = f"{parts.path.strip('/')}_server"[:63]
    password = hmac.new(secret_key.encode(), f"database role {role}".encode(), "sha256").hexdigest()
    try:
        make_serving_role(engine, role, password)
    except ProgrammingError as error:
        if "permission denied" not in str(error.orig):
            raise
        say(
            f"Note: {parts.username} may not make roles, so requests are served with the rights of the tables' owner."
            " docs/running.md tells how to make a role that owns nothing and name it in TUYERE_SERVING_URL."
        )
        return owner_url
    place = parts.netloc.rpartition("@")[2]
    return urlunsplit(parts._replace(netloc=f"{quote(role)}:{password}@{place}"))


def _first_people(engine: Engine, session: Session, demo: bool) -> None:
    session.execute(text("SELECT pg_advisory_xact_lock(7021142)"))  # two starts at once fill it once
    if demo:
        if people.plant_is_empty(session):
            say("Loading the demo plant ...")
            from tuyere.demo.load import load_demo  # here: it takes seconds to import, and a plant that is there does without

            load_demo(engine)
    elif code := people.issue_first_lead_code(session):
        say(f"\n  Nobody can sign in yet. One-time code to make the first lead: {code}\n")
