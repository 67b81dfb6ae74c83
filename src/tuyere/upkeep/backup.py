"""Back a plant up into one file, and bring it back: PostgreSQL's own dump, as plain SQL, compressed.

python -m tuyere.upkeep.backup save [--demo | --own-plant] [FILE]
python -m tuyere.upkeep.backup restore [--demo | --own-plant] [--replace] FILE
"""

import argparse
import contextlib
import gzip
import os
import shutil
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from urllib.parse import unquote, urlsplit, urlunsplit

import psycopg
from psycopg import sql

from tuyere.store.address import plain_url
from tuyere.upkeep.cluster import Cluster, data_folder, postgres_bin
from tuyere.upkeep.said import GivingUp, say


def save(url: str, file: Path) -> None:
    """Write everything in the database of `url` to `file`, readable by its owner alone. Raises GivingUp; a broken file is not left."""
    making = file.with_name(file.name + ".making")
    with os.fdopen(os.open(making, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as raw, gzip.open(raw, "wb") as packed:
        process = _postgres("pg_dump", url, "--no-owner", "--no-privileges", stdout=subprocess.PIPE)
        assert process.stdout
        shutil.copyfileobj(process.stdout, packed)
        said = process.communicate()[1].decode()
    if process.returncode:
        making.unlink()
        raise GivingUp(f"the database could not be read: {said.strip()[-400:]}")
    making.rename(file)


def restore(url: str, file: Path, replace: bool) -> str:
    """Bring `file` back as the database of `url`; gives the name that an older one was put aside under, or nothing. Raises GivingUp.

    It is read into a new database first, in one transaction: a broken file changes nothing. Sessions of that time do not come back.
    """
    parts = urlsplit(url)
    name = parts.path.strip("/")
    new, aside = f"{name}_restoring", f"{name}_before_{time.strftime('%Y%m%d_%H%M%S')}"
    with psycopg.connect(urlunsplit(parts._replace(path="/postgres")), autocommit=True, connect_timeout=10) as server:
        there = _has_people(server, url, name)
        if there and not replace:
            raise GivingUp(f"the database {name} has people in it: to put it aside and bring the file back in its place, add --replace.")
        if _in_use(server, name):
            raise GivingUp(f"the database {name} is in use: stop Tuyere first.")
        server.execute(sql.SQL("DROP DATABASE IF EXISTS {}").format(sql.Identifier(new)))
        server.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(new)))
        try:
            _read_in(urlunsplit(parts._replace(path=f"/{new}")), file)
        except BaseException:
            server.execute(sql.SQL("DROP DATABASE {} WITH (FORCE)").format(sql.Identifier(new)))
            raise
        if there is not None:
            server.execute(sql.SQL("ALTER DATABASE {} RENAME TO {}").format(sql.Identifier(name), sql.Identifier(aside)))
        server.execute(sql.SQL("ALTER DATABASE {} RENAME TO {}").format(sql.Identifier(new), sql.Identifier(name)))
    return "" if there is None else aside


def _read_in(url: str, file: Path) -> None:
    process = _postgres("psql", url, "-X", "-q", "-1", "-v", "ON_ERROR_STOP=1", stdin=subprocess.PIPE, stdout=subprocess.DEVNULL)
    assert process.stdin
    try:
        with gzip.open(file) as packed:
            shutil.copyfileobj(packed, process.stdin)
    except (OSError, EOFError) as error:
        process.kill()
        process.communicate()
        raise GivingUp(f"{file} could not be read as a backup: {error}") from None
    said = process.communicate()[1].decode()
    if process.returncode:
        raise GivingUp(f"{file} could not be brought back: {said.strip()[-400:]}")
    with psycopg.connect(url) as connection:
        if connection.execute("SELECT to_regclass('public.sign_in')").fetchone() != (None,):
            connection.execute("UPDATE sign_in SET ended_at = now(), ended_why = 'restored' WHERE ended_at IS NULL")
        elif connection.execute("SELECT to_regclass('public.person')").fetchone() == (None,):
            raise GivingUp(f"{file} holds no plant.")


