"""A number or a range: an engine is a band, and so is every answer from it."""

import re
from dataclasses import dataclass

from tuyere.core.basis.field import FIELDS, Note, read_field
from tuyere.core.basis.figure import shown
from tuyere.core.basis.quantity import QuantityError, System, show
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.units import KINDS


@dataclass(frozen=True)
class Band:
    """From `low` to `high`, SI; both the same for a plain number. Everything here is above zero."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        """Its middle."""
        return (self.low + self.high) / 2

    @property
    def wide(self) -> bool:
        """Whether it is more than one value."""
        return self.high > self.low * (1 + 1e-9)

    def __mul__(self, other: "Band") -> "Band":
        return Band(self.low * other.low, self.high * other.high)

    def __truediv__(self, other: "Band") -> "Band":
        return Band(self.low / other.high, self.high / other.low)

    def shown(self, kind: str) -> tuple[str, str]:
        """In both systems."""
        pairs = [shown(v, kind, decimals=(2, 1) if kind == "length" else None) for v in (self.low, self.high)]
        if not self.wide:
            return pairs[0]
        units = (KINDS[kind].us_symbol, KINDS[kind].si_symbol)
        us, si = (f"{pairs[0][i].removesuffix(units[i]).strip()} to {pairs[1][i]}" for i in (0, 1))
        return us, si


def exactly(value: float) -> Band:
    """A plain number as a band."""
    return Band(value, value)


_TO = re.compile(r"\s+to\s+|\s*(?:\.\.|…)\s*", re.IGNORECASE)
_DASH = re.compile(r"(?<=\d)\s*[-–—]\s*(?=\d)")


def read_band(key: str, typed: Typed, as_field: str | None = None) -> tuple[Band | None, Note | None]:
    """Read ``3400 to 3600 rpm`` or a plain quantity; a dash between two speeds means the same. Raises QuantityError.

    >>> band, _ = read_band("driver_speed", Typed("3400 to 3600 rpm", "rpm"))
    >>> round(band.low, 2), round(band.high, 2)
    (356.05, 376.99)
    """
    field = FIELDS[as_field or key]
    parts = _TO.split(typed.text.strip())
    if len(parts) == 1 and field.kind == "rotation":
        parts = _DASH.split(typed.text.strip())
    if len(parts) == 1:
        parsed, note = read_field(field.key, typed.text, typed.unit)
        return (exactly(parsed.value_si), note) if parsed else (None, None)
    if len(parts) != 2:
        raise QuantityError("Write a range as two numbers, such as 3400 to 3600 rpm.")
    second, note = read_field(field.key, parts[1], typed.unit)
    first, _ = read_field(field.key, parts[0], second.unit if second else typed.unit)
    if first is None or second is None or note is None:
        raise QuantityError("Write a range as two numbers, such as 3400 to 3600 rpm.")
    low, high = sorted((first.value_si, second.value_si))
    us, si = (f"{show(low, field.kind, s)} to {show(high, field.kind, s)}" for s in System)
    return Band(low, high), Note(us, si, note.unit)
