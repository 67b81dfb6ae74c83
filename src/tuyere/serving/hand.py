"""A process that answers one request at a time with the whole application in it, and that may be ended at any moment."""

import gc
import importlib
import io
import logging
import math
import os
import resource
import signal
import sys
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any, NamedTuple

from flask import Flask
from werkzeug.test import run_wsgi_app

from tuyere.serving.logs import log_to_stderr
from tuyere.web.settings import Settings

OUT_OF_MEMORY = 77  # the exit code of a process whose request wanted more than its bound
_GRACE_S = 10  # beyond the limit that the worker keeps; for when the worker is gone

_app: Flask | None = None


class Asked(NamedTuple):
    """A request: the text values of its WSGI environ, and its body."""

    environ: dict[str, str]
    body: bytes


class Answered(NamedTuple):
    """A response, the rule of the route that gave it (for counting), and whether the database would not keep a write."""

    status: str
    headers: list[tuple[str, str]]
    body: bytes
    route: str
    write_refused: bool = False


def begin(make: str, settings: Settings, memory_bytes: int, niceness: int) -> None:
    """Make the application by `make`, as "module:function", once in each process. `memory_bytes`: what a request may take beyond it."""
    global _app
    os.nice(niceness)
    log_to_stderr(logging.WARNING)
    module, function = make.split(":")
    _app = getattr(importlib.import_module(module), function)(settings)  # here: the front imports this module, not the application
    gc.collect()
    gc.freeze()  # tables, routes and models stay for good: looking through them again and again took a fifth of each request
    bound = _data_bytes() + memory_bytes
    resource.setrlimit(resource.RLIMIT_DATA, (bound, bound))


def work(pipe: "Connection[Any, Any]", make: str, settings: Settings, memory_bytes: int, niceness: int, seconds: float) -> None:
    """Make the application, say so, and answer one request after the other until nobody is at the other end."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    begin(make, settings, memory_bytes, niceness)
    pipe.send(True)
    try:
        while True:
            asked = pipe.recv()
            signal.alarm(math.ceil(seconds) + _GRACE_S)
            pipe.send(answer(asked))
            signal.alarm(0)
    except (EOFError, OSError):
        os._exit(0)


def answer(asked: Asked) -> Answered:
    """Run one request through the application. When memory runs out the process ends itself; its exit code says why."""
    assert _app is not None
    told: dict[str, Any] = {}
    environ: dict[str, Any] = {
        "tuyere.told": told,
        **asked.environ,
        "wsgi.version": (1, 0),
        "wsgi.input": io.BytesIO(asked.body),
        "wsgi.errors": sys.stderr,
        "wsgi.multithread": False,
        "wsgi.multiprocess": True,
        "wsgi.run_once": False,
        "CONTENT_LENGTH": str(len(asked.body)),
    }
    try:
        chunks, status, headers = run_wsgi_app(_app.wsgi_app, environ, buffered=True)
        body = b"".join(chunks)
    except MemoryError:
        os._exit(OUT_OF_MEMORY)
    if told.get("out_of_memory"):
        os._exit(OUT_OF_MEMORY)
    return Answered(status, list(headers.items()), body, told.get("route", ""), told.get("write_refused", False))


def _data_bytes() -> int:
    with Path("/proc/self/status").open() as status:
        line = next(row for row in status if row.startswith("VmData"))
    return int(line.split()[1]) * 1024
