"""What a rating is asked for.

Duties by hours, classes of driven machine, and IP-20's service factors, which every kind without its own goes by.
"""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.table import rows

SOURCE = "ARPM/RMA-MPTA IP-20; Machinery's Handbook (from memory)"
DUTY_HOURS = {"intermittent": "under 6 h a day", "normal": "6 to 15 h a day", "continuous": "over 15 h a day"}


class OutOfRangeError(ValueError):
    """The standard does not cover this case; the message says so and why."""


def duty(hours_per_day: float) -> str:
    """The table's duty column for so many hours a day: the bounds are those of textbook use (under 6, 6-15, over 15)."""
    if hours_per_day < 6:
        return "intermittent"
    return "normal" if hours_per_day <= 15 else "continuous"


@dataclass(frozen=True)
class DrivenClass:
    """A class of driven machines in the service-factor table."""

    name: str
    title: str


@cache
def driven_classes() -> tuple[DrivenClass, ...]:
    """The classes of driven machines, lightest first."""
    return tuple(dict.fromkeys(DrivenClass(r["driven_class"], r["title"]) for r in rows("ip20_service_factor")))


def service_factor(driven_class: str, driver_class: str, hours_per_day: float) -> float:
    """Service factor by class of driven machine, class of driver (normal, high) and hours a day.

    >>> service_factor("light", "normal", 10)
    1.1
    """
    for r in rows("ip20_service_factor"):
        if (r["driven_class"], r["driver_class"], r["duty"]) == (driven_class, driver_class, duty(hours_per_day)):
            return float(r["service_factor"])
    raise OutOfRangeError("Choose the kind of driven machine and of driver from the lists.")
