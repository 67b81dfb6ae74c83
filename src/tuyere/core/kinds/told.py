"""What a kind of drive tells those who work at it, by its part of a survey: for jobs, rounds, wear and paper."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

from tuyere.core.basis.number import Number


class Called(NamedTuple):
    """Its wheels and what runs on them as a person would ask for them: sizes or teeth as typed, empty where not said."""

    driver: str
    driven: str
    runs: str


class Asked(NamedTuple):
    """What is known beside its part.

    Answers given before a job, how fast the belt or chain runs (m/s), whether something takes up its stretch.
    """

    answers: Mapping[str, str]
    speed: float | None
    takes_up: bool


@dataclass(frozen=True)
class Told:
    """Numbers by the name that a job's steps ask for; facts; what is to be said of an option before it is chosen, by question and option."""

    numbers: Mapping[str, Number] = field(default_factory=dict)
    facts: tuple[str, ...] = ()
    notes: Mapping[str, Mapping[str, str]] = field(default_factory=dict)
