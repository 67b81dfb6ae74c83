"""Rounds: what to look at on a drive, running and stopped, and how deep a look it is time for."""
