"""How large the body of a request may be: asked by the server in front, by what reads for it, and by the application."""

import re

from flask import Flask, request

from tuyere.core.basis.picture import LARGEST_BYTES, TOO_LARGE

TEXT = 256 * 1024
PICTURE = LARGEST_BYTES
_PICTURES_AT = re.compile(r"/api/drives/[0-9a-fA-F-]{36}/photos")
TOO_MUCH_TEXT = "That is far too much text for one request: shorten it and try again."


def takes_a_picture(method: str, path: str, content_type: str) -> bool:
    """Whether that request carries a photograph: by where it goes and by what it says it is."""
    return method == "POST" and bool(_PICTURES_AT.fullmatch(path)) and content_type.strip().lower().startswith("image/")


def largest(method: str, path: str, content_type: str) -> int:
    """How many bytes the body of that request may have."""
    return PICTURE if takes_a_picture(method, path, content_type) else TEXT


def too_large(limit: int) -> str:
    """The sentence for a body over `limit`."""
    return TOO_LARGE if limit == PICTURE else TOO_MUCH_TEXT


def install(app: Flask) -> None:
    """Hold every request to its limit."""

    @app.before_request
    def hold() -> None:
        request.max_content_length = largest(request.method, request.path, request.content_type or "")
