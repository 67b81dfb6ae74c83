"""Open formats out: what people print, send and take along."""
