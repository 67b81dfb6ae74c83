"""Take the second factors of a person who lost them off, on the server: bin/reset-factor [--demo | --own-plant] NAME."""

import argparse
import os
import sys
from pathlib import Path

import psycopg
from sqlalchemy.exc import DBAPIError
from sqlmodel import Session

from tuyere.store import factors, people
from tuyere.store.address import plain_url
from tuyere.store.database import engine_from
from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.said import GivingUp, say


def main() -> int:
    """What bin/reset-factor runs. Tuyere may run meanwhile."""
    parser = argparse.ArgumentParser(prog="bin/reset-factor", description="Take the second factors of a person who lost them off.")
    which = parser.add_mutually_exclusive_group()
    which.add_argument("--demo", action="store_true", help="the demo plant")
    which.add_argument("--own-plant", action="store_true", help="the plant of your own (as without any word)")
    parser.add_argument("name", help="the name they sign in by")
    words = parser.parse_args()
    state, given = Path(os.environ["TUYERE_STATE"]).resolve(), os.environ.get("DATABASE_URL", "")
    try:
        if given:
            _reset(plain_url(given), words.name)
        else:
            cluster = Cluster(data_folder(state), state)
            with cluster.lease():
                cluster.start()
                _reset(cluster.owner_url("tuyere_demo" if words.demo else "tuyere_plant"), words.name)
    except (GivingUp, RuntimeError, psycopg.Error, DBAPIError) as reason:
        say(f"Tuyere: {str(getattr(reason, 'orig', reason)).strip()}")
        return 1
    return 0


def _reset(url: str, name: str) -> None:
    engine = engine_from(url)
    with Session(engine) as session:
        person = people.find_person(session, name)
        if person is None:
            raise GivingUp(f"nobody signs in by the name “{name}”.")
        factors.reset(session, person)
        say(f"{person.name} has no second factor now, and is signed out everywhere. The next sign-in goes by the passphrase.")
    engine.dispose()


if __name__ == "__main__":
    sys.exit(main())
