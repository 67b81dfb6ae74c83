"""What a name that nobody makes is answered with."""


class NotKnownError(ValueError):
    """The name is not known here; the message is a sentence for the person."""
