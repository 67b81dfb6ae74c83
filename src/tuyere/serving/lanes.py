"""Who goes next: a few places to work, shared among callers so that none of them can keep the others out.

A lane has `places` requests at work at once. Whoever waits is served by turns: the caller with the fewest at work goes first, then the
one served longest ago. Those who are not signed in never hold the last place of a lane that has more than one.
"""

import threading
import time
from collections import defaultdict, deque
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field


class CrowdedError(Exception):
    """The caller, or everybody who is not signed in, has as many waiting as may wait."""


class WaitedTooLongError(Exception):
    """No place came free in the time one request may wait."""


@dataclass(frozen=True)
class Caller:
    """Who asks: a session, or an address; `known` tells a session."""

    name: str
    known: bool


@dataclass(eq=False)
class _Ticket:
    caller: Caller
    granted: bool = False


@dataclass
class Lane:
    """`places` at work at once. Waiting or at work: at most `of_one` of one caller, `of_strangers` of all who are not signed in."""

    places: int
    of_one: int
    of_strangers: int
    patience_s: float
    _turn: threading.Condition = field(default_factory=threading.Condition)
    _waiting: dict[Caller, deque[_Ticket]] = field(default_factory=dict)
    _at_work: dict[Caller, int] = field(default_factory=lambda: defaultdict(int))
    _served: dict[Caller, int] = field(default_factory=dict)
    _count: int = 0

    @contextmanager
    def place(self, caller: Caller) -> Iterator[float]:
        """A place for one request of `caller`; gives the seconds it waited. Raises CrowdedError, WaitedTooLongError."""
        began = time.monotonic()
        ticket = self._wait(caller, began + self.patience_s)
        try:
            yield time.monotonic() - began
        finally:
            with self._turn:
                self._at_work[ticket.caller] -= 1
                if not self._at_work[ticket.caller]:
                    del self._at_work[ticket.caller]
                self._grant()

    def waiting(self) -> int:
        """How many wait."""
        return sum(map(len, list(self._waiting.values())))

    def at_work(self) -> int:
        """How many are at work."""
        return sum(list(self._at_work.values()))

    def _wait(self, caller: Caller, until: float) -> _Ticket:
        with self._turn:
            if self._held(caller) >= self.of_one or (not caller.known and self._held_by_strangers() >= self.of_strangers):
                raise CrowdedError
            ticket = _Ticket(caller)
            self._waiting.setdefault(caller, deque()).append(ticket)
            self._grant()
            while not ticket.granted:
                left = until - time.monotonic()
                if left <= 0:
                    self._forget(ticket)
                    raise WaitedTooLongError
                self._turn.wait(left)
            return ticket

    def _held(self, caller: Caller) -> int:
        return self._at_work.get(caller, 0) + len(self._waiting.get(caller, ()))

    def _held_by_strangers(self) -> int:
        return sum(self._held(c) for c in {*self._at_work, *self._waiting} if not c.known)

    def _forget(self, ticket: _Ticket) -> None:
        queue = self._waiting[ticket.caller]
        queue.remove(ticket)
        if not queue:
            del self._waiting[ticket.caller]

    def _grant(self) -> None:
        while self.at_work() < self.places:
            strangers = sum(n for c, n in self._at_work.items() if not c.known)
            full = strangers >= max(1, self.places - 1)
            able = [c for c in self._waiting if c.known or not full]
            if not able:
                break
            caller = min(able, key=lambda c: (self._at_work.get(c, 0), self._served.get(c, 0)))
            ticket = self._waiting[caller][0]
            self._forget(ticket)
            self._count += 1
            self._served[caller] = self._count
            self._at_work[caller] += 1
            ticket.granted = True
        if len(self._served) > 4096:  # long gone callers
            self._served = {c: n for c, n in self._served.items() if c in self._waiting or c in self._at_work}
        self._turn.notify_all()
