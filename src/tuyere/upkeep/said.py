"""What is said to the person at the terminal, and how a start is given up."""

import sys


class GivingUp(Exception):
    """The start cannot go on; the text is a sentence for the person."""


def say(text: str) -> None:
    """A line on standard error."""
    print(text, file=sys.stderr, flush=True)
