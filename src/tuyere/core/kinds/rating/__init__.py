"""Rated power by named standard methods."""
