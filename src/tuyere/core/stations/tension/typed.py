"""A reading of tension as typed."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from tuyere.core.basis.typed import Typed


@dataclass(frozen=True)
class TypedTension:
    """A reading as typed: `values` one for each belt (or one for all), beside them what the method asks more.

    `kept`: what stands with the stage.
    """

    method: str = ""
    fresh: bool = False
    values: Sequence[Typed] = ()
    quantities: Mapping[str, Typed] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)
    kept: Mapping[str, Typed] = field(default_factory=dict)
    kept_words: Mapping[str, str] = field(default_factory=dict)
