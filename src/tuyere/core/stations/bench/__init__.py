"""Look-ups without a drive."""
