"""Toothed (synchronous) belts: profiles, pulleys, names, tooth shapes. Figures: tables/toothed_*.csv."""

from tuyere.core.kinds.synchronous.name import ToothedBelt, forms_of, parse_name, standard_teeth
from tuyere.core.kinds.synchronous.profile import (
    Profile,
    ToothedError,
    least_teeth_at,
    outside_diameter,
    pitch_diameter,
    profile,
    profiles,
    pulley_teeth,
    teeth_from_outside,
)
from tuyere.core.kinds.synchronous.tooth import belt_outline

__all__ = [
    "Profile",
    "ToothedBelt",
    "ToothedError",
    "belt_outline",
    "forms_of",
    "least_teeth_at",
    "outside_diameter",
    "parse_name",
    "pitch_diameter",
    "profile",
    "profiles",
    "pulley_teeth",
    "standard_teeth",
    "teeth_from_outside",
]
