"""Fifty people at work for two minutes, with strangers' wide searches beside them: errors and how long the record takes to answer.

    python -m bench.load [people=50] [seconds=120]

Runs bin/start in a state folder of its own. Each person opens Floor, drives, logs, computes sheets, and makes a new
machine now and then, with a pause of one to three seconds between two taps. Prints counts, and quantiles by sort of route.
"""

import random
import sys
import tempfile
import threading
import time
import uuid
from collections import defaultdict
from pathlib import Path
from typing import Any

from bench import kills
from bench.kills import Client, Start

TAP_S = (1.0, 3.0)  # between two taps of one person
SECONDS: dict[str, list[float]] = defaultdict(list)
TROUBLE: list[str] = []
WIDE = {"size": {"quantities": {"power": {"text": "10 hp"}, "driver_speed": {"text": "1750"}, "driven_speed": {"text": "600"},
                                "centre_low": {"text": "5 in"}, "centre_high": {"text": "100 in"}},
                 "words": {"driven_class": "light", "tolerance": "20"}, "families": ["v-belt", "synchronous", "roller chain", "flat belt"]}}  # fmt: skip


def timed(sort: str, ask: Any) -> Any:
    """Ask and note how long it took, and what went wrong."""
    began = time.monotonic()
    try:
        return ask()
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
        if random.random() < 0.3:
            new = {
                "id": str(uuid.uuid4()),
                "name": "Drive",
                "machine_id": str(uuid.uuid4()),
                "machine_name": f"Load {uuid.uuid4().hex[:10]}",
            }
            headers = {"X-CSRFToken": client.token, "Idempotency-Key": str(uuid.uuid4())}
            timed("record", lambda n=new, h=headers: client.once("POST", f"/api/sites/{client.site}/drives", n, h))


def stranger(until: float) -> None:
    """Wide searches, one after the other."""
    client = Client.__new__(Client)
    Client.anonymous(client)
    while time.monotonic() < until:
        timed("stranger's search", lambda: client.once("POST", "/api/calc/size", WIDE))


def main(people: int, seconds: float) -> None:
    """Run it."""
    random.seed(1)
    state = Path(tempfile.mkdtemp(prefix="tuyere-load-"))
    state.chmod(0o711)
    start = Start(state)
    Client()
    until = time.monotonic() + seconds
    threads = [threading.Thread(target=person, args=(until,)) for _ in range(people)]
    threads += [threading.Thread(target=stranger, args=(until,)) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    print(f"{people} people, {seconds:.0f} s, 4 strangers searching without a pause; errors: {len(TROUBLE)}")
    for sort, waits in sorted(SECONDS.items()):
        waits.sort()
        quantiles = ", ".join(f"p{q} {1000 * waits[min(len(waits) - 1, len(waits) * q // 100)]:.0f} ms" for q in (50, 95, 99))
        print(f"{sort}: {len(waits)} requests, {quantiles}, most {1000 * waits[-1]:.0f} ms")
    for line in TROUBLE[:5]:
        print(line)
    start.stop()
    p95 = SECONDS["record"][len(SECONDS["record"]) * 95 // 100]
    if TROUBLE or p95 > 0.3:
        sys.exit(1)


if __name__ == "__main__":
    kills.random.seed(1)
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 50, float(sys.argv[2]) if len(sys.argv) > 2 else 120)
