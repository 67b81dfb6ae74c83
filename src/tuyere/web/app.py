"""The application factory."""

import json
import uuid

from flask import Flask, Response
from flask_login import LoginManager
from flask_openapi3 import Info, OpenAPI
from flask_wtf.csrf import CSRFError, CSRFProtect

from tuyere import __version__
from tuyere.store.address import Pulse
from tuyere.store.database import engine_from
from tuyere.store.sessions import person_of_session
from tuyere.web import (
    align,
    alignments,
    at_machine,
    bench,
    bodies,
    calc,
    candidates,
    cards,
    choices,
    diagnosis,
    drives,
    due_answers,
    dues,
    errors,
    factors,
    find,
    flat,
    floor,
    found,
    frontend,
    happened,
    inspect,
    jobs,
    link,
    lists,
    log,
    logs,
    path,
    people,
    photos,
    readable,
    readings,
    rig,
    rounds,
    rules,
    seen,
    session,
    shaft,
    size,
    smaller,
    speeds,
    tension,
    toothed,
    wear,
    worn,
)
from tuyere.web.answers import answer
from tuyere.web.described import complete
from tuyere.web.errors import ProblemOut, respond, titled, validation_problem
from tuyere.web.health import AliveOut, HealthOut, Readiness
from tuyere.web.routes import DESCRIBED
from tuyere.web.rules import anyone
from tuyere.web.settings import Settings
from tuyere.web.state import SignedIn, end_reading, reading


def create_app(settings: Settings | None = None) -> Flask:
    """The Flask application: rules, errors, routes, and the built front end."""
    found = settings or Settings.from_environment()
    app = openapi_app()
    app.config.update(
        SECRET_KEY=found.secret_key,
        DEMO=found.demo,
        PLANT=found.plant,
        TRUSTED_HOSTS=list(found.hosts),
        SESSION_COOKIE_NAME=f"tuyere_{found.plant}",
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SECURE=found.https,
        WTF_CSRF_TIME_LIMIT=None,
        WTF_CSRF_CHECK_DEFAULT=True,
    )
    app.extensions["engine"] = engine_from(found.database_url, serving=True)
    app.extensions["ready"] = Readiness(found.plant, Pulse(found.database_url))
    app.teardown_appcontext(end_reading)
    _sign_in(app)
    csrf = CSRFProtect(app)
    for endpoint, view in app.view_functions.items():
        rule = rules.rule_of(app, endpoint)
        if rule and rule.computes:
            csrf.exempt(view)

    @app.errorhandler(CSRFError)
    def no_csrf(_error: CSRFError) -> Response:
        return respond(titled(400, "The page is out of date: reload it and try again. What you typed is kept."))

    frontend.install(app, anyone())
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
    logs.install(app)
    bodies.install(app)
    smaller.install(app)
    errors.install(app)
    readable.install(app)
    rules.install(app)
    modules = (
        calc,
        find,
        path,
        toothed,
        dues,
        flat,
        link,
        speeds,
        size,
        candidates,
        shaft,
        tension,
        align,
        rig,
        diagnosis,
        wear,
        bench,
        lists,
        session,
        factors,
        choices,
        floor,
        drives,
        found,
        readings,
        alignments,
        inspect,
        worn,
        photos,
        rounds,
        jobs,
        cards,
        seen,
        happened,
        due_answers,
        at_machine,
        log,
        people,
    )
    for module in modules:
        app.register_api(module.blueprint)

    @app.get(
        "/api/health",
        summary="Is it ready: does its database answer and keep what is written, and which plant is it",
        responses={"200": HealthOut, "503": HealthOut},
        doc_ui=DESCRIBED,
    )
    @anyone()
    def health() -> Response:
        return answer(*app.extensions["ready"].look())

    @app.get("/api/alive", summary="Does the server run", responses={"200": AliveOut}, doc_ui=DESCRIBED)
    @anyone()
    def alive() -> Response:
        return answer(AliveOut())

    @app.get("/api/openapi.json", summary="This document", doc_ui=False)
    @anyone()
    def document() -> Response:
        if not DESCRIBED:
            return Response((frontend.BUILT / "openapi.json").read_bytes(), content_type="application/json")
        return Response(json.dumps(complete(app, app.api_doc), default=str), content_type="application/json")

    return app


def _sign_in(app: Flask) -> None:
    manager = LoginManager(app)
    manager.session_protection = "basic"

    @manager.user_loader  # type: ignore[untyped-decorator]
    def load(sign_in_id: str) -> SignedIn | None:
        try:
            wanted = uuid.UUID(sign_in_id)
        except ValueError:
            return None
        with reading() as session:
            person = person_of_session(session, wanted)
            return SignedIn(*person, wanted) if person else None
