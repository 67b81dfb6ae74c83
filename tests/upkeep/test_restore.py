"""Backup and restore: every row comes back, and a file that wants more than that gets nothing."""

import gzip
import hashlib
import os
import subprocess
import sys
import uuid
import zipfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NamedTuple
from urllib.parse import quote, urlsplit, urlunsplit

import psycopg
import pytest

from tests.conftest import SECRET
from tuyere.upkeep.archive import DUMP, MANIFEST, Manifest
from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.owners import at
from tuyere.upkeep.prepare import prepare


class Own(NamedTuple):
    """A cluster and its state folder."""

    state: Path
    cluster: Cluster


KEY = "a key of the site's own, long enough"


def tool(own: Own, *words: str, **environment: str) -> subprocess.CompletedProcess[str]:
    command = [sys.executable, "-m", "tuyere.upkeep.backup", *words]
    clean = {k: v for k, v in os.environ.items() if k != "DATABASE_URL"}
    given = clean | {"TUYERE_STATE": str(own.state), **environment}
    return subprocess.run(command, env=given, capture_output=True, text=True, check=False)


@pytest.fixture(scope="module")
def own(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Own]:
    """A cluster of its own, as a start makes it, with the demo plant in it: a restore closes databases that are not the plant's."""
    state = tmp_path_factory.mktemp("cluster")
    for parent in (state, *state.parents[:3]):
        parent.chmod(0o711)
    cluster = Cluster(data_folder(state), state, "-c fsync=off")
    with cluster.lease():
        cluster.start()
        prepare(cluster.owner_url("tuyere_demo"), SECRET, True, "", cluster.url("tuyere_demo"))
        yield Own(state, cluster)


@pytest.fixture(scope="module")
def source(own: Own) -> str:
    """A plant to back up."""
    return own.cluster.url("tuyere_demo")


@pytest.fixture(scope="module")
def backup(own: Own, tmp_path_factory: pytest.TempPathFactory) -> Path:
    file = tmp_path_factory.mktemp("backup") / "plant.backup"
    saved = tool(own, "save", "--demo", str(file))
    assert saved.returncode == 0, saved.stderr
    assert file.stat().st_mode & 0o077 == 0
    return file


@pytest.fixture
def target(own: Own) -> str:
    """A living plant to restore over."""
    with psycopg.connect(own.cluster.url("postgres"), autocommit=True) as server:
        for (old,) in server.execute("SELECT datname FROM pg_database WHERE datname LIKE 'tuyere_plant%'").fetchall():
            server.execute(f'DROP DATABASE "{old}" WITH (FORCE)')  # type: ignore[call-overload]
        server.execute("CREATE DATABASE tuyere_plant TEMPLATE tuyere_demo OWNER tuyere_owner")
        server.execute("REVOKE ALL ON DATABASE tuyere_plant FROM PUBLIC")
    return own.cluster.url("tuyere_plant")


def rows(url: str) -> dict[str, Any]:
    """Tables with a count and a sum over all their rows' text; sessions do not come back, so they are left out."""
    found = {}
    with psycopg.connect(url) as connection:
        tables = connection.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename <> 'sign_in'").fetchall()
        for (table,) in tables:
            count = connection.execute(f"SELECT count(*), coalesce(sum(hashtextextended(t::text, 0)), 0) FROM {table} t")  # type: ignore[call-overload]
            found[table] = count.fetchone()
    return found


def server_of(url: str) -> dict[str, Any]:
    """The roles of a server that are not those of other tests, and the databases of this one."""
    own = urlsplit(url).path.strip("/")
    with psycopg.connect(at(url, "postgres")) as server:
        roles = server.execute("SELECT rolname, rolsuper FROM pg_roles WHERE rolname LIKE %s OR rolname LIKE 'evil%%'", (f"{own}%",))
        databases = server.execute("SELECT datname FROM pg_database WHERE datname LIKE %s", (f"{own}%",))
        return {"roles": sorted(roles.fetchall()), "databases": sorted(databases.fetchall())}


