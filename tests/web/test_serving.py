"""The front over real processes: limits of time, memory and share, slow senders, a database away; and who goes next in a lane."""

import contextlib
import http.client
import io
import json
import socket
import threading
import time
import uuid
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from http.cookies import SimpleCookie
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import psycopg
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tests.conftest import SECRET
from tests.running import gunicorn, until
from tuyere.serving.lanes import Caller, CrowdedError, Lane, WaitedTooLongError
from tuyere.store.address import Beat, Pulse
from tuyere.web.health import Readiness


@pytest.fixture(scope="module")
def served(serving_url: str) -> Iterator[Any]:
    """A front with tight limits, and what asks it."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    environment = {
        "DATABASE_URL": serving_url,
        "TUYERE_SECRET_KEY": SECRET,
        "TUYERE_DEMO": "1",
        "TUYERE_PLANT": "served",
        "TUYERE_BIND": f"127.0.0.1:{port}",
        "OPENBLAS_NUM_THREADS": "1",
        "TUYERE_REQUEST_SECONDS": "3",
        "TUYERE_REQUEST_MEMORY_MB": "200",
        "TUYERE_RECORD_PROCESSES": "2",
        "TUYERE_CALCULATION_PROCESSES": "2",
        "TUYERE_THREADS": "24",
        "TUYERE_PROXIES": "127.0.0.1",
    }

    def ask(method: str, path: str, body: Any = None, patience: float = 30, **headers: str) -> tuple[int, Any, float]:
        began = time.monotonic()
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=patience)
        data = json.dumps(body) if body is not None else None
        connection.request(method, path, data, {"Content-Type": "application/json", **headers})
        answer = connection.getresponse()
        raw = answer.read()
        connection.close()
        return answer.status, json.loads(raw) if "json" in answer.headers.get_content_type() else raw.decode(), time.monotonic() - began

    ask.port = port  # type: ignore[attr-defined]

    def up() -> bool:
        with contextlib.suppress(OSError):
            return ask("POST", "/api/calc/designation", {"text": "B68"})[0] == 200 and ask("GET", "/api/session")[0] == 200
        return False

    with gunicorn(environment, "tests.web.misbehaving:create_front()"):
        until(up)
        yield ask


@contextlib.contextmanager
def one_session(served: Any) -> Iterator[Any]:
    """A mechanic of the demo plant on one connection kept open, and their site."""
    connection = http.client.HTTPConnection("127.0.0.1", served.port, timeout=60)
    held: dict[str, str] = {}
    jar = SimpleCookie[str]()

    def send(method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> tuple[int, Any]:
        data = json.dumps(body).encode() if isinstance(body, dict) else body
        own = {"Content-Type": "application/json", "Idempotency-Key": str(uuid.uuid4()), **held, **(headers or {})}
        connection.request(method, path, data, own)
        answer = connection.getresponse()
        for cookie in answer.headers.get_all("Set-Cookie", []):
            jar.load(cookie)
        held["Cookie"] = "; ".join(f"{name}={one.value}" for name, one in jar.items())
        return answer.status, json.loads(answer.read() or b"null")

    entered = send("GET", "/api/session")[1]
    held["X-CSRFToken"] = entered["csrf_token"]
    person = next(p for p in entered["demo_people"] if p["name"] == "Tobias")
    entered = send("POST", "/api/session/demo", {"person_id": person["id"]})[1]
    held["X-CSRFToken"] = entered["csrf_token"]
    yield send, entered["sites"][0]["id"]
    connection.close()


def test_what_never_ends_is_ended_and_what_takes_all_memory_too(served: Any) -> None:
    with ThreadPoolExecutor(8) as many:
        bad = [many.submit(served, "GET", f"/api/calc/{what}") for what in ("spin", "spin")]
        time.sleep(0.5)
        for path in ("/api/health", "/api/session", "/"):
            status, _, seconds = served("GET", path)
            assert status == 200 and seconds < 20, "the record answers meanwhile"
        spun, spin, seconds = bad[0].result()
    hoarded, hoard, _ = served("GET", "/api/calc/hoard")
    died, die, _ = served("GET", "/api/calc/die")
    assert spun == hoarded == died == 503 and seconds > 2
    assert "the 3 seconds one request is given" in spin["detail"]
    assert "more memory than one request is given" in hoard["detail"] and "restarted" in die["detail"]
    for _ in range(4):
        assert served("POST", "/api/calc/designation", {"text": "B68"})[0] == 200, "their processes were replaced"
    told = served("GET", "/metrics")[1]
    assert 'tuyere_requests_ended_total{why="memory"} 1.0' in told and 'tuyere_requests_total{method="GET",route="/api/health"' in told
    assert SECRET not in told


def test_one_address_waits_its_turn_and_keeps_no_other_out(served: Any) -> None:
    """Sixteen from one address hold all that strangers may hold; one more of theirs is told to wait, another address waits one turn."""
    with ThreadPoolExecutor(16) as many:
        crowd = [many.submit(served, "GET", "/api/calc/spin", **{"X-Forwarded-For": "192.0.2.1"}) for _ in range(16)]
        time.sleep(1)
        assert served("GET", "/api/session", **{"X-Forwarded-For": "192.0.2.1"})[0] == 200
        refused = [c.result() for c in crowd]
    assert {status for status, _, _ in refused} == {429, 503}
    assert all("too many" in said["detail"] for status, said, _ in refused if status == 429)
    assert served("POST", "/api/calc/designation", {"text": "B68"}, **{"X-Forwarded-For": "192.0.2.2"})[0] == 200


def test_slow_senders_hold_nobody_up(served: Any) -> None:
    """More of them than there are threads, each with half a request; then each is given up."""
    slow = []
    for part in (
        b"POST /api/calc/designation HTTP/1.1\r\nHost: localhost\r\nContent-Length: 50\r\n\r\n{",
        b"GET /api/health HTTP/1.1\r\nHo",
    ) * 40:
        sender = socket.create_connection(("127.0.0.1", served.port))
        sender.sendall(part)
        slow.append(sender)
    assert served("GET", "/api/health")[0] == 200
    assert served("POST", "/api/calc/designation", {"text": "B68"})[0] == 200
    slow[0].settimeout(30)
    assert slow[0].recv(4096).startswith(b"HTTP/1.1 408 ")
    for sender in slow:
        sender.close()


def _status(one: socket.socket) -> int:
    answer = http.client.HTTPResponse(one)
    answer.begin()
    answer.read()
    return answer.status


def test_whole_requests_however_they_come(served: Any) -> None:
    """In pieces, chunked, with 100-continue, one after another on a connection, and larger than any of ours."""
    head = b"POST /api/calc/designation HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
    body = b'{"text": "B68"}'
    with socket.create_connection(("127.0.0.1", served.port), timeout=20) as one:
        for byte in head + b"Content-Length: 15\r\n\r\n" + body:
            one.sendall(bytes([byte]))
        assert _status(one) == 200
        one.sendall(head + b"Transfer-Encoding: chunked\r\n\r\n5\r\n" + body[:5] + b"\r\na\r\n" + body[5:] + b"\r\n0\r\n\r\n")
        assert _status(one) == 200
        one.sendall(head + b"Expect: 100-continue\r\nContent-Length: 15\r\n\r\n")
        assert one.recv(25) == b"HTTP/1.1 100 Continue\r\n\r\n"
        one.sendall(body)
        assert _status(one) == 200
    with socket.create_connection(("127.0.0.1", served.port), timeout=20) as one:
        one.sendall(head + b"Content-Length: 99999999\r\n\r\n")
        assert one.recv(65536).startswith(b"HTTP/1.1 413")


def test_what_is_at_no_address_is_said_and_breaks_nothing(served: Any) -> None:
    for path in ("//api/x", "/api//x", "///api/session", "/assets/none-12345678.js", "//api/health/"):
        status, said, _ = served("GET", path)
        assert (status, said["title"]) == (404, "Not found"), path


def test_ready_is_not_alive(served: Any, demo_database_url: str, serving_url: str) -> None:
    """A database that answers and keeps nothing: readiness says so at once, the server lives on; what was refused is remembered."""
    role = urlsplit(serving_url).username

    def only_reads(so: bool) -> None:
        with psycopg.connect(demo_database_url, autocommit=True) as owner:
            owner.execute(f"ALTER ROLE {role} {'SET default_transaction_read_only = on' if so else 'RESET ALL'}")
            owner.execute("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = %s", (role,))

    def when_(status: int) -> Any:
        return until(lambda: (told := served("GET", "/api/health"))[0] == status and told[1])

    assert when_(200)["writes"] == "kept"
    with one_session(served) as (send, site):
        only_reads(True)
        try:
            said = when_(503)
            assert (said["database"], said["writes"]) == ("answers", "refused") and "keeps nothing" in said["problems"][0]
            assert served("GET", "/api/alive")[:2] == (200, {"alive": True})
            new = {"id": str(uuid.uuid4()), "name": "Drive", "machine_id": str(uuid.uuid4()), "machine_name": "Dryer"}
            status, refused = send("POST", f"/api/sites/{site}/drives", new)
            assert status == 503 and "keeps nothing just now" in refused["detail"]
        finally:
            only_reads(False)
        assert until(lambda: send("POST", f"/api/sites/{site}/drives", new)[0] == 201)
        assert until(lambda: "last minute" in str(served("GET", "/api/health")[1]["problems"])), "a refused write is remembered"


def test_what_makes_a_plant_unready(tmp_path: Path) -> None:
    class Felt(Pulse):
        def _feel(self) -> Beat:
            return Beat(True, True)

    passed = [0.0]
    ready = Readiness("mill", Felt(""), [tmp_path, tmp_path / "gone"], 1, lambda: passed[0])
    assert ready.look()[1] == 200
    ready.write_refused()
    for seconds, status in ((1, 503), (59, 503), (61, 200)):
        passed[0] = seconds
        assert ready.look()[1] == status
    short, status = Readiness("mill", Felt(""), [tmp_path], 10**9).look()
    assert status == 503 and str(short.free_mb) in short.problems[0] and short.writes == "kept"


def camera_picture(megabytes: float, width: int = 4000, height: int = 3000) -> bytes:
    """A JPEG of that size: what a camera writes behind its picture is not looked at, but is sent all the same."""
    out = io.BytesIO()
    Image.effect_noise((width // 4, height // 4), 60).convert("RGB").resize((width, height)).save(out, "JPEG", quality=85)
    return out.getvalue().ljust(int(megabytes * 1024**2), b"\0")


def test_a_photograph_may_be_large_and_nothing_else(served: Any) -> None:
    """By route, by type and by who sends it; whoever sends too much is told so and not just cut off."""
    with one_session(served) as (send, site):
        until(
            lambda: send("GET", f"/api/sites/{site}/floor")[0] == 200
        )  # the first is worked out cold, on a busy machine in more than its time
        _, floor = send("GET", f"/api/sites/{site}/floor")
        drive = floor["drives"][0]["id"]
        photos = f"/api/drives/{drive}/photos"

        def picture(content: bytes, kind: str = "image/jpeg", at: str = photos, **headers: str) -> tuple[int, Any]:
            return send("POST", f"{at}?id={uuid.uuid4()}", content, {"Content-Type": kind, **headers})

        assert picture(camera_picture(12))[0] == 201
        refused = [picture(b"\xff" * (17 * 1024**2)), picture(b"\xff" * (63 * 1024**2))]
        assert [(status, "16 MB" in said["detail"]) for status, said in refused] == [(413, True)] * 2
        for kind, at in (("application/json", photos), ("image/jpeg", f"/api/drives/{drive}/findings"), ("text/plain", photos)):
            status, said = picture(b"0" * 300_000, kind, at)
            assert (status, "too much text" in said["detail"]) == (413, True), kind
        assert picture(camera_picture(1), Cookie="none=0")[0] == 401


@given(st.lists(st.tuples(st.integers(0, 4), st.booleans()), max_size=30), st.integers(1, 4))
def test_a_lane_never_works_on_more_than_its_places(asked: list[tuple[int, bool]], places: int) -> None:
    lane = Lane(places, of_one=3, of_strangers=6, patience_s=0.001)
    held: list[Any] = []
    for name, known in asked:
        place = lane.place(Caller(str(name), known))
        try:
            place.__enter__()
            held.append((place, known))
        except (CrowdedError, WaitedTooLongError):
            pass
        strangers = sum(not k for _, k in held)
        assert lane.at_work() == len(held) <= places and strangers <= max(1, places - 1)
    for place, _ in held:
        place.__exit__(None, None, None)
    assert lane.at_work() == lane.waiting() == 0


def test_a_lane_serves_by_turns() -> None:
    """One caller with ten waiting, another with one: the other is second, not eleventh."""
    lane, order, first = Lane(1, 20, 20, 10), [], threading.Event()

    def work(name: str) -> None:
        with lane.place(Caller(name, True)):
            order.append(name)
            first.wait(5)

    threads = [threading.Thread(target=work, args=(name,)) for name in "a" * 10 + "b"]
    for n, thread in enumerate(threads):
        thread.start()
        while lane.at_work() + lane.waiting() <= n:
            time.sleep(0.001)
    first.set()
    for thread in threads:
        thread.join()
    assert order.index("b") == 1
