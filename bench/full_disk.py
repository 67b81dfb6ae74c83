"""A disk that is really full: what health says, what becomes of writes, what is started again, and what is there once there is room.

    python -m bench.full_disk [MB=900]

As root: the database's data lie on a disk of their own, in memory. It is filled to under the bound, then altogether, then emptied again,
while two people write. Prints for each stretch the answers of health and of life, what was acknowledged and refused; at the end what was
lost.
"""

import json
import os
import shutil
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from pathlib import Path

from bench.kills import ADDRESS, Client, Start

from tuyere.upkeep.cluster import Cluster, data_folder

KEPT: dict[str, str] = {}
SAID: Counter[str] = Counter()
DONE = threading.Event()


def status(path: str) -> str:
    """What is answered, and what it says is wrong."""
    try:
        with urllib.request.urlopen(ADDRESS + path, timeout=20) as answer:
            return str(answer.status)
    except urllib.error.HTTPError as refusal:
        told = json.loads(refusal.read())
        return f"{refusal.code} {' '.join(told.get('problems', []))}"
    except OSError:
        return "no answer"


def person() -> None:
    """Makes a drive again and again, each once; what was answered as kept is remembered."""
    client: Client | None = None
    while not DONE.is_set():
        drive, machine = str(uuid.uuid4()), f"Full {uuid.uuid4().hex[:8]}"
        new = {"id": drive, "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": machine}
        try:
            client = client or Client()
            client.once(
                "POST", f"/api/sites/{client.site}/drives", new, {"X-CSRFToken": client.token, "Idempotency-Key": str(uuid.uuid4())}
            )
            KEPT[drive] = machine
            SAID["kept"] += 1
        except urllib.error.HTTPError as refusal:
            SAID[f"refused {refusal.code}"] += 1
        except (OSError, RuntimeError):
            SAID["no answer"] += 1
        time.sleep(0.2)


def watch(words: str, seconds: float) -> None:
    """How it goes for so long."""
    SAID.clear()
    health, alive = Counter[str](), Counter[str]()
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        health[status("/api/health")] += 1
        alive[status("/api/alive")] += 1
        time.sleep(1)
    print(f"{words}: health {dict(health)}; alive {dict(alive)}; writes {dict(SAID)}", flush=True)


def fill(data: Path, left_mb: int) -> Path:
    """A file that leaves so many MB."""
    free = shutil.disk_usage(data).free // 1024**2
    ballast = data / "ballast"
    with ballast.open("ab") as file:
        for _ in range(max(0, free - left_mb) + (1 if left_mb == 0 else 0)):
            try:
                file.write(bytes(1024**2))
                file.flush()
            except OSError:
                break
    return ballast


def until_ready(seconds: float) -> None:
    """Raises SystemExit where it is not."""
    limit = time.monotonic() + seconds
    while status("/api/health") != "200":
        if time.monotonic() > limit:
            raise SystemExit("It does not come up.")
        time.sleep(1)


def onto_a_disk_of_its_own(data: Path, size_mb: int) -> None:
    """What lies in the folder, on a disk in memory that is mounted there."""
    aside = data.with_name(f"{data.name}.aside")
    data.rename(aside)
    data.mkdir()
    subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={size_mb}m", "tmpfs", str(data)], check=True)
    subprocess.run(["cp", "-a", f"{aside}/.", str(data)], check=True)
    shutil.chown(data, "postgres", "postgres")
    data.chmod(0o700)
    shutil.rmtree(aside)


def main() -> None:
    """Run it."""
    size = int(sys.argv[1]) if len(sys.argv) > 1 else 900
    if os.getuid() != 0:
        raise SystemExit("Only root can make a disk of its own for it.")
    state = Path(tempfile.mkdtemp(prefix="tuyere-full-"))
    state.chmod(0o711)
    data = data_folder(state)
    start = Start(state)
    try:
        until_ready(120)
        start.process.terminate()
        start.process.wait(60)
        onto_a_disk_of_its_own(data, size)
        start.run()
        until_ready(120)
        first = start.process.pid
        people = [threading.Thread(target=person, daemon=True) for _ in range(2)]
        for one in people:
            one.start()
        watch("room", 10)
        ballast = fill(data, 150)
        watch("under the bound", 10)
        fill(data, 0)
        watch("full", 60)
        ballast.unlink()
        emptied = time.monotonic()
        while status("/api/health") != "200" and time.monotonic() < emptied + 180:
            time.sleep(1)
        print(f"ready again {time.monotonic() - emptied:.0f} s after there was room (a refused write is told of for 60)")
        watch("room again", 10)
        DONE.set()
        client = Client()
        there = Counter(d["machine"] for d in client.ask("GET", f"/api/sites/{client.site}/floor")["drives"])
        lost, doubled = sum(not there[m] for m in KEPT.values()), sum(n > 1 for n in there.values() if n)
        print(
            f"acknowledged {len(KEPT)}, lost {lost}, doubled {doubled}; bin/start is "
            f"{'the first one' if start.process.pid == first and start.process.poll() is None else 'another'}"
        )
    finally:
        DONE.set()
        start.process.terminate()
        start.process.wait(60)
        Cluster(data, state).stop() if Cluster(data, state).runs() else None
        subprocess.run(["umount", "-l", str(data)], check=False)
        shutil.rmtree(data, ignore_errors=True)
        print(f"what was said meanwhile: {state}")


if __name__ == "__main__":
    main()