def test_every_row_comes_back_and_the_one_that_was_there_is_put_aside(
    own: Own, backup: Path, source: str, target: str, tmp_path: Path
) -> None:
    before = server_of(target)
    refused = tool(own, "restore", str(backup))
    assert refused.returncode == 1 and "add --replace" in refused.stderr and server_of(target) == before
    broken = tmp_path / "broken.backup"
    broken.write_bytes(backup.read_bytes()[: backup.stat().st_size // 2])
    halved = tool(own, "restore", "--replace", str(broken))
    assert halved.returncode == 1 and "could not be read as a backup" in halved.stderr and server_of(target) == before
    with psycopg.connect(target) as living:
        living.execute("UPDATE machine SET place = 'the yard'")
    done = tool(own, "restore", "--replace", str(backup))
    assert done.returncode == 0 and "_before_" in done.stderr, done.stderr
    assert rows(target) == rows(source)
    after = server_of(target)
    assert after["roles"] == before["roles"] and len(after["databases"]) == len(before["databases"]) + 1
    with psycopg.connect(target) as restored:  # what is written next gets a number of its own
        restored.execute(
            "INSERT INTO audit_entry (at, action, subject_table, subject_id, changes) VALUES (now(), 'tried', 'site', %s, '{}')",
            (uuid.uuid4(),),
        )
        assert restored.execute("SELECT count(*) FROM sign_in WHERE ended_at IS NULL").fetchone() == (0,)


def changed(backup: Path, to: Path, dump: bytes, key: str = "") -> Path:
    """The backup with another dump in it, its manifest put right as a forger would."""
    with zipfile.ZipFile(backup) as packed:
        manifest = Manifest.model_validate_json(packed.read(MANIFEST))
    told = manifest.model_copy(update={"sha256": hashlib.sha256(dump).hexdigest(), "size": len(dump)})
    if key:
        told = told.model_copy(update={"signature": told.signed_with(key.encode())})
    with zipfile.ZipFile(to, "w") as packed:
        packed.writestr(MANIFEST, told.model_dump_json())
        packed.writestr(DUMP, dump)
    return to


def dump_of(backup: Path) -> bytes:
    with zipfile.ZipFile(backup) as packed:
        return packed.read(DUMP)


def with_statement(dump: bytes, statement: str) -> bytes:
    """The dump, with another statement in place of the one that brings the answers in: it runs whatever is written there."""
    start = dump.index(b"COPY public.reading (")
    end = dump.index(b"FROM stdin;\n", start) + len(b"FROM stdin;\n")
    assert len(statement) <= end - start
    return dump[:start] + statement.encode().ljust(end - start) + dump[end:]


ATTACKS = {
    "a program of the server": "COPY (SELECT 1) TO PROGRAM 'touch {marker}';",
    "a role of its own": "COMMIT; CREATE ROLE evil_{id} SUPERUSER;",
    "the living database emptied": "COMMIT; \\connect {living}\nDELETE FROM person;",
    "a table emptied": "COMMIT; DELETE FROM reading_value;",
    # With the rows themselves, so that nothing fails on the way: what was done beside them is found.
    "a function left behind": "CREATE FUNCTION public.evil() RETURNS int LANGUAGE sql AS 'SELECT 1'; COPY public.reading FROM stdin;",
    "a rule left behind": "CREATE RULE evil AS ON INSERT TO public.site DO ALSO NOTHING; COPY public.reading FROM stdin;",
    "a setting left behind": "ALTER ROLE CURRENT_USER SET search_path = evil; COPY public.reading FROM stdin;",
    "a table left behind": "CREATE TABLE public.evil (n int); COPY public.reading FROM stdin;",
    "rows taken away": "DELETE FROM public.membership; COPY public.reading FROM stdin;",
    "a file of the client": "\\! touch {marker}",
}


@pytest.mark.parametrize("attack", ATTACKS)
def test_what_a_file_says_is_not_done(own: Own, backup: Path, target: str, tmp_path: Path, attack: str) -> None:
    marker, mark = Path(f"/tmp/tuyere-{uuid.uuid4().hex[:8]}"), uuid.uuid4().hex[:6]
    statement = ATTACKS[attack].format(marker=marker, id=mark, living=urlsplit(target).path.strip("/"))
    file = changed(backup, tmp_path / "evil.backup", with_statement(dump_of(backup), statement))
    before, living = server_of(target), rows(target)
    done = tool(own, "restore", "--replace", str(file))
    assert done.returncode == 1 and "Traceback" not in done.stderr, done.stderr
    assert not marker.exists() and rows(target) == living and server_of(target) == before
    if statement.endswith("FROM stdin;"):
        assert "more than bring rows back" in done.stderr or "not all the rows" in done.stderr, done.stderr


@pytest.mark.parametrize("attack", ["a program of the server", "the living database emptied", "a file of the client"])
def test_an_older_backup_is_read_as_rows_alone(own: Own, source: str, target: str, tmp_path: Path, attack: str) -> None:
    """As it was made before: PostgreSQL's dump as SQL, compressed. What stands in it beside the rows is not run."""
    marker = Path(f"/tmp/tuyere-{uuid.uuid4().hex[:8]}")
    plain = _plain(source)
    statement = ATTACKS[attack].format(marker=marker, id="old", living=urlsplit(target).path.strip("/"))
    middle = plain.index(b"COPY public.reading (")
    file = tmp_path / "old.sql.gz"
    file.write_bytes(gzip.compress(plain[:middle] + statement.encode() + b"\n" + plain[middle:], 1))
    before = server_of(target)
    unasked = tool(own, "restore", "--replace", str(file))
    assert unasked.returncode == 1 and "no hashes" in unasked.stderr and "add --older" in unasked.stderr
    done = tool(own, "restore", "--replace", "--older", str(file))
    assert done.returncode == 0, done.stderr
    assert not marker.exists() and rows(target) == rows(source) and server_of(target)["roles"] == before["roles"]


_DUMPED: dict[str, bytes] = {}


def _plain(url: str) -> bytes:
    if url not in _DUMPED:
        from tuyere.upkeep.postgres_tools import run_tool

        _DUMPED[url] = run_tool("pg_dump", url, "--no-owner", "--no-privileges").encode()
    return _DUMPED[url]


def test_hash_and_signature_are_held_to(own: Own, backup: Path, source: str, target: str, tmp_path: Path) -> None:
    signed = tmp_path / "signed.backup"
    assert "signed)" in tool(own, "save", "--demo", str(signed), TUYERE_BACKUP_KEY=KEY).stderr
    dump, before = dump_of(signed), rows(target)
    bent = tmp_path / "bent.backup"
    with zipfile.ZipFile(signed) as packed, zipfile.ZipFile(bent, "w") as to:
        to.writestr(MANIFEST, packed.read(MANIFEST))
        to.writestr(DUMP, dump[:-1] + bytes([dump[-1] ^ 1]))
    for file, key, says in (
        (bent, "", "does not fit the hash"),
        (backup, KEY, "is not signed"),
        (signed, "another key of another site", "signed with another key"),
        (changed(signed, tmp_path / "forged.backup", dump + b"x"), KEY, "signed with another key"),
    ):
        done = tool(own, "restore", "--replace", str(file), TUYERE_BACKUP_KEY=key)
        assert done.returncode == 1 and says in done.stderr, done.stderr
    assert rows(target) == before
    assert tool(own, "restore", "--replace", str(signed), TUYERE_BACKUP_KEY=KEY).returncode == 0


def test_a_newer_backup_and_one_of_somebody_elses_are_sentences(own: Own, backup: Path, target: str, tmp_path: Path) -> None:
    with zipfile.ZipFile(backup) as packed:
        manifest = Manifest.model_validate_json(packed.read(MANIFEST))
    newer = tmp_path / "newer.backup"
    with zipfile.ZipFile(newer, "w") as to:
        to.writestr(MANIFEST, manifest.model_copy(update={"revision": "9999"}).model_dump_json())
        to.writestr(DUMP, dump_of(backup))
    other = tmp_path / "other.zip"
    with zipfile.ZipFile(other, "w") as to:
        to.writestr("notes.txt", "belts")
    for file, says in ((newer, "newer Tuyere"), (other, "is no backup of Tuyere's")):
        done = tool(own, "restore", "--replace", str(file))
        assert done.returncode == 1 and says in done.stderr, done.stderr


def test_in_a_database_kept_by_others_an_owner_that_is_no_superuser_can_restore(own: Own, backup: Path, target: str, source: str) -> None:
    """It may make databases and roles, no more; one that may not is told so; and what is not ours to close is named, not closed."""
    role, name, others = (f"{word}_{uuid.uuid4().hex[:6]}" for word in ("keeper", "kept", "others"))
    place = urlsplit(target).netloc.rpartition("@")[2]
    url = urlunsplit(urlsplit(target)._replace(netloc=f"{quote(role)}:secret@{place}", path=f"/{name}"))
    with psycopg.connect(at(target, "postgres"), autocommit=True) as server:
        for statement in (
            f"CREATE ROLE {role} LOGIN PASSWORD 'secret'",
            f"GRANT CONNECT ON DATABASE postgres TO {role}",
            f"CREATE DATABASE {others}",
        ):
            server.execute(statement)  # type: ignore[call-overload]
        poor = tool(own, "restore", str(backup), DATABASE_URL=url)
        assert poor.returncode == 1 and "CREATEDB and CREATEROLE" in poor.stderr, poor.stderr
        server.execute(f"ALTER ROLE {role} CREATEDB CREATEROLE")  # type: ignore[call-overload]
        beside = tool(own, "restore", str(backup), DATABASE_URL=url)
        assert beside.returncode == 1 and f"could connect to {others} too" in beside.stderr, beside.stderr
        open_still = "SELECT has_database_privilege(%s, %s, 'CONNECT')"
        assert server.execute(open_still, (role, others)).fetchone() == (True,), "it is others' and stays as it was"
        server.execute(f"REVOKE CONNECT ON DATABASE {others} FROM PUBLIC")  # type: ignore[call-overload]
        done = tool(own, "restore", str(backup), DATABASE_URL=url)
        assert done.returncode == 0, done.stderr
        assert rows(url) == rows(source)
        for statement in (
            f"DROP DATABASE {name}",
            f"DROP DATABASE {others}",
            f"REVOKE CONNECT ON DATABASE postgres FROM {role}",
            f"DROP ROLE {role}",
        ):
            server.execute(statement)  # type: ignore[call-overload]
