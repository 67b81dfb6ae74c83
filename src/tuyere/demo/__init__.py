"""The sample plant: an invented maltings with its yard and workshop."""
