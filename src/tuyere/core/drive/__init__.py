"""One drive: what was surveyed of it, as typed, and everything that is worked out from that."""
