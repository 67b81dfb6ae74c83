"""Waiting for what comes true, with one generous limit for all; and processes that end with the tests that started them."""

import ctypes
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

PATIENCE_S = 150.0  # beside a busy loop on every core, too


def until(holds: Callable[[], Any], why: Callable[[], object] = lambda: "it never came to that") -> Any:
    """What is true at last."""
    limit = time.monotonic() + PATIENCE_S
    while not (found := holds()):
        assert time.monotonic() < limit, why()
        time.sleep(0.1)
    return found


def _end_with_parent() -> None:
    """Linux: a process whose parent is killed is told to end, however the parent went."""
    ctypes.CDLL(None).prctl(1, signal.SIGTERM)


def started(command: list[Any], environment: dict[str, str], **how: Any) -> "subprocess.Popen[Any]":
    """A process that ends at the latest with this one."""
    return subprocess.Popen(command, env=environment, preexec_fn=_end_with_parent, **how)


def ended(process: "subprocess.Popen[Any]", by: signal.Signals = signal.SIGTERM) -> int:
    """Told to end, and waited for; killed when it does not."""
    if process.poll() is None:
        process.send_signal(by)
    try:
        return process.wait(PATIENCE_S)
    except subprocess.TimeoutExpired:
        process.kill()
        return process.wait()


@contextmanager
def gunicorn(environment: dict[str, str], *words: str) -> Iterator["subprocess.Popen[Any]"]:
    """Our server, ended whatever happens inside."""
    command = [sys.executable, "-m", "gunicorn", "-c", "python:tuyere.serving.gunicorn_conf", *words]
    server = started(command, os.environ | environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    try:
        yield server
    finally:
        ended(server)
