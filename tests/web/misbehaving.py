"""The application with three routes that no request should find: one never ends, one takes all memory, one kills its process."""

import os
import signal

from flask import Flask, Response, jsonify

from tuyere.serving.front import Front, Limits
from tuyere.web.app import create_app
from tuyere.web.rules import computes
from tuyere.web.settings import Settings


def make(settings: Settings) -> Flask:
    app = create_app(settings)

    @computes()
    def spin() -> Response:
        while True:
            pass

    @computes()
    def hoard() -> Response:
        return jsonify(len([bytearray(1 << 20) for _ in range(100_000)]))

    @computes()
    def die() -> Response:
        os.kill(os.getpid(), signal.SIGKILL)
        return jsonify(0)

    for view in (spin, hoard, die):
        app.add_url_rule(f"/api/calc/{view.__name__}", view.__name__, view)
    return app


def create_front() -> Front:
    return Front(Settings.from_environment(), Limits.from_environment(), "tests.web.misbehaving:make")
