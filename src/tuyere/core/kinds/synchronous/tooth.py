"""The shape of a toothed belt in side view, to scale: a template to lay the belt on."""

import math

from tuyere.core.kinds.synchronous.profile import Profile

# Width of a round tooth at its root over its height, where the tables have none: from memory, low; for the drawing only.
_ROUND_WIDTH = {"H": 1.52, "S": 1.70, "R": 1.72}


def belt_outline(of: Profile, teeth: int, steps: int = 12) -> list[tuple[float, float]]:
    """The belt laid straight, teeth down (m; x along it from the middle of a tooth gap, y up from the tooth tips), closed.

    Straight teeth by the standard's root width, angle and height; round ones by pitch and height with arcs, so that their
    pitch and height are true and their flanks a likeness.
    """
    p, h = of.pitch_m, of.tooth_height_m
    bottom: list[tuple[float, float]] = [(0.0, h)]
    for k in range(teeth):
        middle = (k + 0.5) * p
        bottom += [(middle + x, y) for x, y in _tooth(of, steps)]
    bottom.append((teeth * p, h))
    return [*bottom, (teeth * p, of.belt_height_m), (0.0, of.belt_height_m)]


def _tooth(of: Profile, steps: int) -> list[tuple[float, float]]:
    """One tooth from its left root round its tip to its right root, about its own middle."""
    h = of.tooth_height_m
    if of.form == "straight" and of.root_width_m and of.flank_angle_deg:
        root = of.root_width_m / 2
        tip = root - h * math.tan(math.radians(of.flank_angle_deg / 2))
        return [(-root, h), (-tip, 0.0), (tip, 0.0), (root, h)]
    kind = of.name[0]
    half = _ROUND_WIDTH.get(kind, 1.6) * h / 2
    xs = [-half + 2 * half * k / (2 * steps) for k in range(2 * steps + 1)]
    if kind == "R":  # a parabola
        return [(x, h * (x / half) ** 2) for x in xs]
    full = 2.6 if kind == "S" else 2.0  # H: half an ellipse; S: fuller at the tip
    return [(x, h * (1 - max(0.0, 1 - abs(x / half) ** full) ** (1 / full))) for x in xs]
