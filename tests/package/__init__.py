"""What the package is made of, and how its rooms hang together."""
