"""How drives stand, compared with their record or worked out again: bin/rebuild [--demo | --own-plant] [--all | --compare]."""

import argparse
import os
import sys
import time
from pathlib import Path

import psycopg
from sqlalchemy import Engine
from sqlalchemy.exc import DBAPIError
from sqlmodel import Session, select

from tuyere.record.state import compare, mark, rebuild
from tuyere.store.address import plain_url
from tuyere.store.database import engine_from
from tuyere.store.people_tables import Site
from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.said import GivingUp, say

STALE_URL = "TUYERE_STALE_AT"  # set by the keeper, whose database runs: what is stale is worked out, and nothing said


def main() -> int:
    """What bin/rebuild runs. Tuyere may run meanwhile."""
    if at := os.environ.get(STALE_URL):
        _rebuild(engine_from(at), everything=False)
        return 0
    parser = argparse.ArgumentParser(prog="bin/rebuild", description="Work out again how every drive stands, as the floor lists it.")
    which = parser.add_mutually_exclusive_group()
    which.add_argument("--demo", action="store_true", help="the demo plant")
    which.add_argument("--own-plant", action="store_true", help="the plant of your own (as without any word)")
    how = parser.add_mutually_exclusive_group()
    how.add_argument("--all", action="store_true", help="every drive, not only those whose rules, ratings or software changed")
    how.add_argument("--compare", action="store_true", help="change nothing: say where what is kept is not what the record says")
    words = parser.parse_args()
    state, given = Path(os.environ["TUYERE_STATE"]).resolve(), os.environ.get("DATABASE_URL", "")
    try:
        if given:
            return _run(plain_url(given), words.compare, words.all)
        cluster = Cluster(data_folder(state), state)
        with cluster.lease():
            cluster.start()
            return _run(cluster.owner_url("tuyere_demo" if words.demo else "tuyere_plant"), words.compare, words.all)
    except (GivingUp, RuntimeError, psycopg.Error, DBAPIError) as reason:
        say(f"Tuyere: {str(getattr(reason, 'orig', reason)).strip()}")
        return 1


def _run(url: str, only_compare: bool, everything: bool) -> int:
    engine = engine_from(url)
    began = time.monotonic()
    if only_compare:
        with Session(engine) as session:
            wrong = [line for site in session.exec(select(Site.id)).all() for line in compare(session, site)]
        say("\n".join(wrong) if wrong else "What is kept of every drive is what its record says.")
        return 1 if wrong else 0
    say(f"{_rebuild(engine, everything)} drives worked out again in {time.monotonic() - began:.0f} s.")
    return 0


def _rebuild(engine: Engine, everything: bool) -> int:
    with Session(engine) as session:
        mark(session)
        many = sum(rebuild(session, site, stale_only=not everything) for site in session.exec(select(Site.id)).all())
    engine.dispose()
    return many


if __name__ == "__main__":
    sys.exit(main())
