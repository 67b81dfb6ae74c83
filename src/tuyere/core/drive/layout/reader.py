"""Reading a layout entry by entry: what was understood of each, and what is wrong with it."""

from dataclasses import dataclass, field

from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import QuantityError, whole_number
from tuyere.core.basis.typed import Given, Typed, given
from tuyere.core.basis.verdict import Problem


@dataclass
class PathReader:
    """Notes and problems gather by field while a layout is read."""

    notes: dict[str, Note] = field(default_factory=dict)
    problems: list[Problem] = field(default_factory=list)

    def one(self, key: str, typed: Typed, as_field: str) -> Given | None:
        """Read one entry; its problem stands beside it."""
        text = typed.text.strip()
        minus = as_field == "coordinate" and len(text) > 1 and text[0] in "-−"
        try:
            found, note = given(key, Typed(text[1:] if minus else text, typed.unit, typed.origin, typed.tool), as_field)
        except QuantityError as refusal:
            self.problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
            return None
        if found and note:
            self.notes[key] = Note(f"-{note.us}", f"-{note.si}", note.unit, note.offer) if minus else note
            return Given(-found.value, found.std, found.origin, found.name) if minus else found
        return None

    def value(self, key: str, typed: Typed, as_field: str) -> float | None:
        """The value of one entry, SI; None where it is not known."""
        found = self.one(key, typed, as_field)
        return found.value if found else None

    def whole(self, key: str, text: str, least: int, most: int) -> int | None:
        """A count; None where nothing is typed."""
        cleaned = text.strip()
        counted = whole_number(cleaned, least, most) if cleaned else None
        if cleaned and counted is None:
            self.problems.append(Problem(key, f"Count them: a whole number from {least} to {most}."))
        return counted
