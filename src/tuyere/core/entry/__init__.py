"""From typed text to values: the only reader."""
