"""Before serving: make the database if it is missing, migrate, load the demo plant or print a first lead's code."""

import os
import sys

import psycopg
from psycopg import sql
from sqlmodel import Session

from tuyere.demo.load import load_demo
from tuyere.store import people
from tuyere.store.database import engine_from, migrate, url_from_environment


def make_database(url: str) -> None:
    """Create the database that `url` names, when the server has none of that name."""
    base, _, name = url.rpartition("/")
    name = name.partition("?")[0]
    try:
        psycopg.connect(url, connect_timeout=10).close()
    except psycopg.OperationalError as error:
        if "does not exist" not in str(error):
            raise
        with psycopg.connect(f"{base}/postgres", autocommit=True) as connection:
            connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(name)))


def main() -> int:
    """Prepare the plant named in the environment."""
    try:
        url = url_from_environment()
        make_database(url)
    except (RuntimeError, psycopg.Error) as error:
        print(f"Tuyere: the database cannot be used: {str(error).strip()}", file=sys.stderr)
        return 1
    engine = engine_from(url)
    migrate(engine)
    with Session(engine) as session:
        if os.environ.get("TUYERE_DEMO") == "1":
            if people.plant_is_empty(session):
                print("Loading the demo plant ...", file=sys.stderr)
                load_demo(engine)
        elif code := people.issue_first_lead_code(session):
            print(f"\n  First start of this plant. One-time code to make its first lead: {code}\n", file=sys.stderr)
    return 0


if __name__ == "__main__":
    sys.exit(main())
