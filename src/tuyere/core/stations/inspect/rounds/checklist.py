"""The checklist of a round, composed for one drive: tables/round_items.csv."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cache
from typing import Literal, get_args

from tuyere.core.basis import keeper
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Tone

Depth = Literal["quick", "usual", "whole"]
DEPTHS: tuple[Depth, ...] = get_args(Depth)
TITLES: dict[Depth, str] = {"quick": "Quick look, running", "usual": "Usual round", "whole": "Whole round, with grooves and alignment"}
Need = Literal["idler", "keeper", "set", "adjustable", "bushing", "mounts", "fan", "dust"]

# Days between rounds of a depth, in common and in severe service: common practice (monthly look, 3 to 6 months, yearly), no source for halving.
EVERY_DAYS: dict[Depth, tuple[int, int]] = {"quick": (30, 14), "usual": (120, 60), "whole": (365, 180)}


@dataclass(frozen=True)
class Item:
    """One thing to look at.

    `measure`: the page that takes its number; `weight`: of a finding where it is not OK; `look`: which picture; `tells`: the signs of a
    diagnosis that it says.
    """

    key: str
    families: tuple[str, ...]
    needs: tuple[str, ...]
    state: Literal["running", "stopped"]
    depth: Depth
    ask: str
    how: str
    measure: str
    weight: Tone
    look: str
    tells: tuple[str, ...]
    source: str
    confidence: str


@cache
def items() -> dict[str, Item]:
    """Every item by its key, what runs before what is stopped."""
    found = [
        Item(
            r["key"],
            tuple(r["families"].split()),
            tuple(r["needs"].split()),
            r["state"],  # type: ignore[arg-type]  # tables/columns.toml
            r["depth"],  # type: ignore[arg-type]
            r["ask"],
            keeper.filled(r["how"]),
            r["measure"],
            Tone(r["weight"]),
            r["look"],
            tuple(r["tells"].split()),
            r["source"],
            r["confidence"],
        )
        for r in rows("round_items")
    ]
    return {i.key: i for i in sorted(found, key=lambda i: i.state != "running")}


def compose(family: str, has: Collection[Need], depth: Depth) -> tuple[Item, ...]:
    """What a round of a depth looks at on a kind of drive that has some things: running first, each once.

    >>> [i.key for i in compose("conveyor", (), "quick")]
    ['guard', 'motor', 'conv_run', 'conv_slack']
    """
    deep = DEPTHS.index(depth)
    return tuple(i for i in items().values() if family in i.families and set(i.needs) <= set(has) and DEPTHS.index(i.depth) <= deep)


@dataclass(frozen=True)
class Suggested:
    """How deep a round it is time for, and why."""

    depth: Depth
    why: str


def suggest(done: Mapping[Depth, datetime], severe: str, now: datetime) -> Suggested:
    """The deepest round whose time has come; a deeper round counts as the shallower ones.

    `severe`: why the service is severe, empty where it is not.

    `done`: when a round of a depth was last finished.
    """
    said = f" in severe service ({severe})" if severe else ""
    for depth in reversed(DEPTHS):
        every = EVERY_DAYS[depth][1 if severe else 0]
        last = max((at for d, at in done.items() if DEPTHS.index(d) >= DEPTHS.index(depth)), default=None)
        if depth == "whole" and not done:
            continue  # of a drive that was never looked at, the usual round comes first: it costs no tools
        if last is None:
            return Suggested(depth, f"None of this depth is on the record; every {every} days{said}.")
        if now - last >= timedelta(days=every):
            return Suggested(depth, f"The last was {(now - last).days} days ago; every {every} days{said}.")
    return Suggested(
        "quick", f"The deeper rounds are not due yet; a quick look every {EVERY_DAYS['quick'][1 if severe else 0]} days{said}."
    )
