"""The templates of what is printed: escaped, and well-formed whatever is in the rows."""

from typing import Any

from jinja2 import Environment, PackageLoader
from markupsafe import Markup

from tuyere.core.basis.characters import drawable


def _clean(value: Any) -> Any:
    if isinstance(value, str):
        return Markup(drawable(value)) if isinstance(value, Markup) else drawable(value)
    return value


PAGES = Environment(loader=PackageLoader("tuyere.documents", "."), autoescape=True, trim_blocks=True, lstrip_blocks=True, finalize=_clean)
