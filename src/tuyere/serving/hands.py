"""Processes that each answer one request at a time, ended and replaced when one takes too long, too much memory, or dies.

Each has a pipe of its own. The pools of the usual libraries share one pipe and its lock among their processes: killed at the wrong
moment, one of them takes the whole pool with it.
"""

import queue
import threading
import time
from dataclasses import dataclass
from multiprocessing.connection import Connection
from typing import Any

from tuyere.serving import hand
from tuyere.serving.hand import Answered, Asked


class TookTooLongError(Exception):
    """The request was stopped with its process."""


class GoneError(Exception):
    """The process died over the request; `code` is what it ended with."""

    def __init__(self, code: int | None) -> None:
        super().__init__(code)
        self.code = code


@dataclass
class _Hand:
    process: Any
    pipe: "Connection[Asked, Answered]"


class Hands:
    """`count` processes begun with `given` (the arguments of `hand.work` after the pipe) in a multiprocessing context."""

    def __init__(self, context: Any, count: int, given: tuple[Any, ...]) -> None:
        self._context, self._given = context, given
        self.barren = False  # where they are forked from is gone: none can be replaced
        self._idle: queue.SimpleQueue[_Hand] = queue.SimpleQueue()
        for _ in range(count):
            self._another()

    def ask(self, asked: Asked, seconds: float) -> Answered:
        """The answer of whichever is idle first. Raises TookTooLongError, GoneError."""
        one = self._idle.get()
        while one.pipe.poll():  # it says nothing unasked: it was killed while it had nothing to do, and nobody need notice
            self._replace(one)
            one = self._idle.get()
        try:
            one.pipe.send(asked)
            if not one.pipe.poll(seconds):
                raise TookTooLongError
            answer = one.pipe.recv()
        except (EOFError, OSError):
            one.process.join(5)
            self._replace(one)
            raise GoneError(one.process.exitcode) from None
        except BaseException:
            self._replace(one)
            raise
        self._idle.put(one)
        return answer

    def _replace(self, one: _Hand) -> None:
        one.process.kill()
        one.pipe.close()
        self._another()

    def _another(self) -> None:
        threading.Thread(target=self._begin, daemon=True).start()

    def _begin(self) -> None:
        """Start one; it counts as idle once its application is made."""
        while True:
            here, there = self._context.Pipe()
            process = self._context.Process(target=hand.work, args=(there, *self._given), daemon=True)
            try:
                process.start()
            except OSError:  # where they are forked from is gone: another server is on its way, or it is started again
                self.barren = True
                here.close()
                there.close()
                time.sleep(0.5)
                continue
            self.barren = False
            there.close()
            try:
                here.recv()
            except (EOFError, OSError):
                process.join()
                here.close()
                time.sleep(0.5)  # it died while it began, as when memory is short: try again
            else:
                self._idle.put(_Hand(process, here))
                return
