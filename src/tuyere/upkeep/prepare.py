"""Before serving: the database, its schema, the role that serves, the demo plant or a first lead's code."""

import hmac
from collections.abc import Callable
from urllib.parse import quote, urlsplit, urlunsplit

import psycopg
from psycopg.errors import InsufficientPrivilege
from sqlalchemy import Engine, text
from sqlalchemy.exc import DBAPIError
from sqlmodel import Session, select

from tuyere.record.state import mark, rebuild
from tuyere.store import people
from tuyere.store.database import behind, engine_from, migrate
from tuyere.store.people_tables import Site
from tuyere.store.prune import prune
from tuyere.store.roles import grant
from tuyere.upkeep.owners import at, give_to, make_database, make_role, name_of, user_of
from tuyere.upkeep.said import GivingUp, say

AT_START = 300  # stale drives that a start works out itself
PATIENCE_S = 60  # for a connection while the machine is busy: a start waits rather than gives up


def prepare(
    owner_url: str,
    secret_key: str,
    demo: bool,
    serving_url: str = "",
    superuser_url: str = "",
    before_change: Callable[[], None] | None = None,
) -> str:
    """Bring the database up to date as its owner; gives the URL to serve with: `serving_url`, or one of a role made here.

    The made role's password comes from the secret key, so that two servers of one plant agree on it. `superuser_url`: of a cluster of our
    own, where the owner may make neither databases nor roles. `before_change`: done before a schema that is
    behind is changed. Raises GivingUp.
    """
    try:
        if superuser_url:
            give_to(superuser_url, owner_url)
        else:
            _make_database(owner_url)
        engine = engine_from(owner_url)
        if before_change and behind(engine):
            before_change()
        migrate(engine)
        served = serving_url or _served_by(superuser_url or owner_url, owner_url, secret_key)
        grant(engine, user_of(served))
        with Session(engine) as session:
            _first_people(engine, session, demo)
            if mark(session) <= AT_START:  # of more the keeper works them out while Tuyere runs
                for site_id in session.exec(select(Site.id)).all():
                    rebuild(session, site_id)
            for before, name in people.renamed(session):
                say(f"“{before}” looked like another's name: they sign in as “{name}” from now on.")
        prune(engine)
        engine.dispose()
    except (psycopg.Error, DBAPIError) as error:
        reason = str(getattr(error, "orig", error)).strip()
        raise GivingUp(f"the database cannot be used: {reason}") from None
    return served


def _make_database(url: str) -> None:
    try:
        psycopg.connect(url, connect_timeout=PATIENCE_S).close()
    except psycopg.OperationalError as error:
        if "does not exist" not in str(error):
            raise
        with psycopg.connect(at(url, "postgres"), autocommit=True, connect_timeout=PATIENCE_S) as server:
            make_database(server, name_of(url))


def _served_by(maker_url: str, owner_url: str, secret_key: str) -> str:
    role = f"{name_of(owner_url)}_server"[:63]
    password = hmac.new(secret_key.encode(), f"database role {role}".encode(), "sha256").hexdigest()
    try:
        with psycopg.connect(at(maker_url, name_of(owner_url)), autocommit=True, connect_timeout=PATIENCE_S) as server:
            make_role(server, role, password)
    except InsufficientPrivilege:
        say(
            f"Note: {user_of(owner_url)} may not make roles, so requests are served with the rights of the tables' owner."
            " docs/running.md tells how to make a role that owns nothing and name it in TUYERE_SERVING_URL."
        )
        return owner_url
    parts = urlsplit(owner_url)
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
