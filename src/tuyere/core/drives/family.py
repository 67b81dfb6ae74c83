"""What every kind of drive answers, whatever it is."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Slip:
    """How much a drive of a kind loses, as shares: the usual range, from where on it is a fault, and in words. Common practice, no source."""

    usual: tuple[float, float]
    fault: float
    said: str
