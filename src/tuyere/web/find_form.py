"""What was typed of an unnamed belt or its wheel."""

from pydantic import Field

from tuyere.core.basis.typed import Typed
from tuyere.core.stations.find.fit.pairing import SET_SIGNS
from tuyere.record.entry import Entry, Strict, none_typed

# Small sizes are taken with one tool; lengths and wheels by tape.
SMALL = ("top_width", "thickness", "groove_width", "groove_depth", "groove_spacing", "ride", "key_width", "hub_large_end", "bore")


SMALL_TOOLS = ("caliper", "rule", "tape")


class FindQuantities(Strict):
    """What can be measured on a belt, a groove and a wheel."""

    top_width: Entry = none_typed
    thickness: Entry = none_typed
    belt_angle: Entry = none_typed
    outside_length: Entry = none_typed
    inside_length: Entry = none_typed
    laid_out_length: Entry = none_typed
    groove_width: Entry = none_typed
    groove_angle: Entry = none_typed
    groove_depth: Entry = none_typed
    groove_spacing: Entry = none_typed
    wheel_diameter: Entry = none_typed
    bore: Entry = none_typed
    key_width: Entry = none_typed
    hub_large_end: Entry = none_typed
    ride: Entry = none_typed


class FindWords(Strict):
    """What is read or seen: label and marks (? for what cannot be read), construction, kind of machine; the groove's own questions."""

    label: str = Field("", max_length=200)
    marks: str = Field("", max_length=200)
    construction: str = Field("", max_length=40)
    machine: str = Field("", max_length=40)
    ribs: str = Field("", max_length=40)
    tool: str = Field("rule", max_length=40, description="for sizes of belt and groove: caliper, rule or tape")
    belt_section: str = Field("", max_length=40)
    made_for: str = Field("", max_length=40, description="the section the wheel was made for")
    groove_kind: str = Field("standard", max_length=40)
    ride_way: str = Field("proud", max_length=40, description="proud, or sunk below the rim")


class FindForm(Strict):
    """Everything typed about an unnamed belt or its wheel."""

    quantities: FindQuantities = Field(default_factory=FindQuantities)
    words: FindWords = Field(default_factory=FindWords)
    set_signs: list[str] = Field(default_factory=list, max_length=20, description="what is seen on the set: " + ", ".join(SET_SIGNS))

    def typed(self) -> dict[str, Typed]:
        """The quantities, the small sizes with the tool they were taken with."""
        tool = self.words.tool if self.words.tool in SMALL_TOOLS else "rule"
        entries: dict[str, Entry] = {key: getattr(self.quantities, key) for key in type(self.quantities).model_fields}
        return {k: Typed(e.text, e.unit, e.origin, tool if k in SMALL else None) for k, e in entries.items()}
