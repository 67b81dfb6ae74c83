"""The fields a person fills in: kind, units, plausible and possible range, and how each is called."""

from dataclasses import dataclass

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import Parsed, QuantityError, System, fraction_inches, from_si, parse, show, to_si
from tuyere.core.basis.table import rows
from tuyere.core.basis.units import KINDS
from tuyere.core.basis.verdict import Offer


@dataclass(frozen=True)
class Field:
    """One quantity field. Ranges are in the kind's US unit: plausible = seen every week, possible = at all."""

    key: str
    label: str
    kind: str
    plausible: tuple[float, float]
    possible: tuple[float, float]
    origin: Origin
    refusal: str

    @property
    def signed(self) -> bool:
        """Whether it may lie below zero."""
        return self.possible[0] < 0

    def bounds_si(self) -> tuple[float, float]:
        """What is possible at all, SI."""
        symbol = KINDS[self.kind].us_symbol
        return to_si(self.possible[0], self.kind, symbol), to_si(self.possible[1], self.kind, symbol)

    def is_plausible(self, value_si: float) -> bool:
        """Whether a value (SI) lies where such a thing usually does."""
        value = from_si(value_si, self.kind, KINDS[self.kind].us_symbol)
        return self.plausible[0] <= value <= self.plausible[1]


def _field(r: dict[str, str]) -> Field:
    usual, possible = ((float(r[low]), float(r[high])) for low, high in (("usual_low", "usual_high"), ("least", "most")))
    return Field(r["key"], r["label"], r["kind"], usual, possible, Origin(r["origin"]), r["refusal"])


FIELDS: dict[str, Field] = {r["key"]: _field(r) for r in rows("fields")}


class OutOfRangeError(QuantityError):
    """A quantity that cannot be here; `offer` is another unit that would make it plausible."""

    def __init__(self, sentence: str, offer: Offer | None) -> None:
        super().__init__(sentence)
        self.offer = offer


@dataclass(frozen=True)
class Note:
    """What the field understood: both systems, the unit taken, and an offer of another unit when one fits better."""

    us: str
    si: str
    unit: str
    offer: Offer | None = None


def read_field(key: str, text: str, unit: str) -> tuple[Parsed | None, Note | None]:
    """Read one field. Raises QuantityError with a sentence when it cannot be read or cannot be at all."""
    spec = FIELDS[key]
    if unit not in {u.symbol for u in KINDS[spec.kind].units}:
        unit = KINDS[spec.kind].us_symbol
    parsed = parse(text, spec.kind, unit, spec.signed)
    if parsed is None:
        return None, None
    offer = _offer(spec, parsed)
    low, high = spec.bounds_si()
    if not low - 1e-9 * abs(low) <= parsed.value_si <= high + 1e-9 * abs(high):
        raise OutOfRangeError(spec.refusal + (" Or was it" if offer else ""), offer)
    value = parsed.value_si
    if spec.kind == "length":
        us, si = _length_both(value, 2 if spec.plausible[1] <= 0.5 else 1)
    else:
        us, si = show(value, spec.kind, System.US), show(value, spec.kind, System.SI)
    return parsed, Note(us, si, parsed.unit, offer)


def _length_both(value_si: float, decimals: int) -> tuple[str, str]:
    """Inches to the third decimal and as the nearest 1/64, so that the person sees both readings of what they typed."""
    inches = from_si(value_si, "length", "in")
    near = fraction_inches(value_si)
    exact = abs(inches * 64 - round(inches * 64)) < 1e-6
    return (f"{near} in" if exact else f"{inches:.3f} in (about {near})"), f"{value_si * 1000:.{decimals}f} mm"


_FAR = 3  # times beyond what is seen every week: a unit written out is asked about too (13 m for 13 in): a judgement


def _offer(spec: Field, parsed: Parsed) -> Offer | None:
    if spec.is_plausible(parsed.value_si) or parsed.value_si == 0:
        return None
    if parsed.unit_was_written and any(spec.is_plausible(parsed.value_si * by) for by in (_FAR, 1 / _FAR)):
        return None
    number = from_si(parsed.value_si, spec.kind, parsed.unit)
    kind = KINDS[spec.kind]
    for symbol in (kind.us_symbol, kind.si_symbol):
        if symbol != parsed.unit and spec.is_plausible(to_si(number, spec.kind, symbol)):
            return Offer(symbol, f"{number:g} {symbol}?")
    return None
