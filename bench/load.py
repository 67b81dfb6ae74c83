"""Fifty people at work for two minutes, with strangers' wide searches beside them: errors and how long the record takes to answer.

    python -m bench.load [people=50] [seconds=120]

Runs bin/start in a state folder of its own. Each person opens Floor, drives, logs, jobs and photographs, computes sheets, does a step of
a job, and makes a new machine or sends a photograph now and then, with a pause of one to three seconds between two taps. Prints counts,
and quantiles by sort of route.
"""

import json
import random
import statistics
import sys
import tempfile
import threading
import time
import urllib.error
import uuid
from collections import defaultdict
from pathlib import Path
from typing import Any

from bench import kills
from bench.kills import PICTURE, Client, Start

MOST_S = {"record": 0.3, "sheet": 0.6}  # at p95, on two quiet cores
TAP_S = (1.0, 3.0)  # between two taps of one person
SECONDS: dict[str, list[float]] = defaultdict(list)
TROUBLE: list[str] = []
WIDE = {
    "size": {
        "quantities": {
            "power": {"text": "10 hp"},
            "driver_speed": {"text": "1750"},
            "driven_speed": {"text": "600"},
            "centre_low": {"text": "5 in"},
            "centre_high": {"text": "100 in"},
        },
        "words": {"driven_class": "light", "tolerance": "20"},
        "families": ["v-belt", "synchronous", "roller chain", "flat belt"],
    }
}


def timed(sort: str, ask: Any) -> Any:
    """Ask and note how long it took, and what went wrong."""
    began = time.monotonic()
    try:
        return ask()
    except urllib.error.HTTPError as refusal:
        if refusal.code not in (409, 422):  # two hands at one step: a sentence, as it should be
            TROUBLE.append(f"{sort}: {refusal.code} {refusal.read().decode()[:200]}")
        return None
    except Exception as error:
        TROUBLE.append(f"{sort}: {error}")
        return None
    finally:
        SECONDS[sort].append(time.monotonic() - began)


def person(until: float) -> None:
    """One person's work."""
    client = Client()
    floor = client.ask("GET", f"/api/sites/{client.site}/floor")
    while time.monotonic() < until:
        drive = random.choice(floor["drives"])["id"]
        floor = timed("record", lambda: client.once("GET", f"/api/sites/{client.site}/floor")) or floor
        time.sleep(random.uniform(*TAP_S))
        seen = timed("record", lambda d=drive: client.once("GET", f"/api/drives/{d}"))
        time.sleep(random.uniform(*TAP_S))
        if seen:
            timed("sheet", lambda s=seen: client.once("POST", "/api/calc/sheet", {"family": s["family"], "survey": s["survey"]}))
        timed("record", lambda d=drive: client.once("GET", f"/api/drives/{d}/log"))
        time.sleep(random.uniform(*TAP_S))
        at_job(client, drive)
        time.sleep(random.uniform(*TAP_S))
        if random.random() < 0.2:
            photo = f"/api/drives/{drive}/photos?id={uuid.uuid4()}"
            timed("photograph sent", lambda p=photo: client.once("POST", p, PICTURE, headers(client)))
        if random.random() < 0.3:
            new = {
                "id": str(uuid.uuid4()),
                "name": "Drive",
                "machine_id": str(uuid.uuid4()),
                "machine_name": f"Load {uuid.uuid4().hex[:10]}",
            }
            timed("record", lambda n=new: client.once("POST", f"/api/sites/{client.site}/drives", n, headers(client)))


def headers(client: Client) -> dict[str, str]:
    return {"X-CSRFToken": client.token, "Idempotency-Key": str(uuid.uuid4())}


def at_job(client: Client, drive: str) -> None:
    """The drive's jobs; the next step of one under way, or a new one begun; and the photographs there."""
    jobs = timed("record", lambda: client.once("GET", f"/api/drives/{drive}/jobs"))
    time.sleep(random.uniform(*TAP_S))
    if jobs and jobs["open"]:
        job = jobs["open"][0]["id"]
        told = timed("record", lambda: client.once("GET", f"/api/jobs/{job}"))
        time.sleep(random.uniform(*TAP_S))
        if told and told["next"]:
            step = {"step": told["next"], "standing": "passed", "words": "by the load"}
            timed("record", lambda: client.once("POST", f"/api/jobs/{job}/steps", step, headers(client)))
    elif jobs:
        begun = {"id": str(uuid.uuid4()), "kind": "own", "asked": {}}
        timed("record", lambda: client.once("POST", f"/api/drives/{drive}/jobs", begun, headers(client)))
    time.sleep(random.uniform(*TAP_S))
    shown = timed("record", lambda: client.once("GET", f"/api/drives/{drive}/photos"))
    for photo in shown["photos"][:4] if shown else []:
        timed("record", lambda p=photo["id"]: client.once("GET", f"/api/photos/{p}/picture?size=small"))


def stranger(until: float) -> None:
    """Wide searches, one after the other."""
    client = Client.__new__(Client)
    Client.anonymous(client)
    while time.monotonic() < until:
        timed("stranger's search", lambda: client.once("POST", "/api/calc/size", WIDE))


def main(people: int, seconds: float) -> bool:
    """Run it, and end what it started; whether all went well."""
    random.seed(1)
    state = Path(tempfile.mkdtemp(prefix="tuyere-load-"))
    state.chmod(0o711)
    start = Start(state)
    try:
        Client()
        until = time.monotonic() + seconds
        threads = [threading.Thread(target=person, args=(until,), daemon=True) for _ in range(people)]
        threads += [threading.Thread(target=stranger, args=(until,), daemon=True) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        busy(state / "server.log")
    finally:
        start.stop()
    print(f"{people} people, {seconds:.0f} s, 4 strangers searching without a pause; errors: {len(TROUBLE)}")
    well = not TROUBLE
    for sort, waits in sorted(SECONDS.items()):
        waits.sort()
        quantiles = ", ".join(f"p{q} {1000 * _quantile(waits, q):.0f} ms" for q in (50, 95, 99))
        most = MOST_S.get(sort)
        well = well and (most is None or _quantile(waits, 95) < most)
        print(
            f"{sort}: {len(waits)} requests, {quantiles}, most {1000 * waits[-1]:.0f} "
            f"ms{f' (p95 wanted: {1000 * most:.0f})' if most else ''}"
        )
    for line in TROUBLE[:5]:
        print(line)
    return well


def busy(log: Path) -> None:
    """Which routes the processes were at work for, by the server's own log."""
    spent: dict[str, list[float]] = defaultdict(list)
    for line in log.read_text().splitlines():
        if '"answered"' in line:
            told = json.loads(line)
            spent[f"{told['method']} {told['route']}"].append(told["ms"] - told["waited_ms"])
    for route, ms in sorted(spent.items(), key=lambda item: -sum(item[1]))[:8]:
        print(f"at work {sum(ms) / 1000:.0f} s over {len(ms)}: {route}, {statistics.median(ms):.0f} ms median")


def _quantile(waits: list[float], percent: int) -> float:
    return waits[min(len(waits) - 1, len(waits) * percent // 100)]


if __name__ == "__main__":
    kills.random.seed(1)
    sys.exit(0 if main(int(sys.argv[1]) if len(sys.argv) > 1 else 50, float(sys.argv[2]) if len(sys.argv) > 2 else 120) else 1)
