"""The process from which those that answer are forked: it imports the application once, which takes seconds, and outlives the server.

What keeps the plant up starts it and hands it on to each server it starts: a server whose predecessor was killed forks from it at once
and opens its port only when it can answer. A server started otherwise begins one of its own. It is the standard library's fork server;
that library takes for granted that who uses it also started it, and that is all that is put right here.
"""

import os
from multiprocessing import context, forkserver, get_context
from typing import Any

_HANDED_ON = "TUYERE_NURSERY"
_server: Any = forkserver._forkserver


def forking() -> context.ForkServerContext:
    """The context whose processes come from here."""
    forkserver.set_forkserver_preload(["tuyere.serving.hand", "tuyere.web.app"])
    return get_context("forkserver")


def prepare() -> None:
    """Start it, or start it again where it was killed. It takes this process's environment."""
    forking()
    forkserver.ensure_running()


def runs() -> bool:
    """Whether the one we started still does."""
    return os.waitid(os.P_PID, _server._forkserver_pid, os.WEXITED | os.WNOHANG | os.WNOWAIT) is None


def handed_on() -> tuple[dict[str, str], int]:
    """For a process that we start: what to add to its environment, and the descriptor to pass to it."""
    held: int = _server._forkserver_alive_fd
    return {_HANDED_ON: f"{held} {_server._forkserver_address}"}, held


def adopt() -> None:
    """Use the one handed on to us, and wait until it has the application imported. Without one, nothing."""
    given = os.environ.get(_HANDED_ON)
    if given:
        held, address = given.split(" ", 1)
        _server._forkserver_alive_fd, _server._forkserver_address = int(held), address
        _server.ensure_running = lambda: None
        nothing = forking().Process(target=int)
        nothing.start()
        nothing.join()
