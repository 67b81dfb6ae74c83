"""What people see at a drive, by a short list of plain signs: tables/signs.csv."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Tone

MACHINE_STATES = ("starting", "running", "stopped", "any")
PLACES = ("driver", "driven", "belt", "tight strand", "slack strand")


class UnknownSignError(ValueError):
    """No sign is called that; the message is a sentence."""


@dataclass(frozen=True)
class PlainSign:
    """A plain sign.

    How it is said, how it weighs, where on the drive it is, which station answers it, in which state of the machine it shows.

    `tells`: the signs of a diagnosis that it says.
    """

    key: str
    label: str
    weight: Tone
    place: str
    page: str
    state: str
    tells: tuple[str, ...]


@cache
def signs() -> dict[str, PlainSign]:
    """Every sign by its key, the usual ones first."""
    return {
        r["key"]: PlainSign(r["key"], r["label"], Tone(r["weight"]), r["place"], r["page"], r["state"], tuple(r["tells"].split()))
        for r in rows("signs")
    }


def sign(key: str) -> PlainSign:
    """The sign called `key`. Raises UnknownSignError.

    >>> sign("squeals at start").page
    'tension'
    """
    found = signs().get(key)
    if found is None:
        raise UnknownSignError(f"“{key[:40]}” is not on the list of signs: take one of it, or “other” with your own words.")
    return found
