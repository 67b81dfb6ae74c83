"""Who owns a database: a role of its own that is no superuser and makes no roles; and whom a database lets in."""

from urllib.parse import unquote, urlsplit, urlunsplit

import psycopg
from psycopg import sql
from psycopg.errors import DuplicateDatabase, DuplicateObject, UniqueViolation

Connection = psycopg.Connection[tuple[object, ...]]
_LOCK = 7_021_143  # one at a time over a cluster


def at(url: str, database: str) -> str:
    """The URL of another database on the same server."""
    return urlunsplit(urlsplit(url)._replace(path=f"/{database}"))


def name_of(url: str) -> str:
    """The database that a URL names."""
    return urlsplit(url).path.strip("/")


def user_of(url: str) -> str:
    """The role that a URL names."""
    return unquote(urlsplit(url).username or "")


def exists(server: Connection, database: str) -> bool:
    """Whether there is such a database."""
    return server.execute("SELECT 1 FROM pg_database WHERE datname = %s", (database,)).fetchone() is not None


def make_role(server: Connection, role: str, password: str) -> None:
    """Make a role that signs in and may make nothing; or bring its password up to date."""
    plain = "LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION NOBYPASSRLS PASSWORD"
    with server.transaction():
        server.execute("SELECT pg_advisory_xact_lock(%s)", (_LOCK,))
        there = server.execute("SELECT 1 FROM pg_roles WHERE rolname = %s", (role,)).fetchone()
        verb = sql.SQL("ALTER ROLE {} " if there else "CREATE ROLE {} ").format(sql.Identifier(role))
        server.execute(verb + sql.SQL(plain + " {}").format(sql.Literal(password)))


def make_database(server: Connection, database: str, owner: str = "") -> None:
    """Make it unless it is there; nobody but its owner may connect until they are let in."""
    of = sql.SQL(" OWNER {}").format(sql.Identifier(owner)) if owner else sql.SQL("")
    try:
        server.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(database)) + of)
    except (DuplicateDatabase, UniqueViolation, DuplicateObject):
        return  # another start made it
    server.execute(sql.SQL("REVOKE ALL ON DATABASE {} FROM PUBLIC").format(sql.Identifier(database)))


def make_owner(superuser_url: str, owner_url: str) -> None:
    """The role that owns a cluster's databases, and nobody let in where nobody has to be. Safe to repeat."""
    with psycopg.connect(at(superuser_url, "postgres"), autocommit=True, connect_timeout=10) as server:
        make_role(server, user_of(owner_url), unquote(urlsplit(owner_url).password or ""))
        for shared in ("postgres", "template1"):
            server.execute(sql.SQL("REVOKE ALL ON DATABASE {} FROM PUBLIC").format(sql.Identifier(shared)))


def give_to(superuser_url: str, owner_url: str) -> None:
    """Make the owner and the database, and give the owner all that is in it: as the superuser of a cluster of our own. Safe to repeat."""
    owner, database = user_of(owner_url), name_of(owner_url)
    make_owner(superuser_url, owner_url)
    with psycopg.connect(at(superuser_url, "postgres"), autocommit=True, connect_timeout=10) as server:
        make_database(server, database, owner)
        server.execute(sql.SQL("ALTER DATABASE {} OWNER TO {}").format(sql.Identifier(database), sql.Identifier(owner)))
    with psycopg.connect(at(superuser_url, database), connect_timeout=10) as inside:
        inside.execute("SELECT pg_advisory_xact_lock(%s)", (_LOCK,))
        _take_over(inside, owner)


def _take_over(inside: Connection, owner: str) -> None:
    """Everything in the schema of a database, to one owner."""
    name = sql.Identifier(owner)
    inside.execute(sql.SQL("ALTER SCHEMA public OWNER TO {}").format(name))
    tables = "SELECT relname FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'v')"
    for (table,) in inside.execute(tables + " AND relowner <> %s::regrole", (owner,)).fetchall():
        inside.execute(sql.SQL("ALTER TABLE {} OWNER TO {}").format(sql.Identifier(str(table)), name))
    # An extension's functions stay whose they are.
    functions = (
        "SELECT proname FROM pg_proc WHERE pronamespace = 'public'::regnamespace"
        " AND NOT EXISTS (SELECT FROM pg_depend WHERE objid = pg_proc.oid AND deptype = 'e')"
    )
    for (function,) in inside.execute(functions + " AND proowner <> %s::regrole", (owner,)).fetchall():
        inside.execute(sql.SQL("ALTER FUNCTION {} OWNER TO {}").format(sql.Identifier(str(function)), name))
