"""The record at a hundred drives and at ten thousand, side by side: python -m bench.scale [drives=10000] [readings a drive=200].

Loads the demo plant into two databases of a cluster of its own and multiplies it there by SQL: machines, drives, surveys, readings, findings,
dues and jobs, each copy with ids of its own. Works out how every drive stands, and prints for each question its p95 at both sizes, their
ratio, and the bytes on the wire. Wanted: each at most twice its small self, 150 ms at p95 on a quiet machine, 200 kB.
"""

import gc
import shutil
import statistics
import sys
import tempfile
import time
import uuid
from collections.abc import Callable
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, Uuid, text
from sqlmodel import Session

from tuyere.record.state import mark, rebuild
from tuyere.store.database import engine_from
from tuyere.store.every_table import METADATA
from tuyere.upkeep.cluster import Cluster
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

SMALL = 100
TIMES = 40
RATIO, MOST_S, MOST_BYTES = 2.0, 0.150, 200_000
SECRET = "scale" * 8
COPIED = (
    "machine",
    "drive",
    "configuration",
    "stage",
    "wheel",
    "reading",
    "reading_value",
    "finding",
    "due",
    "happened",
    "due_answer",
    "hour_reading",
    "belt_life",
    "job",
    "job_step",
)


def multiply(engine: Engine, drives: int, readings: int) -> None:
    """Copy the plant until there are so many drives, then its readings further back in time."""
    with engine.begin() as connection:
        have = connection.execute(text("SELECT count(*) FROM drive")).scalar_one()
        copies = max(0, -(-drives // have) - 1)
        for name in COPIED if copies else ():
            connection.execute(text(copied(name, "generate_series(1, :copies) AS n", "n::text")), {"copies": copies})
        read = connection.execute(text("SELECT count(*) FROM reading")).scalar_one()
        back = max(0, -(-readings * drives // read) - 1)
        if back:
            for name in ("reading", "reading_value"):
                connection.execute(text(copied(name, "generate_series(1, :back) AS n", "'back' || n", back=True)), {"back": back})
    with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("ANALYZE"))


def copied(name: str, series: str, salt: str, back: bool = False) -> str:
    """The statement that copies a table: every id that is copied too is a new one, made of the old and the number of the copy."""
    table, columns = METADATA.tables[name], []
    for c in table.columns:
        to = {f.column.table.name for f in c.foreign_keys}
        new = to & set(COPIED) - ({"drive", "configuration"} if back else set()) or (c.primary_key and not to and isinstance(c.type, Uuid))
        said = f"{name}.{c.name}"
        if new:
            said = f"CAST(md5({said}::text || {salt}) AS uuid)"
        elif (name, c.name) == ("machine", "name"):
            said = f"{said} || ' ' || n"
        elif back and c.name == "taken_at":
            said = f"{said} - n * interval '11 days'"
        columns.append((c.name, said))
    return f"INSERT INTO {name} ({', '.join(n for n, _ in columns)}) SELECT {', '.join(s for _, s in columns)} FROM {name}, {series}"


class Plant:
    """One size of it, and somebody signed in there."""

    def __init__(self, cluster: Cluster, drives: int, readings: int) -> None:
        owner = cluster.owner_url(f"scale_{drives}")
        served = prepare(owner, SECRET, demo=True, superuser_url=cluster.url(f"scale_{drives}"))
        engine = engine_from(owner)
        began = time.monotonic()
        multiply(engine, drives, readings)
        loaded = time.monotonic()
        with Session(engine) as session:
            self.site = session.execute(text("SELECT id FROM site")).scalar_one()
            mark(session)
            many = rebuild(session, self.site)
            self.counts = {t: session.execute(text(f"SELECT count(*) FROM {t}")).scalar_one() for t in ("drive", "reading", "finding")}
        print(
            f"{drives:>6} drives: loaded in {loaded - began:.0f} s, {many} worked out in {time.monotonic() - loaded:.0f} s, {self.counts}"
        )
        self.client = create_app(Settings(served, SECRET, demo=True, plant="scale")).test_client()
        session_ = self.client.get("/api/session").json
        ines = next(p for p in session_["demo_people"] if p["name"] == "Ines")
        entered = self.client.post(
            "/api/session/demo", json={"person_id": ines["id"]}, headers={"X-CSRFToken": session_["csrf_token"]}
        ).json
        self.token = entered["csrf_token"]
        floor = self.get(f"/api/sites/{self.site}/floor?limit=100").json
        self.drive = next(d["id"] for d in floor["drives"] if d["last_reading_at"])
        self.job = floor["next"]
        later = ""
        for _ in range(5):
            page = self.get(f"/api/sites/{self.site}/floor?limit=100&after={later}").json
            later = page["next"] or later
        self.later = later

    def get(self, path: str) -> Any:
        return self.client.get(path, headers={"Accept-Encoding": "gzip"} if "?gz" in path else {})

    def asked(self) -> dict[str, Callable[[], Any]]:
        """Each question, by name."""
        site, drive, gz = f"/api/sites/{self.site}", f"/api/drives/{self.drive}", {"Accept-Encoding": "gzip"}

        def ask(path: str) -> Callable[[], Any]:
            return lambda: self.client.get(path, headers=gz)

        def keep() -> Any:
            gauge = {"forces": [{"text": "6", "unit": "lbf"}] * 3, "belt_state": "run in"}
            body = {"id": str(uuid.uuid4()), "kind": "belt tension", "machine_state": "isolated", "gauge": gauge}
            key = {"X-CSRFToken": self.token, "Idempotency-Key": str(uuid.uuid4())}
            return self.client.post(f"{drive}/readings", json=body, headers=gz | key)

        return {
            "floor": ask(f"{site}/floor?limit=100"),
            "floor, a later page": ask(f"{site}/floor?limit=100&after={self.later}"),
            "floor, an area": ask(f"{site}/floor?limit=100&area=Yard"),
            "floor, searched": ask(f"{site}/floor?limit=100&find=b90+fan"),
            "dues of the site": ask(f"{site}/dues"),
            "jobs of the site": ask(f"{site}/jobs"),
            "machines by name": ask(f"{site}/machines?find=fan"),
            "a drive": ask(drive),
            "its log": ask(f"{drive}/log?limit=60"),
            "its jobs": ask(f"{drive}/jobs"),
            "a reading kept": keep,
        }


def measured(ask: Callable[[], Any]) -> tuple[float, int]:
    """p95 of its time (s), and the bytes of its answer."""
    took = []
    answer = ask()
    assert answer.status_code < 300, answer.json
    gc.collect()
    gc.freeze()  # as the processes that serve do: what the library of tables holds is never looked through again
    for _ in range(TIMES):
        began = time.perf_counter()
        answer = ask()
        took.append(time.perf_counter() - began)
    return statistics.quantiles(took, n=20)[18], len(answer.data)


def main(drives: int, readings: int) -> int:
    folder = Path(tempfile.mkdtemp(prefix="tuyere-scale-"))
    folder.chmod(0o711)
    try:
        cluster = Cluster(folder / "postgres", folder, "-c fsync=off -c synchronous_commit=off -c full_page_writes=off")
        with cluster.lease():
            cluster.start()
            small, large = (Plant(cluster, n, readings) for n in (SMALL, drives))
            print(f"\n{'':22}{'p95 ms':>18}{'ratio':>8}{'kB':>14}")
            bad = 0
            for name, ask in small.asked().items():
                (one, b1), (many, b2) = measured(ask), measured(large.asked()[name])
                wrong = many > max(RATIO * one, 0.02) or many > MOST_S or b2 > MOST_BYTES
                bad += wrong
                print(
                    f"{name:22}{1000 * one:9.1f}{1000 * many:9.1f}{many / one:8.2f}{b1 / 1000:7.1f}{b2 / 1000:7.1f}{'  !' if wrong else ''}"
                )
            return 1 if bad else 0
    finally:
        shutil.rmtree(folder, ignore_errors=True)


if __name__ == "__main__":
    given = [int(a) for a in sys.argv[1:]]
    sys.exit(main(*(given + [10_000, 200][len(given) :])))
