"""Reading and showing quantities the way people write them at a machine.

`parse` takes ``16 1/4``, ``16-1/4"``, ``3' 4 1/2"``, ``410mm``, ``5 hp``, ``3.7kW``; `show` writes them
back in inch or metric form. Conversion factors come from pint; this module owns only the grammar.
"""

import math
import re
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from functools import cache

import pint

from tuyere.core.basis.units import KINDS, QuantityKind

LONGEST_TEXT = 60


class QuantityError(ValueError):
    """The text is not a quantity of the wanted kind; the message is a sentence for the person."""


class System(StrEnum):
    """The two systems every figure is shown in."""

    US = "us"
    SI = "si"


@cache
def _registry() -> "pint.UnitRegistry[float]":
    registry: pint.UnitRegistry[float] = pint.UnitRegistry(cache_folder=None)
    return registry


@cache
def factor(kind: str, symbol: str) -> float:
    """SI units in one `symbol` of `kind` (``factor("length", "in") == 0.0254``)."""
    for unit in KINDS[kind].units:
        if unit.symbol == symbol:
            return float(_registry().Quantity(1.0, unit.pint_unit).to(KINDS[kind].si_unit).magnitude)
    raise KeyError(f"{symbol} is not a unit of {kind}")


def to_si(value: float, kind: str, symbol: str) -> float:
    """`value` in `symbol` as SI."""
    return value * factor(kind, symbol)


def from_si(value_si: float, kind: str, symbol: str) -> float:
    """SI `value_si` in `symbol`.

    >>> round(from_si(0.4064, "length", "in"), 6)
    16.0
    """
    return value_si / factor(kind, symbol)


@dataclass(frozen=True)
class Parsed:
    """What was understood: the value in SI and the unit it was written in (the default one for a bare number)."""

    value_si: float
    unit: str
    unit_was_written: bool


_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}
_NUMBER = r"(?:\d+[ \-]+\d+/\d+|\d+/\d+|\d*\.?\d+(?:[eE][+\-]?\d{1,3})?|\d+\.)"
_LENGTH_TERM = re.compile(rf"\s*-?\s*({_NUMBER})\s*([^\d\s.,\-]+\.?)?\s*")
_HOURS_BY_DAYS = re.compile(r"(\d{1,2})\s*/\s*[567]")  # 24/7 and 8/5: hours a day, by days a week
_WHOLE = re.compile(rf"({_NUMBER})\s*(.*)")


def parse(text: str, kind: str, default_unit: str, signed: bool = False) -> Parsed | None:
    """Read `text` as a quantity of `kind`; a bare number takes `default_unit`; ``-`` or blank means not known. `signed`: it may lie below zero.

    Raises QuantityError with a sentence when the text cannot be read.

    >>> round(parse('16-1/4"', "length", "mm").value_si, 6)
    0.41275
    >>> parse("3' 4 1/2\\"", "length", "in").value_si == 40.5 * 0.0254
    True
    >>> parse("-", "length", "in") is None
    True
    >>> parse("24/7", "duration", "h").value_si / 3600
    24.0
    """
    wanted = KINDS[kind]
    if len(text) > LONGEST_TEXT:
        raise QuantityError(f"That is too long to be {wanted.noun}: write a number and a unit, such as {_example(wanted)}.")
    cleaned = _clean(text)
    if cleaned in ("", "-", "?"):
        return None
    below = signed and cleaned.startswith("-")
    cleaned = cleaned[1:].strip() if below or (signed and cleaned.startswith("+")) else cleaned
    if cleaned.startswith("-"):
        raise QuantityError(
            f"{wanted.noun.capitalize()} here is never below zero: write it without the minus sign, or - alone for not known."
        )
    if kind == "duration" and (round_the_clock := _HOURS_BY_DAYS.fullmatch(cleaned)):
        return Parsed(to_si(int(round_the_clock[1]), kind, "h"), "h", True)
    terms = _terms(cleaned, wanted)
    total, last_unit, written = 0.0, default_unit, False
    for index, (number, unit_text) in enumerate(terms):
        unit = _unit(unit_text, wanted) if unit_text else None
        if unit is None and index:
            unit = "in" if last_unit == "ft" else None
            if unit is None:
                raise QuantityError(f"Two numbers without a unit between them: write {_example(wanted)}.")
        if index and not (kind == "length" and last_unit == "ft" and unit == "in"):
            raise QuantityError(f"Write {wanted.noun} as one number with one unit, such as {_example(wanted)}.")
        last_unit, written = unit or default_unit, written or bool(unit_text)
        total += to_si(number, kind, last_unit)
    if not math.isfinite(total):
        raise QuantityError(f"That number is too large: write {wanted.noun} such as {_example(wanted)}.")
    return Parsed(-total if below else total, last_unit, written)


def _clean(text: str) -> str:
    cleaned = text.strip().replace("–", "-").replace("—", "-").replace("−", "-").replace("\u00a0", " ")
    for glyph, plain in _VULGAR.items():
        cleaned = cleaned.replace(glyph, f" {plain}")
    cleaned = re.sub(r"(?<=[1-9\d])(?<!^0),(?=\d{3}(?!\d))", "", cleaned)  # 1,750
    return re.sub(r"(?<=\d),(?=\d)", ".", cleaned).strip()  # 0,5


