"""One interface for every instrument: point it at something, get what its display shows."""

import math
import random
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from tuyere.core.basis.quantity import from_si, to_si

Target = Literal["driver shaft", "driven shaft", "motor lead", "plenum"]


@dataclass(frozen=True)
class Truth:
    """What is true at a machine just now, SI; None where there is nothing to read."""

    driver_speed: float | None = None
    driven_speed: float | None = None
    amps: float | None = None
    pressure: float | None = None

    def at(self, target: Target) -> float | None:
        """What is true there, SI; None where there is nothing to read."""
        return {
            "driver shaft": self.driver_speed,
            "driven shaft": self.driven_speed,
            "motor lead": self.amps,
            "plenum": self.pressure,
        }[target]


@dataclass(frozen=True)
class Shown:
    """What the display shows: text and unit, as a person would type it, and a word beside it."""

    text: str
    unit: str
    word: str = ""


@dataclass(frozen=True)
class Device:
    """A simulated instrument: what it may be pointed at, and how it turns the truth into a display."""

    name: str
    targets: tuple[Target, ...]
    read: Callable[[float, random.Random], Shown]


def _tachometer(speed: float, noise: random.Random) -> Shown:
    """A laser tachometer on a strip of tape: half a rpm and 0.03 %; once in a while it counts a second bright spot and shows double."""
    rpm = from_si(speed, "rotation", "rpm") * (1 + noise.gauss(0, 0.0003)) + noise.gauss(0, 0.5)
    if noise.random() < 0.04:
        return Shown(f"{2 * rpm:.0f}", "rpm", "steady, but twice what it was: is a second bright spot on the shaft?")
    return Shown(f"{rpm:.0f}", "rpm")


def _clamp(amps: float, noise: random.Random) -> Shown:
    """A clamp meter on one lead: 1.5 % and a digit."""
    return Shown(f"{amps * (1 + noise.gauss(0, 0.008)) + noise.gauss(0, 0.05):.1f}", "A")


def _manometer(pressure: float, noise: random.Random) -> Shown:
    """An inclined manometer at the plenum: it sways by a few hundredths of an inch of water."""
    inches = from_si(pressure, "pressure", "inH2O") * (1 + noise.gauss(0, 0.01)) + noise.gauss(0, 0.01)
    return Shown(f"{max(0.0, inches):.2f}", "inH2O")


DEVICES = {
    d.name: d
    for d in (
        Device("tachometer", ("driver shaft", "driven shaft"), _tachometer),
        Device("clamp meter", ("motor lead",), _clamp),
        Device("manometer", ("plenum",), _manometer),
    )
}
_MOST_IMAGES = 6
_STILL = 0.002


def strobe(speed: float, flashes_per_minute: float) -> Shown:
    """What one mark on a shaft looks like under a strobe: n/f = p/q in lowest terms shows q still images.

    So one image stands still at the speed itself, and also at a half and a third of it; two stand at twice the speed. Aliasing is
    why one starts high and comes down: the highest rate with a single image is the speed.

    >>> from tuyere.core.basis.quantity import to_si
    >>> [strobe(to_si(1200, "rotation", "rpm"), f).word for f in (2400, 1200, 600, 800)]
    ['2 images stand still', '1 image stands still', '1 image stands still', '2 images stand still']
    """
    flash = to_si(flashes_per_minute, "rotation", "rpm")
    share = speed / flash
    near = Fraction(share).limit_denominator(_MOST_IMAGES)
    if near > 0 and math.isclose(share, near.numerator / near.denominator, rel_tol=_STILL):
        q = near.denominator
        return Shown(f"{flashes_per_minute:.0f}", "rpm", f"{q} image{'s' if q > 1 else ''} stand{'' if q > 1 else 's'} still")
    drift = "forward" if share % 1 < 0.5 else "back"
    return Shown(f"{flashes_per_minute:.0f}", "rpm", f"the mark drifts {drift}")
