"""The band that a standard publishes."""

from typing import Literal, NamedTuple

from tuyere.core.mechanics.tension import INCH_FORM, NEW_BELT_HIGH, NEW_BELT_LOW

HeldBy = Literal["fixed", "slack_side", "tight_side"]


class Shares(NamedTuple):
    """What a system publishes.

    Its standing tension as a share of the exact half-sum, and the band's edges as times that standing tension.
    """

    standing: float
    high: float
    new_low: float
    new_high: float


# The inch form takes 15 for 16.5, some growth of tension under load allowed for (IP-20).
INCH = Shares(INCH_FORM, NEW_BELT_HIGH, NEW_BELT_LOW, NEW_BELT_HIGH)


class Edges(NamedTuple):
    """The published band, N: the standing tension itself, the most run in, and from to for new belts."""

    standing_n: float
    high_n: float
    new_low_n: float
    new_high_n: float


def published(aim_n: float, offset_n: float, held_by: HeldBy, shares: Shares = INCH) -> Edges:
    """The band that a system publishes at an exact half-sum `aim_n`, of it `offset_n` centrifugal.

    A spring keeps what it holds: neither growth under load nor settling has to be allowed for.

    >>> [round(e, 2) for e in published(110.0, 0.0, "fixed")]
    [100.0, 150.0, 130.0, 150.0]
    """
    if held_by != "fixed":
        return Edges(aim_n, shares.high * aim_n, aim_n, shares.high * aim_n)
    standing = shares.standing * (aim_n - offset_n) + offset_n
    return Edges(standing, shares.high * standing, shares.new_low * standing, shares.new_high * standing)
