"""Answers on the wire: larger ones compressed, and what never changes told once."""

import gzip

from flask import Flask, Response, request

LEAST = 1000  # bytes; under it nothing is won
# Answers that hold a secret are never compressed beside what a caller may choose (their length would tell of it): of what is written, which
# may give a code, nothing is.
SECRETS = "/api/session"
# The same for everybody, and until the software changes: asked for again with the tag of what is there.
LASTING = ("/api/choices", "/api/families", "/api/signs", "/api/calc/size/choices", "/api/calc/toothed-lists", "/api/calc/flat-lists")
_SQUEEZED = ("application/json", "application/problem+json", "image/svg+xml", "text/")


def install(app: Flask) -> None:
    """See to what leaves."""

    @app.after_request
    def smaller(response: Response) -> Response:
        if request.path in LASTING and response.status_code == 200 and request.method == "GET":
            response.headers["Cache-Control"] = "private, no-cache"
            response.add_etag()
            response.make_conditional(request)
        kind = response.content_type or ""
        if (
            response.status_code not in (204, 304)
            and kind.startswith(_SQUEEZED)
            and (request.method == "GET" or request.path.startswith("/api/calc/"))
            and not request.path.startswith(SECRETS)
            and "Content-Encoding" not in response.headers
            and not response.direct_passthrough
            and request.accept_encodings["gzip"] > 0
        ):
            response.vary.add("Accept-Encoding")
            body = response.get_data()
            if len(body) >= LEAST:
                response.set_data(gzip.compress(body, 5, mtime=0))
                response.headers["Content-Encoding"] = "gzip"
                if tag := response.get_etag()[0]:
                    response.set_etag(tag, weak=True)
        return response
