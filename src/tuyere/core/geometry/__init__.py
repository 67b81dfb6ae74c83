"""The belt's path: lengths, wraps, spans, centre distance."""
