"""V-belts and their sheaves of every kind: sections, names, lengths, grooves, allowances, look-alikes."""

from tuyere.core.families.v_belt.allowance import Allowance, allowance
from tuyere.core.families.v_belt.belt import (
    Belt,
    belt_of,
    made_numbers,
    nearest_belts,
    nearest_made,
    of_section,
    parse_designation,
    standard_belts,
    trade_range,
)
from tuyere.core.families.v_belt.groove import (
    Groove,
    datum_from_outside,
    groove,
    groove_at_outside,
    groove_kinds,
    grooves_of,
    line_on_flat,
    min_datum_diameter,
    outside_from_datum,
    pitch_over_datum,
)
from tuyere.core.families.v_belt.length import Lengths, lengths, number_from_datum, number_from_outside, tape_inside
from tuyere.core.families.v_belt.section import SOURCE, BeltError, Section, centrifugal_mass, section, sections

__all__ = [
    "SOURCE",
    "Allowance",
    "Belt",
    "BeltError",
    "Groove",
    "Lengths",
    "Section",
    "allowance",
    "belt_of",
    "centrifugal_mass",
    "datum_from_outside",
    "groove",
    "groove_at_outside",
    "groove_kinds",
    "grooves_of",
    "lengths",
    "line_on_flat",
    "made_numbers",
    "min_datum_diameter",
    "nearest_belts",
    "nearest_made",
    "number_from_datum",
    "number_from_outside",
    "of_section",
    "outside_from_datum",
    "parse_designation",
    "pitch_over_datum",
    "section",
    "sections",
    "standard_belts",
    "tape_inside",
    "trade_range",
]
