"""The counter slip as PDF, readable at arm's length."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from tuyere.documents.pages import PAGES

if TYPE_CHECKING:
    from weasyprint.document import Document

SIZES_PT = (12.5, 11.5, 10.5, 9.5, 8.5, 7.5)  # the largest that keeps a slip on its one page


@dataclass(frozen=True)
class Heading:
    """Whose slip it is: the drive, and when and by whom it was made, as printed."""

    drive: str
    made: str


def slip_html(slip: dict[str, Any], heading: Heading, size_pt: float = SIZES_PT[0]) -> str:
    """The slip as a page of HTML, its text `size_pt` high."""
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
    return PAGES.get_template("slip.html").render(slip=slip, heading=heading, parts=parts, size=size_pt)


def slip_pdf(slip: dict[str, Any], heading: Heading) -> bytes:
    """The slip as PDF bytes. Nothing is fetched: the page names no outside resource."""
    found: bytes = laid_out(slip, heading).write_pdf()
    return found


def laid_out(slip: dict[str, Any], heading: Heading) -> "Document":
    """The slip on its one page, in the largest letters that keep it there (on more pages where even the smallest do not)."""
    from weasyprint import HTML  # here: it takes a second to import, and few requests need it

    for size in SIZES_PT:
        laid = HTML(string=slip_html(slip, heading, size), url_fetcher=_nothing).render()
        if len(laid.pages) == 1:
            break
    return laid


def _nothing(url: str, *_args: Any, **_kwargs: Any) -> dict[str, Any]:
    raise ValueError(f"a slip fetches nothing: {url}")
