"""What a drive says of its parts that wear."""

from tuyere.core.drive.answer import Answer
from tuyere.core.drive.facts import group_of
from tuyere.core.kinds.roller_chain.told import dog_pitch
from tuyere.core.stations.inspect.wear.read import WornPart


def worn_part(on: Answer) -> WornPart:
    """By the survey of its first stage."""
    loop, figures = on.loop(), on.figures
    teeth = [figures[k].value_si for k in ("driver_teeth", "driven_teeth") if k in figures]
    return WornPart(
        group_of(on.survey),
        loop.link_m if loop else None,
        round(max(teeth)) if teeth else None,
        narrow=bool(loop and loop.narrow),
        dog_pitch_m=dog_pitch(on.survey.first.part),
    )
