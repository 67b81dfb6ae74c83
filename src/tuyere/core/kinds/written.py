"""A choice written into a survey: a kind's form as a person would have typed it, sizes as lengths."""

from dataclasses import dataclass
from typing import Any

Written = dict[str, Any]  # words as text, sizes as Length, forms within as dicts


@dataclass(frozen=True)
class Length:
    """A length that a choice writes into a survey (m)."""

    metres: float
