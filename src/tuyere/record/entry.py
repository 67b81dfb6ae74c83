"""What every request is made of: models that refuse what they do not know, and one quantity as typed."""

from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, field_validator

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.typed import Typed
from tuyere.core.kinds import registry
from tuyere.core.kinds.survey import Part

MOST_VERSIONS = 2**31 - 1  # what the column of a row's version holds


def _known(key: str) -> str:
    return registry.family(key).key


def _meshing(key: str) -> str:
    return registry.meshing(key).key


# A kind of drive by its key, as the registry has it.
_NAMED = f"one of: {', '.join(f.key for f in registry.FAMILIES)}"
FamilyKey = Annotated[str, Field(max_length=40, description=_NAMED), AfterValidator(_known)]
MeshingKey = Annotated[
    str, Field(max_length=40, description=f"one of: {', '.join(f.key for f in registry.MESHING)}"), AfterValidator(_meshing)
]
USUAL_FAMILY = registry.FAMILIES[0].key
USUAL_MESHING = registry.MESHING[0].key


class Strict(BaseModel):
    """A request model: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")

    @field_validator("*", mode="before")
    @classmethod
    def no_invisible_characters(cls, value: object) -> object:
        """A NUL cannot be stored."""
        if isinstance(value, str) and "\x00" in value:
            raise ValueError("There is an invisible character in this text: type it again by hand.")
        return value


class Entry(Strict):
    """One quantity as typed: text, the unit shown in the field (for bare numbers), origin and tool when stated."""

    text: str = Field("", max_length=200)
    unit: str = Field("", max_length=12)
    origin: Origin | None = None

    def typed(self) -> Typed:
        """As the core reads it."""
        return Typed(self.text, self.unit, self.origin)


none_typed = Field(default_factory=Entry)


_OWN = ("quantities", "words", "choices")


def part_of(form: Strict) -> Part:
    """A part of a survey as its kind of drive reads it: entries as typed, words, and parts of its own."""
    quantities: dict[str, Typed] = {}
    words: dict[str, str] = {}
    more: dict[str, Part] = {}
    for name in type(form).model_fields:
        value = getattr(form, name)
        if name == "family":
            continue
        if isinstance(value, Entry):
            quantities[name] = value.typed()
        elif isinstance(value, dict):
            quantities |= {key: entry.typed() for key, entry in value.items() if isinstance(entry, Entry)}
            words |= {key: word for key, word in value.items() if isinstance(word, str)}
        elif isinstance(value, bool):
            words[name] = "yes" if value else ""
        elif isinstance(value, Strict):
            inner = part_of(value)
            more[name] = inner
            if name in _OWN:  # a form may keep its quantities and words in forms of their own
                quantities |= inner.quantities
                words |= inner.words
        else:
            words[name] = str(value)
    return Part(quantities, words, more)
