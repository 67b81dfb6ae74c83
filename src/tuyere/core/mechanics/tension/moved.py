"""How far to move two wheels for another tension: the belt's own stretch, on the exact path. Elastic belt; plane geometry."""

from typing import NamedTuple

from tuyere.core.mechanics import open_belt

# One standard deviation of a small move from a measured tension: rigidity a fifth, slack and settling 15 %. Common practice, no source.
_DOUBT = 0.25


class Move(NamedTuple):
    """Centres apart (+) or together, m; with its standard uncertainty; and turns of a screw of the given pitch, of the same sign."""

    centre_change_m: float
    centre_change_u_m: float
    turns: float | None


def move_for(
    now_n: float,
    wanted_n: float,
    rigidity_n: float,
    radius_1_m: float,
    radius_2_m: float,
    centre_m: float,
    screw_pitch_m: float | None = None,
) -> Move:
    """The move of an open belt's centres for a change of tension.

    `rigidity_n` of one belt; raises GeometryError where the wheels would overlap.

    The slack belt's length stays: L(C') = L(C) (1 + T'/EA)/(1 + T/EA). For a small change dC = dT L/(2 EA cos α).

    >>> m = move_for(200, 282, 82_000, 0.1, 0.1, 0.7, 0.00175)
    >>> round(m.centre_change_m * 1000, 2), round(m.turns, 2)
    (1.01, 0.58)
    """
    wheels = 2 * radius_1_m, 2 * radius_2_m
    length = open_belt.belt_length(*wheels, centre_m) * (1 + wanted_n / rigidity_n) / (1 + now_n / rigidity_n)
    change = open_belt.centre_distance(*wheels, length) - centre_m
    return Move(change, _DOUBT * abs(change), change / screw_pitch_m if screw_pitch_m else None)
