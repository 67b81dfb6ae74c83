"""The application factory."""

import os
import uuid
from dataclasses import dataclass

from flask import Flask, Response, jsonify
from flask_login import LoginManager
from flask_openapi3 import Info, OpenAPI
from flask_wtf.csrf import CSRFError, CSRFProtect
from sqlmodel import Session

from tuyere import __version__
from tuyere.store.database import engine_from, url_from_environment
from tuyere.store.tables import Person
from tuyere.web import (
    at_machine,
    bench,
    calc,
    candidates,
    drives,
    errors,
    find,
    flat,
    floor,
    found,
    frontend,
    link,
    lists,
    log,
    path,
    people,
    readable,
    readings,
    rules,
    session,
    shaft,
    size,
    speeds,
    toothed,
)
from tuyere.web.errors import ProblemOut, respond, validation_problem
from tuyere.web.rules import anyone
from tuyere.web.state import SignedIn

LARGEST_REQUEST = 256 * 1024

LOOPBACK = ("localhost", "127.0.0.1", "::1")


@dataclass(frozen=True)
class Settings:
    """What a server knows: the database, the cookie key, whether it is the demo plant, the plant's name, and the hosts it answers to."""

    database_url: str
    secret_key: str
    demo: bool = False
    plant: str = "tuyere"
    hosts: tuple[str, ...] = LOOPBACK

    @classmethod
    def from_environment(cls) -> "Settings":
        key = os.environ.get("TUYERE_SECRET_KEY", "")
        if len(key) < 32:
            raise RuntimeError("TUYERE_SECRET_KEY is missing or short: start with bin/start, or set 32 random characters or more.")
        hosts = tuple(h.strip() for h in os.environ.get("TUYERE_HOSTS", "").split(",") if h.strip()) or LOOPBACK
        return cls(url_from_environment(), key, os.environ.get("TUYERE_DEMO") == "1", os.environ.get("TUYERE_PLANT", "tuyere"), hosts)


def create_app(settings: Settings | None = None) -> Flask:
    """The Flask application: rules, errors, routes, and the built front end."""
    found = settings or Settings.from_environment()
    app = openapi_app()
    app.config.update(
        SECRET_KEY=found.secret_key,
        DEMO=found.demo,
        PLANT=found.plant,
        MAX_CONTENT_LENGTH=LARGEST_REQUEST,
        TRUSTED_HOSTS=list(found.hosts),
        SESSION_COOKIE_NAME=f"tuyere_{found.plant}",
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        WTF_CSRF_TIME_LIMIT=None,
        WTF_CSRF_CHECK_DEFAULT=True,
    )
    app.extensions["engine"] = engine_from(found.database_url, serving=True)
    _sign_in(app)
    csrf = CSRFProtect(app)
    for endpoint, view in app.view_functions.items():
        rule = rules.rule_of(app, endpoint)
        if rule and rule.computes:
            csrf.exempt(view)

    @app.errorhandler(CSRFError)
    def no_csrf(_error: CSRFError) -> Response:
        return respond(
            ProblemOut(title="Bad request", status=400, detail="The page is out of date: reload it and try again. What you typed is kept.")
        )

    frontend.install(app)
    return app


def openapi_app() -> OpenAPI:
    """The routes and their OpenAPI document, without a database."""
    app = OpenAPI(
        "tuyere",
        info=Info(title="Tuyere", version=__version__),
        security_schemes={
            "session": {"type": "apiKey", "in": "cookie", "name": "tuyere", "description": "the cookie that signing in sets"},
            "csrf": {"type": "apiKey", "in": "header", "name": "X-CSRFToken", "description": "from GET /api/session, with every write"},
        },
        doc_ui=False,  # the library's pages are not ours; the document is served below
        validation_error_callback=validation_problem,
        validation_error_model=ProblemOut,
        static_folder=None,
    )
    errors.install(app)
    readable.install(app)
    rules.install(app)
    modules = (
        calc,
        find,
        path,
        toothed,
        flat,
        link,
        speeds,
        size,
        candidates,
        shaft,
        bench,
        lists,
        session,
        floor,
        drives,
        found,
        readings,
        at_machine,
        log,
        people,
    )
    for module in modules:
        app.register_api(module.blueprint)

    @app.get("/api/health", summary="Is it up, and which plant is it")
    @anyone()
    def health() -> Response:
        return jsonify(name="tuyere", plant=app.config.get("PLANT", ""))

    @app.get("/api/openapi.json", summary="This document", doc_ui=False)
    @anyone()
    def document() -> Response:
        return jsonify(app.api_doc)

    return app


def _sign_in(app: Flask) -> None:
    manager = LoginManager(app)
    manager.session_protection = "basic"

    @manager.user_loader  # type: ignore[untyped-decorator]
    def load(person_id: str) -> SignedIn | None:
        try:
            wanted = uuid.UUID(person_id)
        except ValueError:
            return None
        with Session(app.extensions["engine"]) as found:
            person = found.get(Person, wanted)
            return SignedIn(person) if person else None
