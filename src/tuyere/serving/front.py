"""The front: pages from files, health from the database, and every other request through a lane to a process that may be ended.

A request gets a time limit and a memory bound. Over either, its process is ended and another one started, and the person gets a
sentence. Calculations have processes of their own at a lower priority, so that the record keeps answering beside them; and wide searches
have theirs at the lowest, so that a sheet does not wait for one.
"""

import logging
import math
import os
import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from typing import Any, NamedTuple
from wsgiref.types import StartResponse, WSGIEnvironment

from flask import Flask, Request
from flask.sessions import SecureCookieSessionInterface
from itsdangerous import BadData
from prometheus_client import CONTENT_TYPE_LATEST, Counter, Gauge, Histogram, generate_latest
from werkzeug.middleware.proxy_fix import ProxyFix

from tuyere.serving import hand, nursery
from tuyere.serving.hand import Asked
from tuyere.serving.hands import GoneError, Hands, TookTooLongError
from tuyere.serving.lanes import Caller, CrowdedError, Lane, WaitedTooLongError
from tuyere.serving.logs import log_to_stderr
from tuyere.store.address import Pulse
from tuyere.store.clock import now
from tuyere.web import bodies, errors, frontend
from tuyere.web.errors import SENTENCES, ProblemOut, in_json, titled
from tuyere.web.health import AliveOut, Readiness, least_free_from_environment, places_from_environment
from tuyere.web.logs import HEADER, request_id
from tuyere.web.settings import Settings

SEARCHES = ("/api/calc/size", "/api/calc/size/candidates")  # over every drive that the tables hold: tenths of a second each
TIME = "Tuyere-Time"  # what the server's clock says: a device whose own is wrong still says when a thing was done

TOO_SLOW = "This took longer than the {seconds:.0f} seconds one request is given, and was stopped. Ask for less at once, and try again."
TOO_MUCH = "This wanted more memory than one request is given, and was stopped. Ask for less at once, and try again."
BROKE = "Tuyere hit an error and restarted. What you typed is still here; try again in a moment."
CROWDED = "There are too many requests from here at once. Wait a moment, then try again."
BUSY = "Everything is busy just now. Wait a moment, then try again."

REQUESTS = Counter("tuyere_requests_total", "Requests answered", ["method", "route", "status"])
SECONDS = Histogram(
    "tuyere_request_seconds", "From the whole request to its answer", ["lane"], buckets=(0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30, 60)
)
ENDED = Counter("tuyere_requests_ended_total", "Requests that were stopped, with their process", ["why"])
WAITING = Gauge("tuyere_lane_waiting", "Requests that wait for a place", ["lane"])
FREE = Gauge("tuyere_free_megabytes", "Disk that is free where the database's data and log lie; NaN where that is elsewhere")
AT_WORK = Gauge("tuyere_lane_at_work", "Requests at work", ["lane"])


