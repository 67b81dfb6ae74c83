"""Measured wear against its limit: tables/wear_limits.csv."""

from dataclasses import dataclass
from typing import NamedTuple

from tuyere.core.basis import keeper
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Tone

_SOON = 0.6  # of its limit, and a part is planned for: common practice, no source
_FAR_OUT = 5.0  # times past a limit that is a least: further is said as that
_BIG_SPROCKET = 67  # teeth above which a chain climbs sooner: 200/N % (Machinery's Handbook style rule)


class WearLimit(NamedTuple):
    """What is measured, its limit (m or share), and where that is from."""

    label: str
    limit: float
    unit: str
    measured: str
    tool: str
    then: str
    source: str
    confidence: str
    look: str = ""
    least: bool = False  # too little is wrong, not too much
    anew: str = ""  # what is fitted when it counts from nought again
    tells: tuple[str, ...] = ()  # the signs of a diagnosis that it says, past its limit


LOOKED: dict[str, float] = {"no": 0.0, "begins": 0.7, "yes": 1.0}  # what is judged by eye, as a share of its limit


def whats() -> tuple[str, ...]:
    """What can be judged."""
    return tuple(dict.fromkeys(r["what"] for r in rows("wear_limits")))


def limit_of(what: str, narrow: bool = False, fixed: bool = False, large_teeth: int | None = None) -> WearLimit:
    """The limit that holds.

    `narrow`: narrow, joined or ribbed belts; `fixed`: fixed centres, timed or critical; `large_teeth`: of a chain's large sprocket.

    Raises KeyError for what is not in the table.

    >>> limit_of("chain").limit, limit_of("chain", fixed=True).limit, round(limit_of("chain", large_teeth=100).limit, 3)
    (0.03, 0.015, 0.02)
    """
    said = {"narrow": narrow, "fixed": fixed, "": True}
    found = [r for r in rows("wear_limits") if r["what"] == what and said[r["when"]]]
    if not found:
        raise KeyError(what)
    row = min(found, key=lambda r: float(r["limit"]))
    limit, source = float(row["limit"]), row["source"]
    if what == "chain" and large_teeth and large_teeth > _BIG_SPROCKET and 2 / large_teeth < limit:
        limit, source = 2 / large_teeth, f"{source}; 200/{large_teeth} % on its large sprocket"
    return WearLimit(
        row["label"],
        limit,
        row["unit"],
        row["measured"],
        row["tool"],
        keeper.filled(row["then"]),
        source,
        row["confidence"],
        row["look"],
        row["sense"] == "least",
        row["anew"],
        tuple(row["tells"].split()),
    )


def elongation(measured_m: float, pitches: int, pitch_m: float) -> float:
    """Share that a chain has grown over so many pitches.

    >>> round(elongation(6.180 * 0.0254, 12, 0.0127), 4)
    0.03
    """
    return measured_m / (pitches * pitch_m) - 1


@dataclass(frozen=True)
class Worn:
    """How far to its limit a part is worn (share), and what that means."""

    share: float
    limit: WearLimit
    tone: Tone
    headline: str
    detail: str


def judge(value: float, limit: WearLimit) -> Worn:
    """A measured value (m or share) against its limit."""
    share = limit.limit / max(value, limit.limit / _FAR_OUT) if limit.least else value / limit.limit
    if limit.unit == "look":
        return _seen(share, limit)
    if share >= 1:
        return Worn(share, limit, Tone.STOP, f"{limit.label}: past its limit", f"{limit.then}.")
    if share >= _SOON:
        return Worn(
            share,
            limit,
            Tone.WATCH,
            f"{limit.label}: {share:.0%} of its limit",
            f"Plan for it. At the limit: {limit.then[0].lower()}{limit.then[1:]}.",
        )
    return Worn(share, limit, Tone.GOOD, f"{limit.label}: {share:.0%} of its limit", "Leave it, and measure again at the next round.")


def _seen(share: float, limit: WearLimit) -> Worn:
    """What is judged by eye is there, begins, or is not there."""
    if share >= 1:
        return Worn(share, limit, Tone.STOP, limit.label, f"{limit.then}.")
    if share > 0:
        return Worn(
            share,
            limit,
            Tone.WATCH,
            f"{limit.label}: it begins",
            f"Plan for it. Once it is there: {limit.then[0].lower()}{limit.then[1:]}.",
        )
    return Worn(0.0, limit, Tone.GOOD, f"{limit.label}: no", "Leave it, and look again at the next round.")


@dataclass(frozen=True)
class Dogs:
    """Dogs of an overhead conveyor's drive against new, and against the chain that they drive (shares longer)."""

    dogs: float
    chain: float

    @property
    def apart(self) -> float:
        return self.dogs - self.chain


def judge_dogs(dogs: Dogs) -> Worn:
    """Each against new as well as against the other: worn alike they run on, and are renewed together.

    Trade fact: dogs at 6.250 in of 6.000 in new (4.2 %) no longer mesh with a new conveyor chain.
    """
    limit = limit_of("dogs")
    share = abs(dogs.apart) / limit.limit
    if share >= 1:
        which = "dogs" if dogs.apart > 0 else "conveyor chain"
        return Worn(
            share,
            limit,
            Tone.STOP,
            f"The {which} is longer by {abs(dogs.apart):.1%}: they do not mesh",
            "Renew dogs and conveyor chain together.",
        )
    if max(dogs.dogs, dogs.chain) >= limit.limit:
        return Worn(
            share,
            limit,
            Tone.WATCH,
            "Worn together: they run on",
            f"Dogs {dogs.dogs:.1%}, chain {dogs.chain:.1%} over new. Neither alone may be renewed: a new chain does not mesh with these "
            "dogs.",
        )
    return Worn(
        share, limit, Tone.GOOD, "They mesh", f"Dogs {dogs.dogs:.1%}, chain {dogs.chain:.1%} over new: leave them, and grease them yearly."
    )
