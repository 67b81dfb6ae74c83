"""The process from which those that answer are forked: it imports the application once, before the port is open.

The master starts it and every worker uses it, so that a new worker answers at once, and a new master opens its port only when it can.
It is the standard library's fork server; that library takes for granted that who uses it also started it, which is put right here.
"""

import os
from multiprocessing import context, forkserver, get_context
from typing import Any

APPLICATION = ("tuyere.serving.hand", "tuyere.web.app")

_server: Any = forkserver._forkserver


def forking() -> context.ForkServerContext:
    """The context whose processes come from here."""
    return get_context("forkserver")


def prepare() -> None:
    """In the master: start it, or start it again where it was killed."""
    forkserver.set_forkserver_preload(list(APPLICATION))
    try:
        forkserver.ensure_running()
    except ChildProcessError:  # it ended, and the master has already noticed like any other child's end
        os.close(_server._forkserver_alive_fd)
        _server._forkserver_pid = None
        forkserver.ensure_running()


def wait_until_warm() -> None:
    """In the master: until the application is imported."""
    nothing = forking().Process(target=int)
    nothing.start()
    nothing.join()


def use_the_masters() -> None:
    """In a worker: never ask whether it runs, for it is not the worker's child."""
    _server.ensure_running = lambda: None
