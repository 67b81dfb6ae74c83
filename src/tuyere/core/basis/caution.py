"""The cautions that belong beside each task."""

from dataclasses import dataclass

from tuyere.core.basis.table import rows

DEFERENCE = "Your site's rules, local codes, the machine's manual and licensed practice come first; where they differ, the stricter holds."


@dataclass(frozen=True)
class Caution:
    """One caution and where it comes from."""

    id: str
    text: str
    source: str


def cautions(task: str) -> tuple[Caution, ...]:
    """The cautions for a task (survey, speed, tension, align, size, wheel, chain)."""
    return tuple(Caution(r["id"], r["text"], r["source"]) for r in rows("cautions") if task in r["tasks"].split())
