"""The stock that is searched: the common sizes of the tables, marked as assumed."""

from functools import lru_cache

from tuyere.core.drives import registry
from tuyere.core.rating.own_table import NONE, OwnRatings
from tuyere.core.selection.kind import Kind


@lru_cache(maxsize=16)
def kinds(own: OwnRatings = NONE) -> tuple[Kind, ...]:
    """Every kind that has both a rating, a standard's or the shop's own, and wheels, in the tables' order."""
    return tuple(kind for family in registry.FAMILIES for kind in family.kinds(own))
