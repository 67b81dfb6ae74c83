"""Roller chain as a kind of drive, by its name and habits."""

from tuyere.core.kinds.about import AboutTeeth


class Chains(AboutTeeth):
    """A chain on sprockets: no slip; its rating is of itself by 15 000 hours."""

    key = "roller chain"
    label = "roller chain"
    group = "chain"
    runs = "chain"
    overhung_factor = 1.0
    counts_idler = False


ABOUT = Chains()
