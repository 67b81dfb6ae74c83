"""A choice written into a survey: a kind's form as a person would have typed it, sizes as lengths."""

from dataclasses import dataclass
from typing import Any

Written = dict[str, Any]  # words as text, sizes as Length, forms within as dicts


def merged(one: Written, other: Written) -> Written:
    """Both, form by form; where both write a field the other counts.

    >>> merged({"drive": {"name": "60"}}, {"drive": {"teeth_1": "19"}, "belt": "x"})
    {'drive': {'name': '60', 'teeth_1': '19'}, 'belt': 'x'}
    """
    within = {k: merged(one[k], v) for k, v in other.items() if isinstance(v, dict) and isinstance(one.get(k), dict)}
    return one | other | within


@dataclass(frozen=True)
class Length:
    """A length that a choice writes into a survey (m)."""

    metres: float
