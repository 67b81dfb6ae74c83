"""What a start asks of a belt: rows by how the machine is started."""

from typing import NamedTuple

from tuyere.core.basis.table import rows


class StartChoice(NamedTuple):
    """Something to choose: its key and its words."""

    key: str
    label: str


def starts() -> tuple[StartChoice, ...]:
    """The ways a machine is started."""
    return tuple(StartChoice(r["start"], r["label"]) for r in rows("starts"))


def start_times(start: str, high_torque: bool) -> float:
    """What a start asks of the belt, as times the full-load torque: what the motor gives for a moment, less what its own rotor takes.

    Raises KeyError for a start that the table lacks.

    >>> round(start_times("direct", False), 2), start_times("soft", True)
    (1.76, 1.3)
    """
    for r in rows("starts"):
        if r["start"] == start:
            return float(r["motor_high" if high_torque else "motor"]) * float(r["to_belt"])
    raise KeyError(start)
