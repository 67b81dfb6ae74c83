"""How near a keeper stands to the tight belt: tables/keeper_gaps.csv, by the kind of machine.

One answer for every station; the manual goes before.
"""

from typing import Literal, NamedTuple

from tuyere.core.basis.figure import shown
from tuyere.core.basis.quantity import parse
from tuyere.core.basis.table import rows

Machine = Literal["mower", "farm", "other"]


class Gap(NamedTuple):
    """From and to (m), and where that is from."""

    least_m: float
    most_m: float
    source: str

    @property
    def text(self) -> tuple[str, str]:
        """In both systems, the unit once.

        >>> keeper_gap("mower").text
        ('1/16 to 1/8 in', '1.5 to 3 mm')
        """
        low, high = shown(self.least_m, "length", to_set=True), shown(self.most_m, "length", to_set=True)
        us, si = (f"{a.rsplit(' ', 1)[0]} to {b}" for a, b in zip(low, high, strict=True))
        return us, si


def keeper_gap(machine: Machine) -> Gap:
    """The gap on a kind of machine.

    >>> [round(v * 1000, 2) for v in (keeper_gap("farm").least_m, keeper_gap("farm").most_m)]
    [3.17, 6.35]
    """
    row = next(r for r in rows("keeper_gaps") if r["machine"] == machine)
    low, high = (q.value_si for k in ("low_in", "high_in") if (q := parse(row[k], "length", "in")))
    return Gap(low, high, f"{row['source']} ({row['confidence']})")


def widest() -> Gap:
    """The gap on a machine of which nothing is known: nearer or farther than this is wrong on any.

    >>> [round(v * 1000, 2) for v in (widest().least_m, widest().most_m)]
    [1.59, 6.35]
    """
    every = [keeper_gap(r["machine"]) for r in rows("keeper_gaps")]  # type: ignore[arg-type]
    return Gap(
        min(g.least_m for g in every), max(g.most_m for g in every), "common practice, low confidence: the manual's figure goes before"
    )


def filled(text: str) -> str:
    """A text of a table or of the knowledge with the gap where it names it."""
    return text.replace("{keeper_gap}", said()) if "{keeper_gap}" in text else text


def said() -> str:
    """In words, for a text that is of any machine.

    >>> said()
    '1/16 to 1/8 in (1.5 to 3 mm) on a mower deck, 1/8 to 1/4 in (3 to 6.5 mm) on a farm machine'
    """
    deck, farm = keeper_gap("mower").text, keeper_gap("farm").text
    return f"{deck[0]} ({deck[1]}) on a mower deck, {farm[0]} ({farm[1]}) on a farm machine"
