"""Service factors by family, for one and the same duty: each family's own standard where it has one."""

from functools import cache

from tuyere.core.rating import ip20
from tuyere.core.selection.problem import IDLERS, Family, Problem
from tuyere.core.table import rows

# What IP-24 adds to a toothed belt that speeds up, from each ratio on (high).
SPEED_UP = ((3.5, 0.4), (2.5, 0.3), (1.75, 0.2), (1.25, 0.1))
_V = ("v-belt", "double-V", "link belt")


@cache
def _other() -> dict[tuple[str, str, str, str], tuple[float, str]]:
    return {
        (r["family"], r["driven_class"], r["driver_class"], r["duty"]): (float(r["service_factor"]), r["source"])
        for r in rows("service_factor_other")
    }


def speed_up_added(ratio_up: float) -> float:
    """What IP-24 adds for a driven shaft that turns `ratio_up` times as fast as the driver.

    >>> speed_up_added(2.0), speed_up_added(0.5)
    (0.2, 0.0)
    """
    return next((added for start, added in SPEED_UP if ratio_up >= start), 0.0)


def service_factor(family: Family, problem: Problem) -> tuple[float, str]:
    """The factor and its source. Raises OutOfRangeError for an unknown class.

    >>> service_factor("synchronous", Problem(1, 1, 1, driven_class="heavy", hours_per_day=20))[0]
    2.1
    """
    if family in _V:
        factor, source = ip20.service_factor(problem.driven_class, problem.driver_class, problem.hours_per_day), ip20.SOURCE
    else:
        duty = ip20.duty(problem.hours_per_day)
        key = (family, problem.driven_class, problem.driver_class)
        found = _other().get((*key, duty)) or _other().get((*key, "any"))
        if found is None:
            raise ip20.OutOfRangeError("Choose the kind of driven machine and of driver from the lists.")
        factor, source = found[0], f"{found[1]} (from memory)"
    if family == "synchronous":
        factor += speed_up_added(problem.driven_speed / problem.driver_speed)
    if family != "roller chain":
        factor += IDLERS[problem.idler]
    return round(factor, 4), source
