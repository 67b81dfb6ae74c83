"""Start a plant and keep it up: the database, the server, and each of them again when it is killed.

    python -m tuyere.upkeep.keep [--demo | --own-plant]

Stays in front until it is told to stop. A second one on the same plant finds the first, mends what is broken and leaves.
"""

import argparse
import contextlib
import fcntl
import os
import secrets
import signal
import subprocess
import sys
import time
from collections import deque
from collections.abc import Callable, Iterator
from functools import partial
from pathlib import Path

import psycopg

from tuyere.serving import ORPHANED_S, nursery
from tuyere.store.address import plain_url
from tuyere.store.database import engine_from
from tuyere.store.prune import prune
from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.port import Found, look_at
from tuyere.upkeep.said import GivingUp, say
from tuyere.web.frontend import BUILT
from tuyere.web.settings import SHORTEST_SECRET

USUAL_PORT = 8640
LARGEST_LOG = 8_000_000
A_DAY = 86_400.0
A_WHILE = 20.0
STALE_URL = "TUYERE_STALE_AT"  # as upkeep/state.py has it, which takes seconds to import
OTHER_S = 300.0  # so long a second start waits for the first: it may be making the database


class Plant:
    """One plant on one port. `cluster` is None where DATABASE_URL names a database that others keep."""

    def __init__(self, state: Path, demo: bool, port: int, given_url: str) -> None:
        self.state = state
        self.demo, self.port, self.given_url = demo, port, given_url
        self.name = "tuyere_demo" if demo else "tuyere_plant"
        self.log = self.state / "server.log"
        self.cluster = None if given_url else Cluster(data_folder(state), state)
        self.server_file = state / f"{self.name}-{port}.pid"
        self.server: subprocess.Popen[bytes] | None = None
        self.leaving: list[subprocess.Popen[bytes]] = []
        self.orphans: list[int] = []
        self.seen_off: list[int] = []
        self.begin: Callable[[], None] = lambda: None
        self.working: subprocess.Popen[bytes] | None = None
        self.stopping = False

    @property
    def address(self) -> str:
        """Where it is reached on this machine."""
        return f"http://127.0.0.1:{self.port}"

    def run(self) -> None:
        """Start it and keep it up until told to stop; or leave it to the one who keeps it up already. Raises GivingUp."""
        told = False
        limit = time.monotonic() + OTHER_S
        while True:
            with self._alone() as first:
                if first:
                    self._run_alone()
                    return
            found = look_at(self.port, self.name)
            if found is Found.PLANT:
                say(f"Tuyere is {'up' if told else 'already running'}: {self.address}")
                return
            if not told:
                what = "its database does not answer" if found is Found.NO_DATABASE else "it does not answer"
                say(f"Another bin/start keeps Tuyere up at {self.address}, but {what} just now: waiting for it.")
                told = True
            if time.monotonic() > limit:
                raise GivingUp(f"the other bin/start has not brought Tuyere up in {OTHER_S / 60:.0f} minutes: look at what it says.")
            time.sleep(0.3)

    def _run_alone(self) -> None:
        self.orphans = _servers(self.port, self.state)
        if self.orphans:
            say("A server was left over from a bin/start that was killed: it goes on until a new one is up.")
        found = Found.NOTHING if self.orphans else self._look()
        if found is Found.OTHER:
            other = self.port % 65535 + 1
            raise GivingUp(f"port {self.port} is taken by another program: choose another, such as PORT={other} bin/start.")
        if found is not Found.NOTHING:
            raise GivingUp(f"Tuyere runs at {self.address}, but not by bin/start here: stop it where it was started.")
        with self.cluster.lease() if self.cluster else contextlib.nullcontext(None) as lease:
            self._serve(lease)

    def _look(self) -> Found:
        """What is at the port; one that is just ending holds it a moment longer."""
        limit = time.monotonic() + 4
        found = look_at(self.port, self.name)
        while found is Found.OTHER and time.monotonic() < limit:
            time.sleep(0.3)
            found = look_at(self.port, self.name)
        return found

    def _end_orphans(self) -> None:
        """A server whose bin/start was killed has nobody who keeps it up: its place is taken by ours."""
        for pid in self.orphans:
            with contextlib.suppress(OSError):
                os.kill(pid, signal.SIGTERM)
        self.seen_off += self.orphans
        self.orphans = []

    @contextlib.contextmanager
    def _alone(self) -> Iterator[bool]:
        """Whether we are the one who keeps this plant up: a lock that ends with us, however we end."""
        held = os.open(self.state / f"{self.name}-{self.port}.lock", os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
            yield True
        except BlockingIOError:
            yield False
        finally:
            os.close(held)

    def _serve(self, lease: int | None) -> None:
        signal.signal(signal.SIGTERM, self._stop)
        signal.signal(signal.SIGINT, self._stop)
        os.environ |= {"OPENBLAS_NUM_THREADS": "1", "TUYERE_DESCRIBED": "0" if (BUILT / "openapi.json").exists() else "1"}
        nursery.prepare()  # it imports while the database starts
        secret = self._secret()
        url = self._prepared(secret)
        environment = os.environ | {
            "DATABASE_URL": url,
            "TUYERE_SECRET_KEY": secret,
            "TUYERE_DEMO": "1" if self.demo else "0",
            "TUYERE_PLANT": self.name,
            "TUYERE_BIND": f"127.0.0.1:{self.port}",
            "TUYERE_STATE": str(self.state),
            "TUYERE_DATA": str(self.cluster.data) if self.cluster else os.environ.get("TUYERE_DATA", ""),
        }
        environment.pop("TUYERE_SERVING_URL", None)
        self.begin = partial(self._start_server, environment, lease)
        self.begin()
        try:
            self._wait_until_up()
            say(f"\n  Tuyere is at  {self.address}   (Ctrl-C stops it)\n")
            self._keep_up()
        finally:
            self._end_server()

    def _prepared(self, secret: str) -> str:
        """The URL to serve with, its database up and up to date. One of our own that is killed meanwhile is started again."""
        from tuyere.upkeep.prepare import prepare  # here: it takes seconds to import, and a start that only says no need not wait

        serving_url = os.environ.get("TUYERE_SERVING_URL", "")
        served = plain_url(serving_url) if serving_url else ""
        if self.cluster is None:
            self.owner_url = plain_url(self.given_url)
            return prepare(self.owner_url, secret, self.demo, served, before_change=self._end_orphans)
        for left in (2, 1, 0):
            self.cluster.start()
            self.owner_url = self.cluster.owner_url(self.name)
            try:
                return prepare(self.owner_url, secret, self.demo, served, self.cluster.url(self.name), self._end_orphans)
            except GivingUp:
                if not left:
                    raise
                time.sleep(1)
        raise AssertionError

    def _keep_up(self) -> None:
        ended: deque[float] = deque(maxlen=5)
        pruned = looked = time.monotonic()
        while not self.stopping:
            time.sleep(0.25)
            self._tend_database()
            if not nursery.runs() and not self.stopping:
                self._start_nursery_again()
            assert self.server
            code = self.server.poll()
            if code is not None and not self.stopping:
                if code >= 0:  # of itself: what is killed from outside is started again however often
                    ended.append(time.monotonic())
                    if len(ended) == ended.maxlen and ended[-1] - ended[0] < 60:
                        raise GivingUp(f"the server stops as soon as it starts: the last lines of {self.log} say why.")
                self.begin()
                say(f"The server had stopped ({_in_words(code)}): it was started again.")
            self._see_off()
            self._shorten_log()
            if time.monotonic() - looked > A_WHILE:
                looked = time.monotonic()
                self._work_out_what_is_stale()
            if time.monotonic() - pruned > A_DAY:
                pruned = time.monotonic()
                engine = engine_from(self.owner_url)
                prune(engine)
                engine.dispose()

    def _work_out_what_is_stale(self) -> None:
        """What all drives go by has changed: a process of its own works them out, and gives its memory back."""
        if self.working and self.working.poll() is None:
            return
        try:
            with psycopg.connect(self.owner_url, connect_timeout=5) as there:
                if there.execute("SELECT 1 FROM drive_state WHERE stale LIMIT 1").fetchone() is None:
                    return
        except psycopg.Error:
            return  # the database is away or at work: at the next look
        with self.log.open("ab") as log:
            command = [sys.executable, "-m", "tuyere.upkeep.state"]
            self.working = subprocess.Popen(command, env=os.environ | {STALE_URL: self.owner_url}, stdout=log, stderr=log)

    def _tend_database(self) -> None:
        if self.cluster and not self.cluster.runs() and not self.stopping:
            self.cluster.start()
            say("The database had stopped: it was started again.")

    def _start_server(self, environment: dict[str, str], lease: int | None) -> None:
        command = [sys.executable, "-m", "gunicorn", "-c", "python:tuyere.serving.gunicorn_conf"]
        with self.log.open("ab") as log:
            told, held = nursery.handed_on()
            passed = (held,) if lease is None else (held, lease)
            self.server = subprocess.Popen(command, env=environment | told, stdout=log, stderr=log, pass_fds=passed, start_new_session=True)
        self.server_file.write_text(str(self.server.pid))

    def _start_nursery_again(self) -> None:
        """With a server on it, beside the one that goes on with the processes it has until the new one answers."""
        nursery.prepare()
        assert self.server
        self.leaving.append(self.server)
        self.begin()
        say("The process that holds the application had stopped: it was started again.")

    def _see_off(self) -> None:
        if (self.leaving or self.orphans) and self._has_worker():
            for one in self.leaving:
                one.terminate()
            self.leaving = []
            self._end_orphans()

    def _has_worker(self) -> bool:
        """Whether our server has a worker, so that its port is open."""
        return self.server is not None and self.server.pid in _parents(_servers(self.port, self.state))

    def _end_server(self) -> None:
        left = [*self.orphans, *self.seen_off]
        self._end_orphans()
        ending = [one for one in (*self.leaving, self.server) if one and one.poll() is None]
        for one in ending:
            one.terminate()
        for one in ending:
            try:
                one.wait(20)
            except subprocess.TimeoutExpired:
                one.kill()
                one.wait()
        limit = time.monotonic() + ORPHANED_S  # they hold the database's lease too
        while set(left) & set(_servers(self.port, self.state)) and time.monotonic() < limit:
            time.sleep(0.2)

    def _wait_until_up(self) -> None:
        limit = time.monotonic() + 60
        while not self.stopping:
            self._tend_database()
            if self._has_worker() and look_at(self.port, self.name) is Found.PLANT:
                return
            code = self.server.poll() if self.server else None
            if self.server and not nursery.runs():
                self._start_nursery_again()
            elif code is not None and code < 0:
                self.begin()
            elif code is not None:
                raise GivingUp(f"the server stopped while it was starting: the last lines of {self.log} say why.")
            if time.monotonic() > limit:
                raise GivingUp(f"the server does not answer after a minute: the last lines of {self.log} say why.")
            time.sleep(0.2)

    def _secret(self) -> str:
        given = os.environ.get("TUYERE_SECRET_KEY")
        if given is not None:
            if len(given) < SHORTEST_SECRET:
                raise GivingUp(
                    f"TUYERE_SECRET_KEY has {len(given)} characters and needs {SHORTEST_SECRET} or more, random ones."
                    " Leave it unset and one is made."
                )
            return given
        kept = self.state / "secret-key"
        if not kept.exists() or len(kept.read_text().strip()) < SHORTEST_SECRET:
            with os.fdopen(os.open(kept, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as file:
                file.write(secrets.token_hex(32))
        return kept.read_text().strip()

    def _shorten_log(self) -> None:
        """Two files of at most LARGEST_LOG: the server appends to the same file, so it is copied and emptied, not moved."""
        if self.log.stat().st_size > LARGEST_LOG:
            self.log.with_suffix(".log.1").write_bytes(self.log.read_bytes())
            os.truncate(self.log, 0)

    def _stop(self, *_signal: object) -> None:
        self.stopping = True


def _servers(port: int, state: Path) -> list[int]:
    """The processes, masters and workers, of servers that a bin/start on this state folder began on that port."""
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):  # not ours to look at, or gone
            told = (process / "environ").read_bytes().split(b"\0")
            ours = {f"TUYERE_BIND=127.0.0.1:{port}".encode(), f"TUYERE_STATE={state}".encode()} <= set(told)
            if ours and b"tuyere.serving.gunicorn_conf" in (process / "cmdline").read_bytes():
                found.append(int(process.name))
    return found


def _parents(processes: list[int]) -> set[int]:
    found = set()
    for process in processes:
        with contextlib.suppress(OSError):
            found.add(int(Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()[1]))
    return found


def _in_words(code: int) -> str:
    return f"killed by signal {-code}" if code < 0 else f"exit code {code}"


def port_from(text: str) -> int:
    """A port number as typed. Raises GivingUp."""
    if not (text.isascii() and text.isdigit() and len(text) <= 5 and 1 <= int(text) <= 65535):
        raise GivingUp(f"PORT must be a number from 1 to 65535, such as {USUAL_PORT}; it is “{text}”.")
    return int(text)


def main() -> int:
    """What bin/start runs."""
    parser = argparse.ArgumentParser(prog="bin/start", description="Start Tuyere on this machine and keep it up until Ctrl-C.")
    which = parser.add_mutually_exclusive_group()
    which.add_argument("--demo", action="store_true", help="the sample plant (as without any word, unless DATABASE_URL is set)")
    which.add_argument("--own-plant", action="store_true", help="an empty plant of your own; prints a one-time code to make its first lead")
    words = parser.parse_args()
    given_url = os.environ.get("DATABASE_URL", "")
    try:
        port = port_from(os.environ.get("PORT", str(USUAL_PORT)))
        if given_url:
            given_url = plain_url(given_url)
        demo = words.demo or not (words.own_plant or given_url)
        Plant(Path(os.environ["TUYERE_STATE"]).resolve(), demo, port, given_url).run()
    except (GivingUp, RuntimeError) as reason:
        say(f"Tuyere: {reason}")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
