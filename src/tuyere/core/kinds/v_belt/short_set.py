"""A set of V-belts with some missing.

What share of the design load is still carried, how hard to run it, and by when it must be whole again.

The limits of time are common practice without source: a short set wears itself and its grooves, and is forgotten unless due.
"""

from collections.abc import Collection

from uncertainties import UFloat

from tuyere.core.basis.page import Page
from tuyere.core.kinds.fitted import ShortSet
from tuyere.core.kinds.v_belt.v_set import VSet

DAYS = ((1.0, 14), (0.7, 7), (0.0, 2))  # days until whole, by the share of the design load it carries
ENOUGH = 0.7


NOT_ON = (  # what is so of the machine, and why nothing stands in for the right set there: common practice, no source
    ("lift", "Weight hangs on it"),
    ("people", "People depend on it"),
    ("runs_back", "A falling load drives it backward when the belt slips or breaks"),
    ("dust", "A belt that slips in dust that burns is a fire"),
    ("blades", "What it throws when a belt lets go hurts"),
)


def not_here(machine: Collection[str]) -> str:
    """Why a short set, a narrower belt or link belting is not offered to get home on such a machine; empty where it may be.

    >>> not_here(["runs_back"])[:12], not_here(["windmill"])
    ('A falling lo', '')
    """
    why = [words for fact, words in NOT_ON if fact in machine]
    return (
        f"{'. '.join(why)}: no short set, stand-in belt or link belting here. Leave it locked out until the right set is on." if why else ""
    )


def share_of_load(page: Page, belts_or_ribs: float) -> UFloat | None:
    """The share of the design power that so many belts, or ribs, carry; None where either is not known."""
    if not page.has("power_per_belt", "design_power"):
        return None
    return page.values["power_per_belt"] * belts_or_ribs / page.values["design_power"]


def days(share: float) -> int:
    """Days until it must be whole again.

    >>> [days(s) for s in (1.1, 0.8, 0.3)]
    [14, 7, 2]
    """
    return next(d for least, d in DAYS if share >= least)


def run(share: float, of_load: bool) -> str:
    """How hard to run it."""
    if share >= 1.0:
        return "Run at normal load; no hard starts."
    if not of_load:
        return f"Hold the load to about {share:.0%} of normal; no hard starts."
    if share >= ENOUGH:
        return f"Hold the load to about {share:.0%} of the design load; start unloaded."
    return f"Only what must run: {share:.0%} of the design load, started unloaded, watched for slip and smoke."


def short_sets(on: VSet, page: Page) -> tuple[ShortSet, ...]:
    """One row for each number of belts that may be left, most first; none for a drive of one belt or one band."""
    pieces = (on.parallel or 0) // on.ribs
    found = []
    for left in range(pieces - 1, 0, -1):
        share = share_of_load(page, left * on.ribs)
        known = share.n if share is not None else left / pieces
        found.append(ShortSet(left, left / pieces, share.n if share is not None else None, run(known, share is not None), days(known)))
    return tuple(found)