def _terms(cleaned: str, wanted: QuantityKind) -> list[tuple[float, str]]:
    """(number, unit as written) pairs; only a length may have two: feet, then inches."""
    refusal = QuantityError(f"“{cleaned}” is not {wanted.noun}: write a number and a unit, such as {_example(wanted)}.")
    if wanted.name != "length":
        match = _WHOLE.fullmatch(cleaned)
        if not match:
            raise refusal
        return [(_number(match.group(1)), match.group(2).strip())]
    terms: list[tuple[float, str]] = []
    position = 0
    while position < len(cleaned):
        match = _LENGTH_TERM.match(cleaned, position)
        if not match:
            raise refusal
        terms.append((_number(match.group(1)), match.group(2) or ""))
        position = match.end()
    return terms


def _number(text: str) -> float:
    whole, _, rest = text.replace("-", " ", 1).partition(" ") if "/" in text and not text.startswith("/") else (text, "", "")
    try:
        if rest:
            return float(int(whole) + Fraction(rest.strip(" -")))
        return float(Fraction(whole)) if "/" in whole else float(whole)
    except ZeroDivisionError:
        raise QuantityError(f"“{text}” divides by zero: the lower number of a fraction is 2, 4, 8, 16, 32 or 64.") from None


@cache
def _unit_index(kind: str) -> dict[str, str]:
    index: dict[str, str] = {}
    for unit in KINDS[kind].units:
        for name in (unit.symbol, *unit.aliases):
            index[name] = unit.symbol
            index.setdefault(name.lower(), unit.symbol)
    return index


def _unit(text: str, wanted: QuantityKind) -> str:
    index = _unit_index(wanted.name)
    found = index.get(text) or index.get(text.lower()) or index.get(text.rstrip(".").lower())
    if not found:
        known = ", ".join(u.symbol for u in wanted.units if u.symbol)
        raise QuantityError(f"“{text}” is not a unit for {wanted.noun} here: use {known or 'a plain number'}.")
    return found


def _example(wanted: QuantityKind) -> str:
    examples = {"length": "16 1/4 in or 410 mm", "power": "5 hp or 3.7 kW", "rotation": "1750 rpm", "force": "4 1/2 lbf or 20 N"}
    return examples.get(wanted.name, f"12 {wanted.us_symbol}".strip())


_LONGEST_COUNT = 9  # digits


def whole_number(text: str, least: int, most: int) -> int | None:
    """A count as people write one, or None where it is none within the bounds. The one reader of counts: what is bounded is what is used.

    >>> whole_number(" 007 ", 1, 20), whole_number("0000011000000", 1, 20), whole_number("²", 1, 20)
    (7, None, None)
    """
    digits = text.strip()
    if not (digits.isascii() and digits.isdigit() and len(digits) <= _LONGEST_COUNT):
        return None
    return found if least <= (found := int(digits)) <= most else None


def fraction_inches(value_m: float, denominator: int = 64) -> str:
    """A length to set, as a mechanic reads it: whole inches and the nearest 1/`denominator`, reduced.

    >>> fraction_inches(16.25 * 0.0254)
    '16 1/4'
    >>> fraction_inches(0.0)
    '0'
    """
    sixty_fourths = round(from_si(value_m, "length", "in") * denominator)
    whole, part = divmod(abs(sixty_fourths), denominator)
    sign = "-" if sixty_fourths < 0 else ""
    fraction = f"{Fraction(part, denominator)}" if part else ""
    return sign + (" ".join(t for t in ((str(whole) if whole or not part else ""), fraction) if t))


def half_millimetres(value_m: float) -> str:
    """A length to set in metric: to the nearest 0.5 mm.

    >>> half_millimetres(0.0063)
    '6.5'
    """
    return f"{round(value_m * 2000) / 2:g}"


def show(value_si: float, kind: str, system: System, decimals: int | None = None) -> str:
    """`value_si` with its unit, in the usual unit of `system`, thousands separated from 10 000 up.

    >>> show(0.4064, "length", System.US), show(3728.5, "power", System.SI)
    ('16.00 in', '3.73 kW')
    """
    spec = KINDS[kind]
    symbol = spec.us_symbol if system is System.US else spec.si_symbol
    places = decimals if decimals is not None else (spec.us_decimals if system is System.US else spec.si_decimals)
    value = from_si(value_si, kind, symbol)
    if kind == "power" and decimals is None and abs(value) >= 10:
        places = 1
    text = f"{value:,.{places}f}" if abs(value) >= 10_000 else f"{value:.{places}f}"
    if kind == "rotation" and decimals is None and abs(value) < 100:
        text = f"{value:.1f}".removesuffix(".0")
    if kind == "frequency" and decimals is None and abs(value) < 20:
        text = f"{value:.1f}"
    return f"{text} {symbol}".strip() if symbol not in ("°", "%") else f"{text} {symbol}".replace(" °", "°")
