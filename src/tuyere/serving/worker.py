"""Gunicorn's threaded worker, but a request gets a thread only once it is there whole: who sends slowly keeps nobody waiting.

A request that is not whole in time is answered 408 and its connection closed.
"""

import contextlib
import os
import re
import select
import selectors
import socket
import struct
import time
from dataclasses import dataclass
from functools import partial
from typing import Any

from gunicorn.workers.gthread import TConn, ThreadWorker

from tuyere.serving import ORPHANED_S
from tuyere.serving.front import Allowed
from tuyere.web.bodies import TEXT
from tuyere.web.errors import in_json, titled

READ_S = 15.0  # from the first byte, or from the connection, to the last byte of the body
SLOWEST = 8 * 1024  # bytes a second of a photograph: each that came buys it time
PICTURES_ROOM = 96 * 1024 * 1024  # what photographs on their way may hold together
THROWN_AWAY = 64 * 1024 * 1024  # of a body that is refused this much is taken in, for who still sends hears no answer
_ROOM = 64 * 1024
_LINE = re.compile(rb"\A([A-Z]+) ([^ ?]+)")
_TYPE = re.compile(rb"(?im)^content-type:[ \t]*([^\r\n]*)")
_COOKIE = re.compile(rb"(?im)^cookie:[ \t]*([^\r\n]*)")
_LENGTH = re.compile(rb"(?im)^content-length:[ \t]*(\d+)[ \t]*\r?$")
_CHUNKED = re.compile(rb"(?im)^transfer-encoding:.*chunked")
_EXPECTS = re.compile(rb"(?im)^expect:[ \t]*100-continue")
_ANSWER = b"HTTP/1.1 %d %s\r\nConnection: close\r\nContent-Type: application/problem+json\r\nRetry-After: 2\r\nContent-Length: %d\r\n\r\n%s"
_FULL = "Many photographs are on their way just now. Wait a moment, then send it again."


@dataclass
class _Head:
    """What is read from the head of a request while its body still comes."""

    end: int  # of the head, in bytes
    announced: int
    allowed: Allowed
    twice: bool  # two lengths: the parser refuses it
    chunked: bool
    expects: bool

    @property
    def refused(self) -> bool:
        """It will be refused by the length it announced."""
        return self.announced > self.allowed.most and not self.chunked and not self.twice

    @property
    def of_picture(self) -> bool:
        """It may be large."""
        return self.allowed.most > TEXT

    @property
    def held(self) -> int:
        """What a photograph may come to hold; other bodies are small."""
        return self.announced if self.of_picture and not self.refused else 0


