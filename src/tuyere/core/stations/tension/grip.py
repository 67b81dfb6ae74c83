"""Where a belt lets go: rows that a person can see and change, each from likely to cautious."""

import math
from typing import NamedTuple

from tuyere.core.basis.table import rows
from tuyere.core.drive.stage import TightStage
from tuyere.core.kinds.starts import StartChoice
from tuyere.core.mechanics.on_wheels.strain import FLAT

CAUTIOUS_FLAT = (
    0.25  # of friction where a face has no grooves: leather on cast iron dry (Khurmi; from memory), the lowest of the usual belts
)


class Grip(NamedTuple):
    """Tight over slack strand at half a turn in its own groove (infinite.

    Teeth), and friction on a face without, likely and cautious; why.
    """

    likely: float
    cautious: float
    flat_likely: float
    flat_cautious: float
    said: str


def surfaces() -> tuple[StartChoice, ...]:
    """The faces a belt may run on."""
    return tuple(StartChoice(r["surface"], r["label"]) for r in rows("grip_surfaces"))


def grip_of(stage: TightStage, surface: str = "dry", lets_go: float | None = None) -> Grip:
    """The grip of a stage's belt on a surface; `lets_go`: what somebody said in place of the likely ratio.

    An exponent is left by its share: R at half a turn becomes R to that share.
    """
    if not stage.loop.slips:
        return Grip(math.inf, math.inf, FLAT, FLAT, "teeth do not slip")
    face = next((r for r in rows("grip_surfaces") if r["surface"] == surface), rows("grip_surfaces")[0])
    own = next((r for r in rows("grips") if r["belt"] == stage.loop.traits), None)
    if own:
        likely, cautious, source = float(own["likely"]), float(own["cautious"]), own["source"]
    else:
        likely, cautious, source = (
            math.exp(math.pi * (stage.strand.friction or FLAT)),
            stage.loop.design_ratio(math.pi),
            "its friction by its table",
        )
    share, least = float(face["likely"]), float(face["cautious"])
    likely = lets_go or likely**share
    cautious = min(cautious**least, likely)
    said = f"lets go at {likely:.3g} : 1 at half a turn, cautious {cautious:.3g} : 1; {face['label']} ({'as said at this drive' if lets_go else source})"
    return Grip(likely, cautious, FLAT * share, CAUTIOUS_FLAT * least, said)
