"""Bring a plant back from a backup: rows and nothing else, read in beside the living one by a role that can do nothing but that.

The tables are made by our own migrations, never by the file. What the file makes the database do, it does as a role that owns only the
new database, is no superuser and may connect to no other; and if anything but rows is there afterwards, all of it is thrown away.
"""

import graphlib
import re
import secrets
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import quote, urlsplit, urlunsplit

import psycopg
from alembic.script import ScriptDirectory
from psycopg import sql

from tuyere.store.database import MIGRATIONS, alembic_config, engine_from
from tuyere.upkeep import older
from tuyere.upkeep.archive import unpacked
from tuyere.upkeep.owners import Connection, at, exists, make_database, make_role, name_of, user_of
from tuyere.upkeep.postgres_tools import run_tool
from tuyere.upkeep.said import GivingUp

VERSIONS = "alembic_version"
# What a database is, but for its rows: all that could act later. Compared before and after the rows come in.
_CATALOGUE = """
SELECT 'relation', c.oid::text, c.relname::text, c.relkind::text || c.relrowsecurity || coalesce(array_to_string(c.reloptions, ','), '')
  FROM pg_class c WHERE c.relnamespace NOT IN ('pg_catalog'::regnamespace, 'information_schema'::regnamespace, 'pg_toast'::regnamespace)
UNION ALL SELECT 'column', attrelid::text, attname::text, atttypid::text || attnotnull || attisdropped FROM pg_attribute
  WHERE attrelid IN (SELECT oid FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind = 'r') AND attnum > 0
UNION ALL SELECT 'default', adrelid::text, adnum::text, pg_get_expr(adbin, adrelid) FROM pg_attrdef
UNION ALL SELECT 'constraint', conrelid::text, conname::text, pg_get_constraintdef(oid) FROM pg_constraint
  WHERE connamespace = 'public'::regnamespace
UNION ALL SELECT 'trigger', tgrelid::text, tgname::text, tgenabled::text || pg_get_triggerdef(oid) FROM pg_trigger
UNION ALL SELECT 'function', oid::text, proname::text, md5(prosrc) || coalesce(proconfig::text, '') || prosecdef FROM pg_proc
  WHERE pronamespace NOT IN ('pg_catalog'::regnamespace, 'information_schema'::regnamespace)
UNION ALL SELECT 'rule', ev_class::text, rulename::text, pg_get_ruledef(oid) FROM pg_rewrite
  WHERE ev_class IN (SELECT oid FROM pg_class WHERE relnamespace = 'public'::regnamespace)
UNION ALL SELECT 'schema', oid::text, nspname::text, '' FROM pg_namespace WHERE nspname !~ '^pg_(toast_)?temp_'
UNION ALL SELECT 'extension', oid::text, extname::text, '' FROM pg_extension
UNION ALL SELECT 'language', oid::text, lanname::text, '' FROM pg_language
UNION ALL SELECT 'event trigger', oid::text, evtname::text, '' FROM pg_event_trigger
UNION ALL SELECT 'policy', oid::text, polname::text, '' FROM pg_policy
UNION ALL SELECT 'type', oid::text, typname::text, '' FROM pg_type WHERE typnamespace = 'public'::regnamespace
UNION ALL SELECT 'default right', oid::text, '', '' FROM pg_default_acl
UNION ALL SELECT 'large object', oid::text, '', '' FROM pg_largeobject_metadata
UNION ALL SELECT 'publication', oid::text, pubname::text, '' FROM pg_publication
UNION ALL SELECT 'setting', setdatabase::text, setrole::text, setconfig::text FROM pg_db_role_setting
  WHERE setdatabase = (SELECT oid FROM pg_database WHERE datname = current_database()) OR setrole = current_user::regrole
UNION ALL SELECT 'member', roleid::text, member::text, '' FROM pg_auth_members
  WHERE roleid = current_user::regrole OR member = current_user::regrole
ORDER BY 1, 2, 3, 4
"""


@dataclass(frozen=True)
class Target:
    """The database to bring back: as its owner, and as who may make databases and roles (the same, where it is kept by others)."""

    owner_url: str
    maker_url: str

    @property
    def own(self) -> bool:
        """Whether the cluster is ours alone."""
        return self.owner_url != self.maker_url

    @property
    def name(self) -> str:
        """The database by its name."""
        return name_of(self.owner_url)


