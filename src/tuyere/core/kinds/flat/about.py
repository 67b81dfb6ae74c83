"""Flat belts as a kind of drive, by their name and habits."""

from tuyere.core.kinds.about import About, Slip


class FlatBelts(About):
    """A flat belt on pulleys."""

    key = "flat belt"
    label = "flat belt"
    group = "flat"
    part = "pulleys"
    slip = Slip((0.01, 0.02), 0.03, "A flat belt in order slips and creeps 1 to 2 %; over 3 % is a fault (common practice, no source)")
    overhung_factor = 2.5


ABOUT = FlatBelts()
