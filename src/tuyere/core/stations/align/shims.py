"""A lift built from the thicknesses that a shop keeps: at most four to a foot, the nearest there is."""

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations_with_replacement

from tuyere.core.basis.quantity import QuantityError, parse, to_si
from tuyere.core.basis.table import rows

MOST = 4  # shims under one foot: common practice, no source
USUAL = "metric"


@dataclass(frozen=True)
class Pack:
    """Shims under one foot (m), thickest first, and how far they fall short of what is wanted (+) or pass it (-)."""

    pieces: tuple[float, ...]
    short_m: float

    @property
    def thick_m(self) -> float:
        """All pieces together, m."""
        return sum(self.pieces)


@dataclass(frozen=True)
class Stock:
    """Thicknesses at hand (m) and the unit they are called by."""

    thicknesses_m: tuple[float, ...]
    unit: str

    def name(self, thick_m: float) -> str:
        """As it is marked.

        >>> stock_of("metric").name(0.00025)
        '0.25'
        """
        number = thick_m / to_si(1, "length", self.unit)
        return f"{number:.3f}" if self.unit == "in" else f"{number:g}" if abs(number) < 1 else f"{number:.6g}"


def stocks() -> dict[str, str]:
    """The sets there are, by key: how each is called."""
    return {r["key"]: r["label"] for r in rows("align_shims")}


def stock_of(said: str) -> Stock:
    """A set by its key, or a list of thicknesses as typed (`0.5 1 2 mm`, `.010, .020 in`). Raises QuantityError with a sentence."""
    key = said.strip() or USUAL
    for r in rows("align_shims"):
        if r["key"] == key:
            return Stock(tuple(to_si(float(t), "length", r["unit"]) for t in r["thicknesses"].split()), r["unit"])
    words = key.replace(",", " ").replace(";", " ").split()
    unit = next((u for u in ("mm", "in") if words and words[-1].endswith(u)), "")
    words = [w.removesuffix(unit) for w in words] if unit else words
    sentence = "Write the thicknesses of the shims at hand with their unit, such as 0.1 0.25 0.5 1 mm."
    if not unit:
        raise QuantityError(sentence)
    found = []
    for word in filter(None, words):
        try:
            read = parse(word, "length", unit)
        except QuantityError:
            raise QuantityError(sentence) from None
        if read is None or not 1e-5 <= read.value_si <= 0.03:
            raise QuantityError(sentence)
        found.append(read.value_si)
    if not found:
        raise QuantityError(sentence)
    return Stock(tuple(sorted(set(found))[:24]), unit)


@lru_cache(maxsize=4096)
def pack(lift_m: float, stock: Stock) -> Pack:
    """The pack nearest to a lift, of as few shims as come within a quarter of the thinnest of the nearest.

    >>> [round(p * 1000, 2) for p in pack(0.00126, stock_of("metric")).pieces]
    [1.0, 0.25]
    """
    if lift_m <= 0:
        return Pack((), lift_m)
    found: list[tuple[float, int, tuple[float, ...]]] = [(lift_m, 0, ())]
    for count in range(1, MOST + 1):
        found += [(abs(lift_m - sum(pieces)), count, pieces) for pieces in combinations_with_replacement(stock.thicknesses_m, count)]
    nearest = min(f[0] for f in found)
    slack = min(stock.thicknesses_m) / 4
    _, _, pieces = min((f for f in found if f[0] <= nearest + slack), key=lambda f: (f[1], f[0]))
    return Pack(tuple(sorted(pieces, reverse=True)), lift_m - sum(pieces))
