"""Drive families: one module each, with its tables."""
