"""What holds a stage's tension: it decides how the strands share a load."""

from typing import Literal, get_args

# Fixed centres share a load as T1 + T2 = 2T; an idler on the slack side holds T2; on the tight side, or a pivoted base, the free body decides.
HeldBy = Literal[
    "", "fixed centres", "spring idler, slack side", "weight idler, slack side", "lever idler, slack side", "idler, tight side", "pivoted base"
]  # fmt: skip
HELD_BY: tuple[HeldBy, ...] = get_args(HeldBy)
