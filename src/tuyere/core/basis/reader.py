"""Reading a form field by field: what was understood of each, and what is wrong with it, kept beside it."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import TypeVar

from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import QuantityError, whole_number
from tuyere.core.basis.typed import Given, Typed, given
from tuyere.core.basis.verdict import Problem

_UNKNOWN = ("", "-", "?")
_Word = TypeVar("_Word", bound=str)
_DEGREES = re.compile(r"^\s*(-?\d+(?:[.,]\d+)?)\s*°?\s*([CFcf])\s*$")


@dataclass
class FieldReader:
    """Quantities and words as typed; `notes` and `problems` gather by field while they are read."""

    quantities: Mapping[str, Typed]
    words: Mapping[str, str]
    notes: dict[str, Note] = field(default_factory=dict)
    problems: list[Problem] = field(default_factory=list)

    def given(self, key: str, as_field: str | None = None, tool: str | None = None) -> Given | None:
        """A quantity with its uncertainty; None when it is not known or cannot be read."""
        typed = self.quantities.get(key, Typed())
        if tool and typed.tool is None:
            typed = Typed(typed.text, typed.unit, typed.origin, tool)
        try:
            found, note = given(key, typed, as_field)
        except QuantityError as refusal:
            self.problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
            return None
        if note:
            self.notes[key] = note
        return found

    def value(self, key: str, as_field: str | None = None) -> float | None:
        """A quantity in SI."""
        found = self.given(key, as_field)
        return found.value if found else None

    def whole(self, key: str, least: int = 1, most: int = 400, sentence: str = "") -> int | None:
        """A count."""
        text = self.words.get(key, "").strip()
        if text in _UNKNOWN:
            return None
        counted = whole_number(text, least, most)
        if counted is None:
            self.problems.append(Problem(key, sentence or f"Count them: a whole number from {least} to {most}."))
        return counted

    def pitch(self, span: str, count: str) -> float | None:
        """One step of a span measured over several (m); a span without a count is a problem beside the count."""
        over, steps = self.value(span, "pitch_span"), self.whole(count, most=200)
        if over is not None and steps is None and not any(p.field == count for p in self.problems):
            self.problems.append(Problem(count, "Count the steps between the two edges measured, such as 12."))
        return over / steps if over is not None and steps else None

    def number(self, key: str, least: float, most: float, sentence: str) -> float | None:
        """A plain number; a comma or a point before the decimals."""
        text = self.words.get(key, "").strip().rstrip("%").replace(",", ".").strip()
        if text in _UNKNOWN:
            return None
        try:
            found = float(text)
        except ValueError:
            found = float("nan")
        if least <= found <= most:
            return found
        self.problems.append(Problem(key, sentence))
        return None

    def celsius(self, key: str) -> float | None:
        """A temperature with its letter, °C; None when it is not known or cannot be read."""
        text = self.words.get(key, "").strip()
        if text in _UNKNOWN:
            return None
        match = _DEGREES.match(text)
        degrees = float(match.group(1).replace(",", ".")) if match else float("nan")
        found = (degrees - 32) / 1.8 if match and match.group(2) in "fF" else degrees
        if -60 <= found <= 500:
            return found
        self.problems.append(Problem(key, "Write the temperature with its letter, such as 70 F or 21 C."))
        return None

    def one_of(self, key: str, known: Sequence[str]) -> str | None:
        """A word of a list; anything else is not known."""
        text = self.words.get(key, "").strip()
        return text if text in known else None

    def choice(self, key: str, known: Sequence[_Word]) -> _Word | None:
        """A word of a list; anything else is a problem beside it."""
        text = self.words.get(key, "").strip()
        found = next((word for word in known if word == text), None)
        if text and found is None:
            self.problems.append(Problem(key, f"“{text[:20]}” is not on the list: choose {', '.join(known)}."))
        return found
