"""The floor: what wants a hand, of every drive, by one rule."""
