"""One tooth profile: pitch, tooth, belt; and its pulleys by teeth."""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.table import rows
from tuyere.core.kinds.unknown import NotKnownError

_MM = 1e-3


class ToothedError(NotKnownError):
    """The profile or the name cannot be used; the message is a sentence for the person."""


@dataclass(frozen=True)
class Profile:
    """One profile, as new; lengths in m. `form`: straight or round teeth. `line_under_tip_m`: the pitch line outside the pulley's tips.

    `pitch_name`: what H, S and R forms of one pitch share (8M); `named_by`: inch code, metric T or metric M.
    """

    name: str
    form: str
    material: str
    pitch_m: float
    flank_angle_deg: float | None
    root_width_m: float | None
    tooth_height_m: float
    belt_height_m: float
    line_under_tip_m: float
    root_radius_m: float | None
    widths_m: tuple[float, ...]
    width_codes: tuple[str, ...]
    named_by: str
    fewest_teeth: int | None
    common: float
    confidence: Confidence
    source: str

    @property
    def pitch_name(self) -> str:
        return self.name[1:] if self.named_by == "metric M" else self.name


@cache
def profiles() -> dict[str, Profile]:
    """Every profile by name, in table order."""
    return {r["profile"]: _profile(r) for r in rows("toothed_profiles")}


def _profile(r: dict[str, str]) -> Profile:
    def length(column: str) -> float | None:
        return float(r[column]) * _MM if r[column] else None

    return Profile(
        r["profile"],
        r["form"],
        r["material"],
        float(r["pitch"]) * _MM,
        float(r["flank_angle"]) if r["flank_angle"] else None,
        length("tooth_root_width"),
        float(r["tooth_height"]) * _MM,
        float(r["belt_height"]) * _MM,
        float(r["line_under_tip"]) * _MM,
        length("root_radius"),
        tuple(float(w) * _MM for w in r["widths"].split(";")),
        tuple(c for c in r["width_codes"].split(";") if c),
        r["named_by"],
        int(r["fewest_teeth"]) if r["fewest_teeth"] else None,
        float(r["common"]),
        Confidence(r["confidence"]),
        r["source"],
    )


def profile(name: str) -> Profile:
    """The profile called `name`. Raises ToothedError with the usual ones."""
    wanted = name.strip().upper()
    found = next((p for p in profiles().values() if p.name.upper() == wanted), None)
    if found is None:
        raise ToothedError(f"“{name[:20]}” is not a tooth profile known here. The usual ones are XL, L, H, T5, T10, H5M, H8M and H14M.")
    return found


def least_teeth_at(of: Profile, shaft_rad_per_s: float | NDArray[np.float64]) -> NDArray[np.float64]:
    """Fewest teeth of a pulley by its shaft's speed (rad/s), for one or many; infinite where none is tabled so fast.

    GB/T 11362 and IP-24 for the inch profiles, the stricter where they differ, JB/T 7512 for the round ones (from memory, medium).

    >>> from tuyere.core.basis.quantity import to_si
    >>> h = profile("H")
    >>> [int(least_teeth_at(h, to_si(n, "rotation", "rpm"))) for n in (870, 1160, 1750, 3500)]
    [14, 16, 18, 20]
    """
    below, teeth = _least_teeth(of.name)
    place = np.searchsorted(below, np.asarray(shaft_rad_per_s) * 60 / math.tau * (1 + 1e-9), side="right")
    return np.append(teeth, np.inf)[place]


@cache
def _least_teeth(name: str) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    mine = [r for r in rows("toothed_min_teeth") if r["profile"] == name]
    return np.array([float(r["below"]) for r in mine]), np.array([float(r["teeth"] or "inf") for r in mine])


def pitch_diameter(of: Profile, teeth: int) -> float:
    """Diameter of the belt's line on a pulley, m: z p / pi. Source: ISO 5294."""
    return teeth * of.pitch_m / math.pi


def outside_diameter(of: Profile, teeth: int) -> float:
    """Over the pulley's teeth, m: the printed figure where the tables have one, else pitch diameter less twice the line's height.

    Source: ISO 5294; ISO 13050; DIN 7721-2 (metric T and AT, whose printed figures differ a little from the rule).
    """
    printed = _printed().get((of.pitch_name, teeth)) if of.named_by != "metric M" or of.name.startswith("H") else None
    return printed if printed is not None else pitch_diameter(of, teeth) - 2 * of.line_under_tip_m


@cache
def _printed() -> dict[tuple[str, int], float]:
    return {
        (r["pitch_name"], int(r["teeth"])): float(r["outside_diameter"]) * _MM for r in rows("toothed_pulleys") if r["outside_diameter"]
    }


def pulley_teeth(of: Profile) -> tuple[int, ...]:
    """Teeth of the pulleys commonly made."""
    return tuple(sorted(int(r["teeth"]) for r in rows("toothed_pulleys") if r["pitch_name"] == of.pitch_name))


def teeth_from_outside(of: Profile, outside_m: float) -> float:
    """How many teeth a pulley of this profile would have, by its outside diameter; a whole number where it is of this profile."""
    return math.pi * (outside_m + 2 * of.line_under_tip_m) / of.pitch_m
