"""Write sessions while worker, master, PostgreSQL and the start itself are killed at random: what was acknowledged, lost, doubled.

    python -m bench.kills [sessions=200] [seed=1] [what to kill, with commas]

Runs bin/start in a state folder of its own. A session signs in and makes three machines with a drive; each write is repeated with the
same Idempotency-Key until it is answered. Prints counts and how long after each kill the next write was answered.
"""

import contextlib
import http.client
import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.said import GivingUp

ROOT = Path(__file__).parents[1]
PORT = 8699
ADDRESS = f"http://127.0.0.1:{PORT}"
AT_ONCE = 4


class Client:
    """Signs in as a demo person and writes."""

    def __init__(self) -> None:
        self.anonymous()
        session = self.ask("GET", "/api/session")
        person = next(p for p in session["demo_people"] if p["role"] != "viewer")
        entered = self.ask("POST", "/api/session/demo", {"person_id": person["id"]}, {"X-CSRFToken": session["csrf_token"]})
        self.token, self.site = entered["csrf_token"], entered["sites"][0]["id"]

    def anonymous(self) -> None:
        """Somebody not signed in."""
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))

    def once(self, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> Any:
        """Ask once; any other answer than a good one is an error."""
        data = None if body is None else json.dumps(body).encode()
        wanted = urllib.request.Request(ADDRESS + path, data, {"Content-Type": "application/json", **(headers or {})}, method=method)
        with self.opener.open(wanted, timeout=60) as answer:
            return json.load(answer)

    def ask(self, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> Any:
        """Ask until it is answered for good."""
        limit = time.monotonic() + 60
        while True:
            try:
                return self.once(method, path, body, headers)
            except urllib.error.HTTPError as refusal:
                if refusal.code not in (429, 502, 503) or time.monotonic() > limit:
                    raise RuntimeError(f"{method} {path}: {refusal.code} {refusal.read().decode()[:300]}") from None
            except (OSError, http.client.HTTPException):
                if time.monotonic() > limit:
                    raise
            time.sleep(0.1)

    def write(self, path: str, body: dict[str, Any]) -> None:
        """A write, with one key however often it is repeated."""
        self.ask("POST", path, body, {"X-CSRFToken": self.token, "Idempotency-Key": str(uuid.uuid4())})
        ANSWERED.append(time.monotonic())


ANSWERED: list[float] = []
ACKNOWLEDGED: list[str] = []
FAILED: list[str] = []


def session(number: int) -> None:
    """One write session."""
    try:
        client = Client()
        for part in range(3):
            machine = f"Kills {number}.{part} {uuid.uuid4().hex[:6]}"
            new = {"id": str(uuid.uuid4()), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": machine}
            client.write(f"/api/sites/{client.site}/drives", new)
            ACKNOWLEDGED.append(machine)
            time.sleep(random.uniform(0, 2.5))
    except Exception as error:
        FAILED.append(f"session {number}: {error}")


def children(pid: int) -> list[int]:
    """The processes that a process began."""
    try:
        return [int(p) for task in Path(f"/proc/{pid}/task").iterdir() for p in (task / "children").read_text().split()]
    except OSError:
        return []


def named(what: str, pid: int) -> bool:
    """Whether a process was begun with that word."""
    try:
        return what.encode() in Path(f"/proc/{pid}/cmdline").read_bytes()
    except OSError:
        return False


class Start:
    """bin/start, run again whenever it ended."""

    def __init__(self, state: Path) -> None:
        self.state = state
        self.said = (state / "said.log").open("ab")
        self.run()

    def run(self) -> None:
        environment = os.environ | {"TUYERE_STATE": str(self.state), "PORT": str(PORT)}
        self.process = subprocess.Popen([ROOT / "bin" / "start"], env=environment, stderr=self.said, stdout=self.said)

    def kill(self, what: str) -> bool:
        """Kill -9 one of them; whether there was one."""
        ours = children(self.process.pid)
        master = [p for p in ours if named("gunicorn", p)]
        front = [p for m in master for p in children(m) if named("gunicorn", p)]
        nursery = [p for p in ours if named("forkserver", p)]
        hands = [h for n in nursery for h in children(n)]
        data = subprocess.run(["pgrep", "-f", f"postgres -D .*{self._data()}"], capture_output=True, text=True, check=False).stdout.split()
        victims = {
            "master": master,
            "worker": front,
            "hand": hands,
            "nursery": nursery,
            "postgres": [int(p) for p in data],
            "start": [self.process.pid],
        }[what]
        if not victims:
            return False
        os.kill(random.choice(victims), signal.SIGKILL)
        if what == "start":
            self.process.wait()
            self.run()
        return True

    def stop(self) -> None:
        """Stop it as Ctrl-C does, and throw its folder away."""
        self.process.send_signal(signal.SIGINT)
        self.process.wait(60)
        for left in self.state.glob("*.pid"):  # of a start that was killed last
            with contextlib.suppress(ProcessLookupError):
                os.kill(int(left.read_text()), signal.SIGTERM)
        with contextlib.suppress(GivingUp):
            Cluster(data_folder(self.state), self.state).stop()
        shutil.rmtree(self.state, ignore_errors=True)

    def _data(self) -> str:
        return data_folder(self.state).name


def main(sessions: int, seed: int, kinds: tuple[str, ...]) -> None:
    """Run it."""
    random.seed(seed)
    state = Path(tempfile.mkdtemp(prefix="tuyere-kills-"))
    state.chmod(0o711)
    start = Start(state)
    Client()
    killed: Counter[str] = Counter()
    back: list[tuple[float, str]] = []
    numbers = iter(range(sessions))
    lock = threading.Lock()

    def many() -> None:
        while True:
            with lock:
                number = next(numbers, None)
            if number is None:
                return
            session(number)

    workers = [threading.Thread(target=many) for _ in range(AT_ONCE)]
    for worker in workers:
        worker.start()
    while any(worker.is_alive() for worker in workers):
        time.sleep(random.uniform(0.2, 2))
        what = random.choice(kinds)
        if start.process.poll() is not None:  # what a service manager does
            start.run()
        at = time.monotonic()
        if not start.kill(what):
            continue
        killed[what] += 1
        while (
            any(worker.is_alive() for worker in workers) and not any(t > at + 0.05 for t in ANSWERED[-40:]) and time.monotonic() < at + 90
        ):
            time.sleep(0.05)
        if any(t > at + 0.05 for t in ANSWERED[-40:]):
            back.append((min(t for t in ANSWERED[-40:] if t > at + 0.05) - at, what))
    client = Client()
    found = Counter(d["machine"] for d in client.ask("GET", f"/api/sites/{client.site}/floor")["drives"])
    lost = [name for name in ACKNOWLEDGED if not found[name]]
    doubled = [name for name, count in found.items() if name.startswith("Kills ") and count > 1]
    print(f"sessions {sessions}, failed {len(FAILED)}; writes acknowledged {len(ACKNOWLEDGED)}, lost {len(lost)}, doubled {len(doubled)}")
    print(f"kills {sum(killed.values())}: {dict(killed)}")
    for what in sorted(killed):
        waits = sorted(b for b, w in back if w == what)
        if waits:
            print(f"{what}: next write answered after {waits[len(waits) // 2]:.1f} s (median), {waits[-1]:.1f} s (slowest of {len(waits)})")
    for line in FAILED[:5]:
        print(line)
    start.stop()
    if lost or doubled or FAILED or any(b > 10 for b, _ in back):
        sys.exit(1)


if __name__ == "__main__":
    given = [*sys.argv[1:], *("200", "1", "master,worker,hand,nursery,postgres,start")[len(sys.argv) - 1 :]]
    main(int(given[0]), int(given[1]), tuple(given[2].split(",")))
