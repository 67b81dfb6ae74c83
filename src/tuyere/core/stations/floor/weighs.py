"""What weighs of a drive, station by station: what a list of drives says of it."""

from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.answer import Answer
from tuyere.core.stations.speed.station import felt
from tuyere.core.stations.tension.station import tension_of

_WEIGHS = (Tone.STOP, Tone.WATCH)


def weighs(on: Answer) -> tuple[Verdict, ...]:
    """Every verdict of its stations that wants attention."""
    found = [*on.page.verdicts]
    found += on.path.verdicts if on.path else ()
    found += [v for stage in on.train.stages for v in stage.verdicts] if on.train else []
    found += on.reading.surveyed.verdicts
    for number, stage in enumerate(on.survey.stages, 1):
        found += stage.family.beside(stage.part).verdicts
        tight = tension_of(on, number)
        found += tight.verdicts if tight else ()
    if on.page.has("driven_speed") and (feels := felt(on, on.page.values["driven_speed"].n).felt):
        found += feels.verdicts
    return tuple(v for v in found if v.tone in _WEIGHS)
