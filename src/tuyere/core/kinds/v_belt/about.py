"""V-belts as a kind of drive, by their name and habits."""

from tuyere.core.kinds.about import About, Slip
from tuyere.core.kinds.rating.service import speed_up_times


class VBelts(About):
    """V-belts and ribbed belts, one or a set."""

    key = "v-belt"
    label = "V-belt"
    group = "v"
    part = "sheaves"
    slip = Slip((0.005, 0.02), 0.03, "A V-belt drive in order slips 0.5 to 2 %; over 3 % is a fault (common practice, no source)")
    overhung_factor = 1.5
    forms = ("joined V-belt", "ribbed", "V-flat", "double-V", "link belt")
    turns_open = True

    def speed_up(self, ratio_up: float) -> tuple[float, float, str]:
        """GB/T 13575.1 multiplies the factor."""
        times = speed_up_times(ratio_up)
        return times, 0.0, f" Speeding up {ratio_up:.2f} times multiplies it by {times:g} (GB/T 13575.1; from memory)." if times > 1 else ""


ABOUT = VBelts()