def _has_people(server: "psycopg.Connection[tuple[object, ...]]", url: str, name: str) -> bool | None:
    """None: there is no such database."""
    if server.execute("SELECT 1 FROM pg_database WHERE datname = %s", (name,)).fetchone() is None:
        return None
    with psycopg.connect(url, connect_timeout=10) as found:
        if found.execute("SELECT to_regclass('public.person')").fetchone() == (None,):
            return False
        return found.execute("SELECT 1 FROM person LIMIT 1").fetchone() is not None


def _in_use(server: "psycopg.Connection[tuple[object, ...]]", name: str) -> bool:
    """By clients: PostgreSQL's own cleaning does not count, nor a connection that is just closing."""
    held = "SELECT 1 FROM pg_stat_activity WHERE datname = %s AND backend_type = 'client backend' LIMIT 1"
    for _ in range(20):
        if server.execute(held, (name,)).fetchone() is None:
            return False
        time.sleep(0.1)
    return True


def _postgres(tool: str, url: str, *words: str, stdin: int | None = None, stdout: int | None = None) -> "subprocess.Popen[bytes]":
    """One of PostgreSQL's programs on a database; the password goes by the environment, where other users cannot see it."""
    parts = urlsplit(url)
    place = parts.netloc.rpartition("@")[2]
    bare = urlunsplit(parts._replace(netloc=f"{parts.username or ''}@{place}"))
    environment = os.environ | {"PGPASSWORD": unquote(parts.password or "")}
    command = [str(postgres_bin() / tool), *words, "--dbname", bare]
    return subprocess.Popen(command, env=environment, stdin=stdin, stdout=stdout, stderr=subprocess.PIPE)


@contextlib.contextmanager
def _database(state: Path, name: str, given_url: str) -> Iterator[str]:
    """The URL of the plant's database, its server held up while inside."""
    if given_url:
        yield plain_url(given_url)
        return
    cluster = Cluster(data_folder(state), state)
    with cluster.lease():
        cluster.start()
        yield cluster.url(name)


def main() -> int:
    """What bin/backup and bin/restore run."""
    parser = argparse.ArgumentParser(prog="bin/backup or bin/restore", description=__doc__.split("\n", 1)[0])
    parser.add_argument("what", choices=("save", "restore"), help=argparse.SUPPRESS)
    which = parser.add_mutually_exclusive_group()
    which.add_argument("--demo", action="store_true", help="the demo plant")
    which.add_argument("--own-plant", action="store_true", help="the plant of your own (as without any word)")
    parser.add_argument("--replace", action="store_true", help="restore: put the present database aside")
    parser.add_argument("file", nargs="?", type=Path, help="the backup file (.sql.gz)")
    words = parser.parse_intermixed_args()
    state = Path(os.environ["TUYERE_STATE"]).resolve()
    name = "tuyere_demo" if words.demo else "tuyere_plant"
    try:
        if words.what == "restore" and not (words.file and words.file.is_file()):
            raise GivingUp("name the backup file to bring back: bin/restore FILE." if not words.file else f"there is no file {words.file}.")
        with _database(state, name, os.environ.get("DATABASE_URL", "")) as url:
            if words.what == "save":
                file = words.file or state / "backups" / f"{name}-{time.strftime('%Y%m%d-%H%M%S')}.sql.gz"
                file.parent.mkdir(parents=True, exist_ok=True)
                save(url, file)
                say(f"Backed up to {file} ({file.stat().st_size / 1024:.0f} KB). Keep a copy elsewhere, with {state}/secret-key.")
            else:
                aside = restore(url, words.file, words.replace)
                say(f"Brought back from {words.file}." + (f" The database that was there is now {aside}." if aside else ""))
    except (GivingUp, RuntimeError, psycopg.Error, OSError) as reason:
        say(f"Tuyere: {str(reason).strip()}")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
