"""The rules by which things fall due: tables/due_rules.csv, or a shop's own."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

from tuyere.core.basis.table import rows

Event = Literal["new set", "new wheel", "re-tension", "first start", "oil change", "get-home fix", "chain oiled"]


@dataclass(frozen=True)
class UpkeepRule:
    """What to do so many running hours, days or months after an event, whichever comes first; once, or repeating.

    kinds: of drive, by key; empty for every one. page: the station that answers it.
    """

    key: str
    event: str
    what: str
    after_hours: float | None = None
    after_days: float | None = None
    after_months: int | None = None
    repeats: bool = False
    kinds: tuple[str, ...] = ()
    page: str = ""
    source: str = ""

    @property
    def interval(self) -> str:
        """In words.

        >>> UpkeepRule("x", "new set", "look", after_hours=24).interval, UpkeepRule("x", "new set", "look", after_hours=500, after_months=3).interval
        ('24 running hours', '500 running hours or 3 months, whichever comes first')
        """
        said = [
            f"{value:g} {unit}{'' if value == 1 else 's'}"
            for value, unit in ((self.after_hours, "running hour"), (self.after_days or None, "day"), (self.after_months, "month"))
            if value is not None
        ]
        return " or ".join(said) + (", whichever comes first" if len(said) > 1 else "") if said else "at once"


OIL = UpkeepRule(
    "oil", "oil change", "Change the oil, and look at the belts with it", repeats=False, page="tension", source="the machine's own manual"
)


def oil_rule(interval_h: float) -> UpkeepRule:
    """The next oil change, by the interval that was asked for once."""
    return replace(OIL, after_hours=interval_h)


def rules_of(own: Iterable[tuple[UpkeepRule, bool]]) -> tuple[UpkeepRule, ...]:
    """The standard rules, with a shop's `own` in their place or beside them; one of its own that is not used leaves nothing."""
    held = {rule.key: (rule, used) for rule, used in own}
    standard = [held.pop(rule.key, (rule, True)) for rule in standard_rules()]
    return tuple(rule for rule, used in [*standard, *held.values()] if used)


@cache
def standard_rules() -> tuple[UpkeepRule, ...]:
    """The rules that hold where a shop has none of its own."""
    return tuple(
        UpkeepRule(
            r["key"],
            r["event"],
            r["what"],
            _number(r["after_hours"]),
            _number(r["after_days"]),
            int(r["after_months"]) if r["after_months"] else None,
            r["repeats"] == "yes",
            () if r["kinds"] == "all" else tuple(r["kinds"].split(";")),
            r["page"],
            r["source"],
        )
        for r in rows("due_rules")
    )


def _number(text: str) -> float | None:
    return float(text) if text else None
