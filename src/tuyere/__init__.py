"""Tuyere: belt and chain drives, from the tape measure to the kept record."""

__version__ = "0.1.0"
