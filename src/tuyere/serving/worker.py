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
from functools import partial
from typing import Any

from gunicorn.workers.gthread import TConn, ThreadWorker

from tuyere.serving import ORPHANED_S

READ_S = 15.0  # from the first byte, or from the connection, to the last byte of the body
LARGEST = 512 * 1024  # beyond this the application is asked at once: it refuses by the length that was announced
_ROOM = 64 * 1024
_LENGTH = re.compile(rb"(?im)^content-length:[ \t]*(\d+)[ \t]*\r?$")
_CHUNKED = re.compile(rb"(?im)^transfer-encoding:.*chunked")
_EXPECTS = re.compile(rb"(?im)^expect:[ \t]*100-continue")
_TOO_SLOW = b"HTTP/1.1 408 Request Timeout\r\nConnection: close\r\nContent-Type: application/problem+json\r\nContent-Length: %d\r\n\r\n%s"
_SENTENCE = (
    b'{"type":"about:blank","title":"Too slow","status":408,"detail":"The request came too slowly and was given up: send it again."}'
)


class WholeRequests(ThreadWorker):  # type: ignore[misc]
    """Reads in the worker's one loop, without blocking, and hands over to a thread what has come in whole."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.incoming: dict[TConn, bytearray] = {}
        self.orphaned_at = 0.0
        self.sockets: list[socket.socket]

    def accept(self, listener: Any) -> None:
        try:
            client, address = listener.accept()
        except (BlockingIOError, InterruptedError, ConnectionAbortedError):
            return
        self.nr_conns += 1
        client.setsockopt(socket.SOL_SOCKET, socket.SO_SNDTIMEO, struct.pack("ll", int(READ_S), 0))  # who reads slowly is left too
        self._read(TConn(self.cfg, client, address, listener.getsockname()))

    def on_client_socket_readable(self, conn: Any, client: Any) -> None:
        self.poller.unregister(client)
        self.keepalived_conns.remove(conn)
        self._read(conn)

    def murder_keepalived(self, force: bool = False) -> None:
        super().murder_keepalived(force)
        now = time.monotonic()
        for conn in [c for c in self.incoming if force or c.timeout < now]:
            self._give_up(conn, answer=bool(self.incoming[conn]))

    def is_parent_alive(self) -> bool:
        """Whose master was killed goes on for as long as a new one takes to start on the same port, then goes."""
        if os.getppid() == self.ppid:
            return True
        self.orphaned_at = self.orphaned_at or time.monotonic()
        if time.monotonic() > self.orphaned_at + ORPHANED_S:
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
        conn.data_ready = True
        conn.init()
        unreader = conn.parser.unreader
        unreader.unread(unreader.take_buffered() + conn.whole)
        conn.whole = b""
        return super().handle(conn)

    def _read(self, conn: Any) -> None:
        conn.sock.setblocking(False)
        conn.timeout = time.monotonic() + READ_S
        conn.continued = False
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
        if not new and not received:
            self._give_up(conn)
        elif not new or self._whole(conn, received):
            self.poller.unregister(conn.sock)
            conn.whole = bytes(self.incoming.pop(conn))
            self.enqueue_req(conn)

    def _whole(self, conn: Any, received: bytearray) -> bool:
        end = received.find(b"\r\n\r\n")
        if len(received) > LARGEST:
            return True
        if end < 0:
            return b"\n\n" in received  # not HTTP as it should be: the parser says so
        head, body = received[: end + 2], len(received) - end - 4
        if _CHUNKED.search(head):
            done = received.endswith(b"0\r\n\r\n")
        else:
            lengths = _LENGTH.findall(head)
            announced = int(lengths[0][:15]) if lengths else 0
            done = len(lengths) > 1 or announced > LARGEST or body >= announced
        if not done and not conn.continued and _EXPECTS.search(head):
            conn.continued = True
            conn.sock.send(b"HTTP/1.1 100 Continue\r\n\r\n")
        return done

    def _give_up(self, conn: Any, answer: bool = False) -> None:
        self.poller.unregister(conn.sock)
        del self.incoming[conn]
        self.nr_conns -= 1
        if answer:
            with contextlib.suppress(OSError):
                conn.sock.send(_TOO_SLOW % (len(_SENTENCE), _SENTENCE))
        conn.close()
