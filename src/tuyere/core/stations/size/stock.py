"""The stock that is searched: the common sizes of the tables, marked as assumed."""

from functools import lru_cache

from tuyere.core.kinds import registry
from tuyere.core.kinds.choose import Choosable
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings


@lru_cache(maxsize=16)
def kinds(own: OwnRatings = NONE) -> tuple[Choosable, ...]:
    """Every kind that has both a rating, a standard's or the shop's own, and wheels, in the tables' order."""
    return tuple(kind for family in registry.FAMILIES for kind in family.kinds(own))


def usual() -> frozenset[str]:
    """The kinds that are chosen among where nobody says otherwise: each kind of drive in its plain form."""
    return frozenset(f.key for f in registry.FAMILIES)


def choices() -> tuple[str, ...]:
    """Every kind to choose among: each kind of drive, then the rarer forms that some of them have."""
    return (*(f.key for f in registry.FAMILIES), *(form for f in registry.FAMILIES for form in f.forms))
