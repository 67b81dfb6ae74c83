"""The kinds of drive there are: the only list."""

from tuyere.core.kinds.family import Family
from tuyere.core.kinds.flat.kind import FLAT
from tuyere.core.kinds.meshing import Meshing
from tuyere.core.kinds.roller_chain.kind import ROLLER_CHAIN
from tuyere.core.kinds.synchronous.kind import TOOTHED
from tuyere.core.kinds.v_belt.kind import V_BELT

FAMILIES: tuple[Family, ...] = (V_BELT, TOOTHED, ROLLER_CHAIN, FLAT)


MESHING = tuple(f for f in FAMILIES if isinstance(f, Meshing))


class UnknownFamilyError(ValueError):
    """No kind of drive is called that."""


def family(key: str) -> Family:
    """The kind called `key`. Raises UnknownFamilyError, whose message is a sentence.

    >>> family("roller chain").runs
    'chain'
    """
    for found in FAMILIES:
        if found.key == key:
            return found
    raise UnknownFamilyError(f"No kind of drive is called “{key[:40]}” here: take one of {', '.join(f.key for f in FAMILIES)}.")


def meshing(key: str) -> Meshing:
    """The kind with teeth called `key`. Raises UnknownFamilyError."""
    found = family(key)
    if isinstance(found, Meshing):
        return found
    raise UnknownFamilyError(f"A {found.label} has no teeth: take one of {', '.join(f.key for f in MESHING)}.")
