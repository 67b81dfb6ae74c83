"""A machine that stands: what is done in order, one thing after the other, until it tells."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from tuyere.core.stations.inspect.diagnosis.knowledge import TriageStep, knowledge


@dataclass(frozen=True)
class Taken:
    """A step, how it came out (None: it is the next to do), and what that means where it ends the matter."""

    step: TriageStep
    answer: bool | None
    ends: str = ""


def triage(family: str, seen: Collection[str], checks: Mapping[str, bool | float | str], ticks: Collection[str]) -> tuple[Taken, ...]:
    """The steps done and the next one; empty where the family has none or its sign is not seen. "cannot" is gone on from.

    >>> [t.step.key for t in triage("conveyor", ["conv_stopped"], {"conv_walk": False, "conv_volts": "cannot"}, ["isolate"])]
    ['walk', 'supply', 'isolate', 'chain_off']
    >>> triage("conveyor", ["conv_stopped"], {"conv_walk": True}, [])[-1].ends[:7]
    'Isolate'
    """
    taken: list[Taken] = []
    for step in knowledge().triage:
        if step.family != family or step.sign not in seen:
            continue
        answer = checks.get(step.check) if step.check else (True if step.key in ticks else None)
        if answer is None:
            return (*taken, Taken(step, None))
        yes = answer is True
        ends = step.yes if yes and step.check else step.no if answer is False else ""
        taken.append(Taken(step, yes, ends))
        if ends:
            break
    return tuple(taken)
