"""Back a plant up into one file, and bring it back.

python -m tuyere.upkeep.backup save [--demo | --own-plant] [FILE]
python -m tuyere.upkeep.backup restore [--demo | --own-plant] [--replace] [--older] FILE
"""

import argparse
import contextlib
import os
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

import psycopg
from psycopg import sql

from tuyere.store.address import plain_url
from tuyere.upkeep.archive import Manifest, pack, site_key
from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.owners import make_owner, name_of
from tuyere.upkeep.postgres_tools import run_tool
from tuyere.upkeep.restore import VERSIONS, Target, restore
from tuyere.upkeep.said import GivingUp, say


def save(url: str, file: Path, key: bytes) -> None:
    """Write everything in the database of `url` to `file`, as it stands at one moment. Raises GivingUp; a broken file is not left."""
    with tempfile.TemporaryDirectory(prefix="tuyere-backup-") as folder, psycopg.connect(url) as held:
        held.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY")
        moment = held.execute("SELECT pg_export_snapshot()").fetchone()
        found = held.execute(sql.SQL("SELECT version_num FROM {}").format(sql.Identifier(VERSIONS))).fetchone()
        tables = held.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename <> %s", (VERSIONS,)).fetchall()
        assert moment and found
        rows = {}
        for (table,) in tables:
            counted = held.execute(sql.SQL("SELECT count(*) FROM {}").format(sql.Identifier(table))).fetchone()
            assert counted
            rows[table] = counted[0]
        dump = Path(folder) / "plant.dump"
        words = ("--format=custom", "--no-owner", "--no-privileges", f"--snapshot={moment[0]}", f"--file={dump}")
        run_tool("pg_dump", url, *words)
        pack(dump, Manifest(plant=name_of(url), revision=found[0], rows=rows), key, file)


@contextlib.contextmanager
def _target(state: Path, name: str, given_url: str) -> Iterator[Target]:
    """The plant's database, its server held up while inside."""
    if given_url:
        url = plain_url(given_url)
        yield Target(url, url)
        return
    cluster = Cluster(data_folder(state), state)
    with cluster.lease():
        cluster.start()
        target = Target(cluster.owner_url(name), cluster.url(name))
        make_owner(target.maker_url, target.owner_url)  # a plant from before has none
        yield target


def main() -> int:
    """What bin/backup and bin/restore run."""
    parser = argparse.ArgumentParser(prog="bin/backup or bin/restore", description=__doc__.split("\n", 1)[0])
    parser.add_argument("what", choices=("save", "restore"), help=argparse.SUPPRESS)
    which = parser.add_mutually_exclusive_group()
    which.add_argument("--demo", action="store_true", help="the demo plant")
    which.add_argument("--own-plant", action="store_true", help="the plant of your own (as without any word)")
    parser.add_argument("--replace", action="store_true", help="restore: put the present database aside")
    parser.add_argument("--older", action="store_true", help="restore: a .sql.gz of an older Tuyere, which has no hashes; its rows alone")
    parser.add_argument("file", nargs="?", type=Path, help="the backup file")
    words = parser.parse_intermixed_args()
    state = Path(os.environ["TUYERE_STATE"]).resolve()
    name = "tuyere_demo" if words.demo else "tuyere_plant"
    key = site_key(state)
    try:
        if words.what == "restore" and not (words.file and words.file.is_file()):
            raise GivingUp("name the backup file to bring back: bin/restore FILE." if not words.file else f"there is no file {words.file}.")
        with _target(state, name, os.environ.get("DATABASE_URL", "")) as target:
            if words.what == "save":
                file = words.file or state / "backups" / f"{name}-{time.strftime('%Y%m%d-%H%M%S')}.backup"
                file.parent.mkdir(parents=True, exist_ok=True)
                save(target.maker_url, file, key)
                signed = "signed" if key else "not signed"
                say(f"Backed up to {file} ({file.stat().st_size / 1024:.0f} KB, {signed}). Keep a copy elsewhere, with {state}/secret-key.")
            else:
                aside = restore(target, words.file, words.replace, key, words.older)
                say(f"Brought back from {words.file}." + (f" The database that was there is now {aside}." if aside else ""))
    except (GivingUp, RuntimeError, psycopg.Error, OSError) as reason:
        say(f"Tuyere: {str(reason).strip()}")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
