"""Logs as JSON lines on standard error, one for each request and each thing that went wrong; without body, query, cookie or secret."""

import logging
import sys

from pythonjsonlogger.json import JsonFormatter

from tuyere.web.logs import RequestId


def log_to_stderr(level: int) -> logging.Logger:
    """Send everything from `level` on to standard error; gives the logger of requests, which logs from INFO on."""
    handler = logging.StreamHandler(sys.stderr)
    handler.setFormatter(JsonFormatter("%(levelname)s %(name)s %(message)s", timestamp="at", rename_fields={"levelname": "level"}))
    handler.addFilter(RequestId())
    root = logging.getLogger()
    root.handlers[:] = [handler]
    root.setLevel(level)
    requests = logging.getLogger("tuyere.requests")
    requests.setLevel(logging.INFO)
    return requests
