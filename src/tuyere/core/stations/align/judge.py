"""Whether two wheels run true enough: each error against its tolerance, with how sure that is and what would settle it."""

import math

from tuyere.core.basis.figure import fine
from tuyere.core.basis.uncertainty import Sureness, probability_between, sureness, uncertain
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.stations.align.readings import ERRORS, Errors
from tuyere.core.stations.align.tolerance import Tolerance
from tuyere.core.stations.align.words import missing

# What to read where an error is not settled: common practice, no source.
READ = {
    "angle": "a straightedge across the faces, two heads, or a tape between the shafts",
    "twist": "a straightedge at top and bottom, a level on both shafts, or a head",
    "offset": "a straightedge across the faces, or a head",
}


def said(key: str, value: float) -> str:
    """An error as it is spoken of.

    >>> said("twist", 0.0143), said("offset", 0.0016)
    ('0.82°', '0.063 in (1.60 mm)')
    """
    return fine(abs(value)) if key == "offset" else f"{math.degrees(abs(value)):.2f}°"


def judge(errors: Errors, allowed: Tolerance) -> list[Verdict]:
    """One verdict: what is out, what is too near to tell, what is not read; true only where all three are."""
    if errors.disagree:
        them = " and ".join(errors.disagree)
        return [
            Verdict(
                "align",
                Tone.WATCH,
                f"The readings disagree on the {them}",
                "By more than their doubts: one of them was misread, or something moved between. Read both again before anything is "
                "moved; they are not averaged.",
            )
        ]
    out, near, coarse, chances = [], [], [], []
    for key in ERRORS:
        most = allowed.offset_m if key == "offset" else allowed.angle_rad
        value, u = errors.of(key)
        if value is None:
            continue
        inside = probability_between(uncertain(value, u, key), -most, most)
        text = f"{key} {said(key, value)}, allowed {said(key, most)}"
        if inside <= 1 / 3 and abs(value) > most:
            out.append((text, 1 - inside))
        elif abs(value) <= most and 2 * u > most * (1 + 1e-9):
            coarse.append(f"{key} {said(key, value)} within {said(key, 2 * u)}, where {said(key, most)} is allowed")
        elif inside < 2 / 3:
            near.append(text)
        else:
            chances.append(inside)
    lacks = missing(errors)
    unread = f"The {' and the '.join(lacks)} {'is' if len(lacks) == 1 else 'are'} not read: use {READ[lacks[0]]}." if lacks else ""
    if out:
        return [
            Verdict(
                "align",
                Tone.WATCH,
                _cap("; ".join(t for t, _ in out)),
                _sentence("Correct it in the order shown.", *near, unread),
                sureness(min(p for _, p in out)),
            )
        ]
    if near:
        return [
            Verdict(
                "align",
                Tone.OPEN,
                f"Too near to tell: {'; '.join(near)}",
                _sentence("Read again with both wheels turned half a turn, or with a finer tool: readings are used together.", unread),
                Sureness.OPEN,
            )
        ]
    if coarse:
        return [
            Verdict(
                "align",
                Tone.OPEN,
                f"Cannot tell: {'; '.join(coarse)}",
                _sentence("The tool is too coarse for this tolerance: read with a finer one, or over a longer reach.", unread),
                Sureness.OPEN,
            )
        ]
    if lacks:
        return [Verdict("align", Tone.OPEN, f"So far true; {' and '.join(lacks)} not read", unread, "")]
    if not chances:
        return []
    return [
        Verdict(
            "align",
            Tone.GOOD,
            "True within tolerance",
            "Leave it. Set the tension, read once more at final tension, and keep it as left.",
            sureness(min(chances)),
        )
    ]


def _cap(text: str) -> str:
    return text[:1].upper() + text[1:]


def _sentence(*parts: str) -> str:
    return " ".join(p if p.endswith(".") else f"{_cap(p)}: too near to tell." for p in parts if p)