@dataclass(frozen=True)
class Limits:
    """How much one request, one caller and all strangers may take; see `from_environment` for the names of the settings."""

    seconds: float = 30
    memory_mb: int = 768
    record_places: int = 3
    calculation_places: int = 2
    search_places: int = 2
    threads: int = 96

    @classmethod
    def from_environment(cls) -> "Limits":
        """TUYERE_REQUEST_SECONDS, TUYERE_REQUEST_MEMORY_MB, TUYERE_{RECORD,CALCULATION,SEARCH}_PROCESSES, TUYERE_THREADS."""
        two = max(2, os.cpu_count() or 2)
        return cls(
            float(os.environ.get("TUYERE_REQUEST_SECONDS", cls.seconds)),
            int(os.environ.get("TUYERE_REQUEST_MEMORY_MB", cls.memory_mb)),
            int(os.environ.get("TUYERE_RECORD_PROCESSES", two + 1)),
            int(os.environ.get("TUYERE_CALCULATION_PROCESSES", two)),
            int(os.environ.get("TUYERE_SEARCH_PROCESSES", max(2, two // 2))),
            int(os.environ.get("TUYERE_THREADS", cls.threads)),
        )


class Allowed(NamedTuple):
    """What the body of a request may hold, in bytes, and the refusal of one that is larger."""

    most: int
    status: int
    detail: str


@dataclass
class _Way:
    """A lane and the processes it leads to."""

    name: str
    lane: Lane
    hands: Hands


@dataclass
class _Reply:
    status: str
    headers: list[tuple[str, str]]
    body: bytes
    route: str = ""
    waited_s: float = 0.0
    note: dict[str, Any] = field(default_factory=dict)


class Front:
    """The WSGI application that the server runs."""

    def __init__(self, settings: Settings, limits: Limits, make: str = "tuyere.web.app:create_app") -> None:
        self.settings, self.limits, self.make = settings, limits, make
        self.log = log_to_stderr(logging.WARNING)
        pulse = Pulse(settings.database_url)
        self.ready = Readiness(settings.plant, pulse, places_from_environment(), least_free_from_environment())
        self.pages = Flask("tuyere")
        hosts = list(settings.hosts)
        self.pages.config.update(SECRET_KEY=settings.secret_key, TRUSTED_HOSTS=hosts, SESSION_COOKIE_SECURE=settings.https)
        errors.install(self.pages)
        frontend.install(self.pages)
        self.cookie = f"tuyere_{settings.plant}"
        self.serializer = SecureCookieSessionInterface().get_signing_serializer(self.pages)
        half = limits.threads // 2
        # Records before sheets before searches; a search still gets an eighth of a core beside something that takes all it can.
        self.record = self._way("record", limits.record_places, half, 0)
        self.calculation = self._way("calculation", limits.calculation_places, limits.threads // 3, 5)
        self.search = self._way("search", limits.search_places, limits.threads // 6, 9)

        FREE.set_function(lambda: self.ready.free_mb() or math.nan)
        for way in (self.record, self.calculation, self.search):
            WAITING.labels(way.name).set_function(way.lane.waiting)
            AT_WORK.labels(way.name).set_function(way.lane.at_work)

    def _way(self, name: str, places: int, of_strangers: int, niceness: int) -> _Way:
        memory, seconds = self.limits.memory_mb * 1024 * 1024, self.limits.seconds
        hands = Hands(nursery.forking(), places, (self.make, self.settings, memory, niceness, seconds))
        return _Way(name, Lane(places, self.limits.threads // 2, of_strangers, 2 * seconds), hands)

    @property
    def barren(self) -> bool:
        """Processes are wanting here and cannot be had."""
        return any(way.hands.barren for way in (self.record, self.calculation, self.search))

    def _led_by(self, path: str) -> _Way:
        if not path.startswith("/api/calc/"):
            return self.record
        return self.search if path in SEARCHES else self.calculation

    def __call__(self, environ: WSGIEnvironment, start_response: StartResponse) -> Iterable[bytes]:
        """Serve a request, or lead it through its lane."""
        app: Callable[..., Iterable[bytes]] = self._answer
        if environ.get("REMOTE_ADDR") in self.settings.proxies:
            app = ProxyFix(app, x_for=1, x_proto=1, x_host=1)
        return app(environ, start_response)

    def _answer(self, environ: WSGIEnvironment, start_response: StartResponse) -> Iterable[bytes]:
        path = environ.get("PATH_INFO", "")
        if path == "/metrics":
            reply = self._metrics(environ)
        elif not path.startswith("/api/"):
            return self.pages(environ, start_response)
        else:
            reply = self._api(environ, path)
        start_response(reply.status, reply.headers)
        return [reply.body]

    def _api(self, environ: WSGIEnvironment, path: str) -> _Reply:
        began = time.monotonic()
        name = environ["HTTP_X_REQUEST_ID"] = request_id(environ.get("HTTP_X_REQUEST_ID"))
        caller = self._caller(environ)
        way = self._led_by(path)
        reply = self._own(path) if path in ("/api/health", "/api/alive") else self._led(way, caller, environ)
        if not any(header.lower() == HEADER.lower() for header, _ in reply.headers):
            reply.headers.append((HEADER, name))
        reply.headers.append((TIME, now().isoformat(timespec="milliseconds")))
        seconds = time.monotonic() - began
        method, status = environ["REQUEST_METHOD"], reply.status[:3]
        known = method if method in ("GET", "POST", "PUT", "DELETE", "HEAD", "OPTIONS") else "other"
        REQUESTS.labels(known, reply.route or "none", status).inc()
        SECONDS.labels(way.name).observe(seconds)
        self.log.info(
            "answered",
            extra={
                "request_id": name,
                "method": known,
                "route": reply.route,
                "status": int(status),
                "ms": round(1000 * seconds, 1),
                "waited_ms": round(1000 * reply.waited_s, 1),
                "lane": way.name,
                "signed_in": caller.known,
                "address": environ.get("REMOTE_ADDR", ""),
                **reply.note,
            },
        )
        return reply

    def allowed(self, method: str, path: str, content_type: str, cookie: str) -> Allowed:
        """How many bytes a body may have: a photograph more, but nobody's who is not signed in; and how one over it is refused."""
        most = bodies.largest(method, path, content_type)
        if most > bodies.TEXT and not self._caller({"HTTP_COOKIE": cookie}).known:
            return Allowed(bodies.TEXT, 401, SENTENCES[401])
        return Allowed(most, 413, bodies.too_large(most))

    def _led(self, way: _Way, caller: Caller, environ: WSGIEnvironment) -> _Reply:
        allowed = self.allowed(*(environ.get(k, "") for k in ("REQUEST_METHOD", "PATH_INFO", "CONTENT_TYPE", "HTTP_COOKIE")))
        body = _body(environ, allowed.most)
        if body is None:
            return _problem(allowed.status, allowed.detail)
        # The body goes on whole, whatever pieces it came in.
        asked = Asked({k: v for k, v in environ.items() if isinstance(v, str) and k != "HTTP_TRANSFER_ENCODING"}, body)
        try:
            with way.lane.place(caller) as waited:
                found = way.hands.ask(asked, self.limits.seconds)
                if found.write_refused:
                    self.ready.write_refused()
                return _Reply(found.status, found.headers, found.body, found.route, waited)
        except CrowdedError:
            return _problem(429, CROWDED)
        except WaitedTooLongError:
            return _problem(503, BUSY)
        except TookTooLongError:
            ENDED.labels("time").inc()
            return _problem(503, TOO_SLOW.format(seconds=self.limits.seconds), ended="time")
        except GoneError as gone:
            if gone.code == hand.OUT_OF_MEMORY:
                ENDED.labels("memory").inc()
                return _problem(503, TOO_MUCH, ended="memory")
            ENDED.labels("broke").inc()
            return _problem(503, BROKE, ended="broke")

    def _caller(self, environ: WSGIEnvironment) -> Caller:
        """The signed-in session, or the address. Only the cookie's signature is read: whether it still holds is the record's to say."""
        cookie = Request(environ).cookies.get(self.cookie)
        if cookie and self.serializer:
            try:
                known = self.serializer.loads(cookie).get("_user_id")
            except (BadData, AttributeError):
                known = None
            if known:
                return Caller(str(known), True)
        return Caller(environ.get("REMOTE_ADDR", ""), False)

    def _own(self, path: str) -> _Reply:
        """What is answered here, whatever the processes behind are at."""
        body, status = self.ready.look() if path == "/api/health" else (AliveOut(), 200)
        headers = [("Content-Type", "application/json"), ("Cache-Control", "no-store"), *frontend.SECURITY_HEADERS.items()]
        return _Reply("200 OK" if status == 200 else "503 Out of reach", headers, body.model_dump_json().encode(), path)

    def _metrics(self, environ: WSGIEnvironment) -> _Reply:
        """For this machine only: a proxy does not pass them on."""
        if environ.get("REMOTE_ADDR") not in ("127.0.0.1", "::1") or "HTTP_X_FORWARDED_FOR" in environ:
            return _problem(404)
        return _Reply("200 OK", [("Content-Type", CONTENT_TYPE_LATEST), ("Cache-Control", "no-store")], generate_latest())


def _body(environ: WSGIEnvironment, limit: int) -> bytes | None:
    """The whole body, or None when it is larger than `limit`."""
    length = environ.get("CONTENT_LENGTH") or ""
    if length.isdigit() and int(length[:15]) > limit:
        return None
    if not length and not environ.get("wsgi.input_terminated"):
        return b""
    body: bytes = environ["wsgi.input"].read(limit + 1)
    return body if len(body) <= limit else None


def _problem(status: int, detail: str = "", **note: Any) -> _Reply:
    problem: ProblemOut = titled(status, detail)
    headers = [("Content-Type", "application/problem+json"), ("Cache-Control", "no-store"), *frontend.SECURITY_HEADERS.items()]
    if status in (429, 503):
        headers.append(("Retry-After", "2"))
    return _Reply(f"{status} {problem.title}", headers, in_json(problem), note=note)


def create_front() -> Front:
    """The front of the plant named in the environment."""
    return Front(Settings.from_environment(), Limits.from_environment())
