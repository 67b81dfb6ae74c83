"""A number told beside a step, on a label or a card: a figure, or words, with the station that it is from."""

from dataclasses import dataclass

from tuyere.core.basis.figure import Figure, shown


@dataclass(frozen=True)
class Number:
    """What stands large beside a step, in both systems.

    `detail`: more in words; `page`: the station it is from; `source`: of its own, where it has one.
    """

    label: str
    us: str
    si: str
    detail: str = ""
    page: str = ""
    source: str = ""


def said(label: str, words: str, detail: str = "", page: str = "", source: str = "") -> Number:
    """A number that reads the same in both systems."""
    return Number(label, words, words, detail, page, source)


def length(label: str, value_m: float, detail: str = "", page: str = "", source: str = "") -> Number:
    """A length to set."""
    return Number(label, *shown(value_m, "length", to_set=True), detail, page, source)


def to_set(value_m: float) -> str:
    """A small length in both systems within a sentence."""
    us, si = shown(value_m, "length", to_set=True)
    return f"{us} ({si})"


def of_figure(f: Figure, label: str, detail: str = "", page: str = "") -> Number:
    """A figure of a station, as it shows it."""
    return Number(label, f.us, f.si, detail, page)


def range_of(low: str, high: str) -> str:
    """Two figures of one unit as a range: the unit once.

    >>> range_of("7.9 lbf", "12.0 lbf"), range_of("5.5 mm", "8 mm")
    ('7.9 to 12.0 lbf', '5.5 to 8 mm')
    """
    unit = low.rsplit(" ", 1)[-1]
    return f"{low.removesuffix(' ' + unit)} to {high}" if high.endswith(" " + unit) else f"{low} to {high}"
