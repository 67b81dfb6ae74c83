"""The built front end: hashed files cached for good, the page itself never, and security headers on everything."""

import re
from collections.abc import Callable, MutableMapping
from pathlib import Path

from flask import Flask, Response, request, send_file
from whitenoise import WhiteNoise

from tuyere.web.errors import Refusal

View = Callable[..., Response]
BUILT = Path(__file__).parent / "built"
SECURITY_HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "camera=(), geolocation=(), microphone=()",
}
_HASHED = re.compile(r"/assets/.+-[\w-]{8,}\.\w+$")


def install(app: Flask, rule: Callable[[View], View] = lambda view: view) -> None:
    """Serve the front end beside the API; `rule` marks its route with who may call it."""

    @app.after_request
    def headers(response: Response) -> Response:
        for name, value in SECURITY_HEADERS.items():
            response.headers.setdefault(name, value)
        if app.config.get("SESSION_COOKIE_SECURE"):
            response.headers.setdefault("Strict-Transport-Security", "max-age=31536000")
        if request.path.startswith("/api/"):  # a list or a slip is the record too, not only JSON
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    def page(**_path: str) -> Response:
        """Any address that is not a file or the API is the page: the front end finds its place."""
        if _path.get("address", "").lstrip("/").startswith(("api/", "assets/")):
            raise Refusal(404)
        if not (BUILT / "index.html").exists():
            raise Refusal(404, "The front end is not built: run bin/start.")
        response = send_file(BUILT / "index.html", max_age=0)
        response.headers["Cache-Control"] = "no-cache"
        return response

    view = rule(page)
    app.add_url_rule("/", "page", view)
    app.add_url_rule("/<path:address>", "page_at", view)
    if BUILT.exists():
        app.wsgi_app = WhiteNoise(  # type: ignore[method-assign]
            app.wsgi_app,
            root=str(BUILT),
            immutable_file_test=lambda _path, url: bool(_HASHED.search(url)),
            max_age=0,
            add_headers_function=_file_headers,
        )


def _file_headers(headers: MutableMapping[str, str], _path: str, _url: str) -> None:
    for name, value in SECURITY_HEADERS.items():
        headers[name] = value
