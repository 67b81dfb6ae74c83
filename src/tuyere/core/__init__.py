"""The trade: pure functions and frozen dataclasses, SI inside, no I/O but the tables."""
