"""Write sessions while worker, master, PostgreSQL and the start itself are killed at random: what was acknowledged, lost, doubled.

    python -m bench.kills [sessions=200] [seed=1] [what to kill, with commas]

Runs bin/start in a state folder of its own. A session signs in, makes a machine with a drive, begins a job there, does its first three
steps and sends two photographs; each write is repeated with the same Idempotency-Key until it is answered. Prints what was acknowledged,
lost, doubled or half written, and how long after each kill the next write was answered.
"""

import contextlib
import http.client
import io
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

from PIL import Image

from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.said import GivingUp

ROOT = Path(__file__).parents[1]
PORT = 8699
ADDRESS = f"http://127.0.0.1:{PORT}"
AT_ONCE = 4
SLOWEST_S = 5.0  # to the next write after any one process was killed, on a quiet machine


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
        data = body if body is None or isinstance(body, bytes) else json.dumps(body).encode()
        kind = "image/jpeg" if isinstance(body, bytes) else "application/json"
        wanted = urllib.request.Request(ADDRESS + path, data, {"Content-Type": kind, **(headers or {})}, method=method)
        with self.opener.open(wanted, timeout=60) as answer:
            return json.load(answer) if "json" in answer.headers.get_content_type() else answer.read()

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

    def write(self, path: str, body: Any) -> Any:
        """A write, with one key however often it is repeated."""
        told = self.ask("POST", path, body, {"X-CSRFToken": self.token, "Idempotency-Key": str(uuid.uuid4())})
        ANSWERED.append(time.monotonic())
        return told


ANSWERED: list[float] = []
FAILED: list[str] = []
# What was answered as kept: the drive of each session, the job there, its steps in order, the photographs.
DRIVES: dict[str, str] = {}
JOBS: dict[str, str] = {}
STEPS: list[tuple[str, str]] = []
PHOTOS: list[tuple[str, str]] = []


def camera_picture() -> bytes:
    """A photograph of some 300 KB, as the browser sends one."""
    out = io.BytesIO()
    Image.effect_noise((1200, 900), 60).convert("RGB").save(out, "JPEG", quality=80)
    return out.getvalue()


PICTURE = camera_picture()


def session(number: int) -> None:
    """One write session."""
    try:
        client = Client()
        drive, machine = str(uuid.uuid4()), f"Kills {number} {uuid.uuid4().hex[:6]}"
        new = {"id": drive, "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": machine}
        client.write(f"/api/sites/{client.site}/drives", new)
        DRIVES[drive] = machine
        job = str(uuid.uuid4())
        client.write(f"/api/drives/{drive}/jobs", {"id": job, "kind": "own", "asked": {}})
        JOBS[job] = drive
        for _ in range(3):
            time.sleep(random.uniform(0, 1))
            step = client.ask("GET", f"/api/jobs/{job}")["next"]
            client.write(f"/api/jobs/{job}/steps", {"step": step, "standing": "done"})
            STEPS.append((job, step))
        for _ in range(2):
            time.sleep(random.uniform(0, 1))
            photo = str(uuid.uuid4())
            client.write(f"/api/drives/{drive}/photos?id={photo}&job_id={job}", PICTURE)
            PHOTOS.append((drive, photo))
    except Exception as error:
        FAILED.append(f"session {number}: {error}")