def restore(target: Target, file: Path, replace: bool, key: bytes, older_format: bool = False) -> str:
    """Bring `file` back as the target; gives the name that an older one was put aside under, or nothing. Raises GivingUp.

    The living database is touched at the very end, by renaming. Sessions of that time do not come back.
    """
    name, aside = target.name, f"{target.name}_before_{time.strftime('%Y%m%d_%H%M%S')}"
    with file.open("rb") as opened:
        packed_as_of_old = opened.read(2) == b"\x1f\x8b"
    if packed_as_of_old and not older_format:
        raise GivingUp(
            f"{file} is a backup of an older Tuyere: it has no hashes, so nobody can tell whether it was changed. If it never left your"
            " hands, add --older: its rows are read as they stand, and nothing in it is run."
        )
    with psycopg.connect(at(target.maker_url, "postgres"), autocommit=True, connect_timeout=10) as server:
        there = _has_people(server, target)
        if there and not replace:
            raise GivingUp(f"the database {name} has people in it: to put it aside and bring the file back in its place, add --replace.")
        if _in_use(server, name):
            raise GivingUp(f"the database {name} is in use: stop Tuyere first.")
        with _new_database(server, target) as (new, loader_url):
            if older_format:
                _bring_in(loader_url, older.revision_of(file), lambda inside, order: older.load(inside, file, order))
            else:
                with unpacked(file, key) as (manifest, dump):
                    _bring_in(loader_url, manifest.revision, lambda _, order: _pg_restore(loader_url, dump, order), manifest.rows)
            _end_sessions(loader_url)
            _upgrade(loader_url, "head")
            _hand_over(server, target, new, user_of(loader_url))
            if there is not None:
                server.execute(sql.SQL("ALTER DATABASE {} RENAME TO {}").format(sql.Identifier(name), sql.Identifier(aside)))
            server.execute(sql.SQL("ALTER DATABASE {} RENAME TO {}").format(sql.Identifier(new), sql.Identifier(name)))
    return "" if there is None else aside


@contextmanager
def _new_database(server: Connection, target: Target) -> Iterator[tuple[str, str]]:
    """An empty database beside the living one, and the URL of the role that owns it and nothing else; both gone if it fails."""
    new, loader, password = f"{target.name}_restoring"[:63], f"{target.name}_loader"[:63], secrets.token_urlsafe(24)
    maker = sql.Identifier(user_of(target.maker_url))
    try:
        server.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(new)))
        make_role(server, loader, password)
        server.execute(sql.SQL("GRANT {} TO {}").format(sql.Identifier(loader), maker))
    except psycopg.errors.InsufficientPrivilege:
        who = user_of(target.maker_url)
        raise GivingUp(
            f"{who} may not make databases and roles, and a restore needs both: give it CREATEDB and CREATEROLE for it."
        ) from None
    make_database(server, new, loader)
    place = urlsplit(target.maker_url).netloc.rpartition("@")[2]
    url = urlunsplit(urlsplit(target.maker_url)._replace(netloc=f"{quote(loader)}:{password}@{place}", path=f"/{new}"))
    try:
        _may_connect_nowhere_else(server, loader, new, target.own)
        yield new, url
    finally:
        server.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(new)))
        server.execute(sql.SQL("DROP ROLE IF EXISTS {}").format(sql.Identifier(loader)))


def _may_connect_nowhere_else(server: Connection, loader: str, new: str, own: bool) -> None:
    """Closes the other databases to everybody in a cluster of our own; elsewhere they are others', and GivingUp says which are open."""
    open_to_it = """SELECT datname FROM pg_database
        WHERE datallowconn AND datname <> %s AND has_database_privilege(%s, oid, 'CONNECT') ORDER BY datname"""
    for (database,) in server.execute(open_to_it, (new, loader)).fetchall() if own else ():
        server.execute(sql.SQL("REVOKE CONNECT, TEMPORARY ON DATABASE {} FROM PUBLIC").format(sql.Identifier(str(database))))
    left = [str(d) for (d,) in server.execute(open_to_it, (new, loader)).fetchall()]
    if left:
        where = f"the role that reads the file in could connect to {', '.join(left)} too"
        raise GivingUp(f"{where}: have their owner REVOKE CONNECT ON DATABASE … FROM PUBLIC.")


def _bring_in(url: str, revision: str, load: Callable[[Connection, list[str]], None], rows: dict[str, int] | None = None) -> None:
    """Our tables at that revision, emptied, filled by `load`; then nothing but rows may be new. Raises GivingUp."""
    if revision not in {r.revision for r in ScriptDirectory(str(MIGRATIONS)).walk_revisions()}:
        raise GivingUp(f"the file was made by a newer Tuyere (revision {revision}): restore it with that version.")
    _upgrade(url, revision)
    with psycopg.connect(url) as inside:
        order = _tables(inside)
        for table in reversed(order):
            inside.execute(sql.SQL("TRUNCATE {} CASCADE").format(sql.Identifier(table)))
        before = inside.execute(_CATALOGUE).fetchall()
    try:
        with psycopg.connect(url) as inside:
            load(inside, order)
    except psycopg.Error as error:
        raise GivingUp(f"the file could not be brought back: {str(error).strip()[-400:]}") from None
    with psycopg.connect(url) as inside:
        if inside.execute(_CATALOGUE).fetchall() != before:
            raise GivingUp("the file does more than bring rows back: nothing of it was kept.")
        for table in order:
            _set_sequences(inside, table)
        counted = {t: _count(inside, t) for t in order}
    if rows is not None and counted != {t: rows.get(t, 0) for t in order}:
        raise GivingUp("not all the rows that the manifest names came back: nothing of it was kept.")
    if not counted.get("person"):
        raise GivingUp("the file holds no plant.")


