"""Gunicorn's settings: one process in front with many threads that only wait; the work is done in the processes behind it."""

import os
from typing import Any

from tuyere.serving import nursery
from tuyere.serving.front import Limits

reuse_port = True  # a new master starts beside the last requests of one that was killed
bind = os.environ.get("TUYERE_BIND", "127.0.0.1:8640")
wsgi_app = "tuyere.serving.front:create_front()"
worker_class = "tuyere.serving.worker.WholeRequests"
workers = 1
threads = Limits.from_environment().threads
worker_connections = 2000
keepalive = 5
timeout = 30  # of the loop in front, not of a request
graceful_timeout = 10
errorlog = "-"
accesslog = None
loglevel = "warning"
control_socket_disable = True


def on_starting(_server: Any) -> None:
    """Before the port is open: a worker left over from a killed master answers meanwhile."""
    nursery.adopt()
