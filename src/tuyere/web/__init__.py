"""The web: thin routes over the core and the store."""
