"""What holds a stage's tension: it decides how the strands share a load."""

from typing import Literal, get_args

# Fixed centres share a load as T1 + T2 = 2T, and so does an idler that is latched or bolted: it does not move while it runs. One that a spring,
# weight or lever pushes on the slack side holds T2; on the tight side, or a pivoted base, the free body decides.
HeldBy = Literal[
    "",
    "fixed centres",
    "adjustable, locked",
    "idler, latched",
    "spring idler, slack side",
    "weight idler, slack side",
    "lever idler, slack side",
    "idler, tight side",
    "pivoted base",
]
HELD_BY: tuple[HeldBy, ...] = get_args(HeldBy)
LABELS: dict[HeldBy, str] = {
    "": "not asked yet",
    "fixed centres": "fixed centres: nothing moves",
    "adjustable, locked": "adjustable, locked: slide rails, jack screws, slots",
    "idler, latched": "idler latched or bolted: it does not push while it runs",
    "spring idler, slack side": "idler that a spring pushes while it runs, slack side",
    "weight idler, slack side": "idler that a weight pushes while it runs, slack side",
    "lever idler, slack side": "idler that a lever pushes while it runs, slack side",
    "idler, tight side": "idler that pushes while it runs, tight side",
    "pivoted base": "pivoted base",
}
STANDS: tuple[HeldBy, ...] = ("", "fixed centres", "adjustable, locked")  # without an idler
