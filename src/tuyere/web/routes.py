"""A group of routes. Their description costs seconds to make: a server that has it in a file already leaves it out."""

import os

from flask_openapi3 import APIBlueprint, Tag

DESCRIBED = os.environ.get("TUYERE_DESCRIBED") != "0"


def routes(name: str, prefix: str, tag: str, about: str | None = None) -> APIBlueprint:
    """A blueprint whose routes stand under `prefix`, in the document under `tag`."""
    return APIBlueprint(name, __name__, url_prefix=prefix, abp_tags=[Tag(name=tag, description=about)], doc_ui=DESCRIBED)