def _tables(inside: Connection) -> list[str]:
    """Our tables, those that others point at first."""
    names = [str(t) for (t,) in inside.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public'") if t != VERSIONS]
    points: dict[str, set[str]] = {name: set() for name in names}
    arrows = (
        "SELECT a.relname, b.relname FROM pg_constraint JOIN pg_class a ON a.oid = conrelid JOIN pg_class b ON b.oid = confrelid"
        " WHERE contype = 'f' AND conrelid <> confrelid"
    )
    for one, other in inside.execute(arrows):
        points[str(one)].add(str(other))
    return list(graphlib.TopologicalSorter(points).static_order())


def _pg_restore(url: str, dump: Path, order: list[str]) -> None:
    """The rows of our tables out of a dump, in that order; every other entry is left out."""
    listed = run_tool("pg_restore", "", "--list", str(dump))
    entries = {}
    for line in listed.splitlines():
        found = re.fullmatch(r"(\d+; \d+ \d+ TABLE DATA public (\w+) .*)", line)
        if found and found[2] in order:
            entries[found[2]] = found[1]
    with tempfile.NamedTemporaryFile("w", suffix=".list") as wanted:
        wanted.write("".join(f"{entries[table]}\n" for table in order if table in entries))
        wanted.flush()
        how = ("--data-only", "--no-owner", "--no-privileges", "--single-transaction", "--exit-on-error")
        run_tool("pg_restore", url, *how, "--use-list", wanted.name, str(dump))


def _set_sequences(inside: Connection, table: str) -> None:
    """Past the rows that came: what a sequence was at is no more than that."""
    owned = (
        "SELECT s.relname, a.attname FROM pg_depend d JOIN pg_class s ON s.oid = d.objid AND s.relkind = 'S'"
        " JOIN pg_attribute a ON a.attrelid = d.refobjid AND a.attnum = d.refobjsubid WHERE d.refobjid = %s::regclass"
    )
    for sequence, column in inside.execute(owned, (f"public.{table}",)).fetchall():
        of, by = sql.Identifier(table), sql.Identifier(str(column))
        inside.execute(
            sql.SQL("SELECT setval({}::regclass, coalesce((SELECT max({}) FROM {}), 0) + 1, false)").format(
                sql.Literal(f"public.{sequence}"), by, of
            )
        )


def _count(inside: Connection, table: str) -> int:
    row = inside.execute(sql.SQL("SELECT count(*) FROM {}").format(sql.Identifier(table))).fetchone()
    return int(str(row[0])) if row else 0


def _end_sessions(url: str) -> None:
    with psycopg.connect(url) as inside:
        if inside.execute("SELECT to_regclass('public.sign_in')").fetchone() != (None,):
            inside.execute("UPDATE sign_in SET ended_at = now(), ended_why = 'restored' WHERE ended_at IS NULL")


def _upgrade(url: str, revision: str) -> None:
    from alembic import command

    engine = engine_from(url)
    command.upgrade(alembic_config(engine), revision)
    engine.dispose()


def _hand_over(server: Connection, target: Target, new: str, loader: str) -> None:
    """From the role that read it in to the one that owns it every day."""
    owner = sql.Identifier(user_of(target.owner_url))
    with psycopg.connect(at(target.maker_url, new), autocommit=True) as inside:
        inside.execute(sql.SQL("REASSIGN OWNED BY {} TO {}").format(sql.Identifier(loader), owner))
    server.execute(sql.SQL("ALTER DATABASE {} OWNER TO {}").format(sql.Identifier(new), owner))


def _has_people(server: Connection, target: Target) -> bool | None:
    """None: there is no such database."""
    if not exists(server, target.name):
        return None
    with psycopg.connect(at(target.maker_url, target.name), connect_timeout=10) as found:
        if found.execute("SELECT to_regclass('public.person')").fetchone() == (None,):
            return False
        return found.execute("SELECT 1 FROM person LIMIT 1").fetchone() is not None


def _in_use(server: Connection, name: str) -> bool:
    """By clients: PostgreSQL's own cleaning does not count, nor a connection that is just closing."""
    held = "SELECT 1 FROM pg_stat_activity WHERE datname = %s AND backend_type = 'client backend' LIMIT 1"
    for _ in range(20):
        if server.execute(held, (name,)).fetchone() is None:
            return False
        time.sleep(0.1)
    return True
