"""A survey as typed, by the parts that kinds of drive keep in it; and what a kind makes of its part."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from tuyere.core.basis.field import Note
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Verdict
from tuyere.core.kinds.fitted import Fitted, Role


@dataclass(frozen=True)
class Part:
    """One part of a survey: quantities and words by field, and parts of its own by name."""

    quantities: Mapping[str, Typed] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)
    more: Mapping[str, "Part"] = field(default_factory=dict)


@dataclass(frozen=True)
class RecordedWheel:
    """A wheel as the record keeps it: over its rim, or at its datum (m); teeth and face where it has them."""

    role: Role
    diameter_m: float | None
    basis: Literal["outside", "datum"]
    teeth: int | None = None
    face: str = "grooved"


@dataclass(frozen=True)
class Record:
    """What of a stage the record keeps: section, profile or chain; the belt by name; centres (m); lay; the wheels; how many belts."""

    section: str | None
    belt: str | None
    centre_m: float | None
    wheels: tuple[RecordedWheel, ...]
    lay: str | None = None
    count: int | None = None


@dataclass(frozen=True)
class Surveyed:
    """What a kind of drive makes of its part. `driver_speed`: where that part asks for it. `verdicts`: what no sheet says of it."""

    fitted: Fitted | None = None
    record: Record | None = None
    problems: tuple[Problem, ...] = ()
    verdicts: tuple[Verdict, ...] = ()
    driver_speed: Typed | None = None
    notes: Mapping[str, Note] = field(default_factory=dict)
