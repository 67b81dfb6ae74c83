"""The counter slip: the one answer to take to the shop. Made from what was found out, complete or not."""

from dataclasses import dataclass


@dataclass(frozen=True)
class CounterSlip:
    """What to ask for and what not to accept, each line short enough to be read at arm's length."""

    headline: str
    count: str
    names: tuple[str, ...]
    machine_part: str
    section: tuple[str, ...]
    length: tuple[str, ...]
    grade: tuple[str, ...]
    refuse: tuple[str, ...]
    check_first: tuple[str, ...]