def kept(client: Client) -> dict[str, tuple[int, int, int, int]]:
    """Of each sort of write: acknowledged, lost, doubled, half written."""
    floor = Counter(d["machine"] for d in client.ask("GET", f"/api/sites/{client.site}/floor")["drives"])
    drives = (len(DRIVES), sum(not floor[m] for m in DRIVES.values()), sum(floor[m] > 1 for m in DRIVES.values()), 0)
    jobs = {job: client.ask("GET", f"/api/jobs/{job}") for job in JOBS}
    listed = {drive: [j["id"] for j in client.ask("GET", f"/api/drives/{drive}/jobs")["open"]] for drive in set(JOBS.values())}
    begun = (
        len(JOBS),
        sum(job not in listed[drive] for job, drive in JOBS.items()),
        sum(len(v) > 1 for v in listed.values()),
        sum(not j["steps"] for j in jobs.values()),
    )
    done = {(job, s["key"]): s for job, told in jobs.items() for s in told["steps"] if s["standing"]}
    # A step kept without its job being begun, or one beyond those said, would be half a write.
    half = sum(bool(told["began_at"]) != any(s["standing"] for s in told["steps"]) for told in jobs.values())
    steps = (len(STEPS), sum(s not in done for s in STEPS), sum(done[s]["row_version"] > 1 for s in STEPS if s in done), half)
    shown = {d: Counter(p["id"] for p in client.ask("GET", f"/api/drives/{d}/photos")["photos"]) for d in {d for d, _ in PHOTOS}}
    whole = [Image.open(io.BytesIO(client.ask("GET", f"/api/photos/{p}/picture"))).size == (1200, 900) for _, p in PHOTOS]
    photos = (
        len(PHOTOS),
        sum(not shown[d][p] for d, p in PHOTOS),
        sum(max(c.values()) > 1 or len(c) > 2 for c in shown.values()),
        whole.count(False),
    )
    return {"drives": drives, "jobs": begun, "steps": steps, "photographs": photos}


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
        self.ended = 0
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
        try:
            os.kill(random.choice(victims), signal.SIGKILL)
        except ProcessLookupError:  # it ended of itself meanwhile
            return False
        if what == "start":
            self.process.wait()
            self.run()
        return True

    def again(self) -> bool:
        """Run it again where it ended, as a service manager does."""
        if self.process.poll() is not None:
            self.note(f"the start ended of itself, {self.process.returncode}")
            self.ended += 1
            self.run()
        return True

    def whole(self) -> bool:
        """Wait until everything is up again, half a minute at most: then a kill is of one process, and not on top of another."""
        limit = time.monotonic() + 30
        while time.monotonic() < limit:
            ours = children(self.process.pid)
            front = [p for m in ours if named("gunicorn", m) for p in children(m)]
            hands = [h for n in ours if named("forkserver", n) for h in children(n)]
            if front and hands and self._healthy():
                return True
            time.sleep(0.1)
        return False

    def _healthy(self) -> bool:
        with contextlib.suppress(OSError, http.client.HTTPException), urllib.request.urlopen(f"{ADDRESS}/api/health", timeout=5) as told:
            return bool(told.status == 200)
        return False

    def note(self, text: str) -> None:
        """A line beside what the start says, with the time."""
        self.said.write(f"-- {time.strftime('%H:%M:%S')} {text}\n".encode())
        self.said.flush()

    def stop(self, keep: bool) -> None:
        """Stop it as Ctrl-C does, and throw its folder away, but for its logs where it went wrong."""
        self.process.send_signal(signal.SIGINT)
        self.process.wait(60)
        for left in self.state.glob("*.pid"):  # of a start that was killed last
            with contextlib.suppress(ProcessLookupError):
                os.kill(int(left.read_text()), signal.SIGTERM)
        with contextlib.suppress(GivingUp):
            Cluster(data_folder(self.state), self.state).stop()
        if not keep:
            shutil.rmtree(self.state, ignore_errors=True)

    def _data(self) -> str:
        return data_folder(self.state).name


def main(sessions: int, seed: int, kinds: tuple[str, ...]) -> bool:
    """Run it, and end what it started; whether all went well."""
    random.seed(seed)
    state = Path(tempfile.mkdtemp(prefix="tuyere-kills-"))
    state.chmod(0o711)
    start = Start(state)
    well = False
    try:
        well = run(start, sessions, kinds)
    finally:
        start.stop(keep=not well)
    if not well:
        print(f"what was said meanwhile: {state}")
    return well


def run(start: Start, sessions: int, kinds: tuple[str, ...]) -> bool:
    """The sessions and the kills, then the counts."""
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

    workers = [threading.Thread(target=many, daemon=True) for _ in range(AT_ONCE)]
    for worker in workers:
        worker.start()
    while any(worker.is_alive() for worker in workers):
        time.sleep(random.uniform(0.2, 2))
        what = random.choice(kinds)
        alone = start.again() and random.random() < 0.8 and start.whole()
        at = time.monotonic()
        if not start.kill(what):
            continue
        killed[what] += 1
        start.note(f"killed {what}")
        while (
            any(worker.is_alive() for worker in workers) and not any(t > at + 0.05 for t in ANSWERED[-40:]) and time.monotonic() < at + 90
        ):
            start.again()
            time.sleep(0.05)
        if any(t > at + 0.05 for t in ANSWERED[-40:]):
            waited = min(t for t in ANSWERED[-40:] if t > at + 0.05) - at
            back.append((waited, what if alone else "on top of another"))
            start.note(f"a write was answered after {waited:.1f} s")
    told = kept(Client())
    for sort, (said, lost, doubled, half) in told.items():
        print(f"{sort}: acknowledged {said}, lost {lost}, doubled {doubled}, half written {half}")
    print(f"sessions {sessions}, failed {len(FAILED)}; kills {sum(killed.values())}: {dict(killed)}")
    print(f"starts that ended of themselves: {start.ended}")
    for what in sorted({w for _, w in back}):
        waits = sorted(b for b, w in back if w == what)
        if waits:
            print(f"{what}: next write answered after {waits[len(waits) // 2]:.1f} s (median), {waits[-1]:.1f} s (slowest of {len(waits)})")
    for line in FAILED[:5]:
        print(line)
    return not FAILED and not any(b > SLOWEST_S for b, w in back if w != "on top of another") and not any(sum(t[1:]) for t in told.values())


if __name__ == "__main__":
    given = [*sys.argv[1:], *("200", "1", "master,worker,hand,nursery,postgres,start")[len(sys.argv) - 1 :]]
    sys.exit(0 if main(int(given[0]), int(given[1]), tuple(given[2].split(","))) else 1)
