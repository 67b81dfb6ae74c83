"""Service factors by family, for one and the same duty: each family's own standard where it has one."""

from functools import cache, lru_cache

from tuyere.core.basis.table import rows
from tuyere.core.kinds.about import About
from tuyere.core.kinds.rating import duties

# Idlers add to the factor: IP-20 and IP-24 (medium); a flat idler on the back of a belt bends it against its grain.
IDLERS = {"none": 0.0, "slack side, inside": 0.0, "slack side, outside": 0.1, "tight side, inside": 0.1, "tight side, outside": 0.2}
# Who says that an idler holds the tension has said that there is one: where it runs, unless it was said, as most do, on the belt's back.
_HOLDS = {
    "spring idler, slack side": "slack side, outside",
    "weight idler, slack side": "slack side, outside",
    "lever idler, slack side": "slack side, outside",
    "idler, latched": "slack side, outside",
    "idler, tight side": "tight side, outside",
}


def idler_on(idler: str, held_by: str) -> str:
    """The idler that counts, as asked for the service factor: the one said, else the one that holds the tension.

    >>> idler_on("none", "idler, tight side"), idler_on("slack side, inside", "spring idler, slack side"), idler_on("none", "fixed centres")
    ('tight side, outside', 'slack side, inside', 'none')
    """
    return idler if idler not in ("", "none") else _HOLDS.get(held_by, "none")


# Taken for what dust, wet and oil do to grip and wear: common practice, no source; stated wherever it counts.
SURROUNDINGS = {"clean": 0.0, "dusty or wet": 0.1, "abrasive dust or oil": 0.2}
# Frequent or reversing starts: a multiple of the V-belt factor (GB/T 13575.1, medium), taken for every kind.
STARTS = {"seldom": 1.0, "frequent or reversing": 1.2}
# By what a V-belt's factor is multiplied where it speeds up, from each ratio on: GB/T 13575.1; BS 3790 (medium).
V_SPEED_UP = ((3.5, 1.28), (2.5, 1.18), (1.75, 1.11), (1.25, 1.05))
# What IP-24 adds to a toothed belt that speeds up, from each ratio on (high).
SPEED_UP = ((3.5, 0.4), (2.5, 0.3), (1.75, 0.2), (1.25, 0.1))


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


def speed_up_times(ratio_up: float) -> float:
    """By what the factor of V-belts is multiplied for a driven shaft that turns `ratio_up` times as fast as the driver.

    >>> speed_up_times(2.0), speed_up_times(1.2), speed_up_times(4.0)
    (1.11, 1.0, 1.28)
    """
    return next((times for start, times in V_SPEED_UP if ratio_up >= start), 1.0)


@lru_cache(maxsize=512)
def service_factor(
    family: About,
    driven_class: str,
    driver_class: str,
    hours_per_day: float,
    ratio_up: float = 1.0,
    idler: str = "none",
    surroundings: str = "clean",
    starts: str = "seldom",
) -> tuple[float, str]:
    """The factor and its source; a family without a table of its own counts by IP-20's. Raises OutOfRangeError for an unknown class.

    >>> from tuyere.core.kinds.registry import family
    >>> service_factor(family("synchronous"), "heavy", "normal", 20)[0], service_factor(family("roller chain"), "heavy", "normal", 20)[0]
    (2.1, 1.5)
    """
    duty = duties.duty(hours_per_day)
    known = {key[0] for key in _other()}
    times, added, _ = family.speed_up(ratio_up)
    if family.key not in known:
        factor, source = duties.service_factor(driven_class, driver_class, hours_per_day), duties.SOURCE
    else:
        found = _other().get((family.key, driven_class, driver_class, duty)) or _other().get(
            (family.key, driven_class, driver_class, "any")
        )
        if found is None:
            raise duties.OutOfRangeError("Choose the kind of driven machine and of driver from the lists.")
        factor, source = found[0], f"{found[1]} (from memory)"
    factor = factor * times + added
    if family.counts_idler:
        factor += IDLERS[idler]
    return round((factor + SURROUNDINGS[surroundings]) * STARTS[starts], 4), source
