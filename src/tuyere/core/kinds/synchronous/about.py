"""Toothed belts as a kind of drive, by their name and habits."""

from tuyere.core.kinds.about import AboutTeeth
from tuyere.core.kinds.rating.service import speed_up_added


class ToothedBelts(AboutTeeth):
    """A belt with teeth: no slip, and faster driven shafts wear its teeth."""

    key = "synchronous"
    label = "toothed belt"
    group = "synchronous"
    overhung_factor = 1.25

    def speed_up(self, ratio_up: float) -> tuple[float, float, str]:
        """IP-24 adds to the factor."""
        added = speed_up_added(ratio_up)
        return 1.0, added, f" Speeding up {ratio_up:.2f} times adds {added:.1f}." if added else ""


ABOUT = ToothedBelts()
