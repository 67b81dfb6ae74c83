"""Where a number comes from, and the mark a computed number wears."""

from enum import StrEnum


class Origin(StrEnum):
    """Every number shown has one of these."""

    MEASURED = "measured"
    NAMEPLATE = "nameplate"
    STANDARD = "standard"
    CHOSEN = "chosen"
    RULE_OF_THUMB = "rule of thumb"
    ASSUMED = "assumed"
    COMPUTED = "computed"


# Strongest first: a reading on this machine beats its plate, a plate beats a table for machines in
# general, and a choice or a rule says little about what is really there.
_STRENGTH = (Origin.MEASURED, Origin.NAMEPLATE, Origin.STANDARD, Origin.CHOSEN, Origin.RULE_OF_THUMB, Origin.ASSUMED)


def weakest(*origins: Origin) -> Origin:
    """The weakest of the inputs' origins: the mark that a number computed from them wears.

    >>> weakest(Origin.MEASURED, Origin.ASSUMED, Origin.STANDARD)
    <Origin.ASSUMED: 'assumed'>
    """
    known = [o for o in origins if o is not Origin.COMPUTED]
    return max(known, key=_STRENGTH.index) if known else Origin.STANDARD


class Confidence(StrEnum):
    """How sure we are of a remembered figure of a standard or book."""

    HIGH = "high"
    MEDIUM = "medium"
    LOW = "low"


def least_sure(*levels: Confidence) -> Confidence:
    """The least sure of `levels`."""
    order = list(Confidence)
    return max(levels, key=order.index)
