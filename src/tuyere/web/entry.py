"""What every request is made of: models that refuse what they do not know, and one quantity as typed."""

from pydantic import BaseModel, ConfigDict, Field, field_validator

from tuyere.core.entry.typed import Typed
from tuyere.core.origin import Origin

MOST_VERSIONS = 2**31 - 1  # what the column of a row's version holds


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
        return Typed(self.text, self.unit, self.origin)


none_typed = Field(default_factory=Entry)
