"""What a drive is still wanted to say, in words."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.table import rows


@dataclass(frozen=True)
class Wanted:
    """`says`: as what is needed; `next`: what a person would do for it."""

    says: str
    next: str


@cache
def wanted_words() -> dict[str, Wanted]:
    """By field.

    >>> wanted_words()["belt_count"].says
    'how many belts'
    """
    return {r["key"]: Wanted(r["says"], r["next"]) for r in rows("wanted")}
