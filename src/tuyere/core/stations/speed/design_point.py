"""A kept speed against the drive's design point: drifted off it, or never there."""

from collections.abc import Sequence

from tuyere.core.basis.quantity import System, show

NEAR = 0.03  # within this of its design speed a drive counts as set up: common practice, no source


def finding(off: float, design_speed: float, earlier: Sequence[float]) -> str | None:
    """What an inspection writes down; None when the drive is at its design speed.

    off: measured over design speed, less one; `earlier`: the same of the readings before.

    >>> finding(-0.08, 90.0, [-0.07, -0.09])
    'Never set up properly: no reading near its design speed of 859 rpm (now -8 %)'
    >>> finding(-0.08, 90.0, [0.01])
    'Off its design speed of 859 rpm by -8 %: it has been there before'
    >>> finding(0.01, 90.0, []) is None
    True
    """
    if abs(off) <= NEAR:
        return None
    told = show(design_speed, "rotation", System.US)
    if any(abs(o) <= NEAR for o in earlier):
        return f"Off its design speed of {told} by {off * 100:+.0f} %: it has been there before"
    return f"Never set up properly: no reading near its design speed of {told} (now {off * 100:+.0f} %)"
