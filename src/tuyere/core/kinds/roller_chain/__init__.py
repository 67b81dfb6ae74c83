"""Roller chain and its kin: sizes, sprockets, lengths, wear. Figures: tables/chains.csv."""

from tuyere.core.kinds.roller_chain.chain import Chain, ChainError, chain, chains, parse_mark
from tuyere.core.kinds.roller_chain.length import Elongation, centre_distance, elongation, elongation_limit, length_in_pitches
from tuyere.core.kinds.roller_chain.sprocket import (
    Sprocket,
    caliper_diameter,
    outside_diameter,
    pitch_diameter,
    pitch_from_caliper,
    sprocket,
    tooth_outline,
)

__all__ = [
    "Chain",
    "ChainError",
    "Elongation",
    "Sprocket",
    "caliper_diameter",
    "centre_distance",
    "chain",
    "chains",
    "elongation",
    "elongation_limit",
    "length_in_pitches",
    "outside_diameter",
    "parse_mark",
    "pitch_diameter",
    "pitch_from_caliper",
    "sprocket",
    "tooth_outline",
]
