"""The counter slip as PDF, readable at arm's length."""

from dataclasses import dataclass
from typing import Any

from jinja2 import Environment, PackageLoader
from weasyprint import HTML

_PAGES = Environment(loader=PackageLoader("tuyere.documents", "."), autoescape=True)


@dataclass(frozen=True)
class Heading:
    """Whose slip it is: the drive, and when and by whom it was made, as printed."""

    drive: str
    made: str


def slip_html(slip: dict[str, Any], heading: Heading) -> str:
    """The slip as a page of HTML."""
    parts = [
        ("Ask for", [slip["headline"], *slip["names"]], "big"),
        ("The machine's own part number", [slip["machine_part"]] if slip["machine_part"] else [], "big"),
        ("Section", slip["section"], ""),
        ("Length", slip["length"], ""),
        ("Grade", slip["grade"], ""),
        ("Do not accept", slip["refuse"], "no"),
        ("Check first", slip["check_first"], ""),
    ]
    if not slip["names"]:
        del parts[0]
    return _PAGES.get_template("slip.html").render(slip=slip, heading=heading, parts=parts)


def slip_pdf(slip: dict[str, Any], heading: Heading) -> bytes:
    """The slip as PDF bytes. Nothing is fetched: the page names no outside resource."""
    found: bytes = HTML(string=slip_html(slip, heading), url_fetcher=_nothing).write_pdf()
    return found


def _nothing(url: str, *_args: Any, **_kwargs: Any) -> dict[str, Any]:
    raise ValueError(f"a slip fetches nothing: {url}")