class WholeRequests(ThreadWorker):  # type: ignore[misc]
    """Reads in the worker's one loop, without blocking, and hands over to a thread what has come in whole."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.incoming: dict[TConn, bytearray] = {}
        self.wsgi: Any
        self.orphaned_at = 0.0
        self.sockets: list[socket.socket]

    def accept(self, listener: Any) -> None:
        """Take a caller in, where there is room."""
        try:
            client, address = listener.accept()
        except (BlockingIOError, InterruptedError, ConnectionAbortedError):
            return
        self.nr_conns += 1
        client.setsockopt(socket.SOL_SOCKET, socket.SO_SNDTIMEO, struct.pack("ll", int(READ_S), 0))  # who reads slowly is left too
        self._read(TConn(self.cfg, client, address, listener.getsockname()))

    def on_client_socket_readable(self, conn: Any, client: Any) -> None:
        """Read on; hand it to a thread once it is there whole."""
        self.poller.unregister(client)
        self.keepalived_conns.remove(conn)
        self._read(conn)

    def murder_keepalived(self, force: bool = False) -> None:
        """Also end those who send too slowly."""
        super().murder_keepalived(force)
        now = time.monotonic()
        for conn in [c for c in self.incoming if force or c.timeout < now]:
            self._give_up(conn, 408 if self.incoming[conn] else 0)

    def is_parent_alive(self) -> bool:
        """Whose master was killed goes on for as long as a new one takes to start on the same port, then goes."""
        if os.getppid() == self.ppid:
            return True
        self.orphaned_at = self.orphaned_at or time.monotonic()
        # One that cannot work any more would keep those who come to it waiting beside a server that can.
        if time.monotonic() > self.orphaned_at + ORPHANED_S or getattr(self.wsgi, "barren", False):
            self.alive = False
        return bool(self.alive)

    def set_accept_enabled(self, enabled: bool) -> None:
        """One that goes takes what has come to it and closes its port: the rest comes to the one beside it, not into a dead queue."""
        super().set_accept_enabled(enabled)
        if not self.alive:
            while waiting := select.select(self.sockets, (), (), 0)[0]:
                for listener in waiting:
                    self.accept(listener)
            for listener in self.sockets:
                listener.close()
            self.sockets = []

    def handle(self, conn: Any) -> Any:
        """Answer a request that was read whole."""
        conn.data_ready = True
        conn.init()
        unreader = conn.parser.unreader
        unreader.unread(unreader.take_buffered() + conn.whole)
        conn.whole = b""
        return super().handle(conn)

    def _read(self, conn: Any) -> None:
        conn.sock.setblocking(False)
        conn.timeout = time.monotonic() + READ_S
        conn.continued, conn.head, conn.thrown = False, None, 0
        self.incoming[conn] = bytearray()
        self.poller.register(conn.sock, selectors.EVENT_READ, partial(self._more, conn))

    def _more(self, conn: Any, _sock: Any) -> None:
        received = self.incoming[conn]
        try:
            new = conn.sock.recv(_ROOM)
        except (BlockingIOError, InterruptedError):
            return
        except OSError:
            new = b""
        received += new
        conn.head = head = conn.head or self._head(received)
        if not new and not received:
            self._give_up(conn)
        elif head and head.refused:
            conn.thrown += len(received) - head.end
            del received[head.end :]
            if not new or head.expects or conn.thrown >= head.announced or head.announced > THROWN_AWAY:
                self._give_up(conn, head.allowed.status, head.allowed.detail)
        elif not new or self._whole(conn, received):
            self.poller.unregister(conn.sock)
            conn.whole = bytes(self.incoming.pop(conn))
            self.enqueue_req(conn)
        elif self._pictures() > PICTURES_ROOM:
            self._give_up(conn, 503, _FULL)
        elif head and head.of_picture:
            conn.timeout += len(new) / SLOWEST

    def _whole(self, conn: Any, received: bytearray) -> bool:
        head: _Head | None = conn.head
        if head is None:
            return b"\n\n" in received or len(received) > TEXT  # not HTTP as it should be: the parser says so
        body = len(received) - head.end
        ended = received.endswith(b"0\r\n\r\n") or body > 2 * head.allowed.most
        done = head.twice or (ended if head.chunked else body >= head.announced)
        if not done and not conn.continued and head.expects:
            conn.continued = True
            conn.sock.send(b"HTTP/1.1 100 Continue\r\n\r\n")
        return done

    def _head(self, received: bytearray) -> _Head | None:
        end = received.find(b"\r\n\r\n")
        if end < 0:
            return None
        head = bytes(received[: end + 2])
        line, kind, cookie = (pattern.search(head) for pattern in (_LINE, _TYPE, _COOKIE))
        method, path = (part.decode("latin-1") for part in line.groups()) if line else ("", "")
        said = [found[1].decode("latin-1") if found else "" for found in (kind, cookie)]
        lengths = _LENGTH.findall(head)
        return _Head(
            end=end + 4,
            announced=int(lengths[0][:15]) if lengths else 0,
            allowed=self.wsgi.allowed(method, path, *said),
            twice=len(lengths) > 1,
            chunked=bool(_CHUNKED.search(head)),
            expects=bool(_EXPECTS.search(head)),
        )

    def _pictures(self) -> int:
        return sum(conn.head.held for conn in self.incoming if conn.head)

    def _give_up(self, conn: Any, status: int = 0, detail: str = "") -> None:
        """Close it; with an answer where there is a status."""
        self.poller.unregister(conn.sock)
        del self.incoming[conn]
        self.nr_conns -= 1
        if status:
            problem = titled(status, detail)
            said = in_json(problem)
            with contextlib.suppress(OSError):
                conn.sock.send(_ANSWER % (status, problem.title.encode(), len(said), said))
        conn.close()
