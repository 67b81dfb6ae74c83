"""The corrections in order, as a person at the feet hears them."""

import math

from tuyere.core.align.moves import Moves
from tuyere.core.align.readings import Errors
from tuyere.core.align.tolerance import Tolerance
from tuyere.core.working.figure import both

_HAIR = 0.00005
# Bases that cannot be lifted or swung foot by foot: what to do in place of it.
_ONLY = {
    "slide rails": "the rails: shim under a rail's end, swing by unequal turns of its two screws",
    "pivoted base": "the pivot's own feet: the base only tips about its pivot",
}


def corrections(errors: Errors, moves: Moves, allowed: Tolerance, slope_rad: float, base: str = "") -> list[str]:
    """Twist first, then the angle, then the offset, then tension and a reading again; only what is out of tolerance is moved for."""
    said = [*errors.instead]
    true = [
        abs(value) <= most
        for value, most in (
            (errors.angle_rad, allowed.angle_rad),
            (errors.twist_rad, allowed.angle_rad),
            (errors.offset_m, allowed.offset_m),
        )
        if value is not None
    ]
    if true and all(true):
        return [*said, "Within tolerance: leave it. Set the tension, turn the wheels round once, and read again."]
    steps = []
    upright = abs(math.sin(slope_rad)) > math.sin(math.radians(45))
    shims_cure, jacks_cure = ("the angle", "the twist") if upright else ("the twist", "the angle")
    if moves.shims_m and max(map(abs, moves.shims_m)) > _HAIR:
        front = moves.shims_m[0] != 0
        by = moves.shims_m[0] or moves.shims_m[2]
        what = "Put in" if by > 0 else "Take out"
        steps.append(f"{shims_cure.capitalize()}: {what.lower()} {both(abs(by))} {'under' if by > 0 else 'from under'} both {'front' if front else 'back'} feet, none at the other end.")  # fmt: skip
    if moves.jack_back_m is not None and abs(moves.jack_back_m) > _HAIR:
        side = "left" if moves.jack_back_m > 0 else "right"
        steps.append(f"{jacks_cure.capitalize()}: front feet loosely pinned, push the back feet {both(abs(moves.jack_back_m))} to the {side}, seen from the back of the machine.")  # fmt: skip
    if moves.slide_m is not None and abs(moves.slide_m) > _HAIR:
        way = "out, away from its body" if moves.slide_m > 0 else "back, toward its body"
        steps.append(f"The offset: slide the machine {both(abs(moves.slide_m))} {way}, or its wheel on the shaft as far.")
    if base in _ONLY and steps:
        steps.append(f"On {base} that is done at {_ONLY[base]}.")
    missing = [
        name for name, value in (("angle", errors.angle_rad), ("twist", errors.twist_rad), ("offset", errors.offset_m)) if value is None
    ]
    if missing:
        said.append(f"The readings do not say the {' nor the '.join(missing)}: read that too before it is called true.")
    if steps:
        steps.append("Set the tension with equal turns, tighten the feet, turn both wheels round half a turn, and read again.")
    return [*said, *(f"{k}. {s}" for k, s in enumerate(steps, 1))]
