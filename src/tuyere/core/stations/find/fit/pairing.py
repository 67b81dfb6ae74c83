"""Which belts may run in which grooves, and which belts may run together: rules of the trade, common practice, no source."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.figure import both
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.v_belt import Section, grooves_of, min_datum_diameter
from tuyere.core.stations.find import alike
from tuyere.core.stations.find.fit.seat import Trapezoid, seat

Match = Literal["right", "narrower", "wider", "other system", "near"]
_SAME_WIDTH = 0.04  # sections within this share of top width count as equally wide
_NEAR_WIDTH = 0.10  # within this share, classical and wedge sections are taken for each other


@dataclass(frozen=True)
class SectionPair:
    """A belt section in a groove made for another (or the same) section."""

    match: Match
    verdict: Verdict


def in_groove(belt: Section, made_for: Section, kind: str = "standard") -> SectionPair:
    """What running `belt` in a groove made for `made_for` means. Both are judged by section, before anything is measured."""
    if made_for.construction == "hexagonal" and belt.construction != "hexagonal" and belt.groove == made_for.groove:
        return SectionPair(
            "right",
            Verdict(
                "pairing",
                Tone.WATCH,
                f"{belt.name} for {made_for.name}: right only where no wheel is driven from the back",
                f"{a(made_for.name).capitalize()} belt drives from both faces; on {a(belt.name)} a wheel at its back stands still, or "
                "burns the belt.",
            ),
        )
    if belt.groove == made_for.groove or belt.name in alike.shares_groove(made_for.name):
        return SectionPair(
            "right", Verdict("pairing", Tone.GOOD, f"{belt.name} belongs in {a(made_for.name)} groove", _deep(made_for, kind))
        )
    if kind == "combination" and belt.groove in ("A", "B") and made_for.groove in ("A", "B"):
        return SectionPair(
            "right",
            Verdict(
                "pairing",
                Tone.GOOD,
                f"A combination groove takes {belt.name}",
                "A belts sit deep in it and B belts near the rim: both are as made.",
            ),
        )
    if one_width := _one_datum_width(belt, made_for):
        return one_width
    if alike.near(belt.name, made_for.name):
        return SectionPair(
            "near",
            Verdict(
                "pairing",
                Tone.WATCH,
                f"{belt.name} in {a(made_for.name)} groove is near, not right",
                "The whole set may run so in need. Never both sections on one drive; order the right one.",
            ),
        )
    if belt.construction == "ribbed" or made_for.construction == "ribbed":
        return SectionPair(
            "other system",
            Verdict(
                "pairing",
                Tone.STOP,
                f"{belt.name} does not run in {a(made_for.name)} groove",
                "Ribbed belts run on ribbed pulleys of their own pitch only.",
            ),
        )
    if belt.wedge != made_for.wedge and abs(belt.top_width_m / made_for.top_width_m - 1) < _NEAR_WIDTH:
        return _other_system(belt, made_for)
    if belt.top_width_m > made_for.top_width_m * (1 + _SAME_WIDTH):
        return SectionPair(
            "wider",
            Verdict(
                "pairing",
                Tone.STOP,
                f"Never {belt.name} in {a(made_for.name)} groove",
                "It stands on the rim, wedges on its lower edges only, and is destroyed within hours. Fit the right belt.",
            ),
        )
    if belt.wedge != made_for.wedge:
        return _other_system(belt, made_for)
    if belt.top_width_m < made_for.top_width_m * (1 - _SAME_WIDTH):
        return SectionPair(
            "narrower",
            Verdict(
                "pairing",
                Tone.WATCH,
                f"{belt.name} in {a(made_for.name)} groove only gets you home",
                "It sits low and carries less. Record it as a get-home fix, and order the right belt now.",
            ),
        )
    return SectionPair(
        "right", Verdict("pairing", Tone.GOOD, f"{belt.name} runs in {a(made_for.name)} groove", "Equal in width and system.")
    )


# The classical and the wedge section of one datum width (ISO 4183): their grooves differ in depth alone.
_ONE_WIDTH = (("Z", "SPZ"), ("ISO A", "SPA"), ("ISO B", "SPB"), ("ISO C", "SPC"))
_CLASSICAL = ("classical metric", "classical inch", "agricultural inch")


def _one_datum_width(belt: Section, made_for: Section) -> SectionPair | None:
    """A classical belt in the wedge groove of its datum width, or the other way; None where the two are no such pair."""
    never = "Never both kinds on one drive."
    for classical, wedge in _ONE_WIDTH:
        flat_ones, deep_ones = alike.shares_groove(classical), alike.shares_groove(wedge)
        if belt.name in flat_ones and belt.series in _CLASSICAL and made_for.name in deep_ones:
            return SectionPair(
                "right",
                Verdict(
                    "pairing",
                    Tone.GOOD,
                    f"{belt.name} fits {a(made_for.name)} groove",
                    f"ISO 4183 gives {classical} and {wedge} one datum width; the {wedge} groove is only deeper. It carries what "
                    f"{a(belt.name)} carries, not what {a(made_for.name)} does. {never}",
                ),
            )
        if belt.name in deep_ones and made_for.name in flat_ones and made_for.series in _CLASSICAL:
            groove = grooves_of(made_for.groove, "standard")[0]
            room = seat(_trapezoid(belt), Trapezoid(groove.top_width_m, groove.depth_min_m, math.radians(groove.angle_deg))).room_below_m
            least = min_datum_diameter(belt)
            return SectionPair(
                "near",
                Verdict(
                    "pairing",
                    Tone.WATCH,
                    f"{belt.name} in {a(made_for.name)} groove runs near the bottom",
                    f"One datum width (ISO 4183), but the wedge belt is deeper: {max(0.0, room) * 1000:.1f} mm is left under it, less as "
                    f"belt and groove wear; when it touches it slips. Its own smallest wheel holds: {both(least, decimals=(1, 0))}. "
                    f"{never}",
                ),
            )
    return None


def _trapezoid(belt: Section) -> Trapezoid:
    return Trapezoid(belt.top_width_m, belt.height_m, math.radians(belt.angle_deg))


def _other_system(belt: Section, made_for: Section) -> SectionPair:
    return SectionPair(
        "other system",
        Verdict(
            "pairing",
            Tone.STOP,
            f"{belt.name} does not belong in {a(made_for.name)} groove",
            "Classical and wedge belts differ in depth: one bottoms, the other does not fill the groove. Never mix the two on one drive.",
        ),
    )


def a(name: str) -> str:
    """A section's name with its article: an A, a B, an SPA.

    >>> a("SPA"), a("5V"), a("8V")
    ('an SPA', 'a 5V', 'an 8V')
    """
    return f"{'an' if name[0] in 'AEFHILMNSX8' and not name.startswith('link') else 'a'} {name}"


def _deep(made_for: Section, kind: str) -> str:
    if kind == "deep":
        return "In a deep groove it sits well below the rim: that is as made, for joined, turned and upright drives."
    return "" if grooves_of(made_for.groove) else "The groove itself is not tabled."


# What a person may see on a set of belts, and what it means.
SET_SIGNS: dict[str, Verdict] = {
    "two systems": Verdict(
        "set",
        Tone.STOP,
        "Classical and wedge belts on one drive",
        "Never: they ride at different heights and speeds, and one drags the other. Replace the set.",
    ),
    "two sections": Verdict(
        "set",
        Tone.STOP,
        "Different sections in one set",
        "They ride at different heights and share the load badly. Replace the set with one section.",
    ),
    "two numbers": Verdict(
        "set",
        Tone.STOP,
        "Different part numbers in one set",
        "Even of one size, belts of different makes stretch differently. Replace the set from one lot.",
    ),
    "new and used": Verdict(
        "set",
        Tone.STOP,
        "New and used belts in one set",
        "The new ones carry everything and fail early. Replace the whole set; keep the best old one as a spare for a breakdown.",
    ),
    "singles for joined": Verdict(
        "set",
        Tone.WATCH,
        "A joined belt replaced by singles",
        "Only by a matched set of singles, all new. The joined belt was fitted against whip and turning over: watch the first run.",
    ),
}


def mixed_set(signs: Sequence[str]) -> tuple[Verdict, ...]:
    """Verdicts on belts running side by side; signs that are not on the list are left out."""
    return tuple(verdict for sign, verdict in SET_SIGNS.items() if sign in signs)
