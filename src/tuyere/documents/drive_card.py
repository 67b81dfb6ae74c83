"""The paper that lives on a machine: a drive card and a guard label with the few numbers that matter, as SVG and PDF, with a QR code."""

from dataclasses import dataclass
from typing import Literal, get_args

import segno

from tuyere.documents.pages import PAGES

Size = Literal["A6", "A5", "half", "label"]
SIZES: tuple[Size, ...] = get_args(Size)
# mm, lying: A6, A5, half a letter sheet, a label for a guard.
_MM: dict[Size, tuple[float, float]] = {"A6": (148, 105), "A5": (210, 148), "half": (215.9, 139.7), "label": (105, 60)}
_LETTER = 0.56  # width of a bold letter over its height, generously
CLOCKWISE, ANTI = "M-.7-.7A1 1 0 1 1-.99.1M-.99.1l-.24.28M-.99.1l.3.22", "M.7-.7A1 1 0 1 0 .99.1M.99.1l.24.28M.99.1l-.3.22"


@dataclass(frozen=True)
class CardRow:
    """One number: what it is, as large as it fits, and what is said smaller beside it."""

    label: str
    value: str
    detail: str = ""


@dataclass(frozen=True)
class Card:
    """A drive in few numbers. `turns`: clockwise, counter-clockwise or empty; `link`: where the QR code leads."""

    machine: str
    drive: str
    rows: tuple[CardRow, ...]
    turns: str
    link: str
    made: str


def card_svg(card: Card, size: Size = "A6") -> str:
    """The card in millimetres. A label carries only the first four numbers."""
    w, h = _MM[size]
    unit = min(w / 148, h / 105)
    pad = 5 * unit
    shown = card.rows[: 4 if size == "label" else 7]
    title = min(9.5 * unit, (w - 2 * pad) / (_LETTER * max(len(card.machine), 1)))
    small = max(3.1 * unit, 2.3)
    code = segno.make(card.link, error="m", micro=False)
    modules = code.symbol_size(border=0)[0]
    side = (0.36 if size == "label" else 0.27) * h
    top, under = pad + title * 0.75, pad + title * 1.75
    foot = h - pad * 1.6
    each = (foot - under) / max(len(shown), 1)
    wide = w - 3 * pad - side
    rows = []
    for i, r in enumerate(shown):
        y = under + i * each
        value = min(each * 0.56, wide / (_LETTER * max(len(r.value), 1)))
        room = wide - len(r.label) * small * _LETTER - 2
        detail = min(small, room / (0.5 * max(len(r.detail), 1)))
        rows.append(
            {
                "y": y,
                "x2": pad + wide,
                "label": r.label,
                "value": r.value,
                "label_y": y + small * 1.15,
                "value_y": y + small * 1.25 + value * 0.86,
                "size": value,
                "detail": r.detail if detail > 1.6 else "",
                "detail_size": detail,
            }
        )
    turn = side * 0.3
    return PAGES.get_template("card.svg").render(
        card=card,
        w=w,
        h=h,
        pad=pad,
        top=top,
        title_size=title,
        small=small,
        rows=rows,
        qr_x=w - pad - side,
        qr_y=h - pad - side,
        qr_scale=side / modules,
        qr_path=_dark(code),
        turn_x=w - pad - side / 2,
        turn_y=under + turn * 1.4,
        turn_r=turn,
        turn_path=CLOCKWISE if card.turns == "clockwise" else ANTI,
    )


def _dark(code: segno.QRCode) -> str:
    """The dark modules as one path of lines, a module wide."""
    found = []
    for y, row in enumerate(code.matrix):
        x = 0
        while x < len(row):
            run = 0
            while x + run < len(row) and row[x + run]:
                run += 1
            if run:
                found.append(f"M{x} {y + 0.5}h{run}")
            x += run or 1
    return "".join(found)


def card_pdf(card: Card, size: Size = "A6") -> bytes:
    """The card as PDF, on a page of its own size."""
    from weasyprint import HTML  # here: it takes a second to import

    w, h = _MM[size]
    page = f"<style>@page{{size:{w}mm {h}mm;margin:0}}body{{margin:0}}svg{{display:block}}</style>{card_svg(card, size)}"
    found: bytes = HTML(string=page, url_fetcher=nothing_fetched).write_pdf()
    return found


def job_sheet_pdf(job: dict[str, object], link: str) -> bytes:
    """A job for those who work from paper: every step with its number and its box. A4; it prints on letter too."""
    from weasyprint import HTML

    code = segno.make(link, error="m", micro=False).svg_inline(scale=2, border=0)
    page = PAGES.get_template("job_sheet.html").render(job=job, code=code)
    found: bytes = HTML(string=page, url_fetcher=nothing_fetched).write_pdf()
    return found


def nothing_fetched(url: str, *_args: object, **_kwargs: object) -> dict[str, object]:
    """No outside resource is named, so none is fetched."""
    raise ValueError(f"a card fetches nothing: {url}")
