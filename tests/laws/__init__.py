"""What must hold of every drive, whatever station speaks of it."""
