"""Length conventions: what the number in a belt's name measures, and the same belt by every other convention."""

import math
from dataclasses import dataclass

from tuyere.core.basis.quantity import to_si
from tuyere.core.kinds.v_belt.section import LONG_FROM, Section

QUARTER_INCH = to_si(0.25, "length", "in")


@dataclass(frozen=True)
class Lengths:
    """One belt's length by each convention, m. `inside_nominal`: the inside is a name, not a measuring length."""

    inside_m: float
    datum_m: float
    outside_m: float
    inside_nominal: bool


def lengths(belt: Section, number: float) -> Lengths:
    """The lengths of the belt with `number` in its name.

    From 240 up the adders of classical inch belts drop, since long belts are named nearer to their datum length.
    Where no inside length is tabled it is the outside less 2 pi times the height, which is exact for a belt laid in a circle.
    """
    named = number * belt.step_m
    long = belt.unit == "in" and number >= LONG_FROM and belt.named_by == "inside"
    outside = named + (belt.to_outside_long_m if long else belt.to_outside_m)
    datum = named + (belt.to_datum_long_m if long else belt.to_datum_m)
    inside = named + belt.to_inside_m if belt.to_inside_m is not None else outside - 2 * math.pi * belt.height_m
    return Lengths(inside, datum, outside, belt.named_by == "inside")


def number_from_outside(belt: Section, outside_m: float) -> float:
    """The number a belt of this outside length would carry (not rounded): the inverse of `lengths`.

    In the gap at 240, where the adders drop, two numbers can share an outside length; the smaller is given.
    """
    number = (outside_m - belt.to_outside_m) / belt.step_m
    if belt.unit == "in" and belt.named_by == "inside" and number >= LONG_FROM:
        number = max(float(LONG_FROM), (outside_m - belt.to_outside_long_m) / belt.step_m)
    return number


def number_from_datum(belt: Section, datum_m: float) -> float:
    """The number a belt of this datum length would carry (not rounded)."""
    number = (datum_m - belt.to_datum_m) / belt.step_m
    if belt.unit == "in" and belt.named_by == "inside" and number >= LONG_FROM:
        number = max(float(LONG_FROM), (datum_m - belt.to_datum_long_m) / belt.step_m)
    return number


def tape_inside(belt: Section, number: float) -> float:
    """What a tape laid inside the belt reads, m: the outside less 2 pi times the height (the name's inside is nominal)."""
    return lengths(belt, number).outside_m - 2 * math.pi * belt.height_m
